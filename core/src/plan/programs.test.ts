import { often } from '../../testing/often.js';
import { after } from '../../testing/after.js';
import { randomRig } from '../../testing/random-rig.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import { setWant } from '../edits/sounds.js';
import type { Id } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { all, partOf, programsOf, type Part, type Rig } from '../rig/rig.js';
import { agree } from './fewest.js';
import { planPrograms, type PlanFor, type ProgramPlan } from './programs.js';

const called = (p: Part): Part =>
  p.kind === 'sound' ? { ...p, calls: [{ device: 'device:c', memory: 'slots', slot: p.at - 1 }] } : p;
/** Over MIDI the delay's bypass can only be turned over; its programs hold it. */
const toggling = (p: Part): Part =>
  p.kind === 'device' && p.id === 'device:d'
    ? {
        ...p,
        actuators: p.actuators.map((a) =>
          a.id === 'on/off' ? { ...a, acts: [{ control: 'on', toggle: ['off', 'on'] }] } : a,
        ),
      }
    : called(p);
const rigWith = (sounds: Readonly<Record<string, readonly string[]>>, change: (p: Part) => Part = toggling): Rig =>
  smallRig({
    boxes: { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', w: 'powered-speaker' },
    leads: ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in'],
    sounds,
    with: change,
  });
const derive = (rig: Rig): Derived => deriveOnce(rig, SMALL)!;
const plan = (rig: Rig, planFor: PlanFor = 'what needs one'): ProgramPlan =>
  planPrograms(derive(rig).compilation, planFor);
const programs = (p: ProgramPlan) =>
  p.boxes.flatMap((b) =>
    b.programs.map((x) => [
      x.number,
      x.is,
      x.contents.on,
      x.contents.mix,
      x.sounds.map((s) => s.slice('sound:'.length)).join(' '),
    ]),
  );
const written = (number: number, contents: Program['contents'], more: Partial<Program> = {}): Program => ({
  kind: 'program',
  id: `program:d-${number}`,
  device: 'device:d',
  memory: 'programs',
  number,
  name: `P${number}`,
  contents,
  acts: [],
  assigns: [],
  ...more,
});
const verdicts = (d: Derived) => [...d.verdicts.values()].map((v) => v.is);

describe('what only a toggle would set goes into programs', () => {
  const rig = rigWith({
    Slap: ['d.delay', 'd.mix=20'],
    Wide: ['d.delay', 'd.mix=50'],
    Same: ['d.delay', 'd.mix=20'],
    Dry: [],
    Loose: ['d.delay'],
  });
  test('as few as agree, by lowest free number, in the order of the sheet', () => {
    expect(programs(plan(rig))).toEqual([
      [0, 'new', 'on', 20, 'slap same loose'],
      [1, 'new', 'on', 50, 'wide'],
      [2, 'new', 'off', undefined, 'dry'],
    ]);
  });
  test('carried out, nothing is left to a toggle and every sound is proved', () => {
    expect(verdicts(derive(rig))).toContain('broken');
    const planned = derive(after(rig, plan(rig).edit));
    expect(verdicts(planned)).toEqual(['proved', 'proved', 'proved', 'proved', 'proved']);
    expect([...planned.compilation.sounds.values()].flatMap((c) => c.toggled)).toEqual([]);
  });
  test('planned again nothing changes', () => {
    const planned = after(rig, plan(rig).edit);
    expect(plan(planned).edit).toEqual({ put: [], remove: [] });
    expect(programs(plan(planned)).map((p) => p[1])).toEqual(['there', 'there', 'there']);
  });
  test('a sound that wants another mix gets a program of its own; all other numbers stay', () => {
    const planned = after(rig, plan(rig).edit);
    const changed = after(planned, setWant(partOf(planned, 'sound:same')!, { control: 'device:d.mix', is: 35 }));
    expect(programs(plan(changed))).toEqual([
      [0, 'there', 'on', 20, 'slap loose'],
      [1, 'there', 'on', 50, 'wide'],
      [2, 'there', 'off', undefined, 'dry'],
      [3, 'new', 'on', 35, 'same'],
    ]);
  });
  test('the only sound of a program that wants it otherwise changes what it holds, not its number', () => {
    const planned = after(rig, plan(rig).edit);
    const changed = after(planned, setWant(partOf(planned, 'sound:wide')!, { control: 'device:d.mix', is: 60 }));
    expect(programs(plan(changed))[1]).toEqual([1, 'changed', 'on', 60, 'wide']);
    expect(plan(changed).edit.put.map((p) => p.id)).toEqual(['program:d-1']);
  });
});

describe('what somebody wrote down', () => {
  const rig = (...more: readonly Part[]) =>
    after(rigWith({ Slap: ['d.delay', 'd.mix=20'], Dry: [] }), { put: more, remove: [] });
  test('is used where it fits, and never altered', () => {
    const has = rig(written(4, { on: 'on', mix: 20 }), written(0, { on: 'on', mix: 99 }));
    expect(programs(plan(has))).toEqual([
      [1, 'new', 'off', undefined, 'dry'],
      [4, 'there', 'on', 20, 'slap'],
    ]);
    expect(
      plan(has)
        .edit.put.filter((p) => p.kind === 'program')
        .map((p) => p.id),
    ).toEqual(['program:d-1']);
  });
  test('a number that is called and not planned is filled with what its sounds need', () => {
    const asks = rig(written(7, 'unplanned'), {
      ...partOf(rigWith({ Slap: ['d.delay', 'd.mix=20'], Dry: [] }), 'sound:slap')!,
      wants: [
        { stage: 'device:d.delay', is: 'in' },
        { control: 'device:d.mix', is: 20 },
        { control: 'device:d.program', is: 7 },
      ],
    });
    expect(programs(plan(asks))[1]).toEqual([7, 'changed', 'on', 20, 'slap']);
    expect(derive(after(asks, plan(asks).edit)).verdicts.get('sound:slap')!.is).toBe('proved');
  });
  test('two sounds that call one such number and disagree are left alone and named', () => {
    const both = after(
      rigWith({ A: ['d.delay', 'd.mix=20', 'd.program=7'], B: ['d.delay', 'd.mix=40', 'd.program=7'] }),
      { put: [written(7, 'unplanned')], remove: [] },
    );
    expect(plan(both).edit).toEqual({ put: [], remove: [] });
    expect(plan(both).left).toEqual([{ device: 'device:d', sounds: ['sound:a', 'sound:b'], why: 'disagree' }]);
  });
  test('a number that a sound names and nobody wrote down stands in the box: it is left alone, and its number is not given away', () => {
    const named = rigWith({ A: ['d.delay', 'd.mix=20', 'd.program=0'], B: ['d.delay', 'd.mix=40'] });
    expect(programs(plan(named))).toEqual([[1, 'new', 'on', 40, 'b']]);
  });
  test('a box that shares its channel with another is left alone: its program change would load there too', () => {
    const shared = smallRig({
      boxes: { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', e: 'stereo-reverb', w: 'powered-speaker' },
      leads: ['g.out>d.in-l', 'd.out-l>e.in-l', 'e.out-l>w.in', 'c.midi-out>d.midi-in', 'd.midi-thru>e.midi-in'],
      sounds: { Slap: ['d.delay'] },
      with: (p) =>
        toggling(p.kind === 'device' && p.id === 'device:e' ? { ...p, midi: { ...p.midi!, channel: 3 } } : p),
    });
    expect(plan(shared)).toMatchObject({
      boxes: [],
      left: [{ device: 'device:d', sounds: ['sound:slap'], why: 'shared channel' }],
    });
    expect(plan(shared, 'every sound').left.map((l) => l.device)).toEqual(['device:d', 'device:e']);
  });
  test('a box without a free number says so', () => {
    const full = after(
      rigWith({ Slap: ['d.delay', 'd.mix=20'] }, (p) =>
        toggling(
          p.kind === 'device' && p.id === 'device:d'
            ? { ...p, memories: p.memories.map((m) => ({ ...m, size: 1 })) }
            : p,
        ),
      ),
      { put: [written(0, { on: 'off', mix: 0 })], remove: [] },
    );
    expect(plan(full)).toMatchObject({
      left: [{ device: 'device:d', sounds: ['sound:slap'], why: 'full' }],
      edit: { put: [], remove: [] },
    });
  });
});

describe('for every sound', () => {
  const rig = rigWith({ Slap: ['d.delay', 'd.mix=20'], Wide: ['d.delay', 'd.mix=50'] }, called);
  const messages = (r: Rig) =>
    [...derive(r).compilation.sounds.values()].flatMap((c) => c.stored.flatMap((s) => s.program.acts)).length;
  test('a rig that comes back without programs is left alone', () => expect(plan(rig).boxes).toEqual([]));
  test('with them fewer messages are sent', () => {
    const planned = after(rig, plan(rig, 'every sound').edit);
    expect([messages(rig), messages(planned)]).toEqual([4, 2]);
    expect(verdicts(derive(planned))).toEqual(['proved', 'proved']);
  });
});

test('the demo: the sound that leaves its delay to a toggle gets a program that is there already', () => {
  const d = deriveOnce(islandRun(), BALLROOM_ID)!;
  const { edit, boxes } = planPrograms(d.compilation, 'what needs one');
  expect(boxes.map((b) => [b.device, b.programs.map((p) => [p.number, p.is])])).toEqual([
    ['device:dly', [[4, 'there']]],
  ]);
  expect(deriveOnce(after(d.rig, edit), BALLROOM_ID)!.verdicts.get('sound:03')!.is).toBe('proved');
});

test('on random rigs: it can be carried out, holds no number for two contents, breaks no sound that was proved, and is at rest afterwards', () => {
  let [plans, proved] = [0, 0];
  for (let seed = 1; seed <= often(60); seed += 1) {
    const { rig, hookup } = randomRig(seed);
    const before = deriveOnce(rig, hookup.id)!;
    for (const planFor of ['what needs one', 'every sound'] as const) {
      const made = planPrograms(before.compilation, planFor);
      if (made.edit.put.length === 0) continue;
      plans += 1;
      const rigAfter = after(rig, made.edit);
      const now = deriveOnce(rigAfter, hookup.id)!;
      for (const p of all(rig, 'program').filter((x) => !x.planned && x.contents !== 'unplanned'))
        expect(partOf(rigAfter, p.id)).toBe(p);
      for (const box of made.boxes) {
        const numbers = box.programs.map((p) => p.number);
        expect(new Set(numbers).size).toBe(numbers.length);
        for (const p of box.programs) {
          for (const id of p.sounds) {
            const needed = Object.fromEntries(
              before.compilation.sounds
                .get(id as Id<'sound'>)!
                .wants.filter((w) => w.why.by !== 'program' && w.control.startsWith(`${box.device}.`))
                .map((w) => [w.control.slice(box.device.length + 1), w.value]),
            );
            expect([seed, box.device, p.number, agree(needed, p.contents)]).toEqual([seed, box.device, p.number, true]);
          }
        }
        expect(programsOf(rigAfter, box.device, box.memory).length).toBeGreaterThanOrEqual(box.programs.length);
      }
      for (const [id, v] of before.verdicts)
        if (v.is === 'proved')
          expect([seed, planFor, id, now.verdicts.get(id)!.is]).toEqual([seed, planFor, id, 'proved']);
      proved += [...now.verdicts].filter(
        ([id, v]) => v.is === 'proved' && before.verdicts.get(id)!.is === 'broken',
      ).length;
      expect([seed, planFor, planPrograms(now.compilation, planFor).edit]).toEqual([
        seed,
        planFor,
        { put: [], remove: [] },
      ]);
    }
  }
  expect(plans).toBeGreaterThan(12);
  expect(proved).toBeGreaterThan(3);
});
