import type { AppDefinition, FieldProblems, FieldTree, PlainRecord, PlannedRead, ReadData, RecordData, SavePlan } from '@pallmist/app';

export type Collections = NonNullable<AppDefinition['collections']>;

/** A record that may be chosen. */
export interface RecordOption {
  key: string;
  title: string;
}

/** A part of a list of records. */
export interface ListPart {
  rows: RecordData[];
  /** Of the whole list. */
  total: number;
  /** By what the last row is sorted; undefined where nothing comes after it. */
  next: (string | number | null)[] | undefined;
}

/** What saving came to: the key of the record, or why it could not be saved. */
export type Saved = { key: string } | { problems: FieldProblems; problem?: string };

/** How many records differ between what is kept and what is to be put in its place, and some of their keys. */
export interface Difference {
  count: number;
  keys: string[];
}

/** How a record that does not fit a changed declaration is told. */
export interface Misfit {
  collection: string;
  field: string;
  problem: string;
  count: number;
  /** Keys of some of them. */
  keys: string[];
}

/** What would be lost if staged records took the place of a collection’s. */
export interface StagedDifferences {
  /** Records that are kept now and not staged. */
  removed: Difference;
  /** Records that people have written, and that would be gone or changed. */
  overwritten: Difference;
}

/** Where records are kept: an app’s own name, or that of the copy on which its draft is tried out. */
export type RecordSpace = string;

/** The records of the apps’ collections. Fields that are wanted are named by path; all are read when left out. */
export interface RecordStore {
  /** Another number whenever a record of the space has changed since the service started. */
  version(space: RecordSpace): number;
  count(space: RecordSpace, collection: string): Promise<number>;
  /** One record by its key, or by another unique field, its references resolved. */
  byKey(
    space: RecordSpace,
    collections: Collections,
    collection: string,
    key: string,
    options?: { by?: string | undefined; fields?: FieldTree | undefined },
  ): Promise<RecordData | undefined>;
  /**
   * Carries out a read: conditions, sort order and page in the database.
   * @param counted fields by whose values its rows are counted, on all pages of the list
   */
  read(space: RecordSpace, collections: Collections, read: PlannedRead, fields?: FieldTree, counted?: readonly string[]): Promise<ReadData>;
  /**
   * A part of a list, from the place where the part before ended; as quick far on as at the beginning, and what is added or
   * removed meanwhile moves nothing.
   * @param after as `next` of the part before
   */
  part(
    space: RecordSpace,
    collections: Collections,
    read: Pick<PlannedRead, 'from' | 'where' | 'sort'>,
    limit: number,
    after?: readonly (string | number | null)[],
  ): Promise<ListPart>;
  /** The records that may be chosen, by title; none of a collection with more than 500, where the key has to be typed. */
  options(space: RecordSpace, collections: Collections, collection: string, by?: string): Promise<RecordOption[]>;
  /** Every record, as plain values, a batch at a time, in the order in which they were made. */
  all(space: RecordSpace, collections: Collections, collection: string): AsyncGenerator<PlainRecord[]>;

  /**
   * Makes the tables, columns and indexes that the collections need. What is not needed any more stays.
   * @param recompute computes fields again whose expression has changed, also where no visitor may see it yet
   */
  prepare(space: RecordSpace, collections: Collections, recompute?: boolean): Promise<void>;
  /** What does not fit the collections as they are declared now, among the records that are there. */
  misfits(space: RecordSpace, app: AppDefinition): Promise<Misfit[]>;
  /** Makes the records fit changed types and keys, once `misfits` finds nothing. */
  convert(space: RecordSpace, app: AppDefinition): Promise<void>;
  /** Carries out what a form wants saved; refused where a key is taken or a reference leads nowhere. */
  save(space: RecordSpace, collections: Collections, plan: SavePlan): Promise<Saved>;

  /** Begins to gather records that are to take the place of a collection’s. */
  stage(space: RecordSpace, collections: Collections, collection: string): Promise<StagedRecords>;
  /** How staged records differ from those that are kept. */
  differences(staged: StagedRecords): Promise<StagedDifferences>;
  /** Puts staged records in the place of a collection’s. @param keepPresent those that are kept now and not staged stay */
  take(staged: StagedRecords, keepPresent: boolean): Promise<void>;
  /** Removes what was staged and never taken, and tables that are not in use any more. */
  sweep(): Promise<void>;

  /** The space in which a draft’s records are: its app’s own while its forms have changed nothing. */
  draftSpace(app: string): RecordSpace;
  /** Makes the copy that a draft’s forms change, unless there is one. */
  beginTrial(app: string, collections: Collections): Promise<RecordSpace>;
  /** From now on the draft shows the app’s own records again. */
  endTrial(app: string): Promise<void>;
  /** Removes all records of an app, those of its draft too. */
  removeAll(app: string): Promise<void>;
}

/** Records on their way in, in a table of their own until they are taken. */
export interface StagedRecords {
  readonly space: RecordSpace;
  readonly collection: string;
  /** @returns the positions in the batch of records whose key, or unique field, an earlier one has */
  add(records: readonly PlainRecord[]): Promise<{ position: number; field: string }[]>;
  /** Keys that a field refers to and that are neither among the target’s records nor among those staged for it. */
  strayReferences(field: string, target: StagedRecords | undefined): Promise<Difference>;
  /** Drops them. */
  drop(): Promise<void>;
}
