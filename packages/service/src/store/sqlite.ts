/** The part of the SQLite driver that the records use directly: synchronous, with prepared statements. */
export interface Sqlite {
  prepare(sql: string): Statement;
  exec(sql: string): void;
}

export interface Statement {
  all(...values: unknown[]): unknown[];
  get(...values: unknown[]): unknown;
  run(...values: unknown[]): unknown;
  /** From now on rows come as lists of values. */
  raw(): this;
}

/** Runs `work` in one transaction. It is synchronous, so that nothing else can come in between. */
export function inTransaction<Result>(sqlite: Sqlite, work: () => Result): Result {
  sqlite.exec('BEGIN IMMEDIATE');
  try {
    const result = work();
    sqlite.exec('COMMIT');
    return result;
  } catch (error) {
    sqlite.exec('ROLLBACK');
    throw error;
  }
}

/** Quotes a name for SQL. */
export const quoteName = (name: string): string => `"${name.replaceAll('"', '""')}"`;
