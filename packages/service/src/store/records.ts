import type {
  AppDefinition,
  CollectionDefinition,
  FieldDefinition,
  FieldValue,
  PlannedCondition,
  PlannedRead,
  ReadData,
  RecordData,
  SortKey,
} from '@pallmist/core';
import { fold } from './fold.ts';
import { column, foldedColumn, tableName } from './record-names.ts';
import type { Sqlite, Statement } from './sqlite.ts';
import { VersionedMemory } from './versioned-memory.ts';

type Kept = string | number | null;
type Collections = NonNullable<AppDefinition['collections']>;
type Bound = string | number;

const mostOptions = 500;
/** As many records of a collection are remembered because others refer to them. */
const mostKnown = 2000;

/** Names of the fields that are wanted of every record; all of them when left out. */
type Wanted = ReadonlySet<string> | undefined;

/** Reads the records of the apps' collections. */
export class RecordStore {
  readonly #sqlite: Sqlite;
  readonly #statements = new Map<string, Statement>();
  /** Records that others refer to, and what there is to choose from: the same on page after page. */
  readonly #remembered: VersionedMemory;

  /** @param version another number whenever a record of the app has changed */
  constructor(sqlite: Sqlite, version: (app: string) => number) {
    this.#sqlite = sqlite;
    this.#remembered = new VersionedMemory(version);
  }

  count(app: string, name: string): number {
    return (this.#statement(`SELECT COUNT(*) AS count FROM ${tableName(app, name)}`).get() as { count: number }).count;
  }

  /** One record by its key, or by another unique field, its references resolved. */
  byKey(app: string, collections: Collections, name: string, key: string, by?: string, wanted?: Wanted): RecordData | undefined {
    const collection = collections[name];
    if (!collection) return undefined;
    const rows = this.#select(app, name, collection, wanted, `WHERE ${column(by ?? collection.key)} = ?`, [key]);
    return this.#resolve(app, collections, collection, rows, wanted)[0];
  }

  /** The records that may be chosen, by title; none of a collection with more than 500, where the key has to be typed. */
  options(app: string, collections: Collections, name: string, by?: string): { key: string; title: string }[] {
    const collection = collections[name];
    if (!collection) return [];
    return this.#remembered.get(app, `options ${name} ${by ?? ''}`, () => this.#options(app, name, collection, by));
  }

  #options(app: string, name: string, collection: CollectionDefinition, by: string | undefined): { key: string; title: string }[] {
    const title = collection.title ?? collection.key;
    const sql = `SELECT ${column(by ?? collection.key)} AS key, ${column(title)} AS title FROM ${tableName(app, name)} WHERE ${column(by ?? collection.key)} IS NOT NULL ORDER BY ${this.#sortColumn(collection, title)} LIMIT ${String(mostOptions + 1)}`;
    const rows = this.#statement(sql).all() as { key: string; title: string | null }[];
    return rows.length > mostOptions ? [] : rows.map(({ key, title }) => ({ key, title: title ?? key }));
  }

  /** Carries out a read: conditions, sort order and page in SQL, every value bound. */
  read(app: string, collections: Collections, read: PlannedRead, wanted?: Wanted): ReadData {
    const collection = collections[read.from];
    const empty: ReadData = { rows: [], total: 0, page: read.page, size: read.size };
    if (!collection || read.nothing) return { ...empty, unasked: true };
    const values: Bound[] = [];
    const conditions = read.where.map((condition) => {
      const field = collection.fields[condition.field];
      return field ? conditionSql(condition, field, values) : '0';
    });
    const where = conditions.length === 0 ? '' : ` WHERE ${conditions.join(' AND ')}`;
    const table = tableName(app, read.from);
    const { total } = this.#statement(`SELECT COUNT(*) AS total FROM ${table}${where}`).get(...values) as { total: number };
    const order = [...read.sort.map((key) => this.#order(collection, key)), column(collection.key)].join(', ');
    const tail = `${where} ORDER BY ${order} LIMIT ? OFFSET ?`;
    const rows = this.#select(app, read.from, collection, wanted, tail, [...values, read.size, (read.page - 1) * read.size]);
    return { ...empty, total, rows: this.#resolve(app, collections, collection, rows, wanted) };
  }

  /** Records with the fields that are wanted, the key among them; references are keys still. */
  #select(app: string, name: string, collection: CollectionDefinition, wanted: Wanted, tail: string, values: Bound[]): RecordData[] {
    const fields = Object.entries(collection.fields).filter(([field]) => wanted?.has(field) !== false || field === collection.key);
    const columns = fields.map(([field]) => column(field)).join(', ');
    const rows = this.#statement(`SELECT ${columns} FROM ${tableName(app, name)} ${tail}`, true).all(...values) as Kept[][];
    return rows.map((row) => {
      const record: RecordData = {};
      for (const [index, [field, definition]] of fields.entries()) {
        const value = toValue(definition, row[index]);
        if (value !== undefined) record[field] = value;
      }
      return record;
    });
  }

  /** Puts the records that are referred to in the place of their keys, one query a field for those that are not known yet. */
  #resolve(app: string, collections: Collections, collection: CollectionDefinition, records: RecordData[], wanted: Wanted): RecordData[] {
    for (const [name, { type, of = '' }] of Object.entries(collection.fields)) {
      const target = type === 'record' ? collections[of] : undefined;
      if (!target || records.every((record) => record[name] === undefined)) continue;
      const fields = Object.entries(target.fields).flatMap(([field, { type: kind }]) =>
        wanted?.has(field) === false ? [] : [`${field}:${kind}`],
      );
      const known = this.#remembered.get(app, `records ${of} ${fields.join(' ')}`, () => new Map<string, RecordData>());
      const missing = new Set<string>();
      for (const { [name]: key } of records) if (typeof key === 'string' && !known.has(key)) missing.add(key);
      if (missing.size > 0) {
        if (known.size > mostKnown) known.clear();
        const tail = `WHERE ${column(target.key)} IN (${[...missing].map(() => '?').join(', ')})`;
        // A key that leads nowhere is still shown, as a record that has nothing else.
        for (const key of missing) known.set(key, { [target.key]: key });
        for (const record of this.#select(app, of, target, wanted, tail, [...missing])) {
          const key = record[target.key];
          if (typeof key === 'string') known.set(key, record);
        }
      }
      for (const record of records) {
        const key = record[name];
        if (typeof key === 'string') record[name] = known.get(key) ?? { [target.key]: key };
      }
    }
    return records;
  }

  #order(collection: CollectionDefinition, { field, descending }: SortKey): string {
    if (!Object.hasOwn(collection.fields, field)) return '0';
    const sorted = this.#sortColumn(collection, field);
    // What has no value stands at the end, whichever the direction; so SQLite can walk the index.
    return `${sorted}${descending ? ' DESC' : ' ASC NULLS LAST'}`;
  }

  #sortColumn(collection: CollectionDefinition, field: string): string {
    return collection.fields[field]?.type === 'text' ? foldedColumn(field) : column(field);
  }

  /** Forgets what was prepared: tables have changed. */
  forgetStatements(): void {
    this.#statements.clear();
    this.#remembered.clear();
  }

  /** @param raw rows as lists, which the driver makes in half the time */
  #statement(sql: string, raw = false): Statement {
    let statement = this.#statements.get(sql);
    if (!statement) {
      if (this.#statements.size > 500) this.#statements.clear();
      this.#statements.set(sql, (statement = raw ? this.#sqlite.prepare(sql).raw() : this.#sqlite.prepare(sql)));
    }
    return statement;
  }
}

/** A condition in SQL; its values are appended to those that are bound. */
function conditionSql(condition: PlannedCondition, { type }: FieldDefinition, values: Bound[]): string {
  const kept = column(condition.field);
  const folded = type === 'text' ? foldedColumn(condition.field) : kept;
  const bind = (value: string | number | boolean) => {
    values.push(typeof value === 'boolean' ? Number(value) : value);
    return '?';
  };
  switch (condition.operator) {
    case 'contains':
      return `instr(${folded}, ${bind(fold(String(condition.value)))}) > 0`;
    case 'startsWith': {
      // A span of the index: everything from the text on, before the text with a last character of its own.
      const start = fold(String(condition.value));
      return `${folded} >= ${bind(start)} AND ${folded} < ${bind(`${start}\u{10ffff}`)}`;
    }
    case 'oneOf': {
      const among = `${kept} IN (${condition.value.map(bind).join(', ')})`;
      // Texts have their index on the folded form.
      return type === 'text'
        ? `${among} AND ${folded} IN (${condition.value.map((value) => bind(fold(String(value)))).join(', ')})`
        : among;
    }
    case 'within': {
      const { from, to } = condition.value;
      return [
        from === undefined ? `${kept} IS NOT NULL` : `${kept} >= ${bind(from)}`,
        ...(to === undefined ? [] : [`${kept} <= ${bind(to)}`]),
      ].join(' AND ');
    }
    case 'before':
      return `${kept} < ${bind(condition.value)}`;
    case 'after':
      return `${kept} > ${bind(condition.value)}`;
    case 'empty':
      return `${kept} IS ${condition.value ? '' : 'NOT '}NULL`;
    case 'equals':
      return type === 'text'
        ? `${kept} = ${bind(condition.value)} AND ${folded} = ${bind(fold(String(condition.value)))}`
        : `${kept} = ${bind(condition.value)}`;
  }
}

function toValue(field: FieldDefinition, value: string | number | null | undefined): FieldValue | undefined {
  if (value === null || value === undefined) return undefined;
  if (field.type === 'boolean') return Boolean(value);
  if (field.type === 'integer' || field.type === 'number') return Number(value);
  return String(value);
}
