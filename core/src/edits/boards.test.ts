import { bareDemo } from '../../testing/bare-demo.js';
import { after } from '../../testing/after.js';
import { BALLROOM_ID, FERRY_ID } from '../demo/island-run.js';
import { deriveOnce, Deriver } from '../derive/steps/deriver.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { ABOUT, partOf, thePart, type Rig } from '../rig/rig.js';
import { boardsOf } from '../board/laid-out.js';
import { removeBoard, renameBoard, setBoard, standAt, standsOn } from './boards.js';
import { removeDevice } from './devices.js';
import { copyHookup } from './hookups.js';

const LOW = 'device:low';
const spot = { at: 'Board', x: 10, y: 20, turn: 90 };
const laid = ((): Rig => {
  const bare = bareDemo();
  const board = after(bare, setBoard(bare, 'Board', { mm: [900, 420] }));
  const tier = after(board, setBoard(board, 'Tier', { mm: [900, 150], on: { board: 'Board', x: 0, y: 270, z: 60 } }));
  const one = after(tier, standAt(thePart(tier, BALLROOM_ID), { [LOW]: spot, 'device:cmp': { ...spot, at: 'Tier' } }));
  return after(one, standAt(thePart(one, FERRY_ID), { [LOW]: { ...spot, x: 300 } }));
})();
const place = (rig: Rig, hookup: typeof BALLROOM_ID = BALLROOM_ID) => thePart(rig, hookup).place;

test('a file keeps boards and where boxes stand', () => {
  const read = readRigFile(writeRigFile(laid));
  expect(read.ok && [place(read.value), boardsOf(read.value)]).toEqual([place(laid), boardsOf(laid)]);
});

test('a box that goes leaves its place in every hook-up', () => {
  const gone = after(laid, removeDevice(laid, LOW));
  expect([place(gone), place(gone, FERRY_ID)]).toEqual([{ 'device:cmp': { ...spot, at: 'Tier' } }, {}]);
});

test('a board that goes lets its boxes stand nowhere, and its tiers by themselves', () => {
  const gone = after(laid, removeBoard(laid, 'Board'));
  expect([Object.keys(place(gone)!), place(gone, FERRY_ID)]).toEqual([['device:cmp'], undefined]);
  expect(boardsOf(gone)).toEqual(new Map([['Tier', { mm: [900, 150] }]]));
  const none = after(gone, removeBoard(gone, 'Tier'));
  expect(partOf(none, ABOUT)!.boards).toBeUndefined();
});

test('a board by another name keeps all that stands and hangs on it; a name that is taken changes nothing', () => {
  const named = after(laid, renameBoard(laid, 'Board', 'Big board'));
  expect(standsOn(thePart(named, BALLROOM_ID), 'Big board')).toEqual([LOW]);
  expect(standsOn(thePart(named, FERRY_ID), 'Big board')).toEqual([LOW]);
  expect(boardsOf(named).get('Tier')!.on!.board).toBe('Big board');
  expect(renameBoard(laid, 'Board', 'Tier')).toEqual({ put: [], remove: [] });
});

test('a copied hook-up has its boxes where they stand', () => {
  const copied = after(
    laid,
    copyHookup(laid, BALLROOM_ID, 'hookup:copy', 'Copy', (n) => `cable:copy-${n}`),
  );
  expect(place(copied, 'hookup:copy')).toEqual(place(laid));
});

test('moving a box works out nothing anew but what is found', () => {
  const deriver = new Deriver();
  const before = deriver.derive(laid, BALLROOM_ID)!;
  const moved = after(laid, standAt(thePart(laid, BALLROOM_ID), { [LOW]: { ...spot, x: 860 } }));
  const derived = deriver.derive(moved, BALLROOM_ID)!;
  expect([derived.anatomy === before.anatomy, derived.verdicts === before.verdicts]).toEqual([true, true]);
  const found = (d: typeof before) => d.judgement.findings.map((f) => f.code).filter((c) => c.startsWith('build.'));
  expect(found(before)).not.toContain('build.overhang');
  expect(found(derived)).toContain('build.overhang');
  expect(derived.judgement.findings.length).toBe(deriveOnce(moved, BALLROOM_ID)!.judgement.findings.length);
});
