import fc from 'fast-check';
import { Random } from '../../testing/random.js';
import { randomWiring } from '../../testing/random-wiring.js';
import type { Chain } from '../rig/device.js';
import { all } from '../rig/rig.js';
import { CATALOGUE } from './boxes.js';
import { insideText, readInside } from './inside.js';

const read = (text: string, olds: readonly Chain[] = []): readonly Chain[] => {
  const result = readInside(text, olds);
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const wrong = (text: string): string => {
  const result = readInside(text, []);
  return result.ok ? '' : result.error.map((e) => `${e.where}: ${e.wrong} ${e.would}`).join(' | ');
};

describe('there and back again', () => {
  test.each(CATALOGUE.map((g) => [g.key, g.box.chains] as const))('%s', (_, chains) =>
    expect(read(insideText(chains), chains)).toEqual(chains),
  );
  test('boxes such as nobody builds', () => {
    for (let seed = 0; seed < 200; seed += 1)
      for (const { chains } of all(randomWiring(new Random(seed)).rig, 'device'))
        expect(read(insideText(chains), chains)).toEqual(chains);
  });
});

describe('as it is typed', () => {
  test('a chain with a stage, an insert and a fork', () => {
    expect(
      read(
        'path: in > overdrive [on=on] > fx:<send / return> [fx=on] (broken, breaks=send) > ch:{ clean [channel=clean]: preamp | lead [channel=lead]: a:preamp > boost } > out-l@left + out-r@right',
      ),
    ).toEqual([
      {
        id: 'path',
        from: [{ at: 'in' }],
        to: [
          { at: 'out-l', leg: 'left' },
          { at: 'out-r', leg: 'right' },
        ],
        slots: [
          { is: 'block', id: 'overdrive', stage: 'overdrive', on: [{ control: 'on', in: ['on'] }] },
          {
            is: 'insert',
            id: 'fx',
            send: [{ at: 'send' }],
            return: [{ at: 'return' }],
            on: [{ control: 'fx', in: ['on'] }],
            unpatched: 'broken',
            breaks: 'send',
          },
          {
            is: 'fork',
            id: 'ch',
            arms: [
              {
                id: 'clean',
                when: [{ control: 'channel', in: ['clean'] }],
                slots: [{ is: 'block', id: 'preamp', stage: 'preamp' }],
              },
              {
                id: 'lead',
                when: [{ control: 'channel', in: ['lead'] }],
                slots: [
                  { is: 'block', id: 'a', stage: 'preamp' },
                  { is: 'block', id: 'boost', stage: 'boost' },
                ],
              },
            ],
          },
        ],
      },
    ]);
  });
  test('a normal, ranges, several values, poles', () => {
    expect(read('n: in-l [in-r unplugged, mix=0..50, mode=a/b, slot=#3] > out~ring')).toEqual([
      {
        id: 'n',
        slots: [],
        to: [{ at: 'out:ring' }],
        from: [
          {
            at: 'in-l',
            when: [
              { jack: 'in-r', plugged: false },
              { control: 'mix', from: 0, to: 50 },
              { control: 'mode', in: ['a', 'b'] },
              { control: 'slot', in: [3] },
            ],
          },
        ],
      },
    ]);
  });
  test('what a line does not say stays: gains, noise, bypass', () => {
    const old: Chain = {
      id: 'path',
      from: [{ at: 'in', gain: -6 }],
      slots: [{ is: 'block', id: 'eq', stage: 'eq', gain: 3, noiseDbu: -90, bypass: 'true' }],
      to: [{ at: 'out' }],
      unpowered: 'through',
    };
    expect(read('path: in > eq [on=on] > out', [old])).toEqual([
      { ...old, slots: [{ ...old.slots[0], on: [{ control: 'on', in: ['on'] }] }] },
    ]);
  });
});

describe('what cannot be read says where, what and what would do', () => {
  test.each([
    ['path in > out', /line 1, sign \d+: ":" is missing here\. A line reads name: jack > stages > jack\./],
    ['path: in > wobble > out', /line 1.*"wobble" is no stage\. Stages are tuner, wah/],
    ['path: in > fx:<send return> > out', /"\/" is missing here\. An insert reads name:<send \/ return>\./],
    ['path: in > f:{ a: eq > out', /line 1/],
    ['path: in > f:{ } > out', /The name of an arm is missing here\. A fork reads/],
    ['path: in@middle > out', /"middle" is no side\. Write @left or @right\./],
    ['path: in [loud] > out', /"loud" says nothing that can be asked/],
    ['path: in > eq (wide) > out', /"wide" is not known here\. Use mono, each, spread, sum\./],
    ['path: in > out out', /"out" is one too many here/],
    ['\n\npath: in > €', /line 3, sign/],
  ])('%s', (text, says) => expect(wrong(text)).toMatch(says));
  test.each(['"\\ "', 'path: in > "\\x" > out', 'path: in > eq["\\q"=on] > out', 'path: in > eq[on="\\"] > out', '"'])(
    'a quotation that is none: %s',
    (text) => {
      const result = readInside(text, []);
      expect(result.ok ? [] : result.error.every((e) => e.where && e.wrong && e.would)).toBe(true);
    },
  );
  test('any text at all is read or refused, never a fault', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ maxLength: 80 }),
          fc.string({ unit: fc.constantFrom('"', '\\', ' ', '[', ']', '=', '>', 'a', '#', '.', '~'), maxLength: 20 }),
          fc
            .array(
              fc.constantFrom(
                'in',
                'out',
                '>',
                '<',
                '/',
                '{',
                '}',
                '|',
                ':',
                '@left',
                '[a=b]',
                '(direct)',
                '+',
                'eq',
                'path:',
                '"x y"',
              ),
              { maxLength: 14 },
            )
            .map((a) => a.join(' ')),
        ),
        (text) => {
          const result = readInside(text, []);
          expect(result.ok || result.error.every((e) => e.where && e.wrong && e.would)).toBe(true);
        },
      ),
      { numRuns: 2000 },
    );
  });
});
