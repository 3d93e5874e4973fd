import { after } from '../../testing/after.js';
import { islandRun } from '../demo/island-run.js';
import { thePart, type Rig } from '../rig/rig.js';
import { addEntry, logbookOf, troublesOf } from './logbook.js';
import { addPoint, closePoint, dayAfter, doneAgain, pointsOf } from './open-points.js';

const at = (day: number): string => `2026-05-${String(day).padStart(2, '0')}T10:00:00.000Z`;
const write = (rig: Rig, n: number, text: string, more: { about?: 'device:dly' | 'device:vol'; broke?: string } = {}) =>
  after(rig, addEntry(`logEntry:l${n}`, { text, when: at(n), by: n % 2 ? 'Ada' : '', ...more }));
const kept = [
  ['Hummed', { about: 'device:dly', broke: 'Foot switch' }],
  ['Sounded well', {}],
  ['Again', { about: 'device:dly', broke: 'foot switch' }],
  ['Scratched', { about: 'device:dly', broke: 'mix pot' }],
  ['Loose', { about: 'device:vol', broke: 'jack' }],
] as const;
const rig = kept.reduce((some, [text, more], i) => write(some, i + 1, text, more), islandRun());

test('the log stands newest first, and can be read for one box', () => {
  expect(logbookOf(rig).map((e) => e.text)).toEqual(['Loose', 'Scratched', 'Again', 'Sounded well', 'Hummed']);
  expect(logbookOf(rig, 'device:dly').map((e) => e.text)).toEqual(['Scratched', 'Again', 'Hummed']);
});

test('what is to be done stands in the log when it is done', () => {
  const open = after(rig, addPoint('logEntry:p', { text: 'Fetch a pot', when: at(6), by: '' }));
  expect(logbookOf(open)).toHaveLength(5);
  const done = after(open, closePoint(thePart(open, 'logEntry:p'), { by: 'Ben', when: at(7) }));
  expect(logbookOf(done)[0]?.text).toBe('Fetch a pot');
});

test('what failed of a box is counted part by part, whatever its letters’ size', () => {
  expect(troublesOf(rig).get('device:dly')).toEqual([
    { part: 'Foot switch', times: 2, last: at(3) },
    { part: 'mix pot', times: 1, last: at(4) },
  ]);
  expect([...troublesOf(rig).keys()]).toEqual(['device:dly', 'device:vol']);
});

test('upkeep that is done is due again; anything else is not', () => {
  const open = after(
    rig,
    addPoint('logEntry:s', { text: 'New strings', when: at(6), by: '', everyDays: 30, due: '2026-05-10' }),
  );
  const done = after(open, doneAgain(thePart(open, 'logEntry:s'), 'logEntry:s2', { by: 'Ada', when: at(12) }));
  const [next, last] = pointsOf(done);
  expect(next).toMatchObject({ id: 'logEntry:s2', text: 'New strings', point: { due: '2026-06-11', everyDays: 30 } });
  expect(next?.point?.done).toBeUndefined();
  expect(last).toMatchObject({ id: 'logEntry:s', point: { done: { by: 'Ada' } } });
  const once = after(rig, addPoint('logEntry:o', { text: 'Once', when: at(6), by: '' }));
  const over = after(once, doneAgain(thePart(once, 'logEntry:o'), 'logEntry:o2', { by: '', when: at(7) }));
  expect(pointsOf(over)).toHaveLength(1);
  // By the calendar: 2028 has a 29 February.
  expect([dayAfter('2027-12-31', 1), dayAfter('2028-02-28', 1), dayAfter('2026-02-28', 1)]).toEqual([
    '2028-01-01',
    '2028-02-29',
    '2026-03-01',
  ]);
});
