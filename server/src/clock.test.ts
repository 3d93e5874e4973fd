import { ChangesService } from './changes/changes.service.js';
import { LOCAL_PERSON } from './people/who.js';
import { RigStore } from './rigs/rig-store.js';
import { testApp } from './test-app.js';

const RIG = 'island-run';
const A_DAY = 86_400_000;

let started: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  started = await testApp('clock');
});
afterEach(() => {
  jest.useRealTimers();
});
afterAll(() => started.close());

/** Only the clock is another; what waits goes on. */
const clockAt = (now: number): void => {
  jest.useRealTimers();
  jest.useFakeTimers({
    now,
    doNotFake: [
      'hrtime',
      'nextTick',
      'performance',
      'queueMicrotask',
      'setImmediate',
      'clearImmediate',
      'setInterval',
      'clearInterval',
      'setTimeout',
      'clearTimeout',
    ],
  });
};

test('the clock is set two days forth, three back and forth again: what was first stays first, and every revision can be looked at', async () => {
  const changes = started.app.get(ChangesService);
  const noon = Date.UTC(2026, 5, 15, 12);
  for (const [i, shift] of [0, 2 * A_DAY, -A_DAY, -A_DAY + 1, 5 * A_DAY].entries()) {
    clockAt(noon + shift);
    const set = {
      id: `c-${i}`,
      base: 1 + i,
      label: `change ${i}`,
      put: [{ kind: 'logEntry', id: `logEntry:${i}`, when: '2026', text: `${i}`, about: [] } as const],
      remove: [],
    };
    expect(await changes.submit(LOCAL_PERSON, RIG, set)).toEqual({ revision: 2 + i, again: false });
    expect(await changes.submit(LOCAL_PERSON, RIG, set)).toEqual({ revision: 2 + i, again: true });
  }
  clockAt(noon - 300 * A_DAY);
  expect((await changes.history(LOCAL_PERSON, RIG, 2 ** 31, 10)).map((h) => h.label)).toEqual([
    'change 4',
    'change 3',
    'change 2',
    'change 1',
    'change 0',
    'A rig that ships with Yunta',
  ]);
  expect((await changes.journal(LOCAL_PERSON, RIG, 1, 10)).entries.map((j) => j.revision)).toEqual([2, 3, 4, 5, 6]);
  for (let revision = 1; revision <= 6; revision += 1)
    expect((await changes.at(LOCAL_PERSON, RIG, revision)).parts.logEntry.size).toBe(revision - 1);
  expect((await started.app.get(RigStore).load(LOCAL_PERSON, RIG)).parts.logEntry.size).toBe(5);
});
