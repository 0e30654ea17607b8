import { Table, TableIndex, type MigrationInterface, type QueryRunner, type TableColumnOptions } from 'typeorm';

const text = (name: string, more: Partial<TableColumnOptions> = {}): TableColumnOptions => ({ name, type: 'text', ...more });
const integer = (name: string, more: Partial<TableColumnOptions> = {}): TableColumnOptions => ({ name, type: 'integer', ...more });
const key = { isPrimary: true };
const optional = { isNullable: true };

const tables: Record<string, TableColumnOptions[]> = {
  api_token: [
    text('id', key),
    text('name'),
    text('token_hash', { isUnique: true }),
    text('scopes'),
    text('app', optional),
    text('made_at'),
    text('ends_at', optional),
    text('used_on', optional),
  ],
  webhook: [text('id', key), text('app'), text('url'), text('secret'), text('events'), text('collections'), text('made_at')],
  delivery: [
    integer('number', { ...key, isGenerated: true, generationStrategy: 'increment' }),
    ...['webhook', 'event_id', 'type', 'body', 'written_at', 'state'].map((name) => text(name)),
    integer('tries'),
    text('problem'),
    integer('due_at'),
    integer('remove_at'),
  ],
};

const indexes: Record<string, Record<string, string[]>> = {
  webhook: { webhook_by_app: ['app'] },
  delivery: { delivery_by_due: ['state', 'due_at'], delivery_by_webhook: ['webhook', 'number'], delivery_by_removal: ['remove_at'] },
};

/** Tokens with names and scopes; webhooks, and what is sent to them. */
export class TokensAndWebhooks1700000000012 implements MigrationInterface {
  name = 'TokensAndWebhooks1700000000012';

  async up(runner: QueryRunner): Promise<void> {
    for (const [name, columns] of Object.entries(tables)) {
      await runner.createTable(new Table({ name, columns }));
      for (const [index, columnNames] of Object.entries(indexes[name] ?? {}))
        await runner.createIndex(name, new TableIndex({ name: index, columnNames }));
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const name of Object.keys(tables)) await runner.dropTable(name);
  }
}
