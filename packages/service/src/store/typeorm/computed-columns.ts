import { setImmediate } from 'node:timers/promises';
import { computeFields, type ComputableFields, type FieldDefinition, type PlainRecord } from '@pallmist/app';
import type { EntityManager, ObjectLiteral, SelectQueryBuilder } from 'typeorm';
import type { Collections, RecordSpace } from '../records.ts';
import { RecordColumn } from './entities.ts';
import { columnsOf, type FieldColumn, type RecordTables, type RecordTableShape } from './record-tables.ts';
import { storedValues, valueOf } from './record-values.ts';
import { boundValue, type RememberedQueries } from './remembered-queries.ts';
import { spansOf } from './row-spans.ts';

type Columns = ReadonlyMap<string, FieldColumn>;

/** A table is computed by the expressions that its columns were made with, whichever state of the app is writing. */
const fieldsOf = (columns: Columns): ComputableFields =>
  Object.fromEntries([...columns].map(([field, { type, computed }]) => [field, { type: type as FieldDefinition['type'], computed }]));

/** Whether a table has anything to compute. */
export const hasComputed = ({ columns }: RecordTableShape): boolean => [...columns.values()].some(({ computed }) => computed !== undefined);

/** A record with the values of its computed fields. */
export const withComputed = (shape: RecordTableShape, record: PlainRecord): PlainRecord =>
  hasComputed(shape) ? { ...record, ...computeFields(fieldsOf(shape.columns), record) } : record;

/** Selects rows as `recordOf` takes them, with their ids. */
export function selectRecords(manager: EntityManager, { name, columns }: RecordTableShape): SelectQueryBuilder<ObjectLiteral> {
  const query = manager.createQueryBuilder().select('r.id', 'id').from(name, 'r');
  for (const { value } of columns.values()) query.addSelect(`r.${value}`, value);
  return query;
}

/** The plain values of a row whose columns were read. */
export const recordOf = ({ columns }: RecordTableShape, row: Record<string, unknown>): PlainRecord =>
  Object.fromEntries(
    [...columns].map(([field, { type, value }]) => [field, valueOf({ type: type as FieldDefinition['type'] }, row[value])]),
  );

/** Notes by which expression a column is computed; undefined for one that people fill in. */
export const noteComputed = (manager: EntityManager, { number: table }: RecordTableShape, field: string, computed: string | undefined) =>
  manager.update(RecordColumn, { table, field }, { computed: computed ?? null });

/** Computes the fields of every record again, a span of rows at a time. */
export async function computeAll(manager: EntityManager, queries: RememberedQueries, shape: RecordTableShape): Promise<void> {
  const computed = [...shape.columns.values()].filter((column) => column.computed !== undefined);
  if (computed.length === 0) return;
  const names = computed.flatMap(columnsOf);
  const fields = fieldsOf(shape.columns);
  const marks = computed.map((column) => `${column.value}=${column.computed ?? ''}`).join(',');
  for await (const [first, last] of spansOf(manager, queries, shape)) {
    const rows = await queries.rows<Record<string, unknown> & { id: number }>(
      manager,
      `to compute ${shape.name} ${String(shape.columns.size)} ${marks}`,
      { first, last },
      (on) => selectRecords(on, shape).where('r.id BETWEEN :first AND :last'),
    );
    for (const row of rows) {
      const values = computeFields(fields, recordOf(shape, row));
      const stored = computed.flatMap((column) => storedValues(column, values[column.field]));
      const bound = Object.fromEntries(names.map((name, index) => [name, stored[index] ?? null]));
      await queries.affect(manager, `compute ${shape.name} ${names.join(',')}`, { ...bound, id: row.id }, (on) =>
        on
          .createQueryBuilder()
          .update(shape.name)
          .set(Object.fromEntries(names.map((name) => [name, boundValue(name)])))
          .where('id = :id'),
      );
    }
    await setImmediate();
  }
}

/** Columns that are computed otherwise than declared, or of another type. */
export function staleColumns(
  tables: RecordTables,
  space: RecordSpace,
  collections: Collections,
): { collection: string; shape: RecordTableShape; field: string; computed: string | undefined }[] {
  return Object.entries(collections).flatMap(([collection, { fields }]) => {
    const shape = tables.live(space, collection);
    if (shape === undefined) return [];
    return Object.entries(fields).flatMap(([field, { computed, type }]) => {
      const column = shape.columns.get(field);
      const isStale = column !== undefined && (column.computed !== computed || (computed !== undefined && column.type !== type));
      return isStale ? [{ collection, shape, field, computed }] : [];
    });
  });
}

/** What is imported is computed as what is there: an expression that has changed in the draft counts from publishing on. */
export const withPresentExpressions = (definition: Collections[string], live: RecordTableShape | undefined): Collections[string] => ({
  ...definition,
  fields: Object.fromEntries(
    Object.entries(definition.fields).map(([name, field]) => {
      const present = live?.columns.get(name);
      const isKept = field.computed !== undefined && present?.computed !== undefined && present.type === field.type;
      return [name, isKept ? { ...field, computed: present.computed } : field];
    }),
  ),
});
