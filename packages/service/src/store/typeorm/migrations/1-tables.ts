import { Table, TableIndex, type MigrationInterface, type QueryRunner, type TableColumnOptions } from 'typeorm';

const text = (name: string, more: Partial<TableColumnOptions> = {}): TableColumnOptions => ({ name, type: 'text', ...more });
const integer = (name: string, more: Partial<TableColumnOptions> = {}): TableColumnOptions => ({ name, type: 'integer', ...more });
const key = { isPrimary: true };
const optional = { isNullable: true };

const tables: Record<string, TableColumnOptions[]> = {
  draft: [text('app', key), text('source'), integer('revision'), text('changed_at')],
  edition: [text('app', key), integer('number', key), text('source'), text('published_at')],
  person: [text('app', key), text('login', key), text('name'), text('password_hash'), text('roles'), text('mail', optional)],
  session: [
    text('token_hash', key),
    text('scope'),
    text('login'),
    integer('ends_at'),
    integer('latest_end', { default: 0 }),
    integer('idle', { default: 0 }),
  ],
  file: [text('app', key), text('name', key), { name: 'bytes', type: 'blob' }],
  held_form: [text('token_hash', key), text('scope'), text('address'), text('form'), text('texts'), integer('ends_at')],
  mail: [
    integer('number', { ...key, isGenerated: true, generationStrategy: 'increment' }),
    ...['app', 'written_at', 'recipient', 'subject', 'text', 'html', 'state'].map((name) => text(name)),
    integer('tries'),
    text('problem'),
  ],
  short_address: [text('code', key), text('app'), text('address'), text('made_at'), text('ends_at', optional), text('maker', optional)],
  arrival: [text('app', key), text('parameter', key), text('value', key), text('day', key), integer('arrivals'), integer('submissions')],
  entry_link: [text('token_hash', key), text('scope'), text('login'), text('back', optional), integer('ends_at')],
  sent_file: [text('app', key), text('value', key), { name: 'bytes', type: 'blob' }, integer('size'), integer('loose_until', optional)],
};

const indexes: Record<string, Record<string, string[]>> = {
  person: { person_by_mail: ['app', 'mail'] },
  session: { session_by_end: ['ends_at'] },
  mail: { mail_by_state: ['state'] },
  sent_file: { sent_file_loose: ['loose_until'] },
};

/** The tables of version 0.1, which are there already in a database that 0.1 has made. */
export class Tables1700000000009 implements MigrationInterface {
  name = 'Tables1700000000009';

  async up(runner: QueryRunner): Promise<void> {
    for (const [name, columns] of Object.entries(tables)) {
      if (await runner.hasTable(name)) continue;
      await runner.createTable(new Table({ name, columns }));
      for (const [index, columnNames] of Object.entries(indexes[name] ?? {}))
        await runner.createIndex(name, new TableIndex({ name: index, columnNames }));
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const name of Object.keys(tables)) await runner.dropTable(name);
  }
}
