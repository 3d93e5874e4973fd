import type { Device, Jack } from '../src/rig/device.js';
import type { Hookup } from '../src/rig/hookup.js';
import type { Id } from '../src/rig/ids.js';
import { everyPart, rigOf, type Part, type Rig } from '../src/rig/rig.js';
import type { Song } from '../src/rig/show.js';
import { readMetre, readPlace } from '../src/units/metre.js';
import { smallRig } from './small-rig.js';

/**
 * Rigs as people really wire and play them, each with what it must answer in `practice.test.ts`; all of them made up.
 */
export interface Practice {
  readonly file: string;
  readonly title: string;
  readonly rig: Rig;
}

const named =
  (title: string, more: (part: Part) => Part = (p) => p) =>
  (part: Part): Part =>
    more(part.kind === 'about' ? { ...part, name: title } : part);
const practice = (
  file: string,
  title: string,
  rig: Omit<Parameters<typeof smallRig>[0], 'with'>,
  more?: (part: Part) => Part,
): Practice => ({ file, title, rig: smallRig({ ...rig, with: named(title, more) }) });

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

/** A dry cabinet in the middle, wet ones on both sides; in one sound the delay was stored at 60 %. */
const WET_DRY_WET = practice('wet-dry-wet', 'Wet, dry, wet', {
  boxes: {
    g: 'single-coil',
    hed: 'valve-head',
    lod: 'load-box',
    dry: 'cab-212',
    vol: 'volume-active',
    dly: 'stereo-delay',
    rev: 'stereo-reverb',
    spw: 'stereo-power-amp',
    left: 'cab-212',
    righ: 'cab-212',
  },
  leads: [
    'g.out>hed.in 6',
    'hed.speaker>lod.in 1',
    'lod.cabinet>dry.in 1.5',
    'lod.line>vol.in 3',
    'vol.out>dly.in-l 0.3',
    'dly.out-l>rev.in-l 0.3',
    'dly.out-r>rev.in-r 0.3',
    'rev.out-l>spw.in-l 3',
    'rev.out-r>spw.in-r 3',
    'spw.speaker-l>left.in 4',
    'spw.speaker-r>righ.in 4',
  ],
  sounds: {
    Echo: ['hed.clean', 'dly.delay', 'dly.mix=100'],
    Hall: ['hed.clean', 'rev.reverb', 'rev.mix=100'],
    Far: ['hed.lead', 'dly.delay', 'dly.mix=100', 'rev.reverb', 'rev.mix=40'],
    Leak: ['hed.lead', 'dly.delay', 'dly.mix=60'],
  },
});

/** What a box takes instead of what such boxes usually take. */
const takes =
  (supply: Partial<NonNullable<Jack['supply']>>) =>
  (device: Device): Device => ({
    ...device,
    jacks: device.jacks.map((j) =>
      j.kind === 'power' && j.poles.tip === 'in' && j.supply ? { ...j, supply: { ...j.supply, ...supply } } : j,
    ),
  });
const OWN_SUPPLY: Readonly<Record<string, (device: Device) => Device>> = {
  'device:mx2': takes({ milliamps: 650 }),
  'device:swi': takes({ milliamps: 200 }),
  'device:dst': takes({ volts: [18] }),
  'device:low': takes({ centre: 'positive' }),
  'device:mod': takes({ volts: [12], centre: 'ac', milliamps: 200 }),
  'device:mul': (device) => ({ ...device, name: '15 m multicore', figures: { ...device.figures, metres: 15 } }),
  // Borrowed for tonight, and run from its own battery.
  'device:fuz': (device) => ({
    ...device,
    trial: { since: '2026-05-31', borrowed: true },
    jacks: device.jacks.filter((j) => j.kind !== 'power'),
    figures: { ...device.figures, battery: { mAh: 500, volts: 9, milliamps: 5 } },
  }),
};

/** A drawer with its panel, a switcher within a loop of a multi-effect, and an amp at the end of a multicore. */
const RACK = practice(
  'rack-panel-multicore',
  'Rack, panel, multicore',
  {
    boxes: {
      g: 'humbucker',
      pan: 'jack-panel',
      cmp: 'compressor',
      mx2: 'multi-two-loops',
      swi: 'switcher-4',
      low: 'low-drive',
      dst: 'distortion',
      mod: 'chorus',
      fuz: 'fuzz',
      mul: 'multicore',
      hed: 'valve-head',
      cab: 'cab-212',
      psu: 'supply-8',
    },
    leads: [
      'g.out>pan.in1 6',
      'pan.out1>cmp.in 0.6',
      'cmp.out>mx2.in 0.3',
      'mx2.send1>swi.in 0.3',
      'swi.send1>low.in 0.3',
      'low.out>swi.return1 0.3',
      'swi.send2>dst.in 0.3',
      'dst.out>swi.return2 0.3',
      'swi.send3>mod.in 0.3',
      'mod.out>swi.return3 0.3',
      'swi.send4>fuz.in 0.3',
      'fuz.out>swi.return4 0.3',
      'swi.out>mx2.return1 0.3',
      'mx2.send2>mul.in1 0.6',
      'mul.out1>hed.in 0.5',
      'hed.send>mul.in2 0.5',
      'mul.out2>mx2.return2 0.6',
      'mx2.out-l>mul.in3 0.6',
      'mul.out3>hed.return 0.5',
      'hed.speaker>cab.in 1.5',
      'psu.out1>mul.supply-in1 0.6',
    ],
    sounds: {
      Clean: ['mx2.loop2=on', 'hed.clean'],
      Crunch: ['mx2.loop1=on', 'low.overdrive', 'mx2.loop2=on', 'hed.clean'],
      Wall: ['mx2.loop1=on', 'dst.distortion', 'mod.modulation', 'mx2.loop2=on', 'hed.lead'],
      'Fuzz tonight': ['mx2.loop1=on', 'fuz.fuzz', 'mx2.loop2=on', 'hed.clean'],
    },
  },
  (part) => (part.kind === 'device' ? (OWN_SUPPLY[part.id]?.(part) ?? part) : part),
);

/** Eleven boxes on five outputs: ten want supply, and a lead with several plugs is in the bag. */
const FLY = practice('fly-kit', 'Fly kit against the clock', {
  boxes: {
    g: 'single-coil',
    tun: 'tuner',
    wah: 'wah',
    cmp: 'compressor',
    fuz: 'fuzz',
    low: 'low-drive',
    hig: 'high-drive',
    vol: 'volume',
    cho: 'chorus',
    trm: 'tremolo',
    dly: 'analog-delay',
    rvb: 'hall-reverb',
    amp: 'one-channel-amp',
    cab: 'cab-112',
    psu: 'supply-5',
    dsl: 'daisy-lead',
  },
  leads: [
    'g.out>tun.in 5',
    'tun.out>wah.in 0.3',
    'wah.out>fuz.in 0.3',
    'fuz.out>cmp.in 0.3',
    'cmp.out>low.in 0.3',
    'low.out>hig.in 0.3',
    'hig.out>vol.in 0.3',
    'vol.out>cho.in 0.3',
    'cho.out>trm.in 0.3',
    'trm.out>dly.in 0.3',
    'dly.out>rvb.in 0.3',
    'rvb.out>amp.in 5',
    'amp.speaker>cab.in 1',
  ],
  sounds: {
    Clean: ['cmp.compressor', 'rvb.reverb'],
    Crunch: ['low.overdrive', 'rvb.reverb'],
    Lead: ['low.overdrive', 'hig.overdrive', 'dly.delay', 'rvb.reverb'],
    Waves: ['cmp.compressor', 'trm.tremolo', 'rvb.reverb'],
    'Fuzz once': ['fuz.fuzz', 'rvb.reverb'],
  },
});

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
  WET_DRY_WET,
  RACK,
  FLY,
];
