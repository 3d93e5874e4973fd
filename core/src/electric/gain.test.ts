import { after } from '../../testing/after.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { makeDevice } from '../catalogue/make.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import type { Block } from '../rig/device.js';
import { soundsInOrder } from '../rig/rig.js';
import { gainLadder, gainOf, gainStages, soundOfRung } from './gain.js';

const rig = smallRig({
  boxes: { g: 'single-coil', b: 'boost', d: 'low-drive', k: 'high-drive', h: 'valve-head', c: 'cab-212' },
  leads: ['g.out>b.in', 'b.out>d.in', 'd.out>k.in', 'k.out>h.in', 'h.speaker>c.in'],
  sounds: { Clean: ['h.clean'], Solo: ['b.boost', 'k.overdrive', 'h.lead'] },
});
const derived = deriveOnce(rig, SMALL)!;
const stages = gainStages(rig, derived.anatomy);
const rungs = gainLadder(rig, stages);
const rung = (text: string) => rungs.find((r) => r.text === text)!;

test('the gain stages stand in the order of the signal; channels exclude each other', () => {
  expect(stages.map((s) => s.text)).toEqual(['B', 'D', 'K', 'H clean', 'H lead']);
  expect(stages.map((s) => s.oneOf !== undefined)).toEqual([false, false, false, true, true]);
});
test('every combination is there once: three pedals in or out, one of two channels', () => {
  expect(rungs).toHaveLength(16);
  expect(new Set(rungs.map((r) => r.text)).size).toBe(16);
  expect(rungs.some((r) => r.text.includes('H clean') && r.text.includes('H lead'))).toBe(false);
});
test('worked by hand: -20 dBu, a boost of 12, a clean channel of 16 that gives at most 4: 8 wanted, 4 dB over', () =>
  expect(rung('B + H clean')).toMatchObject({ into: -20, out: 4, driven: 4 }));
test('worked by hand: a clean channel alone gives -4 and is not driven', () =>
  expect(rung('H clean')).toMatchObject({ out: -4, driven: 0 }));
test('from the least to the most driven, and taking more in never drives less', () => {
  expect(rungs.map((r) => r.driven)).toEqual([...rungs.map((r) => r.driven)].sort((a, b) => a - b));
  for (const r of rungs)
    for (const more of rungs)
      if (r.stages.length < more.stages.length && r.stages.every((s) => more.stages.includes(s)))
        expect([r.text, more.text, more.driven >= r.driven]).toEqual([r.text, more.text, true]);
});
test('sounds that use one already are named', () => {
  expect(rung('H clean').usedBy).toEqual(['sound:clean']);
  expect(rung('B + K + H lead').usedBy).toEqual(['sound:solo']);
  expect(rung('B + D + K + H lead').usedBy).toEqual([]);
});
test('those that are hardly another than the one before are marked', () => {
  for (const [i, r] of rungs.entries())
    expect(r.likeTheOneBefore).toBe(
      i > 0 && r.driven - rungs[i - 1]!.driven < 3 && Math.abs(r.out - rungs[i - 1]!.out) < 2,
    );
});
test('one of them becomes a sound that wants just these stages', () => {
  const made = after(rig, soundOfRung(rig, rung('D + H lead'), 'sound:made'));
  const sound = soundsInOrder(made).at(-1)!;
  expect(sound).toMatchObject({
    name: 'D + H lead',
    wants: [
      { stage: 'device:d.overdrive', is: 'in' },
      { stage: 'device:h.lead', is: 'in' },
    ],
  });
  expect(gainLadder(made, stages).find((r) => r.text === 'D + H lead')!.usedBy).toEqual(['sound:made']);
});
test('a figure of the box wins over the typical one', () => {
  const made = makeDevice('boost', 'device:x');
  const block = made.chains[0]!.slots[0] as Block;
  expect(gainOf(made, block)).toMatchObject({ db: 12, assumed: true });
  expect(gainOf({ ...made, figures: { origin: 'measured' } }, { ...block, gain: 7 })).toEqual({
    db: 7,
    ceiling: 6,
    assumed: false,
  });
});
test('a rig without gain stages has an empty ladder', () => expect(gainLadder(rig, [])).toEqual([]));
test('the demo: looped drives before the channels of the head', () => {
  const d = deriveOnce(islandRun(), BALLROOM_ID)!;
  const demo = gainStages(d.rig, d.anatomy);
  expect(demo.map((s) => s.text)).toEqual(['OFZ', 'LOW', 'HIG', 'HED clean', 'HED lead']);
  expect(gainLadder(d.rig, demo).filter((r) => r.usedBy.length).length).toBeGreaterThan(3);
});
