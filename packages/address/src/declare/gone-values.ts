import { refuse } from '../outcome.ts';
import { Refusal, valueFrom } from '../pages/value-text.ts';
import type { Parameter } from '../parameter.ts';
import { decode } from '../percent.ts';
import type { GoneValue, ParameterDeclaration } from './declaration.ts';
import { quote, toPointer, type Problem } from './problem.ts';

/** Types whose values are listed in the app file: a value that is still listed is not gone. */
const listed = new Set(['choice', 'page']);

/** The same parameter that refuses values which are gone, whatever else it accepts. */
export function withGoneValues(
  plain: Parameter,
  { type, goneValues }: Pick<ParameterDeclaration, 'type' | 'goneValues'>,
  report: (problem: Problem) => void,
): Parameter {
  if (goneValues === undefined) return plain;
  const gone = new Map<string, GoneValue>(Object.entries(goneValues));
  for (const [text, { instead }] of gone) {
    const pointer = toPointer(['goneValues', text]);
    if (listed.has(type) && !(valueFrom(text, plain) instanceof Refusal)) {
      report({
        code: 'gone-value-in-use',
        severity: 'error',
        message: `The value ${quote(text)} is declared as gone, and is a value of the parameter today.`,
        hint: 'Remove it from “goneValues”, or from the values.',
        pointer,
        fix: [{ op: 'remove', path: pointer }],
      });
    }
    if (instead === undefined) continue;
    const value = typeof instead === 'string' && gone.has(instead) ? undefined : valueFrom(instead, plain);
    if (value !== undefined && !(value instanceof Refusal)) continue;
    report({
      code: 'bad-instead',
      severity: 'error',
      message: `The value ${quote(text)} is gone, and the parameter does not accept ${quote(instead)} instead.`,
      hint: value === undefined ? 'That value is gone too.' : value.message,
      pointer: `${pointer}/instead`,
    });
  }
  return {
    ...plain,
    read(source, from, to) {
      const text = decode(source, from, to);
      if (text !== undefined && gone.has(text)) return refuse('gone-value', gone.get(text));
      return plain.read(source, from, to);
    },
  };
}
