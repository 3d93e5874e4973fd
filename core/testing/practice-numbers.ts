import type { Device, Jack } from '../src/rig/device.js';
import { practice, type Practice } from './practice-rig.js';

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

export const ABOUT_NUMBERS: readonly Practice[] = [WET_DRY_WET, RACK, FLY];
