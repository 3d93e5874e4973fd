import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Houses with what was found there, and photographs. */
export class Houses1764800000000 implements MigrationInterface {
  name = 'Houses1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `house` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `photo` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `when` varchar(40) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `house` ADD CONSTRAINT `FK_44bcacb2e9014ed702a456f2335` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `photo` ADD CONSTRAINT `FK_35df5f45209e21ef342bada68ad` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `photo`');
    await runner.query('DROP TABLE `house`');
  }
}
