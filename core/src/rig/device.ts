import { keptIn } from '../kept/kept.js';
import type { Side } from './board.js';
import type { Shows } from '../midi/numbering.js';
import type { Id } from './ids.js';
import type { Act } from './act.js';
import type { FigureNote, FigureOrigin } from './figure-source.js';
import type { PointName, Value, When } from './value.js';

/**
 * A box: jacks joined by chains, and stimuli that carry out acts on controls.
 * A controller, a modeller, a song list and a timeline differ in data only.
 */
export interface Device {
  readonly kind: 'device';
  readonly id: Id<'device'>;
  /** Two to four letters on the tag. */
  readonly code: string;
  readonly name: string;
  /** Its place in the kit. */
  readonly at?: number;
  readonly zone: Zone;
  /** Since when it is tried; a borrowed one leaves the kit when it is taken off again. */
  readonly trial?: { readonly since: string; readonly borrowed?: true };
  /** The catalogue entry it was made from. */
  readonly made?: string;
  readonly jacks: readonly Jack[];
  readonly chains: readonly Chain[];
  readonly controls: readonly Control[];
  readonly actuators: readonly Actuator[];
  readonly memories: readonly Memory[];
  readonly midi?: MidiManners;
  /** Where sound begins and where it is heard. */
  readonly ends?: readonly End[];
  readonly figures: Figures;
}

export const ZONES = ['hands', 'floor', 'amp', 'outputs', 'supply'] as const;
export type Zone = (typeof ZONES)[number];

export interface MidiManners {
  /** Channel 1–16 it is meant to answer on, or the control (a setting) that holds it. */
  readonly channel: number | string;
  /** Answers to every channel all the same. */
  readonly omni?: boolean;
  /** What becomes of messages that come while it loads. */
  readonly messages: 'lost' | 'queued';
}

export const END_KINDS = ['source', 'house', 'stage', 'player', 'recorder', 'tuner'] as const;
export const SOURCE_KINDS = ['guitar', 'bass', 'acoustic', 'percussion', 'voice', 'keys', 'band'] as const;

/** Where sound begins, or where somebody hears it. */
export interface End {
  readonly at: PointName;
  readonly is: (typeof END_KINDS)[number];
  readonly name: string;
  readonly what?: (typeof SOURCE_KINDS)[number];
  /** Level of a source, in dBu. */
  readonly dbu?: { readonly average: number; readonly peak: number };
  /** The coil of a passive instrument and its controls: it feels every metre of cable. */
  readonly pickup?: Pickup;
}

/** A coil with what is built into the instrument behind it. */
export interface Pickup {
  readonly henry: number;
  readonly ohm: number;
  readonly pF: number;
  /** The whole resistance of the volume knob. */
  readonly volumeOhm?: number;
  readonly tone?: { readonly ohm: number; readonly nF: number };
  /** From the top of the volume knob to its wiper. */
  readonly bleedPF?: number;
}

export const JACK_KINDS = ['audio', 'midi', 'contact', 'expression', 'power', 'mains', 'usb', 'air'] as const;
export type JackKind = (typeof JACK_KINDS)[number];
export const CONNECTORS = [
  '6.35 TS',
  '6.35 TRS',
  'XLR',
  'DIN-5',
  '3.5 TRS A',
  '3.5 TRS B',
  '3.5 TRS',
  'barrel',
  'USB',
  'combo',
  'mains',
  'multicore',
  'air',
  'speaker',
] as const;
export type Connector = (typeof CONNECTORS)[number];
export type Pole = 'tip' | 'ring';
/** What ends a supply lead; the 2.1 mm barrel unless said. */
export const SUPPLY_PLUGS = ['barrel 2.1', 'barrel 2.5', '3.5 mm', 'clip', 'DIN'] as const;
export type SupplyPlug = (typeof SUPPLY_PLUGS)[number];
/** What a box is to its neighbours on one supply: digital ones put noise on it, high gain makes noise heard. */
export const SUPPLY_NOISES = ['digital', 'high gain', 'neither'] as const;
export type SupplyNoise = (typeof SUPPLY_NOISES)[number];

export interface Jack {
  readonly id: string;
  readonly kind: JackKind;
  readonly connector: Connector;
  /** An insert on one TRS is `{ tip: 'out', ring: 'in' }`, stereo TRS `{ tip: 'out', ring: 'out' }`. */
  readonly poles: Readonly<Partial<Record<Pole, 'in' | 'out'>>>;
  readonly level?: 'instrument' | 'line' | 'mic' | 'speaker' | 'phones';
  readonly balanced?: boolean;
  /** Input or output impedance in ohms. */
  readonly ohm?: number;
  readonly phantom?: boolean;
  readonly maxDbu?: number;
  readonly shield?: 'chassis' | 'isolated' | { readonly liftedWhen: When };
  /** Loudspeaker jacks: what an amp gives into its impedance there, or what a cabinet stands, in watts. */
  readonly watts?: number;
  /** On which side of the box it sits; assumed by its kind unless said. */
  readonly side?: Side;
  /** What a speaker output sees here. */
  readonly load?: 'amplifier' | 'speaker' | 'none';
  /** Contact outputs: closed while this holds; a pulse is an act. */
  readonly closedWhen?: When;
  /** The same for the ring of a contact output that has two relays. */
  readonly ringClosedWhen?: When;
  readonly supply?: {
    readonly volts: readonly number[];
    readonly milliamps: number;
    readonly centre: 'negative' | 'positive' | 'ac';
    readonly plug?: SupplyPlug;
    readonly isolated?: boolean;
  };
}

/** A relay behind a contact output, at its tip (`ctl1`) or its ring (`ctl1:ring`). One without a rule only pulses. */
export interface Relay {
  readonly at: PointName;
  readonly closedWhen: When | undefined;
}

const controls = new WeakMap<Device, ReadonlyMap<string, Control>>();

/** A control of a box by its id. */
export const controlIn = (device: Device, id: string): Control | undefined => {
  const known = keptIn(controls, device, () => new Map(device.controls.map((c) => [c.id, c])));
  return known.get(id);
};

const holders = new WeakMap<Device, ReadonlyMap<string, readonly Memory[]>>();
const NO_MEMORIES: readonly Memory[] = [];

/** The memories of a box whose programs hold a control. */
export const memoriesThatStore = (device: Device, control: string): readonly Memory[] => {
  const known = keptIn(holders, device, () => {
    const made = new Map<string, Memory[]>();
    for (const memory of device.memories)
      for (const stored of memory.stores) made.set(stored, [...(made.get(stored) ?? []), memory]);
    return made;
  });
  return known.get(control) ?? NO_MEMORIES;
};

const soundMakers = new WeakMap<Device, boolean>();
/** What a controller may have in its path without making the sound. */
const ON_THE_WAY: ReadonlySet<Stage> = new Set<Stage>(['buffer', 'isolator', 'volume', 'tuner']);
/** A stage that belongs to the sound itself, and not only to its way. */
export const isOfTheSound = (stage: Stage): boolean => !ON_THE_WAY.has(stage) && stage !== 'wireless';
const hasBlock = (slots: readonly Slot[]): boolean =>
  slots.some(
    (s) =>
      (s.is === 'block' && !ON_THE_WAY.has(s.stage)) || (s.is === 'fork' && s.arms.some((arm) => hasBlock(arm.slots))),
  );

/**
 * Whether a box has stages of its own, such as a modeller or an effect. One without them that calls sounds is a
 * controller: its slots are typed in, what stands in the others is dialled in.
 */
export const makesSound = (device: Device): boolean =>
  keptIn(soundMakers, device, () => device.chains.some((chain) => hasBlock(chain.slots)));

const relays = new WeakMap<Device, readonly Relay[]>();

/** Every relay of a box, tip before ring. */
export const relaysOf = (device: Device): readonly Relay[] =>
  keptIn(relays, device, () =>
    device.jacks.flatMap((jack): readonly Relay[] =>
      jack.kind !== 'contact'
        ? []
        : [
            ...(jack.poles.tip === 'out' ? [{ at: jack.id, closedWhen: jack.closedWhen }] : []),
            ...(jack.poles.ring === 'out' ? [{ at: `${jack.id}:ring`, closedWhen: jack.ringClosedWhen }] : []),
          ],
    ),
  );

/** What a contact does to a control as long as it is closed, and as long as it is open. */
export interface Lasting {
  closed?: Value;
  open?: Value;
}

/** What a contact at a jack sets each control to that it holds. */
export const setByContact = (device: Device, jack: string): ReadonlyMap<string, Readonly<Lasting>> => {
  const sets = new Map<string, Lasting>();
  for (const { by, acts } of device.actuators) {
    if (!('contact' in by) || by.contact !== jack || !('level' in by)) continue;
    for (const act of acts)
      if ('control' in act && 'set' in act) keptIn(sets, act.control, (): Lasting => ({}))[by.level] = act.set;
  }
  return sets;
};

/** A box that takes notice of a bank; one with a single bank does not. */
export const hasBanks = (device: Device): boolean => device.memories.some((m) => m.size > 128);

export interface Chain {
  readonly id: string;
  readonly from: readonly Tap[];
  readonly slots: readonly Slot[];
  readonly to: readonly Tap[];
  readonly when?: When;
  /**
   * Control whose value is an arrangement of the slot ids, such as `"a b c"`; slots that it does not name keep off the
   * path.
   */
  readonly order?: string;
  /** Nothing but contacts, pots and wire: carries any low-level kind, either way round. */
  readonly passive?: true;
  /** Power chains with several `from`: how bridged outputs add. */
  readonly adds?: 'current' | 'volts';
  /** What is left of it without supply. */
  readonly unpowered?: 'through' | 'dead';
}

export type Leg = 'left' | 'right';

/** `leg` given: only this side of a chain of two sides; not given: into both sides, or the sum of both. */
export interface Tap {
  readonly at: PointName;
  readonly leg?: Leg;
  readonly when?: When;
  readonly gain?: Gain;
}

/** In dB, or read from a control (in dB already, or scaled from its range). */
export type Gain = number | { readonly control: string; readonly scale?: readonly [number, number] };

export type Slot = Block | Insert | Fork;

export const STAGES = [
  'tuner',
  'wah',
  'filter',
  'compressor',
  'gate',
  'pitch',
  'octave',
  'fuzz',
  'overdrive',
  'distortion',
  'boost',
  'eq',
  'preamp',
  'power amp',
  'cabinet',
  'cabinet simulation',
  'modulation',
  'tremolo',
  'delay',
  'reverb',
  'looper',
  'volume',
  'buffer',
  'isolator',
  'DI',
  'channel',
  'generator',
  'enhancer',
  'wireless',
  'microphone',
] as const;
export type Stage = (typeof STAGES)[number];

export interface Block {
  readonly is: 'block';
  readonly id: string;
  readonly stage: Stage;
  /** Absent: always on. */
  readonly on?: When;
  /** No direct sound through it (delay or reverb at 100 %). */
  readonly wetOnly?: When;
  /** Tuner mute, kill switch, volume at zero. */
  readonly mutes?: When;
  /**
   * `spread` makes the two sides of the picture; `sum` gives both sides the sum; else each side goes through by
   * itself. Without sides in its chain all are alike.
   */
  readonly width?: 'mono' | 'each' | 'spread' | 'sum';
  readonly gain?: Gain;
  readonly polarity?: { readonly invertedWhen: When };
  readonly ms?: number;
  /** Side chain: listens there, passes nothing from there. */
  readonly key?: PointName;
  readonly bypass?: 'true' | 'buffered' | 'relay';
  readonly tails?: boolean | When;
  readonly inputOhm?: number;
  readonly noiseDbu?: number;
  readonly maxDbu?: number;
}

export interface Insert {
  readonly is: 'insert';
  readonly id: string;
  readonly send: readonly Tap[];
  readonly return: readonly Tap[];
  readonly on?: When;
  /** Parallel: the direct sound goes on beside it. */
  readonly direct?: boolean | When;
  /** Which side the switch cuts; `send` keeps the return open for tails. */
  readonly off?: 'both' | 'send' | 'return' | { readonly sendOnlyWhen: When };
  readonly unpatched: 'through' | 'broken';
  /** Which plug breaks it; the return unless said. */
  readonly breaks?: 'return' | 'send' | 'either';
}

export interface Fork {
  readonly is: 'fork';
  readonly id: string;
  readonly arms: readonly Arm[];
  readonly crossoverHz?: number | string;
}

export interface Arm {
  readonly id: string;
  readonly slots: readonly Slot[];
  readonly when?: When;
  readonly gain?: Gain;
  readonly band?: 'low' | 'high';
  readonly polarity?: { readonly invertedWhen: When };
  readonly leg?: Leg;
}

export type Domain =
  | { readonly values: readonly Value[] }
  | { readonly min: number; readonly max: number; readonly unit: string; readonly step?: number }
  | { readonly arrange: readonly string[]; readonly branches: number };

export interface Control {
  readonly id: string;
  /** What a person calls it; the id when absent. */
  readonly name?: string;
  readonly domain: Domain;
  /** `left`: as it was; `loaded`: by the program that is current at power-up (those values come together). */
  readonly powerUp: { readonly at: Value } | 'left' | 'unknown' | 'loaded';
  /** Changed by sounds; set once per hook-up; or in the player's hands and under the pedal. */
  readonly use: 'sound' | 'setting' | 'play';
  /** Held by a foot until it lets go, such as a frozen note or a loop that plays: no sound takes it back. */
  readonly latches?: true;
}

export interface Actuator {
  readonly id: string;
  readonly by: Stimulus;
  readonly when?: When;
  readonly acts: readonly Act[];
}

export type Stimulus =
  | { readonly midi: 'pc' }
  | { readonly midi: 'cc'; readonly number: number; readonly channel?: number }
  | { readonly midi: 'clock' }
  | { readonly midi: 'note'; readonly number: number }
  /** Pulse inputs act on an edge. */
  | { readonly contact: PointName; readonly edge: 'closing' | 'opening' }
  /** Latching inputs act on a change, at the box's own power-up and when plugged. */
  | { readonly contact: PointName; readonly level: 'closed' | 'open' }
  | { readonly expression: PointName }
  | { readonly foot: string; readonly gesture: 'press' | 'release' | 'hold' | 'twice' }
  | { readonly hand: string }
  /** A timeline or song list arrives there. */
  | { readonly position: string }
  | { readonly power: 'on' };

/**
 * Numbered contents, one loaded at a time: a switcher's slots, a modeller's presets, scenes, a song list, a timeline.
 */
export interface Memory {
  readonly id: string;
  /** The control that says which program is loaded; its values are program numbers as the wire counts, from 0. */
  readonly control: string;
  /** Loading sets these, and only these. */
  readonly stores: readonly string[];
  /** The box can be told to store these too. */
  readonly mayStore?: readonly string[];
  readonly by?: 'slot' | 'song' | 'cue';
  readonly size: number;
  readonly shows: Numbering;
  /** Scenes: the memory whose loaded program these belong to. */
  readonly inside?: string;
  readonly gapMs: number;
  readonly mutesMs: number;
  /** What choosing the current program again does. */
  readonly again: 'reloads' | 'nothing';
  /**
   * `waits: false`: it cannot pause between two messages of a slot. `clock: true`: a slot can hold a tempo, sent as
   * MIDI clock.
   */
  readonly limits?: {
    readonly messages?: number;
    readonly assigns?: number;
    /** To how many things all assignable switches of a slot can be assigned together. */
    readonly assignments?: number;
    readonly nameLength?: number;
    readonly waits?: boolean;
    readonly clock?: boolean;
  };
  /**
   * What is easily forgotten in front of the box, each a line to tick: in every program, and for every switch that a
   * program assigns.
   */
  readonly reminders?: { readonly program?: readonly string[]; readonly assign?: readonly string[] };
  /** Switches whose press recalls a program: position within the bank that shows. */
  readonly switches?: readonly string[];
  /** The control that holds the bank that shows, and the switches that step it. */
  readonly bank?: { readonly control: string; readonly up: string; readonly down: string };
  /** Switches that programs may assign, each with the controls that remember its latch and that it is held. */
  readonly assignable?: readonly { readonly switch: string; readonly latch: string; readonly held: string }[];
}

/** How a box shows the number that the wire carries as 0, 1, 2 … */
export type Numbering = Shows;

export interface Figures {
  readonly mm?: readonly [number, number, number];
  readonly kg?: number;
  /** What it cost, in its owner's money. */
  readonly price?: number;
  readonly mainsEarth?: boolean;
  /** How long the ways of a multicore are, in metres. */
  readonly metres?: number;
  readonly watts?: number;
  /** What drives its speaker jacks: a valve stage must never run without its load. */
  readonly powerStage?: 'valve' | 'solid state';
  readonly switches?: readonly { readonly id: string; readonly x: number; readonly y: number }[];
  /** What becomes of the direct sound in it: it stays as it is, or is turned into numbers and back. */
  readonly direct?: 'analogue' | 'converted';
  /** `milliamps`: what the box itself takes of it; absent where it feeds others. */
  readonly battery?: { readonly mAh: number; readonly volts: number; readonly milliamps?: number };
  /** What all outputs of a supply give together, in watts. */
  readonly givesWatts?: number;
  readonly onSupply?: SupplyNoise;
  /** Where its figures come from, but for those that have a note of their own. */
  readonly origin?: FigureOrigin;
  readonly sources?: readonly FigureNote[];
}
