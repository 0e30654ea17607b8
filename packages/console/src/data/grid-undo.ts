import type { BodyOf, FoundRecords } from '@pallmist/api';

type Change = BodyOf<'changeRecords'>['changes'][number];
type Shown = FoundRecords['records'][number];

/** What a change of the grid has done to one record. */
export interface Done {
  /** The record’s key after it. */
  key: string;
  /** The texts that were changed, before and after; missing where the record was added. */
  texts?: Readonly<Record<string, { before: string; after: string }>>;
}

/** What a change does to records that are shown, so that it can be taken back. @param key of the record after the change */
export function doneBy(change: Change, shown: Shown | undefined, key: string): Done {
  const changed = 'change' in change ? change.change : undefined;
  if (changed === undefined || shown === undefined) return { key };
  return {
    key,
    texts: Object.fromEntries(Object.entries(changed).map(([name, after]) => [name, { before: shown[name] ?? '', after }])),
  };
}

/**
 * The changes that take others back.
 * @param now texts of the records as they are now, by key
 * @returns those that can be made, and the keys of records that somebody has changed since, which stay as they are
 */
export function takeBack(done: readonly Done[], now: ReadonlyMap<string, Shown>): { changes: Change[]; others: string[] } {
  const others: string[] = [];
  const changes = done.flatMap(({ key, texts }): Change[] => {
    if (texts === undefined) return [{ key, remove: true }];
    const record = now.get(key);
    const isSame = Object.entries(texts).every(([name, { after }]) => record === undefined || sameText(record[name] ?? '', after));
    if (!isSame) {
      others.push(key);
      return [];
    }
    return [{ key, change: Object.fromEntries(Object.entries(texts).map(([name, { before }]) => [name, before])) }];
  });
  return { changes, others };
}

/** The service writes a text in its own form: 1.50 is 1.5, and line ends are one sign. */
function sameText(kept: string, typed: string): boolean {
  const tidy = typed.replaceAll('\r\n', '\n').trim();
  return kept.trim() === tidy || (tidy !== '' && Number(kept) === Number(tidy));
}
