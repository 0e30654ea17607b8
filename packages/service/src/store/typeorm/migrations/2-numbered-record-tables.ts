import { Table, TableIndex, type MigrationInterface, type QueryRunner } from 'typeorm';
import { checkAppFile, compileApp, readAddress, serialParts } from '@pallmist/app';
import { loginKey } from '../../../people/login-names.ts';
import { addColumn, quoteName } from '../../sqlite/statements.ts';
import { copyFirstRecords, createFirstTable } from './2-record-table.ts';

const day = 24 * 60 * 60 * 1000;

/** Records in numbered tables with a register; login names by PRECIS; mails that are removed; forms that count once. */
export class NumberedRecordTables1700000000010 implements MigrationInterface {
  name = 'NumberedRecordTables1700000000010';

  async up(runner: QueryRunner): Promise<void> {
    const { manager } = runner;
    await runner.createTable(
      new Table({
        name: 'record_table',
        columns: [
          { name: 'number', type: 'integer', isPrimary: true, isGenerated: true, generationStrategy: 'increment' },
          { name: 'space', type: 'text' },
          { name: 'collection', type: 'text' },
          { name: 'state', type: 'text' },
          { name: 'key_field', type: 'text' },
        ],
        indices: [{ name: 'record_table_by_state', columnNames: ['state'] }],
      }),
    );
    await runner.createTable(
      new Table({
        name: 'record_column',
        columns: [
          { name: 'table_number', type: 'integer', isPrimary: true },
          { name: 'field', type: 'text', isPrimary: true },
          { name: 'number', type: 'integer' },
          { name: 'type', type: 'text' },
          { name: 'is_unique', type: 'boolean' },
          { name: 'last_serial', type: 'integer' },
        ],
      }),
    );
    await runner.createTable(
      new Table({
        name: 'receipt',
        columns: [
          { name: 'app', type: 'text', isPrimary: true },
          { name: 'mark', type: 'text', isPrimary: true },
          { name: 'next', type: 'text' },
          { name: 'ends_at', type: 'integer' },
        ],
        indices: [{ name: 'receipt_by_end', columnNames: ['ends_at'] }],
      }),
    );
    for (const [table, column, type] of [
      ['person', 'login_key', "TEXT NOT NULL DEFAULT ''"],
      ['held_form', 'login', 'TEXT'],
      ['held_form', 'network', "TEXT NOT NULL DEFAULT ''"],
      ['mail', 'form', "TEXT NOT NULL DEFAULT ''"],
      ['mail', 'due_at', 'INTEGER NOT NULL DEFAULT 0'],
      ['mail', 'remove_at', 'INTEGER NOT NULL DEFAULT 0'],
      ['short_address', 'edition', 'INTEGER NOT NULL DEFAULT 0'],
      ['short_address', 'page', "TEXT NOT NULL DEFAULT ''"],
      ['short_address', 'page_values', "TEXT NOT NULL DEFAULT '{}'"],
      ['short_address', 'fragment', 'TEXT'],
    ] as const)
      await addColumn(manager, table, column, type);
    for (const [table, name, columnNames] of [
      ['held_form', 'held_form_by_network', ['network']],
      ['held_form', 'held_form_by_login', ['scope', 'login']],
      ['mail', 'mail_by_due', ['state', 'due_at']],
      ['mail', 'mail_by_recipient', ['app', 'recipient', 'written_at']],
      ['mail', 'mail_by_form', ['app', 'form', 'written_at']],
      ['mail', 'mail_by_removal', ['remove_at']],
      ['short_address', 'short_address_by_target', ['app', 'maker', 'page']],
    ] as const)
      await runner.createIndex(table, new TableIndex({ name, columnNames: [...columnNames] }));
    await this.#keyLoginNames(runner);
    await this.#fillMails(runner);
    await this.#readShortAddresses(runner);
    await this.#moveRecords(runner);
  }

  /** Two names of an app that are one by PRECIS stay two: the later one is told apart by its number. */
  async #keyLoginNames({ manager }: QueryRunner): Promise<void> {
    const taken = new Set<string>();
    const people: { app: string; login: string }[] = await manager.query('SELECT app, login FROM person ORDER BY login');
    for (const { app, login } of people) {
      let key = loginKey(login);
      for (let more = 2; taken.has(`${app} ${key}`); more++) key = `${loginKey(login)}@${String(more)}`;
      taken.add(`${app} ${key}`);
      await manager.query('UPDATE person SET login_key = ? WHERE app = ? AND login = ?', [key, app, login]);
    }
    await manager.queryRunner?.createIndex(
      'person',
      new TableIndex({ name: 'person_by_login_key', columnNames: ['app', 'login_key'], isUnique: true }),
    );
  }

  async #fillMails({ manager }: QueryRunner): Promise<void> {
    await manager.query('UPDATE mail SET remove_at = ?', [Date.now() + 30 * day]);
  }

  /** Short addresses stood for texts; now they stand for values. */
  async #readShortAddresses({ manager }: QueryRunner): Promise<void> {
    const rows: { code: string; app: string; address: string }[] = await manager.query('SELECT code, app, address FROM short_address');
    for (const { code, app, address } of rows) {
      const [edition]: { number: number; source: string }[] = await manager.query(
        'SELECT number, source FROM edition WHERE app = ? ORDER BY number DESC LIMIT 1',
        [app],
      );
      const definition = edition === undefined ? undefined : checkAppFile(edition.source).definition;
      if (edition === undefined || definition === undefined) continue;
      const compiled = compileApp(definition).app;
      const reading = readAddress(compiled, compiled.mount + address);
      if (reading.page === undefined) continue;
      await manager.query('UPDATE short_address SET edition = ?, page = ?, page_values = ?, fragment = ? WHERE code = ?', [
        edition.number,
        reading.page,
        JSON.stringify(reading.values),
        reading.fragment ?? null,
        code,
      ]);
    }
    await manager.query('DROP INDEX IF EXISTS short_address_by_address');
    await manager.query('ALTER TABLE short_address DROP COLUMN address');
  }

  /** Records stood in tables named by app and collection. */
  async #moveRecords(runner: QueryRunner): Promise<void> {
    const { manager } = runner;
    const drafts: { app: string; source: string }[] = await manager.query('SELECT app, source FROM draft');
    for (const { app, source } of drafts) {
      const editions: { source: string }[] = await manager.query('SELECT source FROM edition WHERE app = ? ORDER BY number DESC LIMIT 1', [
        app,
      ]);
      // A draft may be broken; the records are those of what is published then.
      const definition = [source, ...editions.map((edition) => edition.source)]
        .map((text) => checkAppFile(text).definition)
        .find((found) => found !== undefined);
      for (const [name, collection] of Object.entries(definition?.collections ?? {})) {
        const old = `records_${app}_${name}`;
        const present = await runner.getTable(old);
        if (present === undefined) continue;
        const table = await createFirstTable(manager, app, name, collection);
        const copied = await copyFirstRecords(manager, table, old, new Set(present.columns.map((column) => column.name)));
        for (const { field, value } of copied) {
          const { serial } = collection.fields[field] ?? {};
          if (serial === undefined) continue;
          const { beginning } = serialParts(serial);
          const rows: { value: string }[] = await manager.query(`SELECT ${value} AS value FROM ${quoteName(table.name)}`);
          const numbers = rows.map((row) => Number(row.value.slice(beginning.length))).filter(Number.isSafeInteger);
          const lastSerial = numbers.reduce((greatest, number) => Math.max(greatest, number), 0);
          await manager.query('UPDATE record_column SET last_serial = ? WHERE table_number = ? AND field = ?', [
            lastSerial,
            table.number,
            field,
          ]);
        }
        await runner.dropTable(old);
      }
    }
    // Records of collections that no app file declares any more stay where they are: nothing of anybody is thrown away.
  }

  async down(): Promise<void> {
    return Promise.reject(new Error('Records are not moved back into tables of their former names; use a copy of the database.'));
  }
}
