import { own, fieldText, type AppDefinition } from '@pallmist/app';
import type { RecordSpace, RecordStore } from '../store/records.ts';

/**
 * Finds today’s keys of records that an address names by a former key of their collection.
 * @param by the field that names them in an address today, where it is not the collection’s key
 * @param former texts that are not the key of any record
 * @returns today’s key by former key; a text that no record had as its key is left out
 */
export async function todaysKeys(
  store: RecordStore,
  space: RecordSpace,
  { collections = {} }: AppDefinition,
  from: string,
  by: string | undefined,
  former: readonly string[],
): Promise<Map<string, string>> {
  const { keyField = '', formerKeys = [] } = own(collections, from) ?? {};
  const present = by ?? keyField;
  const found = new Map<string, string>();
  for (const field of formerKeys) {
    const wanted = former.filter((text) => !found.has(text));
    if (field === present || wanted.length === 0) continue;
    const where = [{ field, operator: 'oneOf' as const, value: wanted }];
    const read = { from, where, sort: [], page: 1, size: wanted.length, nothing: false };
    for (const row of (await store.read(space, collections, read, { [field]: {}, [present]: {} })).rows) {
      const [text, key] = [fieldText(own(row, field)), fieldText(own(row, present))];
      if (key !== '') found.set(text, key);
    }
  }
  return found;
}
