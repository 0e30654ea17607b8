import { chmodSync, existsSync, mkdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { systemClock, type WallClock } from '../clock.ts';
import { Passwords } from '../people/passwords.ts';
import { StartError } from '../start-error.ts';
import { forgetDamage, isDamaged, prepareReader, prepareWriter, SqliteDriver } from './sqlite/driver.ts';
import type { Store } from './store.ts';
import { within, type Connection } from './typeorm/connection.ts';
import { entities, RecordTable } from './typeorm/entities.ts';
import { migrations } from './typeorm/migrations/index.ts';
import { RecordState, TypeormRecordStore, type ChangeLog } from './typeorm/records.ts';
import { storesOn } from './typeorm/stores.ts';
import { WriteQueue } from './typeorm/write-queue.ts';

export interface StoreOptions {
  clock?: WallClock;
  passwords?: Passwords;
  /** Days for which mails are kept. */
  keepMailDays?: number;
}

/** Statements that a connection keeps prepared. */
const statementCacheSize = 500;

/**
 * Opens the database in a directory and brings its tables up to date.
 * @param directory made if missing
 * @throws StartError when the directory or the database cannot be used, or a newer version has written it
 */
export async function openStore(
  directory: string,
  { clock = systemClock, passwords = new Passwords(), keepMailDays = 30 }: StoreOptions = {},
): Promise<Store> {
  const file = join(directory, 'pallmist.sqlite');
  makeDirectory(directory);
  forgetDamage(file);
  const common = { type: 'better-sqlite3', driver: SqliteDriver, database: file, entities, statementCacheSize } as const;
  const writer = new DataSource({ ...common, migrations: [...migrations], prepareDatabase: prepareWriter });
  const reader = new DataSource({ ...common, prepareDatabase: prepareReader });
  try {
    await writer.initialize();
    await refuseNewer(writer, file);
    await writer.runMigrations({ transaction: 'each' });
    await reader.initialize();
    closeToOthers(file);
  } catch (error) {
    for (const source of [writer, reader]) if (source.isInitialized) await source.destroy();
    if (error instanceof StartError) throw error;
    throw new StartError(
      `The database ${file} cannot be opened: ${reason(error)}. Check the file and its rights, or set PALLMIST_DATA to another directory.`,
    );
  }
  const { ino: opened } = statSync(file);
  const queue = new WriteQueue(writer);
  const on: Connection = { reader: reader.manager, write: (work) => queue.run(work), clock, passwords };
  let probes = 0;
  const state = new RecordState();
  try {
    // What was being imported when the service ended is taken by nobody any more.
    await queue.run((manager) => manager.update(RecordTable, { state: 'staged' }, { state: 'dropped' }));
    await state.tables.load(reader.manager);
  } catch (error) {
    await writer.destroy();
    await reader.destroy();
    throw new StartError(
      `The database ${file} cannot be used: ${reason(error)}. Run pallmist doctor, and restore a backup if it is damaged.`,
    );
  }

  /** Runs work on all stores in one transaction. */
  const transaction = async <Result>(
    work: (stores: ReturnType<typeof storesOn>, records: TypeormRecordStore) => Promise<Result>,
  ): Promise<Result> => {
    const log: ChangeLog = { spaces: new Set(), tables: false };
    try {
      const result = await queue.run(async (manager) => {
        const inside = within(manager, on);
        const records = new TypeormRecordStore(inside, state, log);
        await records.begin();
        return work(storesOn(inside, records, keepMailDays), records);
      });
      await state.follow(reader.manager, log);
      return result;
    } finally {
      if (log.tables) state.pendingTables--;
    }
  };
  const records = new TypeormRecordStore(on, state, { spaces: new Set(), tables: false }, (work) =>
    transaction((_, inside) => work(inside)),
  );
  return {
    ...storesOn(on, records, keepMailDays),
    transaction: (work) => transaction((stores) => work(stores)),
    async probe() {
      if (!existsSync(file) || statSync(file).ino !== opened) throw new Error('The database file is gone, or another one is in its place.');
      if (isDamaged(file)) throw new Error('The database file is damaged. Run pallmist doctor, and restore a backup.');
      await reader.query('SELECT COUNT(*) FROM draft');
      // A write that changes nothing would commit nothing: this one needs the disk, a full one refuses it.
      await queue.run((manager) => manager.query(`PRAGMA user_version = ${String((probes = (probes + 1) % 2 ** 30))}`));
    },
    async close() {
      await queue.settled();
      await reader.destroy();
      // Everything stands in the one file then, which can be copied as a backup.
      await writer.query('PRAGMA wal_checkpoint(TRUNCATE)');
      await writer.destroy();
    },
  };
}

function makeDirectory(directory: string): void {
  try {
    mkdirSync(directory, { recursive: true, mode: 0o700 });
  } catch (error) {
    throw new StartError(
      `The data directory ${directory} cannot be made: ${reason(error)}. Set PALLMIST_DATA to a directory that can be written.`,
    );
  }
}

/** The database holds what people have sent: it is for this account alone, whatever its directory says. */
function closeToOthers(file: string): void {
  for (const name of [file, `${file}-wal`, `${file}-shm`]) if (existsSync(name)) chmodSync(name, 0o600);
}

/** A database that a later version has changed is not touched. */
async function refuseNewer(source: DataSource, file: string): Promise<void> {
  const tables: { name: string }[] = await source.query("SELECT name FROM sqlite_master WHERE name = 'migrations'");
  if (tables.length === 0) return;
  const done: { name: string }[] = await source.query('SELECT name FROM migrations');
  const known = new Set(migrations.map((Migration) => Migration.name));
  const unknown = done.find(({ name }) => !known.has(name) && Number(/\d+$/.exec(name)?.[0] ?? 0) > 1700000000008);
  if (unknown)
    throw new StartError(
      `The database ${file} was written by a newer version of Pallmist (${unknown.name}). Start that version, or set PALLMIST_DATA to another directory.`,
    );
}

const reason = (error: unknown) => (error instanceof Error ? error.message : String(error)).split('\n')[0] ?? '';
