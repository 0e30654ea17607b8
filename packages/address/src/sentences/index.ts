import { english, type Sentences } from './english.ts';

export { french } from './french.ts';
export { german } from './german.ts';
export { spanish } from './spanish.ts';
export { english, type Sentence, type Sentences } from './english.ts';

/**
 * The sentence for a problem's code.
 * @param sentences those of another language; English when left out, and for a code that they lack
 */
export function sentenceOf(code: string, data?: unknown, sentences: Sentences = english): string {
  const sentence = (sentences[code] ?? english[code])?.(data as never) ?? `It is refused (${code}).`;
  // Values arrive in English quotation marks.
  const marks = sentences['quotation-marks']?.(undefined as never);
  return marks === undefined ? sentence : sentence.replace(/“([^“”]*)”/g, marks);
}
