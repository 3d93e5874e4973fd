import { after } from '../../../testing/after.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../../demo/island-run.js';
import { addEngagement, limitBy } from '../../edits/engagements.js';
import { addCase, changeCase, pack } from '../../edits/packing.js';
import { readRigFile, writeRigFile } from '../../formats/rig-file.js';
import { all, thePart, type Rig } from '../../rig/rig.js';
import type { GigLimits } from '../../rig/show.js';
import { deriveOnce } from '../steps/deriver.js';
import { gigBoxes, gigLines, gigSums, type GigBox } from './gig.js';

const rig = islandRun();
const [ballroom, ferry] = [deriveOnce(rig, BALLROOM_ID)!, deriveOnce(rig, FERRY_ID)!];
const [atBallroom, atFerry] = [gigBoxes(ballroom), gigBoxes(ferry)];
const judge = (limits: GigLimits, boxes = atBallroom, on: Rig = rig, id = BALLROOM_ID) =>
  gigLines({ rig: on, hookup: thePart(on, id) }, limits, boxes);
const holds = (limits: GigLimits, boxes?: readonly GigBox[]) => judge(limits, boxes).map((l) => l.holds);

test('sums: every box counts once, and what nobody said is counted as unknown', () => {
  const sums = gigSums(atBallroom);
  expect(sums.kg).toBeCloseTo(
    atBallroom.reduce((n, b) => n + (b.kg ?? 0), 0),
    9,
  );
  expect(sums.unweighed).toBe(atBallroom.filter((b) => b.kg === undefined).length);
  expect([sums.price, sums.unpriced]).toEqual([0, atBallroom.length]);
  // Boxes on the floor of the demo: 8 usual pedals, 3 of 120 × 130, switcher, selector and volume pedal.
  expect(sums.covers).toBe(6 * 70 * 120 + 3 * 120 * 130 + 430 * 120 + 110 * 60 + 100 * 260);
});

test('with and without a box: the sums differ by just what it takes', () => {
  const [box] = atBallroom.filter((b) => b.code === 'DLY');
  const [all_, less] = [gigSums(atBallroom), gigSums(atBallroom.filter((b) => b !== box))];
  expect(all_.kg - less.kg).toBeCloseTo(box!.kg!, 9);
  expect([all_.outputs - less.outputs, all_.covers - less.covers]).toEqual([box!.outputs, box!.covers]);
});

test('use of each box: sounds and songs; the desk is the house’s own', () => {
  expect(atBallroom.find((b) => b.code === 'DLY')!.use).toMatchObject({ of: 16 });
  expect(atBallroom.map((b) => b.code)).not.toContain('FOH');
});

test('each limit, kept and not kept', () => {
  expect(holds({})).toEqual([]);
  expect(holds({ silent: true })).toEqual([false]);
  expect(judge({ silent: true }, atFerry, rig, FERRY_ID)[0]!.holds).toBe(true);
  expect(holds({ amp: 'none' })).toEqual([false]);
  expect(judge({ amp: 'none' }, atFerry, rig, FERRY_ID)[0]!.holds).toBe(true);
  const { outputs, covers, kg, mains } = gigSums(atBallroom);
  expect([holds({ outputs }), holds({ outputs: outputs - 1 })]).toEqual([[true], [false]]);
  expect([holds({ mostKg: kg }), holds({ mostKg: kg - 0.1 })]).toEqual([[true], [false]]);
  expect([holds({ sockets: mains }), holds({ sockets: mains - 1 })]).toEqual([[true], [false]]);
  expect([holds({ board: [900, 420] }), holds({ board: [400, covers / 400 - 1] })]).toEqual([[true], [false]]);
  expect(judge({ board: [600, 320] })[0]!.is).toContain('Floor board has 90 × 42 cm');
  expect(holds({ house: 'mono' })).toEqual([true]);
});

test('sides that are wanted apart do not go with a mono house, and a case over its limit with no gig', () => {
  const hookup = thePart(rig, BALLROOM_ID);
  const hears = hookup.hears.map((h) => ({ ...h, as: 'stereo' as const }));
  const wide = after(rig, { put: [{ ...hookup, hears }], remove: [] });
  expect(judge({ house: 'mono' }, atBallroom, wide)[0]!.holds).toBe(false);
  const sound = thePart(rig, 'sound:01');
  const one = after(rig, { put: [{ ...sound, hears }], remove: [] });
  expect(judge({ house: 'mono' }, atBallroom, one)[0]!.holds).toBe(false);
  const bag = after(rig, addCase('packCase:bag', 'Bag'));
  const limited = after(bag, changeCase(thePart(bag, 'packCase:bag'), { mostKg: 5 }));
  const full = after(limited, pack(thePart(limited, 'packCase:bag'), 'Merchandise', { kg: 6 }));
  expect(judge({}, atBallroom, full)).toEqual([{ asks: 'Bag within its weight', is: '1 kg too much', holds: false }]);
});

test('what a kind of gig asks is kept in a file', () => {
  const made = after(rig, addEngagement('engagement:fly', 'Fly dates'));
  const limits: GigLimits = { silent: true, outputs: 5, board: [600, 320], mostKg: 23, house: 'mono', sockets: 1 };
  const asked = after(made, limitBy(thePart(made, 'engagement:fly'), limits));
  const read = readRigFile(writeRigFile(asked));
  expect(read.ok && all(read.value, 'engagement')[0]!.limits).toEqual(limits);
  const none = after(asked, limitBy(thePart(asked, 'engagement:fly'), {}));
  expect(thePart(none, 'engagement:fly').limits).toBeUndefined();
});
