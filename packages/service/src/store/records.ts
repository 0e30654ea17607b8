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

type Row = Record<string, string | number | null>;
type Collections = NonNullable<AppDefinition['collections']>;
type Bound = string | number;

const mostOptions = 500;

/** Reads the records of the apps' collections. */
export class RecordStore {
  readonly #sqlite: Sqlite;
  readonly #statements = new Map<string, Statement>();

  constructor(sqlite: Sqlite) {
    this.#sqlite = sqlite;
  }

  count(app: string, name: string): number {
    return (this.#statement(`SELECT COUNT(*) AS count FROM ${tableName(app, name)}`).get() as { count: number }).count;
  }

  /** One record by its key, or by another unique field, its references resolved. */
  byKey(app: string, collections: Collections, name: string, key: string, by?: string): RecordData | undefined {
    return this.#byKeys(app, collections, name, [key], true, by)[0];
  }

  /** The records that may be chosen, by title; none of a collection with more than 500, where the key has to be typed. */
  options(app: string, collections: Collections, name: string, by?: string): { key: string; title: string }[] {
    const collection = collections[name];
    if (!collection) return [];
    const title = collection.title ?? collection.key;
    const sql = `SELECT ${column(by ?? collection.key)} AS key, ${column(title)} AS title FROM ${tableName(app, name)} WHERE ${column(by ?? collection.key)} IS NOT NULL ORDER BY ${this.#sortColumn(collection, title)} LIMIT ${String(mostOptions + 1)}`;
    const rows = this.#statement(sql).all() as { key: string; title: string | null }[];
    return rows.length > mostOptions ? [] : rows.map(({ key, title }) => ({ key, title: title ?? key }));
  }

  /** Carries out a read: conditions, sort order and page in SQL, every value bound. */
  read(app: string, collections: Collections, read: PlannedRead): ReadData {
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
    const rows = this.#statement(`SELECT * FROM ${table}${where} ORDER BY ${order} LIMIT ? OFFSET ?`).all(
      ...values,
      read.size,
      (read.page - 1) * read.size,
    ) as Row[];
    return { ...empty, total, rows: this.#resolve(app, collections, collection, rows) };
  }

  #byKeys(app: string, collections: Collections, name: string, keys: readonly string[], resolve: boolean, by?: string): RecordData[] {
    const collection = collections[name];
    if (!collection || keys.length === 0) return [];
    const sql = `SELECT * FROM ${tableName(app, name)} WHERE ${column(by ?? collection.key)} IN (${keys.map(() => '?').join(', ')})`;
    const rows = this.#statement(sql).all(...keys) as Row[];
    return resolve ? this.#resolve(app, collections, collection, rows) : rows.map((row) => toRecord(collection, row));
  }

  /** Puts the records that are referred to in the place of their keys, one query a field. */
  #resolve(app: string, collections: Collections, collection: CollectionDefinition, rows: readonly Row[]): RecordData[] {
    const records = rows.map((row) => toRecord(collection, row));
    for (const [name, field] of Object.entries(collection.fields)) {
      const target = field.type === 'record' ? collections[field.of ?? ''] : undefined;
      if (!target || field.of === undefined) continue;
      const keys = [...new Set(records.map((record) => record[name]).filter((key) => typeof key === 'string'))];
      const found = new Map(this.#byKeys(app, collections, field.of, keys, false).map((record) => [record[target.key], record]));
      for (const record of records) {
        const key = record[name];
        // A key that leads nowhere is still shown, as a record that has nothing else.
        if (typeof key === 'string') record[name] = found.get(key) ?? { [target.key]: key };
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
  }

  #statement(sql: string): Statement {
    let statement = this.#statements.get(sql);
    if (!statement) {
      if (this.#statements.size > 500) this.#statements.clear();
      this.#statements.set(sql, (statement = this.#sqlite.prepare(sql)));
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

function toRecord(collection: CollectionDefinition, row: Row): RecordData {
  const record: RecordData = {};
  for (const [name, field] of Object.entries(collection.fields)) {
    const value = toValue(field, row[`f_${name}`]);
    if (value !== undefined) record[name] = value;
  }
  return record;
}

function toValue(field: FieldDefinition, value: string | number | null | undefined): FieldValue | undefined {
  if (value === null || value === undefined) return undefined;
  if (field.type === 'boolean') return Boolean(value);
  if (field.type === 'integer' || field.type === 'number') return Number(value);
  return String(value);
}
