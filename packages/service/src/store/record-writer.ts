import {
  nextSerial,
  serialParts,
  type AppDefinition,
  type CollectionDefinition,
  type FieldProblems,
  type PlainRecord,
  type SavePlan,
} from '@pallmist/core';
import { fold } from './fold.ts';
import { column, foldedColumn, tableName } from './record-names.ts';
import { inTransaction, quoteName, type Sqlite } from './sqlite.ts';

type Collections = NonNullable<AppDefinition['collections']>;
type Kept = string | number | null;

/** What saving came to: the key of the record, or why it could not be saved. */
export type Saved = { key: string } | { problems: FieldProblems; problem?: string };

/** Makes the tables of the apps' collections, and changes the records in them. */
export class RecordWriter {
  readonly #sqlite: Sqlite;
  #tablesChanged: () => void = () => undefined;
  readonly #versions = new Map<string, number>();

  constructor(sqlite: Sqlite) {
    this.#sqlite = sqlite;
  }

  /** @param listener told when tables have other columns than before */
  onTablesChanged(listener: () => void): void {
    this.#tablesChanged = listener;
  }

  /** Another number whenever a record of the app has changed since the service started. */
  version(app: string): number {
    return this.#versions.get(app) ?? 0;
  }

  /** The tables of an app's records are gone, or another's. */
  forgetTables(app: string): void {
    this.#changed(app);
    this.#tablesChanged();
  }

  #changed(app: string): void {
    this.#versions.set(app, this.version(app) + 1);
  }

  /** Makes the tables, columns and indexes that the collections need. Nothing is ever dropped here. */
  prepare(app: string, collections: Collections): void {
    for (const [name, { key, fields }] of Object.entries(collections)) {
      const table = tableName(app, name);
      this.#sqlite.exec(`CREATE TABLE IF NOT EXISTS ${table} (${column(key)} TEXT PRIMARY KEY NOT NULL)`);
      const present = new Set((this.#sqlite.prepare(`PRAGMA table_info(${table})`).all() as { name: string }[]).map((info) => info.name));
      for (const [fieldName, field] of Object.entries(fields)) {
        const names = field.type === 'text' ? [`f_${fieldName}`, `n_${fieldName}`] : [`f_${fieldName}`];
        for (const name of names) {
          if (!present.has(name)) this.#sqlite.exec(`ALTER TABLE ${table} ADD COLUMN ${quoteName(name)}`);
        }
        const indexed = field.type === 'text' ? `n_${fieldName}` : `f_${fieldName}`;
        this.#sqlite.exec(`CREATE INDEX IF NOT EXISTS ${quoteName(`by_${app}_${name}_${fieldName}`)} ON ${table} (${quoteName(indexed)})`);
      }
    }
    this.#tablesChanged();
  }

  /** Puts these records in the place of a collection's records, all or none. */
  replaceAll(app: string, name: string, collection: CollectionDefinition, records: readonly PlainRecord[]): void {
    const table = tableName(app, name);
    this.#changed(app);
    inTransaction(this.#sqlite, () => {
      this.#sqlite.exec(`DELETE FROM ${table}`);
      const names = Object.keys(collection.fields);
      const columns = names.flatMap((field) => columnsOf(collection, field));
      const insert = this.#sqlite.prepare(`INSERT INTO ${table} (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`);
      for (const record of records) insert.run(...names.flatMap((field) => keptOf(collection, field, record[field])));
    });
  }

  /** Carries out what a form wants saved, in one transaction; refused where a key is taken or a reference leads nowhere. */
  save(app: string, collections: Collections, plan: SavePlan): Saved {
    const collection = collections[plan.collection];
    if (!collection) return { problems: {}, problem: 'There is no such collection.' };
    this.#changed(app);
    return inTransaction(this.#sqlite, () => {
      if (plan.action === 'remove') return this.#remove(app, collections, plan);
      const values = { ...plan.values };
      if (plan.action === 'create') this.#count(app, plan.collection, collection, values);
      const problems = { ...this.#taken(app, plan, collection, values), ...this.#strayReferences(app, collections, collection, values) };
      if (Object.keys(problems).length > 0) return { problems };
      return plan.action === 'create'
        ? this.#insert(app, plan.collection, collection, values)
        : this.#update(app, plan, collection, values);
    });
  }

  /** Gives the fields that count by themselves their next number. */
  #count(app: string, name: string, collection: CollectionDefinition, values: PlainRecord): void {
    for (const [field, { serial }] of Object.entries(collection.fields)) {
      if (serial === undefined || values[field] !== undefined) continue;
      const { beginning } = serialParts(serial);
      const kept = column(field);
      const sql = `SELECT ${kept} AS last FROM ${tableName(app, name)} WHERE ${kept} GLOB ? ORDER BY length(${kept}) DESC, ${kept} DESC LIMIT 1`;
      const row = this.#sqlite.prepare(sql).get(`${beginning}[0-9]*`) as { last: string } | undefined;
      values[field] = nextSerial(serial, row?.last);
    }
  }

  /** Fields that are unique, and whose value another record has. */
  #taken(app: string, plan: SavePlan, collection: CollectionDefinition, values: PlainRecord): FieldProblems {
    const problems: FieldProblems = {};
    for (const [field, value] of Object.entries(values)) {
      if (value === undefined || (collection.fields[field]?.unique !== true && field !== collection.key)) continue;
      const key = column(collection.key);
      const sql = `SELECT ${key} AS key FROM ${tableName(app, plan.collection)} WHERE ${column(field)} = ?`;
      const rows = this.#sqlite.prepare(sql).all(keptOf(collection, field, value)[0]) as { key: string }[];
      if (rows.some(({ key }) => key !== plan.key)) problems[field] = 'Another record has this already.';
    }
    return problems;
  }

  /** References whose record there is not. */
  #strayReferences(app: string, collections: Collections, collection: CollectionDefinition, values: PlainRecord): FieldProblems {
    const problems: FieldProblems = {};
    for (const [name, value] of Object.entries(values)) {
      const field = collection.fields[name];
      const target = field?.type === 'record' ? collections[field.of ?? ''] : undefined;
      if (value === undefined || target === undefined) continue;
      const sql = `SELECT 1 FROM ${tableName(app, field?.of ?? '')} WHERE ${column(target.key)} = ?`;
      if (this.#sqlite.prepare(sql).get(value) === undefined) problems[name] = 'There is no such record.';
    }
    return problems;
  }

  #insert(app: string, name: string, collection: CollectionDefinition, values: PlainRecord): Saved {
    const names = Object.keys(values).filter((field) => values[field] !== undefined);
    const columns = names.flatMap((field) => columnsOf(collection, field));
    this.#sqlite
      .prepare(`INSERT INTO ${tableName(app, name)} (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`)
      .run(...names.flatMap((field) => keptOf(collection, field, values[field])));
    return { key: String(values[collection.key]) };
  }

  #update(app: string, { collection: name, key = '' }: SavePlan, collection: CollectionDefinition, values: PlainRecord): Saved {
    const names = Object.keys(values);
    if (names.length > 0) {
      const sets = names.flatMap((field) => columnsOf(collection, field)).map((kept) => `${kept} = ?`);
      this.#sqlite
        .prepare(`UPDATE ${tableName(app, name)} SET ${sets.join(', ')} WHERE ${column(collection.key)} = ?`)
        .run(...names.flatMap((field) => keptOf(collection, field, values[field])), key);
    }
    const now = values[collection.key];
    return { key: typeof now === 'string' ? now : key };
  }

  /** Removes a record, unless another one cannot do without it. */
  #remove(app: string, collections: Collections, { collection: name, key = '' }: SavePlan): Saved {
    const collection = collections[name];
    for (const [other, { fields }] of Object.entries(collections)) {
      for (const [field, { type, of, required }] of Object.entries(fields)) {
        if (type !== 'record' || of !== name || required !== true) continue;
        const sql = `SELECT COUNT(*) AS count FROM ${tableName(app, other)} WHERE ${column(field)} = ?`;
        const { count } = this.#sqlite.prepare(sql).get(key) as { count: number };
        if (count > 0) return { problems: {}, problem: `It cannot be removed: ${String(count)} of “${other}” belong to it.` };
      }
    }
    this.#sqlite.prepare(`DELETE FROM ${tableName(app, name)} WHERE ${column(collection?.key ?? '')} = ?`).run(key);
    return { key };
  }
}

/** A text has two columns: as it is, and folded. */
const columnsOf = ({ fields }: CollectionDefinition, field: string) =>
  fields[field]?.type === 'text' ? [column(field), foldedColumn(field)] : [column(field)];

function keptOf({ fields }: CollectionDefinition, field: string, value: PlainRecord[string]): Kept[] {
  const kept = value === undefined ? null : typeof value === 'boolean' ? Number(value) : value;
  return fields[field]?.type === 'text' ? [kept, typeof kept === 'string' ? fold(kept) : kept] : [kept];
}
