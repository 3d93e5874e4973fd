import { apply } from '@yunta/core/change/apply';
import { editOf } from '@yunta/core/change/delta';
import { everyPart, type Rig } from '@yunta/core/rig/rig';
import { Random } from '@yunta/core/testing/random';
import { randomEdit } from '@yunta/core/testing/random-edit';
import { randomRig } from '@yunta/core/testing/random-rig';
import { ChangesService } from './changes/changes.service.js';
import { LOCAL_PERSON } from './people/who.js';
import { RigStore } from './rigs/rig-store.js';
import { testApp } from './test-app.js';

let started: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  started = await testApp('document', false);
});
afterAll(() => started.close());

const parts = (rig: Rig) => Object.fromEntries(everyPart(rig).map((p) => [p.id, p]));
const RIGS = 8;
const EDITS = 8;

/**
 * The document's specification, in memory and on MariaDB: the same edits give the same rig, and every older revision
 * can be seen again.
 */
describe('a rig in tables is the rig in memory', () => {
  test('without the demo a first start has no rig', async () =>
    expect(await started.app.get(RigStore).list(LOCAL_PERSON)).toEqual([]));

  test.each(Array.from({ length: RIGS }, (_, i) => i + 1))('seed %i', async (seed) => {
    const changes = started.app.get(ChangesService);
    const store = started.app.get(RigStore);
    const id = `random-${seed}`;
    let rig = randomRig(seed).rig;
    await changes.create(LOCAL_PERSON, id, rig, 'first', 'first');
    const revisions = [parts(rig)];
    const r = new Random(seed);
    for (let i = 0; i < EDITS; i += 1) {
      const applied = apply(rig, randomEdit(r, rig, `e${i}`));
      if (!applied.ok || applied.value.delta.size === 0) continue;
      rig = applied.value.rig;
      await changes.submit(LOCAL_PERSON, id, {
        id: `c${i}`,
        base: revisions.length,
        label: 'edit',
        ...editOf(applied.value.delta),
      });
      revisions.push(parts(rig));
      expect(parts(await store.load(LOCAL_PERSON, id))).toEqual(parts(rig));
    }
    for (const [i, then] of revisions.entries()) expect(parts(await changes.at(LOCAL_PERSON, id, i + 1))).toEqual(then);
    await changes.restore(LOCAL_PERSON, id, 1, 'back');
    expect(parts(await store.load(LOCAL_PERSON, id))).toEqual(revisions[0]);
  });

  test('an edit that the rig refuses leaves no trace in tables or journal', async () => {
    const changes = started.app.get(ChangesService);
    const before = await started.app.get(RigStore).load(LOCAL_PERSON, 'random-1');
    const device = [...before.parts.device.keys()][0]!;
    await expect(
      changes.submit(LOCAL_PERSON, 'random-1', {
        id: 'bad',
        base: before.revision,
        label: 'x',
        put: [],
        remove: [device],
      }),
    ).rejects.toMatchObject({ status: 422 });
    expect(await started.app.get(RigStore).load(LOCAL_PERSON, 'random-1')).toEqual(before);
    expect(await changes.journal(LOCAL_PERSON, 'random-1', before.revision, 10)).toEqual({ entries: [], more: false });
  });
});
