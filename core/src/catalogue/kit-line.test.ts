import fc from 'fast-check';
import { apply } from '../change/apply.js';
import { emptyRig } from '../rig/rig.js';
import { readPart } from '../rig/read.js';
import { CATALOGUE } from './boxes.js';
import { understand } from './kit-line.js';
import { freeCode, makeDevice } from './make.js';

const said = (line: string) =>
  understand(line).map((u) => `${u.count} ${u.box?.key ?? '?'}${u.channel ? ` ch ${u.channel}` : ''}`);

describe('the catalogue', () => {
  test('gives each box names of its own', () => {
    const names = CATALOGUE.flatMap((g) => g.says.map((s) => s.toLowerCase()));
    expect(names.filter((n, i) => names.indexOf(n) !== i)).toEqual([]);
    expect(new Set(CATALOGUE.map((g) => g.key)).size).toBe(CATALOGUE.length);
  });
  test.each(CATALOGUE.map((g) => [g.key]))('%s can be saved and has the shape of a part', (key) => {
    const device = makeDevice(key, 'device:x');
    expect(readPart(device)).toMatchObject({ ok: true });
    const applied = apply(emptyRig(), { put: [device], remove: [] });
    expect(applied.ok ? [] : applied.error).toEqual([]);
    expect(device.figures.origin).toBe('assumed');
  });
  test('there is no such box', () => expect(() => makeDevice('nothing', 'device:x')).toThrow('no box "nothing"'));
});

describe('a kit line, as people say it', () => {
  test.each([
    [
      '8-loop switcher, compressor, low-gain drive, stereo delay midi ch 2',
      ['1 switcher-8', '1 compressor', '1 low-drive', '1 stereo-delay ch 2'],
    ],
    [
      '2 x low-gain drive\noctave fuzz\nMIDI reverb channel 4',
      ['2 low-drive', '1 octave-fuzz', '1 stereo-reverb ch 4'],
    ],
    ['two-channel head; 2x12; cab mic; front of house', ['1 valve-head', '1 cab-212', '1 cab-mic', '1 desk']],
    ['3× boost', ['3 boost']],
    [
      'comp, OD, dist, trem, phaser, looper',
      ['1 compressor', '1 low-drive', '1 distortion', '1 tremolo', '1 phaser', '1 looper'],
    ],
    ['overdrives', ['1 low-drive']],
    ['compresor, revreb pedal, wahh', ['1 compressor', '1 spring-reverb', '1 wah']],
  ])('%s', (line, boxes) => expect(said(line)).toEqual(boxes));
  test('what is not understood stays, with the nearest names', () => {
    const [piece] = understand('zzqx');
    expect(piece!.said).toBe('zzqx');
    expect(piece!.box).toBeUndefined();
    expect(piece!.maybe.length).toBeLessThanOrEqual(3);
  });
  test('a channel beyond 16 is no channel', () => expect(said('stereo delay ch 40')).toEqual(['1 stereo-delay']));
  test('an empty line is nothing', () => expect(understand(' , \n;')).toEqual([]));
  test('any text at all is read without a fault, within limits', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 400, unit: 'grapheme' }), (text) => {
        for (const u of understand(text)) {
          expect(u.count).toBeGreaterThanOrEqual(1);
          expect(u.count).toBeLessThanOrEqual(20);
        }
      }),
      { numRuns: 200 },
    ));
});

test('a code is made free by a number', () => {
  expect([
    freeCode('DLY', []),
    freeCode('DLY', ['DLY']),
    freeCode('DLY', ['DLY', 'DLY2']),
    freeCode('ABCD', ['ABCD']),
  ]).toEqual(['DLY', 'DLY2', 'DLY3', 'ABC2']);
});
