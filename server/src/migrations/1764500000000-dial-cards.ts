import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Where the knobs of a box stand, as somebody looked at them. */
export class DialCards1764500000000 implements MigrationInterface {
  name = 'DialCards1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `dial_card` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `dial_card` ADD CONSTRAINT `FK_87e1f677c1b8e2a7e23870c5063` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `dial_card`');
  }
}
