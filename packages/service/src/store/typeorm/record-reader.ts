import type { FieldDefinition, FieldTree, Figure, PlainRecord, PlannedRead, ReadData, RecordData, ValueCount } from '@pallmist/app';
import type { EntityManager, ObjectLiteral, SelectQueryBuilder } from 'typeorm';
import type { Collections, ListPart, RecordOption, RecordSpace } from '../records.ts';
import { ListPlaces, type ListPlace } from './list-places.ts';
import { conditionTexts, orderOf, type ConditionTables, type ConditionTexts, type OrderedColumn } from './record-conditions.ts';
import type { RecordTableShape, RecordTables } from './record-tables.ts';
import { valueOf } from './record-values.ts';
import { boundPage, type Bound, type RememberedQueries, type Values } from './remembered-queries.ts';
import type { VersionedMemory } from './versioned-memory.ts';

type Fields = Collections[string]['fields'];
type Row = Record<string, unknown>;
type Builder = SelectQueryBuilder<ObjectLiteral>;

const aggregates: Record<Figure['of'], (column: string) => string> = {
  sum: (column) => `COALESCE(SUM(${column}), 0)`,
  average: (column) => `AVG(${column})`,
  smallest: (column) => `MIN(${column})`,
  largest: (column) => `MAX(${column})`,
  distinct: (column) => `COUNT(DISTINCT ${column})`,
};

/** A query that begins, on tables that have no entity. */
const begin = (manager: EntityManager): Builder => manager.createQueryBuilder() as Builder;

const mostOptions = 500;
/** As many records of a collection are remembered because others refer to them, and as many counts. */
const mostKnown = 2000;
/** So many different values of a field are counted. */
const mostCounted = 50;
const batch = 1000;
/** From this row of a list on, the ids of a page are found in the index before its records are read. */
const deepFrom = 500;

/** Reads records: every condition, order and page in the database, every value bound. */
export class RecordReader {
  readonly #manager: EntityManager;
  readonly #tables: RecordTables;
  readonly #queries: RememberedQueries;
  /** What is the same on page after page: records that others refer to, what there is to choose from, counts. */
  readonly #memory: VersionedMemory | undefined;

  /** @param memory none inside of a transaction, which sees what others do not */
  constructor(manager: EntityManager, tables: RecordTables, queries: RememberedQueries, memory: VersionedMemory | undefined) {
    this.#manager = manager;
    this.#tables = tables;
    this.#queries = queries;
    this.#memory = memory;
  }

  async count(space: RecordSpace, collection: string): Promise<number> {
    const shape = this.#tables.live(space, collection);
    return shape === undefined ? 0 : this.#count(space, shape, { texts: [], values: {} });
  }

  async byKey(
    space: RecordSpace,
    collections: Collections,
    collection: string,
    key: string,
    { by, fields }: { by?: string | undefined; fields?: FieldTree | undefined } = {},
  ): Promise<RecordData | undefined> {
    const shape = this.#tables.live(space, collection);
    const definition = collections[collection];
    const column = definition && shape?.columns.get(by ?? definition.keyField);
    if (definition === undefined || shape === undefined || column === undefined) return undefined;
    const wanted = this.#wanted(shape, definition.fields, definition.keyField, fields);
    const rows = await this.#queries.rows<Row>(this.#manager, `key ${shape.name} ${column.value} ${wanted.shape}`, { key }, (manager) =>
      wanted.select(begin(manager), shape).where(`r.${column.value} = :key`).limit(1),
    );
    return (await this.#resolve(space, collections, collection, rows.map(wanted.record), fields))[0];
  }

  async options(space: RecordSpace, collections: Collections, collection: string, by?: string): Promise<RecordOption[]> {
    return this.#remember(space, `options ${collection} ${by ?? ''}`, () => this.#options(space, collections, collection, by));
  }

  async #options(space: RecordSpace, collections: Collections, collection: string, by: string | undefined): Promise<RecordOption[]> {
    const shape = this.#tables.live(space, collection);
    const definition = collections[collection];
    const key = definition && shape?.columns.get(by ?? definition.keyField);
    const title = definition && shape?.columns.get(definition.titleField ?? definition.keyField);
    if (definition === undefined || shape === undefined || key === undefined || title === undefined) return [];
    const order = orderOf(shape, definition.fields, [{ field: title.field, descending: false }]);
    const rows = await this.#queries.rows<{ key: string; title: string | null }>(
      this.#manager,
      `options ${shape.name} ${key.value} ${title.value}`,
      {},
      (manager) =>
        ordered(
          begin(manager)
            .select(`r.${key.value}`, 'key')
            .addSelect(`r.${title.value}`, 'title')
            .from(shape.name, 'r')
            .where(`r.${key.value} IS NOT NULL`),
          order,
        ).limit(mostOptions + 1),
    );
    return rows.length > mostOptions ? [] : rows.map(({ key: value, title: text }) => ({ key: value, title: text ?? value }));
  }

  async read(
    space: RecordSpace,
    collections: Collections,
    read: PlannedRead,
    fields?: FieldTree,
    counted: readonly string[] = [],
  ): Promise<ReadData> {
    const empty: ReadData = { rows: [], total: 0, page: read.page, size: read.size };
    const definition = collections[read.from];
    if (definition === undefined || read.nothing) return { ...empty, unasked: true };
    const shape = this.#tables.live(space, read.from);
    if (shape === undefined) return empty;
    const conditions = conditionTexts(this.#tablesOf(space, collections), read);
    const total = await this.#count(space, shape, conditions);
    const counts: NonNullable<ReadData['counts']> = {};
    for (const field of counted) counts[field] = await this.#countBy(space, collections, read.from, field, conditions, fields);
    const figures = await this.#figures(space, shape, definition.fields, conditions, read.figures);
    const found = { ...empty, total, ...(counted.length === 0 ? {} : { counts }), ...(figures ? { figures } : {}) };
    const offset = (read.page - 1) * read.size;
    if (offset >= total) return found;
    const wanted = this.#wanted(shape, definition.fields, definition.keyField, fields);
    const order = orderOf(shape, definition.fields, read.sort);
    const page = { limit: Math.min(read.size, total - offset), offset };
    const rows = await (offset < deepFrom
      ? this.#page(shape, conditions, order, page, wanted)
      : this.#deepPage(space, shape, conditions, order, page, wanted));
    return { ...found, rows: await this.#resolve(space, collections, read.from, rows.map(wanted.record), fields) };
  }

  async part(
    space: RecordSpace,
    collections: Collections,
    { from, where, sort }: Pick<PlannedRead, 'from' | 'where' | 'sort'>,
    limit: number,
    after?: readonly Bound[],
  ): Promise<ListPart> {
    const definition = collections[from];
    const shape = this.#tables.live(space, from);
    if (definition === undefined || shape === undefined) return { rows: [], total: 0, next: undefined };
    const conditions = conditionTexts(this.#tablesOf(space, collections), { from, where });
    const total = await this.#count(space, shape, conditions);
    const wanted = this.#wanted(shape, definition.fields, definition.keyField, undefined);
    const order = orderOf(shape, definition.fields, sort);
    const place = after?.length === order.length ? after : undefined;
    const texts = place === undefined ? conditions.texts : [...conditions.texts, afterPlace(order, place)];
    const bound = Object.fromEntries((place ?? []).map((value, index): [string, Bound] => [`o${String(index)}`, value]));
    const name = `part ${shape.name} ${texts.join(' & ')} ${JSON.stringify(order)} ${wanted.shape}`;
    // One more than is asked for says whether anything comes after.
    const values = { ...conditions.values, ...bound, limit: limit + 1, offset: 0 };
    const rows = await this.#queries.rows<Row>(this.#manager, name, values, (manager) => {
      const selected = wanted.select(begin(manager), shape);
      for (const [index, { column }] of order.entries()) selected.addSelect(`r.${column}`, `o${String(index)}`);
      return pageOf(selected, texts, order);
    });
    const shown = rows.slice(0, limit);
    const last = shown.at(-1);
    const next = rows.length > limit && last ? order.map((_, index) => last[`o${String(index)}`] as Bound) : undefined;
    return { rows: shown.map(wanted.record), total, next };
  }

  #page(shape: RecordTableShape, { texts, values }: ConditionTexts, order: OrderedColumn[], page: Page, wanted: Wanted) {
    const name = `page ${shape.name} ${texts.join(' & ')} ${JSON.stringify(order)} ${wanted.shape}`;
    return this.#queries.rows<Row>(this.#manager, name, { ...values, ...page }, (manager) =>
      pageOf(wanted.select(begin(manager), shape), texts, order),
    );
  }

  /**
   * A page far on in a list: its ids are walked to in the index alone, from the nearest place that is known, and only its own
   * records are read.
   */
  async #deepPage(
    space: RecordSpace,
    shape: RecordTableShape,
    { texts, values }: ConditionTexts,
    order: OrderedColumn[],
    page: Page,
    wanted: Wanted,
  ): Promise<Row[]> {
    // Places are compared as a whole, which needs one direction, and a value in each column.
    const comparable = order.every(({ direction }) => direction === order[0]?.direction) && !(await this.#hasGaps(space, shape, order));
    if (!comparable) return this.#walk(shape, texts, values, order, page, wanted);
    const list = `${shape.name} ${texts.join(' & ')} ${JSON.stringify(order)}`;
    const places = await this.#remember(space, `places ${list} ${JSON.stringify(values)}`, () => Promise.resolve(new ListPlaces()));
    const found = await this.#walk(shape, texts, values, order, page, wanted, places.before(page.offset));
    if (found[0] !== undefined)
      places.add({ offset: page.offset, values: order.map((_, index) => found[0]?.[`o${String(index)}`] as Bound) });
    return found;
  }

  /** Whether any record of a collection lacks a value in a column of an order. */
  #hasGaps(space: RecordSpace, shape: RecordTableShape, order: readonly OrderedColumn[]): Promise<boolean> {
    const gaps = order.map(({ column }) => `r.${column} IS NULL`);
    const name = `gaps ${shape.name} ${gaps.join(' ')}`;
    return this.#remember(space, name, async () => {
      // One after the other, so that each is found by the index of its column.
      for (const gap of gaps) {
        const rows = await this.#queries.rows(this.#manager, `gap ${shape.name} ${gap}`, {}, (manager) =>
          begin(manager).select('1', 'gap').from(shape.name, 'r').where(gap).limit(1),
        );
        if (rows.length > 0) return true;
      }
      return false;
    });
  }

  #walk(
    shape: RecordTableShape,
    texts: readonly string[],
    values: Values,
    order: OrderedColumn[],
    page: Page,
    wanted: Wanted,
    place?: ListPlace,
  ): Promise<Row[]> {
    const name = `deep ${shape.name} ${texts.join(' & ')} ${JSON.stringify(order)} ${wanted.shape} ${String(place !== undefined)}`;
    const from = Object.fromEntries((place?.values ?? []).map((value, index): [string, Bound] => [`o${String(index)}`, value]));
    const bound = { ...values, ...from, limit: page.limit, offset: page.offset - (place?.offset ?? 0) };
    return this.#queries.rows<Row>(this.#manager, name, bound, (manager) => {
      const from = place === undefined ? [] : [fromPlace(order)];
      const ids = pageOf(begin(manager).select('r.id', 'id').from(shape.name, 'r'), [...texts, ...from], order).getQuery();
      const selected = wanted.select(begin(manager), shape);
      for (const [index, { column }] of order.entries()) selected.addSelect(`r.${column}`, `o${String(index)}`);
      return ordered(selected.innerJoin(`(${ids})`, 'p', 'p.id = r.id'), order);
    });
  }

  /** How many rows have each value of a field, the most frequent first. */
  async #countBy(
    space: RecordSpace,
    collections: Collections,
    collection: string,
    field: string,
    { texts, values }: ConditionTexts,
    tree: FieldTree | undefined,
  ): Promise<ValueCount[]> {
    const shape = this.#tables.live(space, collection);
    const definition = collections[collection]?.fields[field];
    const column = shape?.columns.get(field)?.value;
    if (shape === undefined || definition === undefined || column === undefined) return [];
    const name = `counts ${shape.name} ${column} ${texts.join(' & ')}`;
    return this.#remember(space, `${name} ${JSON.stringify([values, tree])}`, async () => {
      const rows = await this.#queries.rows<Row & { count: number | string }>(this.#manager, name, values, (manager) => {
        const builder = begin(manager).select(`r.${column}`, 'value').addSelect('COUNT(*)', 'count').from(shape.name, 'r');
        for (const text of texts) builder.andWhere(text);
        return builder.groupBy(`r.${column}`).orderBy('COUNT(*)', 'DESC').addOrderBy(`r.${column}`, 'ASC').limit(mostCounted);
      });
      const records = rows.map((row): RecordData => {
        const value = valueOf(definition, row['value']);
        return value === undefined ? {} : { [field]: value };
      });
      const resolved = await this.#resolve(space, collections, collection, records, tree);
      return rows.map(({ count }, index) => {
        const value = resolved[index]?.[field];
        return { ...(value === undefined ? {} : { value }), count: Number(count) };
      });
    });
  }

  #tablesOf(space: RecordSpace, collections: Collections): ConditionTables {
    return { collections, table: (collection) => this.#tables.live(space, collection) };
  }

  /** Sums and the like of all records of a list, in one query. */
  async #figures(
    space: RecordSpace,
    shape: RecordTableShape,
    fields: Fields,
    { texts, values }: ConditionTexts,
    wanted: PlannedRead['figures'],
  ): Promise<ReadData['figures']> {
    const all = Object.entries(wanted ?? {}).flatMap(([name, { of, field }]) => {
      const column = Object.hasOwn(fields, field) ? shape.columns.get(field) : undefined;
      return column === undefined ? [] : [{ name, select: aggregates[of](`r.${column.value}`) }];
    });
    if (all.length === 0) return undefined;
    const query = `figures ${shape.name} ${all.map(({ select }) => select).join(' & ')} ${texts.join(' & ')}`;
    return this.#remember(space, `${query} ${JSON.stringify([values, Object.keys(wanted ?? {})])}`, async () => {
      const [row = {}] = await this.#queries.rows<Record<string, number | string | null>>(this.#manager, query, values, (manager) => {
        const builder = begin(manager).from(shape.name, 'r');
        for (const [index, { select }] of all.entries()) builder.addSelect(select, `f${String(index)}`);
        for (const text of texts) builder.andWhere(text);
        return builder;
      });
      const figures: NonNullable<ReadData['figures']> = {};
      for (const [index, { name }] of all.entries()) {
        const value = row[`f${String(index)}`];
        if (value !== null && value !== undefined) figures[name] = value;
      }
      return figures;
    });
  }

  #count(space: RecordSpace, shape: RecordTableShape, { texts, values }: ConditionTexts): Promise<number> {
    return this.#remember(space, `count ${shape.name} ${texts.join(' & ')} ${JSON.stringify(values)}`, async () => {
      const [row] = await this.#queries.rows<{ total: number | string }>(
        this.#manager,
        `count ${shape.name} ${texts.join(' & ')}`,
        values,
        (manager) => {
          const builder = begin(manager).select('COUNT(*)', 'total').from(shape.name, 'r');
          for (const text of texts) builder.andWhere(text);
          return builder;
        },
      );
      return Number(row?.total ?? 0);
    });
  }

  async *all(space: RecordSpace, collections: Collections, collection: string): AsyncGenerator<PlainRecord[]> {
    const shape = this.#tables.live(space, collection);
    const definition = collections[collection];
    if (shape === undefined || definition === undefined) return;
    const wanted = this.#wanted(shape, definition.fields, definition.keyField, undefined);
    for (let last = 0; ;) {
      const rows = await this.#queries.rows<Row & { id: number }>(
        this.#manager,
        `all ${shape.name} ${wanted.shape}`,
        { last, limit: batch },
        (manager) =>
          wanted.select(begin(manager), shape).addSelect('r.id', 'id').where('r.id > :last').orderBy('r.id').limit(boundPage.limit),
      );
      const end = rows.at(-1);
      if (end === undefined) return;
      last = end.id;
      yield rows.map((row) => wanted.record(row) as PlainRecord);
    }
  }

  /** The fields of a record that are read, the key always among them. */
  #wanted(shape: RecordTableShape, fields: Fields, key: string, tree: FieldTree | undefined): Wanted {
    const read = Object.entries(fields).flatMap(([field, definition]): ReadField[] => {
      const column = shape.columns.get(field)?.value;
      return column === undefined || (tree !== undefined && !Object.hasOwn(tree, field) && field !== key)
        ? []
        : [{ field, column, definition }];
    });
    return {
      shape: read.map(({ column }) => column).join(','),
      select: (builder, { name }) => builder.select(read.map(({ column }) => `r.${column} AS ${column}`)).from(name, 'r'),
      record(row) {
        const record: RecordData = {};
        for (const { field, column, definition } of read) {
          const value = valueOf(definition, row[column]);
          if (value !== undefined) record[field] = value;
        }
        return record;
      },
    };
  }

  /** Puts the records that are referred to in the place of their keys, one query a field for those that are not known yet. */
  async #resolve(
    space: RecordSpace,
    collections: Collections,
    collection: string,
    records: RecordData[],
    tree: FieldTree | undefined,
    depth = 1,
  ): Promise<RecordData[]> {
    for (const [name, { type, of = '' }] of Object.entries(collections[collection]?.fields ?? {})) {
      const target = type === 'record' ? collections[of] : undefined;
      // Where no fields are named, references are resolved one step deep.
      if (target === undefined || (tree === undefined ? depth === 0 : !Object.hasOwn(tree, name))) continue;
      const keys = new Set(records.flatMap(({ [name]: key }) => (typeof key === 'string' ? [key] : [])));
      if (keys.size === 0) continue;
      const known = await this.#referred(space, collections, of, keys, tree?.[name], depth - 1);
      for (const record of records) {
        const key = record[name];
        // A key that leads nowhere is still shown, as a record that has nothing else.
        if (typeof key === 'string') record[name] = known.get(key) ?? { [target.keyField]: key };
      }
    }
    return records;
  }

  async #referred(
    space: RecordSpace,
    collections: Collections,
    collection: string,
    keys: ReadonlySet<string>,
    tree: FieldTree | undefined,
    depth: number,
  ): Promise<ReadonlyMap<string, RecordData>> {
    const shape = this.#tables.live(space, collection);
    const definition = collections[collection];
    const column = definition && shape?.columns.get(definition.keyField);
    if (definition === undefined || shape === undefined || column === undefined) return new Map();
    const name = `records ${collection} ${JSON.stringify(tree ?? depth)} ${JSON.stringify(Object.keys(definition.fields))}`;
    const known = await this.#remember(space, name, () => Promise.resolve(new Map<string, RecordData>()));
    const found = new Map<string, RecordData>();
    const missing: string[] = [];
    for (const key of keys) {
      const record = known.get(key);
      if (record === undefined) missing.push(key);
      else found.set(key, record);
    }
    if (known.size + missing.length > mostKnown) known.clear();
    const wanted = this.#wanted(shape, definition.fields, definition.keyField, tree);
    for (let start = 0; start < missing.length; start += batch) {
      const some = missing.slice(start, start + batch);
      const values: Values = Object.fromEntries(some.map((key, index): [string, Bound] => [`k${String(index)}`, key]));
      const rows = await this.#queries.rows<Row>(
        this.#manager,
        `keys ${shape.name} ${wanted.shape} ${String(some.length)}`,
        values,
        (manager) =>
          wanted.select(begin(manager), shape).where(
            `r.${column.value} IN (${Object.keys(values)
              .map((key) => `:${key}`)
              .join(', ')})`,
          ),
      );
      for (const record of await this.#resolve(space, collections, collection, rows.map(wanted.record), tree, depth)) {
        const key = record[definition.keyField];
        if (typeof key !== 'string') continue;
        found.set(key, record);
        known.set(key, record);
      }
    }
    return found;
  }

  #remember<Value>(space: RecordSpace, name: string, make: () => Promise<Value>): Promise<Value> {
    return this.#memory === undefined ? make() : this.#memory.get(space, name, make);
  }
}

interface ReadField {
  field: string;
  column: string;
  definition: FieldDefinition;
}

interface Wanted {
  /** What tells the selected columns from any others. */
  shape: string;
  select: (builder: Builder, shape: RecordTableShape) => Builder;
  record: (row: Row) => RecordData;
}

interface Page {
  limit: number;
  offset: number;
}

/** A page of what a builder selects; `limit` and `offset` are bound. */
function pageOf(builder: Builder, texts: readonly string[], order: readonly OrderedColumn[]): Builder {
  for (const text of texts) builder.andWhere(text);
  return ordered(builder, order).limit(boundPage.limit).offset(boundPage.offset);
}

/** From a place of the list on, its own row among the rows. */
function fromPlace(order: readonly OrderedColumn[]): string {
  const columns = order.map(({ column }) => `r.${column}`).join(', ');
  const values = order.map((_, index) => `:o${String(index)}`).join(', ');
  return `(${columns}) ${order[0]?.direction === 'DESC' ? '<=' : '>='} (${values})`;
}

/**
 * What comes after a place of the list. Empty values stand at the end, whichever the direction. The first column is compared
 * by itself too, so that its index can be entered at the place.
 */
function afterPlace(order: readonly OrderedColumn[], place: readonly Bound[]): string {
  const equal = (index: number) => `r.${order[index]?.column ?? ''} IS :o${String(index)}`;
  const beyond = order.flatMap(({ column, direction }, index) => {
    // Nothing comes after an empty value but what is empty too.
    if (place[index] === null) return [];
    const after = `(r.${column} ${direction === 'DESC' ? '<' : '>'} :o${String(index)} OR r.${column} IS NULL)`;
    return [[...order.slice(0, index).map((_, before) => equal(before)), after].join(' AND ')];
  });
  const first = order[0];
  const from =
    first === undefined || place[0] === null
      ? '1 = 1'
      : `(r.${first.column} ${first.direction === 'DESC' ? '<=' : '>='} :o0 OR r.${first.column} IS NULL)`;
  return `${from} AND (${beyond.map((text) => `(${text})`).join(' OR ')})`;
}

function ordered(builder: Builder, order: readonly OrderedColumn[]): Builder {
  for (const { column, direction } of order) builder.addOrderBy(`r.${column}`, direction, 'NULLS LAST');
  return builder;
}
