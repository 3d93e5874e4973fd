import type { MigrationInterface, QueryRunner } from 'typeorm';

/** People, rigs, a table for each kind of part, and the journal. Nothing cascades. */
export class FirstTables1764000000000 implements MigrationInterface {
  name = 'FirstTables1764000000000';

  // eslint-disable-next-line max-lines-per-function -- the tables as they were first made
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE `person` (`id` varchar(64) NOT NULL, `name` varchar(120) NOT NULL, `created` datetime(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6), PRIMARY KEY (`id`)) ENGINE=InnoDB',
    );
    await runner.query(
      "CREATE TABLE `rig` (`id` varchar(64) NOT NULL, `owner` varchar(64) NOT NULL, `name` varchar(120) NOT NULL, `revision` int UNSIGNED NOT NULL DEFAULT '0', `demo` tinyint NOT NULL DEFAULT 0, `created` datetime(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6), `changed` datetime(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6), INDEX `rig_owner` (`owner`), PRIMARY KEY (`id`)) ENGINE=InnoDB",
    );
    await runner.query(
      'CREATE TABLE `journal_entry` (`rig` varchar(64) NOT NULL, `revision` int UNSIGNED NOT NULL, `change` varchar(64) NOT NULL, `label` varchar(200) NOT NULL, `who` varchar(64) NOT NULL, `when` datetime(3) NOT NULL, `format` smallint UNSIGNED NOT NULL, `delta` json NOT NULL, UNIQUE INDEX `journal_change` (`rig`, `change`), PRIMARY KEY (`rig`, `revision`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `about` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `device` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `code` varchar(4) NOT NULL, `name` varchar(120) NOT NULL, `zone` varchar(16) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `program` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `device` varchar(80) NOT NULL, `memory` varchar(64) NOT NULL, `number` smallint UNSIGNED NOT NULL, `name` varchar(120) NOT NULL, INDEX `program_place` (`rig`, `device`, `memory`, `number`), PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `hookup` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `cable` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `hookup` varchar(80) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `sound` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, `role` varchar(16) NOT NULL, `at` double NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `move` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `song` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `title` varchar(120) NOT NULL, `bpm` double NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `set_list` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `log_entry` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `when` varchar(40) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `standing_test` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `hookup` varchar(80) NOT NULL, `name` varchar(120) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'CREATE TABLE `acceptance` (`rig` varchar(64) NOT NULL, `id` varchar(80) NOT NULL, `format` smallint UNSIGNED NOT NULL, `rest` json NOT NULL, `hookup` varchar(80) NOT NULL, `code` varchar(64) NOT NULL, PRIMARY KEY (`rig`, `id`)) ENGINE=InnoDB',
    );
    await runner.query(
      'ALTER TABLE `rig` ADD CONSTRAINT `FK_572fe0d7512664c9ccadfddb711` FOREIGN KEY (`owner`) REFERENCES `person`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `journal_entry` ADD CONSTRAINT `FK_c35d1e1b6524dd70a6c6a50c79d` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `about` ADD CONSTRAINT `FK_a689c41afbae0be241a03febf42` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `device` ADD CONSTRAINT `FK_c451d2ee3263c93196eee620c97` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `program` ADD CONSTRAINT `FK_728a4bebee779a006d54666a097` FOREIGN KEY (`rig`, `device`) REFERENCES `device`(`rig`,`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `hookup` ADD CONSTRAINT `FK_64a6d82646bda5c8f3efafa2414` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `cable` ADD CONSTRAINT `FK_726052f4833355bbc5b2ddc9637` FOREIGN KEY (`rig`, `hookup`) REFERENCES `hookup`(`rig`,`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `sound` ADD CONSTRAINT `FK_b647a976afa092665c00604de45` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `move` ADD CONSTRAINT `FK_8b9500d814524bfe5db33334a6e` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `song` ADD CONSTRAINT `FK_90ea6a2ecb0f9d547375fb65dc4` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `set_list` ADD CONSTRAINT `FK_7a48c7109edc3fa5ffc903faff4` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `log_entry` ADD CONSTRAINT `FK_7f21af17f9c0c9f626ae8e45eed` FOREIGN KEY (`rig`) REFERENCES `rig`(`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `standing_test` ADD CONSTRAINT `FK_d680e1dc7285c552620a3e0c0e0` FOREIGN KEY (`rig`, `hookup`) REFERENCES `hookup`(`rig`,`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
    await runner.query(
      'ALTER TABLE `acceptance` ADD CONSTRAINT `FK_a0e1fe4b3ae3b298abec2b7f5ef` FOREIGN KEY (`rig`, `hookup`) REFERENCES `hookup`(`rig`,`id`) ON DELETE RESTRICT ON UPDATE NO ACTION',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `acceptance`');
    await runner.query('DROP TABLE `standing_test`');
    await runner.query('DROP TABLE `cable`');
    await runner.query('DROP TABLE `program`');
    await runner.query('DROP TABLE `log_entry`');
    await runner.query('DROP TABLE `set_list`');
    await runner.query('DROP TABLE `song`');
    await runner.query('DROP TABLE `move`');
    await runner.query('DROP TABLE `sound`');
    await runner.query('DROP TABLE `hookup`');
    await runner.query('DROP TABLE `device`');
    await runner.query('DROP TABLE `about`');
    await runner.query('DROP TABLE `journal_entry`');
    await runner.query('DROP TABLE `rig`');
    await runner.query('DROP TABLE `person`');
  }
}
