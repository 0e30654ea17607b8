import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The pictures of apps, and what stood in forms whose session had ended. */
export class FilesAndHeldForms1700000000002 implements MigrationInterface {
  name = 'FilesAndHeldForms1700000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('CREATE TABLE file (app TEXT NOT NULL, name TEXT NOT NULL, bytes BLOB NOT NULL, PRIMARY KEY (app, name))');
    await runner.query(
      'CREATE TABLE held_form (token_hash TEXT PRIMARY KEY, scope TEXT NOT NULL, address TEXT NOT NULL, form TEXT NOT NULL, texts TEXT NOT NULL, ends_at INTEGER NOT NULL)',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE held_form');
    await runner.query('DROP TABLE file');
  }
}
