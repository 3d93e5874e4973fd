import { makeDevice } from '../src/catalogue/make.js';
import { apply } from '../src/change/apply.js';
import { carryOutWiring, planWiring } from '../src/edits/wire.js';
import type { Device, Insert } from '../src/rig/device.js';
import type { Cable, Hookup } from '../src/rig/hookup.js';
import { ref, type Id, type Ref } from '../src/rig/ids.js';
import type { Program } from '../src/rig/program.js';
import { ABOUT, rigOf, type Part, type Rig } from '../src/rig/rig.js';
import type { Move, Sound, Want } from '../src/rig/sound.js';
import { Random } from './random.js';

const PEDALS = [
  'compressor',
  'low-drive',
  'high-drive',
  'distortion',
  'fuzz',
  'boost',
  'wah',
  'gate',
  'octave',
  'tremolo',
  'chorus',
  'phaser',
  'eq',
  'pitch',
  'filter',
  'analog-delay',
];
const MIDI_BOXES = ['stereo-modulation', 'stereo-delay', 'stereo-reverb', 'midi-overdrive'];

/** The same with room for more sounds than a switcher has by itself. */
const withSlots = (made: Device, slots: number): Device => {
  const [memory] = made.memories;
  if (!memory || slots <= memory.size) return made;
  const banks = Array.from({ length: Math.ceil(slots / 4) }, (_, i) => i + 1);
  return {
    ...made,
    memories: [{ ...memory, size: slots }],
    controls: made.controls.map((c) =>
      c.id === memory.control
        ? { ...c, domain: { min: 0, max: slots - 1, unit: '' } }
        : c.id === memory.bank?.control
          ? { ...c, domain: { values: banks } }
          : c,
    ),
    actuators: made.actuators.map((a) => ({
      ...a,
      acts: a.acts.map((act) =>
        'load' in act && typeof act.slot === 'object'
          ? { ...act, slot: { ...act.slot, banks } }
          : 'step' in act
            ? { ...act, step: a.id === 'down' ? [...banks].reverse() : banks }
            : act,
      ),
    })),
  };
};

/** A switcher with as many loops as a giant rack has. */
const bigSwitcher = (loops: number): Device => {
  const made = makeDevice('switcher-8', 'device:swi');
  const names = Array.from({ length: loops }, (_, i) => `loop${i + 1}`);
  const chain = made.chains[0]!;
  return {
    ...made,
    name: `${loops}-loop switcher`,
    jacks: [
      ...made.jacks.filter((j) => !/^(send|return)/.test(j.id)),
      ...names.flatMap((_, i) =>
        ['send', 'return'].map((w) => ({ ...made.jacks.find((j) => j.id === `${w}1`)!, id: `${w}${i + 1}` })),
      ),
    ],
    chains: [
      {
        ...chain,
        slots: names.map((id, i): Insert => ({
          ...(chain.slots[0] as Insert),
          id,
          send: [{ at: `send${i + 1}` }],
          return: [{ at: `return${i + 1}` }],
          on: [{ control: id, in: ['on'] }],
        })),
      },
      ...made.chains.slice(1),
    ],
    controls: [
      ...made.controls
        .filter((c) => !/^loop\d/.test(c.id))
        .map((c) => (c.id === 'order' ? { ...c, domain: { arrange: names, branches: 0 } } : c)),
      ...names.map((id) => ({ ...made.controls.find((c) => c.id === 'loop1')!, id, name: id })),
    ],
    memories: made.memories.map((m) => ({ ...m, stores: [...m.stores.filter((s) => !/^loop\d/.test(s)), ...names] })),
  };
};

const AMOUNTS = ['time', 'feedback', 'tone', 'depth', 'rate', 'level'];

/** Programs of a big box hold more than on/off and mix. */
const withMoreAmounts = (made: Device): Device => ({
  ...made,
  controls: [...made.controls, ...AMOUNTS.map((a) => ({ ...made.controls.find((c) => c.id === 'mix')!, id: a }))],
  actuators: [
    ...made.actuators,
    ...AMOUNTS.map((a, i) => ({
      id: a,
      by: { midi: 'cc' as const, number: 30 + i },
      acts: [{ control: a, scale: [0, 100] as const }],
    })),
  ],
  memories: made.memories.map((m) => ({ ...m, stores: [...m.stores, ...AMOUNTS] })),
});

export interface GiantSize {
  readonly sounds: number;
  readonly pedals: number;
  readonly midi: number;
  readonly moves: number;
}

/** 128 sounds, 40 boxes, more than 200 controls, 60 moves: as large as a rig gets. */
export const GIANT: GiantSize = { sounds: 128, pedals: 16, midi: 16, moves: 60 };

/**
 * A giant but sensible rig, the same for the same seed. A few boxes are stubborn: they do not reload, or only toggle.
 */
export const giantRig = (
  seed = 1,
  { sounds: count, pedals, midi, moves: moveCount }: GiantSize = GIANT,
): { readonly rig: Rig; readonly hookup: Hookup } => {
  const r = new Random(seed);
  const id = (name: string): Id<'device'> => `device:${name}`;
  const boxes: Device[] = [
    makeDevice('single-coil', id('gtr')),
    makeDevice('wireless', id('wls')),
    makeDevice('tuner', id('tun')),
    withSlots(bigSwitcher(pedals + midi + 1), count),
    ...Array.from({ length: pedals }, (_, i) => makeDevice(PEDALS[i % PEDALS.length]!, id(`p${i}`))),
    ...Array.from({ length: midi }, (_, i): Device => {
      const made = withMoreAmounts(
        makeDevice(MIDI_BOXES[i % MIDI_BOXES.length]!, id(`m${i}`), { channel: (i % 16) + 1 }),
      );
      if (i % 5 === 4) return { ...made, memories: made.memories.map((m) => ({ ...m, again: 'nothing' as const })) };
      return made;
    }),
    makeDevice('valve-head', id('hed')),
    makeDevice('cab-212', id('cab')),
    makeDevice('cab-mic', id('mcb')),
    makeDevice('desk', id('foh')),
  ];
  const devices = boxes.map((d, i) => ({ ...d, at: i + 1 }));
  const hookup: Hookup = { kind: 'hookup', id: 'hookup:main', name: 'Main', settings: {}, hears: [], assumes: [] };
  const programs = devices
    .filter((d) => d.memories.some((m) => m.id === 'programs'))
    .flatMap((d) =>
      Array.from({ length: 12 }, (_, n): Program => ({
        kind: 'program',
        id: `program:${d.id.slice(7)}-${n}`,
        device: d.id,
        memory: 'programs',
        number: n,
        name: `P${n}`,
        contents: {
          on: n === 0 ? 'off' : 'on',
          mix: (n * 7) % 101,
          ...Object.fromEntries(AMOUNTS.map((a, k) => [a, (n * 7 + k) % 101])),
        },
        acts: [],
        assigns: [],
      })),
    );
  const bare = rigOf([{ kind: 'about', id: ABOUT, name: `Giant ${seed}`, notes: '' }, ...devices, ...programs, hookup]);
  const plan = planWiring(bare, 'four cables');
  const cables = carryOutWiring(bare, hookup.id, plan, (i) => `cable:c${i}`).put as readonly Cable[];
  const stage = (d: Device): Ref => ref(d.id, (d.chains[0]!.slots[0] as { id: string }).id);
  const looped = devices.filter((d) => /^device:[pm]\d/.test(d.id));
  const sounds = Array.from({ length: count }, (_, i): Sound => {
    const wants: Want[] = [
      { stage: ref(id('hed'), r.pick(['clean', 'lead'])), is: 'in' },
      { control: ref(id('swi'), 'trim'), is: r.int(-3, 4) },
    ];
    for (const device of looped) {
      const isIn = r.chance(45);
      if (isIn) wants.push({ stage: stage(device), is: 'in' });
      if (device.midi) wants.push({ control: ref(device.id, 'program'), is: isIn ? r.int(1, 11) : 0 });
    }
    return {
      kind: 'sound',
      id: `sound:s${i}`,
      name: `Sound ${i + 1}`,
      role: 'other',
      at: i + 1,
      wants,
      calls: [{ device: id('swi'), memory: 'slots', slot: i }],
    };
  });
  const switches = ['E', 'F', 'G', 'H'];
  const moves = Array.from({ length: moveCount }, (_, i): Move => {
    const box = r.pick(devices.filter((d) => d.midi));
    const share = sounds
      .filter(
        (_, k) => Math.floor(k / Math.ceil((count * switches.length) / moveCount)) === Math.floor(i / switches.length),
      )
      .map((s) => s.id);
    return {
      kind: 'move',
      id: `move:m${i}`,
      name: `Move ${i + 1}`,
      sounds: share,
      latch: i % 2 === 0,
      at: [{ device: id('swi'), switch: switches[i % 4]! }],
      on: [
        { control: ref(box.id, 'mix'), is: r.int(0, 100) },
        { control: ref(id('swi'), 'trim'), is: 4 },
      ],
      off: [],
    };
  });
  const built = apply(bare, { put: [...cables, ...sounds, ...moves] as readonly Part[], remove: [] });
  if (!built.ok) throw new Error(`giant rig: ${JSON.stringify(built.error[0])}`);
  return { rig: built.value.rig, hookup };
};
