import { quote } from '@pallmist/address/declare';
import { linearPattern, linearSearch, PatternNotLinear } from '@pallmist/address/patterns';
import { report, type CheckContext, type Place } from './context.ts';

/**
 * A pattern has to be a regular expression that can be matched in linear time: no text keeps the service busy.
 * @param matches whether it has to match the whole text, or any part of it
 */
export function checkPattern(context: CheckContext, place: Place, pattern: string, matches: 'whole' | 'part' = 'whole'): void {
  try {
    (matches === 'whole' ? linearPattern : linearSearch)(pattern);
  } catch (error) {
    const notLinear = error instanceof PatternNotLinear;
    report(context, place, {
      code: notLinear ? 'pattern-not-linear' : 'bad-pattern',
      message: notLinear
        ? `The pattern ${quote(pattern, 60)} cannot be matched in linear time. ${error.message}`
        : `The pattern ${quote(pattern, 60)} is not a regular expression.`,
      hint: notLinear ? 'Write it without: say what the whole text may look like.' : 'Write it as ECMA-262 with the flag u has it.',
    });
  }
}
