import Libsql from 'libsql';

type Bound = unknown[];

/** The part of the driver that is used here. */
interface Connection {
  prepare(sql: string): Statement;
  exec(sql: string): void;
  close(): void;
}

interface Statement {
  reader: boolean;
  all(...values: Bound): unknown[];
  get(...values: Bound): unknown;
  run(...values: Bound): unknown;
}

/** The driver takes a single object for named values; in a list it is a value like any other. */
const asList = (values: Bound): Bound => (values.length === 1 && typeof values[0] === 'object' ? [values] : values);

const Driver = Libsql as unknown as new (path: string, options?: object) => Connection;

/**
 * The SQLite driver, cured of what would lose data: a transaction that writes takes the write lock at its beginning (a
 * deferred one can read old data and then fail), and a single `null` or Buffer is bound as the value that it is.
 */
export class SqliteDriver extends Driver {
  readonly #path: string;

  constructor(path: string, options?: object) {
    super(path, options);
    this.#path = path;
  }

  override prepare(sql: string): Statement {
    const statement = super.prepare(sql === 'BEGIN TRANSACTION' ? 'BEGIN IMMEDIATE' : sql);
    const [all, get, run] = [statement.all.bind(statement), statement.get.bind(statement), statement.run.bind(statement)];
    statement.all = (...values) => this.#noting(() => all(...asList(values)));
    statement.get = (...values) => this.#noting(() => get(...asList(values)));
    statement.run = (...values) => this.#noting(() => run(...asList(values)));
    return statement;
  }

  /** Records that a statement found damage. The damage may be in one page of an index, which the readiness probe does not read. */
  #noting<Result>(work: () => Result): Result {
    try {
      return work();
    } catch (error) {
      if (error instanceof Error && /SQLITE_CORRUPT|SQLITE_NOTADB|malformed|not a database/.test(error.message)) damaged.add(this.#path);
      throw error;
    }
  }
}

/** Database files in which damage was found. */
const damaged = new Set<string>();

/** Whether damage was found in a database file since it was opened. */
export const isDamaged = (path: string): boolean => damaged.has(path);

/** To be called before a file is opened: another one may be in its place. */
export const forgetDamage = (path: string): void => {
  damaged.delete(path);
};

/** The connection that writes: what a commit has acknowledged is on disk, and readers go on meanwhile. */
export function prepareWriter(database: SqliteDriver): void {
  database.exec('PRAGMA journal_mode = WAL');
  database.exec('PRAGMA synchronous = FULL');
  // Waiting inside SQLite would stop the event loop; the queue of writes tries again by a timer.
  database.exec('PRAGMA busy_timeout = 0');
}

/** The connection that reads: it sees what was committed, and changes nothing. */
export function prepareReader(database: SqliteDriver): void {
  database.exec('PRAGMA busy_timeout = 0');
  database.exec('PRAGMA query_only = ON');
}

/** Whether another process held the database for a moment. */
export const isBusy = (error: unknown): boolean => error instanceof Error && /SQLITE_BUSY|database is locked/.test(error.message);

/** Whether a unique index refused a value. */
export const isUniqueViolation = (error: unknown): boolean => error instanceof Error && /UNIQUE constraint failed/.test(error.message);
