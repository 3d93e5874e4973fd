import { after } from '../../testing/after.js';
import { deltaOf, editOf, invert } from '../change/delta.js';
import type { Edit } from '../change/edit.js';
import { islandRun } from '../demo/island-run.js';
import { all, type Rig } from '../rig/rig.js';
import { removeDevice } from './devices.js';
import { goneOf, leavingTicks, tick, tickedOf, tickOf, untick } from './ticks.js';

const demo = islandRun();
const DLY = { device: 'device:dly', memory: 'programs', number: 4 } as const;
const MIX = { text: 'mix 30', is: 'mix=30' };
const HOW = { by: 'Ana', revision: 1, when: '2026-01-01T10:00:00.000Z' };
const typed = after(demo, tick(demo, DLY, [MIX], [MIX], HOW));
const lines = (rig: Rig): readonly string[] => Object.keys(tickOf(rig, DLY)?.lines ?? {});
/** Makes an edit and goes back from it. */
const thereAndBack = (rig: Rig, edit: Edit): Rig => {
  const there = after(rig, edit);
  return after(there, leavingTicks(there, editOf(invert(deltaOf(rig, edit)))));
};

describe('going back in the plan', () => {
  test('takes nothing out of a box: what was ticked since stays ticked', () =>
    expect(lines(thereAndBack(demo, tick(demo, DLY, [MIX], [MIX], HOW)))).toEqual(['mix 30']));
  test('types nothing into one: what was taken back since stays open', () =>
    expect(lines(thereAndBack(typed, untick(typed, DLY, MIX)))).toEqual([]));
  test('brings a box back as it was typed', () =>
    expect(lines(thereAndBack(typed, removeDevice(typed, 'device:dly')))).toEqual(['mix 30']));
  test('takes a box away with its ticks', () => {
    const without = after(typed, removeDevice(typed, 'device:dly'));
    expect(all(without, 'tick')).toEqual([]);
    const again: Edit = editOf(invert(deltaOf(typed, removeDevice(typed, 'device:dly'))));
    expect(all(thereAndBack(without, again), 'tick')).toEqual([]);
  });
});

test('lines that read alike and mean different things are ticked each by itself', () => {
  const lines = ['a', 'b', 'c'].map((is) => ({ text: 'something else', is }));
  const all = after(demo, tick(demo, DLY, lines, lines, HOW));
  const ticked = tickOf(all, DLY)!.lines;
  expect(lines.map((line) => tickedOf(ticked, line)?.by)).toEqual(['Ana', 'Ana', 'Ana']);
  expect(goneOf(ticked, lines)).toEqual([]);
  const one = tickOf(after(all, untick(all, DLY, lines[1]!)), DLY)!.lines;
  expect(lines.map((line) => tickedOf(one, line) !== undefined)).toEqual([true, false, true]);
});
