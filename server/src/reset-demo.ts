import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import { randomUUID } from 'node:crypto';
import { ChangesService } from './changes/changes.service.js';
import { createApp } from './create-app.js';
import { LOCAL_PERSON } from './people/who.js';
import { RigStore } from './rigs/rig-store.js';

/**
 * Puts the rigs that ship with Yunta back as they were, each by a change of its own; makes those that were never
 * there.
 */
const app = await createApp({ demo: true, quiet: true });
const changes = app.get(ChangesService);
const rigs = app.get(RigStore);
const there = new Set((await rigs.list(LOCAL_PERSON)).map((r) => r.entry.id));
for (const { id, make } of DEMO_RIGS) {
  const { revision } = there.has(id)
    ? await changes.restore(LOCAL_PERSON, id, 1, `reset-${randomUUID()}`)
    : await changes.create(LOCAL_PERSON, id, make(), 'demo-1', 'A rig that ships with Yunta', true);
  await rigs.putAway(LOCAL_PERSON, id, null);
  console.log(`${id} is as it was shipped (revision ${revision}).`);
}
await app.close();
