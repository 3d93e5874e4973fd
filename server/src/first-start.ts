import type { INestApplicationContext } from '@nestjs/common';
import { islandRun } from '@yunta/core/demo/island-run';
import { DataSource } from 'typeorm';
import { ChangesService } from './changes/changes.service.js';
import { Person } from './people/person.entity.js';
import { LOCAL_PERSON } from './people/who.js';

export const DEMO_RIG = 'island-run';

/** Migrates, and on the very first start enters the local person and the demo rig. A named lock lets two servers start at once. */
export const makeReady = async (app: INestApplicationContext, withDemo: boolean): Promise<void> => {
  const db = app.get(DataSource);
  const lock = db.createQueryRunner();
  try {
    await lock.query("SELECT GET_LOCK('yunta-start', 120)");
    await db.runMigrations({ transaction: 'each' });
    const known = await db.manager.findOneBy(Person, { id: LOCAL_PERSON.id });
    if (known) return;
    if (withDemo) {
      await db.manager.insert(Person, LOCAL_PERSON);
      await app.get(ChangesService).create(LOCAL_PERSON, DEMO_RIG, islandRun(), 'demo-1', 'The demo rig', true);
    } else await db.manager.insert(Person, LOCAL_PERSON);
  } finally {
    await lock.query("SELECT RELEASE_LOCK('yunta-start')").catch(() => undefined);
    await lock.release();
  }
};
