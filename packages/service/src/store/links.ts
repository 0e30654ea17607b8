/** A version of a page whose addresses were published: it is kept for as long as the app is. */
export interface PageVersionRow {
  app: string;
  /** Short mark of all that its addresses depend on. */
  mark: string;
  page: string;
  /** JSON of the version. */
  version: string;
}

/** That a builder agreed to change what addresses of an earlier edition mean. */
export interface ConsentRow {
  app: string;
  /** Mark of the promise that was given up. */
  promise: string;
  /** The edition with which it was. */
  edition: number;
  /** What was agreed to, in words. */
  words: string;
  /** Name of the builder. */
  by: string;
  /** RFC 3339, UTC. */
  at: string;
  why: string;
}

/** An address that is printed somewhere: it cannot be called back, so it has to go on meaning what it means. */
export interface PrintedRow {
  id: string;
  app: string;
  /** Path with query. */
  address: string;
  /** What it is printed on. */
  note: string;
  /** Name of the builder who noted it. */
  by: string;
  /** RFC 3339, UTC. */
  at: string;
}

/** What the addresses of an app promise. */
export interface LinkStore {
  /** The versions of pages, each with the numbers of the editions that had it, the oldest first. */
  versions(app: string): Promise<{ row: PageVersionRow; editions: number[] }[]>;
  /** Notes the versions of the pages of an edition. */
  addEdition(app: string, edition: number, versions: readonly Omit<PageVersionRow, 'app'>[]): Promise<void>;
  /** All consents of an app, the newest first. */
  consents(app: string): Promise<ConsentRow[]>;
  addConsents(consents: readonly ConsentRow[]): Promise<void>;
  /** The printed addresses of an app, the newest first. */
  printed(app: string): Promise<PrintedRow[]>;
  /** Notes a printed address; the same address with the same note is noted once. */
  addPrinted(printed: PrintedRow): Promise<void>;
  /** @returns whether it was there */
  removePrinted(app: string, id: string): Promise<boolean>;
}
