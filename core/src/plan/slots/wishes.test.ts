import { askCbc } from '../../../testing/cbc.js';
import { after } from '../../../testing/after.js';
import { often } from '../../../testing/often.js';
import { everyPlacement, randomSlots } from '../../../testing/random-slots.js';
import { Random } from '../../../testing/random.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import { changeTo } from './change.js';
import { leastMoved, slotsOfRig, type SlotsOfRig } from './of-rig.js';
import { planSlots, type PlanProgress, type SlotsPlan } from './plan.js';
import { costOf, faultsIn, usedPlaces, type SlotPlace, type SlotsProblem } from './problem.js';
import { planSwitches } from './switches.js';
import { bankBySong, banksNeeded, NO_WISHES, placesOn, switchesOfRig, wished, type SlotWishes } from './wishes.js';

const planned = (problem: SlotsProblem): SlotsPlan | undefined => {
  const planning = planSlots(problem, askCbc, 20);
  for (let step = planning.next(); ; step = planning.next()) if (step.done) return step.value;
};
/** The first plan that is told, before anything is proved. */
const atOnce = (problem: SlotsProblem): PlanProgress => planSlots(problem).next().value!;

test.each(Array.from({ length: 4 }, (_, i) => i))(
  'with sounds apart and banks of one group: the fewest stomps, by trying every placement, part %i',
  (part) => {
    const each = often(3);
    for (let seed = part * each + 1; seed <= (part + 1) * each; seed += 1) {
      const r = new Random(seed);
      const plain = randomSlots(r, { sounds: 5, banks: 3 });
      const pick = (): readonly number[] => [...new Set([r.int(0, plain.sounds - 1), r.int(0, plain.sounds - 1)])];
      const problem: SlotsProblem = {
        ...plain,
        ...(r.chance(60) ? { apart: [pick(), pick()].filter((those) => those.length > 1) } : {}),
        ...(r.chance(50) ? { groups: Array.from({ length: plain.sounds }, () => r.int(0, 1)) } : {}),
      };
      let least = Infinity;
      everyPlacement(problem, (places) => {
        if (faultsIn(problem, places) === 0) least = Math.min(least, costOf(problem, places).stomps);
      });
      const plan = planned(problem);
      expect({ seed, stomps: plan?.stomps ?? Infinity }).toEqual({ seed, stomps: least });
      if (!plan) continue;
      expect(faultsIn(problem, plan.places)).toBe(0);
      expect(plan.bound).toBe(plan.stomps);
    }
  },
);

const demo = islandRun();
const songs = all(demo, 'song');
const caller = { device: 'device:swi', memory: 'slots' } as const;
const plain = slotsOfRig(demo, caller, songs)!;
const setup = (wishes: Partial<SlotWishes>, rig: Rig = demo): SlotsOfRig =>
  wished(rig, slotsOfRig(rig, caller, songs, { most: 8 })!, songs, { ...NO_WISHES, ...wishes });
let made = 0;
const carriedOut = (of: SlotsOfRig, places: readonly SlotPlace[]): Rig =>
  after(demo, changeTo(demo, of, songs, places, [], () => `sound:made-${(made += 1)}`).edit);

describe('the wishes of a player, on the demo', () => {
  test('each role on one switch in every bank: no role moves from bank to bank', () => {
    const of = setup({ roles: true });
    const places = atOnce(of.problem).places;
    const { problem, first, ...rest } = switchesOfRig(demo, of, songs, places, { roles: true, shoe: false });
    const plan = planSwitches(problem, first, askCbc, 20);
    expect(plan.strays).toBe(0);
    const rig = carriedOut(of, placesOn({ problem, first, ...rest }, plan.at).places);
    const moved = deriveOnce(rig, BALLROOM_ID)!.judgement.findings.filter((f) => f.code === 'set.role-moved');
    expect(moved).toEqual([]);
  });

  test('a bank for one role: no bank holds two', () => {
    const of = setup({ bankFor: 'role' });
    const { places } = atOnce(of.problem);
    for (let bank = 0; bank < of.problem.banks; bank += 1)
      expect(new Set(places.flatMap(([s, b]) => (b === bank ? [of.sounds[s]!.role] : []))).size).toBeLessThan(2);
  });

  test('a sound in two slots: the second is derived from it, songs call it there, and the rig costs what was promised', () => {
    const few = setup({ twice: true });
    const of = { ...few, problem: { ...few.problem, banks: 5 } };
    const [first] = of.problem.songs.flat();
    const second: SlotPlace = [first!, 4, 0];
    const places = [...of.now, second];
    const rig = carriedOut(of, places);
    const copy = all(rig, 'sound').find((s) => s.calls.some((c) => c.slot === 16))!;
    expect(copy).toMatchObject({ parent: of.sounds[first!]!.id, wants: [] });
    const later = slotsOfRig(rig, caller, all(rig, 'song'))!;
    expect(costOf(later.problem, later.now).stomps).toBe(costOf(of.problem, places).stomps);
    const derived = deriveOnce(rig, BALLROOM_ID)!;
    expect(derived.answers.get(copy.id)?.is ?? 'proved').toBe(derived.answers.get(copy.parent!)?.is ?? 'proved');
  });

  test('a bank by song: no bank key inside any song, the cues from the left', () => {
    const { places, banks } = bankBySong(plain.problem);
    const problem = { ...plain.problem, banks, copies: 99 };
    expect(costOf(problem, places).bankPresses).toBe(0);
    usedPlaces(problem, places, () => true).forEach((used) => {
      expect(new Set(used.map(([, b]) => b)).size).toBeLessThan(2);
    });
    const rig = carriedOut({ ...plain, problem }, places);
    const later = slotsOfRig(rig, caller, all(rig, 'song'))!;
    expect(costOf(later.problem, later.now)).toEqual({ stomps: costOf(problem, places).stomps, bankPresses: 0 });
    for (const song of all(rig, 'song')) expect(song.cues.length).toBe(partOf(demo, song.id)!.cues.length);
  });

  test('how many banks a wish needs', () => {
    const leads = plain.sounds.filter((s) => s.role === 'lead').length;
    expect(banksNeeded(setup({ roles: true }).problem)).toBeGreaterThanOrEqual(leads);
    expect(banksNeeded(setup({}).problem)).toBe(Math.ceil(plain.sounds.length / 4));
  });

  test('in the banks of an act nothing leaves them, and what is turned as a whole costs the same', () => {
    const of = slotsOfRig(demo, caller, songs, { only: { from: 20, to: 23 } })!;
    const plan = atOnce(of.problem);
    const places = leastMoved(of, plan.places);
    const rig = carriedOut(of, places);
    const slots = of.sounds.map((s) => partOf(rig, s.id)!.calls.find((c) => c.device === caller.device)!.slot);
    expect(slots.every((slot) => slot >= 80 && slot < 96)).toBe(true);
    expect(costOf(of.problem, places).stomps).toBe(plan.stomps);
  });
});
