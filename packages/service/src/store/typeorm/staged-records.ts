import { setImmediate } from 'node:timers/promises';
import { serialParts, type FieldDefinition, type PlainRecord } from '@pallmist/app';
import type { EntityManager, ObjectLiteral, SelectQueryBuilder } from 'typeorm';
import { copyRows } from '../sqlite/statements.ts';
import type { Difference, RecordSpace, StagedDifferences, StagedRecords } from '../records.ts';
import type { Connection } from './connection.ts';
import { computeAll, withComputed } from './computed-columns.ts';
import { RecordColumn, RecordTable } from './entities.ts';
import { byPeople, columnsOf, type FieldColumn, type RecordTables, type RecordTableShape } from './record-tables.ts';
import { storedValues } from './record-values.ts';
import { spansOf } from './row-spans.ts';
import { boundValue, type Bound, type RememberedQueries } from './remembered-queries.ts';

/** Rows of one statement. */
const chunk = 25;
const mostKeys = 20;

/** Records of a collection on their way in, in a table of their own. */
export class TypeormStagedRecords implements StagedRecords {
  readonly space: RecordSpace;
  readonly collection: string;
  readonly #on: Connection;
  readonly #tables: RecordTables;
  readonly #queries: RememberedQueries;
  readonly #staged: RecordTableShape;
  readonly #fields: Readonly<Record<string, FieldDefinition>>;
  /** The greatest number of each field that counts by itself. */
  readonly #serials = new Map<string, number>();

  constructor(
    on: Connection,
    tables: RecordTables,
    queries: RememberedQueries,
    space: RecordSpace,
    collection: string,
    staged: RecordTableShape,
    fields: Readonly<Record<string, FieldDefinition>>,
  ) {
    this.space = space;
    this.collection = collection;
    this.#on = on;
    this.#tables = tables;
    this.#queries = queries;
    this.#staged = staged;
    this.#fields = fields;
  }

  async add(records: readonly PlainRecord[]): Promise<{ position: number; field: string }[]> {
    const columns = [...this.#staged.columns.values()];
    this.#countSerials(records);
    const taken: { position: number; field: string }[] = [];
    await this.#on.write(async (manager) => {
      for (let start = 0; start < records.length; start += chunk) {
        const rows = records.slice(start, start + chunk).map((record) => withComputed(this.#staged, record));
        // Readers take their turn, in the middle of a transaction too.
        await setImmediate();
        if (await this.#insertAll(manager, columns, rows)) continue;
        // Some value is there already: row by row it shows which.
        for (const [index, record] of rows.entries()) {
          if ((await this.#insert(manager, columns, [record])) === 1) continue;
          taken.push({ position: start + index, field: await this.#takenField(manager, record) });
        }
      }
    });
    return taken;
  }

  /** Inserts all of some records, or, where one is not let in, none. */
  async #insertAll(manager: EntityManager, columns: readonly FieldColumn[], records: readonly PlainRecord[]): Promise<boolean> {
    const refused = new Error('A record was not let in.');
    try {
      await manager.transaction(async (inner) => {
        if ((await this.#insert(inner, columns, records)) < records.length) throw refused;
      });
      return true;
    } catch (error) {
      if (error === refused) return false;
      throw error;
    }
  }

  #insert(manager: EntityManager, columns: readonly FieldColumn[], records: readonly PlainRecord[]): Promise<number> {
    const names = columns.flatMap(columnsOf);
    const values: Record<string, Bound> = {};
    const rows = records.map((record, index) => {
      const row = columns.flatMap((column) => storedValues(column, record[column.field]));
      return Object.fromEntries(
        names.map((name, at) => {
          values[`${name}_${String(index)}`] = row[at] ?? null;
          return [name, boundValue(`${name}_${String(index)}`)];
        }),
      );
    });
    return this.#queries.affect(manager, `stage ${this.#staged.name} ${String(records.length)}`, values, (on) =>
      on.createQueryBuilder().insert().into(this.#staged.name, names).values(rows).orIgnore(),
    );
  }

  /** The field for which a record was not let in: another record has its value. */
  async #takenField(manager: EntityManager, record: PlainRecord): Promise<string> {
    for (const column of this.#staged.columns.values()) {
      const [value = null] = storedValues(column, record[column.field]);
      if (!column.unique || value === null) continue;
      const found = await this.#queries.rows(manager, `staged ${this.#staged.name} ${column.value}`, { value }, (on) =>
        on.createQueryBuilder().select('r.id', 'id').from(this.#staged.name, 'r').where(`r.${column.value} = :value`).limit(1),
      );
      if (found.length > 0) return column.field;
    }
    return this.#staged.keyField;
  }

  #countSerials(records: readonly PlainRecord[]): void {
    for (const [field, { serial }] of Object.entries(this.#fields)) {
      if (serial === undefined) continue;
      const { beginning } = serialParts(serial);
      let greatest = this.#serials.get(field) ?? 0;
      for (const { [field]: value } of records) {
        const number = typeof value === 'string' && value.startsWith(beginning) ? Number(value.slice(beginning.length)) : Number.NaN;
        if (Number.isSafeInteger(number) && number > greatest) greatest = number;
      }
      this.#serials.set(field, greatest);
    }
  }

  async strayReferences(field: string, target: StagedRecords | undefined): Promise<Difference> {
    const column = this.#staged.columns.get(field);
    const of = this.#fields[field]?.of ?? '';
    const table = target instanceof TypeormStagedRecords ? target.#staged : this.#tables.live(this.space, of);
    const key = table?.columns.get(table.keyField);
    if (column === undefined || table === undefined || key === undefined) return { count: 0, keys: [] };
    return this.#count(this.#on.reader, this.#staged, `stray ${this.#staged.name} ${column.value} ${table.name}`, (manager) =>
      manager
        .createQueryBuilder()
        .select(`l.${column.value}`, 'key')
        .from(this.#staged.name, 'l')
        .leftJoin(table.name, 's', `s.${key.value} = l.${column.value}`)
        .where(`s.id IS NULL AND l.${column.value} IS NOT NULL`),
    );
  }

  async drop(): Promise<void> {
    await this.#on.write((manager) => manager.update(RecordTable, { number: this.#staged.number }, { state: 'dropped' }));
  }

  /** What would be lost, as a transaction sees it. */
  async differences(manager: EntityManager): Promise<StagedDifferences> {
    const pair = this.#pair();
    const nothing = { count: 0, keys: [] };
    if (pair === undefined) return { removed: nothing, overwritten: nothing };
    const { live, join, same } = pair;
    const joined = (on: EntityManager) =>
      on.createQueryBuilder().select(`l.${pair.key}`, 'key').from(live.name, 'l').leftJoin(this.#staged.name, 's', join);
    return {
      removed: await this.#count(manager, live, `removed ${this.#staged.name}`, (on) => joined(on).where('s.id IS NULL')),
      overwritten: await this.#count(manager, live, `overwritten ${this.#staged.name}`, (on) =>
        joined(on).where(`l.${byPeople} = 1 AND (s.id IS NULL OR NOT (${same}))`),
      ),
    };
  }

  /** Puts the records in the place of the collection's. */
  async take(manager: EntityManager, keepPresent: boolean): Promise<void> {
    const pair = this.#pair();
    if (pair) {
      const { live, join, same, columns } = pair;
      for await (const span of spansOf(manager, this.#queries, live)) {
        if (keepPresent)
          await copyRows(
            manager,
            live.name,
            this.#staged.name,
            columns,
            span,
            `NOT EXISTS (SELECT 1 FROM "${this.#staged.name}" s WHERE ${join.replace('l.', 'r.')})`,
          );
        // What people wrote and the file has just so is still what people wrote.
        const unchanged = `SELECT s.id FROM "${live.name}" l JOIN "${this.#staged.name}" s ON ${join} WHERE l.${byPeople} = 1 AND ${same} AND l.id BETWEEN :first AND :last`;
        await this.#queries.affect(manager, `unchanged ${this.#staged.name}`, { first: span[0], last: span[1] }, (on) =>
          on
            .createQueryBuilder()
            .update(this.#staged.name)
            .set({ [byPeople]: () => '1' })
            .where(`id IN (${unchanged})`),
        );
      }
    }
    const isNew = ({ computed, field }: FieldColumn) => computed !== undefined && pair?.live.columns.has(field) === false;
    if (keepPresent && [...this.#staged.columns.values()].some(isNew)) await computeAll(manager, this.#queries, this.#staged);
    await manager.update(RecordTable, { space: this.space, collection: this.collection, state: 'live' }, { state: 'dropped' });
    await manager.update(RecordTable, { number: this.#staged.number }, { state: 'live' });
    for (const [field, counted] of this.#serials) {
      const lastSerial = Math.max(counted, this.#live?.columns.get(field)?.lastSerial ?? 0);
      if (this.#staged.columns.has(field)) await manager.update(RecordColumn, { table: this.#staged.number, field }, { lastSerial });
    }
  }

  /** The table that is to be replaced, as it is now. */
  get #live(): RecordTableShape | undefined {
    return this.#tables.live(this.space, this.collection);
  }

  /** The present table and how its rows, as `l`, go with those staged, as `s`; undefined where there is none. */
  #pair() {
    const live = this.#live;
    const staged = this.#staged.columns.get(this.#staged.keyField)?.value;
    const key = live?.columns.get(this.#staged.keyField)?.value;
    if (live === undefined || staged === undefined || key === undefined) return undefined;
    const shared = [...this.#staged.columns.values()].flatMap((column) => {
      const there = live.columns.get(column.field);
      if (there?.type !== column.type) return [];
      const names = columnsOf(column);
      return columnsOf(there).map((name, index): [live: string, staged: string] => [name, names[index] ?? '']);
    });
    return {
      live,
      key,
      join: `s.${staged} = l.${key}`,
      same: shared.map(([there, here]) => `l.${there} IS NOT DISTINCT FROM s.${here}`).join(' AND '),
      columns: [[byPeople, byPeople] as [string, string], ...shared],
    };
  }

  /** Counts what a query finds, a span of rows at a time. @param build selects `key` from the walked table as `l` */
  async #count(
    on: EntityManager,
    walked: RecordTableShape,
    shape: string,
    build: (manager: EntityManager) => SelectQueryBuilder<ObjectLiteral>,
  ): Promise<Difference> {
    const found: Difference = { count: 0, keys: [] };
    for await (const [first, last] of spansOf(on, this.#queries, walked)) {
      const rows = await this.#queries.rows<{ key: string | number }>(on, shape, { first, last }, (manager) =>
        build(manager).andWhere('l.id BETWEEN :first AND :last'),
      );
      found.count += rows.length;
      for (const { key } of rows) if (found.keys.length < mostKeys && !found.keys.includes(String(key))) found.keys.push(String(key));
      await setImmediate();
    }
    return found;
  }
}
