import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What somebody has typed into a box and ticked off. */
export class Ticks1764200000000 implements MigrationInterface {
  name = 'Ticks1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `tick` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `device` varchar(80) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `tick` ADD CONSTRAINT `FK_ba442671ab7413dc4dfe6c6d8ea` FOREIGN KEY (`rig`, `device`) REFERENCES `device`(`rig`,`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `tick`');
  }
}
