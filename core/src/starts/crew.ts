import { freeCode, makeDevice } from '../catalogue/make.js';
import {
  AFTER_GAIN,
  inOf,
  insertsOf,
  outOf,
  stagesOf,
  theOutput,
  theInput,
  usualPlace,
  type WiringStep,
} from '../edits/wire.js';
import { theFirst } from '../known/the.js';
import type { Device, Insert, Stage } from '../rig/device.js';
import type { HeardWish } from '../rig/hookup.js';
import { ref, splitRef, type Id } from '../rig/ids.js';
import { all, type Rig } from '../rig/rig.js';

/** A jack from which the signal goes on. */
export interface Outlet {
  readonly device: Device;
  readonly jack: string;
}

export interface CastBox {
  readonly device: Device;
  readonly why: string;
}

const hasStage =
  (...stages: readonly Stage[]) =>
  (d: Device): boolean =>
    stagesOf(d).some((s) => stages.includes(s));
const hasJacks =
  (...ids: readonly string[]) =>
  (d: Device): boolean =>
    ids.every((id) => d.jacks.some((j) => j.id === id));
const plays =
  (...what: readonly string[]) =>
  (d: Device): boolean =>
    d.ends?.some((e) => e.is === 'source' && what.includes(e.what ?? '')) ?? false;
/** A cabinet simulation stands before this output, not only before another one of the box. */
const comesSimulated = (d: Device, out: string): boolean => {
  const behind = new Set<string>();
  const chains = d.chains.filter((c) => c.slots.some((s) => s.is === 'block' && s.stage === 'cabinet simulation'));
  for (const c of chains) for (const t of c.to) behind.add(t.at);
  for (const at of behind)
    for (const c of d.chains) if (c.from.some((t) => t.at === at)) for (const t of c.to) behind.add(t.at);
  return behind.has(out);
};
const isAmp = (d: Device): boolean =>
  d.zone === 'amp' && stagesOf(d).includes('power amp') && d.jacks.some((j) => j.id === 'in' && j.level !== 'line');

/** What a part in a rig asks of the box that plays it, and the generic one that plays it when the kit has none. */
const PARTS = {
  guitar: { key: 'single-coil', fits: plays('guitar') },
  bass: { key: 'bass', fits: plays('bass') },
  percussion: { key: 'percussion', fits: plays('percussion') },
  voice: { key: 'microphone', fits: plays('voice') },
  wireless: {
    key: 'wireless',
    fits: (d: Device) => hasStage('wireless')(d) && inOf(d) !== undefined && outOf(d) !== undefined,
  },
  tuner: {
    key: 'tuner',
    fits: (d: Device) => hasStage('tuner')(d) && outOf(d) !== undefined && !hasStage('wireless')(d),
  },
  volume: { key: 'volume', fits: (d: Device) => hasStage('volume')(d) && d.zone === 'floor' },
  'volume with a tuner output': {
    key: 'volume',
    fits: (d: Device) => hasStage('volume')(d) && d.zone === 'floor' && hasJacks('tuner')(d),
  },
  switcher: { key: 'switcher-8', fits: (d: Device) => d.zone === 'floor' && insertsOf(d).length >= 4 },
  'switcher of four': { key: 'switcher-4', fits: (d: Device) => d.zone === 'floor' && insertsOf(d).length >= 4 },
  'amp with a loop': { key: 'valve-head', fits: (d: Device) => isAmp(d) && hasJacks('send', 'return')(d) },
  amp: { key: 'one-channel-amp', fits: isAmp },
  cabinet: { key: 'cab-212', fits: (d: Device) => d.zone === 'outputs' && d.jacks.some((j) => j.load === 'speaker') },
  'cabinet microphone': {
    key: 'cab-mic',
    fits: (d: Device) => hasStage('microphone')(d) && d.jacks.some((j) => j.kind === 'air'),
  },
  desk: { key: 'desk', fits: (d: Device) => d.ends?.some((e) => e.is === 'house') ?? false },
  di: { key: 'di', fits: (d: Device) => hasStage('DI')(d) && hasJacks('in', 'out')(d) },
  'stereo di': {
    key: 'di-stereo',
    fits: (d: Device) => hasStage('DI')(d) && hasJacks('in-l', 'in-r', 'out-l', 'out-r')(d),
  },
  'preamp with cabinet simulation': {
    key: 'preamp-cab',
    fits: (d: Device) => hasStage('preamp')(d) && d.memories.length === 0 && comesSimulated(d, 'out'),
  },
  preamp: {
    key: 'valve-preamp',
    fits: (d: Device) => d.zone === 'floor' && hasStage('preamp')(d) && !hasStage('cabinet simulation')(d),
  },
  'cabinet simulation': {
    key: 'cab-sim',
    fits: (d: Device) => hasStage('cabinet simulation')(d) && !hasStage('preamp')(d) && hasJacks('in', 'out')(d),
  },
  'stereo cabinet simulation': {
    key: 'stereo-cab-sim',
    fits: (d: Device) =>
      hasStage('cabinet simulation')(d) && !hasStage('preamp')(d) && hasJacks('in-l', 'in-r', 'out-l', 'out-r')(d),
  },
  modeller: {
    key: 'modeller-two-loops',
    fits: (d: Device) => hasJacks('send1', 'return1', 'out-l', 'out-r')(d) && hasStage('cabinet simulation')(d),
  },
  'modeller without loops': {
    key: 'amp-modeller',
    fits: (d: Device) =>
      hasStage('preamp')(d) && hasStage('cabinet simulation')(d) && hasJacks('in', 'out-l', 'out-r', 'midi-in')(d),
  },
  'A/B box': { key: 'ab-out-isolated', fits: hasJacks('in', 'a', 'b') },
  'splitter with a transformer': {
    key: 'splitter-transformer',
    fits: (d: Device) => hasStage('isolator')(d) && hasJacks('in', 'out1', 'out2')(d),
  },
  isolator: {
    key: 'isolator',
    fits: (d: Device) => hasStage('isolator')(d) && hasJacks('in', 'out')(d) && d.zone === 'floor',
  },
  'frequency splitter': {
    key: 'splitter-frequency',
    fits: hasJacks('low-send', 'low-return', 'high-send', 'high-return'),
  },
  'bass compressor': { key: 'bass-compressor', fits: hasStage('compressor') },
  'bass fuzz': { key: 'bass-fuzz', fits: hasStage('fuzz') },
  'bass preamp': { key: 'bass-preamp-di', fits: (d: Device) => hasStage('preamp')(d) && hasJacks('xlr')(d) },
  'line out': { key: 'line-out', fits: hasJacks('through', 'line') },
  'stereo delay': {
    key: 'stereo-delay',
    fits: (d: Device) => hasStage('delay')(d) && hasJacks('in-l', 'out-l', 'out-r')(d),
  },
  'stereo reverb': {
    key: 'stereo-reverb',
    fits: (d: Device) => hasStage('reverb')(d) && hasJacks('in-l', 'out-l', 'out-r')(d) && !hasStage('preamp')(d),
  },
  'stereo wet amps': {
    key: 'stereo-return-amp',
    fits: (d: Device) => hasStage('power amp')(d) && hasJacks('in-l', 'in-r')(d),
  },
  'wet amp': {
    key: 'powered-speaker',
    fits: (d: Device) => hasStage('power amp')(d) && !isAmp(d) && hasJacks('in')(d),
  },
  'looper station': { key: 'looper-station', fits: hasJacks('in1', 'in2', 'main-l', 'main-r', 'sub') },
  timeline: { key: 'timeline', fits: (d: Device) => d.memories.some((m) => m.by === 'cue') },
} as const satisfies Record<string, { readonly key: string; readonly fits: (d: Device) => boolean }>;

export type PartName = keyof typeof PARTS;

const PEDAL_STAGES: readonly Stage[] = [
  'wah',
  'filter',
  'compressor',
  'pitch',
  'octave',
  'fuzz',
  'overdrive',
  'distortion',
  'boost',
  'eq',
  'gate',
  'enhancer',
  ...AFTER_GAIN,
];

/**
 * Hands out parts: first to boxes of the kit, then to generic ones that have to be got. Notes every lead with its
 * reason.
 */
export class Crew {
  readonly used: CastBox[] = [];
  readonly got: CastBox[] = [];
  readonly leads: WiringStep[] = [];
  readonly notes: string[] = [];
  /** Boxes that play no part in the first sound. */
  readonly waiting: Id<'device'>[] = [];
  private readonly free: Device[];
  private readonly codes: string[];
  private oneAtATime = false;

  constructor(
    rig: Rig,
    private readonly newId: (n: number) => Id<'device'>,
  ) {
    this.free = [...all(rig, 'device')];
    this.codes = this.free.map((d) => d.code);
  }

  private take(device: Device, why: string): Device {
    this.free.splice(this.free.indexOf(device), 1);
    this.used.push({ device, why });
    return device;
  }

  /** A generic box; it counts as something to get. */
  get(key: string, why: string): Device {
    const made = makeDevice(key, this.newId(this.got.length));
    const device = { ...made, code: freeCode(made.code, this.codes) };
    this.codes.push(device.code);
    this.got.push({ device, why });
    return device;
  }

  cast(part: PartName, why: string): Device {
    const { key, fits } = PARTS[part];
    const found = this.free.find((d) => d.made === key) ?? this.free.find(fits);
    return found ? this.take(found, why) : this.get(key, why);
  }

  /** Only if the kit has one. */
  maybe(part: PartName, why: string): Device | undefined {
    const { key, fits } = PARTS[part];
    const found = this.free.find((d) => d.made === key) ?? this.free.find(fits);
    return found && this.take(found, why);
  }

  /** How many boxes of the kit could play a part. */
  could(part: PartName): number {
    return this.free.filter((d) => PARTS[part].fits(d)).length;
  }

  /** The pedals of the kit before or after the gain, in usual order; where there is none, these are got instead. */
  pedals(where: 'before the gain' | 'after it', why: string, otherwise: readonly string[]): readonly Device[] {
    const isLate = (d: Device) => stagesOf(d).some((s) => AFTER_GAIN.includes(s));
    const fit = this.free.filter(
      (d) =>
        d.zone === 'floor' &&
        insertsOf(d).length === 0 &&
        inOf(d) &&
        outOf(d) &&
        hasStage(...PEDAL_STAGES)(d) &&
        !hasStage('preamp', 'cabinet simulation', 'generator')(d) &&
        !d.jacks.some((j) => j.id === 'sub') &&
        isLate(d) === (where === 'after it'),
    );
    const found = [...fit].sort((a, b) => usualPlace(a) - usualPlace(b));
    return found.length ? found.map((d) => this.take(d, why)) : otherwise.map((key) => this.get(key, why));
  }

  lead(from: Device, out: string, to: Device, into: string, why: string): void {
    this.leads.push({ from: ref(from.id, out), to: ref(to.id, into), why });
  }

  /** Whether a lead goes into this box already. */
  isPlugged(box: Device): boolean {
    return this.leads.some(({ to }) => splitRef(to).device === box.id);
  }

  /** A box in a loop of its host. */
  inLoop(host: Device, loop: Insert, box: Device, why: string): void {
    this.lead(host, theFirst(loop.send).at, box, theInput(box).id, why);
    this.lead(box, theOutput(box).id, host, theFirst(loop.return).at, `${box.name} comes back to its loop`);
  }

  /** One box after the other. @returns the last one, to go on from */
  chain(from: Device, boxes: readonly Device[], why: (box: Device) => string): Device {
    return boxes.reduce((last, box) => {
      this.lead(last, theOutput(last).id, box, theInput(box).id, why(box));
      return box;
    }, from);
  }

  /**
   * Like `chain`, on both sides from the first box on that has two.
   * @returns where the left and, if there is one, the right side come out at the end
   */
  stereoChain(
    from: { readonly device: Device; readonly left: string },
    boxes: readonly Device[],
    why: (box: Device) => string,
  ): readonly [Outlet, Outlet?] {
    let sides: readonly [Outlet, Outlet?] = [{ device: from.device, jack: from.left }];
    for (const box of boxes) {
      const has = (id: string) => box.jacks.some((j) => j.id === id);
      const [left, right] = sides;
      this.lead(left.device, left.jack, box, theInput(box).id, why(box));
      if (right && has('in-r')) this.lead(right.device, right.jack, box, 'in-r', `${box.name}: the right side`);
      sides =
        has('out-l') && has('out-r')
          ? [
              { device: box, jack: 'out-l' },
              { device: box, jack: 'out-r' },
            ]
          : [{ device: box, jack: theOutput(box).id }];
    }
    return sides;
  }

  microphoneFor(cabinet: Device, channel = 1, desk?: Device): Device {
    const microphone = this.cast('cabinet microphone', 'the house hears the cabinet through it');
    const house = desk ?? this.cast('desk', 'where the house hears it');
    this.lead(cabinet, 'air', microphone, 'air', 'the microphone stands before the cabinet');
    this.lead(microphone, 'out', house, `ch${channel}`, 'to the desk');
    return house;
  }

  /** Speaker lead, cabinet, and a microphone to the desk when the house is to hear it. */
  speakers(amp: Device, miked: boolean, channel = 1, desk?: Device): Device | undefined {
    const own = amp.jacks.some((j) => j.id === 'air');
    const cabinet = own ? amp : this.cast('cabinet', 'a power amp must have its load');
    if (!own)
      this.lead(
        amp,
        'speaker',
        cabinet,
        'in',
        'a speaker lead, never an instrument lead; a valve amp must not run without its load',
      );
    return miked ? this.microphoneFor(cabinet, channel, desk) : undefined;
  }

  /** Of several loudspeakers on stage each may be silent while another sounds. */
  oneEndAtATime(): void {
    this.oneAtATime = true;
  }

  /** What the hook-up is told of who hears what. */
  hears(): readonly HeardWish[] {
    if (!this.oneAtATime) return [];
    return [...this.used, ...this.got].flatMap(({ device }) =>
      (device.ends ?? [])
        .filter((e) => e.is === 'stage')
        .map((e): HeardWish => ({ from: 'the instrument in hand', at: ref(device.id, e.at), as: 'either' })),
    );
  }

  /** What of the kit plays no part. */
  leftOver(): readonly Device[] {
    return this.free.filter((d) => d.zone !== 'supply');
  }
}
