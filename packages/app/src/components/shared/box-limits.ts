import type { ParameterDeclaration } from '@pallmist/address/declare';
import type { BoxLimits } from '../../view/node-parts.ts';

type Limits = Pick<ParameterDeclaration, 'min' | 'max' | 'maxLength'>;

/** The limits of a type as HTML has them. A date that is relative to today is left to the service. */
export function limitsOf({ min, max, maxLength }: Limits, type: string | undefined): BoxLimits {
  const kind = type === 'date' ? 'date' : type === 'integer' || type === 'number' ? 'number' : 'text';
  if (kind === 'text') return { kind, ...(maxLength === undefined ? {} : { maxLength }) };
  return {
    kind,
    ...(min === undefined ? {} : { min: String(min) }),
    ...(max === undefined ? {} : { max: String(max) }),
    ...(type === 'number' ? { step: 'any' } : {}),
  };
}
