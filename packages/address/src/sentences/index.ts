import { english, type Sentences } from './english.ts';

export { english, type Sentence, type Sentences } from './english.ts';

/**
 * The sentence for a problem's code.
 * @param sentences those of another language; English when left out, and for a code that they lack
 */
export function sentenceOf(code: string, data?: unknown, sentences: Sentences = english): string {
  return (sentences[code] ?? english[code])?.(data) ?? `It is refused (${code}).`;
}
