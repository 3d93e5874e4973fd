import type { Chain, Fork, Jack } from '../../rig/device.js';
import {
  amount,
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  plain,
  power,
  speakerIn,
  speakerOut,
  xlrIn,
  xlrOut,
  type Generic,
} from '../parts.js';

const passive = (from: string, to: string): Chain => chain(`${from} to ${to}`, from, [], to, { passive: true });

/** Two arms that are inserts: low frequencies through the one, high ones through the other. */
const byFrequency: Generic = {
  key: 'splitter-frequency',
  says: ['Frequency splitter', 'crossover', 'splitter by frequency', 'bass splitter'],
  box: {
    code: 'XOV',
    name: 'Frequency splitter',
    zone: 'floor',
    jacks: [
      audioIn('in'),
      audioOut('low-send'),
      audioIn('low-return'),
      audioOut('high-send'),
      audioIn('high-return'),
      audioOut('out'),
      power(60),
    ],
    chains: [
      chain(
        'path',
        'in',
        [
          {
            is: 'fork',
            id: 'split',
            crossoverHz: 'crossover',
            arms: (['low', 'high'] as const).map((band) => ({
              id: band,
              band,
              slots: [
                {
                  is: 'insert',
                  id: band,
                  send: [{ at: `${band}-send` }],
                  return: [{ at: `${band}-return` }],
                  unpatched: 'through',
                  breaks: 'either',
                },
              ],
              ...(band === 'high' ? { polarity: { invertedWhen: [{ control: 'polarity', in: ['inverted'] }] } } : {}),
            })),
          } satisfies Fork,
        ],
        'out',
      ),
    ],
    controls: [
      amount('crossover', 80, 1200, 'Hz', { use: 'setting' }),
      amount('mix', 0, 100, '%', { use: 'setting' }),
      choice('polarity', ['normal', 'inverted'], { use: 'setting' }),
    ],
    actuators: [],
    memories: [],
    figures: { origin: 'assumed', mm: [120, 120, 55], kg: 0.6 },
  },
};

const splitter = (key: string, says: readonly string[], code: string, outs: number, isolated: boolean): Generic =>
  plain(
    key,
    says,
    code,
    'floor',
    [
      audioIn('in'),
      ...Array.from({ length: outs }, (_, i) => audioOut(`out${i + 1}`)),
      ...(isolated ? [power(30)] : []),
    ],
    isolated
      ? [
          {
            id: 'split',
            from: [{ at: 'in' }],
            slots: [block('buffer', 'buffer')],
            to: [{ at: 'out1' }, { at: '#second' }],
          },
          chain('isolated', '#second', [block('transformer', 'isolator')], 'out2'),
        ]
      : [
          {
            id: 'split',
            from: [{ at: 'in' }],
            slots: [block('buffer', 'buffer')],
            to: Array.from({ length: outs }, (_, i) => ({ at: `out${i + 1}` })),
          },
        ],
  );

const trs = (id: string, poles: Jack['poles']): Jack => ({
  id,
  kind: 'audio',
  connector: '6.35 TRS',
  poles,
  level: 'instrument',
});

const multicore = (
  key: string,
  says: readonly string[],
  code: string,
  ways: number,
  supplies: number,
  xlr = false,
): Generic => {
  const [into, out] = xlr ? [xlrIn, xlrOut] : [audioIn, audioOut];
  const supplyJack = (id: string, tip: 'in' | 'out'): Jack => ({
    id,
    kind: 'power',
    connector: 'barrel',
    poles: { tip },
    supply: { volts: [9], milliamps: 500, centre: 'negative' },
  });
  return plain(
    key,
    says,
    code,
    'floor',
    [
      ...Array.from({ length: ways }, (_, i) => [into(`in${i + 1}`, { phantom: false }), out(`out${i + 1}`)]).flat(),
      ...Array.from({ length: supplies }, (_, i) => [
        supplyJack(`supply-in${i + 1}`, 'in'),
        supplyJack(`supply-out${i + 1}`, 'out'),
      ]).flat(),
    ],
    [
      ...Array.from({ length: ways }, (_, i) => passive(`in${i + 1}`, `out${i + 1}`)),
      ...Array.from({ length: supplies }, (_, i) => passive(`supply-in${i + 1}`, `supply-out${i + 1}`)),
    ],
    undefined,
    { origin: 'assumed', kg: 1.5 },
  );
};

/** Splits, joins and special leads: a cable has two ends, so what has more is a box. */
export const LEADS: readonly Generic[] = [
  splitter('splitter', ['Splitter', 'buffered splitter', 'y splitter'], 'SPL', 2, false),
  splitter('splitter-4', ['Four-way splitter', 'buffered splitter with four outputs'], 'SP4', 4, false),
  splitter(
    'splitter-transformer',
    ['Splitter with an isolated output', 'transformer splitter', 'isolated splitter'],
    'SPT',
    2,
    true,
  ),
  byFrequency,
  plain(
    'y-split',
    ['Y lead', 'plain y lead', 'passive y', 'y cable'],
    'YSP',
    'floor',
    [audioIn('in'), audioOut('out1'), audioOut('out2')],
    [passive('in', 'out1'), passive('in', 'out2')],
  ),
  plain(
    'y-join',
    ['Y lead that joins two outputs', 'joining y lead'],
    'YJN',
    'floor',
    [audioIn('in1'), audioIn('in2'), audioOut('out')],
    [passive('in1', 'out'), passive('in2', 'out')],
  ),
  plain(
    'insert-lead',
    ['Insert lead', 'insert cable', 'trs to two ts'],
    'INS',
    'floor',
    [trs('trs', { tip: 'in', ring: 'out' }), audioOut('tip'), audioIn('ring')],
    [passive('trs', 'tip'), passive('ring', 'trs:ring')],
  ),
  plain(
    'stereo-lead',
    ['Stereo lead', 'stereo y lead', 'trs to left and right'],
    'STL',
    'floor',
    [trs('trs', { tip: 'in', ring: 'in' }), audioOut('left'), audioOut('right')],
    [passive('trs', 'left'), passive('trs:ring', 'right')],
  ),
  plain(
    'speaker-parallel',
    ['Speaker parallel box', 'speaker splitter', 'two cabinets in parallel'],
    'SPP',
    'amp',
    [{ ...speakerIn(), load: 'none' }, speakerOut('out1'), speakerOut('out2')],
    [passive('in', 'out1'), passive('in', 'out2')],
  ),
  multicore('jack-panel', ['Jack panel', 'patch panel', 'junction box', 'interface panel'], 'JPN', 4, 0),
  multicore('multicore', ['Multicore with supply ways', 'multicore', 'snake', 'loom'], 'MUL', 6, 2),
  multicore('xlr-multicore', ['XLR multicore', 'stage snake'], 'XML', 8, 0, true),
];
