import type { EntityManager } from 'typeorm';

/** Quotes a name for SQL. */
export const quoteName = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** Adds a column in no time, whatever the table holds; TypeORM would copy the table. */
export async function addColumn(manager: EntityManager, table: string, column: string, type: string): Promise<void> {
  await manager.query(`ALTER TABLE ${quoteName(table)} ADD COLUMN ${quoteName(column)} ${type}`);
}

/** Whether a column holds a text; both are folded already. */
export const containsCondition = (column: string, placeholder: string): string => `instr(${column}, ${placeholder}) > 0`;

/** Copies rows whose ids lie between two others from one table into another. */
export async function copyRows(
  manager: EntityManager,
  from: string,
  to: string,
  columns: readonly [from: string, to: string][],
  [first, last]: readonly [number, number],
  condition = '1 = 1',
): Promise<void> {
  const into = columns.map(([, name]) => quoteName(name)).join(', ');
  const selected = columns.map(([name]) => `r.${quoteName(name)}`).join(', ');
  await manager.query(
    `INSERT INTO ${quoteName(to)} (${into}) SELECT ${selected} FROM ${quoteName(from)} r WHERE r.id BETWEEN ? AND ? AND ${condition}`,
    [first, last],
  );
}
