import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import type { Id } from '../rig/ids.js';
import { partOf, type Rig } from '../rig/rig.js';
import { anatomy } from '../signal/graph/anatomy.js';
import { cellOf, sheetColumns } from './sound-sheet.js';
import { turnInRun } from './turn-in-run.js';

const demo = islandRun();
const columns = sheetColumns(demo, anatomy(demo, partOf(demo, BALLROOM_ID)!));
const scope = { hookup: BALLROOM_ID, only: false };
const sound = (rig: Rig) => partOf(rig, 'sound:01')!;
const turned = (rig: Rig, device: Id<'device'>) => turnInRun(rig, sound(rig), device, columns, scope);
const text = (rig: Rig, title: string) =>
  cellOf(
    rig,
    sound(rig),
    columns.find((c) => c.title === title)!,
    BALLROOM_ID,
  ).text;

test('a pedal comes in by a click, and goes out by another', () => {
  const first = turned(demo, 'device:low')!;
  expect(first.says).toBe('LOW in');
  const once = after(demo, first.edit);
  expect(text(once, 'LOW')).toBe('●');
  const second = turned(once, 'device:low')!;
  expect(second.says).toBe('LOW out');
  expect(text(after(once, second.edit), 'LOW')).toBe('·');
});

test('an amp goes from channel to channel', () => {
  const { edit, says } = turned(demo, 'device:hed')!;
  expect(says).toBe('HED lead');
  expect(text(after(demo, edit), 'HED ch.')).toBe('lead');
});

test('what no sound can want is left alone', () => {
  expect(turned(demo, 'device:cab')).toBeUndefined();
  expect(turned(demo, 'device:swi')).toBeUndefined();
});
