import { testCheck } from '../../../testing/check-tester.js';
import { bareDemo } from '../../../testing/bare-demo.js';
import { after } from '../../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { setBoard, standAt } from '../../edits/boards.js';
import { addCase, changeCase, pack } from '../../edits/packing.js';
import { changeCable } from '../../edits/cables.js';
import type { Board, Spot } from '../../rig/board.js';
import type { Id } from '../../rig/ids.js';
import { cablesOf, thePart, type Rig } from '../../rig/rig.js';
import { CHECKS } from '../index.js';

const check = (code: string) => CHECKS.find((c) => c.code === code)!;
const [LOW, HIG, SWI]: Id<'device'>[] = ['device:low', 'device:hig', 'device:swi'];
const standing = (place: Record<Id<'device'>, Partial<Spot>>, more: Partial<Board> = {}): Rig => {
  const rig = after(bareDemo(), setBoard(bareDemo(), 'Board', { mm: [900, 420], ...more }));
  const spots = Object.entries(place).map(([id, s]) => [id, { at: 'Board', x: 0, y: 0, turn: 0, ...s }]);
  return after(rig, standAt(thePart(rig, BALLROOM_ID), Object.fromEntries(spots)));
};
const APART = standing({ [LOW!]: { x: 300, y: 100 }, [HIG!]: { x: 600, y: 100 } });

testCheck(check('build.overlap'), BALLROOM_ID, [
  { name: 'boxes apart', rig: APART, evidence: [] },
  { name: 'the demo’s board', rig: islandRun(), evidence: [] },
  { name: 'nothing stands anywhere', rig: bareDemo(), evidence: [] },
  {
    name: 'one box on another',
    rig: standing({ [LOW!]: { x: 300, y: 100 }, [HIG!]: { x: 340, y: 100 } }),
    evidence: [LOW!, HIG!],
    says: 'stand on the same place',
    ways: [
      'Move Low-gain drive to the nearest free place',
      'Take Low-gain drive off the board',
      'Move High-gain drive to the nearest free place',
      'Take High-gain drive off the board',
    ],
  },
  {
    name: 'a plug has no room beside its neighbour',
    rig: standing({ [LOW!]: { x: 300, y: 100 }, [HIG!]: { x: 220, y: 100 } }),
    evidence: [LOW!, HIG!],
    says: 'High-gain drive stands where the plug at Low-gain drive',
  },
  {
    name: 'two plugs meet',
    rig: standing({ [LOW!]: { x: 300, y: 100 }, [HIG!]: { x: 200, y: 100 } }),
    evidence: [LOW!, HIG!],
    says: 'need the same place',
  },
]);

testCheck(check('build.overhang'), BALLROOM_ID, [
  { name: 'all on the board', rig: APART, evidence: [] },
  {
    name: 'over the edge',
    rig: standing({ [LOW!]: { x: 840, y: 100 } }),
    evidence: [LOW!],
    says: 'Low-gain drive hangs 10 mm over the edge of Board',
    ways: ['Move Low-gain drive to the nearest free place', 'Take Low-gain drive off the board'],
  },
  {
    name: 'larger than the board: it cannot be moved to anywhere',
    rig: standing({ [SWI!]: { x: 0, y: 0 } }, { mm: [400, 300] }),
    evidence: [SWI!],
    says: '30 mm over',
    ways: ['Take Eight-loop switcher off the board'],
  },
  {
    name: 'too high for a drawer',
    rig: standing({ [LOW!]: { x: 300, y: 100 } }, { high: 44 }),
    evidence: [LOW!],
    says: '11 mm too high for Board',
    ways: ['Take Low-gain drive off the board'],
  },
]);

/** The first lead between the drive and the switcher, that long. */
const lead = cablesOf(bareDemo(), BALLROOM_ID).find((c) => c.ends.every((e) => /^device:(low|swi)\./.test(e)))!;
const long = (m: number): Rig => {
  const rig = standing({ [LOW!]: { x: 800, y: 0 }, [SWI!]: { x: 0, y: 300 } });
  return after(rig, changeCable(thePart(rig, lead.id), { m, have: true }));
};
const others = (rig: Rig, but?: string): Rig =>
  cablesOf(rig, BALLROOM_ID)
    .filter((c) => c.id !== but)
    .reduce((r, c) => after(r, changeCable(c, { m: undefined })), rig);
testCheck(check('build.cable-short'), BALLROOM_ID, [
  { name: 'the demo’s board', rig: islandRun(), evidence: [] },
  { name: 'long enough', rig: others(long(3), lead.id), evidence: [] },
  { name: 'no length is said', rig: others(standing({ [LOW!]: { x: 800 }, [SWI!]: { y: 300 } })), evidence: [] },
  {
    name: 'a patch lead from corner to corner',
    rig: others(long(0.15), lead.id),
    evidence: [lead.id],
    says: 'is 15 cm long and needs',
  },
]);

const packed = (kg: number, mostKg: number | undefined): Rig => {
  const one = after(islandRun(), addCase('packCase:bag', 'Bag'));
  const two = after(one, addCase('packCase:van', 'Van case'));
  const limited = after(two, changeCase(thePart(two, 'packCase:bag'), { kg: 4, mostKg }));
  const full = after(limited, pack(thePart(limited, 'packCase:bag'), 'Strings', { kg: 0.5 }));
  return after(full, pack(thePart(full, 'packCase:bag'), 'Head', { kg }));
};
testCheck(check('build.weight'), BALLROOM_ID, [
  { name: 'just as heavy as it may be', rig: packed(18.5, 23), evidence: [] },
  { name: 'no limit is said', rig: packed(60, undefined), evidence: [] },
  {
    name: 'two kilos too much',
    rig: packed(20.5, 23),
    evidence: ['packCase:bag'],
    says: 'Bag weighs 25 kg and may weigh 23 kg: 2 kg too much',
    ways: ['Put Head into Van case'],
  },
]);
