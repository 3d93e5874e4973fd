import { isRecord } from '../known/keys.js';
import type { Chain, Control, Device, Slot, Stage, Tap } from '../rig/device.js';
import { blockIds } from '../rig/domain.js';
import { audioIn, audioOut, is } from './parts.js';
import { withSetBy } from './box-parts.js';

/** A row of stages in a box: a chain by its name, then split and arm for each split that one goes into. */
export type Row = readonly string[];

/** A place in a row, counted from 0. */
export interface Place {
  readonly row: Row;
  readonly at: number;
}

/** A box with something new in it, and where that stands. */
export interface Added {
  readonly device: Device;
  readonly place: Place;
}

/** Stages that are there whenever the box has power; every other one is switched by a foot until somebody says more. */
const NEVER_SWITCHED: ReadonlySet<Stage> = new Set<Stage>([
  'preamp',
  'power amp',
  'cabinet',
  'cabinet simulation',
  'volume',
  'buffer',
  'isolator',
  'DI',
  'channel',
  'generator',
  'wireless',
  'microphone',
]);

/** What people put into a box, in the order in which they look for it. */
export const STAGE_GROUPS: Readonly<Record<string, readonly Stage[]>> = {
  Gain: ['boost', 'overdrive', 'distortion', 'fuzz', 'compressor', 'eq', 'gate', 'enhancer'],
  'Pitch and sweep': ['wah', 'filter', 'octave', 'pitch'],
  'Time and movement': ['modulation', 'tremolo', 'delay', 'reverb', 'looper'],
  Amp: ['preamp', 'channel', 'power amp', 'cabinet', 'cabinet simulation'],
  Passing: ['tuner', 'volume', 'buffer', 'isolator', 'DI', 'wireless', 'microphone', 'generator'],
};

const inSlots = (slots: readonly Slot[], way: Row): readonly Slot[] | undefined => {
  const [fork, arm, ...rest] = way;
  if (fork === undefined) return slots;
  const found = slots.find((s) => s.id === fork);
  const into = found?.is === 'fork' ? found.arms.find((a) => a.id === arm) : undefined;
  return into && inSlots(into.slots, rest);
};

/** What stands in a row; nothing where there is no such row any more. */
export const rowIn = (device: Device, [chain, ...way]: Row): readonly Slot[] => {
  const found = device.chains.find((c) => c.id === chain);
  return (found && inSlots(found.slots, way)) ?? [];
};

export const slotAt = (device: Device, { row, at }: Place): Slot | undefined => rowIn(device, row)[at];

const withSlots = (slots: readonly Slot[], way: Row, put: readonly Slot[]): readonly Slot[] => {
  const [fork, arm, ...rest] = way;
  if (fork === undefined) return put;
  return slots.map((s) =>
    s.is === 'fork' && s.id === fork
      ? { ...s, arms: s.arms.map((a) => (a.id === arm ? { ...a, slots: withSlots(a.slots, rest, put) } : a)) }
      : s,
  );
};

const withRow = (device: Device, [chain, ...way]: Row, put: readonly Slot[]): Device => ({
  ...device,
  chains: device.chains.map((c) => (c.id === chain ? { ...c, slots: withSlots(c.slots, way, put) } : c)),
});

/** The box with another stage, loop or split in the place of one. */
export const withSlot = (device: Device, { row, at }: Place, slot: Slot): Device =>
  withRow(device, row, rowIn(device, row).with(at, slot));

/** @example freshName(['delay'], 'delay') // 'delay-2' */
export const freshName = (taken: readonly string[], wish: string): string => {
  if (!taken.includes(wish)) return wish;
  let n = 2;
  while (taken.includes(`${wish}-${n}`)) n += 1;
  return `${wish}-${n}`;
};

const slotNames = (slots: readonly Slot[]): readonly string[] =>
  slots.flatMap((s) => [s.id, ...(s.is === 'fork' ? s.arms.flatMap((a) => slotNames(a.slots)) : [])]);
const namesIn = (device: Device): readonly string[] => device.chains.flatMap((c) => slotNames(c.slots));

/** An order that the box keeps by a control knows every stage that it arranges. */
const arranged = (device: Device, row: Row, change: (names: readonly string[]) => readonly string[]): Device => {
  const order = row.length === 1 ? device.chains.find((c) => c.id === row[0])?.order : undefined;
  if (order === undefined) return device;
  return {
    ...device,
    controls: device.controls.map((c): Control => {
      if (c.id !== order || !('arrange' in c.domain)) return c;
      const arrange = change(c.domain.arrange);
      const isLeft = (word: string) =>
        arrange.includes(word) || !('arrange' in c.domain && c.domain.arrange.includes(word));
      return {
        ...c,
        domain: { ...c.domain, arrange },
        powerUp:
          typeof c.powerUp === 'object'
            ? { at: String(c.powerUp.at).split(/\s+/).filter(isLeft).join(' ') }
            : c.powerUp,
      };
    }),
  };
};

const put = (device: Device, place: Place, slot: Slot): Added => {
  const row = rowIn(device, place.row);
  const at = Math.min(place.at, row.length);
  const made = withRow(device, place.row, row.toSpliced(at, 0, slot));
  return { device: arranged(made, place.row, (names) => [...names, slot.id]), place: { row: place.row, at } };
};

const OFF_ON = { values: ['off', 'on'] } as const;

/** The box with a control that a foot turns over between off and on. */
const withSwitch = (device: Device, wish: string): { readonly device: Device; readonly control: string } => {
  const taken = [...device.controls.map((c) => c.id), ...device.actuators.map((a) => a.id)];
  const control = freshName(taken, wish);
  const made: Device = {
    ...device,
    controls: [...device.controls, { id: control, domain: OFF_ON, powerUp: 'left', use: 'sound' }],
  };
  const set = withSetBy(made, control, 'foot');
  return { device: set.ok ? set.value : made, control };
};

const asName = (text: string): string => text.replaceAll(' ', '-');

/** Puts a stage there. What a foot usually switches gets a switch of its own. */
export const addStage = (device: Device, place: Place, stage: Stage): Added => {
  const id = freshName(namesIn(device), asName(stage));
  if (NEVER_SWITCHED.has(stage)) return put(device, place, { is: 'block', id, stage });
  const { device: switched, control } = withSwitch(device, id);
  return put(switched, place, { is: 'block', id, stage, on: is(control, 'on') });
};

/** Puts a loop there, with a send and a return and a switch that brings it in. */
export const addLoop = (device: Device, place: Place): Added => {
  const loops = namesIn(device).filter((n) => /^loop/.test(n)).length + 1;
  const id = freshName(namesIn(device), `loop${loops}`);
  const taken = device.jacks.map((j) => j.id);
  const [send, back] = [freshName(taken, `send${loops}`), freshName(taken, `return${loops}`)];
  const { device: switched, control } = withSwitch(device, id);
  const jacked: Device = { ...switched, jacks: [...device.jacks, audioOut(send), audioIn(back)] };
  return put(jacked, place, {
    is: 'insert',
    id,
    send: [{ at: send }],
    return: [{ at: back }],
    on: is(control, 'on'),
    unpatched: 'through',
  });
};

/** Puts a split there: two ways beside each other, which come together again behind it. */
export const addSplit = (device: Device, place: Place): Added => {
  const id = freshName(namesIn(device), 'split');
  return put(device, place, {
    is: 'fork',
    id,
    arms: [
      { id: 'one', slots: [] },
      { id: 'two', slots: [] },
    ],
  });
};

const firstJack = (device: Device, pole: 'in' | 'out'): readonly Tap[] => {
  const jack = device.jacks.find((j) => j.kind === 'audio' && j.poles.tip === pole);
  return jack ? [{ at: jack.id }] : [];
};

/** Another way through the box, from its first input to its first output until somebody says otherwise. */
export const addChain = (device: Device): Device => {
  const id = freshName(
    device.chains.map((c) => c.id),
    'path',
  );
  const made: Chain = { id, from: firstJack(device, 'in'), slots: [], to: firstJack(device, 'out') };
  return { ...device, chains: [...device.chains, made] };
};

/** Names of controls anywhere in a piece of a box. */
const controlsNamed = (of: unknown): readonly string[] => {
  if (Array.isArray(of)) return of.flatMap(controlsNamed);
  if (!isRecord(of)) return [];
  return [...(typeof of.control === 'string' ? [of.control] : []), ...Object.values(of).flatMap(controlsNamed)];
};

/** The box without a control and all that sets or stores it. */
export const withoutControl = (device: Device, id: string): Device => ({
  ...device,
  controls: device.controls.filter((c) => c.id !== id),
  actuators: device.actuators.flatMap((a) => {
    const acts = a.acts.filter((act) => !('control' in act && act.control === id));
    return acts.length === a.acts.length ? [a] : acts.length ? [{ ...a, acts }] : [];
  }),
  memories: device.memories.map((m) => ({
    ...m,
    stores: m.stores.filter((s) => s !== id),
    ...(m.mayStore ? { mayStore: m.mayStore.filter((s) => s !== id) } : {}),
  })),
});

/** Takes a stage, loop or split out, with the switches that served nothing else. */
export const takeOut = (device: Device, { row, at }: Place): Device => {
  const slots = rowIn(device, row);
  const gone = slots[at];
  if (!gone) return device;
  const rest = arranged(withRow(device, row, slots.toSpliced(at, 1)), row, (names) =>
    names.filter((n) => n !== gone.id),
  );
  const still = new Set([
    ...controlsNamed([rest.chains, rest.jacks]),
    ...rest.chains.flatMap((c) => c.order ?? []),
    ...rest.memories.map((m) => m.control),
    ...rest.memories.flatMap((m) => m.bank?.control ?? []),
    ...rest.memories.flatMap((m) => (m.assignable ?? []).flatMap((s) => [s.latch, s.held])),
    ...controlsNamed(rest.actuators.map((a) => a.when)),
    ...controlsNamed(rest.actuators.flatMap((a) => a.acts.map((act) => act.when))),
    ...(typeof rest.midi?.channel === 'string' ? [rest.midi.channel] : []),
  ]);
  const idle = [...new Set(controlsNamed(gone))].filter((c) => !still.has(c));
  return idle.reduce(withoutControl, rest);
};

const isInside = (row: Row, slot: Slot, of: Row): boolean =>
  row.length > of.length && of.every((name, i) => row[i] === name) && row[of.length] === slot.id;

/** Carries a stage, loop or split to another place, also into an arm of a split; never into itself. */
export const carry = (device: Device, from: Place, to: Place): Added => {
  const slot = slotAt(device, from);
  if (!slot || isInside(to.row, slot, from.row)) return { device, place: from };
  const isSameRow = from.row.join('/') === to.row.join('/');
  const at = isSameRow && to.at > from.at ? to.at - 1 : to.at;
  const without = withRow(device, from.row, rowIn(device, from.row).toSpliced(from.at, 1));
  const row = rowIn(without, to.row);
  const place = { row: to.row, at: Math.min(at, row.length) };
  const carried = withRow(without, to.row, row.toSpliced(place.at, 0, slot));
  if (isSameRow || (from.row.length > 1 && to.row.length > 1)) return { device: carried, place };
  const left = arranged(carried, from.row, (names) => names.filter((n) => n !== slot.id));
  return { device: arranged(left, to.row, (names) => [...names, slot.id]), place };
};

/** Every place of a box in the order of its chains; what stands in an arm comes after its split. */
export const placesIn = (device: Device): readonly Place[] => {
  const inRow = (slots: readonly Slot[], row: Row): readonly Place[] =>
    slots.flatMap((s, at) => [
      { row, at },
      ...(s.is === 'fork' ? s.arms.flatMap((a) => inRow(a.slots, [...row, s.id, a.id])) : []),
    ]);
  return device.chains.flatMap((c) => inRow(c.slots, [c.id]));
};

/** Where figures of what stands there are found in the list of figures. */
export const figurePlace = (device: Device, { row, at }: Place): string => {
  const slot = rowIn(device, row)[at];
  return `chain ${[...row, ...(slot ? [slot.id] : [])].join('/')}`;
};

/** Whether a name can be given to a stage, loop or split: nobody else in the box has it. */
export const isFreeStage = (device: Device, name: string): boolean => !namesIn(device).includes(name);

/** Stages of a box by name, as a sound can want them. */
export const stagesIn = (device: Device): readonly string[] => device.chains.flatMap((c) => blockIds(c.slots));
