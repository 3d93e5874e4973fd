import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A rig that is removed is put away with its whole history, so that it can be brought back. */
export class PutAway1764400000000 implements MigrationInterface {
  name = 'PutAway1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE `rig` ADD `removed` datetime(6) NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE `rig` DROP COLUMN `removed`');
  }
}
