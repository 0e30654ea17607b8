import type { Values } from '@pallmist/app';

/** What a short address stands for: a page and every value on it, those that are defaults too. */
export interface ShortTarget {
  page: string;
  values: Values;
  /** What stands after “#”. */
  fragment?: string;
}

export interface ShortAddress extends ShortTarget {
  code: string;
  app: string;
  /** The edition of the app in which it was made. */
  edition: number;
  /** RFC 3339, UTC. */
  madeAt: string;
  /** RFC 3339, UTC; null for ever. */
  endsAt: string | null;
  /** Hash of the browser’s mark that made it; null where the owner did. */
  maker: string | null;
}

/** Short addresses: codes for addresses too long to share or to print. */
export interface ShortAddressStore {
  /**
   * Makes a short address.
   * @param days how long it leads anywhere; for ever when left out
   */
  make(app: string, edition: number, target: ShortTarget, days?: number): Promise<ShortAddress>;
  /**
   * Makes a short address for a visitor; for the same target the same one again, from now on for so many days.
   * @returns undefined when visitors have made so many that there is no room
   */
  makeFor(maker: string, app: string, edition: number, target: ShortTarget, days: number): Promise<ShortAddress | undefined>;
  /** A short address that leads somewhere still. */
  find(app: string, code: string): Promise<ShortAddress | undefined>;
  /** The newest first, at most 500. */
  list(app: string): Promise<ShortAddress[]>;
  /**
   * @param maker only what this visitor has made
   * @returns false when there is no such code
   */
  withdraw(app: string, code: string, maker?: string): Promise<boolean>;
}
