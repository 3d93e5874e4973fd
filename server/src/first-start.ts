import type { INestApplicationContext } from '@nestjs/common';
import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import { DataSource } from 'typeorm';
import { ChangesService } from './changes/changes.service.js';
import { Person } from './people/person.entity.js';
import { LOCAL_PERSON } from './people/who.js';

/**
 * Migrates, and on the very first start enters the local person and the rigs that ship with Yunta. A named lock lets
 * two servers start at once.
 */
export const makeReady = async (app: INestApplicationContext, withDemo: boolean): Promise<void> => {
  const db = app.get(DataSource);
  const lock = db.createQueryRunner();
  try {
    await lock.query("SELECT GET_LOCK('yunta-start', 120)");
    await db.runMigrations({ transaction: 'each' });
    const known = await db.manager.findOneBy(Person, { id: LOCAL_PERSON.id });
    if (known) return;
    await db.manager.insert(Person, LOCAL_PERSON);
    for (const { id, make } of withDemo ? DEMO_RIGS : [])
      await app.get(ChangesService).create(LOCAL_PERSON, id, make(), 'demo-1', 'A rig that ships with Yunta', true);
  } finally {
    await lock.query("SELECT RELEASE_LOCK('yunta-start')").catch(() => undefined);
    await lock.release();
  }
};
