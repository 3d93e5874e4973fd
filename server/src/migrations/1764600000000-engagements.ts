import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a rig is used for. */
export class Engagements1764600000000 implements MigrationInterface {
  name = 'Engagements1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `engagement` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `engagement` ADD CONSTRAINT `FK_47b60ac6faf6cf1d1e1a352bc90` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `engagement`');
  }
}
