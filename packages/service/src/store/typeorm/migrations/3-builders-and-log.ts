import { Table, TableColumn, type MigrationInterface, type QueryRunner } from 'typeorm';

const text = (name: string, isPrimary = false) => ({ name, type: 'text', isPrimary });

/** Builders with accounts, a log of what was changed, and who published an edition. */
export class BuildersAndLog1700000000011 implements MigrationInterface {
  name = 'BuildersAndLog1700000000011';

  async up(runner: QueryRunner): Promise<void> {
    await runner.createTable(
      new Table({
        name: 'draft_change',
        columns: [
          text('app', true),
          { name: 'revision', type: 'integer', isPrimary: true },
          text('changed_at'),
          text('changed_by'),
          text('what'),
          { name: 'patch', type: 'text', isNullable: true },
        ],
      }),
    );
    await runner.createTable(
      new Table({
        name: 'builder',
        columns: [
          text('id', true),
          text('name'),
          { name: 'mail', type: 'text', isUnique: true },
          text('role'),
          { name: 'password_hash', type: 'text', isNullable: true },
          { name: 'invitation_hash', type: 'text', isNullable: true },
          { name: 'invitation_ends_at', type: 'integer', isNullable: true },
          text('made_at'),
        ],
      }),
    );
    for (const name of ['published_by', 'note']) await runner.addColumn('edition', new TableColumn({ name, type: 'text', default: "''" }));
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const name of ['draft_change', 'builder']) await runner.dropTable(name);
    await runner.dropColumns('edition', ['published_by', 'note']);
  }
}
