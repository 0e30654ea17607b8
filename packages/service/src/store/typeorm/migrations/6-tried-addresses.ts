import { Table, type MigrationInterface, type QueryRunner } from 'typeorm';

/** Addresses that no page has: how often they were tried, and, after some tries, which they are. */
export class TriedAddresses1700000000014 implements MigrationInterface {
  name = 'TriedAddresses1700000000014';

  async up(runner: QueryRunner): Promise<void> {
    await runner.createTable(
      new Table({
        name: 'tried_address',
        columns: [
          { name: 'app', type: 'text', isPrimary: true },
          { name: 'mark', type: 'text', isPrimary: true },
          { name: 'path', type: 'text', isNullable: true },
          { name: 'day', type: 'text' },
          { name: 'days', type: 'integer' },
          { name: 'tries', type: 'integer' },
        ],
      }),
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.dropTable('tried_address');
  }
}
