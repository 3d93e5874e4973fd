import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { Random } from '../../testing/random.js';
import { randomRig } from '../../testing/random-rig.js';
import { line } from '../../testing/run-line.js';
import { CATALOGUE } from '../catalogue/boxes.js';
import { apply } from '../change/apply.js';
import { editOf, invert } from '../change/delta.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import type { Id } from '../rig/ids.js';
import { all, cablesOf, everyPart, partOf, type Rig } from '../rig/rig.js';
import { replaceDevice } from './replace.js';

const demo = islandRun();
const swapped = (id: Id<'device'>, key: string, rig: Rig = demo) => {
  const replacement = replaceDevice(rig, id, key)!;
  const applied = apply(rig, replacement.edit);
  if (!applied.ok) throw new Error(JSON.stringify(applied.error[0]));
  return { ...replacement, rig: applied.value.rig, delta: applied.value.delta };
};

describe('one drive for another', () => {
  const { rig, follows, lost, device } = swapped('device:low', 'distortion');
  test('everything follows: two cables and a supply lead in each hook-up, and every sound that names it', () => {
    expect(lost).toEqual([]);
    expect(follows).toEqual({ cables: 6, sounds: 8, programs: 0 });
    expect([device.code, device.at]).toEqual(['DST', partOf(demo, 'device:low')!.at]);
  });
  test('the paths stay the same', () => {
    for (const hookup of [BALLROOM_ID, FERRY_ID]) {
      const [before, after] = [deriveOnce(demo, hookup)!, deriveOnce(rig, hookup)!];
      for (const sound of demo.parts.sound.keys())
        expect(line(soundRun(after, sound))).toBe(line(soundRun(before, sound)));
      expect([...after.verdicts].map(([id, v]) => [id, v.is])).toEqual(
        [...before.verdicts].map(([id, v]) => [id, v.is]),
      );
    }
  });
});

describe('a box of another shape', () => {
  test('a mono pedal in the place of a stereo one: the left jacks go over; what has no place is named', () => {
    const { rig, follows, lost } = swapped('device:dly', 'analog-delay');
    expect(
      cablesOf(rig, BALLROOM_ID)
        .filter((c) => c.ends.some((e) => e.startsWith('device:dly.')))
        .map((c) => c.ends.find((e) => e.startsWith('device:dly.'))),
    ).toEqual(['device:dly.in', 'device:dly.out', 'device:dly.dc']);
    expect(follows.cables).toBe(6);
    expect(lost).toEqual(
      expect.arrayContaining([
        'the cable at midi-in in Ballroom',
        'the cable at out-r in Ferry deck',
        'program “Slap”',
        'program in “Chorus crunch”',
      ]),
    );
  });
  test('another programmable delay takes the programs, the channel and the wants over', () => {
    const { device, follows, lost, rig } = swapped('device:dly', 'delay-reverb');
    expect(device.midi!.channel).toBe(3);
    expect(follows.programs).toBe(4);
    expect(lost).toEqual([]);
    expect(
      deriveOnce(rig, BALLROOM_ID)!
        .compilation.sounds.get('sound:02')!
        .wants.find((w) => w.control === 'device:dly.program')!.value,
    ).toBe(4);
  });
  test('a smaller switcher: loops, slots and moves that it has stay', () => {
    const { rig, lost } = swapped('device:swi', 'switcher-4');
    expect(partOf(rig, 'sound:01')!.calls).toEqual(partOf(demo, 'sound:01')!.calls);
    expect(lost).toEqual(expect.arrayContaining(['the cable at send8 in Ballroom', 'program “Waltz grit”']));
    expect(cablesOf(rig, BALLROOM_ID).filter((c) => c.ends.includes('device:swi.send4'))).toHaveLength(1);
  });
  test('a program of an effect goes over with what the new one can hold, and says what it cannot', () => {
    const { rig, lost, follows } = swapped('device:dly', 'stereo-reverb');
    const kept = all(rig, 'program').filter((p) => p.device === 'device:dly');
    expect(follows.programs).toBe(kept.length);
    for (const program of kept) {
      const was = all(demo, 'program').find((p) => p.id === program.id)!;
      expect(was.contents).toMatchObject(program.contents as object);
    }
    expect(kept.length + lost.filter((l) => /^program/.test(l)).length).toBe(
      all(demo, 'program').filter((p) => p.device === 'device:dly').length,
    );
  });
  test('two channels become one: it is in when either was', () => {
    const said = partOf(demo, 'sound:04')!;
    const both = { ...said, wants: [...said.wants, { stage: 'device:hed.clean' as const, is: 'out' as const }] };
    const { rig } = swapped('device:hed', 'one-channel-amp', after(demo, { put: [both], remove: [] }));
    expect(partOf(rig, 'sound:04')!.wants.filter((w) => 'stage' in w && w.stage.startsWith('device:hed.'))).toEqual([
      { stage: 'device:hed.preamp', is: 'in' },
    ]);
  });
  test('a box that nobody has is no replacement; a key of no box is refused', () => {
    expect(replaceDevice(demo, 'device:none', 'fuzz')).toBeUndefined();
    expect(() => replaceDevice(demo, 'device:low', 'nothing')).toThrow('no box "nothing"');
  });
});

test('any box for any other, on any rig: the edit can always be made, names all that goes, and can be taken back', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 5000 }), fc.constantFrom(...CATALOGUE.map((g) => g.key)), (seed, key) => {
      const { rig } = randomRig(seed);
      const device = new Random(seed).pick(all(rig, 'device'));
      const replacement = replaceDevice(rig, device.id, key)!;
      const applied = apply(rig, replacement.edit);
      expect(applied.ok ? [] : applied.error).toEqual([]);
      if (!applied.ok) return;
      const cables = all(rig, 'cable').length - all(applied.value.rig, 'cable').length;
      expect(replacement.lost.filter((l) => l.startsWith('the cable')).length).toBe(cables);
      const back = apply(applied.value.rig, editOf(invert(applied.value.delta)));
      const parts = (r: Rig) => Object.fromEntries(everyPart(r).map((p) => [p.id, p]));
      expect(back.ok && parts(back.value.rig)).toEqual(parts(rig));
    }),
    { numRuns: 150 },
  );
});
