import { createHash } from 'node:crypto';
import type { RecordPage } from '@pallmist/api';
import {
  own,
  fieldText,
  markOf,
  planSave,
  quote,
  readRecordQuery,
  type AppDefinition,
  type CollectionDefinition,
  type FieldProblems,
  type RecordData,
  type SaveRequest,
} from '@pallmist/app';
import { Refused } from '../api/problem-details.ts';
import type { Store } from '../store/store.ts';
import { editedCollection } from './edited-collection.ts';
import type { LiveApps } from './live-apps.ts';

/** Values of a record as programs read and write them; null for an empty field. */
export type RecordValues = Record<string, string | number | boolean | null>;

/** A record, and the entity tag that names exactly this state of it. */
export interface TaggedRecord {
  key: string;
  record: RecordValues;
  tag: string;
}

/** The records of an app as programs use them: typed values, in the app’s own space, with the fields that the draft declares. */
export class RecordResource {
  readonly #store: Store;
  readonly #live: LiveApps;

  constructor(store: Store, live: LiveApps) {
    this.#store = store;
    this.#live = live;
  }

  /** @throws Refused with every problem of the query, and where “after” is of another list */
  async list(app: string, name: string, query: URLSearchParams): Promise<RecordPage> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    const asked = readRecordQuery(definition, collection, query);
    if ('problems' in asked) throw new Refused(422, asked.problems.map(({ message }) => message).join(' '), asked.problems);
    const { where, sort, limit, after } = asked;
    const list = createHash('sha256')
      .update(JSON.stringify([name, where, sort]))
      .digest('base64url')
      .slice(0, 12);
    const place = after === undefined ? undefined : placeIn(after, list);
    const { rows, total, next } = await this.#store.records.part(
      app,
      definition.collections ?? {},
      { from: name, where, sort },
      limit,
      place,
    );
    return {
      records: rows.map((row) => valuesOf(row, collection)),
      total,
      next: next === undefined ? null : `${list}.${Buffer.from(JSON.stringify(next)).toString('base64url')}`,
    };
  }

  async one(app: string, name: string, key: string): Promise<TaggedRecord> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    return this.#tagged(this.#store, app, definition, name, collection, key);
  }

  async add(app: string, name: string, record: RecordValues): Promise<TaggedRecord> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    return this.#save(app, definition, name, collection, { action: 'create', collection: name, fields: [], set: record });
  }

  /** @param tags entity tags of which the record has to have one */
  async change(app: string, name: string, key: string, record: RecordValues, tags?: readonly string[]): Promise<TaggedRecord> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    return this.#save(app, definition, name, collection, { action: 'change', collection: name, key, fields: [], set: record }, tags);
  }

  async remove(app: string, name: string, key: string, tags?: readonly string[]): Promise<void> {
    const { definition, collection } = await editedCollection(this.#live, app, name);
    await this.#save(app, definition, name, collection, { action: 'remove', collection: name, key, fields: [], set: {} }, tags);
  }

  #save(
    app: string,
    definition: AppDefinition,
    name: string,
    collection: CollectionDefinition,
    request: SaveRequest,
    tags?: readonly string[],
  ): Promise<TaggedRecord> {
    const stranger = Object.keys(request.set).find((field) => !Object.hasOwn(collection.fields, field));
    if (stranger !== undefined)
      throw new Refused(422, `The collection has no field ${quote(stranger)}.`, [
        {
          code: 'unknown-field',
          severity: 'error',
          message: `The collection has no field ${quote(stranger)}.`,
          pointer: `/record/${stranger}`,
        },
      ]);
    return this.#store.transaction(async (stores) => {
      const { collections = {} } = definition;
      const present = request.key === undefined ? undefined : await this.#tagged(stores, app, definition, name, collection, request.key);
      if (present !== undefined && tags !== undefined && !tags.includes('*') && !tags.includes(present.tag))
        throw new Refused(412, 'The record has changed since you read it. Get it again, then repeat your change.');
      const { plan, problems } = planSave(definition, request, {});
      mustBeRight(problems);
      const saved = await stores.records.save(app, collections, plan);
      if ('problems' in saved) mustBeRight(saved.problems, saved.problem);
      const key = 'key' in saved ? saved.key : '';
      return present !== undefined && request.action === 'remove' ? present : this.#tagged(stores, app, definition, name, collection, key);
    });
  }

  async #tagged(
    { records }: Pick<Store, 'records'>,
    app: string,
    { collections = {} }: AppDefinition,
    name: string,
    collection: CollectionDefinition,
    key: string,
  ): Promise<TaggedRecord> {
    const row = await records.byKey(app, collections, name, key);
    if (row === undefined) throw new Refused(404, `There is no record ${quote(key)} in ${quote(name)}.`);
    const record = valuesOf(row, collection, collections);
    return { key, record, tag: `"${markOf(record, Object.keys(collection.fields), () => undefined)}"` };
  }
}

/** @throws Refused with a problem for each field */
function mustBeRight(problems: FieldProblems, whole?: string): void {
  const fields = Object.entries(problems);
  if (fields.length === 0 && whole === undefined) return;
  throw new Refused(
    422,
    [...(whole === undefined ? [] : [whole]), ...fields.map(([field, message]) => `${field}: ${message}`)].join(' '),
    fields.map(([field, message]) => ({ code: 'wrong-value', severity: 'error', message, pointer: `/record/${field}` })),
  );
}

/** Where a part of this list ended. @throws Refused where the text is of another list, or of none */
function placeIn(after: string, list: string): (string | number | null)[] {
  const [of, text = ''] = after.split('.');
  const wrong = () =>
    new Refused(422, '“after” is not from this list. Send “next” of the page before, with the same conditions and the same order.');
  if (of !== list) throw wrong();
  let place: unknown;
  try {
    place = JSON.parse(Buffer.from(text, 'base64url').toString('utf8'));
  } catch {
    throw wrong();
  }
  const isPart = (value: unknown): value is string | number | null =>
    value === null || typeof value === 'string' || typeof value === 'number';
  if (!Array.isArray(place) || !place.every(isPart)) throw wrong();
  return place;
}

function valuesOf(
  row: RecordData,
  { fields }: CollectionDefinition,
  collections: NonNullable<AppDefinition['collections']> = {},
): RecordValues {
  const values: RecordValues = {};
  for (const [name, { type, of = '' }] of Object.entries(fields)) {
    const value = own(row, name);
    if (value === undefined) values[name] = null;
    else if (type === 'record') values[name] = fieldText(value, own(collections, of));
    else values[name] = value as RecordValues[string];
  }
  return values;
}
