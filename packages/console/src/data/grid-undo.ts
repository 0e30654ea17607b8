import type { BodyOf, FoundRecords } from '@pallmist/api';

type Change = BodyOf<'changeRecords'>['changes'][number];
type Shown = FoundRecords['records'][number];

/** A change that the grid has made to one record, so that it can be undone. */
export interface MadeChange {
  /** The record’s key after the change. */
  key: string;
  /** The texts that were changed, before and after; missing where the change added the record. */
  texts?: Readonly<Record<string, { before: string; after: string }>>;
}

/**
 * Records a change for Undo.
 * @param before the record as the grid showed it; undefined where the change added it
 * @param after the record as the service keeps it: it writes some texts in its own form
 * @param key of the record after the change
 */
export function madeChange(change: Change, before: Shown | undefined, after: Shown | undefined, key: string): MadeChange {
  const changed = 'change' in change ? change.change : undefined;
  if (changed === undefined || before === undefined) return { key };
  return {
    key,
    texts: Object.fromEntries(
      Object.entries(changed).map(([name, typed]) => [name, { before: before[name] ?? '', after: after?.[name] ?? typed }]),
    ),
  };
}

/**
 * The changes that undo earlier ones.
 * @param now the records as they are now, by key
 * @returns the changes to send, and the keys of records that are gone or that another person changed: these stay as they are
 */
export function undoChanges(made: readonly MadeChange[], now: Iterable<readonly [string, Shown]>): { changes: Change[]; others: string[] } {
  const records = new Map(now);
  const others: string[] = [];
  const changes = made.flatMap(({ key, texts }): Change[] => {
    if (texts === undefined) return [{ key, remove: true }];
    const record = records.get(key);
    if (record === undefined || Object.entries(texts).some(([name, { after }]) => (record[name] ?? '') !== after)) {
      others.push(key);
      return [];
    }
    return [{ key, change: Object.fromEntries(Object.entries(texts).map(([name, { before }]) => [name, before])) }];
  });
  return { changes, others };
}
