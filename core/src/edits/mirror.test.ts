import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import type { Edit } from '../change/edit.js';
import { soundsInOrder, thePart, type Rig } from '../rig/rig.js';
import type { Sound } from '../rig/sound.js';
import { callFrom } from './calls.js';
import { banksOf, broughtInStep, mirrorBank, mirroredBanks, outOfStep, type MirroredBank } from './mirror.js';
import { removeSound, setWant } from './sounds.js';

const rig = islandRun();
const SWITCHER = { device: 'device:swi', memory: 'slots' } as const;
const size = 4;
const free = banksOf(rig, SWITCHER).free[0]!;
const bank: MirroredBank = { ...SWITCHER, from: 0, to: free, size };
const wants = [{ control: 'device:swi.trim', is: -3 }] as const;
let next = 0;
const mirrored = (of: Rig = rig, to = bank): Rig =>
  after(of, mirrorBank(of, to, wants, () => `sound:mirror-${(next += 1)}`) as Edit);
const slotOf = (s: Sound): number => s.calls.find((c) => c.device === 'device:swi')!.slot;
const inBank = (of: Rig, b: number): readonly Sound[] =>
  soundsInOrder(of).filter((s) => Math.floor(slotOf(s) / size) === b);

describe('a mirrored bank', () => {
  const made = mirrored();
  test('holds every sound of the other on the same switch, and differs in what was said', () => {
    const [originals, mirrors] = [inBank(made, 0), inBank(made, free)];
    expect(mirrors.map((s) => [s.parent, slotOf(s) % size, s.role, s.wants])).toEqual(
      originals.map((s) => [s.id, slotOf(s), s.role, wants]),
    );
    expect(mirroredBanks(made)).toEqual([bank]);
    expect(outOfStep(made, bank)).toEqual([]);
  });

  test('follows what is said of an original: what each program then stores is the same but for the difference', () => {
    const original = inBank(made, 0)[0]!;
    const stage = 'device:low.overdrive';
    const is = original.wants.some((w) => 'stage' in w && w.stage === stage && w.is === 'in') ? 'out' : 'in';
    const edited = after(made, setWant(original, { stage, is }));
    const { compilation } = deriveOnce(edited, BALLROOM_ID)!;
    const mirror = inBank(edited, free).find((s) => s.parent === original.id)!;
    const said = (s: Sound) => compilation.sounds.get(s.id)!.wants.filter((w) => w.control !== 'device:swi.trim');
    const values = (s: Sound) => new Map(said(s).map((w) => [w.control, w.value]));
    expect(values(mirror)).toEqual(values(original));
  });

  test('says what is out of step, and each cure brings it in step again', () => {
    const [first, second] = inBank(made, 0);
    const moved = after(made, callFrom(made, second!, SWITCHER, first ? slotOf(first) : 0));
    expect(outOfStep(moved, bank).map((o) => o.is)).toContain('other switch');
    const role = after(made, { put: [{ ...first!, role: first!.role === 'fuzz' ? 'lead' : 'fuzz' }], remove: [] });
    const newcomer: Sound = { ...first!, id: 'sound:newcomer', name: 'Newcomer', calls: [], at: 99 };
    const without = after(role, removeSound(role, inBank(role, free)[1]!.id));
    for (const apart of [role, without]) expect(outOfStep(after(apart, broughtInStep(apart, bank)), bank)).toEqual([]);
    const [only, ...others] = outOfStep(role, bank);
    expect(others).toEqual([]);
    expect(outOfStep(after(role, only!.cure!), bank)).toEqual([]);
    expect(
      outOfStep(without, bank)
        .map((o) => o.is)
        .sort(),
    ).toEqual(['missing', 'other role']);
    expect(outOfStep(after(made, { put: [newcomer], remove: [] }), bank)).toEqual([]);
  });

  test('a difference with a reason is the mirror’s own; one without is told', () => {
    const mirror = inBank(made, free)[0]!;
    const more = { control: 'device:swi.trim', is: 3 } as const;
    expect(outOfStep(after(made, setWant(mirror, more)), bank).map((o) => o.is)).toEqual(['says more']);
    const other = {
      ...mirror,
      wants: [...mirror.wants, { stage: 'device:hig.overdrive', is: 'in', why: 'thin' }],
    } as Sound;
    expect(outOfStep(after(made, { put: [other], remove: [] }), bank)).toEqual([]);
  });

  test('takes no place from another sound, and a mirror whose original is gone stands by itself', () => {
    expect(mirrorBank(rig, { ...bank, to: 1 }, wants, () => 'sound:x')).toBe('taken');
    const original = inBank(made, 0)[0]!;
    const gone = after(made, removeSound(made, original.id));
    const orphan = soundsInOrder(gone).find((s) => slotOf(s) === free * size + slotOf(original))!;
    expect(orphan.mirror).toBeUndefined();
    expect(thePart(gone, orphan.id).wants.length).toBeGreaterThan(1);
  });
});
