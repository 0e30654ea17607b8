import type { FoundRecords } from '@pallmist/api';
import {
  own,
  fieldText,
  planSave,
  quote,
  type AppDefinition,
  type CollectionDefinition,
  type FieldProblems,
  type PlannedRead,
  type RecordData,
} from '@pallmist/app';
import { Refused } from '../api/problem-details.ts';
import type { Store } from '../store/store.ts';
import { editedCollection } from './edited-collection.ts';
import type { LiveApps } from './live-apps.ts';

/** What is looked for in a collection. */
export interface GridQuery {
  search?: string | undefined;
  where?: readonly { field: string; equals: string }[] | undefined;
  sort?: { field: string; descending: boolean } | undefined;
  page?: number | undefined;
  size?: number | undefined;
}

/** One change of a record, as texts. */
export type GridChange =
  { create: Record<string, string> } | { key: string; change: Record<string, string> } | { key: string; remove: true };

/** What came of a change. */
export interface GridResult {
  key?: string;
  problem?: string;
  problems?: FieldProblems;
}

/** The records of an app as builders edit them: texts, in the app’s own space, with the fields that the draft declares. */
export class RecordGrid {
  readonly #store: Store;
  readonly #live: LiveApps;

  constructor(store: Store, live: LiveApps) {
    this.#store = store;
    this.#live = live;
  }

  /** @throws Refused where there is no such collection */
  async find(app: string, name: string, query: GridQuery): Promise<FoundRecords> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    const read: PlannedRead = {
      from: name,
      where: conditions(collection, query),
      sort: query.sort !== undefined && Object.hasOwn(collection.fields, query.sort.field) ? [query.sort] : [],
      page: query.page ?? 1,
      size: query.size ?? 50,
      nothing: false,
    };
    const { collections = {} } = definition;
    const { rows, total } = await this.#store.records.read(app, collections, read);
    const titles: FoundRecords['titles'] = {};
    const records = rows.map((row) => asTexts(row, collection, collections, titles));
    return { total, records, titles };
  }

  /** Carries out changes one after the other; one that is refused stops none of the others. */
  async change(app: string, name: string, changes: readonly GridChange[]): Promise<GridResult[]> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    const results: GridResult[] = [];
    for (const change of changes) results.push(await this.#changeOne(app, name, definition, collection, change));
    return results;
  }

  async #changeOne(
    app: string,
    name: string,
    definition: AppDefinition,
    { fields }: CollectionDefinition,
    change: GridChange,
  ): Promise<GridResult> {
    const texts = 'create' in change ? change.create : 'change' in change ? change.change : {};
    const stranger = Object.keys(texts).find((field) => !Object.hasOwn(fields, field));
    if (stranger !== undefined) return { problem: `The collection has no field ${quote(stranger)}.` };
    const action = 'create' in change ? 'create' : 'remove' in change ? 'remove' : 'change';
    // A field that counts by itself is left to count, unless it is given; rows from a spreadsheet may have what is computed.
    const given = Object.keys(texts).filter(
      (field) =>
        own(fields, field)?.computed === undefined &&
        !(action === 'create' && own(fields, field)?.serial !== undefined && own(texts, field) === ''),
    );
    const request = { action, collection: name, fields: given, set: {}, ...('key' in change ? { key: change.key } : {}) } as const;
    const { plan, problems } = planSave(definition, request, texts);
    if (Object.keys(problems).length > 0) return { problems };
    const saved = await this.#store.records.save(app, definition.collections ?? {}, plan);
    if ('key' in saved) return { key: saved.key };
    return { problems: saved.problems, ...(saved.problem === undefined ? {} : { problem: saved.problem }) };
  }
}

function conditions({ fields, keyField, titleField }: CollectionDefinition, { search = '', where = [] }: GridQuery): PlannedRead['where'] {
  const found: PlannedRead['where'] = [];
  const title = titleField ?? keyField;
  if (search.trim() !== '')
    found.push({ field: own(fields, title)?.type === 'text' ? title : keyField, operator: 'contains', value: search.trim() });
  for (const { field, equals } of where) {
    const declared = own(fields, field);
    if (declared === undefined) throw new Refused(422, `The collection has no field ${quote(field)}.`);
    if (equals === '') found.push({ field, operator: 'empty', value: true });
    else if (declared.type === 'boolean') found.push({ field, operator: 'equals', value: equals === 'true' });
    else if (declared.type === 'integer' || declared.type === 'number') found.push({ field, operator: 'equals', value: Number(equals) });
    else found.push({ field, operator: 'equals', value: equals });
  }
  return found;
}

function asTexts(
  row: RecordData,
  { fields }: CollectionDefinition,
  collections: NonNullable<AppDefinition['collections']>,
  titles: FoundRecords['titles'],
): Record<string, string> {
  const texts: Record<string, string> = {};
  for (const [field, { type, of = '' }] of Object.entries(fields)) {
    const value = own(row, field);
    const target = type === 'record' ? own(collections, of) : undefined;
    const text = fieldText(value, target);
    if (text === '') continue;
    texts[field] = text;
    if (target === undefined || typeof value !== 'object') continue;
    const title = fieldText(own(value, target.titleField ?? target.keyField));
    (titles[field] ??= {})[text] = title === '' ? text : title;
  }
  return texts;
}
