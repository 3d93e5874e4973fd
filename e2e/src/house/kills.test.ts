import { often } from '@yunta/core/testing/often';
import { setTimeout as wait } from 'node:timers/promises';
import { amRoot, Checkout, homeOf, ME, ORDINARY, runningWith, Yunta, type User } from './yunta.js';
import { readFileSync } from 'node:fs';

/**
 * Kills of each kind, for each user, in turn: the supervisor begins anew before what ends again and again would be
 * given up; `npm run verify` makes it ten of four kinds and two users: 80.
 */
const KILLS = often(1);
const KINDS = ['the server', 'the database', 'both', 'the supervisor'] as const;

const USERS: readonly (readonly [string, User])[] = amRoot
  ? [
      ['root', ME],
      ['an ordinary user', ORDINARY],
    ]
  : [['an ordinary user', ME]];

let checkout: Checkout;
let y: Yunta;
beforeAll(() => {
  checkout = Checkout.for(ME);
}, 120_000);
afterEach(() => y.end(), 60_000);
afterAll(() => checkout.remove());

const kill = (pid: number | undefined): void => {
  if (!pid) return;
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    /* it was just going by itself */
  }
};
const serverPid = (): number | undefined =>
  runningWith('server/dist/main.js').find((pid) => {
    try {
      return readFileSync(`/proc/${pid}/environ`, 'utf8').includes(y.home);
    } catch {
      return false;
    }
  });
const databasePid = (): number | undefined => runningWith(`--datadir=${y.home}/`)[0];

const strike = async (kind: (typeof KINDS)[number]): Promise<void> => {
  if (kind === 'the supervisor') {
    await y.kill();
    await y.start();
    return;
  }
  if (kind !== 'the database') kill(serverPid());
  if (kind !== 'the server') kill(databasePid());
};

const whenBack = async (): Promise<void> => {
  for (let i = 0; i < 900; i += 1) {
    if ((await y.ask('/health'))?.status === 200) return;
    await wait(100);
  }
  throw new Error(`it did not come back: ${y.said}`);
};

describe.each(USERS)('kill -9 while changes stream in, as %s', (_, user) => {
  test(
    `${KILLS} times each: ${KINDS.join(', ')}`,
    async () => {
      y = new Yunta(checkout.folder, homeOf(user), user);
      await y.start();
      const acknowledged: string[] = [];
      const sent: string[] = [];
      let streaming = true;
      /** Sends changes of two parts each, repeating the same one until it is answered, as the browser does. */
      const stream = async (name: string): Promise<void> => {
        for (let n = 0; streaming; n += 1) {
          const id = `${name}-${n}`;
          sent.push(id);
          const half = (h: string) => ({
            kind: 'logEntry',
            id: `logEntry:${id}-${h}`,
            when: '2026-01-01',
            text: id,
            about: [],
          });
          for (;;) {
            const answer = await y.ask('/rigs/island-run/changes', {
              id,
              base: 1,
              label: id,
              put: [half('a'), half('b')],
              remove: [],
            });
            if (answer?.status === 200) {
              acknowledged.push(id);
              break;
            }
            if (answer && answer.status !== 503) throw new Error(JSON.stringify(answer));
            if (!streaming) return;
            await wait(30);
          }
          await wait(20);
        }
      };
      const streams = ['x', 'y', 'z'].map(stream);
      let seed = 12_345;
      const random = (most: number) => {
        seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
        return seed % most;
      };
      for (let i = 0; i < KILLS * KINDS.length; i += 1) {
        await whenBack();
        await wait(50 + random(500));
        await strike(KINDS[i % KINDS.length]!);
        await wait(random(200));
      }
      await whenBack();
      await wait(500);
      streaming = false;
      await Promise.all(streams);

      const { revision, parts } = (await y.ask('/rigs/island-run'))!.json as {
        revision: number;
        parts: { id: string }[];
      };
      const journaled: { id: string; revision: number; delta: { id: string }[] }[] = [];
      for (let more = true; more;) {
        const page = (await y.ask(`/rigs/island-run/journal?after=${journaled.at(-1)?.revision ?? 0}&most=500`))!
          .json as { entries: typeof journaled; more: boolean };
        journaled.push(...page.entries);
        more = page.more;
      }
      const ids = journaled.map((j) => j.id).filter((id) => /^[xyz]-/.test(id));
      const there = new Set(parts.map((p) => p.id));
      expect(acknowledged.filter((id) => !ids.includes(id))).toEqual([]);
      expect(new Set(ids).size).toBe(ids.length);
      expect(ids.filter((id) => !sent.includes(id))).toEqual([]);
      expect(journaled.map((j) => j.revision)).toEqual(Array.from({ length: revision }, (_u, i) => i + 1));
      for (const { id, delta } of journaled.filter((j) => /^[xyz]-/.test(j.id))) {
        expect(delta.map((d) => d.id)).toEqual([`logEntry:${id}-a`, `logEntry:${id}-b`]);
        expect([there.has(`logEntry:${id}-a`), there.has(`logEntry:${id}-b`)]).toEqual([true, true]);
      }
      expect([...there].filter((id) => id.startsWith('logEntry:')).length).toBe(ids.length * 2);
      expect(acknowledged.length).toBeGreaterThan(KILLS);
      console.info(
        `${KILLS * KINDS.length} kills, ${acknowledged.length} changes acknowledged, all there, each once and whole`,
      );
    },
    KILLS * 60_000 + 180_000,
  );
});
