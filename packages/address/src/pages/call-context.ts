import type { Sentences } from '../sentences/english.ts';

/**
 * Opens and seals the texts of sealed parameters. What stands in an address is bound to one parameter of one page, so
 * that it is worth nothing anywhere else. Sealing is slow and needs a key, so it happens before: a browser has no key, only
 * the values that the service has opened and sealed for this page.
 */
export interface Seals {
  /** @returns the text, or undefined for whatever reason it cannot be opened */
  open(page: string, parameter: string, sealed: string): string | undefined;
  /** @returns what is to stand in the address, or undefined where nothing was sealed for this text */
  seal(page: string, parameter: string, text: string): string | undefined;
}

/** What a single call works with that is not the same for every call: the day, and the sealed values that are known. */
export interface CallContext {
  /** Opens and seals the values of sealed parameters; without it no such value is read or written. */
  seals?: Seals | undefined;
  /** The sentences for refused values; English when left out. */
  sentences?: Sentences | undefined;
  /** Today's date, YYYY-MM-DD. */
  today: () => string;
}

/** Reading and writing are synchronous: what they work with is the same from their beginning to their end. */
let present: CallContext = { today: () => '' };

/** Called at the beginning of everything that reads or writes values. */
export function enterCall(app: { context: CallContext }): void {
  present = app.context;
}

export const presentSeals = (): Seals | undefined => present.seals;
export const presentSentences = (): Sentences | undefined => present.sentences;
export const presentDay = (): string => present.today();
