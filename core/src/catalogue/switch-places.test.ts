import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { thePart } from '../rig/rig.js';
import { footSwitches, readSwitchPlaces, switchPlacesText } from './switch-places.js';

const demo = islandRun();
const swi = thePart(demo, 'device:swi');
const placed = (text: string) => {
  const read = readSwitchPlaces(swi, text);
  if (!read.ok) throw new Error(read.error.wrong);
  return { ...swi, figures: { ...swi.figures, ...(read.value ? { switches: read.value } : {}) } };
};

test('what is typed reads again as it was typed, for any switches and places', () => {
  const mm = fc.integer({ min: -3000, max: 3000 });
  const spots = fc
    .subarray([...footSwitches(swi)], { minLength: 1 })
    .chain((ids) => fc.tuple(...ids.map((id) => fc.record({ id: fc.constant(id), x: mm, y: mm }))));
  fc.assert(
    fc.property(spots, (switches) => {
      const box = { ...swi, figures: { ...swi.figures, switches } };
      expect(readSwitchPlaces(box, switchPlacesText(box))).toEqual({ ok: true, value: switches });
    }),
  );
});

test('in a row, so much from one to the next; a shoe is then judged', () => {
  const [a, b] = placed('45 mm apart').figures.switches!;
  expect([a, b]).toEqual([
    { id: 'A', x: 0, y: 0 },
    { id: 'B', x: 45, y: 0 },
  ]);
  const codes = (text: string) =>
    deriveOnce(after(demo, { put: [placed(text)], remove: [] }), BALLROOM_ID)!
      .judgement.findings.map((f) => f.code)
      .filter((c) => c === 'set.fat-foot');
  expect(codes('45 apart').length).toBeGreaterThan(0);
  expect(codes('70 apart')).toEqual([]);
});

test.each([
  ['A 40', 'is no place'],
  ['Q 40 30', 'has no switch "Q"'],
  ['A 40 30; a 50 30', 'is there twice'],
  ['A 4000 30', 'further than any box'],
  ['0 apart', 'is no place'],
])('%s: %s', (text, says) =>
  expect(readSwitchPlaces(swi, text)).toMatchObject({ ok: false, error: { wrong: expect.stringContaining(says) } }),
);
test('nothing typed says nothing any more', () =>
  expect(readSwitchPlaces(swi, ' ')).toEqual({ ok: true, value: undefined }));
