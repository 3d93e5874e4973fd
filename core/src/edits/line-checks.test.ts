import { after } from '../../testing/after.js';
import { smallRig, SMALL } from '../../testing/small-rig.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { thePart } from '../rig/rig.js';
import { lineCheckOn, tickLine } from './line-checks.js';

const rig = smallRig({ boxes: { g: 'single-coil', a: 'combo' }, leads: ['g.out>a.in'] });
const how = { by: 'Ada', when: '2026-05-31T17:00:00Z' };
const tick =
  (on: string, line: string, done = true) =>
  (r: typeof rig) =>
    after(r, tickLine(thePart(r, SMALL), on, line, done ? how : undefined));

test('kept per day, the last first; the same line twice is one tick; a day with none is gone', () => {
  const two = [
    tick('2026-05-30', 'Stage'),
    tick('2026-05-31', 'Stage'),
    tick('2026-05-31', 'Stage'),
    tick('2026-05-31', 'Clean'),
  ].reduce((r, t) => t(r), rig);
  const { lineChecks } = thePart(two, SMALL);
  expect(lineChecks?.map((c) => [c.on, Object.keys(c.ticked)])).toEqual([
    ['2026-05-31', ['Stage', 'Clean']],
    ['2026-05-30', ['Stage']],
  ]);
  const open = [tick('2026-05-31', 'Stage', false), tick('2026-05-31', 'Clean', false)].reduce((r, t) => t(r), two);
  expect(lineCheckOn(thePart(open, SMALL), '2026-05-31')).toBeUndefined();
  expect(thePart(tick('2026-05-30', 'Stage', false)(open), SMALL).lineChecks).toBeUndefined();
});

test('a rig file keeps it; a day that is none is refused with where and what to do', () => {
  const text = writeRigFile(tick('2026-05-31', 'Stage')(rig));
  const back = readRigFile(text);
  expect(back.ok && thePart(back.value, SMALL).lineChecks).toEqual([{ on: '2026-05-31', ticked: { Stage: how } }]);
  const wrong = readRigFile(text.replace('"2026-05-31"', '"yesterday"'));
  expect(wrong.ok ? [] : wrong.error.map((e) => e.where).join()).toContain('lineChecks');
});
