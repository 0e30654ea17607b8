import { DeclarationError, Refusal } from '../codec.ts';
import type { ParameterDeclaration } from '../declaration.ts';

/** Half a surrogate pair cannot be written in UTF-8; control characters other than tab and line ends cannot be shown. */
function holdsUnwritable(text: string): boolean {
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    if (unit < 32 ? unit !== 9 && unit !== 10 && unit !== 13 : unit === 127) return true;
    if (unit >= 0xd800 && unit <= 0xdfff) return !text.isWellFormed() || holdsUnwritable(text.replaceAll(/[\ud800-\udfff]/g, ''));
  }
  return false;
}

/** Compiles a pattern so that it has to match the whole text, as HTML's `pattern` attribute does. */
export function wholePattern(pattern: string): RegExp {
  try {
    return new RegExp(`^(?:${pattern})$`, 'u');
  } catch {
    throw new DeclarationError(
      'pattern',
      'bad-pattern',
      `The pattern ${JSON.stringify(pattern)} is not a regular expression.`,
      'Write it as ECMA-262 with the flag u has it.',
    );
  }
}

/** Length in Unicode code points, as JSON Schema counts it. */
function countPoints(text: string): number {
  let count = text.length;
  for (let i = 0; i < text.length - 1; i++) {
    const unit = text.charCodeAt(i);
    if (unit >= 0xd800 && unit <= 0xdbff) count--;
  }
  return count;
}

/** Makes the test that texts and keys share: characters, length in code points, pattern. */
export function limitText(
  declaration: Pick<ParameterDeclaration, 'minLength' | 'maxLength' | 'pattern'>,
  greatestLength: number,
): (text: string) => Refusal | undefined {
  const least = declaration.minLength ?? 0;
  const most = Math.min(declaration.maxLength ?? greatestLength, greatestLength);
  if (least > most) {
    throw new DeclarationError(
      'minLength',
      'limits-cross',
      `No text can be at least ${String(least)} and at most ${String(most)} characters long.`,
      'Make minLength at most maxLength.',
    );
  }
  const pattern = declaration.pattern === undefined ? undefined : wholePattern(declaration.pattern);
  return (text) => {
    if (holdsUnwritable(text)) {
      return new Refusal('forbidden-character', 'The text holds a character that cannot be shown.');
    }
    // Code points are at most code units and at least half of them: count only where that leaves a doubt.
    if (text.length > most && (text.length > 2 * most || countPoints(text) > most)) {
      return new Refusal('too-long', `The text is longer than ${String(most)} characters.`);
    }
    if (text.length < 2 * least && countPoints(text) < least) {
      return new Refusal('too-short', `The text is shorter than ${String(least)} characters.`);
    }
    if (pattern !== undefined && !pattern.test(text)) {
      return new Refusal('pattern-mismatch', 'The text does not have the form that is expected here.');
    }
    return undefined;
  };
}
