import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that people send with forms. */
export class SentFiles1700000000007 implements MigrationInterface {
  name = 'SentFiles1700000000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE sent_file (app TEXT NOT NULL, value TEXT NOT NULL, bytes BLOB NOT NULL, size INTEGER NOT NULL, loose_until INTEGER, PRIMARY KEY (app, value))',
    );
    await runner.query('CREATE INDEX sent_file_loose ON sent_file (loose_until)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE sent_file');
  }
}
