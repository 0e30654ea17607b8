import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The tables that every service has; those of the collections come and go with the apps. */
export class FirstTables1700000000001 implements MigrationInterface {
  name = 'FirstTables1700000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE draft (app TEXT PRIMARY KEY, source TEXT NOT NULL, revision INTEGER NOT NULL, changed_at TEXT NOT NULL)',
    );
    await runner.query(
      'CREATE TABLE edition (app TEXT NOT NULL, number INTEGER NOT NULL, source TEXT NOT NULL, published_at TEXT NOT NULL, PRIMARY KEY (app, number))',
    );
    await runner.query(
      'CREATE TABLE person (app TEXT NOT NULL, login TEXT NOT NULL, name TEXT NOT NULL, password_hash TEXT NOT NULL, roles TEXT NOT NULL, PRIMARY KEY (app, login))',
    );
    await runner.query(
      'CREATE TABLE session (token_hash TEXT PRIMARY KEY, scope TEXT NOT NULL, login TEXT NOT NULL, ends_at INTEGER NOT NULL)',
    );
    await runner.query('CREATE INDEX session_by_end ON session (ends_at)');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['session', 'person', 'edition', 'draft']) await runner.query(`DROP TABLE ${table}`);
  }
}
