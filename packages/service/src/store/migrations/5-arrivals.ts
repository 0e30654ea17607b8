import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How many came, and how many sent a form, by what they came with. */
export class Arrivals1700000000005 implements MigrationInterface {
  name = 'Arrivals1700000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE arrival (app TEXT NOT NULL, parameter TEXT NOT NULL, value TEXT NOT NULL, day TEXT NOT NULL, arrivals INTEGER NOT NULL, submissions INTEGER NOT NULL, PRIMARY KEY (app, parameter, value, day))',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE arrival');
  }
}
