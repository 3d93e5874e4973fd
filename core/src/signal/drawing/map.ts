import type { Device, Insert, Jack, Zone } from '../../rig/device.js';
import { loopsOf } from '../../rig/inserts.js';
import { ref, splitRef, theRef, type Id, type Ref } from '../../rig/ids.js';
import { all, type Rig } from '../../rig/rig.js';
import { cablesInOrder, signalOrder } from '../graph/order.js';
import type { Anatomy } from '../graph/anatomy.js';
import { trace, type Trace } from '../graph/trace.js';
import { keptIn } from '../../kept/kept.js';

export const LAYERS = ['audio', 'midi', 'control', 'power'] as const;
export type Layer = (typeof LAYERS)[number];

/** What a lead is, as a person tells it by its look. */
export const LEADS = ['instrument', 'line', 'balanced', 'speaker', 'air', 'MIDI', 'control', 'power', 'data'] as const;
export type LeadKind = (typeof LEADS)[number];

export interface MapJack {
  readonly ref: Ref;
  readonly id: string;
  readonly layer: Layer;
  /** On which side it stands: what takes on the left, what gives on the right. */
  readonly way: 'in' | 'out';
  readonly plugged: boolean;
}

/**
 * Jacks of one insert, or of several that hold the same boxes. Boxes that live between them hang below the bar of
 * their host.
 */
export interface MapLoop {
  readonly inserts: readonly string[];
  readonly sends: readonly Ref[];
  readonly returns: readonly Ref[];
  readonly holds: readonly Id<'device'>[];
  readonly patched: boolean;
}

export interface MapBox {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly zone: Zone;
  readonly jacks: readonly MapJack[];
  /** Jacks of its inserts; they are not among `jacks`. */
  readonly loops: readonly MapLoop[];
  /** In whose loop it lives. */
  readonly host?: Id<'device'>;
  readonly wired: boolean;
}

export interface MapCable {
  readonly cable: Id<'cable'>;
  /** What gives, then what takes. */
  readonly from: Ref;
  readonly to: Ref;
  readonly layer: Layer;
  readonly lead: LeadKind;
}

/**
 * A hook-up as a person would draw it on the floor: every box in its zone or in the loop that holds it, every cable
 * between jacks.
 */
export interface RoutingMap {
  readonly boxes: readonly MapBox[];
  readonly cables: readonly MapCable[];
}

const LAYER_OF: Readonly<Record<Jack['kind'], Layer>> = {
  audio: 'audio',
  air: 'audio',
  midi: 'midi',
  contact: 'control',
  expression: 'control',
  power: 'power',
  mains: 'power',
  usb: 'midi',
};

/** What a lead between two jacks is. */
export const leadOf = (from: Jack, to: Jack): LeadKind => {
  switch (from.kind) {
    case 'air':
      return 'air';
    case 'midi':
      return 'MIDI';
    case 'usb':
      return 'data';
    case 'contact':
    case 'expression':
      return 'control';
    case 'power':
    case 'mains':
      return 'power';
    case 'audio':
      if (from.level === 'speaker' || to.level === 'speaker') return 'speaker';
      if (from.balanced && to.balanced) return 'balanced';
      return from.level === 'instrument' || from.level === undefined ? 'instrument' : 'line';
  }
};

export const mapOf = (rig: Rig, anatomy: Anatomy): RoutingMap => {
  const devices = all(rig, 'device');
  const jackAt = new Map(devices.flatMap((d) => d.jacks.map((j) => [ref(d.id, j.id), j] as const)));
  const cables = cablesInOrder(rig, anatomy).flatMap(({ cable, from, to }): MapCable[] => {
    const [a, b] = [jackAt.get(from), jackAt.get(to)];
    return a && b ? [{ cable: cable.id, from, to, layer: LAYER_OF[a.kind], lead: leadOf(a, b) }] : [];
  });
  const plugged = new Set(cables.flatMap((c) => [c.from, c.to]));
  const order = signalOrder(anatomy);
  const place = (d: Device): number => order.get(d.id) ?? 999;
  const lives = dwellings(
    [...devices].sort((a, b) => place(a) - place(b)),
    cables.filter((c) => c.layer === 'audio'),
  );
  const boxes = devices.map((device): MapBox => {
    const loops = lives.loops.get(device.id) ?? [];
    const ofLoops = new Set(loops.flatMap((l) => [...l.sends, ...l.returns]));
    const jacks = device.jacks
      .filter((j) => !ofLoops.has(ref(device.id, j.id)))
      .map((j): MapJack => ({
        ref: ref(device.id, j.id),
        id: j.id,
        layer: LAYER_OF[j.kind],
        way: (j.poles.tip ?? j.poles.ring) === 'in' ? 'in' : 'out',
        plugged: plugged.has(ref(device.id, j.id)),
      }));
    const host = lives.host.get(device.id);
    return {
      device: device.id,
      code: device.code,
      name: device.name,
      zone: device.zone,
      jacks,
      ...(host ? { host } : {}),
      loops: loops.map((l) => ({ ...l, patched: [...l.sends, ...l.returns].some((r) => plugged.has(r)) })),
      wired: device.jacks.some((j) => plugged.has(ref(device.id, j.id))),
    };
  });
  return { boxes, cables };
};

type Loop = Omit<MapLoop, 'patched'>;

/**
 * Which boxes live in which loop. A box belongs to the first host on the way that holds it; what also feeds the host
 * from outside lives outside.
 */
const dwellings = (
  inOrder: readonly Device[],
  cables: readonly MapCable[],
): {
  readonly loops: ReadonlyMap<Id<'device'>, readonly Loop[]>;
  readonly host: ReadonlyMap<Id<'device'>, Id<'device'>>;
} => {
  const ways = new Ways(cables);
  const zones = new Map(inOrder.map((d) => [d.id, d.zone]));
  const host = new Map<Id<'device'>, Id<'device'>>();
  const loops = new Map<Id<'device'>, readonly Loop[]>();
  for (const device of inOrder) {
    const own = patchedLoops(device);
    if (own.length === 0) continue;
    const before = ways.before(device.id, own);
    const ancestors = new Set<Id<'device'>>([device.id]);
    for (let up = host.get(device.id); up; up = host.get(up)) ancestors.add(up);
    const mayLive = (d: Id<'device'>): boolean =>
      !before.has(d) &&
      !ancestors.has(d) &&
      host.get(d) === host.get(device.id) &&
      (zones.get(d) === device.zone || zones.get(d) === 'floor');
    const merged = mergeShared(own.map((loop) => ({ ...loop, holds: ways.inside(device.id, loop, mayLive) })));
    for (const loop of merged) for (const d of loop.holds) host.set(d, device.id);
    loops.set(device.id, merged);
  }
  for (const [id, list] of loops) {
    const settled = list.map((l) => ({ ...l, holds: l.holds.filter((d) => host.get(d) === id) }));
    loops.set(id, settled);
  }
  return { loops, host };
};

/** Cables by where they leave and where they lead, jack by jack and box by box. */
class Ways {
  private readonly leaving = new Map<string, MapCable[]>();
  private readonly entering = new Map<string, MapCable[]>();

  constructor(cables: readonly MapCable[]) {
    for (const c of cables) {
      for (const key of [c.from, splitRef(c.from).device]) keptIn(this.leaving, key, (): MapCable[] => []).push(c);
      for (const key of [c.to, splitRef(c.to).device]) keptIn(this.entering, key, (): MapCable[] => []).push(c);
    }
  }

  /** Boxes from which the signal comes to a box, by other ways than its own loops. */
  before(id: Id<'device'>, own: readonly Loop[]): ReadonlySet<Id<'device'>> {
    const returns = new Set(own.flatMap((l) => l.returns));
    const entering = (this.entering.get(id) ?? []).filter((c) => !returns.has(c.to));
    const seen = new Set(entering.map(cameFrom));
    for (const d of seen) for (const c of this.entering.get(d) ?? []) if (cameFrom(c) !== id) seen.add(cameFrom(c));
    return seen;
  }

  /** Boxes that live in a loop: every way out of its send comes back to its return through them. */
  inside(id: Id<'device'>, { sends, returns }: Loop, mayLive: (d: Id<'device'>) => boolean): readonly Id<'device'>[] {
    const ahead = reach(id, sends, this.leaving, goesTo);
    const behind = reach(id, returns, this.entering, cameFrom);
    const both = [...ahead].filter((d) => behind.has(d));
    return both.every(mayLive) ? both : [];
  }
}

const goesTo = (c: MapCable): Id<'device'> => splitRef(c.to).device;
const cameFrom = (c: MapCable): Id<'device'> => splitRef(c.from).device;

/** Boxes reached from these jacks over cables, never through the host. */
const reach = (
  host: Id<'device'>,
  jacks: readonly Ref[],
  cablesAt: ReadonlyMap<string, readonly MapCable[]>,
  next: (c: MapCable) => Id<'device'>,
): ReadonlySet<Id<'device'>> => {
  const first = jacks.flatMap((j) => cablesAt.get(j) ?? []).map(next);
  const seen = new Set(first.filter((d) => d !== host));
  for (const d of seen) for (const c of cablesAt.get(d) ?? []) if (next(c) !== host) seen.add(next(c));
  return seen;
};

/** The loops of a box that have jacks of their own; nothing lives in them yet. */
const patchedLoops = (device: Device): readonly Loop[] => {
  const jacksOf = (taps: Insert['send']): readonly Ref[] => {
    const jacks = taps.filter((t) => !t.at.startsWith('#')).map((t) => t.at.replace(/:(tip|ring)$/, ''));
    return [...new Set(jacks)].map((jack) => ref(device.id, jack));
  };
  return loopsOf(device)
    .map((i): Loop => ({ inserts: [i.id], sends: jacksOf(i.send), returns: jacksOf(i.return), holds: [] }))
    .filter((l) => l.sends.length + l.returns.length > 0);
};

/** Loops that hold the same box are drawn as one. */
const mergeShared = (loops: readonly Loop[]): readonly Loop[] =>
  loops.reduce<readonly Loop[]>((kept, loop) => {
    const same = kept.findIndex((k) => k.holds.some((d) => loop.holds.includes(d)));
    const k = kept[same];
    if (!k) return [...kept, loop];
    return kept.with(same, {
      inserts: [...k.inserts, ...loop.inserts],
      sends: [...k.sends, ...loop.sends],
      returns: [...k.returns, ...loop.returns],
      holds: [...new Set([...k.holds, ...loop.holds])],
    });
  }, []);

export type BoxStanding = 'in' | 'bypassed' | 'fed' | 'outside';
export type CableStanding = 'lit' | 'fed' | 'quiet';

/** A sound on the map: what carries it to where it is heard, what only hears it (`fed`), what stands aside. */
export interface Lit {
  readonly boxes: Readonly<Record<string, BoxStanding>>;
  readonly cables: Readonly<Record<string, CableStanding>>;
  /** Jacks on its way. */
  readonly jacks: readonly Ref[];
  readonly silent: boolean;
}

export const litBy = (t: Trace): Lit => {
  const { wiring, onPath, active } = t;
  const silent = !t.reaches.some((r) => r.end.end.is !== 'tuner');
  /** Of a sound that nobody hears, how far any signal gets. */
  const reached = silent ? trace(wiring, t.state).reached : t.reached;
  const boxes: Record<string, BoxStanding> = {};
  const cables: Record<string, CableStanding> = {};
  const stages = new Map<string, { in: number; bypassed: number }>();
  for (const [stage, state] of t.stages) {
    const { device } = splitRef(stage);
    const count = stages.get(device) ?? { in: 0, bypassed: 0 };
    if (state !== 'outside') count[state] += 1;
    stages.set(device, count);
  }
  wiring.points.forEach(({ device }, p) => {
    if (!wiring.wired.has(device)) return;
    const count = stages.get(device);
    const standing: BoxStanding = onPath[p]
      ? count && count.in === 0 && count.bypassed > 0
        ? 'bypassed'
        : 'in'
      : reached[p]
        ? 'fed'
        : 'outside';
    const rank = (s: BoxStanding | undefined) =>
      s === undefined ? -1 : ['outside', 'fed', 'bypassed', 'in'].indexOf(s);
    if (rank(standing) > rank(boxes[device])) boxes[device] = standing;
  });
  wiring.edges.forEach((edge, i) => {
    const passes = active[i] && onPath[edge.from] && onPath[edge.to];
    if (edge.carries.by === 'cable') {
      const standing: CableStanding = passes ? 'lit' : active[i] && reached[edge.from] ? 'fed' : 'quiet';
      if (cables[edge.carries.cable] !== 'lit' && (standing !== 'quiet' || !cables[edge.carries.cable]))
        cables[edge.carries.cable] = standing;
    }
  });
  return {
    boxes,
    cables,
    silent,
    jacks: wiring.points.flatMap(({ id, inside }, p) =>
      !inside && onPath[p] ? [theRef(id.replace(/:(tip|ring)$/, ''))] : [],
    ),
  };
};
