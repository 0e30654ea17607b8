import type { Seals } from './seals.ts';

/** What a single call works with that is not the same for every call: the day, and the sealed values that are known. */
export interface CallContext {
  /** Opens and seals the values of sealed parameters; without it no such value is read or written. */
  seals?: Seals | undefined;
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
export const presentDay = (): string => present.today();
