import { own } from '../own.ts';
import type { MessagePhrase } from './message-phrases.ts';
import type { Phrase } from './phrases.ts';

/** What the table of phrases is to a page that may or may not have it. */
export type PhraseTable = Readonly<Record<string, readonly string[]>>;

/** Texts of the app file that take the place of Pallmist's own, by language and by the English text. */
export type OwnPhrases = Readonly<Record<string, Readonly<Record<string, string>>>>;

/** Says one of Pallmist's own texts in the language of a page. */
export type Say = (phrase: Phrase | MessagePhrase, ...values: readonly (string | number)[]) => string;

const columns: Readonly<Record<string, number>> = { de: 0, fr: 1, es: 2 };

/** In the order of the columns, with `$1` for what stands between them. */
const quotationMarks = ['„$1“', '« $1 »', '«$1»'];

/** Whether Pallmist has its own texts in a language other than English. */
export const isTranslated = (language: string): boolean => own(columns, primary(language)) !== undefined;

const primary = (language: string) => language.toLowerCase().split('-')[0] ?? '';

/**
 * @param ownPhrases what the app file says instead, in the very language or its primary one
 * @param table Pallmist's translations; without them it speaks English
 */
export function sayIn(language: string, ownPhrases: OwnPhrases | undefined, table: PhraseTable | undefined): Say {
  const column = own(columns, primary(language));
  // Values arrive in English quotation marks.
  const marks = quotationMarks[column ?? -1] ?? '$&';
  return (phrase, ...values) => {
    const text =
      own(ownPhrases, language)?.[phrase] ??
      own(ownPhrases, primary(language))?.[phrase] ??
      (column === undefined ? phrase : table?.[phrase]?.[column]);
    const filled = (_: string, index: string) => String(values[Number(index)] ?? '').replace(/“([^“”]*)”/g, marks);
    return (text ?? phrase).replace(/\{(\d)\}/g, filled);
  };
}

const rightToLeft = new Set(['ar', 'arc', 'ckb', 'dv', 'fa', 'he', 'ps', 'sd', 'ug', 'ur', 'yi']);

/** The direction in which a language is written, as HTML has it. */
export const directionOf = (language: string): 'ltr' | 'rtl' =>
  rightToLeft.has(primary(language)) || /-(?:arab|hebr)\b/i.test(language) ? 'rtl' : 'ltr';

/** English, where no language is known. */
export const inEnglish: Say = sayIn('en', undefined, undefined);
