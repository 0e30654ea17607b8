import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Libsql from 'libsql';
import { DataSource } from 'typeorm';
import { StartError } from '../settings.ts';
import { AppStore } from './apps.ts';
import { entities } from './entities/index.ts';
import { FirstTables1700000000001 } from './migrations/1-first-tables.ts';
import { FilesAndHeldForms1700000000002 } from './migrations/2-files-and-held-forms.ts';
import { IdleSessionsAndMails1700000000003 } from './migrations/3-idle-sessions-and-mails.ts';
import { ShortAddresses1700000000004 } from './migrations/4-short-addresses.ts';
import { Arrivals1700000000005 } from './migrations/5-arrivals.ts';
import { MailAddressesAndEntryLinks1700000000006 } from './migrations/6-mail-addresses-and-entry-links.ts';
import { SentFiles1700000000007 } from './migrations/7-sent-files.ts';
import { MakersOfShortAddresses1700000000008 } from './migrations/8-makers-of-short-addresses.ts';
import { ArrivalStore } from './arrivals.ts';
import { EntryLinkStore } from './entry-links.ts';
import { FileStore } from './files.ts';
import { MailStore } from './mails.ts';
import { PeopleStore } from './people.ts';
import { HeldFormStore } from './held-forms.ts';
import { RecordWriter } from './record-writer.ts';
import { RecordStore } from './records.ts';
import { ShortAddressStore } from './short-addresses.ts';
import { SentFileStore } from './sent-files.ts';
import { SessionStore } from './sessions.ts';
import type { Sqlite } from './sqlite.ts';
import { TrialRecords } from './trial-records.ts';

/** Everything that is kept. What a method has acknowledged is on disk. */
export interface Store {
  apps: AppStore;
  people: PeopleStore;
  sessions: SessionStore;
  entryLinks: EntryLinkStore;
  records: RecordStore;
  writer: RecordWriter;
  trials: TrialRecords;
  files: FileStore;
  sentFiles: SentFileStore;
  heldForms: HeldFormStore;
  mails: MailStore;
  shortAddresses: ShortAddressStore;
  arrivals: ArrivalStore;
  close(): Promise<void>;
}

/**
 * Opens the database in a directory and brings its tables up to date.
 * @param directory made if missing
 * @throws StartError when the directory or the database cannot be used
 */
export async function openStore(directory: string): Promise<Store> {
  const file = join(directory, 'pallmist.sqlite');
  try {
    mkdirSync(directory, { recursive: true, mode: 0o700 });
  } catch (error) {
    throw new StartError(
      `The data directory ${directory} cannot be made: ${reason(error)}. Set PALLMIST_DATA to a directory that can be written.`,
    );
  }
  let sqlite: Sqlite | undefined;
  const source = new DataSource({
    type: 'better-sqlite3',
    driver: Libsql,
    database: file,
    entities,
    migrations: [
      FirstTables1700000000001,
      FilesAndHeldForms1700000000002,
      IdleSessionsAndMails1700000000003,
      ShortAddresses1700000000004,
      Arrivals1700000000005,
      MailAddressesAndEntryLinks1700000000006,
      SentFiles1700000000007,
      MakersOfShortAddresses1700000000008,
    ],
    migrationsRun: true,
    synchronize: false,
    prepareDatabase(database: Sqlite) {
      database.exec('PRAGMA journal_mode = WAL');
      database.exec('PRAGMA synchronous = FULL');
      database.exec('PRAGMA busy_timeout = 4000');
      sqlite = database;
    },
  });
  try {
    await source.initialize();
  } catch (error) {
    throw new StartError(
      `The database ${file} cannot be opened: ${reason(error)}. Check the file and its rights, or set PALLMIST_DATA to another directory.`,
    );
  }
  if (sqlite === undefined) throw new StartError('The database driver did not open.');
  const writer = new RecordWriter(sqlite);
  const records = new RecordStore(sqlite, (app) => writer.version(app));
  writer.onTablesChanged(() => {
    records.forgetStatements();
  });
  return {
    apps: new AppStore(source),
    people: new PeopleStore(source),
    sessions: new SessionStore(source),
    entryLinks: new EntryLinkStore(source),
    records,
    writer,
    trials: new TrialRecords(sqlite, writer),
    files: new FileStore(source),
    sentFiles: new SentFileStore(source),
    heldForms: new HeldFormStore(source),
    mails: new MailStore(source),
    shortAddresses: new ShortAddressStore(source),
    arrivals: new ArrivalStore(source),
    close: () => source.destroy(),
  };
}

const reason = (error: unknown) => (error instanceof Error ? error.message : String(error)).split('\n')[0] ?? '';
