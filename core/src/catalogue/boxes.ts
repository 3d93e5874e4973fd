import type { End, Jack } from '../rig/device.js';
import { amount, audioIn, audioOut, chain, choice, contactIn, contactOut, controllerFloor, foot, is, midiBox, midiIn, midiOut, midiThru, ON, onOff, pedal, plain, power, switcher, toggles, type Generic } from './parts.js';

const guitar = (key: string, says: readonly string[], code: string, what: End['what'], average: number, peak: number): Generic =>
  plain(key, says, code, 'hands', [audioOut('out', { ohm: 10_000 })], [], [{ at: 'out', is: 'source', name: says[0]!, ...(what ? { what } : {}), dbu: { average, peak } }], { origin: 'assumed', kg: 3.6 });

const xlrOut = (id: string, more: Partial<Jack> = {}): Jack => audioOut(id, { connector: 'XLR', level: 'mic', balanced: true, ohm: 150, ...more });
const xlrIn = (id: string, more: Partial<Jack> = {}): Jack => audioIn(id, { connector: 'XLR', level: 'mic', balanced: true, ohm: 1_500, phantom: true, ...more });
const speakerOut: Jack = { id: 'speaker', kind: 'audio', connector: 'speaker', poles: { tip: 'out' }, level: 'speaker', ohm: 8 };

const cabinet = (key: string, says: readonly string[]): Generic => plain(
  key, says, 'CAB', 'outputs',
  [{ id: 'in', kind: 'audio', connector: 'speaker', poles: { tip: 'in' }, level: 'speaker', ohm: 8, load: 'speaker' }, { id: 'air', kind: 'air', connector: 'air', poles: { tip: 'out' } }],
  [chain('speaker', 'in', [{ is: 'block', id: 'cabinet', stage: 'cabinet' }], 'air')], [{ at: 'air', is: 'stage', name: 'Stage' }], { origin: 'assumed', kg: 22 });

const head = (key: string, says: readonly string[], code: string, channels: readonly string[]): Generic => ({
  key, says,
  box: {
    code, name: says[0]!, zone: 'amp',
    jacks: [audioIn('in'), audioOut('send', { level: 'line' }), audioIn('return', { level: 'line', ohm: 47_000 }), speakerOut, ...(channels.length > 1 ? [contactIn('channel-switch')] : []), { id: 'mains', kind: 'mains', connector: 'mains', poles: { tip: 'in' } }],
    chains: [
      channels.length > 1
        ? chain('preamp', 'in', [{ is: 'fork', id: 'channels', arms: channels.map((c) => ({ id: c, when: is('channel', c), slots: [{ is: 'block', id: c, stage: 'preamp' }] })) }], 'send')
        : chain('preamp', 'in', [{ is: 'block', id: 'preamp', stage: 'preamp' }], 'send'),
      chain('normal', 'send', [], 'return', { when: [{ jack: 'return', plugged: false }] }),
      chain('power', 'return', [{ is: 'block', id: 'power', stage: 'power amp' }], 'speaker'),
    ],
    controls: channels.length > 1 ? [choice('channel', channels)] : [],
    actuators: channels.length > 1 ? [
      { id: 'contact open', by: { contact: 'channel-switch', level: 'open' }, acts: [{ control: 'channel', set: channels[0]! }] },
      { id: 'contact closed', by: { contact: 'channel-switch', level: 'closed' }, acts: [{ control: 'channel', set: channels[1]! }] },
      { id: 'front panel', by: { hand: 'channel button' }, when: [{ jack: 'channel-switch', plugged: false }], acts: [{ control: 'channel', step: channels }] },
    ] : [],
    memories: [], figures: { origin: 'assumed', kg: 18, mainsEarth: true },
  },
});

const select = (key: string, says: readonly string[], code: string, jacks: readonly Jack[], chains: Generic['box']['chains'], values: readonly string[]): Generic => ({
  key, says,
  box: {
    code, name: says[0]!, zone: 'floor', jacks, chains, controls: [choice('select', values)],
    actuators: [foot('switch', { control: 'select', step: values })], memories: [], figures: { origin: 'assumed' },
  },
});

const midiFoot = (): Generic => {
  const floor = controllerFloor();
  return {
    key: 'midi-controller', says: ['MIDI foot controller', 'foot controller', 'midi floor'],
    box: {
      code: 'MFC', name: 'MIDI foot controller', zone: 'floor', jacks: [midiIn, midiOut, contactOut('ctl1'), contactOut('ctl2'), power(150)],
      chains: [chain('merge', 'midi-in', [], 'midi-out')],
      controls: [...floor.controls, choice('ctl1', ['open', 'closed'], { powerUp: 'loaded', name: 'contact 1' }), choice('ctl2', ['open', 'closed'], { powerUp: 'loaded', name: 'contact 2' })],
      actuators: floor.actuators, memories: [{ ...floor.memory, stores: ['ctl1', 'ctl2'] }], figures: { origin: 'assumed', kg: 1.4 },
    },
  };
};

const modeller: Generic = {
  key: 'modeller', says: ['Modeller with one loop', 'modeller', 'multi-effect', 'digital modeller'],
  box: {
    code: 'MDL', name: 'Modeller with one loop', zone: 'floor',
    jacks: [audioIn('in'), audioOut('send'), audioIn('return'), audioOut('out-l', { level: 'line' }), audioOut('out-r', { level: 'line' }), midiIn, midiThru, power(1200)],
    chains: [
      {
        id: 'path', from: [{ at: 'in' }],
        slots: [
          { is: 'block', id: 'drive', stage: 'overdrive', on: is('drive', 'on') },
          { is: 'insert', id: 'loop', send: [{ at: 'send' }], return: [{ at: 'return' }], on: is('loop', 'on'), unpatched: 'through' },
          { is: 'block', id: 'cab', stage: 'cabinet simulation', on: is('cab', 'on') },
          { is: 'block', id: 'delay', stage: 'delay', on: is('delay', 'on'), width: 'spread', tails: true },
          { is: 'block', id: 'reverb', stage: 'reverb', on: is('reverb', 'on'), width: 'spread', tails: true },
        ],
        to: [{ at: 'out-l', leg: 'left', when: [{ jack: 'out-r', plugged: true }] }, { at: 'out-r', leg: 'right' }, { at: 'out-l', when: [{ jack: 'out-r', plugged: false }] }],
      },
      chain('thru', 'midi-in', [], 'midi-thru'),
    ],
    controls: [
      { id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' },
      ...['drive', 'loop', 'cab', 'delay', 'reverb'].map((id) => choice(id, ['off', 'on'], { powerUp: 'loaded' })),
    ],
    actuators: [
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'presets', slot: 'value' }] },
      ...['drive', 'loop', 'cab', 'delay', 'reverb'].map((id, i) => ({ id, by: { midi: 'cc' as const, number: 80 + i }, acts: [{ control: id, map: [[0, 63, 'off'], [64, 127, 'on']] as const }] })),
    ],
    memories: [{ id: 'presets', control: 'program', stores: ['drive', 'loop', 'cab', 'delay', 'reverb'], size: 128, shows: { first: 0, bank: { size: 4, first: 1, letters: 'ABCD' } }, gapMs: 40, mutesMs: 30, again: 'reloads' }],
    midi: { channel: 5, messages: 'lost' }, figures: { origin: 'assumed', kg: 2.6 },
  },
};

const volume: Generic = {
  key: 'volume', says: ['Volume pedal', 'volume'],
  box: {
    code: 'VOL', name: 'Volume pedal', zone: 'floor', jacks: [audioIn('in', { ohm: 250_000 }), audioOut('out'), audioOut('tuner')],
    chains: [
      chain('path', 'in', [{ is: 'block', id: 'volume', stage: 'volume' }], 'out', { passive: true }),
      chain('tap', 'in', [], 'tuner', { passive: true }),
    ],
    controls: [amount('amount', 0, 100, '%', { use: 'play', powerUp: 'left' })], actuators: [], memories: [], figures: { origin: 'assumed', kg: 1.2 },
  },
};

const tuner: Generic = {
  key: 'tuner', says: ['Tuner', 'tuner pedal', 'stage tuner'],
  box: {
    code: 'TUN', name: 'Tuner', zone: 'floor', jacks: [audioIn('in'), audioOut('out'), power(40)],
    chains: [chain('path', 'in', [{ is: 'block', id: 'tuner', stage: 'tuner', mutes: is('mute', 'on'), bypass: 'buffered' }], 'out')],
    controls: [choice('mute', ['off', 'on'], { powerUp: { at: 'off' } })], actuators: [foot('switch', toggles('mute'))], memories: [], figures: { origin: 'assumed', kg: 0.3 },
  },
};

const preampDi: Generic = {
  key: 'preamp-di', says: ['Preamp with cabinet simulation', 'amp-less preamp', 'preamp di', 'cab sim preamp'],
  box: {
    code: 'PDI', name: 'Preamp with cabinet simulation', zone: 'floor', jacks: [audioIn('in'), audioOut('out'), xlrOut('xlr'), power(120)],
    chains: [
      chain('preamp', 'in', [{ is: 'block', id: 'preamp', stage: 'preamp', on: ON }], '#pre'),
      chain('plain', '#pre', [], 'out'),
      chain('direct', '#pre', [{ is: 'block', id: 'cabinet', stage: 'cabinet simulation' }], 'xlr'),
    ],
    controls: [onOff()], actuators: [foot('switch', toggles('on'))], memories: [], figures: { origin: 'assumed', kg: 0.7 },
  },
};

/** The generic boxes that the kit line knows. Figures are typical values of the trade, marked as assumed. */
export const CATALOGUE: readonly Generic[] = [
  guitar('single-coil', ['Single-coil guitar', 'single coil', 'electric guitar', 'guitar'], 'GSC', 'guitar', -20, -6),
  guitar('humbucker', ['Humbucker guitar', 'humbucker'], 'GHB', 'guitar', -14, 0),
  guitar('bass', ['Bass guitar', 'bass', 'passive bass'], 'BAS', 'bass', -16, -2),
  guitar('acoustic', ['Acoustic guitar with pickup', 'acoustic', 'electro-acoustic'], 'ACO', 'acoustic', -18, -4),
  plain('microphone', ['Microphone', 'mic', 'vocal mic'], 'MIC', 'hands', [xlrOut('out')], [], [{ at: 'out', is: 'source', name: 'Microphone', what: 'voice', dbu: { average: -50, peak: -30 } }]),
  plain('cab-mic', ['Cabinet microphone', 'cab mic', 'mic on the cabinet'], 'MCB', 'outputs', [{ id: 'air', kind: 'air', connector: 'air', poles: { tip: 'in' } }, xlrOut('out')], [chain('capsule', 'air', [{ is: 'block', id: 'microphone', stage: 'microphone' }], 'out')]),
  plain('wireless', ['Wireless', 'wireless receiver', 'wireless system'], 'WLS', 'hands', [audioIn('in'), audioOut('out'), power(150)], [chain('path', 'in', [{ is: 'block', id: 'wireless', stage: 'wireless', ms: 4, bypass: 'buffered' }], 'out')]),
  tuner,
  pedal({ key: 'compressor', says: ['Compressor', 'comp', 'squeezer'], code: 'CMP', stage: 'compressor' }),
  pedal({ key: 'low-drive', says: ['Low-gain drive', 'low gain drive', 'overdrive', 'drive', 'od'], code: 'LOW', stage: 'overdrive' }),
  pedal({ key: 'high-drive', says: ['High-gain drive', 'high gain drive', 'second drive'], code: 'HIG', stage: 'overdrive' }),
  pedal({ key: 'distortion', says: ['Distortion', 'dist'], code: 'DST', stage: 'distortion' }),
  pedal({ key: 'fuzz', says: ['Fuzz', 'fuzz with low input impedance'], code: 'FUZ', stage: 'fuzz', block: { inputOhm: 10_000 } }),
  pedal({ key: 'octave-fuzz', says: ['Octave fuzz'], code: 'OFZ', stage: 'fuzz', block: { inputOhm: 10_000 } }),
  pedal({ key: 'boost', says: ['Boost', 'clean boost', 'booster'], code: 'BST', stage: 'boost' }),
  pedal({ key: 'wah', says: ['Wah', 'wah pedal'], code: 'WAH', stage: 'wah' }),
  pedal({ key: 'filter', says: ['Envelope filter', 'auto wah', 'filter'], code: 'FLT', stage: 'filter' }),
  pedal({ key: 'eq', says: ['EQ', 'equaliser', 'equalizer', 'graphic eq'], code: 'EQ', stage: 'eq' }),
  pedal({ key: 'gate', says: ['Gate', 'noise gate', 'noise suppressor'], code: 'GAT', stage: 'gate' }),
  pedal({ key: 'octave', says: ['Octave', 'octaver', 'octave down'], code: 'OCT', stage: 'octave' }),
  pedal({ key: 'pitch', says: ['Pitch shifter', 'pitch', 'harmoniser'], code: 'PIT', stage: 'pitch', milliamps: 200 }),
  pedal({ key: 'tremolo', says: ['Tremolo', 'trem'], code: 'TRM', stage: 'tremolo' }),
  pedal({ key: 'chorus', says: ['Chorus', 'ensemble'], code: 'CHO', stage: 'modulation' }),
  pedal({ key: 'phaser', says: ['Phaser', 'phase shifter', 'flanger', 'vibe', 'rotary'], code: 'PHA', stage: 'modulation' }),
  pedal({ key: 'analog-delay', says: ['Analogue delay', 'analog delay', 'delay', 'echo'], code: 'ADL', stage: 'delay', block: { tails: false } }),
  pedal({ key: 'spring-reverb', says: ['Reverb pedal', 'reverb', 'spring reverb'], code: 'RVB', stage: 'reverb', milliamps: 100 }),
  pedal({ key: 'looper', says: ['Looper pedal', 'looper', 'loop recorder'], code: 'LPR', stage: 'looper', milliamps: 150 }),
  pedal({ key: 'preamp-pedal', says: ['Preamp pedal', 'preamp'], code: 'PRE', stage: 'preamp', milliamps: 100 }),
  plain('buffer', ['Buffer', 'line buffer'], 'BUF', 'floor', [audioIn('in'), audioOut('out', { ohm: 100 }), power(10)], [chain('path', 'in', [{ is: 'block', id: 'buffer', stage: 'buffer' }], 'out')]),
  volume,
  midiBox({ key: 'stereo-modulation', says: ['Stereo modulation', 'stereo mod', 'modulation', 'stereo chorus'], code: 'MOD', stage: 'modulation', shows: { first: 1 }, channel: 2, stereo: true, gapMs: 8, mutesMs: 25 }),
  midiBox({ key: 'stereo-delay', says: ['Stereo delay', 'digital delay', 'midi delay'], code: 'DLY', stage: 'delay', shows: { first: 0 }, channel: 3, stereo: true, gapMs: 120 }),
  midiBox({ key: 'stereo-reverb', says: ['Stereo reverb', 'midi reverb', 'digital reverb'], code: 'REV', stage: 'reverb', shows: { first: 1, bank: { size: 3, first: 1 } }, channel: 4, stereo: true, gapMs: 60 }),
  midiBox({ key: 'midi-overdrive', says: ['Programmable drive', 'midi drive', 'programmable overdrive'], code: 'PDR', stage: 'overdrive', shows: { first: 1 }, channel: 6, stereo: false, gapMs: 10 }),
  switcher({ key: 'switcher-8', says: ['Eight-loop switcher', '8-loop switcher', '8 loop switcher', 'switcher', 'loop switcher'], loops: 8, orders: true, midi: true }),
  switcher({ key: 'switcher-4', says: ['Four-loop switcher', '4-loop switcher', '4 loop switcher', 'small switcher'], loops: 4, orders: false, midi: true }),
  switcher({ key: 'switcher-5-plain', says: ['Five-loop switcher without MIDI', '5-loop switcher', 'plain switcher'], loops: 5, orders: false, midi: false }),
  midiFoot(),
  plain('midi-thru', ['MIDI thru box', 'midi thru', 'midi splitter'], 'THR', 'floor', [midiIn, ...[1, 2, 3, 4].map((i): Jack => ({ ...midiOut, id: `thru${i}` })), power(20)], [{ id: 'thru', from: [{ at: 'midi-in' }], slots: [], to: [1, 2, 3, 4].map((i) => ({ at: `thru${i}` })) }]),
  modeller,
  select('ab-out', ['A/B box', 'amp selector', 'ab box', 'aby'], 'AB', [audioIn('in'), audioOut('a'), audioOut('b')], [chain('to-a', 'in', [], 'a', { when: is('select', 'a', 'both') }), chain('to-b', 'in', [], 'b', { when: is('select', 'b', 'both') })], ['a', 'b', 'both']),
  select('ab-in', ['Instrument selector', 'guitar selector', 'a/b selector', 'two guitar input'], 'SEL', [audioIn('a'), audioIn('b'), audioOut('out')], [chain('from-a', 'a', [], 'out', { when: is('select', 'a') }), chain('from-b', 'b', [], 'out', { when: is('select', 'b') })], ['a', 'b']),
  plain('splitter', ['Splitter', 'buffered splitter', 'y splitter'], 'SPL', 'floor', [audioIn('in'), audioOut('out1'), audioOut('out2')], [{ id: 'split', from: [{ at: 'in' }], slots: [{ is: 'block', id: 'buffer', stage: 'buffer' }], to: [{ at: 'out1' }, { at: 'out2' }] }]),
  preampDi,
  plain('cab-sim', ['Cabinet simulation', 'cab sim', 'impulse loader', 'ir loader'], 'SIM', 'floor', [audioIn('in', { level: 'line' }), xlrOut('out'), power(150)], [chain('path', 'in', [{ is: 'block', id: 'cabinet', stage: 'cabinet simulation' }], 'out')]),
  plain('di', ['DI box', 'direct box', 'di'], 'DI', 'outputs', [audioIn('in'), audioOut('thru'), xlrOut('out')], [chain('direct', 'in', [{ is: 'block', id: 'di', stage: 'DI' }], 'out'), chain('through', 'in', [], 'thru', { passive: true })]),
  head('valve-head', ['Two-channel valve head 50 W', 'two-channel head', 'amp head', 'amp', 'valve head'], 'HED', ['clean', 'lead']),
  head('one-channel-amp', ['One-channel amp', 'small amp', 'simple amp', 'single-channel amp'], 'AMP', ['preamp']),
  plain('power-amp', ['Power amp', 'solid-state power amp'], 'PWR', 'amp', [audioIn('in', { level: 'line' }), speakerOut], [chain('power', 'in', [{ is: 'block', id: 'power', stage: 'power amp' }], 'speaker')]),
  cabinet('cab-112', ['1×12 cabinet', '1x12 cabinet', '1x12', 'small cabinet']),
  cabinet('cab-212', ['Closed 2×12 cabinet', '2x12 cabinet', '2x12', 'cabinet', 'cab', 'speaker cabinet']),
  plain('desk', ['Mixing desk', 'desk', 'mixer', 'front of house', 'foh', 'pa'], 'FOH', 'outputs', [xlrIn('ch1'), xlrIn('ch2'), xlrIn('ch3'), xlrIn('ch4')], [
    { id: 'mix', from: [1, 2, 3, 4].map((i) => ({ at: `ch${i}` })), slots: [], to: [{ at: '#house' }] },
  ], [{ at: '#house', is: 'house', name: 'Front of house' }]),
  plain('supply', ['Ten-output supply', 'power supply', 'supply'], 'SUP', 'supply', Array.from({ length: 10 }, (_, i): Jack => ({ id: `out${i + 1}`, kind: 'power', connector: 'barrel', poles: { tip: 'out' }, supply: { volts: [9], milliamps: i < 8 ? 100 : 500, centre: 'negative', isolated: true } })), []),
];

export const generic = (key: string): Generic => {
  const found = CATALOGUE.find((g) => g.key === key);
  if (!found) throw new Error(`The catalogue has no box "${key}".`);
  return found;
};
