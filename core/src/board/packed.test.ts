import { after } from '../../testing/after.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../demo/island-run.js';
import { setBoard } from '../edits/boards.js';
import { removeDevice } from '../edits/devices.js';
import { addCase, caseOf, changeCase, pack, readThing, repack, tickThing } from '../edits/packing.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import type { Packed } from '../rig/packing.js';
import { all, thePart, type Rig } from '../rig/rig.js';
import { laidOut } from './laid-out.js';
import { packingView } from './packed.js';
import { weightOf } from './weight.js';

const BAG = 'packCase:bag';
const with_ = (things: Readonly<Record<string, Packed>>, change: Parameters<typeof changeCase>[1] = {}): Rig => {
  const bare = after(islandRun(), addCase(BAG, 'Bag'));
  const full = Object.entries(things).reduce((r, [name, t]) => after(r, pack(thePart(r, BAG), name, t)), bare);
  return after(full, changeCase(thePart(full, BAG), change));
};
const view = (rig: Rig, on = '2026-05-31', hookup: typeof BALLROOM_ID = BALLROOM_ID) =>
  packingView(rig, thePart(rig, hookup), on);
const BY = { by: 'Ada', when: '2026-05-30T18:00:00.000Z' };
const ticked = (rig: Rig, way: 'out' | 'back', ...names: string[]): Rig =>
  names.reduce((r, name) => after(r, tickThing(r, '2026-05-31', way, name, BY)), rig);

test('worked by hand: a case of 4 kg, three things of 200 g, a box by its own weight, a board with all on it', () => {
  const rig = with_(
    { Picks: { many: 3, kg: 0.2 }, Tuner: { device: 'device:tun' }, Board: { board: 'Floor board' }, Capo: {} },
    { kg: 4, mostKg: 12 },
  );
  const [bag] = view(rig).cases;
  const board = weightOf(laidOut(rig, thePart(rig, BALLROOM_ID)), 'Floor board').kg;
  const kg = 4 + 0.6 + thePart(rig, 'device:tun').figures.kg! + board;
  expect([bag!.kg, bag!.over, bag!.unknown]).toEqual([kg, kg - 12, ['Capo']]);
});

test('a backup of a box weighs nothing, and does not mean that the box is packed', () => {
  const rig = with_({ 'Presets of the delay': { device: 'device:dly', is: 'digital' } }, { kg: 1 });
  const { cases, loose } = view(after(rig, setBoard(rig, 'Floor board', undefined)));
  expect([cases[0]!.kg, cases[0]!.unknown]).toEqual([1, []]);
  expect(loose.map((d) => d.code)).toContain('DLY');
});

test('a board of which something is not weighed weighs at least so much', () => {
  const rig = with_({ Board: { board: 'Floor board' } });
  expect(view(rig).cases[0]!.unknown).toEqual([]);
  const bare = after(rig, setBoard(rig, 'Floor board', { mm: [900, 420] }));
  expect(view(bare).cases[0]!.unknown).toEqual(['Board']);
});

test('what is not packed: boxes of this hook-up, but not what stands on a packed board, nor the desk', () => {
  const bare = view(with_({}));
  expect(bare.looseBoards).toEqual(['Floor board']);
  expect(bare.loose.map((d) => d.code)).toContain('DLY');
  expect(bare.loose.map((d) => d.code)).not.toContain('FOH');
  const packed = view(with_({ Board: { board: 'Floor board' } }));
  expect(packed.looseBoards).toEqual([]);
  expect(packed.loose.map((d) => d.code)).not.toContain('DLY');
  expect(packed.loose.map((d) => d.code)).toContain('HED');
  // A spare in a bag does not mean that the one in use is packed.
  expect(view(with_({ 'Spare head': { device: 'device:hed', is: 'spare' } })).loose.map((d) => d.code)).toContain(
    'HED',
  );
});

test('what is packed and not plugged in this hook-up may stay at home', () => {
  const rig = with_({ Head: { device: 'device:hed' } });
  expect([view(rig).stays, view(rig, '2026-05-31', FERRY_ID).stays]).toEqual([[], ['Head']]);
});

test('the missing thing: not in while others are, and not back once the first is back', () => {
  const rig = with_({ Capo: {}, Picks: {}, Tuner: { device: 'device:tun' } });
  expect([view(rig).open, view(rig).missing]).toEqual([[], []]);
  const leaving = ticked(rig, 'out', 'Capo', 'Picks');
  expect([view(leaving).open, view(leaving).missing]).toEqual([['Tuner'], []]);
  const home = ticked(leaving, 'back', 'Picks');
  expect([view(home).open, view(home).missing]).toEqual([[], [{ name: 'Capo', by: BY }]]);
  expect(view(home, '2026-06-01').missing).toEqual([]);
  expect(view(ticked(home, 'back', 'Capo')).missing).toEqual([]);
});

test('cautions: two people above 23 kg, batteries in the hold, a board that is too long and too high', () => {
  const [heavy] = view(with_({ Head: { kg: 24 }, Ears: { is: 'to charge' } }, { travels: 'hold' })).cases;
  expect(heavy!.cautions).toEqual([
    expect.stringContaining('two people lift it'),
    expect.stringContaining('49 CFR 175.10'),
  ]);
  const [light] = view(with_({ Head: { kg: 23 } }, { mm: [420, 900, 60] })).cases;
  expect([light!.cautions, light!.tooLarge]).toEqual([[], []]);
  const [small] = view(with_({ Board: { board: 'Floor board' } }, { mm: [420, 850, 60] })).cases;
  // Boxes 70 mm high on it, and a shelf 55 mm beneath it: 125 mm.
  expect(small!.tooLarge).toEqual(['Floor board is 50 mm too long and 65 mm too high for it.']);
});

describe('a line of a packing list', () => {
  const rig = with_({ Capo: {} });
  test.each([
    ['3 picks, 2 g', 'picks', { many: 3, kg: 0.002 }],
    ['2x in-ears 0,15 kg', 'in-ears', { many: 2, kg: 0.15 }],
    ['the singer’s tea', 'the singer’s tea', {}],
    ['9 V batteries', '9 V batteries', {}],
    ['2 x 9 V batteries', '9 V batteries', { many: 2 }],
  ])('%s', (text, name, thing) => expect(readThing(rig, text)).toEqual({ ok: true, value: { name, thing } }));
  test.each([
    ['', 'nothing to pack'],
    ['0 picks', '0 of a thing cannot be packed'],
    ['head -3 kg', 'is no weight'],
    ['capo', 'packed in Bag already'],
  ])('%j is refused', (text, why) => {
    const read = readThing(rig, text);
    expect(!read.ok && read.error[0]!.wrong).toContain(why);
  });
});

test('a thing goes into another case, and a box that is sold stays on the list as a thing', () => {
  const two = after(with_({ Head: { device: 'device:hed', in: 'lid' } }), addCase('packCase:van', 'Van case'));
  const moved = after(two, repack(thePart(two, BAG), thePart(two, 'packCase:van'), 'Head'));
  expect(caseOf(moved, 'head')!.holds).toEqual({ Head: { device: 'device:hed' } });
  expect(thePart(moved, BAG).holds).toEqual({});
  const sold = after(moved, removeDevice(moved, 'device:hed'));
  expect(thePart(sold, 'packCase:van').holds).toEqual({ Head: {} });
});

test('a file keeps cases, and what went out and came back', () => {
  const rig = ticked(
    with_({ Capo: { whose: 'Ben', in: 'lid', is: 'spare' } }, { side: 'left', colour: 'red' }),
    'out',
    'Capo',
  );
  const read = readRigFile(writeRigFile(rig));
  expect(read.ok && [all(read.value, 'packCase'), all(read.value, 'packing')]).toEqual([
    all(rig, 'packCase'),
    all(rig, 'packing'),
  ]);
});

test('what hangs beneath a board is packed with it, and weighs with it', () => {
  const rig = islandRun();
  const packed = view(with_({ Board: { board: 'Floor board' } }));
  expect([packed.looseBoards, packed.loose.filter((d) => d.zone === 'supply')]).toEqual([[], []]);
  const floor = laidOut(rig, thePart(rig, BALLROOM_ID));
  const [whole, shelf] = ['Floor board', 'Shelf beneath'].map((name) => weightOf(floor, name).kg);
  const kg = (zone: string): number =>
    all(rig, 'device').reduce(
      (n, d) => n + (d.zone === zone && floor.boxes.some((b) => b.device.id === d.id) ? d.figures.kg! : 0),
      0,
    );
  expect(shelf).toBeCloseTo(0.6 + kg('supply'), 9);
  expect(whole).toBeCloseTo(4.2 + 0.6 + kg('supply') + kg('floor'), 9);
});
