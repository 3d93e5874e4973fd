import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What the history tells without reading what was changed, how much there is to read, and a row that health writes to.
 */
export class Sizes1764300000000 implements MigrationInterface {
  name = 'Sizes1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE `journal_entry` ADD `parts` int UNSIGNED NOT NULL DEFAULT '0', ADD `bytes` int UNSIGNED NOT NULL DEFAULT '0'",
    );
    await runner.query('UPDATE `journal_entry` SET `parts` = JSON_LENGTH(`delta`), `bytes` = OCTET_LENGTH(`delta`)');
    await runner.query(
      'CREATE TABLE `pulse` (`id` tinyint UNSIGNED NOT NULL, `beats` int UNSIGNED NOT NULL, PRIMARY KEY (`id`)) ENGINE=InnoDB',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `pulse`');
    await runner.query('ALTER TABLE `journal_entry` DROP COLUMN `bytes`, DROP COLUMN `parts`');
  }
}
