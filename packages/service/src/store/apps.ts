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
  /** Who published it; empty where that is not known. */
  publishedBy: string;
  /** What they wrote about it. */
  note: string;
}

/** One change of a draft, as the log keeps it. */
export interface DraftChangeRow {
  app: string;
  /** The revision that it made. */
  revision: number;
  /** RFC 3339, UTC. */
  changedAt: string;
  /** Name of the builder. */
  changedBy: string;
  /** What was done, in words. */
  what: string;
  /** The JSON Patch; null where the whole text was replaced. */
  patch: string | null;
}

/** Who changes a draft, and what they do. */
export interface DraftChangeNote {
  by: string;
  what: string;
  patch?: string | undefined;
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
  saveDraft(app: string, source: string, basedOn: number | undefined, note: DraftChangeNote): Promise<DraftRow | undefined>;
  /** The changes of a draft after a revision, the oldest first. */
  changesSince(app: string, revision: number): Promise<DraftChangeRow[]>;
  /** The newest changes of a draft, the newest first. */
  changes(app: string, most: number): Promise<DraftChangeRow[]>;
  /** Keeps a text as the next edition. */
  publish(app: string, source: string, note?: { by: string; note: string }): Promise<EditionRow>;
  /** An edition of an app; the newest when no number is given. */
  edition(app: string, number?: number): Promise<EditionRow | undefined>;
  /** All editions of an app, without their texts, the newest first. */
  editionsOf(app: string): Promise<Omit<EditionRow, 'source'>[]>;
  /** The newest edition of every app that has one. */
  editions(): Promise<EditionRow[]>;
  /** Removes an app with all that is kept for it, except its records, which go by `RecordStore.removeAll`. */
  remove(app: string): Promise<void>;
}
