import type { AppDefinition, FieldDefinition } from '@pallmist/app';
import { Table, TableIndex, type EntityManager } from 'typeorm';
import { addColumn } from '../sqlite/statements.ts';
import type { Collections, RecordSpace } from '../records.ts';
import { RecordColumn, RecordTable, type RecordColumnRow, type RecordTableRow } from './entities.ts';

type CollectionDefinition = Collections[string];

/** A field's column. A text has two: as it is, and folded for finding and sorting. */
export interface FieldColumn {
  field: string;
  number: number;
  type: string;
  unique: boolean;
  value: string;
  folded: string | undefined;
  lastSerial: number;
  /** The expression by which its values are computed. */
  computed: string | undefined;
}

/** The table that holds the records of a collection. */
export interface RecordTableShape {
  number: number;
  name: string;
  keyField: string;
  columns: ReadonlyMap<string, FieldColumn>;
}

/** Whether people have written a record; what came from a file may be replaced by a file. */
export const byPeople = 'by_people';

const tableName = (number: number) => `records_${String(number)}`;
const columnTypes: Partial<Record<FieldDefinition['type'], string>> = { integer: 'integer', number: 'real', boolean: 'boolean' };
const columnType = (type: string) => columnTypes[type as FieldDefinition['type']] ?? 'text';

const asColumn = ({ field, number, type, unique, lastSerial, computed }: Omit<RecordColumnRow, 'table'>): FieldColumn => ({
  field,
  number,
  type,
  unique,
  value: `c${String(number)}`,
  folded: type === 'text' ? `n${String(number)}` : undefined,
  lastSerial,
  computed: computed ?? undefined,
});

/** Columns of a field, in the order in which `storedValues` gives what they hold. */
export const columnsOf = ({ value, folded }: FieldColumn): string[] => (folded === undefined ? [value] : [value, folded]);

/** The register of the tables: which table holds which collection, and which column which field. */
export class RecordTables {
  #live = new Map<string, RecordTableShape>();
  /** Former names by new ones, of collections whose table still has the former. */
  #renamed = new Map<string, string>();

  static #name = (space: RecordSpace, collection: string) => `${space}\u0000${collection}`;

  /** The table of a collection; undefined where there is none yet. A draft knows a renamed one by its new name already. */
  live(space: RecordSpace, collection: string): RecordTableShape | undefined {
    const name = RecordTables.#name(space, collection);
    return this.#live.get(name) ?? this.#live.get(this.#renamed.get(name) ?? '');
  }

  /** Lets a collection that has no table be known by that of a former name. @returns whether there is one */
  follow(space: RecordSpace, collection: string, formerNames: readonly string[]): boolean {
    const former = formerNames.map((name) => RecordTables.#name(space, name)).find((name) => this.#live.has(name));
    if (former !== undefined) this.#renamed.set(RecordTables.#name(space, collection), former);
    return former !== undefined;
  }

  /** Collections that are known by the table of a former name, which are renamed when their edition is published. */
  followed(space: RecordSpace, collection: string): string | undefined {
    const name = RecordTables.#name(space, collection);
    return this.#live.has(name) ? undefined : this.#renamed.get(name)?.split('\u0000')[1];
  }

  /** Whether a space has any table. */
  has(space: RecordSpace): boolean {
    return [...this.#live.keys()].some((name) => name.startsWith(`${space}\u0000`));
  }

  /** A register of its own for a transaction, which may change it. */
  copy(): RecordTables {
    const copy = new RecordTables();
    copy.#live = this.#live;
    copy.#renamed = this.#renamed;
    return copy;
  }

  /** Reads the register again. */
  async load(manager: EntityManager): Promise<void> {
    const tables = await manager.findBy(RecordTable, { state: 'live' });
    const live = new Map<string, RecordTableShape>();
    for (const table of tables) live.set(RecordTables.#name(table.space, table.collection), await readShape(manager, table));
    this.#live = live;
  }
}

async function readShape(manager: EntityManager, { number, keyField }: RecordTableRow): Promise<RecordTableShape> {
  const columns = await manager.find(RecordColumn, { where: { table: number }, order: { number: 'ASC' } });
  return { number, name: tableName(number), keyField, columns: new Map(columns.map((row) => [row.field, asColumn(row)])) };
}

/** Makes the table of a collection, with its columns and indexes. */
export async function createRecordTable(
  manager: EntityManager,
  space: RecordSpace,
  collection: string,
  definition: CollectionDefinition,
  state: RecordTableRow['state'],
): Promise<RecordTableShape> {
  const row = await manager.save(RecordTable, { space, collection, state, keyField: definition.keyField } as RecordTableRow);
  const name = tableName(row.number);
  const columns = Object.entries(definition.fields).map(([field, { type, unique, computed = null }], index) =>
    asColumn({
      field,
      number: index + 1,
      type,
      unique: unique === true || field === definition.keyField,
      lastSerial: 0,
      computed,
    }),
  );
  await manager.queryRunner?.createTable(
    new Table({
      name,
      columns: [
        { name: 'id', type: 'integer', isPrimary: true, isGenerated: true, generationStrategy: 'increment' },
        { name: byPeople, type: 'boolean', default: '0' },
        ...columns.flatMap(({ value, folded, type }) => [
          { name: value, type: columnType(type), isNullable: true },
          ...(folded === undefined ? [] : [{ name: folded, type: 'text', isNullable: true }]),
        ]),
      ],
    }),
  );
  const shape = {
    number: row.number,
    name,
    keyField: definition.keyField,
    columns: new Map(columns.map((column) => [column.field, column])),
  };
  for (const column of columns) {
    await register(manager, shape, column);
    await indexColumn(manager, shape, column);
  }
  return shape;
}

/** Adds a column for a field; the records that are there have no value in it. */
export async function addFieldColumn(
  manager: EntityManager,
  shape: RecordTableShape,
  field: string,
  { type, unique, computed }: Pick<FieldDefinition, 'type' | 'unique' | 'computed'>,
): Promise<FieldColumn> {
  const number = Math.max(0, ...[...shape.columns.values()].map((column) => column.number), await retiredNumber(manager, shape)) + 1;
  const column = asColumn({ field, number, type, unique: unique === true, lastSerial: 0, computed: computed ?? null });
  for (const name of columnsOf(column)) await addColumn(manager, shape.name, name, columnType(type));
  await register(manager, shape, column);
  await indexColumn(manager, shape, column);
  return column;
}

/** Lets a field be known by the column of a former name, so that its values stay. @returns whether there is one of its type */
export async function followColumn(
  manager: EntityManager,
  shape: RecordTableShape,
  field: string,
  { type, formerNames = [] }: Pick<FieldDefinition, 'type' | 'formerNames'>,
): Promise<boolean> {
  const former = formerNames.map((name) => shape.columns.get(name)).find((column) => column?.type === type);
  if (former === undefined) return false;
  await register(manager, shape, { ...former, field });
  return true;
}

/** Columns of former types stay in the table without a field: their numbers are not given again. */
async function retiredNumber(manager: EntityManager, shape: RecordTableShape): Promise<number> {
  const table = await manager.queryRunner?.getTable(shape.name);
  return Math.max(0, ...(table?.columns ?? []).map(({ name }) => Number(/^c(\d+)$/.exec(name)?.[1] ?? 0)));
}

async function register(manager: EntityManager, { number: table }: RecordTableShape, column: FieldColumn): Promise<void> {
  const { field, number, type, unique, lastSerial, computed = null } = column;
  await manager.upsert(RecordColumn, { table, field, number, type, unique, lastSerial, computed }, ['table', 'field']);
}

async function indexColumn(manager: EntityManager, shape: RecordTableShape, column: FieldColumn): Promise<void> {
  const { value, folded, number, unique } = column;
  const key = shape.columns.get(shape.keyField)?.value;
  // One index finds and sorts: folded texts first, and the key, by which equal ones are ordered, last.
  const found = [...(folded === undefined ? [] : [folded]), value];
  const columnNames = key === undefined || key === value ? found : [...found, key];
  await manager.queryRunner?.createIndex(shape.name, new TableIndex({ name: `${shape.name}_by_${String(number)}`, columnNames }));
  if (unique) await indexUnique(manager, shape, column);
}

/** @throws where two records have the same value */
export async function indexUnique(manager: EntityManager, shape: RecordTableShape, { value, number, field }: FieldColumn): Promise<void> {
  const index = new TableIndex({ name: `${shape.name}_one_${String(number)}`, columnNames: [value], isUnique: true });
  await manager.queryRunner?.createIndex(shape.name, index);
  await manager.update(RecordColumn, { table: shape.number, field }, { unique: true });
}

/** The collections of an app whose table, or a column of it, is missing. */
export function missingTables(tables: RecordTables, space: RecordSpace, collections: AppDefinition['collections'] = {}): string[] {
  return Object.entries(collections).flatMap(([name, { fields }]) => {
    const shape = tables.live(space, name);
    return shape === undefined || Object.keys(fields).some((field) => !shape.columns.has(field)) ? [name] : [];
  });
}
