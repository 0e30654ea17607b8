import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { StartError } from './start-error.ts';
import { isBusy, SqliteDriver } from './store/sqlite/driver.ts';

/**
 * Takes a data directory for this process alone. The lock is one of the operating system's, on a small database of its own:
 * when the process ends, in whichever way, it is free again.
 * @returns frees it
 * @throws StartError when another service has it
 */
export function lockDirectory(directory: string): () => void {
  let database: SqliteDriver;
  try {
    mkdirSync(directory, { recursive: true, mode: 0o700 });
    database = new SqliteDriver(join(directory, 'service.lock'));
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    throw new StartError(
      `The data directory ${directory} cannot be used: ${reason}. Set PALLMIST_DATA to a directory that can be written.`,
    );
  }
  try {
    database.exec('PRAGMA busy_timeout = 0');
    database.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    database.close();
    if (isBusy(error))
      throw new StartError(
        `Another Pallmist service is using the directory ${directory}. Stop it first, or set PALLMIST_DATA to another directory.`,
      );
    throw error;
  }
  return () => {
    database.close();
  };
}
