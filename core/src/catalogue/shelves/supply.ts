import type { Figures, Jack } from '../../rig/device.js';
import { chain, mains, plain, type Generic } from '../parts.js';

const output = (id: string, milliamps: number, more: Partial<NonNullable<Jack['supply']>> = {}): Jack => ({
  id,
  kind: 'power',
  connector: 'barrel',
  poles: { tip: 'out' },
  supply: { volts: [9], milliamps, centre: 'negative', isolated: true, ...more },
});
const outputs = (
  n: number,
  milliamps: (i: number) => number,
  more: Partial<NonNullable<Jack['supply']>> = {},
): readonly Jack[] => Array.from({ length: n }, (_, i) => output(`out${i + 1}`, milliamps(i), more));

/** A supply as wide as its outputs need; 90 mm deep and low enough to hang under a board (assumed). */
const sized = (width: number, kg: number): Figures => ({ origin: 'assumed', mm: [width, 90, 45], kg });

const battery = (key: string, says: readonly string[], code: string, jacks: readonly Jack[], mAh: number): Generic =>
  plain(key, says, code, 'supply', jacks, [], undefined, {
    origin: 'assumed',
    kg: mAh > 1000 ? 0.6 : 0.05,
    battery: { mAh, volts: 9 },
  });

export const supplyOf = (key: string, says: readonly string[], n: number): Generic =>
  plain(key, says, 'SUP', 'supply', [...outputs(n, () => 250), mains], []);

/** What feeds the boxes. Mains work follows local electrical codes and belongs to licensed hands. */
export const SUPPLIES: readonly Generic[] = [
  plain(
    'supply',
    ['Ten-output supply', 'power supply', 'supply'],
    'SUP',
    'supply',
    outputs(10, (i) => (i < 8 ? 100 : 500)),
    [],
    undefined,
    sized(200, 0.9),
  ),
  plain(
    'supply-8',
    ['Eight-output supply', '8-output supply'],
    'SU8',
    'supply',
    [...outputs(8, () => 250), mains],
    [],
    undefined,
    sized(165, 0.7),
  ),
  plain(
    'supply-5',
    ['Five-output supply', 'small supply'],
    'SU5',
    'supply',
    [...outputs(5, () => 500), mains],
    [],
    undefined,
    sized(120, 0.5),
  ),
  plain(
    'supply-high-current',
    ['High-current supply', 'supply for digital boxes'],
    'SUH',
    'supply',
    [...outputs(4, () => 660, { volts: [9, 12, 18] }), mains],
    [],
    undefined,
    sized(120, 0.6),
  ),
  plain(
    'daisy-chain',
    ['Daisy chain', 'daisy-chain supply', 'one adaptor for all'],
    'DSY',
    'supply',
    [...outputs(6, () => 1700, { isolated: false }), mains],
    [],
    undefined,
    { origin: 'assumed', givesWatts: 15.3 },
  ),
  plain('adaptor', ['Mains adaptor', 'wall wart', 'single adaptor'], 'ADA', 'supply', [output('out', 500), mains], []),
  plain(
    'adaptor-ac',
    ['AC adaptor', 'nine volt ac'],
    'AAC',
    'supply',
    [output('out', 1000, { centre: 'ac' }), mains],
    [],
  ),
  plain(
    'daisy-lead',
    ['Lead that feeds several boxes from one supply output', 'daisy lead', 'daisy-chain lead', 'supply splitter lead'],
    'DSL',
    'supply',
    [
      { ...output('in', 1000), poles: { tip: 'in' as const } },
      ...Array.from({ length: 5 }, (_, i) => output(`out${i + 1}`, 1000, { isolated: false })),
    ],
    Array.from({ length: 5 }, (_, i) => chain(`to ${i + 1}`, 'in', [], `out${i + 1}`, { passive: true })),
  ),
  plain(
    'bridging-lead-3',
    ['Lead that bridges three supply outputs for current', 'current tripler'],
    'BR3',
    'supply',
    [0, 1, 2].map((i): Jack => ({ ...output(`in${i + 1}`, 500), poles: { tip: 'in' } })).concat(output('out', 1500)),
    [
      {
        id: 'adds',
        from: [{ at: 'in1' }, { at: 'in2' }, { at: 'in3' }],
        slots: [],
        to: [{ at: 'out' }],
        adds: 'current',
      },
    ],
  ),
  plain(
    'bridging-lead',
    ['Lead that bridges two supply outputs for current', 'current doubler', 'bridging lead'],
    'BRC',
    'supply',
    [0, 1].map((i): Jack => ({ ...output(`in${i + 1}`, 500), poles: { tip: 'in' } })).concat(output('out', 1000)),
    [{ id: 'adds', from: [{ at: 'in1' }, { at: 'in2' }], slots: [], to: [{ at: 'out' }], adds: 'current' }],
  ),
  plain(
    'doubling-lead',
    ['Lead that adds two supply outputs for voltage', 'voltage doubler', '18 volt lead'],
    'BRV',
    'supply',
    [0, 1]
      .map((i): Jack => ({ ...output(`in${i + 1}`, 500), poles: { tip: 'in' } }))
      .concat(output('out', 500, { volts: [18] })),
    [{ id: 'adds', from: [{ at: 'in1' }, { at: 'in2' }], slots: [], to: [{ at: 'out' }], adds: 'volts' }],
  ),
  battery('battery', ['Nine-volt battery', 'battery', '9v battery'], 'BAT', [output('out', 500)], 500),
  battery(
    'battery-bank',
    ['Battery bank', 'rechargeable supply', 'power bank'],
    'BNK',
    [...outputs(4, () => 500)],
    5000,
  ),
  plain(
    'mains-strip',
    ['Mains strip', 'power strip', 'distribution board'],
    'STP',
    'supply',
    [
      mains,
      ...Array.from({ length: 6 }, (_, i): Jack => ({
        id: `socket${i + 1}`,
        kind: 'mains',
        connector: 'mains',
        poles: { tip: 'out' },
      })),
    ],
    [],
  ),
];
