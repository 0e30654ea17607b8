import { nextSerial, serialParts, serialProblem, type FieldProblems, type PlainRecord, type SavePlan } from '@pallmist/app';
import type { EntityManager } from 'typeorm';
import type { Collections, RecordSpace, Saved } from '../records.ts';
import { hasComputed, recordOf, selectRecords, withComputed } from './computed-columns.ts';
import { RecordColumn } from './entities.ts';
import { byPeople, columnsOf, type FieldColumn, type RecordTables, type RecordTableShape } from './record-tables.ts';
import { storedValues } from './record-values.ts';
import { boundValue, type Bound, type RememberedQueries } from './remembered-queries.ts';

type CollectionDefinition = Collections[string];

/** Columns by name, with what they are to hold. */
type Row = Record<string, Bound>;

/** Saves what forms send, inside of a transaction. */
export class RecordChanges {
  readonly #manager: EntityManager;
  readonly #tables: RecordTables;
  readonly #queries: RememberedQueries;

  constructor(manager: EntityManager, tables: RecordTables, queries: RememberedQueries) {
    this.#manager = manager;
    this.#tables = tables;
    this.#queries = queries;
  }

  async save(space: RecordSpace, collections: Collections, plan: SavePlan): Promise<Saved> {
    const definition = collections[plan.collection];
    const shape = this.#tables.live(space, plan.collection);
    if (definition === undefined || shape === undefined) return { problems: {}, problem: 'There is no such collection.' };
    if (plan.action === 'remove') return this.#remove(space, collections, plan, definition, shape);
    const values = { ...plan.values };
    const problems = {
      ...(await this.#taken(shape, definition, values, plan.key)),
      ...(await this.#strayReferences(space, collections, definition, values)),
    };
    if (Object.keys(problems).length > 0) return { problems };
    if (plan.action === 'create') return this.#create(shape, definition, values);
    return this.#change(space, collections, plan, shape, definition, values);
  }

  async #create(shape: RecordTableShape, definition: CollectionDefinition, values: PlainRecord): Promise<Saved> {
    for (const [name, field] of Object.entries(definition.fields)) {
      const column = shape.columns.get(name);
      if (field.serial === undefined || column === undefined) continue;
      const number = await this.#numbered(shape, column, field.serial, values[name]);
      const problem = serialProblem(field, number);
      if (problem !== undefined) return { problems: { [name]: `The next number is “${number}”, and the field refuses it: ${problem}` } };
      values[name] = number;
    }
    const row = { [byPeople]: 1, ...rowOf(shape, withComputed(shape, values)) };
    const columns = Object.keys(row);
    await this.#queries.affect(this.#manager, `insert ${shape.name} ${columns.join(',')}`, row, (manager) =>
      manager.createQueryBuilder().insert().into(shape.name, columns).values(marked(columns)),
    );
    return { key: String(values[definition.keyField]) };
  }

  /** Gives a field that counts by itself its next number; one that is given moves the count on. A number is never given twice. */
  async #numbered(shape: RecordTableShape, { number: column }: FieldColumn, form: string, given: PlainRecord[string]): Promise<string> {
    // By the column, which a field may have under a former name too.
    const which = { table: shape.number, number: column };
    const last = (await this.#manager.maximum(RecordColumn, 'lastSerial', which)) ?? 0;
    const { beginning } = serialParts(form);
    const next = given === undefined ? nextSerial(form, `${beginning}${String(last)}`) : String(given);
    const number = Number(next.slice(beginning.length));
    if (Number.isSafeInteger(number) && number > last) await this.#manager.update(RecordColumn, which, { lastSerial: number });
    return next;
  }

  async #change(
    space: RecordSpace,
    collections: Collections,
    { collection, key = '' }: SavePlan,
    shape: RecordTableShape,
    definition: CollectionDefinition,
    values: PlainRecord,
  ): Promise<Saved> {
    const keyColumn = shape.columns.get(definition.keyField)?.value ?? 'id';
    const computed = hasComputed(shape) ? withComputed(shape, { ...(await this.#present(shape, keyColumn, key)), ...values }) : {};
    const row = { [byPeople]: 1, ...rowOf(shape, { ...computed, ...values }) };
    const columns = Object.keys(row);
    const changed = await this.#queries.affect(this.#manager, `update ${shape.name} ${columns.join(',')}`, { ...row, key }, (manager) =>
      manager.createQueryBuilder().update(shape.name).set(marked(columns)).where(`${keyColumn} = :key`),
    );
    if (changed === 0) return { problems: {}, problem: 'The record is not there any more.' };
    const now = values[definition.keyField];
    if (typeof now === 'string' && now !== key) await this.#followKey(space, collections, collection, key, now);
    return { key: typeof now === 'string' ? now : key };
  }

  /** The record as it is. */
  async #present(shape: RecordTableShape, keyColumn: string, key: string): Promise<PlainRecord> {
    const query = `present ${shape.name} ${String(shape.columns.size)}`;
    const [row] = await this.#queries.rows<Record<string, unknown>>(this.#manager, query, { key }, (on) =>
      selectRecords(on, shape).where(`r.${keyColumn} = :key`),
    );
    return row === undefined ? {} : recordOf(shape, row);
  }

  /** A record has another key: what refers to it refers to it still. */
  async #followKey(space: RecordSpace, collections: Collections, collection: string, before: string, now: string): Promise<void> {
    for (const { shape, column } of this.#referring(space, collections, collection)) {
      await this.#queries.affect(this.#manager, `refer ${shape.name} ${column.value}`, { now, before }, (manager) =>
        manager
          .createQueryBuilder()
          .update(shape.name)
          .set({ [column.value]: boundValue('now') })
          .where(`${column.value} = :before`),
      );
    }
  }

  /** Removes a record, unless another one cannot do without it. */
  async #remove(
    space: RecordSpace,
    collections: Collections,
    { collection, key = '' }: SavePlan,
    definition: CollectionDefinition,
    shape: RecordTableShape,
  ): Promise<Saved> {
    for (const { collection: other, shape: table, column, required } of this.#referring(space, collections, collection)) {
      if (!required) continue;
      const [row] = await this.#queries.rows<{ count: number | string }>(
        this.#manager,
        `dependants ${table.name} ${column.value}`,
        { key },
        (manager) => manager.createQueryBuilder().select('COUNT(*)', 'count').from(table.name, 'r').where(`r.${column.value} = :key`),
      );
      const count = Number(row?.count ?? 0);
      if (count > 0) return { problems: {}, problem: `It cannot be removed: ${String(count)} of “${other}” belong to it.` };
    }
    const keyColumn = shape.columns.get(definition.keyField)?.value ?? 'id';
    const removed = await this.#queries.affect(this.#manager, `delete ${shape.name} ${keyColumn}`, { key }, (manager) =>
      manager.createQueryBuilder().delete().from(shape.name).where(`${keyColumn} = :key`),
    );
    return removed === 0 ? { problems: {}, problem: 'The record is not there any more.' } : { key };
  }

  /** The columns that refer to a collection. */
  #referring(space: RecordSpace, collections: Collections, collection: string) {
    return Object.entries(collections).flatMap(([other, { fields }]) => {
      const shape = this.#tables.live(space, other);
      return Object.entries(fields).flatMap(([field, { type, of, required }]) => {
        const column = shape?.columns.get(field);
        return type === 'record' && of === collection && shape !== undefined && column !== undefined
          ? [{ collection: other, shape, column, required: required === true }]
          : [];
      });
    });
  }

  /** Fields that are unique, and whose value another record has. */
  async #taken(
    shape: RecordTableShape,
    definition: CollectionDefinition,
    values: PlainRecord,
    key: string | undefined,
  ): Promise<FieldProblems> {
    const problems: FieldProblems = {};
    const keyColumn = shape.columns.get(definition.keyField)?.value;
    for (const [field, value] of Object.entries(values)) {
      const column = shape.columns.get(field);
      if (value === undefined || column === undefined || (definition.fields[field]?.unique !== true && field !== definition.keyField))
        continue;
      const [sought = null] = storedValues(column, value);
      const rows = await this.#queries.rows<{ key: string }>(
        this.#manager,
        `taken ${shape.name} ${column.value}`,
        { value: sought },
        (manager) =>
          manager
            .createQueryBuilder()
            .select(`r.${keyColumn ?? 'id'}`, 'key')
            .from(shape.name, 'r')
            .where(`r.${column.value} = :value`)
            .limit(2),
      );
      if (rows.some((row) => row.key !== key)) problems[field] = 'Another record has this already.';
    }
    return problems;
  }

  /** References whose record there is not. */
  async #strayReferences(
    space: RecordSpace,
    collections: Collections,
    definition: CollectionDefinition,
    values: PlainRecord,
  ): Promise<FieldProblems> {
    const problems: FieldProblems = {};
    for (const [name, value] of Object.entries(values)) {
      const field = definition.fields[name];
      if (value === undefined || field?.type !== 'record' || field.of === undefined) continue;
      const table = this.#tables.live(space, field.of);
      const key = table?.columns.get(collections[field.of]?.keyField ?? '');
      if (table === undefined || key === undefined) continue;
      const rows = await this.#queries.rows(this.#manager, `exists ${table.name} ${key.value}`, { value: String(value) }, (manager) =>
        manager.createQueryBuilder().select('r.id', 'id').from(table.name, 'r').where(`r.${key.value} = :value`).limit(1),
      );
      if (rows.length === 0) problems[name] = 'There is no such record.';
    }
    return problems;
  }
}

/** What the columns of a record hold. */
export function rowOf(shape: RecordTableShape, values: PlainRecord): Row {
  const row: Row = {};
  for (const [field, value] of Object.entries(values)) {
    const column = shape.columns.get(field);
    if (column === undefined) continue;
    const stored = storedValues(column, value);
    for (const [index, name] of columnsOf(column).entries()) row[name] = stored[index] ?? null;
  }
  return row;
}

/** Columns, each to be given the bound value of its name. */
const marked = (columns: readonly string[]) => Object.fromEntries(columns.map((name) => [name, boundValue(name)]));
