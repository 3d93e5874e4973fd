import type { Device } from '../src/rig/device.js';
import type { Hookup } from '../src/rig/hookup.js';
import type { Id } from '../src/rig/ids.js';
import { everyPart, rigOf, type Part } from '../src/rig/rig.js';
import type { Song } from '../src/rig/show.js';
import { readMetre, readPlace } from '../src/units/metre.js';
import { ABOUT_NUMBERS } from './practice-numbers.js';
import { practice, type Practice } from './practice-rig.js';

const COVERS = practice('covers-on-plain-pedals', 'Covers on plain pedals', {
  boxes: {
    g: 'single-coil',
    wah: 'wah',
    cmp: 'compressor',
    low: 'low-drive',
    hig: 'high-drive',
    cho: 'chorus',
    dly: 'analog-delay',
    amp: 'combo-two-channel',
  },
  leads: [
    'g.out>wah.in',
    'wah.out>cmp.in',
    'cmp.out>low.in',
    'low.out>hig.in',
    'hig.out>cho.in',
    'cho.out>dly.in',
    'dly.out>amp.in',
  ],
  sounds: {
    Clean: ['cmp.compressor', 'amp.clean'],
    Chorus: ['cmp.compressor', 'cho.modulation', 'amp.clean'],
    Crunch: ['cmp.compressor', 'low.overdrive', 'amp.clean'],
    Rhythm: ['amp.lead'],
    Lead: ['low.overdrive', 'hig.overdrive', 'dly.delay', 'amp.lead'],
    'Wah solo': ['wah.wah', 'low.overdrive', 'hig.overdrive', 'dly.delay', 'amp.lead'],
    Echo: ['cmp.compressor', 'dly.delay', 'amp.clean'],
  },
});

/** Sounds called by presets of the modeller, and by scenes of its second preset. */
const byPresets = (part: Part): Part => {
  if (part.kind !== 'sound') return part;
  const call = (memory: string, slot: number) => ({ device: 'device:m' as const, memory, slot });
  const own = part.at <= 2 ? [call('presets', part.at - 1)] : [call('presets', 2), call('scenes', part.at - 3)];
  return { ...part, calls: own };
};
const MODELLER = practice(
  'modeller-alone',
  'A modeller alone',
  {
    boxes: { g: 'humbucker', m: 'modeller-two-loops', foh: 'desk' },
    leads: ['g.out>m.in', 'm.out-l>foh.ch1', 'm.out-r>foh.ch2'],
    sounds: {
      Clean: ['m.amp-a', 'm.cab-a', 'm.reverb', 'm.drive-gain=20'],
      Crunch: ['m.amp-a', 'm.cab-a', 'm.drive', 'm.drive-gain=40'],
      Verse: ['m.amp-b', 'm.cab-b', 'm.drive-gain=20'],
      Lead: ['m.amp-b', 'm.cab-b', 'm.drive', 'm.delay', 'm.drive-gain=60', 'm.delay-mix=30'],
    },
  },
  byPresets,
);
const COMMANDS = practice(
  'modeller-that-commands',
  'A modeller by four cables that also commands',
  {
    boxes: { g: 'single-coil', wah: 'wah', m: 'modeller', h: 'valve-head', c: 'cab-212', r: 'stereo-reverb' },
    leads: [
      'g.out>wah.in',
      'wah.out>m.in',
      'm.send>h.in',
      'h.send>m.return',
      'm.out-l>r.in-l',
      'r.out-l>h.return',
      'h.speaker>c.in',
      'm.midi-out>r.midi-in',
      'm.ctl1>h.channel-switch',
    ],
    sounds: {
      Clean: ['h.clean', 'm.cab', 'r.reverb', 'r.program=1'],
      Lead: ['h.lead', 'm.drive', 'm.cab', 'm.delay', 'r.reverb', 'r.program=5'],
    },
  },
  (part) =>
    part.kind === 'sound' ? { ...part, calls: [{ device: 'device:m', memory: 'presets', slot: part.at - 1 }] } : part,
);

/** A delay whose mix a pedal moves from 10 to 60 %. */
const underPedal = (part: Part): Part =>
  part.kind === 'device' && part.id === 'device:dly'
    ? {
        ...part,
        jacks: [
          ...part.jacks,
          { id: 'exp', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'in', ring: 'out' } },
        ],
        actuators: [
          ...part.actuators,
          { id: 'pedal', by: { expression: 'exp' }, acts: [{ control: 'mix', scale: [10, 60] }] },
        ],
      }
    : part;
const EXPRESSION = { g: 'single-coil', dly: 'stereo-delay', amp: 'valve-head', cab: 'cab-212', ins: 'insert-lead' };
const PLAYED = ['g.out>dly.in-l', 'dly.out-l>amp.in', 'amp.speaker>cab.in'];
const PASSIVE = practice(
  'expression-on-an-insert-lead',
  'A passive volume pedal as expression',
  {
    boxes: { ...EXPRESSION, vol: 'volume' },
    leads: [...PLAYED, 'ins.trs>dly.exp', 'ins.tip>vol.in', 'vol.out>ins.ring'],
    sounds: { Echo: ['dly.delay', 'amp.clean', 'dly.mix=35'] },
  },
  underPedal,
);
const MASTER = practice('volume-in-the-loop', 'An active volume pedal in the loop', {
  boxes: { g: 'single-coil', dly: 'stereo-delay', amp: 'valve-head', cab: 'cab-212', vol: 'volume-active' },
  leads: ['g.out>amp.in', 'amp.send>vol.in', 'vol.out>dly.in-l', 'dly.out-l>amp.return', 'amp.speaker>cab.in'],
  sounds: { Echo: ['dly.delay', 'amp.lead'] },
});
const REFUSED = practice(
  'expression-by-an-active-pedal',
  'An active volume pedal as expression',
  {
    boxes: { ...EXPRESSION, vol: 'volume-active' },
    leads: [...PLAYED, 'ins.trs>dly.exp', 'ins.tip>vol.in', 'vol.out>ins.ring'],
    sounds: { Echo: ['dly.delay', 'amp.clean', 'dly.mix=35'] },
  },
  underPedal,
);

/** A selector that sends one input to any of three outputs, each switched by a control change of its own. */
const anyOfThree = (part: Part): Part => {
  if (part.kind === 'sound') return { ...part, calls: [{ device: 'device:swi', memory: 'slots', slot: part.at - 1 }] };
  if (part.kind !== 'device' || part.id !== 'device:sel') return part;
  const outs = ['a', 'b', 'c'] as const;
  return {
    ...part,
    name: 'MIDI amp selector',
    jacks: [...part.jacks, { id: 'midi-in', kind: 'midi', connector: 'DIN-5', poles: { tip: 'in' } }],
    chains: outs.map((out) => ({
      id: out,
      from: [{ at: 'in' }],
      slots: [],
      to: [{ at: out, when: [{ control: out, in: ['on'] }] }],
    })),
    controls: outs.map((out) => ({
      id: out,
      domain: { values: ['off', 'on'] },
      powerUp: { at: 'off' },
      use: 'sound' as const,
    })),
    actuators: outs.map((out, i) => ({
      id: out,
      by: { midi: 'cc' as const, number: 20 + i },
      acts: [
        {
          control: out,
          map: [
            [0, 63, 'off'],
            [64, 127, 'on'],
          ] as const,
        },
      ],
    })),
    midi: { channel: 5, messages: 'lost' as const },
  } satisfies Device;
};
const AMPS = ['a', 'b', 'c'] as const;
const toAmp = (amp: string): Hookup['hears'] => [{ from: 'device:g.out', at: `device:cab${amp}.air`, as: 'either' }];
const THREE_AMPS = practice(
  'three-amps-any-two',
  'Three amps, any two',
  {
    boxes: {
      g: 'humbucker',
      swi: 'switcher-4',
      bst: 'boost',
      sel: 'abc-out',
      ...Object.fromEntries(
        AMPS.flatMap((a) => [
          [`amp${a}`, 'one-channel-amp'],
          [`cab${a}`, 'cab-212'],
          [`mic${a}`, 'cab-mic'],
        ]),
      ),
      foh: 'desk',
    },
    leads: [
      'g.out>swi.in',
      'swi.send1>bst.in',
      'bst.out>swi.return1',
      'swi.out>sel.in',
      'swi.midi-out>sel.midi-in',
      ...AMPS.flatMap((a, i) => [
        `sel.${a}>amp${a}.in`,
        `amp${a}.speaker>cab${a}.in`,
        `cab${a}.air>mic${a}.air`,
        `mic${a}.out>foh.ch${i + 1}`,
      ]),
    ],
    sounds: {
      Verse: ['sel.a=on', 'sel.b=off', 'sel.c=off'],
      Wide: ['sel.a=on', 'sel.b=on', 'sel.c=off'],
      Wall: ['sel.a=on', 'sel.b=on', 'sel.c=on'],
      Solo: ['bst.boost', 'sel.a=off', 'sel.b=on', 'sel.c=on'],
    },
    hears: [{ from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' }, ...AMPS.flatMap(toAmp)],
  },
  anyOfThree,
);

const DIS = {
  b: 'bass',
  w: 'wireless',
  y: 'splitter',
  dst: 'distortion',
  cho: 'chorus',
  d1: 'di',
  d2: 'di',
  foh: 'desk',
};
const TWO_DIS = [
  'b.out>w.in',
  'w.out>y.in',
  'y.out1>dst.in',
  'dst.out>cho.in',
  'cho.out>d1.in',
  'd1.out>foh.ch1',
  'y.out2>d2.in',
  'd2.out>foh.ch2',
];
const BASSES = practice('two-basses-two-dis', 'Two basses, two DIs', {
  boxes: DIS,
  leads: TWO_DIS,
  sounds: { Both: [], Dirt: ['dst.distortion'], Wide: ['dst.distortion', 'cho.modulation'] },
});
const PULLED = practice('two-dis-one-pulled', 'Two DIs, the lead of one pulled', {
  boxes: DIS,
  leads: TWO_DIS.filter((l) => l !== 'd2.out>foh.ch2'),
  sounds: { Both: [], Dirt: ['dst.distortion'] },
});

/** Eighteen numbers of a musical: tempo, metre, and at which bar and beat which sound comes. */
const NUMBERS: readonly (readonly [title: string, bpm: number, metre: '4/4' | '3/4' | '6/8', cues: string])[] = [
  ['1. Overture', 132, '4/4', '1 Clean, 17 Strum, 41.3 Lead, 57 Clean'],
  ['2. The pier', 96, '4/4', '1 Strum, 33 Swell'],
  ['3. Harbour girls', 144, '4/4', '1 Crunch, 25 Lead, 41 Crunch'],
  ['4. Lamp song', 66, '6/8', '1 Swell, 17.4 Clean'],
  ['5. The quarrel', 120, '4/4', '1 Crunch, 9.2 Wall, 31 Clean'],
  ['6. Tide waltz', 156, '3/4', '1 Clean, 49 Strum'],
  ['7. Storm', 168, '4/4', '1 Wall, 13 Lead, 45.4 Wall, 61 Swell'],
  ['8. Quiet after', 72, '4/4', '1 Swell'],
  ['9. Finale one', 138, '4/4', '1 Strum, 33 Crunch, 65 Lead'],
  ['10. Second overture', 132, '4/4', '1 Clean, 17 Crunch'],
  ['11. Nets', 108, '6/8', '1 Strum, 25 Clean'],
  ['12. The letter', 60, '4/4', '1 Swell, 21.2 Clean'],
  ['13. Rope dance', 176, '4/4', '1 Crunch, 33 Lead, 49 Crunch'],
  ['14. Bell', 80, '3/4', '1 Clean'],
  ['15. Reprise', 96, '4/4', '1 Strum, 17 Swell'],
  ['16. Chase', 184, '4/4', '1 Wall, 29.3 Crunch, 57 Wall'],
  ['17. Farewell', 63, '4/4', '1 Swell, 9 Clean, 25 Swell'],
  ['18. Finale two', 138, '4/4', '1 Strum, 33 Crunch, 65 Lead, 97 Wall'],
];
const PIT_SOUNDS = ['Clean', 'Strum', 'Crunch', 'Lead', 'Wall', 'Swell'] as const;
const pitSound = (name: string): Id<'sound'> => `sound:${name.toLowerCase()}`;
const pitSong = ([title, bpm, metre, cues]: (typeof NUMBERS)[number], i: number): Song => ({
  kind: 'song',
  id: `song:${i + 1}`,
  title,
  bpm,
  ...(metre === '4/4' ? {} : { metre: readMetre(metre)! }),
  cues: cues.split(', ').map((said) => {
    const [at, name] = said.split(' ') as [string, string];
    return { name, at: readPlace(at, readMetre(metre)!)!, call: { sound: pitSound(name) } };
  }),
});
const PIT_BOXES = practice(
  'theatre-pit',
  'Theatre pit, the computer plays',
  {
    boxes: {
      g: 'humbucker',
      tun: 'tuner',
      pre: 'amp-modeller',
      dly: 'stereo-delay',
      d1: 'di',
      d2: 'di',
      foh: 'desk',
      tml: 'timeline',
      box: 'midi-thru',
    },
    leads: [
      'g.out>tun.in',
      'tun.out>pre.in',
      'pre.out-l>dly.in-l',
      'pre.out-r>dly.in-r',
      'dly.out-l>d1.in',
      'dly.out-r>d2.in',
      'd1.out>foh.ch1',
      'd2.out>foh.ch2',
      'tml.midi-out>box.midi-in',
      'box.thru1>pre.midi-in',
      'box.thru2>dly.midi-in',
    ],
    sounds: Object.fromEntries(
      PIT_SOUNDS.map((name, i) => [
        name,
        ['pre.amp', 'pre.cab', `pre.program=${i}`, ...(i % 2 ? ['dly.delay', `dly.program=${i}`] : ['dly.program=0'])],
      ]),
    ),
  },
  (part) =>
    part.kind === 'sound' ? { ...part, calls: [{ device: 'device:tml', memory: 'entries', slot: part.at - 1 }] } : part,
);
const PIT: Practice = {
  ...PIT_BOXES,
  rig: rigOf([
    ...everyPart(PIT_BOXES.rig),
    ...NUMBERS.map(pitSong),
    {
      kind: 'setList',
      id: 'setList:show',
      name: 'The show',
      songs: NUMBERS.map((_, i): Id<'song'> => `song:${i + 1}`),
    },
  ]),
};

export const PRACTICE: readonly Practice[] = [
  COVERS,
  PASSIVE,
  MASTER,
  REFUSED,
  THREE_AMPS,
  BASSES,
  PULLED,
  MODELLER,
  COMMANDS,
  PIT,
  ...ABOUT_NUMBERS,
];
