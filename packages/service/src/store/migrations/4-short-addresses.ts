import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Short addresses. */
export class ShortAddresses1700000000004 implements MigrationInterface {
  name = 'ShortAddresses1700000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE short_address (code TEXT PRIMARY KEY, app TEXT NOT NULL, address TEXT NOT NULL, made_at TEXT NOT NULL, ends_at TEXT)',
    );
    await runner.query('CREATE INDEX short_address_by_address ON short_address (app, address)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE short_address');
  }
}
