import { after } from '../../../testing/after.js';
import { islandRun } from '../../demo/island-run.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import { changeTo as changed } from './change.js';
import { bankChangesNow, leastMoved, slotsOfRig, type SlotsOfRig } from './of-rig.js';
import { costOf, type SlotPlace } from './problem.js';
import { searchSlots } from './search.js';

const shipped = islandRun();
/** The demo with its sounds stored in another order than they are played in. */
const demo = ((): Rig => {
  const sounds = [...shipped.parts.sound.values()];
  return after(shipped, {
    put: sounds.map((s, i) => ({ ...s, calls: sounds[(i * 5 + 3) % sounds.length]!.calls })),
    remove: [],
  });
})();
const songs = all(demo, 'song');
const swi = [...demo.parts.device.values()].find((d) => d.code === 'SWI')!;
const caller = { device: swi.id, memory: swi.memories[0]!.id };
const setup = (rig: Rig = demo, kept = new Set<`sound:${string}`>()): SlotsOfRig =>
  slotsOfRig(rig, caller, songs, { kept })!;
let made = 0;
const changeTo = (rig: Rig, of: SlotsOfRig, places: readonly SlotPlace[]) =>
  changed(rig, of, songs, places, [], () => `sound:made-${(made += 1)}`);
const planned = (of: SlotsOfRig): readonly SlotPlace[] => {
  const search = searchSlots(of.problem, { moves: 20_000, descents: 3 });
  for (let step = search.next(); ; step = search.next()) if (step.done) return leastMoved(of, step.value!);
};

describe('the slots of the demo and its songs', () => {
  const now = setup();
  const cost = costOf(now.problem, now.now);
  const places = planned(now);
  const then = costOf(now.problem, places);
  const { moves, edit } = changeTo(demo, now, places);
  const rig = after(demo, edit);

  test('what bank keys cost now is told change by change', () => {
    const changes = bankChangesNow(now, songs);
    expect(changes.reduce((n, c) => n + c.presses, 0)).toBe(cost.bankPresses);
    expect(cost.bankPresses).toBeGreaterThan(0);
  });
  test('the plan needs fewer, and the rig then costs what was promised', () => {
    expect(then.stomps).toBeLessThan(cost.stomps);
    const later = setup(rig);
    expect(costOf(later.problem, later.now)).toEqual(then);
  });
  test('only sounds that move are changed, and each still has one slot', () => {
    expect(edit.put.map((p) => p.id).sort()).toEqual(moves.map((m) => m.sound).sort());
    const slots = [...rig.parts.sound.values()].map((s) => s.calls.map((c) => c.slot).join());
    expect(new Set(slots).size).toBe(slots.length);
  });
  test('a plan of what is best already moves nothing', () => {
    const later = setup(rig);
    expect(changeTo(rig, later, leastMoved(later, later.now)).moves).toEqual([]);
  });
  test('what is kept stays', () => {
    const kept = new Set(now.sounds.slice(0, 3).map((s) => s.id));
    const some = setup(demo, kept);
    const change = changeTo(demo, some, planned(some));
    for (const id of kept) expect(change.moves.map((m) => m.sound)).not.toContain(id);
  });
  test('a sound that no song uses gives way and is called by a free slot', () => {
    const [used] = now.sounds;
    const unused = { ...used!, id: 'sound:spare' as const, name: 'Spare', at: 99, calls: [{ ...caller, slot: 3 }] };
    const other = [...demo.parts.sound.values()].find((s) => s.calls.some((c) => c.slot === 3))!;
    const base = after(demo, { put: [{ ...other, calls: [] }, unused], remove: [] });
    const of = slotsOfRig(base, caller, songs)!;
    const crowd = of.problem.songs.flat()[0]!;
    const change = changeTo(base, of, [[crowd, 0, 3], ...of.now.filter(([s]) => s !== crowd)]);
    expect(change.moves.map((m) => m.name)).toContain('Spare');
    const slots = [...after(base, change.edit).parts.sound.values()].flatMap((s) => s.calls.map((c) => c.slot));
    expect(new Set(slots).size).toBe(slots.length);
    expect(partOf(after(base, change.edit), 'sound:spare')!.calls).toHaveLength(1);
  });
});

test('a controller that calls nothing of these songs has no plan', () => {
  expect(slotsOfRig(demo, { device: 'device:gone', memory: 'slots' }, songs)).toBeUndefined();
  expect(slotsOfRig(demo, caller, [])).toBeUndefined();
});

describe('how many banks', () => {
  test('as many as are used now, more where that is asked for; beyond half of them all, with the way round', () => {
    const asked = (most: number | undefined) => {
      const { banks, wrap } = slotsOfRig(demo, caller, songs, { most })!.problem;
      return { banks, wrap };
    };
    const all = Math.ceil(swi.memories[0]!.size / 4);
    const now = asked(undefined);
    expect(now).toEqual({ banks: 4, wrap: false });
    expect(asked(2)).toEqual(now);
    expect(asked(7)).toEqual({ banks: 7, wrap: false });
    expect(asked(all - 1)).toEqual({ banks: all, wrap: true });
  });
  test('without bank keys every slot is one stomp away', () => {
    const { bank: _, ...memory } = swi.memories[0]!;
    const rig = after(demo, { put: [{ ...swi, memories: [memory, ...swi.memories.slice(1)] }], remove: [] });
    const of = slotsOfRig(rig, caller, songs)!;
    expect([of.problem.banks, bankChangesNow(of, songs)]).toEqual([1, []]);
  });
});
