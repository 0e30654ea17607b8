import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Visitors make short addresses too, and withdraw their own. */
export class MakersOfShortAddresses1700000000008 implements MigrationInterface {
  name = 'MakersOfShortAddresses1700000000008';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE short_address ADD COLUMN maker TEXT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE short_address DROP COLUMN maker');
  }
}
