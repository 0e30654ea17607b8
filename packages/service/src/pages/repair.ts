import { readAddress, repairAddress, writeAddress, type AppDefinition, type CompiledApp, type Reading } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { RecordSpace, RecordStore } from '../store/records.ts';
import { recordSpace } from './load-data.ts';

/** What a sentence may put behind an address. */
const punctuation = /[.,;:!?*'")\]}>_-]{1,6}$/;
/** Longest key that is looked for. */
const longestKey = 200;

/**
 * What a damaged address probably was: by itself, or since there is only one record whose key differs by capitals.
 * @returns undefined where it is right, or has more than one meaning
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
  const declared = { ...hosted.definition.parameters, ...hosted.definition.pages[reading.page]?.parameters };
  const values = { ...reading.values };
  for (const { name, text, problem } of reading.parameters) {
    const { type, of = '', by } = declared[name] ?? {};
    if (problem === undefined || type !== 'record' || text === undefined || text.length > 3 * longestKey) continue;
    const key = await nearKey(records, recordSpace({ records }, hosted), hosted.definition.collections ?? {}, of, decoded(text), by);
    if (key !== undefined) values[name] = key;
  }
  const to = writeAddress(app, reading.page, values).address;
  return to !== undefined && readAddress(app, to).status === 'found' ? to : undefined;
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** The only key that one which there is not differs from by capitals alone, or by punctuation after it: `QM-0412` for `qm-0412).`. */
export async function nearKey(
  records: RecordStore,
  space: RecordSpace,
  collections: NonNullable<AppDefinition['collections']>,
  from: string,
  key: string,
  by: string | undefined,
): Promise<string | undefined> {
  const field = by ?? collections[from]?.keyField ?? '';
  const bare = key.replace(punctuation, '');
  if (bare === '' || bare.length > longestKey) return undefined;
  const where = [{ field, operator: 'startsWith' as const, value: bare }];
  // Those that are no longer than it come first.
  const sort = [{ field, descending: false }];
  const { rows } = await records.read(space, collections, { from, where, sort, page: 1, size: 3, nothing: false }, { [field]: {} });
  const keys = rows.flatMap(({ [field]: value }) => (typeof value === 'string' && sameButCapitals(value, bare) ? [value] : []));
  return keys.length === 1 ? keys[0] : undefined;
}

const sameButCapitals = (one: string, other: string) => one.toLowerCase() === other.toLowerCase();
