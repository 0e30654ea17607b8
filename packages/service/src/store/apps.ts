/** An app as it is being changed: the text of its app file. */
export interface DraftRow {
  app: string;
  source: string;
  /** Rises by one with each change. */
  revision: number;
  /** RFC 3339, UTC. */
  changedAt: string;
}

/** A published version of an app; never changed. */
export interface EditionRow {
  app: string;
  number: number;
  source: string;
  /** RFC 3339, UTC. */
  publishedAt: string;
}

/** Drafts and editions. */
export interface AppStore {
  drafts(): Promise<DraftRow[]>;
  draft(app: string): Promise<DraftRow | undefined>;
  /**
   * Keeps a new text of the draft.
   * @param basedOn the revision it was made from; undefined to put it in place whatever is there
   * @returns the draft, or undefined when the draft has moved on from that revision
   */
  saveDraft(app: string, source: string, basedOn: number | undefined): Promise<DraftRow | undefined>;
  /** Keeps a text as the next edition. */
  publish(app: string, source: string): Promise<EditionRow>;
  /** The newest edition of an app. */
  edition(app: string): Promise<EditionRow | undefined>;
  /** The newest edition of every app that has one. */
  editions(): Promise<EditionRow[]>;
}
