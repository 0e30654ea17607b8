import { Table, type MigrationInterface, type QueryRunner, type TableColumnOptions } from 'typeorm';

const key = { isPrimary: true };
const text = (name: string, more: Partial<TableColumnOptions> = {}): TableColumnOptions => ({ name, type: 'text', ...more });
const integer = (name: string, more: Partial<TableColumnOptions> = {}): TableColumnOptions => ({ name, type: 'integer', ...more });

const tables: Record<string, TableColumnOptions[]> = {
  page_version: [text('app', key), text('mark', key), text('page'), text('version')],
  edition_page: [text('app', key), integer('edition', key), text('mark', key)],
  printed_address: [text('id', key), text('app'), text('address'), text('note'), text('by'), text('at')],
  ledger: [...['app', 'day', 'page', 'parameter', 'state', 'bucket', 'referrer'].map((name) => text(name, key)), integer('count')],
  consent: [text('app', key), text('promise', key), integer('edition'), text('words'), text('by'), text('at'), text('why')],
};

/** What addresses of editions promise, and which promises were given up. */
export class LinksThatLast1700000000013 implements MigrationInterface {
  name = 'LinksThatLast1700000000013';

  async up(runner: QueryRunner): Promise<void> {
    for (const [name, columns] of Object.entries(tables)) await runner.createTable(new Table({ name, columns }));
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const name of Object.keys(tables)) await runner.dropTable(name);
  }
}
