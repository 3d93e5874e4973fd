import type { NestExpressApplication } from '@nestjs/platform-express';
import { createApp } from './create-app.js';
import { ChangesService } from './changes/changes.service.js';
import { LOCAL_PERSON } from './people/who.js';
import { RigStore } from './rigs/rig-store.js';
import { testApp } from './test-app.js';

const RIG = 'island-run';
const note = (id: string) =>
  ({ kind: 'logEntry', id: `logEntry:${id}`, when: '2026-01-01', text: id, about: [] }) as const;

let first: Awaited<ReturnType<typeof testApp>>;
let second: NestExpressApplication;
beforeAll(async () => {
  first = await testApp('twoservers');
  second = await createApp({ database: first.database, demo: true, quiet: true });
  await second.init();
}, 60_000);
afterAll(async () => {
  await second.close();
  await first.close();
});

const changes = (i: number) => (i % 2 ? second : first.app).get(ChangesService);
const load = (app: NestExpressApplication) => app.get(RigStore).load(LOCAL_PERSON, RIG);

describe('two servers on one database', () => {
  test('the second found the rigs of the first and made none twice', async () => {
    expect((await second.get(RigStore).list(LOCAL_PERSON)).map((r) => r.entry.id).sort()).toEqual([
      'island-run',
      'lighthouse-solo',
      'night-market-bass',
    ]);
  });

  test('what one changes the other has at once', async () => {
    await changes(0).submit(LOCAL_PERSON, RIG, { id: 'seen', base: 1, label: 'seen', put: [note('seen')], remove: [] });
    expect((await load(second)).parts.logEntry.get('logEntry:seen')).toEqual(note('seen'));
  });

  test('sixty changes through both at the same time: all are there, each has a revision of its own', async () => {
    const base = (await load(first.app)).revision;
    const answers = await Promise.all(
      Array.from({ length: 60 }, (_, i) =>
        changes(i).submit(LOCAL_PERSON, RIG, {
          id: `both-${i}`,
          base,
          label: 'both',
          put: [note(`both-${i}`)],
          remove: [],
        }),
      ),
    );
    expect(new Set(answers.map((a) => a.revision)).size).toBe(60);
    const [a, b] = await Promise.all([load(first.app), load(second)]);
    expect(a.revision).toBe(base + 60);
    expect(a.parts).toEqual(b.parts);
    for (let i = 0; i < 60; i += 1) expect(a.parts.logEntry.has(`logEntry:both-${i}`)).toBe(true);
  });

  test('the same change handed to both is made once', async () => {
    const base = (await load(first.app)).revision;
    const same = { id: 'once', base, label: 'once', put: [note('once')], remove: [] };
    const [a, b] = await Promise.all([
      changes(0).submit(LOCAL_PERSON, RIG, same),
      changes(1).submit(LOCAL_PERSON, RIG, same),
    ]);
    expect([a.revision, b.revision]).toEqual([base + 1, base + 1]);
    expect((await load(second)).revision).toBe(base + 1);
  });

  test('both change one value from the same revision: one lands, the other is told', async () => {
    const rig = await load(first.app);
    const sound = rig.parts.sound.get('sound:01')!;
    const named = (name: string, i: number) =>
      changes(i).submit(LOCAL_PERSON, RIG, {
        id: `name-${name}`,
        base: rig.revision,
        label: name,
        put: [{ ...sound, name }],
        remove: [],
      });
    const settled = await Promise.allSettled([named('One', 0), named('Two', 1)]);
    expect(settled.map((s) => s.status).sort()).toEqual(['fulfilled', 'rejected']);
    const landed = settled[0]!.status === 'fulfilled' ? 'One' : 'Two';
    expect((await load(second)).parts.sound.get('sound:01')!.name).toBe(landed);
  });
});
