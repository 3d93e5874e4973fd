import { makeDevice } from '../src/catalogue/make.js';
import { carryOutWiring, planWiring, type School } from '../src/edits/wire.js';
import { apply } from '../src/change/apply.js';
import type { Control, Device } from '../src/rig/device.js';
import type { Hookup } from '../src/rig/hookup.js';
import { ref, type Id, type Ref } from '../src/rig/ids.js';
import { blockIds } from '../src/rig/domain.js';
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
  'analog-delay',
];
const MIDI_BOXES = ['stereo-modulation', 'stereo-delay', 'stereo-reverb', 'midi-overdrive'];
const CONTROLLERS = ['switcher-8', 'switcher-8', 'switcher-4', 'switcher-5-plain', 'midi-controller'];

export interface RandomRigSize {
  readonly pedals: readonly [number, number];
  readonly midi: readonly [number, number];
  readonly sounds: readonly [number, number];
  readonly moves: readonly [number, number];
}

export const SMALL_RIG: RandomRigSize = { pedals: [0, 5], midi: [0, 4], sounds: [1, 6], moves: [0, 3] };

const HOOKUP: Id<'hookup'> = 'hookup:main';

/**
 * A rig that somebody could own, wired by one of the schools and then withQuirks: toggles, shared channels, boxes that
 * do not reload, pulled cables, typed slots.
 */
export const randomRig = (
  seed: number,
  size: RandomRigSize = SMALL_RIG,
): { readonly rig: Rig; readonly hookup: Hookup } => {
  const r = new Random(seed);
  const devices = randomDevices(r, size);
  const programs = devices.flatMap((d) => randomPrograms(r, d));
  const hookup: Hookup = {
    kind: 'hookup',
    id: HOOKUP,
    name: 'Main',
    settings: {},
    hears: [],
    assumes: randomAssumptions(r, devices),
  };
  const bare = rigOf([
    { kind: 'about', id: ABOUT, name: `Random ${seed}`, notes: '' },
    ...devices,
    ...programs,
    hookup,
  ]);
  const school = r.pick<School>(['straight', 'loops', 'loops', 'four cables']);
  const plan = [planWiring(bare, school), planWiring(bare, 'loops'), planWiring(bare, 'straight')].find(
    (p) => p.steps.length > 0,
  )!;
  const cables = carryOutWiring(bare, HOOKUP, plan, (i) => `cable:c${i}`).put.filter(() => r.chance(95));
  const sounds = randomSounds(r, devices, programs, size);
  const moves = randomMoves(r, devices, sounds, size);
  const typed = randomTypedSlots(r, devices, sounds);
  const built = apply(bare, { put: [...cables, ...sounds, ...moves, ...typed] as readonly Part[], remove: [] });
  if (!built.ok) throw new Error(`random rig ${seed}: ${JSON.stringify(built.error[0])}`);
  return { rig: built.value.rig, hookup };
};

const randomDevices = (r: Random, size: RandomRigSize): readonly Device[] => {
  const keys = [
    'single-coil',
    ...(r.chance(40) ? ['wireless'] : []),
    ...(r.chance(60) ? ['tuner'] : []),
    r.pick(CONTROLLERS),
    ...(r.chance(15) ? ['midi-controller'] : []),
    ...Array.from({ length: r.int(...size.pedals) }, () => r.pick(PEDALS)),
    ...Array.from({ length: r.int(...size.midi) }, () => r.pick(MIDI_BOXES)),
    r.pick(['valve-head', 'valve-head', 'one-channel-amp']),
    'cab-212',
    ...(r.chance(50) ? ['cab-mic', 'desk'] : []),
  ];
  return keys.map((key, i) =>
    withQuirks(r, makeDevice(key, `device:d${i}`, r.chance(25) ? { channel: r.int(1, 4) } : {})),
  );
};

/**
 * What makes real boxes treacherous: a bypass that only toggles, no reload of the same program, values that the
 * program does not hold, pulse inputs.
 */
const withQuirks = (r: Random, device: Device): Device => {
  let made = device;
  if (made.midi) {
    if (r.chance(25))
      made = {
        ...made,
        actuators: made.actuators.map((a) =>
          a.id === 'on/off' ? { ...a, acts: [{ control: 'on', toggle: ['off', 'on'] }] } : a,
        ),
      };
    if (r.chance(30)) made = { ...made, memories: made.memories.map((m) => ({ ...m, again: 'nothing' as const })) };
    if (r.chance(25))
      made = {
        ...made,
        memories: made.memories.map((m) => ({ ...m, stores: m.stores.filter((s) => s !== 'on') })),
        controls: made.controls.map((c) =>
          c.id === 'on' ? { ...c, powerUp: r.pick(['left', 'unknown'] as const) } : c,
        ),
      };
    if (r.chance(10)) made = { ...made, midi: { ...made.midi!, omni: true } };
    if (r.chance(10)) made = { ...made, actuators: made.actuators.filter((a) => a.id !== 'on/off') };
  }
  if (made.jacks.some((j) => j.id === 'channel-switch') && r.chance(40)) {
    made = {
      ...made,
      actuators: [
        {
          id: 'pulse',
          by: { contact: 'channel-switch', edge: 'closing' },
          acts: [{ control: 'channel', toggle: ['clean', 'lead'] }],
        },
        ...(r.chance(50)
          ? [
              {
                id: 'button',
                by: { foot: 'button', gesture: 'press' as const },
                acts: [{ control: 'channel', toggle: ['clean', 'lead'] as const }],
              },
            ]
          : []),
      ],
    };
  }
  if (r.chance(10))
    made = {
      ...made,
      controls: made.controls.map((c): Control =>
        c.id === 'on' && c.powerUp === 'left' ? { ...c, powerUp: { at: 'off' } } : c,
      ),
    };
  return made;
};

const randomPrograms = (r: Random, device: Device): readonly Program[] => {
  const memory = device.memories.find((m) => m.id === 'programs');
  if (!memory) return [];
  return Array.from({ length: r.int(0, 4) }, (_, i): Program => ({
    kind: 'program',
    id: `program:${device.id.slice(7)}-${i}`,
    device: device.id,
    memory: memory.id,
    number: i * 3,
    name: `Program ${i}`,
    contents: r.chance(15)
      ? 'unplanned'
      : Object.fromEntries(memory.stores.map((s) => [s, s === 'mix' ? r.int(0, 100) : r.pick(['off', 'on'])])),
    acts: [],
    assigns: [],
  }));
};

const randomAssumptions = (r: Random, devices: readonly Device[]): Hookup['assumes'] =>
  devices
    .filter((d) => d.controls.length === 1 && d.controls[0]!.id === 'on' && r.chance(15))
    .map((d) => ({ control: ref(d.id, 'on'), value: 'on', why: 'taped' }));

const stagesOf = (devices: readonly Device[]): readonly Ref[] =>
  devices
    .filter((d) => d.zone === 'floor' || d.zone === 'amp')
    .flatMap((d) =>
      d.chains
        .flatMap((c) => blockIds(c.slots))
        .filter((b) => b !== 'tuner')
        .map((b) => ref(d.id, b)),
    );

const randomWants = (r: Random, devices: readonly Device[], programs: readonly Program[]): readonly Want[] => {
  const wants = new Map<Ref, Want>();
  for (const stage of r.some(stagesOf(devices), 45))
    wants.set(stage, { stage, is: r.chance(8) ? 'any' : r.chance(90) ? 'in' : 'out' });
  for (const device of devices) {
    if (!device.memories.some((m) => m.id === 'programs') || !r.chance(65)) continue;
    const known = programs.filter((p) => p.device === device.id);
    const control = ref(device.id, 'program');
    wants.set(control, { control, is: known.length && r.chance(85) ? r.pick(known).number : r.int(0, 12) });
    if (r.chance(20)) wants.set(ref(device.id, 'mix'), { control: ref(device.id, 'mix'), is: r.int(0, 100) });
  }
  return [...wants.values()];
};

const randomSounds = (
  r: Random,
  devices: readonly Device[],
  programs: readonly Program[],
  size: RandomRigSize,
): readonly Sound[] => {
  const controllers = devices.filter((d) => d.memories.some((m) => m.by === 'slot'));
  const order = stagesOf(devices);
  return Array.from({ length: r.int(...size.sounds) }, (_, i): Sound => {
    const called = controllers.filter((_, k) => k === 0 || r.chance(50));
    return {
      kind: 'sound',
      id: `sound:s${i}`,
      name: `Sound ${i}`,
      role: 'other',
      at: i,
      wants: randomWants(r, devices, programs),
      ...(r.chance(25) ? { order: [...order].sort(() => (r.chance(50) ? 1 : -1)) } : {}),
      ...(i > 0 && r.chance(20) ? { parent: `sound:s${r.int(0, i - 1)}` } : {}),
      calls: called.map((d) => ({ device: d.id, memory: 'slots', slot: i })),
    };
  });
};

const randomMoves = (
  r: Random,
  devices: readonly Device[],
  sounds: readonly Sound[],
  size: RandomRigSize,
): readonly Move[] => {
  const controller = devices.find((d) => d.memories.some((m) => m.assignable))!;
  return ['E', 'F', 'G', 'H'].slice(0, r.int(...size.moves)).map((name, i): Move => {
    const stages = r.some(stagesOf(devices), 25).map((stage): Want => ({ stage, is: r.pick(['in', 'out'] as const) }));
    const mixes = r
      .some(
        devices.filter((d) => d.controls.some((c) => c.id === 'mix')),
        40,
      )
      .map((d): Want => ({ control: ref(d.id, 'mix'), is: r.int(0, 100) }));
    return {
      kind: 'move',
      id: `move:m${i}`,
      name: `Move ${i}`,
      sounds: r.chance(50) ? 'all' : r.some(sounds, 50).map((s) => s.id),
      latch: r.chance(50),
      at: [{ device: controller.id, switch: name }],
      on: [...stages, ...mixes],
      off: r.chance(50) ? [] : stages.map((w) => ({ ...w, is: 'out' }) as Want),
    };
  });
};

/** Slots as somebody typed them, with the mistakes that people make: a number one off, a loop left on. */
const randomTypedSlots = (r: Random, devices: readonly Device[], sounds: readonly Sound[]): readonly Program[] => {
  const controller = devices.find((d) => d.memories.some((m) => m.by === 'slot'))!;
  const memory = controller.memories[0]!;
  const out = controller.jacks.find((j) => j.kind === 'midi' && j.poles.tip === 'out');
  return r.some(sounds, 12).map((sound, i): Program => ({
    kind: 'program',
    id: `program:typed-${i}`,
    device: controller.id,
    memory: memory.id,
    number: sound.calls[0]!.slot,
    name: sound.name,
    contents: Object.fromEntries(
      memory.stores.map((s) => {
        const control = controller.controls.find((c) => c.id === s)!;
        return [
          s,
          'values' in control.domain
            ? r.pick(control.domain.values)
            : 'min' in control.domain
              ? 0
              : control.domain.arrange.join(' '),
        ];
      }),
    ),
    acts: out
      ? Array.from({ length: r.int(0, 3) }, () => ({
          send: r.chance(70)
            ? { pc: r.int(0, 12), channel: r.int(1, 6) }
            : { cc: r.pick([20, 102]), value: r.pick([0, 64, 127]), channel: r.int(1, 6) },
          at: out.id,
        }))
      : [],
    assigns: [],
  }));
};
