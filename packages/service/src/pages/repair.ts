import {
  own,
  decodeForShow,
  readAddress,
  repairAddress,
  withoutMarks,
  writeAddress,
  type AppDefinition,
  type CompiledApp,
  type Reading,
} from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { RecordSpace, RecordStore } from '../store/records.ts';
import { recordSpace } from './load-data.ts';

/** Longest key that is looked for. */
const longestKey = 200;

/**
 * The address that a damaged one probably was, by its text alone or by the only record with nearly that key.
 * @returns undefined where the address is right, or could mean several things
 */
export async function repaired(
  hosted: HostedApp,
  app: CompiledApp,
  address: string,
  reading: Reading,
  records: RecordStore,
): Promise<string | undefined> {
  const probable = repairAddress(app, address, reading);
  if (probable !== undefined || reading.status === 'found' || reading.page === undefined) return probable;
  const declared = { ...hosted.definition.parameters, ...own(hosted.definition.pages, reading.page)?.parameters };
  const values = { ...reading.values };
  for (const { name, text, problem } of reading.parameters) {
    if (problem === undefined || problem.severity === 'note') continue;
    const { type, of = '', by } = own(declared, name) ?? {};
    // What else is wrong is not lost: the visitor is told.
    if (problem.code === 'gone-value' || type !== 'record' || text === undefined || text.length > 3 * longestKey) return undefined;
    const key = await nearKey(records, recordSpace({ records }, hosted), hosted.definition.collections ?? {}, of, decodeForShow(text), by);
    if (key === undefined) return undefined;
    values[name] = key;
  }
  const to = writeAddress(app, reading.page, values).address;
  return to !== undefined && readAddress(app, to).status === 'found' ? to : undefined;
}

/**
 * The key of the only record that was probably meant by a key that no record has: it differs by capitals, or by punctuation at
 * the end. `qm-0412).` gives `QM-0412`.
 */
export async function nearKey(
  records: RecordStore,
  space: RecordSpace,
  collections: NonNullable<AppDefinition['collections']>,
  from: string,
  key: string,
  by: string | undefined,
): Promise<string | undefined> {
  const field = by ?? own(collections, from)?.keyField ?? '';
  const bare = withoutMarks(key);
  if (bare === '' || bare.length > longestKey) return undefined;
  const where = [{ field, operator: 'startsWith' as const, value: bare }];
  // Those that are no longer than it come first.
  const sort = [{ field, descending: false }];
  const { rows } = await records.read(space, collections, { from, where, sort, page: 1, size: 3, nothing: false }, { [field]: {} });
  const keys = rows.flatMap(({ [field]: value }) => (typeof value === 'string' && sameButCapitals(value, bare) ? [value] : []));
  return keys.length === 1 ? keys[0] : undefined;
}

const sameButCapitals = (one: string, other: string) => one.toLowerCase() === other.toLowerCase();
