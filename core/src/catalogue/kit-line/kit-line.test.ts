import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { collectedIn, judge, sayingsIn, type Judged, type Saying } from '../../../testing/kit-sayings.js';
import { CATALOGUE } from '../boxes.js';
import { FAMILIES } from './families.js';
import { understand, type Heard } from './kit-line.js';
import { isKnownWord, phraseAt } from './phrases.js';
import { FILLERS, listOf, QUALITIES } from './words.js';
import { isWord, tokensOf } from './words-of.js';

const reference = (file: string): string => readFileSync(join(__dirname, '../../../testing/reference', file), 'utf8');
const CORPORA = [
  ['collected and judged apart from this program', collectedIn(reference('kit-line.json'))],
  ['written by the authors', sayingsIn(reference('kit-sayings.txt'))],
] as const;

const short = (h: Heard): string =>
  h.is === 'taken'
    ? `${h.count} ${h.box.key}${h.channel ? ` ch ${h.channel}` : ''}`
    : h.is === 'asked'
      ? `? ${h.candidates.map((c) => c.key).join(' ')}`
      : `- ${h.said}`;
const said = (line: string) => understand(line).heard.map(short);
const judgedAs = (sayings: readonly Saying[], as: Judged): readonly string[] =>
  sayings.filter((s) => judge(s, understand(s.say).heard) === as).map((s) => s.say);

describe.each(CORPORA)('how people say what they have, %s', (_, sayings) => {
  test('nothing is taken wrongly in silence', () => expect(judgedAs(sayings, 'taken wrongly')).toEqual([]));
  test('at least 95 of 100 are taken or asked about as a careful reader would', () =>
    expect(judgedAs(sayings, 'right').length).toBeGreaterThanOrEqual(0.95 * sayings.length));
  test('where the order of the signal is said it is kept, and said to be one', () => {
    const chains = sayings.filter((s) => s.isChain && s.boxes.every((b) => b.how === 'take') && s.boxes.length > 1);
    expect(chains.length).toBeGreaterThan(5);
    for (const { say, boxes } of chains) {
      const { heard } = understand(say);
      const keys = heard.flatMap((h) => (h.is === 'taken' ? [h.box.key] : []));
      expect([say, keys.map((key, i) => boxes[i]?.is.includes(key))]).toEqual([say, keys.map(() => true)]);
    }
    const told = chains.filter((s) => understand(s.say).isChain).length;
    expect(told).toBeGreaterThanOrEqual(0.9 * chains.length);
  });
});

describe('the words of the kit line', () => {
  test('each box of a family is on the shelves, and its qualities have words', () => {
    const keys = new Set(CATALOGUE.map((g) => g.key));
    const boxes = FAMILIES.flatMap((f) => f.boxes);
    expect(boxes.map(([key]) => key).filter((key) => !keys.has(key))).toEqual([]);
    const spoken = (q: string): boolean =>
      Object.hasOwn(QUALITIES, q.replace(/^no /, '')) || /^\d+(?:x\d+)? (?:\w+)$/.test(q);
    expect(boxes.flatMap(([, has]) => listOf(has ?? '')).filter((q) => !spoken(q))).toEqual([]);
  });
  test('no word that changes nothing has a meaning besides, by which it is never reached', () => {
    const dead = [...FILLERS].filter((word) => {
      const plain = tokensOf(word, isKnownWord).flatMap((t) => (isWord(t) ? [t.plain] : []));
      const found = phraseAt(plain, 0);
      return found?.length !== plain.length || found.means.some((m) => m.is !== 'filler');
    });
    expect(dead).toEqual([]);
  });
  test('no phrase stands for two families', () => {
    const phrases = FAMILIES.flatMap((f) => listOf(f.says));
    expect(phrases.filter((p, i) => phrases.indexOf(p) !== i)).toEqual([]);
  });
  test.each(CATALOGUE.map((g) => [g.key, g.says[0] ?? ''] as const))(
    '%s is found by its name in the lists: %s',
    (key, name) => {
      const [first, ...more] = understand(name).heard;
      expect(more.filter((h) => h.is === 'taken')).toEqual([]);
      const found =
        first?.is === 'taken' ? [first.box.key] : first?.is === 'asked' ? first.candidates.map((c) => c.key) : [];
      expect(found).toContain(key);
    },
  );
});

describe('a kit line', () => {
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
    ['compresor, revreb pedal, wahh', ['1 compressor', '1 spring-reverb', '1 wah']],
    ['guitar into wah into drive, then a two-channel head', ['1 single-coil', '1 wah', '1 low-drive', '1 valve-head']],
    ['reverb after the delay', ['1 analog-delay', '1 spring-reverb']],
    ['two amps', ['? valve-head combo-two-channel combo']],
    ['delay 1, delay 2', ['1 analog-delay', '1 analog-delay']],
    ['fuzz/wah', ['? fuzz wah']],
    ['24 wedges', ['? wedge']],
    ['wet/dry/wet', ['- wet/dry/wet']],
  ])('%s', (line, boxes) => expect(said(line)).toEqual(boxes));
  test('a channel that a box cannot hear is set aside, and so is one beyond 16', () => {
    expect(said('boost ch 3')).toEqual(['1 boost', '- ch 3']);
    expect(said('stereo delay ch 40')).toEqual(['1 stereo-delay', '- ch 40']);
  });
  test('the person’s own words are kept, without count and channel', () => {
    const names = understand('Rhythm: 2 old green drives. Lead: stereo delay midi ch 4').heard.map((h) =>
      h.is === 'refused' ? '' : h.name,
    );
    expect(names).toEqual(['Rhythm old green drives', 'Lead stereo delay']);
  });
  test('an empty line is nothing', () => expect(understand(' , \n;').heard).toEqual([]));
  test('whatever is said: it is read without a fault, within limits, and what is asked or set aside was said', () => {
    const words = fc.constantFrom(
      ...FAMILIES.flatMap((f) => listOf(f.says)),
      'with',
      'no',
      'and',
      ',',
      'ch 3',
      '2x12',
      'x2',
      '/',
      'maybe',
      'zz',
      'into',
      'stereo',
      ':',
      '\n',
      '"',
    );
    const spoken = fc.array(words, { maxLength: 14 }).map((w) => w.join(' '));
    fc.assert(
      fc.property(fc.oneof(fc.string({ maxLength: 300, unit: 'grapheme' }), spoken), (text) => {
        for (const h of understand(text).heard) {
          expect(text).toContain(h.said);
          if (h.is === 'refused') continue;
          expect(h.count).toBeGreaterThanOrEqual(1);
          expect(h.count).toBeLessThanOrEqual(20);
          if (h.is === 'asked') expect(h.candidates.length).toBeLessThanOrEqual(3);
          if (h.channel !== undefined) expect(h.channel).toBeLessThanOrEqual(16);
        }
      }),
      { numRuns: 400 },
    );
  });
  test('what follows a line does not change what was taken from it', () =>
    fc.assert(
      fc.property(fc.constantFrom(...FAMILIES.map((f) => listOf(f.says)[0] ?? '')), (phrase) => {
        expect(said(`${phrase}\ntuner`)).toEqual([...said(phrase), '1 tuner']);
      }),
    ));
});

describe('what is only there, behind the end of the way', () => {
  const apart = (line: string) =>
    understand(line).heard.flatMap((h) => (h.is === 'taken' ? [`${h.box.key}${h.isApart ? ' apart' : ''}`] : []));
  test('after a combo nothing is led on to but microphones and desks', () =>
    expect(apart('guitar → low-gain drive → chorus → combo, looper station, percussion pickup, desk')).toEqual([
      'single-coil',
      'low-drive',
      'chorus',
      'combo',
      'looper-station apart',
      'percussion apart',
      'desk apart',
    ]));
  test('cabinet, microphone and desk behind a head are the way', () =>
    expect(apart('guitar into wah into two-channel head, 2x12 cab, cabinet microphone, desk').join()).not.toContain(
      'apart',
    ));
  test('a computer is fed by nothing', () =>
    expect(apart('guitar → stereo delay → desk, laptop with a timeline')).toContain('timeline apart'));
  test('before anything is heard a comma goes on', () =>
    expect(apart('guitar → tuner, low-gain drive, stereo delay').join()).not.toContain('apart'));
  test('a list without arrows has no way and nothing apart', () =>
    expect(apart('guitar, combo, looper station').join()).not.toContain('apart'));
});

test.each([
  ['amp selector for three amps', 'abc-out'],
  ['amp switcher for 3 amps', 'abc-out'],
  ['amp switcher', 'ab-out'],
])('"%s" is %s', (said, key) =>
  expect(understand(said).heard.map((h) => (h.is === 'taken' ? h.box.key : h.is))).toEqual([key]),
);

describe('what stands behind a comma after "with"', () => {
  const heard = (line: string) =>
    understand(line).heard.map((h) => (h.is === 'taken' ? `${h.count} ${h.box.key}` : h.is));
  test.each([
    ['preamp with cab sim, 2 di', ['asked', '2 di']],
    ['preamp with cab sim, di', ['asked', '1 di']],
    ['head with loop, 2 cabinets', ['1 valve-head', '2 cab-212']],
    ['modeller with cab sim, tuner', ['1 modeller', '1 tuner']],
    ['volume pedal with tuner out, tuner', ['1 volume', '1 tuner']],
    ['switcher with tuner out, tuner', ['1 switcher-8-two-ins', '1 tuner']],
  ])('%s: is the next thing on the list, not one more quality', (line, is) => expect(heard(line)).toEqual(is));
});
