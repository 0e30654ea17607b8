import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Sessions end by idleness too; mails wait on disk until they are sent. */
export class IdleSessionsAndMails1700000000003 implements MigrationInterface {
  name = 'IdleSessionsAndMails1700000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE session ADD COLUMN latest_end INTEGER NOT NULL DEFAULT 0');
    await runner.query('ALTER TABLE session ADD COLUMN idle INTEGER NOT NULL DEFAULT 0');
    // Sessions of before go on until their end, and no longer.
    await runner.query('UPDATE session SET latest_end = ends_at');
    await runner.query(
      'CREATE TABLE mail (number INTEGER PRIMARY KEY AUTOINCREMENT, app TEXT NOT NULL, written_at TEXT NOT NULL, recipient TEXT NOT NULL, subject TEXT NOT NULL, text TEXT NOT NULL, html TEXT NOT NULL, state TEXT NOT NULL, tries INTEGER NOT NULL, problem TEXT NOT NULL)',
    );
    await runner.query('CREATE INDEX mail_by_state ON mail (state)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE mail');
    await runner.query('ALTER TABLE session DROP COLUMN idle');
    await runner.query('ALTER TABLE session DROP COLUMN latest_end');
  }
}
