/** The pictures that come with an app, which belong to it as its records do. */
export interface FileStore {
  put(app: string, name: string, bytes: Buffer): Promise<void>;
  find(app: string, name: string): Promise<Buffer | undefined>;
  /** By name. */
  list(app: string): Promise<{ name: string; bytes: number }[]>;
  remove(app: string, name: string): Promise<boolean>;
}

/** Files that people have sent with forms: loose until the record is saved, for a day at most. */
export interface SentFileStore {
  /**
   * Keeps a file that no record has yet.
   * @returns what the field of a record is to hold; undefined when there is no room
   */
  keep(app: string, name: string, bytes: Buffer): Promise<string | undefined>;
  bytes(app: string, value: string): Promise<Buffer | undefined>;
  /** Whether a file is here that no record has yet. */
  isLoose(app: string, value: string): Promise<boolean>;
  /** A record has the file now. */
  settle(app: string, value: string): Promise<void>;
  /** No record has it any more. */
  drop(app: string, value: string): Promise<void>;
  /** Loosens the files of which `isHeld` says that no record has them: they go after a day. */
  loosenUnless(app: string, isHeld: (value: string) => Promise<boolean>): Promise<number>;
}
