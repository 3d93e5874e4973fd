import { audioIn, audioOut, block, chain, choice, expressionIn, foot, is, lineOut, midiBox, midiIn, midiThru, ON, onOff, pedal, plain, power, stereoFrom, stereoTo, thru, toggles, xlrOut, type Generic } from '../parts.js';
import type { Actuator, Insert, Slot, Stage } from '../../rig/device.js';

/** A pedal with a left and a right side and a foot switch, without programs. */
const stereoPedal = (key: string, says: readonly string[], code: string, stage: Stage, milliamps = 120): Generic => {
  const made = pedal({ key, says, code, stage, milliamps });
  return {
    ...made,
    box: {
      ...made.box, jacks: [audioIn('in-l'), audioIn('in-r'), audioOut('out-l'), audioOut('out-r'), power(milliamps)],
      chains: [{ id: 'path', from: stereoFrom('in-l', 'in-r'), slots: [block(stage, stage, { on: ON, width: 'spread', bypass: 'buffered' })], to: stereoTo('out-l', 'out-r') }],
    },
  };
};

const insert = (id: string, on?: ReturnType<typeof is>): Insert => ({ is: 'insert', id, send: [{ at: `send${id.slice(4)}` }], return: [{ at: `return${id.slice(4)}` }], unpatched: 'through', ...(on ? { on } : {}) });

interface ModellerOf {
  readonly key: string;
  readonly says: readonly string[];
  readonly code: string;
  readonly channel: number;
  readonly loops: readonly string[];
  /** Blocks before the first loop, between the loops, after the last. */
  readonly blocks: readonly (readonly (readonly [id: string, stage: Stage])[])[];
  readonly xlr: boolean;
  readonly gapMs: number;
}

const WIDE: readonly Stage[] = ['modulation', 'delay', 'reverb'];

/** A multi-effect or modeller: blocks with loops between them, everything held in presets. */
const manyEffects = ({ key, says, code, channel, loops, blocks, xlr, gapMs }: ModellerOf): Generic => {
  const names = [...blocks.flat().map(([id]) => id), ...loops];
  const slots: Slot[] = blocks.flatMap((group, i): Slot[] => [
    ...group.map(([id, stage]) => block(id, stage, { on: is(id, 'on'), ...(WIDE.includes(stage) ? { width: 'spread' as const, tails: true } : {}) })),
    ...(loops[i] ? [insert(loops[i], is(loops[i], 'on'))] : []),
  ]);
  const outs = xlr ? [lineOut('out-l'), lineOut('out-r'), xlrOut('xlr-l'), xlrOut('xlr-r')] : [lineOut('out-l'), lineOut('out-r')];
  return {
    key, says,
    box: {
      code, name: says[0]!, zone: 'floor',
      jacks: [audioIn('in'), ...loops.flatMap((l) => [audioOut(`send${l.slice(4)}`), audioIn(`return${l.slice(4)}`)]), ...outs, expressionIn(), midiIn, midiThru, power(1200)],
      chains: [
        { id: 'path', from: [{ at: 'in' }], slots, to: [...stereoTo('out-l', 'out-r'), ...(xlr ? [{ at: 'xlr-l', leg: 'left' as const }, { at: 'xlr-r', leg: 'right' as const }] : [])] },
        thru,
      ],
      controls: [{ id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' }, ...names.map((id) => choice(id, ['off', 'on'], { powerUp: 'loaded' }))],
      actuators: [
        { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'presets', slot: 'value' }] },
        ...names.map((id, i): Actuator => ({ id, by: { midi: 'cc', number: 80 + i }, acts: [{ control: id, map: [[0, 63, 'off'], [64, 127, 'on']] }] })),
      ],
      memories: [{ id: 'presets', control: 'program', stores: names, size: 128, shows: { first: 0, bank: { size: 4, first: 1, letters: 'ABCD' } }, gapMs, mutesMs: 30, again: 'reloads' }],
      midi: { channel, messages: 'lost' }, figures: { origin: 'assumed', mm: [300, 180, 70], kg: 2.6 },
    },
  };
};

/** One loop on jacks named send and return. */
const modeller: Generic = (() => {
  const made = manyEffects({ key: 'modeller', says: ['Modeller with one loop', 'modeller', 'multi-effect', 'digital modeller'], code: 'MDL', channel: 5, loops: ['loop'], blocks: [[['drive', 'overdrive']], [['cab', 'cabinet simulation'], ['delay', 'delay'], ['reverb', 'reverb']]], xlr: false, gapMs: 40 });
  return { ...made, box: { ...made.box, jacks: made.box.jacks.filter((j) => j.kind !== 'expression') } };
})();

/** A generator of rhythm that lets the guitar out to other boxes and back in, and joins it to what it makes. */
const bandGenerator: Generic = {
  key: 'band-generator', says: ['Band generator', 'rhythm generator with a loop', 'accompaniment pedal'],
  box: {
    code: 'BND', name: 'Band generator', zone: 'floor', jacks: [audioIn('in'), audioOut('send'), audioIn('return'), audioOut('out-l'), audioOut('out-r'), midiIn, power(300)],
    chains: [
      chain('guitar', 'in', [{ is: 'insert', id: 'loop', send: [{ at: 'send' }], return: [{ at: 'return' }], unpatched: 'through' }], '#mix'),
      chain('band', '#band', [block('generator', 'generator', { on: ON, width: 'spread' })], '#mix'),
      { id: 'mix', from: [{ at: '#mix' }], slots: [], to: stereoTo('out-l', 'out-r') },
    ],
    controls: [onOff(), { id: 'pattern', domain: { min: 0, max: 99, unit: '' }, powerUp: 'left', use: 'sound' }],
    actuators: [foot('start', toggles('on')), { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'patterns', slot: 'value' }] }],
    memories: [{ id: 'patterns', control: 'pattern', stores: [], size: 100, shows: { first: 1 }, gapMs: 50, mutesMs: 0, again: 'nothing' }],
    midi: { channel: 10, messages: 'lost' }, ends: [{ at: '#band', is: 'source', name: 'Band', what: 'band', dbu: { average: -12, peak: 2 } }], figures: { origin: 'assumed', kg: 1.1 },
  },
};

/** Several inputs; the second goes to the main outputs or to one of its own. */
const looperStation: Generic = {
  key: 'looper-station', says: ['Looper station', 'two-track looper', 'multi-track looper'],
  box: {
    code: 'LST', name: 'Looper station', zone: 'floor', jacks: [audioIn('in1'), audioIn('in2'), audioOut('main-l'), audioOut('main-r'), audioOut('sub'), midiIn, midiThru, power(250)],
    chains: [
      chain('one', 'in1', [block('track1', 'looper')], '#main'), chain('two', 'in2', [block('track2', 'looper')], '#two'),
      chain('two to main', '#two', [], '#main', { when: is('out2', 'main') }), chain('two to sub', '#two', [], 'sub', { when: is('out2', 'sub') }),
      { id: 'main', from: [{ at: '#main' }], slots: [], to: stereoTo('main-l', 'main-r') }, thru,
    ],
    controls: [{ id: 'memory', domain: { min: 0, max: 98, unit: '' }, powerUp: 'left', use: 'sound' }, choice('out2', ['main', 'sub'], { use: 'setting' })],
    actuators: [{ id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'memories', slot: 'value' }] }],
    memories: [{ id: 'memories', control: 'memory', stores: [], size: 99, shows: { first: 1 }, gapMs: 200, mutesMs: 0, again: 'nothing' }],
    midi: { channel: 8, messages: 'lost' }, figures: { origin: 'assumed', mm: [210, 150, 65], kg: 1.4 },
  },
};

/** Modulation, time and everything that programs remember. */
export const EFFECTS: readonly Generic[] = [
  pedal({ key: 'tremolo', says: ['Tremolo', 'trem'], code: 'TRM', stage: 'tremolo' }),
  pedal({ key: 'chorus', says: ['Chorus', 'ensemble'], code: 'CHO', stage: 'modulation' }),
  pedal({ key: 'phaser', says: ['Phaser', 'phase shifter'], code: 'PHA', stage: 'modulation' }),
  pedal({ key: 'flanger', says: ['Flanger'], code: 'FLA', stage: 'modulation' }),
  pedal({ key: 'vibrato', says: ['Vibrato', 'vibe'], code: 'VIB', stage: 'modulation' }),
  pedal({ key: 'rotary', says: ['Rotary speaker effect', 'rotary'], code: 'ROT', stage: 'modulation', milliamps: 100 }),
  pedal({ key: 'ring-modulator', says: ['Ring modulator'], code: 'RNG', stage: 'modulation' }),
  pedal({ key: 'analog-delay', says: ['Analogue delay', 'analog delay', 'delay', 'echo'], code: 'ADL', stage: 'delay', block: { tails: false } }),
  pedal({ key: 'tape-echo', says: ['Tape echo', 'tape delay'], code: 'TPE', stage: 'delay', block: { tails: true }, milliamps: 120 }),
  pedal({ key: 'spring-reverb', says: ['Reverb pedal', 'reverb', 'spring reverb'], code: 'RVB', stage: 'reverb', milliamps: 100 }),
  pedal({ key: 'hall-reverb', says: ['Ambient reverb', 'hall reverb', 'shimmer reverb'], code: 'HRV', stage: 'reverb', milliamps: 150, block: { tails: true } }),
  pedal({ key: 'hold', says: ['Pedal that holds a note', 'note hold', 'infinite sustain'], code: 'HLD', stage: 'reverb', milliamps: 150 }),
  pedal({ key: 'looper', says: ['Looper pedal', 'looper', 'loop recorder'], code: 'LPR', stage: 'looper', milliamps: 150 }),
  stereoPedal('stereo-chorus-pedal', ['Stereo chorus pedal', 'analogue stereo chorus'], 'SCH', 'modulation'),
  stereoPedal('stereo-tremolo', ['Stereo tremolo', 'panner', 'auto pan'], 'STR', 'tremolo'),
  stereoPedal('stereo-looper', ['Stereo looper'], 'SLP', 'looper', 250),
  midiBox({ key: 'stereo-modulation', says: ['Stereo modulation', 'stereo mod', 'modulation', 'stereo chorus'], code: 'MOD', stage: 'modulation', shows: { first: 1 }, channel: 2, stereo: true, gapMs: 8, mutesMs: 18 }),
  midiBox({ key: 'stereo-delay', says: ['Stereo delay', 'digital delay', 'midi delay'], code: 'DLY', stage: 'delay', shows: { first: 0 }, channel: 3, stereo: true, gapMs: 120 }),
  midiBox({ key: 'mono-delay', says: ['Mono delay with MIDI', 'programmable delay', 'mono digital delay'], code: 'MDY', stage: 'delay', shows: { first: 1 }, channel: 3, stereo: false, gapMs: 60 }),
  midiBox({ key: 'stereo-reverb', says: ['Stereo reverb', 'midi reverb', 'digital reverb'], code: 'REV', stage: 'reverb', shows: { first: 1, bank: { size: 3, first: 1 } }, channel: 4, stereo: true, gapMs: 60 }),
  midiBox({ key: 'delay-reverb', says: ['Delay and reverb in one', 'ambience box', 'delay reverb'], code: 'DRV', stage: 'delay', shows: { first: 1, bank: { size: 4, first: 1, letters: 'ABCD' } }, channel: 7, stereo: true, gapMs: 80 }),
  midiBox({ key: 'midi-overdrive', says: ['Programmable drive', 'midi drive', 'programmable overdrive'], code: 'PDR', stage: 'overdrive', shows: { first: 1 }, channel: 6, stereo: false, gapMs: 10 }),
  midiBox({ key: 'midi-pitch', says: ['Programmable pitch shifter', 'midi pitch', 'programmable harmoniser'], code: 'MPT', stage: 'pitch', shows: { first: 1 }, channel: 9, stereo: false, gapMs: 30 }),
  midiBox({ key: 'midi-eq', says: ['Programmable EQ', 'midi eq'], code: 'MEQ', stage: 'eq', shows: { first: 1 }, channel: 11, stereo: false, gapMs: 10 }),
  midiBox({ key: 'midi-compressor', says: ['Programmable compressor', 'midi compressor'], code: 'MCP', stage: 'compressor', shows: { first: 1 }, channel: 12, stereo: false, gapMs: 10 }),
  midiBox({ key: 'midi-filter', says: ['Programmable filter', 'midi filter'], code: 'MFL', stage: 'filter', shows: { first: 0 }, channel: 13, stereo: false, gapMs: 20 }),
  modeller,
  manyEffects({ key: 'modeller-two-loops', says: ['Modeller with two loops', 'two-loop modeller', 'large modeller'], code: 'MD2', channel: 5, loops: ['loop1', 'loop2'], blocks: [[['drive', 'overdrive']], [['amp', 'preamp']], [['cab', 'cabinet simulation'], ['mod', 'modulation'], ['delay', 'delay'], ['reverb', 'reverb']]], xlr: true, gapMs: 60 }),
  manyEffects({ key: 'multi-two-loops', says: ['Multi-effect with two loops', 'two-loop multi-effect'], code: 'MX2', channel: 5, loops: ['loop1', 'loop2'], blocks: [[['comp', 'compressor']], [], [['mod', 'modulation'], ['delay', 'delay'], ['reverb', 'reverb']]], xlr: false, gapMs: 60 }),
  manyEffects({ key: 'amp-modeller', says: ['Amp modeller without loops', 'amp simulator', 'amp sim', 'pedal modeller'], code: 'AMS', channel: 5, loops: [], blocks: [[['drive', 'overdrive'], ['amp', 'preamp'], ['cab', 'cabinet simulation'], ['reverb', 'reverb']]], xlr: false, gapMs: 40 }),
  manyEffects({ key: 'acoustic-multi', says: ['Multi-effect for acoustic', 'acoustic multi-effect'], code: 'AMX', channel: 5, loops: [], blocks: [[['comp', 'compressor'], ['eq', 'eq'], ['mod', 'modulation'], ['reverb', 'reverb']]], xlr: true, gapMs: 40 }),
  plain('cab-sim', ['Cabinet simulation', 'cab sim', 'impulse loader', 'ir loader'], 'SIM', 'floor', [audioIn('in', { level: 'line' }), xlrOut('out'), power(150)], [chain('path', 'in', [block('cabinet', 'cabinet simulation')], 'out')]),
  plain('stereo-cab-sim', ['Stereo cabinet simulation', 'stereo impulse loader'], 'SSM', 'floor', [audioIn('in-l', { level: 'line' }), audioIn('in-r', { level: 'line' }), xlrOut('out-l'), xlrOut('out-r'), power(250)], [
    { id: 'path', from: stereoFrom('in-l', 'in-r'), slots: [block('cabinet', 'cabinet simulation', { width: 'each' })], to: stereoTo('out-l', 'out-r') },
  ]),
  bandGenerator, looperStation,
  plain('drum-machine', ['Drum machine', 'rhythm machine'], 'DRM', 'floor', [lineOut('out-l'), lineOut('out-r'), midiIn, power(200)], [{ id: 'out', from: [{ at: '#drums' }], slots: [], to: stereoTo('out-l', 'out-r') }], [{ at: '#drums', is: 'source', name: 'Drum machine', what: 'band', dbu: { average: -10, peak: 4 } }]),
];
