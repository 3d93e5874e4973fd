import fc from 'fast-check';
import { LEVEL_UNITS } from '../rig/sound.js';
import { levelText, readLevel } from './measured-level.js';

test.each([
  ['94 dBA', { db: 94, unit: 'dBA' }],
  ['−23 lufs', { db: -23, unit: 'LUFS' }],
  [' -18,5dBFS ', { db: -18.5, unit: 'dBFS' }],
  ['+4 dBu', { db: 4, unit: 'dBu' }],
])('%s', (text, level) => expect(readLevel(text)).toEqual({ ok: true, value: level }));
test('nothing typed is no level', () => expect(readLevel('  ')).toEqual({ ok: true, value: undefined }));
test.each([
  ['3 dBFS', 'No digital signal is louder than 0 dBFS.'],
  ['240 dBA', 'Above 194 dB there is no sound in air.'],
  ['-160 dBFS', 'less than any meter shows'],
  ['loud', 'cannot be read as a level'],
  ['12', 'cannot be read as a level'],
])('%s contradicts what there is: %s', (text, why) => {
  const read = readLevel(text);
  expect(read.ok ? '' : read.error[0]!.wrong).toContain(why);
});
test('what is said of a level is read again as that level', () =>
  fc.assert(
    fc.property(
      fc.integer({ min: -600, max: 0 }),
      fc.constantFrom(...LEVEL_UNITS.filter((u) => u !== 'dBA')),
      (tenths, unit) => {
        const level = { db: tenths / 10, unit };
        expect(readLevel(levelText(level))).toEqual({ ok: true, value: level });
      },
    ),
  ));
