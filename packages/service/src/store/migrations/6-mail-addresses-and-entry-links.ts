import type { MigrationInterface, QueryRunner } from 'typeorm';

/** People have mail addresses, and come in by the links of mails. */
export class MailAddressesAndEntryLinks1700000000006 implements MigrationInterface {
  name = 'MailAddressesAndEntryLinks1700000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person ADD COLUMN mail TEXT');
    await runner.query('CREATE INDEX person_by_mail ON person (app, mail)');
    await runner.query(
      'CREATE TABLE entry_link (token_hash TEXT NOT NULL PRIMARY KEY, scope TEXT NOT NULL, login TEXT NOT NULL, back TEXT, ends_at INTEGER NOT NULL)',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE entry_link');
    await runner.query('DROP INDEX person_by_mail');
    await runner.query('ALTER TABLE person DROP COLUMN mail');
  }
}
