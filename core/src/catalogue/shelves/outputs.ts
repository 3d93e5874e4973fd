import type { Jack } from '../../rig/device.js';
import {
  audioIn,
  audioOut,
  block,
  chain,
  lineIn,
  lineOut,
  mains,
  plain,
  power,
  usb,
  xlrIn,
  xlrOut,
  type Generic,
  PACK,
} from '../parts.js';

export const desk = (key: string, says: readonly string[], channels: number): Generic => {
  const names = Array.from({ length: channels }, (_, i) => `ch${i + 1}`);
  return plain(
    key,
    says,
    'FOH',
    'outputs',
    names.map((id) => xlrIn(id)),
    [{ id: 'mix', from: names.map((at) => ({ at })), slots: [], to: [{ at: '#house' }] }],
    [{ at: '#house', is: 'house', name: 'Front of house' }],
  );
};

const mixer = (key: string, says: readonly string[], code: string, inputs: readonly Jack[], legs: boolean): Generic =>
  plain(
    key,
    says,
    code,
    'floor',
    [...inputs, lineOut('out-l'), lineOut('out-r'), power(100)],
    [
      {
        id: 'mix',
        from: inputs.map((j) => ({
          at: j.id,
          ...(legs ? { leg: j.id.endsWith('-r') ? ('right' as const) : ('left' as const) } : {}),
        })),
        slots: [],
        to: [
          { at: 'out-l', leg: 'left', when: [{ jack: 'out-r', plugged: true }] },
          { at: 'out-r', leg: 'right' },
          { at: 'out-l', when: [{ jack: 'out-r', plugged: false }] },
        ],
      },
    ],
  );

const di = (key: string, says: readonly string[], code: string, more: readonly Jack[]): Generic =>
  plain(
    key,
    says,
    code,
    'outputs',
    [audioIn('in'), audioOut('thru'), xlrOut('out'), ...more],
    [chain('direct', 'in', [block('di', 'DI')], 'out'), chain('through', 'in', [], 'thru', { passive: true })],
  );

/** Where it is heard, and what carries it there. */
export const OUTPUTS: readonly Generic[] = [
  desk('desk', ['Mixing desk', 'desk', 'mixer', 'front of house', 'foh', 'pa'], 4),
  desk('desk-16', ['Large mixing desk', '16-channel desk', 'large desk'], 16),
  plain(
    'stage-box',
    ['Stage box', 'stagebox'],
    'STB',
    'outputs',
    Array.from({ length: 8 }, (_, i) => [xlrIn(`in${i + 1}`), xlrOut(`out${i + 1}`)]).flat(),
    Array.from({ length: 8 }, (_, i) => chain(`way${i + 1}`, `in${i + 1}`, [], `out${i + 1}`, { passive: true })),
  ),
  plain(
    'wedge',
    ['Wedge', 'floor monitor', 'stage monitor'],
    'WDG',
    'outputs',
    [xlrIn('in', { level: 'line', phantom: false }), mains],
    [chain('path', 'in', [block('power', 'power amp')], '#wedge')],
    [{ at: '#wedge', is: 'player', name: 'Wedge' }],
    { origin: 'assumed', kg: 14, mainsEarth: true },
  ),
  plain(
    'in-ears',
    ['In-ear sender', 'in-ears', 'iem', 'in ear monitors'],
    'IEM',
    'outputs',
    [
      lineIn('in-l', { connector: 'combo', balanced: true }),
      lineIn('in-r', { connector: 'combo', balanced: true }),
      mains,
    ],
    [
      {
        id: 'path',
        from: [
          { at: 'in-l', leg: 'left' },
          { at: 'in-r', leg: 'right' },
        ],
        slots: [block('sender', 'wireless', { width: 'each', ms: 1 })],
        to: [{ at: '#ears' }],
      },
    ],
    [{ at: '#ears', is: 'player', name: 'In-ears' }],
    PACK,
  ),
  plain(
    'headphones',
    ['Headphone amp', 'headphones', 'phones'],
    'PHN',
    'outputs',
    [lineIn('in-l'), lineIn('in-r'), power(50)],
    [
      {
        id: 'path',
        from: [
          { at: 'in-l', leg: 'left' },
          { at: 'in-r', leg: 'right' },
        ],
        slots: [],
        to: [{ at: '#phones' }],
      },
    ],
    [{ at: '#phones', is: 'player', name: 'Headphones' }],
  ),
  plain(
    'recorder',
    ['Audio interface', 'recorder', 'recording interface', 'sound card'],
    'REC',
    'outputs',
    [xlrIn('in1', { connector: 'combo' }), xlrIn('in2', { connector: 'combo' }), usb()],
    [{ id: 'path', from: [{ at: 'in1' }, { at: 'in2' }], slots: [], to: [{ at: '#disk' }] }],
    [{ at: '#disk', is: 'recorder', name: 'Recording' }],
  ),
  di('di', ['DI box', 'direct box', 'di', 'passive di'], 'DI', []),
  di('di-active', ['Active DI box', 'active di'], 'DIA', [power(20)]),
  plain(
    'di-stereo',
    ['Stereo DI box', 'stereo di', 'dual di'],
    'DI2',
    'outputs',
    [audioIn('in-l'), audioIn('in-r'), audioOut('thru-l'), audioOut('thru-r'), xlrOut('out-l'), xlrOut('out-r')],
    [
      chain('left', 'in-l', [block('left', 'DI')], 'out-l'),
      chain('right', 'in-r', [block('right', 'DI')], 'out-r'),
      chain('through-l', 'in-l', [], 'thru-l', { passive: true }),
      chain('through-r', 'in-r', [], 'thru-r', { passive: true }),
    ],
  ),
  plain(
    'reamp',
    ['Reamp box', 'reamping box'],
    'RMP',
    'floor',
    [xlrIn('in', { level: 'line', phantom: false }), audioOut('out')],
    [chain('path', 'in', [block('transformer', 'isolator')], 'out')],
  ),
  plain(
    'isolator',
    ['Isolator', 'hum isolator', 'isolation transformer for signal'],
    'ISO',
    'floor',
    [audioIn('in'), audioOut('out')],
    [chain('path', 'in', [block('transformer', 'isolator')], 'out')],
  ),
  plain(
    'isolator-stereo',
    ['Stereo isolator', 'stereo hum isolator'],
    'IS2',
    'floor',
    [audioIn('in-l'), audioIn('in-r'), audioOut('out-l'), audioOut('out-r')],
    [
      chain('left', 'in-l', [block('left', 'isolator')], 'out-l'),
      chain('right', 'in-r', [block('right', 'isolator')], 'out-r'),
    ],
  ),
  mixer(
    'mixer-4',
    ['Four-channel line mixer', 'line mixer', 'small mixer', 'summing mixer'],
    'MIX',
    [lineIn('in1'), lineIn('in2'), lineIn('in3'), lineIn('in4')],
    false,
  ),
  mixer(
    'mixer-stereo',
    ['Stereo line mixer', 'stereo mixer'],
    'MXS',
    [lineIn('in1-l'), lineIn('in1-r'), lineIn('in2-l'), lineIn('in2-r')],
    true,
  ),
];
