import type { AppDefinition } from '@pallmist/core';
import { column, foldedColumn, tableName } from './record-names.ts';
import type { RecordWriter } from './record-writer.ts';
import { inTransaction, type Sqlite } from './sqlite.ts';

type Collections = NonNullable<AppDefinition['collections']>;

/** The records that a draft's forms change: a copy of the app's, made at the first change. No app is called so. */
const trialName = (app: string) => `${app}~draft`;

/** Lets drafts be tried out: what their forms save is a copy, which goes when the draft is published or gets new data. */
export class TrialRecords {
  readonly #sqlite: Sqlite;
  readonly #writer: RecordWriter;
  /** The apps whose draft has a copy. */
  readonly #apps: Set<string>;

  constructor(sqlite: Sqlite, writer: RecordWriter) {
    this.#sqlite = sqlite;
    this.#writer = writer;
    const tables = this.#tables('records_%~draft_%');
    this.#apps = new Set(tables.map((table) => /^records_(.+)~draft_/.exec(table)?.[1] ?? ''));
  }

  /** The name under which a draft's records are kept: the app's own while nothing was changed. */
  nameFor(app: string): string {
    return this.#apps.has(app) ? trialName(app) : app;
  }

  /** Makes the copy, unless there is one. @returns the name under which it is kept */
  begin(app: string, collections: Collections): string {
    const name = trialName(app);
    if (this.#apps.has(app)) return name;
    this.#writer.prepare(name, collections);
    inTransaction(this.#sqlite, () => {
      for (const [collection, { fields }] of Object.entries(collections)) {
        const columns = Object.entries(fields)
          .flatMap(([field, { type }]) => (type === 'text' ? [column(field), foldedColumn(field)] : [column(field)]))
          .join(', ');
        this.#sqlite.exec(`INSERT INTO ${tableName(name, collection)} (${columns}) SELECT ${columns} FROM ${tableName(app, collection)}`);
      }
    });
    this.#apps.add(app);
    return name;
  }

  /** The draft has other collections or fields than before. */
  follow(app: string, collections: Collections): void {
    if (this.#apps.has(app)) this.#writer.prepare(trialName(app), collections);
  }

  /** From now on the draft shows the app's own records again. */
  end(app: string): void {
    if (!this.#apps.delete(app)) return;
    inTransaction(this.#sqlite, () => {
      for (const table of this.#tables(`records_${trialName(app)}_%`)) this.#sqlite.exec(`DROP TABLE "${table.replaceAll('"', '""')}"`);
    });
    this.#writer.forgetTables(trialName(app));
  }

  #tables(like: string): string[] {
    const rows = this.#sqlite.prepare("SELECT name FROM sqlite_master WHERE type = 'table' AND name LIKE ?").all(like) as {
      name: string;
    }[];
    return rows.map(({ name }) => name);
  }
}
