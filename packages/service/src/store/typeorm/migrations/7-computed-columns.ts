import { TableColumn, type MigrationInterface, type QueryRunner } from 'typeorm';

/** The expression by which a column was computed. */
export class ComputedColumns1700000000015 implements MigrationInterface {
  name = 'ComputedColumns1700000000015';

  async up(runner: QueryRunner): Promise<void> {
    await runner.addColumn('record_column', new TableColumn({ name: 'computed', type: 'text', isNullable: true }));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.dropColumn('record_column', 'computed');
  }
}
