import {
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  foot,
  lineOut,
  midiBox,
  midiIn,
  ON,
  pedal,
  plain,
  power,
  stereoFrom,
  stereoTo,
  xlrOut,
  type Generic,
} from '../parts.js';
import type { Stage } from '../../rig/device.js';
import { bandGenerator, looperStation, PRESET_BOXES, PRESET_EFFECTS } from './modellers.js';

/** A pedal with a left and a right side and a foot switch, without programs. */
const stereoPedal = (key: string, says: readonly string[], code: string, stage: Stage, milliamps = 120): Generic => {
  const made = pedal({ key, says, code, stage, milliamps });
  return {
    ...made,
    box: {
      ...made.box,
      jacks: [audioIn('in-l'), audioIn('in-r'), audioOut('out-l'), audioOut('out-r'), power(milliamps)],
      chains: [
        {
          id: 'path',
          from: stereoFrom('in-l', 'in-r'),
          slots: [block(stage, stage, { on: ON, width: 'spread', bypass: 'buffered' })],
          to: stereoTo('out-l', 'out-r'),
        },
      ],
    },
  };
};

/** The same, always in the way of the signal: its switch holds something that goes on until the foot lets go of it. */
const latched = (made: Generic, control: string, positions: readonly [string, string]): Generic => ({
  ...made,
  box: {
    ...made.box,
    chains: made.box.chains.map((c) => ({
      ...c,
      slots: c.slots.map((s) => {
        if (s.is !== 'block') return s;
        const { on: _, ...always } = s;
        return { ...always, bypass: 'buffered' as const };
      }),
    })),
    controls: [choice(control, positions, { powerUp: { at: positions[0] }, use: 'play', latches: true })],
    actuators: [foot('switch', { control, toggle: positions })],
  },
});

/** Takes a guitar and a line alike, as such boxes do; assumed. */
const TAKES_LINE = { maxDbu: 20 };

/** Modulation, time and everything that programs remember. */
export const EFFECTS: readonly Generic[] = [
  pedal({ key: 'tremolo', says: ['Tremolo', 'trem'], code: 'TRM', stage: 'tremolo' }),
  pedal({ key: 'chorus', says: ['Chorus', 'ensemble'], code: 'CHO', stage: 'modulation' }),
  pedal({ key: 'phaser', says: ['Phaser', 'phase shifter'], code: 'PHA', stage: 'modulation' }),
  pedal({ key: 'flanger', says: ['Flanger'], code: 'FLA', stage: 'modulation' }),
  pedal({ key: 'vibrato', says: ['Vibrato', 'vibe'], code: 'VIB', stage: 'modulation' }),
  pedal({ key: 'rotary', says: ['Rotary speaker effect', 'rotary'], code: 'ROT', stage: 'modulation', milliamps: 100 }),
  pedal({ key: 'ring-modulator', says: ['Ring modulator'], code: 'RNG', stage: 'modulation' }),
  pedal({
    key: 'analog-delay',
    says: ['Analogue delay', 'analog delay', 'delay', 'echo'],
    code: 'ADL',
    stage: 'delay',
    block: { tails: false },
    figures: { onSupply: 'neither' },
  }),
  pedal({
    key: 'tape-echo',
    says: ['Tape echo', 'tape delay'],
    code: 'TPE',
    stage: 'delay',
    block: { tails: true },
    milliamps: 120,
  }),
  pedal({
    key: 'spring-reverb',
    says: ['Reverb pedal', 'reverb', 'spring reverb'],
    code: 'RVB',
    stage: 'reverb',
    milliamps: 100,
  }),
  pedal({
    key: 'hall-reverb',
    says: ['Ambient reverb', 'hall reverb', 'shimmer reverb'],
    code: 'HRV',
    stage: 'reverb',
    milliamps: 150,
    block: { tails: true },
  }),
  latched(
    pedal({
      key: 'hold',
      says: ['Pedal that holds a note', 'note hold', 'infinite sustain'],
      code: 'HLD',
      stage: 'reverb',
      milliamps: 150,
    }),
    'hold',
    ['off', 'on'],
  ),
  latched(
    pedal({
      key: 'looper',
      says: ['Looper pedal', 'looper', 'loop recorder'],
      code: 'LPR',
      stage: 'looper',
      milliamps: 150,
    }),
    'loop',
    ['stopped', 'plays'],
  ),
  stereoPedal('stereo-chorus-pedal', ['Stereo chorus pedal', 'analogue stereo chorus'], 'SCH', 'modulation'),
  stereoPedal('stereo-tremolo', ['Stereo tremolo', 'panner', 'auto pan'], 'STR', 'tremolo'),
  latched(stereoPedal('stereo-looper', ['Stereo looper'], 'SLP', 'looper', 250), 'loop', ['stopped', 'plays']),
  midiBox({
    key: 'stereo-modulation',
    says: ['Stereo modulation', 'stereo mod', 'modulation', 'stereo chorus'],
    code: 'MOD',
    stage: 'modulation',
    shows: { first: 1 },
    channel: 2,
    stereo: true,
    gapMs: 8,
    mutesMs: 18,
  }),
  midiBox({
    key: 'stereo-delay',
    says: ['Stereo delay', 'digital delay', 'midi delay'],
    code: 'DLY',
    stage: 'delay',
    shows: { first: 0 },
    channel: 3,
    stereo: true,
    gapMs: 120,
  }),
  midiBox({
    key: 'mono-delay',
    says: ['Mono delay with MIDI', 'programmable delay', 'mono digital delay'],
    code: 'MDY',
    stage: 'delay',
    shows: { first: 1 },
    channel: 3,
    stereo: false,
    gapMs: 60,
  }),
  midiBox({
    key: 'stereo-reverb',
    says: ['Stereo reverb', 'midi reverb', 'digital reverb'],
    code: 'REV',
    stage: 'reverb',
    shows: { first: 1, bank: { size: 3, first: 1 } },
    channel: 4,
    stereo: true,
    gapMs: 60,
  }),
  midiBox({
    key: 'delay-reverb',
    says: ['Delay and reverb in one', 'ambience box', 'delay reverb'],
    code: 'DRV',
    stage: 'delay',
    shows: { first: 1, bank: { size: 4, first: 1, letters: 'ABCD' } },
    channel: 7,
    stereo: true,
    gapMs: 80,
  }),
  midiBox({
    key: 'midi-overdrive',
    says: ['Programmable drive', 'midi drive', 'programmable overdrive'],
    code: 'PDR',
    stage: 'overdrive',
    shows: { first: 1 },
    channel: 6,
    stereo: false,
    gapMs: 10,
  }),
  midiBox({
    key: 'midi-pitch',
    says: ['Programmable pitch shifter', 'midi pitch', 'programmable harmoniser'],
    code: 'MPT',
    stage: 'pitch',
    shows: { first: 1 },
    channel: 9,
    stereo: false,
    gapMs: 30,
  }),
  midiBox({
    key: 'midi-eq',
    says: ['Programmable EQ', 'midi eq'],
    code: 'MEQ',
    stage: 'eq',
    shows: { first: 1 },
    channel: 11,
    stereo: false,
    gapMs: 10,
  }),
  midiBox({
    key: 'midi-compressor',
    says: ['Programmable compressor', 'midi compressor'],
    code: 'MCP',
    stage: 'compressor',
    shows: { first: 1 },
    channel: 12,
    stereo: false,
    gapMs: 10,
  }),
  midiBox({
    key: 'midi-filter',
    says: ['Programmable filter', 'midi filter'],
    code: 'MFL',
    stage: 'filter',
    shows: { first: 0 },
    channel: 13,
    stereo: false,
    gapMs: 20,
  }),
  ...PRESET_EFFECTS,
  ...PRESET_BOXES,
  plain(
    'cab-sim',
    ['Cabinet simulation', 'cab sim', 'impulse loader', 'ir loader'],
    'SIM',
    'floor',
    [audioIn('in', TAKES_LINE), xlrOut('out'), power(150)],
    [chain('path', 'in', [block('cabinet', 'cabinet simulation')], 'out')],
  ),
  plain(
    'stereo-cab-sim',
    ['Stereo cabinet simulation', 'stereo impulse loader'],
    'SSM',
    'floor',
    [audioIn('in-l', TAKES_LINE), audioIn('in-r', TAKES_LINE), xlrOut('out-l'), xlrOut('out-r'), power(250)],
    [
      {
        id: 'path',
        from: stereoFrom('in-l', 'in-r'),
        slots: [block('cabinet', 'cabinet simulation', { width: 'each' })],
        to: stereoTo('out-l', 'out-r'),
      },
    ],
  ),
  bandGenerator,
  looperStation,
  plain(
    'drum-machine',
    ['Drum machine', 'rhythm machine'],
    'DRM',
    'floor',
    [lineOut('out-l'), lineOut('out-r'), midiIn, power(200)],
    [{ id: 'out', from: [{ at: '#drums' }], slots: [], to: stereoTo('out-l', 'out-r') }],
    [{ at: '#drums', is: 'source', name: 'Drum machine', what: 'band', dbu: { average: -10, peak: 4 } }],
  ),
];
