import { Table, TableIndex, type EntityManager } from 'typeorm';
import { quoteName } from '../../sqlite/statements.ts';

// How a table of records was made in the format that migration 2 brings. It stays as it is: what is made otherwise since has a
// migration of its own.

/** A field, as far as its column depends on it. */
interface Field {
  type: string;
  unique?: boolean | undefined;
}

/** A column that holds a field; a text has a second one, folded for finding and sorting. */
export interface FirstColumn {
  field: string;
  value: string;
  folded: string | undefined;
}

export interface FirstTable {
  number: number;
  name: string;
  columns: FirstColumn[];
}

const types = new Map([
  ['integer', 'integer'],
  ['number', 'real'],
  ['boolean', 'boolean'],
]);
const typeOf = (type: string) => types.get(type) ?? 'text';

/** Makes the table of a collection with its indexes, and enters both in the register. */
export async function createFirstTable(
  manager: EntityManager,
  app: string,
  collection: string,
  { keyField, fields }: { keyField: string; fields: Readonly<Record<string, Field>> },
): Promise<FirstTable> {
  await manager.query("INSERT INTO record_table (space, collection, state, key_field) VALUES (?, ?, 'live', ?)", [
    app,
    collection,
    keyField,
  ]);
  const [last]: { number: number }[] = await manager.query('SELECT MAX(number) AS number FROM record_table');
  const number = last?.number ?? 1;
  const name = `records_${String(number)}`;
  const columns = Object.entries(fields).map(([field, { type, unique }], index) => ({
    field,
    type,
    number: index + 1,
    unique: unique === true || field === keyField,
    value: `c${String(index + 1)}`,
    folded: type === 'text' ? `n${String(index + 1)}` : undefined,
  }));
  await manager.queryRunner?.createTable(
    new Table({
      name,
      columns: [
        { name: 'id', type: 'integer', isPrimary: true, isGenerated: true, generationStrategy: 'increment' },
        { name: 'by_people', type: 'boolean', default: '0' },
        ...columns.flatMap(({ value, folded, type }) => [
          { name: value, type: typeOf(type), isNullable: true },
          ...(folded === undefined ? [] : [{ name: folded, type: 'text', isNullable: true }]),
        ]),
      ],
    }),
  );
  const key = columns.find(({ field }) => field === keyField)?.value;
  for (const column of columns) {
    const { field, type, unique, value, folded } = column;
    await manager.query('INSERT INTO record_column (table_number, field, number, type, is_unique, last_serial) VALUES (?, ?, ?, ?, ?, 0)', [
      number,
      field,
      column.number,
      type,
      unique ? 1 : 0,
    ]);
    const found = [...(folded === undefined ? [] : [folded]), value, ...(key === undefined || key === value ? [] : [key])];
    await manager.queryRunner?.createIndex(name, new TableIndex({ name: `${name}_by_${String(column.number)}`, columnNames: found }));
    if (unique)
      await manager.queryRunner?.createIndex(
        name,
        new TableIndex({ name: `${name}_one_${String(column.number)}`, columnNames: [value], isUnique: true }),
      );
  }
  return { number, name, columns: columns.map(({ field, value, folded }) => ({ field, value, folded })) };
}

/** Copies the records of a table of the former format, as far as both have a field. */
export async function copyFirstRecords(
  manager: EntityManager,
  table: FirstTable,
  old: string,
  present: ReadonlySet<string>,
): Promise<FirstColumn[]> {
  const copied = table.columns.filter(
    ({ field, folded }) => present.has(`f_${field}`) && (folded === undefined || present.has(`n_${field}`)),
  );
  const into = copied.flatMap(({ value, folded }) => (folded === undefined ? [value] : [value, folded]));
  const from = copied.flatMap(({ field, folded }) => (folded === undefined ? [`f_${field}`] : [`f_${field}`, `n_${field}`]));
  if (into.length > 0)
    await manager.query(
      `INSERT INTO ${quoteName(table.name)} (${into.map(quoteName).join(', ')}) SELECT ${from.map(quoteName).join(', ')} FROM ${quoteName(old)}`,
    );
  return copied;
}
