import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { islandRun } from '../demo/island-run.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { thePart, type Rig } from '../rig/rig.js';
import { addPoint, closePoint, pointsOf, readDay } from './open-points.js';

const at = (n: number): string => `2026-05-${String(n).padStart(2, '0')}T10:00:00.000Z`;
const written = (): Rig => {
  const points = [
    { text: 'Tubes', due: '2026-09-01' },
    { text: 'Decide the volume law at rehearsal' },
    { text: 'Fetch the part', due: '2026-06-01', about: 'device:dly' as const },
  ];
  return points.reduce(
    (rig, p, i) => after(rig, addPoint(`logEntry:p${i}`, { ...p, when: at(i + 1), by: i ? 'Ada' : '' })),
    islandRun(),
  );
};
const texts = (rig: Rig): readonly string[] => pointsOf(rig).map((p) => p.text);

test('the soonest due first, those without a day behind; one that is done goes to the end, and comes back', () => {
  const rig = written();
  expect(texts(rig)).toEqual(['Fetch the part', 'Tubes', 'Decide the volume law at rehearsal']);
  const done = after(rig, closePoint(thePart(rig, 'logEntry:p2'), { by: 'Ben', when: at(9) }));
  expect(texts(done)).toEqual(['Tubes', 'Decide the volume law at rehearsal', 'Fetch the part']);
  const again = after(done, closePoint(thePart(done, 'logEntry:p2'), undefined));
  expect(texts(again)).toEqual(texts(rig));
  expect(thePart(again, 'logEntry:p2')).toEqual(thePart(rig, 'logEntry:p2'));
});

test('a plain note of the log is no open point, and a file keeps the points', () => {
  const rig = written();
  const note = { kind: 'logEntry' as const, id: 'logEntry:n' as const, when: at(1), text: 'gig', about: [] };
  const noted = after(rig, { put: [note], remove: [] });
  expect(texts(noted)).toEqual(texts(rig));
  const read = readRigFile(writeRigFile(noted));
  expect(read.ok && pointsOf(read.value)).toEqual(pointsOf(noted));
});

describe('a day', () => {
  test('law: every day that there is is read as it is', () =>
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1970-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
        (date) => {
          const day = date.toISOString().slice(0, 10);
          expect(readDay(` ${day} `)).toEqual({ ok: true, value: day });
        },
      ),
    ));
  test.each(['2026-02-31', '2026-13-01', '31.5.2026', 'soon', ''])('%j is none', (text) => {
    expect(readDay(text).ok).toBe(false);
  });
});
