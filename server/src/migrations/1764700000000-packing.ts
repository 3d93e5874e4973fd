import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Cases with what belongs in them, and what went out to a date and came back. */
export class Packing1764700000000 implements MigrationInterface {
  name = 'Packing1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `pack_case` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `packing` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `pack_case` ADD CONSTRAINT `FK_1361ffe67c6d6597551df5b4909` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `packing` ADD CONSTRAINT `FK_420255d9e36cc5ea2104354a24d` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `packing`');
    await runner.query('DROP TABLE `pack_case`');
  }
}
