import { own } from '../../own.ts';
import type { ParameterDeclaration } from '@pallmist/address/declare';
import { localTime } from '@pallmist/address/pages';
import type { BoxLimits } from '../../view/node-parts.ts';

type Limits = Pick<ParameterDeclaration, 'min' | 'max' | 'maxLength'>;

const kinds: Partial<Record<string, BoxLimits['kind']>> = {
  date: 'date',
  datetime: 'datetime-local',
  integer: 'number',
  number: 'number',
};

/**
 * The limits of a type as HTML has them. A date that is relative to today is left to the service.
 * @param timeZone in which moments are typed
 */
export function limitsOf({ min, max, maxLength }: Limits, type: string | undefined, timeZone = 'UTC'): BoxLimits {
  const kind = own(kinds, type ?? '') ?? 'text';
  if (kind === 'text') return { kind, ...(maxLength === undefined ? {} : { maxLength }) };
  const limit = (given: string | number) => (kind === 'datetime-local' ? localTime(String(given), timeZone) : String(given));
  return {
    kind,
    ...(min === undefined ? {} : { min: limit(min) }),
    ...(max === undefined ? {} : { max: limit(max) }),
    ...(type === 'number' ? { step: 'any' } : {}),
  };
}
