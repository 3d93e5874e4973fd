import {
  amount,
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  contactIn,
  foot,
  is,
  ON,
  onOff,
  pedal,
  plain,
  power,
  toggles,
  xlrOut,
  type Generic,
} from '../parts.js';
import type { Stage } from '../../rig/device.js';
import { theFirst } from '../../known/the.js';

/** Two drives in one box, each with its own switch; a remote jack switches the second. */
const dual = (key: string, says: readonly string[], code: string, first: Stage, second: Stage): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out'), contactIn('remote'), power(40)],
    chains: [
      chain(
        'path',
        'in',
        [
          block('first', first, { on: is('first', 'on'), bypass: 'true' }),
          block('second', second, { on: is('second', 'on'), bypass: 'true' }),
        ],
        'out',
      ),
    ],
    controls: [choice('first', ['off', 'on']), choice('second', ['off', 'on'])],
    actuators: [
      foot('left', toggles('first')),
      foot('right', toggles('second')),
      { id: 'remote closed', by: { contact: 'remote', level: 'closed' }, acts: [{ control: 'second', set: 'on' }] },
      { id: 'remote open', by: { contact: 'remote', level: 'open' }, acts: [{ control: 'second', set: 'off' }] },
    ],
    memories: [],
    figures: { origin: 'assumed', mm: [120, 120, 55], kg: 0.7 },
  },
});

/** One drive with an internal channel switch on a contact, as on an amp. */
const twoChannel: Generic = {
  key: 'two-channel-drive',
  says: ['Two-channel drive', 'drive with two channels', 'channel-switching drive'],
  box: {
    code: 'DR2',
    name: 'Two-channel drive',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out'), contactIn('channel-switch'), power(60)],
    chains: [
      chain(
        'path',
        'in',
        [
          {
            is: 'fork',
            id: 'channels',
            arms: ['low', 'high'].map((c) => ({
              id: c,
              when: is('channel', c),
              slots: [block(c, c === 'low' ? 'overdrive' : 'distortion', { on: ON })],
            })),
          },
        ],
        'out',
      ),
    ],
    controls: [onOff(), choice('channel', ['low', 'high'])],
    actuators: [
      foot('switch', toggles('on')),
      foot('channel', { control: 'channel', toggle: ['low', 'high'] }),
      {
        id: 'contact',
        by: { contact: 'channel-switch', edge: 'closing' },
        acts: [{ control: 'channel', toggle: ['low', 'high'] }],
      },
    ],
    memories: [],
    figures: { origin: 'assumed', mm: [120, 120, 55], kg: 0.7 },
  },
};

const gateKeyed: Generic = {
  ...pedal({
    key: 'gate-keyed',
    says: ['Gate with a key input', 'keyed gate', 'gate with side chain'],
    code: 'GTK',
    stage: 'gate',
    block: { key: 'key' },
  }),
};
const gateFourJack: Generic = {
  key: 'gate-four-jack',
  says: ['Four-jack gate', 'gate with a loop', 'gate with send and return'],
  box: {
    code: 'GT4',
    name: 'Four-jack gate',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('send'), audioIn('return'), audioOut('out'), power(40)],
    chains: [
      chain('detector', 'in', [block('detector', 'buffer')], 'send'),
      chain('gate', 'return', [block('gate', 'gate', { on: ON, key: 'in', bypass: 'buffered' })], 'out'),
    ],
    controls: [onOff()],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { origin: 'assumed', mm: [70, 120, 55], kg: 0.4 },
  },
};

const preampWithLoop: Generic = {
  key: 'preamp-loop',
  says: ['Preamp with a loop and cabinet simulation on the XLR', 'preamp with effects loop', 'preamp with loop'],
  box: {
    code: 'PLP',
    name: 'Preamp with a loop and cabinet simulation on the XLR',
    zone: 'floor',
    jacks: [
      audioIn('in'),
      audioOut('send', { level: 'line' }),
      audioIn('return', { level: 'line' }),
      audioOut('out', { level: 'line' }),
      xlrOut('xlr'),
      power(250),
    ],
    chains: [
      chain(
        'preamp',
        'in',
        [
          block('preamp', 'preamp', { on: ON }),
          { is: 'insert', id: 'loop', send: [{ at: 'send' }], return: [{ at: 'return' }], unpatched: 'through' },
        ],
        '#post',
      ),
      chain('plain', '#post', [], 'out'),
      chain('direct', '#post', [block('cabinet', 'cabinet simulation')], 'xlr'),
    ],
    controls: [onOff()],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { origin: 'assumed', mm: [150, 130, 60], kg: 1 },
  },
};

/** Two channels of which one sounds, then a loop; a foot or a contact chooses the channel. */
const twoChannelPreamp: Generic = {
  key: 'preamp-two-channel',
  says: ['Preamp pedal with two channels and a loop', 'two-channel preamp', 'two-channel preamp pedal'],
  box: {
    code: 'PR2',
    name: 'Preamp pedal with two channels and a loop',
    zone: 'floor',
    jacks: [
      audioIn('in'),
      audioOut('send', { level: 'line' }),
      audioIn('return', { level: 'line' }),
      audioOut('out', { level: 'line' }),
      contactIn('channel-switch'),
      power(250),
    ],
    chains: [
      chain(
        'preamp',
        'in',
        [
          {
            is: 'fork',
            id: 'channels',
            arms: ['clean', 'lead'].map((c) => ({
              id: c,
              when: is('channel', c),
              slots: [block(c, 'preamp', { on: ON })],
            })),
          },
          { is: 'insert', id: 'loop', send: [{ at: 'send' }], return: [{ at: 'return' }], unpatched: 'through' },
        ],
        'out',
      ),
    ],
    controls: [onOff(), choice('channel', ['clean', 'lead'])],
    actuators: [
      foot('switch', toggles('on')),
      {
        id: 'channel',
        by: { foot: 'channel', gesture: 'press' },
        when: [{ jack: 'channel-switch', plugged: false }],
        acts: [{ control: 'channel', toggle: ['clean', 'lead'] }],
      },
      {
        id: 'contact open',
        by: { contact: 'channel-switch', level: 'open' },
        acts: [{ control: 'channel', set: 'clean' }],
      },
      {
        id: 'contact closed',
        by: { contact: 'channel-switch', level: 'closed' },
        acts: [{ control: 'channel', set: 'lead' }],
      },
    ],
    memories: [],
    figures: { origin: 'assumed', mm: [170, 130, 60], kg: 1.1 },
  },
};

/** A preamp whose XLR carries a cabinet simulation while its other output does not. */
const preampDi = (key: string, says: readonly string[], code: string, cabOn: 'always' | 'switch'): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out'), xlrOut('xlr'), power(120)],
    chains: [
      chain('preamp', 'in', [block('preamp', 'preamp', { on: ON })], '#pre'),
      chain('plain', '#pre', [], 'out'),
      chain(
        'direct',
        '#pre',
        [block('cabinet', 'cabinet simulation', cabOn === 'switch' ? { on: is('cabinet', 'on') } : {})],
        'xlr',
      ),
    ],
    controls: [onOff(), ...(cabOn === 'switch' ? [choice('cabinet', ['on', 'off'], { use: 'setting' })] : [])],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { origin: 'assumed', kg: 0.7 },
  },
});

/** A preamp with its cabinet simulation on both outputs. */
const preampCab: Generic = {
  key: 'preamp-cab',
  says: ['Preamp with cabinet simulation on every output', 'preamp and cabinet in one', 'direct preamp'],
  box: {
    code: 'PCB',
    name: 'Preamp with cabinet simulation on every output',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out', { level: 'line' }), xlrOut('xlr'), power(200)],
    chains: [
      {
        id: 'preamp',
        from: [{ at: 'in' }],
        slots: [block('preamp', 'preamp', { on: ON }), block('cabinet', 'cabinet simulation')],
        to: [{ at: 'out' }, { at: 'xlr' }],
      },
    ],
    controls: [onOff()],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { origin: 'assumed', mm: [120, 120, 55], kg: 0.7 },
  },
};

/** The clean signal goes on beside the driven one. */
const bassDrive: Generic = {
  key: 'bass-drive',
  says: ['Bass drive with a clean blend', 'bass overdrive', 'bass drive', 'blend drive'],
  box: {
    code: 'BDR',
    name: 'Bass drive with a clean blend',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out'), power(30)],
    chains: [
      chain(
        'path',
        'in',
        [
          {
            is: 'fork',
            id: 'blend',
            arms: [
              { id: 'clean', slots: [] },
              { id: 'driven', when: ON, slots: [block('drive', 'overdrive')] },
            ],
          },
        ],
        'out',
      ),
    ],
    controls: [onOff(), amount('mix', 0, 100, '%', { use: 'setting' })],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { origin: 'assumed', mm: [70, 120, 55], kg: 0.4 },
  },
};

const LOW_INPUT = { inputOhm: 10_000 };

/** Dynamics, gain and what belongs in front of an amp. */
export const GAIN: readonly Generic[] = [
  pedal({ key: 'compressor', says: ['Compressor', 'comp'], code: 'CMP', stage: 'compressor' }),
  pedal({
    key: 'bass-compressor',
    says: ['Bass compressor', 'multiband compressor'],
    code: 'BCP',
    stage: 'compressor',
    milliamps: 60,
  }),
  pedal({ key: 'limiter', says: ['Limiter'], code: 'LIM', stage: 'compressor' }),
  pedal({
    key: 'low-drive',
    says: ['Low-gain drive', 'low gain drive', 'low drive', 'overdrive', 'drive', 'od'],
    code: 'LOW',
    stage: 'overdrive',
    block: { gain: 14 },
  }),
  pedal({
    key: 'high-drive',
    says: ['High-gain drive', 'high gain drive', 'high drive', 'second drive'],
    code: 'HIG',
    stage: 'overdrive',
    block: { gain: 28 },
  }),
  pedal({ key: 'distortion', says: ['Distortion', 'dist'], code: 'DST', stage: 'distortion' }),
  pedal({
    key: 'metal-distortion',
    says: ['High-gain distortion', 'metal distortion', 'heavy distortion'],
    code: 'HDS',
    stage: 'distortion',
    block: { gain: 40 },
    milliamps: 40,
  }),
  pedal({ key: 'fuzz', says: ['Fuzz', 'fuzz with low input impedance'], code: 'FUZ', stage: 'fuzz', block: LOW_INPUT }),
  pedal({
    key: 'buffered-fuzz',
    says: ['Fuzz with a buffered input', 'modern fuzz', 'silicon fuzz'],
    code: 'FZB',
    stage: 'fuzz',
  }),
  pedal({ key: 'octave-fuzz', says: ['Octave fuzz'], code: 'OFZ', stage: 'fuzz', block: LOW_INPUT }),
  pedal({ key: 'bass-fuzz', says: ['Bass fuzz'], code: 'BFZ', stage: 'fuzz' }),
  dual('dual-drive', ['Dual drive', 'two-in-one drive', 'double drive'], 'DDR', 'overdrive', 'overdrive'),
  dual('boost-drive', ['Drive with a boost', 'boost and drive', 'drive plus boost'], 'BOD', 'boost', 'overdrive'),
  dual(
    'dual-compressor',
    ['Dual compressor', 'two compressors in one', 'double compressor'],
    'DCP',
    'compressor',
    'compressor',
  ),
  twoChannel,
  bassDrive,
  pedal({ key: 'boost', says: ['Boost', 'clean boost', 'booster'], code: 'BST', stage: 'boost' }),
  pedal({
    key: 'treble-boost',
    says: ['Treble booster', 'treble boost'],
    code: 'TBS',
    stage: 'boost',
    block: LOW_INPUT,
  }),
  pedal({ key: 'wah', says: ['Wah', 'wah pedal'], code: 'WAH', stage: 'wah' }),
  pedal({ key: 'filter', says: ['Envelope filter', 'auto wah', 'filter'], code: 'FLT', stage: 'filter' }),
  pedal({ key: 'eq', says: ['EQ', 'equaliser', 'equalizer', 'graphic eq'], code: 'EQ', stage: 'eq' }),
  pedal({
    key: 'parametric-eq',
    says: ['Parametric EQ', 'parametric equaliser', 'bass eq'],
    code: 'PEQ',
    stage: 'eq',
    milliamps: 50,
  }),
  pedal({ key: 'enhancer', says: ['Enhancer'], code: 'ENH', stage: 'enhancer', milliamps: 60 }),
  pedal({ key: 'gate', says: ['Gate', 'noise gate', 'noise suppressor'], code: 'GAT', stage: 'gate' }),
  { ...gateKeyed, box: { ...gateKeyed.box, jacks: [...gateKeyed.box.jacks, audioIn('key')] } },
  gateFourJack,
  pedal({ key: 'octave', says: ['Octave', 'octaver', 'octave down'], code: 'OCT', stage: 'octave' }),
  pedal({
    key: 'octave-up',
    says: ['Octave up', 'upper octave', 'polyphonic octave'],
    code: 'OCU',
    stage: 'octave',
    milliamps: 100,
  }),
  pedal({ key: 'pitch', says: ['Pitch shifter', 'pitch', 'harmoniser'], code: 'PIT', stage: 'pitch', milliamps: 200 }),
  pedal({
    key: 'pitch-pedal',
    says: ['Pitch pedal', 'pitch bend pedal', 'foot pitch'],
    code: 'PIP',
    stage: 'pitch',
    milliamps: 250,
  }),
  pedal({
    key: 'synth-pedal',
    says: ['Synthesizer pedal', 'guitar synth', 'bass synth'],
    code: 'SYN',
    stage: 'filter',
    milliamps: 150,
  }),
  pedal({ key: 'acoustic-sim', says: ['Acoustic simulator'], code: 'ASM', stage: 'eq' }),
  pedal({ key: 'preamp-pedal', says: ['Preamp pedal', 'preamp'], code: 'PRE', stage: 'preamp', milliamps: 100 }),
  pedal({
    key: 'valve-preamp',
    says: ['Valve preamp pedal', 'tube preamp', 'valve preamp'],
    code: 'VPR',
    stage: 'preamp',
    milliamps: 350,
  }),
  pedal({
    key: 'acoustic-preamp',
    says: ['Acoustic preamp', 'preamp for acoustic'],
    code: 'APR',
    stage: 'preamp',
    milliamps: 60,
  }),
  preampDi(
    'preamp-di',
    ['Preamp with cabinet simulation', 'amp-less preamp', 'preamp di', 'cab sim preamp'],
    'PDI',
    'always',
  ),
  preampDi('bass-preamp-di', ['Bass preamp with DI', 'bass preamp', 'bass di preamp'], 'BPD', 'switch'),
  preampWithLoop,
  twoChannelPreamp,
  preampCab,
  plain(
    'buffer',
    ['Buffer', 'line buffer'],
    'BUF',
    'floor',
    [audioIn('in'), audioOut('out', { ohm: 100 }), power(10)],
    [chain('path', 'in', [block('buffer', 'buffer')], 'out')],
  ),
];
