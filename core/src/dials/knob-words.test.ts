import fc from 'fast-check';
import { dialLine, isPosition, readDials, samePosition, turnOf } from './knob-words.js';

const said = (line: string): readonly string[] => readDials(line).stands.map((s) => `${s.knob}: ${s.at}`);

describe('how far a knob is turned, from 7 to 5 o’clock', () => {
  test.each([
    ["2 o'clock", 0.7],
    ['two o’clock', 0.7],
    ["12 o'clock", 0.5],
    ['noon', 0.5],
    ['straight up', 0.5],
    ["7 o'clock", 0],
    ["5 o'clock", 1],
    ['9:30', 0.25],
    ['half past nine', 0.25],
    ['quarter to 3', 0.775],
    ['nine thirty', 0.25],
    ['two forty five', 0.775],
    ["between 2 and 3 o'clock", 0.75],
    ["2-3 o'clock", 0.75],
    ['just under half', 0.46],
    ['just past noon', 0.54],
    ['almost full', 0.96],
    ['three quarters', 0.75],
    ['two thirds', 2 / 3],
    ['7', 0.7],
    ['7.5', 0.75],
    ['6 of 12', 0.5],
    ['30 %', 0.3],
    ['about 4', 0.4],
    ['full', 1],
    ['all the way down', 0],
  ])('%s', (words, turn) => expect(turnOf(words)).toBeCloseTo(turn, 6));
  test.each(['on', 'neck', '400 ms', "6 o'clock", '11', '120 %', 'sparkly', ''])('%s is no turn', (words) =>
    expect(turnOf(words)).toBeUndefined(),
  );
  test('what says a turn says a position; so does a switch and an amount with its unit', () => {
    for (const words of ['noon', 'on', 'bridge', '400 ms', '-3 dB', '11'])
      expect([words, isPosition(words)]).toEqual([words, true]);
    expect(isPosition('sparkly')).toBe(false);
  });
  test('two ways to say it are one position', () => {
    expect(samePosition('noon', "twelve o'clock")).toBe(true);
    expect(samePosition('7', "2 o'clock")).toBe(true);
    expect(samePosition('On', 'on')).toBe(true);
    expect(samePosition('7', 'on')).toBe(false);
    expect(samePosition(undefined, '7')).toBe(false);
  });
});

describe('a line of knobs', () => {
  test.each([
    ["gain 2 o'clock, tone noon, level 3", ["gain: 2 o'clock", 'tone: noon', 'level: 3']],
    ["gain two o'clock tone noon level three", ["gain: two o'clock", 'tone: noon', 'level: three']],
    ['gain: 2, tone = 5; level at 7', ['gain: 2', 'tone: 5', 'level: 7']],
    ['bass cut on, bright switch off', ['bass cut: on', 'bright switch: off']],
    ['volume 7, pickup neck and middle', ['volume: 7', 'pickup: neck and middle']],
    ['capo 2, slide', ['capo: 2', 'slide: on']],
    ["low 2 o'clock high noon", ["low: 2 o'clock", 'high: noon']],
    ['time 400 ms, mix 30 %', ['time: 400 ms', 'mix: 30 %']],
    ['master volume just under half and presence set to 4', ['master volume: just under half', 'presence: 4']],
    ['boost on 3', ['boost: 3']],
    ["time 9:30, repeats between 1 and 2 o'clock", ['time: 9:30', "repeats: between 1 and 2 o'clock"]],
    ['', []],
  ])('%s', (line, stands) => {
    expect(said(line)).toEqual(stands);
    expect(readDials(line).unclear).toEqual([]);
  });
  test('what nobody understands is kept and said', () => {
    expect(readDials('tone sparkly, gain 3')).toEqual({
      stands: [
        { knob: 'tone', at: 'sparkly' },
        { knob: 'gain', at: '3' },
      ],
      unclear: ['“sparkly” is kept as it is, but how far it is turned is not known.'],
    });
    expect(readDials('gain 3, noon').unclear).toEqual([
      '“noon” says a position, and not of which knob (before it stands gain).',
    ]);
    expect(readDials('gain 3, gain 5')).toEqual({
      stands: [{ knob: 'gain', at: '5' }],
      unclear: ['gain is said twice; “5” counts, not “3”.'],
    });
  });
  test('the line that it says again is understood as the same', () => {
    const knob = fc.constantFrom('gain', 'tone', 'bass cut', 'master volume', 'mix', 'low', 'high');
    const at = fc.constantFrom(
      "2 o'clock",
      'noon',
      '7',
      'on',
      'off',
      'just under half',
      '400 ms',
      'neck and bridge',
      '30 %',
    );
    fc.assert(
      fc.property(fc.uniqueArray(fc.record({ knob, at }), { selector: (s) => s.knob }), (stands) => {
        expect(readDials(dialLine(stands))).toEqual({ stands, unclear: [] });
      }),
    );
  });
  test('whatever is typed, nothing throws and no word is lost', () => {
    const words = fc.array(
      fc.constantFrom('gain', 'at', 'noon', '3', 'on', 'and', ',', 'sparkly', "o'clock", '2', '=', 'to'),
      {
        maxLength: 12,
      },
    );
    fc.assert(
      fc.property(words, (list) => {
        const { stands, unclear } = readDials(list.join(' '));
        const kept = [...stands.flatMap((s) => [s.knob, s.at]), ...unclear].join(' ');
        for (const word of list)
          if (['gain', 'noon', 'sparkly'].includes(word)) expect([list, kept.includes(word)]).toEqual([list, true]);
      }),
    );
  });
});
