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

export interface LedgerStore {
  /** Adds counts to those that are kept. */
  add(rows: readonly LedgerRow[]): Promise<void>;
  /** @param since YYYY-MM-DD: days from then on */
  list(app: string, since: string): Promise<LedgerRow[]>;
  /** Turns the days before one into months. */
  compact(before: string): Promise<void>;
}
