import { islandRun } from '@yunta/core/demo/island-run';
import { randomUUID } from 'node:crypto';
import { ChangesService } from './changes/changes.service.js';
import { createApp } from './create-app.js';
import { DEMO_RIG } from './first-start.js';
import { LOCAL_PERSON } from './people/who.js';
import { RigStore } from './rigs/rig-store.js';

/** Puts the demo rig back as it was shipped, by a change of its own; makes it when it was never there. */
const app = await createApp({ demo: true, quiet: true });
const changes = app.get(ChangesService);
const there = (await app.get(RigStore).list(LOCAL_PERSON)).some((r) => r.id === DEMO_RIG);
const { revision } = there
  ? await changes.restore(LOCAL_PERSON, DEMO_RIG, 1, `reset-${randomUUID()}`)
  : await changes.create(LOCAL_PERSON, DEMO_RIG, islandRun(), 'demo-1', 'The demo rig', true);
console.log(`The demo rig is as it was shipped (revision ${revision}).`);
await app.close();
