import { linearPattern, PatternNotLinear } from '../patterns/linear-pattern.ts';
import type { TextLimits } from '../types/text-limits.ts';
import type { ParameterDeclaration } from './declaration.ts';
import { DeclarationError } from './declared-type.ts';

/**
 * The limits of a text, its pattern made so that it runs in linear time: an app file may come from anybody.
 * @throws DeclarationError where the limits cross, or the pattern is none or cannot run in linear time
 */
export function declaredTextLimits(
  { minLength, maxLength, pattern }: Pick<ParameterDeclaration, 'minLength' | 'maxLength' | 'pattern'>,
  greatestLength: number,
): TextLimits {
  const least = minLength ?? 0;
  const most = Math.min(maxLength ?? greatestLength, greatestLength);
  if (least > most)
    throw new DeclarationError(
      'minLength',
      'limits-cross',
      `No text can be at least ${String(least)} and at most ${String(most)} characters long.`,
      'Make minLength at most maxLength.',
    );
  return { minLength, maxLength, pattern: pattern === undefined ? undefined : compiled(pattern) };
}

function compiled(pattern: string): { test(text: string): boolean } {
  try {
    return linearPattern(pattern);
  } catch (error) {
    const notLinear = error instanceof PatternNotLinear;
    throw new DeclarationError(
      'pattern',
      notLinear ? 'pattern-not-linear' : 'bad-pattern',
      notLinear
        ? `The pattern ${JSON.stringify(pattern)} cannot be matched in linear time. ${error.message}`
        : `The pattern ${JSON.stringify(pattern)} is not a regular expression.`,
      notLinear ? 'Write it without: say what the whole text may look like.' : 'Write it as ECMA-262 with the flag u has it.',
    );
  }
}
