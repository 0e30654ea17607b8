import { refuse } from '../outcome.ts';

export interface TextLimits {
  /** Fewest and most characters, in Unicode code points, as JSON Schema counts them. */
  minLength?: number | undefined;
  maxLength?: number | undefined;
  /** What the whole text must match: a regular expression (ECMA-262, flag `u`), or anything that can test a text. */
  pattern?: string | { test(text: string): boolean } | undefined;
}

/** Control characters other than tab and line ends cannot be shown, half a surrogate pair cannot be written in UTF-8. */
// eslint-disable-next-line no-control-regex -- these are what is looked for
const forbidden = /[\0-\b\v\f\x0e-\x1f\x7f]|\p{Cs}/u;

/**
 * Makes the test that texts and keys share: characters, length, pattern.
 * @returns whether a text is accepted; where it is not, it has been refused
 */
export function limitText({ minLength = 0, maxLength, pattern }: TextLimits, greatestLength: number): (text: string) => true | undefined {
  const most = Math.min(maxLength ?? greatestLength, greatestLength);
  const form = typeof pattern === 'string' ? new RegExp(`^(?:${pattern})$`, 'u') : pattern;
  return (text) => {
    // Nearly every text is printable ASCII.
    const odd = /[^ -~]/.test(text);
    if (odd && forbidden.test(text)) return refuse('forbidden-character');
    const length = odd && text.length <= 2 * most ? [...text].length : text.length;
    if (length > most) return refuse('too-long', most);
    if (length < minLength) return refuse('too-short', minLength);
    return form === undefined || form.test(text) ? true : refuse('pattern-mismatch');
  };
}
