import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Boxes that a person keeps for other rigs. */
export class Shelf1764100000000 implements MigrationInterface {
  name = 'Shelf1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `shelf_box` (`owner` varchar(64) NOT NULL, `key` varchar(64) NOT NULL, `name` varchar(120) NOT NULL, `format` smallint UNSIGNED NOT NULL, `box` json NOT NULL, `changed` datetime(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6), PRIMARY KEY (`owner`, `key`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `shelf_box` ADD CONSTRAINT `FK_2ed43ab9fe2de0cd99985c8d43d` FOREIGN KEY (`owner`) REFERENCES `person`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `shelf_box`');
  }
}
