import { apply } from '../change/apply.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';

import { anatomy } from '../signal/graph/anatomy.js';
import { all, partOf } from '../rig/rig.js';
import type { Move } from '../rig/sound.js';
import { addMove, assignableSwitches, moveRows, putLists, removeMove, setManner } from './move-sheet.js';
import { mannerOf } from '../rig/sound.js';
import { cellOf, controlColumn, sheetColumns, typeBlock, type Column } from './sound-sheet.js';
import { controlAt } from '../rig/box.js';

const rig = islandRun();
const hookup = partOf(rig, BALLROOM_ID)!;
const columns: readonly Column[] = sheetColumns(rig, anatomy(rig, hookup), ['device:dly.mix']);
const scope = { hookup: BALLROOM_ID, only: false, unsaid: 'as it is' as const };
const at = (title: string) => columns.findIndex((c) => c.title === title);

test('a move is two rows: what it gives and what takes it back; what is not named stays as it is', () => {
  const rows = moveRows(rig);
  expect(rows).toHaveLength(2 * rig.parts.move.size);
  expect(
    columns
      .map((c) => cellOf(rig, { ...rows[0]!.row, wants: [] }, c, BALLROOM_ID, 'as it is').text)
      .every((t) => t === ''),
  ).toBe(true);
});
test('typed like a sound: a stage in, one out, an amount; it lands in the list of that row', () => {
  const rows = moveRows(rig);
  const typed = typeBlock(
    rig,
    rows.map((r) => r.row),
    columns,
    [
      { row: 0, column: at('OFZ'), text: 'x' },
      { row: 0, column: at('DLY'), text: '-' },
      { row: 0, column: at('DLY mix %'), text: '80' },
      { row: 1, column: at('DLY mix %'), text: '30' },
    ],
    scope,
  );
  const edit = putLists(rig, rows, typed.ok ? typed.value : []);
  expect(edit.put).toHaveLength(1);
  const [move] = edit.put as Move[];
  expect(move!.on).toEqual(
    expect.arrayContaining([
      { stage: 'device:ofz.fuzz', is: 'in' },
      { stage: 'device:dly.delay', is: 'out' },
      { control: 'device:dly.mix', is: 80 },
    ]),
  );
  expect(move!.off).toContainEqual({ control: 'device:dly.mix', is: 30 });
  expect(apply(rig, edit).ok).toBe(true);
});
test('a new move takes the first free switch; one way means that every press gives the same', () => {
  const made = addMove(rig, 'move:new', 'Swell')!;
  const [move] = made.put as Move[];
  expect(assignableSwitches(rig)).toContainEqual(move!.at[0]);
  expect(all(rig, 'move').some((m) => JSON.stringify(m.at) === JSON.stringify(move!.at))).toBe(false);
  const said: Move = { ...move!, on: [{ control: 'device:dly.mix', is: 80 }] };
  const oneWay = setManner(said, 'one way').put[0] as Move;
  expect([
    mannerOf(said),
    mannerOf(oneWay),
    mannerOf(setManner(oneWay, 'while held').put[0] as Move),
    (setManner(oneWay, 'latched').put[0] as Move).off,
  ]).toEqual(['latched', 'one way', 'while held', []]);
});
test('taken away, no cue calls it any more', () => {
  const [first] = all(rig, 'move');
  const gone = apply(rig, removeMove(rig, first!.id));
  expect(
    gone.ok &&
      all(gone.value.rig, 'song')
        .flatMap((s) => s.cues)
        .some((c) => 'move' in c.call && c.call.move === first!.id),
  ).toBe(false);
});
test('a control of any box can be a column, by the name that the box gives it', () => {
  expect(controlColumn(partOf(rig, 'device:dly')!, controlAt(rig, 'device:dly.mix')!)).toMatchObject({
    title: 'DLY mix %',
    says: 'Stereo delay: mix',
  });
});
