/** How often something about an address was seen on a day. It holds no text that a visitor wrote, and no person. */
export interface LedgerRow {
  app: string;
  /** YYYY-MM-DD (UTC); YYYY-MM when older than 90 days. */
  day: string;
  /** The page; empty for addresses that no page has. */
  page: string;
  /** The parameter; empty for the page itself. For addresses that no page has, their masked path. */
  parameter: string;
  state: string;
  bucket: string;
  /** Where the visitor came from: `own`, `mail`, `other` or `none`. */
  referrer: string;
  count: number;
}

/** Tries of an address that no page has, on one day. */
export interface TryRow {
  app: string;
  /** Hash of the path, by which tries are counted until its text is kept. */
  mark: string;
  path: string;
  /** YYYY-MM-DD (UTC). */
  day: string;
  tries: number;
}

/** An address that no page has, and that visitors keep trying. */
export interface TriedAddress {
  path: string;
  tries: number;
  /** On how many days. */
  days: number;
  /** The last of them, YYYY-MM-DD (UTC). */
  day: string;
}

export interface LedgerStore {
  /** Adds counts to those that are kept, all or none. The text of a path is kept only after five tries on two days. */
  add(rows: readonly LedgerRow[], tries: readonly TryRow[]): Promise<void>;
  /** @param since YYYY-MM-DD: days from then on */
  list(app: string, since: string): Promise<LedgerRow[]>;
  /** Addresses that visitors keep trying, the most frequent first, at most 100. */
  tried(app: string): Promise<TriedAddress[]>;
  /** Turns the days before one into months, and forgets addresses that nobody has tried since. */
  compact(before: string): Promise<void>;
}
