import type { EntityManager } from 'typeorm';
import type { SqliteDriver } from './driver.ts';

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

/** Copies a whole database, as it is at one moment, into a new file. Others can write meanwhile. */
export function copyInto(database: SqliteDriver, file: string): void {
  database.prepare('VACUUM INTO ?').run(file);
}

/** What is wrong with a database; undefined where nothing is. */
export function findDamage(database: SqliteDriver): string | undefined {
  const rows = database.prepare('PRAGMA integrity_check(3)').all() as { integrity_check: string }[];
  const said = rows.map(({ integrity_check: line }) => line).join(' ');
  return said === 'ok' ? undefined : said;
}
