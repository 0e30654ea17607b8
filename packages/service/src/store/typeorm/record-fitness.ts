import { setImmediate } from 'node:timers/promises';
import { fieldReader, fieldText, Refusal, type AppDefinition, type FieldDefinition } from '@pallmist/app';
import type { EntityManager } from 'typeorm';
import type { Collections, Misfit, RecordSpace } from '../records.ts';
import { RecordTable } from './entities.ts';
import { addFieldColumn, columnsOf, indexUnique, type FieldColumn, type RecordTableShape, type RecordTables } from './record-tables.ts';
import { storedValues, valueOf } from './record-values.ts';
import { boundValue, type Bound, type RememberedQueries } from './remembered-queries.ts';
import { spansOf } from './row-spans.ts';

type CollectionDefinition = Collections[string];

const mostKeys = 5;

/** What to read a value with that a column of another type holds. */
const asText = ({ type }: FieldColumn, stored: unknown) => fieldText(valueOf({ type: type as FieldDefinition['type'] }, stored));

/** Whether the records that are there fit collections that are declared otherwise than before, and making them fit. */
export class RecordFitness {
  readonly #manager: EntityManager;
  readonly #tables: RecordTables;
  readonly #queries: RememberedQueries;

  constructor(manager: EntityManager, tables: RecordTables, queries: RememberedQueries) {
    this.#manager = manager;
    this.#tables = tables;
    this.#queries = queries;
  }

  async misfits(space: RecordSpace, app: AppDefinition): Promise<Misfit[]> {
    const found: Misfit[] = [];
    for (const [name, definition] of Object.entries(app.collections ?? {})) {
      const shape = this.#tables.live(space, name);
      if (shape === undefined) continue;
      for (const [field, declared] of Object.entries(definition.fields)) {
        const column = shape.columns.get(field);
        const isKey = field === definition.keyField;
        const add = (problem: string, { count, keys }: { count: number; keys: string[] }) => {
          if (count > 0) found.push({ collection: name, field, problem, count, keys });
        };
        // What is computed is computed again.
        if (declared.computed !== undefined) continue;
        if (column !== undefined && column.type !== declared.type)
          add(`is no ${declared.type} that the field takes`, await this.#unreadable(app, shape, column, declared));
        if (declared.required === true || isKey) add('is missing', await this.#empty(shape, column));
        if (column !== undefined && !column.unique && (declared.unique === true || isKey))
          add('is not unique', await this.#repeated(shape, column));
      }
    }
    return found;
  }

  async convert(space: RecordSpace, app: AppDefinition): Promise<void> {
    for (const [name, definition] of Object.entries(app.collections ?? {})) {
      const shape = this.#tables.live(space, name);
      if (shape === undefined) continue;
      for (const [field, declared] of Object.entries(definition.fields)) {
        let column = shape.columns.get(field);
        if (column === undefined) continue;
        if (declared.computed !== undefined) {
          if (column.type !== declared.type) await addFieldColumn(this.#manager, shape, field, declared);
          continue;
        }
        if (column.type !== declared.type) column = await this.#retype(app, shape, column, declared);
        const isUnique = declared.unique === true || field === definition.keyField;
        if (isUnique && !column.unique) await indexUnique(this.#manager, shape, column);
        if (declared.type === 'choice') await this.#renameChoices(shape, column, app.choices?.[declared.of ?? ''] ?? {});
      }
      if (shape.keyField !== definition.keyField) await this.#rekey(space, app.collections ?? {}, name, definition, shape);
    }
  }

  /** Values that the field, as it is declared now, does not take. */
  async #unreadable(app: AppDefinition, shape: RecordTableShape, column: FieldColumn, declared: FieldDefinition) {
    const read = fieldReader(app, declared);
    const found = { count: 0, keys: [] as string[] };
    for await (const row of this.#valuesOf(shape, column)) {
      const text = asText(column, row.value);
      if (text === '' || !(read(text) instanceof Refusal)) continue;
      found.count++;
      if (found.keys.length < mostKeys) found.keys.push(String(row.key));
    }
    return found;
  }

  async #empty(shape: RecordTableShape, column: FieldColumn | undefined) {
    const key = shape.columns.get(shape.keyField)?.value ?? 'id';
    const condition = column === undefined ? '1 = 1' : `r.${column.folded ?? column.value} IS NULL`;
    const [row] = await this.#queries.rows<{ count: number | string }>(this.#manager, `empty ${shape.name} ${condition}`, {}, (manager) =>
      manager.createQueryBuilder().select('COUNT(*)', 'count').from(shape.name, 'r').where(condition),
    );
    const keys = await this.#queries.rows<{ key: string }>(this.#manager, `empty keys ${shape.name} ${condition}`, {}, (manager) =>
      manager.createQueryBuilder().select(`r.${key}`, 'key').from(shape.name, 'r').where(condition).limit(mostKeys),
    );
    return { count: Number(row?.count ?? 0), keys: keys.map((found) => found.key) };
  }

  async #repeated(shape: RecordTableShape, { value }: FieldColumn) {
    const rows = await this.#queries.rows<{ value: Bound; count: number | string }>(
      this.#manager,
      `repeated ${shape.name} ${value}`,
      {},
      (manager) =>
        manager
          .createQueryBuilder()
          .select(`r.${value}`, 'value')
          .addSelect('COUNT(*)', 'count')
          .from(shape.name, 'r')
          .where(`r.${value} IS NOT NULL`)
          .groupBy(`r.${value}`)
          .having('COUNT(*) > 1'),
    );
    return {
      count: rows.reduce((sum, { count }) => sum + Number(count), 0),
      keys: rows.slice(0, mostKeys).map((row) => String(row.value)),
    };
  }

  /** Reads each value as the field takes it now, into a column of the new type. */
  async #retype(app: AppDefinition, shape: RecordTableShape, before: FieldColumn, declared: FieldDefinition): Promise<FieldColumn> {
    const read = fieldReader(app, declared);
    const column = await addFieldColumn(this.#manager, shape, before.field, declared);
    const names = columnsOf(column);
    for await (const row of this.#valuesOf(shape, before)) {
      const text = asText(before, row.value);
      const value = text === '' ? undefined : read(text);
      if (value === undefined || value instanceof Refusal) continue;
      const stored = storedValues(column, value);
      const values = { ...Object.fromEntries(names.map((name, index) => [name, stored[index] ?? null])), id: row.id };
      await this.#queries.affect(this.#manager, `retype ${shape.name} ${names.join(',')}`, values, (manager) =>
        manager
          .createQueryBuilder()
          .update(shape.name)
          .set(Object.fromEntries(names.map((name) => [name, boundValue(name)])))
          .where('id = :id'),
      );
    }
    return column;
  }

  /** Values that a choice had in the past become those of today. */
  async #renameChoices(
    shape: RecordTableShape,
    { value }: FieldColumn,
    choices: NonNullable<AppDefinition['choices']>[string],
  ): Promise<void> {
    for (const [now, choice] of Object.entries(choices)) {
      for (const before of typeof choice === 'string' ? [] : (choice.formerValues ?? [])) {
        if (Object.hasOwn(choices, before)) continue;
        await this.#queries.affect(this.#manager, `choice ${shape.name} ${value}`, { now, before }, (manager) =>
          manager
            .createQueryBuilder()
            .update(shape.name)
            .set({ [value]: boundValue('now') })
            .where(`${value} = :before`),
        );
      }
    }
  }

  /** Another field is the key: what refers to a record does so by that. */
  async #rekey(
    space: RecordSpace,
    collections: Collections,
    name: string,
    { keyField: key }: CollectionDefinition,
    shape: RecordTableShape,
  ): Promise<void> {
    const [before, now] = [shape.columns.get(shape.keyField), shape.columns.get(key)];
    if (before !== undefined && now !== undefined) {
      for (const [other, { fields }] of Object.entries(collections)) {
        for (const [field, { type, of }] of Object.entries(fields)) {
          const table = this.#tables.live(space, other);
          const column = table?.columns.get(field);
          if (type !== 'record' || of !== name || table === undefined || column === undefined) continue;
          const today = `SELECT t.${now.value} FROM "${shape.name}" t WHERE t.${before.value} = "${table.name}".${column.value}`;
          await this.#queries.affect(this.#manager, `rekey ${table.name} ${column.value} ${shape.name} ${now.value}`, {}, (manager) =>
            manager
              .createQueryBuilder()
              .update(table.name)
              .set({ [column.value]: () => `COALESCE((${today}), ${column.value})` })
              .where(`${column.value} IS NOT NULL`),
          );
        }
      }
    }
    await this.#manager.update(RecordTable, { number: shape.number }, { keyField: key });
  }

  async *#valuesOf(shape: RecordTableShape, { value }: FieldColumn): AsyncGenerator<{ id: number; key: Bound; value: unknown }> {
    const key = shape.columns.get(shape.keyField)?.value ?? 'id';
    for await (const [first, last] of spansOf(this.#manager, this.#queries, shape)) {
      yield* await this.#queries.rows<{ id: number; key: Bound; value: unknown }>(
        this.#manager,
        `values ${shape.name} ${key} ${value}`,
        { first, last },
        (manager) =>
          manager
            .createQueryBuilder()
            .select('r.id', 'id')
            .addSelect(`r.${key}`, 'key')
            .addSelect(`r.${value}`, 'value')
            .from(shape.name, 'r')
            .where(`r.id BETWEEN :first AND :last AND r.${value} IS NOT NULL`),
      );
      await setImmediate();
    }
  }
}
