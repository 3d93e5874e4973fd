import { often } from '@yunta/core/testing/often';
import { openSession, perform } from '@yunta/core/change/session';
import type { Edit } from '@yunta/core/change/edit';
import { islandRun } from '@yunta/core/demo/island-run';
import { everyPart, rigOf, type Part, type Rig } from '@yunta/core/rig/rig';
import { LONGEST_LABEL } from '@yunta/core/rig/limits';
import { HOSTILE, mutated, type Json } from '@yunta/core/testing/mutations';
import { Random } from '@yunta/core/testing/random';
import { randomEdit } from '@yunta/core/testing/random-edit';
import request from 'supertest';
import { testApp } from './test-app.js';

const EDITS = often(200);
const RIG = '/api/rigs/island-run';

let started: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  started = await testApp('law');
});
afterAll(() => started.close());
const http = () => request(started.app.getHttpServer() as never);

/** An edit as a page might make it, with something in it that nobody types on purpose. */
const hostileEdit = (r: Random, rig: Rig, tag: string): Edit => {
  if (r.chance(25)) return randomEdit(r, rig, tag);
  const parts = r.some(everyPart(rig), 3).slice(0, 3);
  return {
    put: parts.map((part) => mutated(r, part as unknown as Json, 2) as unknown as Part),
    remove: r.chance(10) ? [r.pick(HOSTILE.filter((h): h is string => typeof h === 'string')) as Part['id']] : [],
  };
};

/** What the page would say; a value that is no part at all cannot come from it. */
const onPage = (rig: Rig, edit: Edit, id: string, label: string) => {
  try {
    return perform(openSession(rig), edit, id, label);
  } catch (e) {
    throw new Error(`the page broke on ${JSON.stringify(edit).slice(0, 300)}`, { cause: e });
  }
};

const byId = (a: Part, b: Part): number => (a.id < b.id ? -1 : 1);
const onServer = async (): Promise<readonly Part[]> =>
  ((await http().get(RIG).set('host', '127.0.0.1')).body as { parts: Part[] }).parts.sort(byId);
/** As JSON has it: it knows no minus zero. */
const asSent = (rig: Rig): readonly Part[] => JSON.parse(JSON.stringify([...everyPart(rig)].sort(byId))) as Part[];

test(
  `${EDITS} edits with odd values: what the page takes the server takes, what it refuses the server refuses, and both have the same rig after each`,
  async () => {
    let rig = rigOf(everyPart(islandRun()), 1);
    let [taken, refused] = [0, 0];
    for (let seed = 0; seed < EDITS; seed += 1) {
      const r = new Random(seed);
      const edit = hostileEdit(r, rig, `e${seed}`);
      const label = r.chance(30) ? 'half \ud83d'.padEnd(r.int(1, 400), 'x') : 'Test';
      const page = onPage(rig, edit, `c-${seed}`, label);
      const set = page.ok
        ? page.value.waiting[0]?.set
        : { id: `c-${seed}`, base: rig.revision, label: 'Test', ...edit };
      if (!set) continue;
      expect([set.label.length <= LONGEST_LABEL, set.label.isWellFormed()]).toEqual([true, true]);
      const answer = await http()
        .post(`${RIG}/changes`)
        .set('host', '127.0.0.1')
        .set('content-type', 'application/json')
        .send(JSON.stringify(set));
      const said = `${seed}: page ${page.ok ? 'takes' : JSON.stringify(page.error[0])}, server ${answer.status} ${answer.text.slice(0, 200)}; ${JSON.stringify(edit).slice(0, 300)}`;
      expect([said, answer.status === 200]).toEqual([said, page.ok]);
      if (!page.ok) {
        expect([said, [400, 422].includes(answer.status)]).toEqual([said, true]);
        refused += 1;
        continue;
      }
      taken += 1;
      rig = rigOf(everyPart(page.value.rig), (answer.body as { revision: number }).revision);
      if (seed % 10 === 0) expect(await onServer()).toEqual(asSent(rig));
    }
    expect(await onServer()).toEqual(asSent(rig));
    expect(Math.min(taken, refused)).toBeGreaterThan(EDITS / 8);
    console.info(`${taken} taken, ${refused} refused, the same on both sides`);
  },
  EDITS * 300,
);
