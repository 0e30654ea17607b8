import { corrected } from '../outcome.ts';
import { valueFrom, Refusal } from '../pages/value-text.ts';
import type { Parameter } from '../parameter.ts';
import { decode } from '../percent.ts';
import { quote, toPointer, type Problem } from './problem.ts';

/**
 * The same parameter that also reads texts of the past. A text that it accepts by itself means today's value, so such a
 * text cannot be a former one.
 * @param former texts of the past, each with today's value or its text
 */
export function withFormerValues(
  plain: Parameter,
  former: Readonly<Record<string, unknown>> | undefined,
  report: (problem: Problem) => void,
): Parameter {
  if (former === undefined) return plain;
  const values = new Map<string, unknown>();
  for (const [text, given] of Object.entries(former)) {
    const pointer = toPointer(['formerValues', text]);
    const value = valueFrom(given, plain);
    if (value instanceof Refusal)
      report({
        code: 'bad-former-value',
        severity: 'error',
        message: `The former value ${quote(text)} stands for ${quote(given)}, which the parameter does not accept.`,
        hint: value.message,
        pointer,
      });
    else if (!(valueFrom(text, plain) instanceof Refusal))
      report({
        code: 'former-value-in-use',
        severity: 'error',
        message: `The former value ${quote(text)} is a value of the parameter today, so an address with it would mean two things.`,
        hint: 'Remove it from “formerValues”.',
        pointer,
        fix: [{ op: 'remove', path: pointer }],
      });
    else values.set(text, value);
  }
  return {
    ...plain,
    read(source, from, to) {
      const value = plain.read(source, from, to);
      if (value !== undefined) return value;
      const text = decode(source, from, to);
      return text !== undefined && values.has(text) ? corrected(values.get(text), true) : undefined;
    },
  };
}
