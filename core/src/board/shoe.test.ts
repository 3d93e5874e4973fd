import { after } from '../../testing/after.js';
import { smallRig, SMALL } from '../../testing/small-rig.js';
import { setBoard, standAt } from '../edits/boards.js';
import { thePart } from '../rig/rig.js';
import type { Turn } from '../rig/board.js';
import { laidOut } from './laid-out.js';
import { tooCloseForAShoe } from './shoe.js';

const bare = smallRig({ boxes: { a: 'boost', b: 'fuzz', v: 'volume' }, leads: ['a.out>b.in', 'b.out>v.in'] });
const board = after(bare, setBoard(bare, 'Board', { mm: [800, 400] }));
const standing = (x: number, y: number, turn: Turn = 0) => {
  const at = (x0: number, y0: number, t: Turn = 0) => ({ at: 'Board', x: x0, y: y0, turn: t });
  const spots = { 'device:a': at(0, 0), 'device:b': at(x, y, turn), 'device:v': at(300, 0) };
  const rig = after(board, standAt(thePart(board, SMALL), spots));
  return tooCloseForAShoe(laidOut(rig, thePart(rig, SMALL)), 'Board');
};

// Both are 70 mm wide; the switch of each is in the middle of its front.
test('worked by hand: 59 mm beside each other is too close for a shoe, 60 mm is not, nor is a box behind', () => {
  expect(standing(59, 0)).toEqual([{ box: 'device:a', other: 'device:b', mm: 59 }]);
  expect(standing(60, 0)).toEqual([]);
  expect(standing(0, 130)).toEqual([]);
});

test('a box that is turned brings its switch along', () => {
  // 120 × 70 mm then; its front is where its left was: (25, 35) from its corner. The other switch is at (35, 25).
  const [close] = standing(40, 0, 90);
  expect(close?.mm).toBeCloseTo(Math.hypot(40 + 25 - 35, 35 - 25), 9);
});
