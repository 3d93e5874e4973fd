import { theItem } from '../../known/the.js';
import { jackIn, signalCables } from '../../rig/box.js';
import type { Arm, Block, Chain, Device, End, Gain, Insert, JackKind, Leg, Pole, Slot, Tap } from '../../rig/device.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, cablesOf, type Rig } from '../../rig/rig.js';
import type { Value, When } from '../../rig/value.js';
import { FINISH, START } from './arrangement.js';

/**
 * What must hold for an edge to carry the signal. Facts about plugs are settled already: plugs do not move while one
 * plays.
 */
export type Need =
  | { readonly device: Id<'device'>; readonly when: When; readonly facts: readonly SeenFact[] }
  | { readonly device: Id<'device'>; readonly unless: When; readonly facts: readonly SeenFact[] };

/**
 * A chain whose slots follow one another as a control says: an edge carries the signal when the arrangement has its
 * pair of slots (`a>b`).
 */
export interface Ordered {
  readonly control: Ref;
  readonly usual: string;
  readonly pairs: readonly { readonly edge: number; readonly pair: string }[];
}

/** A fact about a control as the rig sees it, made ready for being asked very often. */
export interface SeenFact {
  readonly control: Ref;
  readonly allows: (value: Value) => boolean;
}

const seen = (device: Id<'device'>, when: When): readonly SeenFact[] =>
  when.flatMap((fact): readonly SeenFact[] => {
    if (!('control' in fact)) return [];
    const control = ref(device, fact.control);
    if ('from' in fact) return [{ control, allows: (v) => Number(v) >= fact.from && Number(v) <= fact.to }];
    const texts = new Set(fact.in.map(String));
    return [{ control, allows: (v) => texts.has(String(v)) }];
  });

export interface Edge {
  readonly from: number;
  readonly to: number;
  /** What must hold besides an arrangement. */
  readonly needs: readonly Need[];
  readonly carries: Carried;
  /** The side that its tap says by name; a tap that names none leads into both. */
  readonly leg?: Leg;
  /** By how much it is louder or softer at its far end; a block says that itself. */
  readonly gain?: Gain;
}

export type Carried =
  | { readonly by: 'cable'; readonly cable: Id<'cable'> }
  /** `on`: what must hold for the block to be on; undefined when a plug, or its absence, keeps it off. */
  | {
      readonly by: 'block';
      readonly device: Id<'device'>;
      readonly block: Block;
      readonly on: readonly SeenFact[] | undefined;
    }
  | { readonly by: 'send' | 'return' | 'past'; readonly device: Id<'device'>; readonly insert: Insert }
  | { readonly by: 'arm'; readonly device: Id<'device'>; readonly fork: string; readonly arm: Arm }
  | { readonly by: 'wire'; readonly device: Id<'device'> };

export interface Point {
  readonly id: string;
  readonly device: Id<'device'>;
  /** Inside a chain; otherwise a jack's pole or an inner bus. */
  readonly inside: boolean;
  /** The side of a chain of two sides on which it lies. */
  readonly lane?: Leg;
  /** The place in the chain, one and the same for both sides. */
  readonly place: string;
}

export interface WiredEnd {
  readonly ref: Ref;
  readonly point: number;
  readonly device: Id<'device'>;
  readonly end: End;
}

export interface WiredInsert {
  readonly device: Id<'device'>;
  readonly chain: string;
  readonly insert: Insert;
  /** Where it leaves its chain and where it comes back, of each side. */
  readonly entries: readonly number[];
  readonly exits: readonly number[];
  readonly patched: boolean;
}

export interface WiredBlock {
  readonly edge: number;
  readonly stage: Ref;
  readonly device: Id<'device'>;
  readonly block: Block;
}

/** An edge that passes a block, and what must hold for it to be on. */
interface Gated {
  readonly edge: number;
  readonly on: readonly SeenFact[];
  /** Whatever passes it while it is on is this side of the picture from there on. */
  readonly makes?: Leg;
}

/**
 * One layer (audio, MIDI, power …) of a hook-up as a graph of poles, buses and points inside chains, in no particular
 * state.
 */
export interface Wiring {
  readonly layer: JackKind;
  readonly points: readonly Point[];
  readonly edges: readonly Edge[];
  /** By edge: the point that it leaves, and the one it leads to. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** By edge: nothing can keep it from carrying the signal. */
  readonly open: Uint8Array;
  /** Edges that carry it when their needs are met, whatever the arrangement. */
  readonly needy: readonly number[];
  /** Edges on which no arrangement has a say. */
  readonly plain: readonly number[];
  readonly ordered: readonly Ordered[];
  readonly out: readonly (readonly number[])[];
  readonly into: readonly (readonly number[])[];
  readonly at: ReadonlyMap<string, number>;
  readonly sources: readonly WiredEnd[];
  readonly ends: readonly WiredEnd[];
  readonly inserts: readonly WiredInsert[];
  /** Edges that pass a block, of whatever device; those that a plug keeps off are left out. */
  readonly gated: readonly Gated[];
  /** Edges that pass a block of a wired device; in a chain of two sides a block has one for each. */
  readonly blocks: readonly WiredBlock[];
  /** Devices with a jack of this layer in which a plug sits. */
  readonly wired: ReadonlySet<Id<'device'>>;
  readonly plugged: ReadonlySet<Ref>;
}

const areAll = <T>(list: readonly (T | false)[]): list is readonly T[] => !list.includes(false);

export const pointId = (device: Id<'device'>, at: string): Ref => `${device}.${at}`;

/** The jack of a point, without its pole. @example jackOf('exp:ring') // 'exp' */
export const jackOf = (at: string): string => at.replace(/:(tip|ring)$/, '');

/** A place in a chain: one point, or in a chain of two sides one for each of them that is used there. */
type Place = ReadonlyMap<Leg | 'mono', number>;
const ONE_SIDE = ['mono'] as const;
const TWO_SIDES = ['left', 'right'] as const;

/** A chain has two sides as soon as any of its taps or arms names one. */
const isTwoSided = (chain: Chain): boolean =>
  [...chain.from, ...chain.to].some((t) => t.leg) || chain.slots.some(namesSide);
const namesSide = (slot: Slot): boolean =>
  slot.is === 'insert'
    ? [...slot.send, ...slot.return].some((t) => t.leg)
    : slot.is === 'fork' && slot.arms.some((arm) => arm.leg || arm.slots.some(namesSide));

const insertsOf = (slots: readonly Slot[]): readonly Insert[] =>
  slots.flatMap((s) => (s.is === 'insert' ? [s] : s.is === 'fork' ? s.arms.flatMap((a) => insertsOf(a.slots)) : []));

/** Sound in the air between a loudspeaker and a microphone belongs to the audio layer. */
const inLayer = (kind: JackKind, layer: JackKind): boolean => kind === layer || (layer === 'audio' && kind === 'air');

export const wire = (rig: Rig, hookup: Hookup, layer: JackKind = 'audio'): Wiring => {
  const feeds = layer === 'power' || layer === 'mains';
  const cables = feeds ? cablesOf(rig, hookup.id) : signalCables(rig, hookup.id);
  const plugged = new Set<Ref>(cables.flatMap((c) => c.ends));
  const build = new Builder(layer, plugged);
  for (const device of all(rig, 'device')) build.addDevice(device);
  for (const cable of cables) build.addCable(rig, cable);
  return build.finish(all(rig, 'device'));
};

/** What a block makes of what passes it while it is on: a side of the picture, or nothing new. */
const made = ({ width }: Block, { lane }: Point): { readonly makes?: Leg } =>
  width === 'spread' && lane ? { makes: lane } : {};

/** The chain in which slots stand, and what is true of all of it. */
interface Inside {
  readonly device: Device;
  readonly chain: Chain;
  readonly sides: readonly (Leg | 'mono')[];
  readonly unfed: ReadonlySet<Leg | 'mono'>;
}

class Builder {
  private readonly points: Point[] = [];
  private readonly edges: Edge[] = [];
  private readonly at = new Map<string, number>();
  private readonly inserts: WiredInsert[] = [];
  private readonly ordered: Ordered[] = [];
  private readonly wired = new Set<Id<'device'>>();

  constructor(
    private readonly layer: JackKind,
    private readonly plugged: ReadonlySet<Ref>,
  ) {}

  private point(id: string, device: Id<'device'>, inside: boolean, lane?: Leg): number {
    const own = lane ? `${id}@${lane}` : id;
    const known = this.at.get(own);
    if (known !== undefined) return known;
    this.at.set(own, this.points.length);
    this.points.push({ id: own, device, inside, place: id, ...(lane ? { lane } : {}) });
    return this.points.length - 1;
  }

  private place(id: string, device: Id<'device'>, sides: readonly (Leg | 'mono')[]): Place {
    return new Map(sides.map((side) => [side, this.point(id, device, true, side === 'mono' ? undefined : side)]));
  }

  private edge(
    from: number,
    to: number,
    needs: readonly (Need | false)[],
    carries: Carried,
    more: { leg?: Leg | undefined; gain?: Gain | undefined } = {},
  ): void {
    if (!areAll(needs)) return;
    const edge = { from, to, needs, carries };
    const { leg, gain } = more;
    this.edges.push(
      leg || gain !== undefined ? { ...edge, ...(leg && { leg }), ...(gain !== undefined && { gain }) } : edge,
    );
  }

  /** Each side of one place to the same side of another. */
  private along(from: Place, to: Place, needs: readonly (Need | false)[], carries: Carried, gain?: Gain): void {
    for (const [side, point] of from) {
      const there = to.get(side);
      if (there !== undefined) this.edge(point, there, needs, carries, { gain });
    }
  }

  /** From a tap into the side that it names, or into every side. */
  private enter(device: Device, tap: Tap, to: Place, needs: readonly (Need | false)[], carries: Carried): void {
    for (const [side, point] of to) {
      if (side === 'mono' || !tap.leg || tap.leg === side)
        this.edge(this.tapPoint(device, tap), point, [...needs, ...this.when(device, tap.when)], carries, {
          leg: tap.leg,
          gain: tap.gain,
        });
    }
  }

  /** From the side that a tap names, or from the sum of both. */
  private leave(device: Device, from: Place, tap: Tap, needs: readonly (Need | false)[], carries: Carried): void {
    const point = tap.leg && !from.has('mono') ? from.get(tap.leg) : this.summed(device, from);
    if (point !== undefined)
      this.edge(point, this.tapPoint(device, tap), [...needs, ...this.when(device, tap.when)], carries, {
        leg: tap.leg,
        gain: tap.gain,
      });
  }

  /** The point at which both sides of a place are added. */
  private summed(device: Device, place: Place): number | undefined {
    const [first] = place.values();
    if (place.size < 2) return first;
    const id = `${theItem(this.points, first!).place}/both`;
    const isNew = !this.at.has(id);
    const sum = this.point(id, device.id, true);
    if (isNew) for (const side of place.values()) this.edge(side, sum, [], { by: 'wire', device: device.id });
    return sum;
  }

  /** Facts about plugs are settled here; `false` when the need can never be met in this hook-up. */
  private when(device: Device, when: When | undefined): readonly (Need | false)[] {
    if (!when?.length) return [];
    const rest = when.filter((f) => 'control' in f);
    if (when.some((f) => 'jack' in f && this.isPlugged(device, f.jack) !== f.plugged)) return [false];
    return rest.length ? [{ device: device.id, when: rest, facts: seen(device.id, rest) }] : [];
  }

  private unless(device: Device, when: When | undefined): readonly (Need | false)[] {
    if (!when?.length) return [false];
    if (when.some((f) => 'jack' in f && this.isPlugged(device, f.jack) !== f.plugged)) return [];
    const rest = when.filter((f) => 'control' in f);
    return rest.length ? [{ device: device.id, unless: rest, facts: seen(device.id, rest) }] : [false];
  }

  private isPlugged(device: Device, jack: string): boolean {
    return this.plugged.has(`${device.id}.${jackOf(jack)}`);
  }

  addDevice(device: Device): void {
    const kinds = new Map(device.jacks.map((j) => [j.id, j.kind]));
    for (const jack of device.jacks) {
      if (!inLayer(jack.kind, this.layer)) continue;
      if (jack.poles.tip) this.point(pointId(device.id, jack.id), device.id, false);
      if (jack.poles.ring) this.point(pointId(device.id, `${jack.id}:ring`), device.id, false);
    }
    const layerOf = (chain: Chain): JackKind => {
      const taps = [
        ...chain.from,
        ...chain.to,
        ...chain.slots.flatMap((s) => (s.is === 'insert' ? [...s.send, ...s.return] : [])),
      ];
      const jack = taps.find((t) => !t.at.startsWith('#'));
      return jack ? (kinds.get(jackOf(jack.at)) ?? 'audio') : 'audio';
    };
    for (const chain of device.chains) if (inLayer(layerOf(chain), this.layer)) this.addChain(device, chain);
  }

  private tapPoint(device: Device, tap: Tap): number {
    const at = tap.at.replace(/:tip$/, '');
    return this.point(pointId(device.id, at), device.id, false);
  }

  private addChain(device: Device, chain: Chain): void {
    const base = `${device.id}/${chain.id}`;
    const sides = isTwoSided(chain) ? TWO_SIDES : ONE_SIDE;
    const inside: Inside = { device, chain, sides, unfed: this.unfedSides(device, chain, sides) };
    const start = this.place(base, device.id, sides);
    const finish = this.place(`${base}/end`, device.id, sides);
    const wire: Carried = { by: 'wire', device: device.id };
    const gate = this.when(device, chain.when);
    for (const tap of chain.from) this.enter(device, tap, start, gate, wire);
    if (chain.order) this.addOrdered(inside, base, start, finish);
    else this.addSeries(inside, chain.slots, base, start, finish);
    for (const tap of chain.to) this.leave(device, finish, tap, [], wire);
  }

  /** The sides of a chain into which nothing is plugged: a stage that makes two sides fills them from the other. */
  private unfedSides(device: Device, chain: Chain, sides: readonly (Leg | 'mono')[]): ReadonlySet<Leg | 'mono'> {
    const taps = [...chain.from, ...insertsOf(chain.slots).flatMap((i) => i.return)];
    const isFed = (tap: Tap): boolean =>
      (tap.at.startsWith('#') || this.isPlugged(device, tap.at)) && !this.when(device, tap.when).includes(false);
    return new Set(sides.filter((side) => !taps.some((t) => (!t.leg || t.leg === side) && isFed(t))));
  }

  private addSeries(inside: Inside, slots: readonly Slot[], base: string, start: Place, finish: Place): void {
    const { id } = inside.device;
    let at = start;
    slots.forEach((slot, i) => {
      const next = i === slots.length - 1 ? finish : this.place(`${base}/after-${slot.id}`, id, [...start.keys()]);
      this.addSlot(inside, slot, base, at, next);
      at = next;
    });
    if (slots.length === 0) this.along(start, finish, [], { by: 'wire', device: id });
  }

  private addOrdered(inside: Inside, base: string, start: Place, finish: Place): void {
    const { device, chain, sides } = inside;
    const pairs: { readonly edge: number; readonly pair: string }[] = [];
    const follow = (from: Place, to: Place, pair: string) => {
      const first = this.edges.length;
      this.along(from, to, [], { by: 'wire', device: device.id });
      for (let edge = first; edge < this.edges.length; edge += 1) pairs.push({ edge, pair });
    };
    const places = chain.slots.map((slot) => {
      const entry = this.place(`${base}/before-${slot.id}`, device.id, sides);
      const exit = this.place(`${base}/after-${slot.id}`, device.id, sides);
      this.addSlot(inside, slot, base, entry, exit);
      return { id: slot.id, entry, exit };
    });
    follow(start, finish, `${START}>${FINISH}`);
    for (const a of places) {
      follow(start, a.entry, `${START}>${a.id}`);
      follow(a.exit, finish, `${a.id}>${FINISH}`);
      for (const b of places) if (a !== b) follow(a.exit, b.entry, `${a.id}>${b.id}`);
    }
    this.ordered.push({ control: ref(device.id, chain.order!), usual: chain.slots.map((s) => s.id).join(' '), pairs });
  }

  private addSlot(inside: Inside, slot: Slot, base: string, at: Place, next: Place): void {
    const { device } = inside;
    switch (slot.is) {
      case 'block':
        return this.addBlock(inside, slot, at, next);
      case 'fork': {
        for (const arm of slot.arms) {
          const armBase = `${base}/${slot.id}/${arm.id}`;
          const sides = arm.leg ? [arm.leg] : [...at.keys()];
          const entry = this.place(armBase, device.id, sides);
          const exit = this.place(`${armBase}/end`, device.id, sides);
          this.along(
            at,
            entry,
            this.when(device, arm.when),
            { by: 'arm', device: device.id, fork: slot.id, arm },
            arm.gain,
          );
          this.addSeries(inside, arm.slots, armBase, entry, exit);
          this.along(exit, next, [], { by: 'wire', device: device.id });
        }
        return;
      }
      case 'insert':
        return this.addInsert(inside, slot, at, next);
    }
  }

  /**
   * Each side goes through by itself; a sum adds them while it is on, and what makes two sides fills one into which
   * nothing is plugged.
   */
  private addBlock({ device, unfed }: Inside, block: Block, at: Place, next: Place): void {
    const on = this.when(device, block.on);
    const sounds = areAll(on) ? on.flatMap((n) => n.facts) : undefined;
    const passes = block.mutes ? this.unless(device, block.mutes) : [];
    const carries: Carried = {
      by: 'block',
      device: device.id,
      block,
      on: sounds,
    };
    this.along(at, next, passes, carries);
    for (const [side, from] of at) {
      for (const [other, to] of next) {
        const crosses = block.width === 'sum' || (block.width === 'spread' && unfed.has(other) && !unfed.has(side));
        if (side !== other && crosses) this.edge(from, to, [...passes, ...on], carries);
      }
    }
  }

  private addInsert({ device, chain }: Inside, insert: Insert, at: Place, next: Place): void {
    const sent = insert.send.some((t) => this.isPlugged(device, t.at));
    const returned = insert.return.some((t) => this.isPlugged(device, t.at));
    const patched = insert.breaks === 'send' ? sent : insert.breaks === 'either' ? sent || returned : returned;
    this.inserts.push({
      device: device.id,
      chain: chain.id,
      insert,
      entries: [...at.values()],
      exits: [...next.values()],
      patched,
    });
    const on = this.when(device, insert.on);
    const off = this.unless(device, insert.on);
    const past: Carried = { by: 'past', device: device.id, insert };
    const sendNeeds = insert.off === 'return' ? [] : on;
    for (const tap of insert.send) this.leave(device, at, tap, sendNeeds, { by: 'send', device: device.id, insert });
    if (!patched) {
      this.along(at, next, insert.unpatched === 'through' ? [] : off, past);
      return;
    }
    const returnAlways = insert.off === 'send';
    for (const tap of insert.return) {
      const carries: Carried = { by: 'return', device: device.id, insert };
      this.enter(device, tap, next, returnAlways ? [] : on, carries);
      if (typeof insert.off === 'object')
        this.enter(device, tap, next, [...off, ...this.when(device, insert.off.sendOnlyWhen)], carries);
    }
    if (insert.direct === true) this.along(at, next, [], past);
    else {
      this.along(at, next, off, past);
      if (insert.direct) this.along(at, next, [...on, ...this.when(device, insert.direct)], past);
    }
  }

  addCable(rig: Rig, cable: Cable): void {
    const [a, b] = cable.ends.map((end) => {
      const { device, name } = splitRef(end);
      const jack = jackIn(rig.parts.device.get(device), name);
      return jack && { device, jack };
    });
    if (!a || !b || !inLayer(a.jack.kind, this.layer) || !inLayer(b.jack.kind, this.layer)) return;
    this.wired.add(a.device).add(b.device);
    for (const pole of ['tip', 'ring'] as const satisfies readonly Pole[]) {
      const suffix = pole === 'ring' ? ':ring' : '';
      for (const [x, y] of [
        [a, b],
        [b, a],
      ] as const) {
        if (x.jack.poles[pole] !== 'out' || y.jack.poles[pole] !== 'in') continue;
        const from = this.point(pointId(x.device, x.jack.id + suffix), x.device, false);
        const to = this.point(pointId(y.device, y.jack.id + suffix), y.device, false);
        this.edge(from, to, [], { by: 'cable', cable: cable.id });
      }
    }
  }

  finish(devices: readonly Device[]): Wiring {
    const { points, edges } = this;
    const inOrder = new Uint8Array(edges.length);
    for (const { pairs } of this.ordered) for (const { edge } of pairs) inOrder[edge] = 1;
    const out: number[][] = points.map(() => []);
    const into: number[][] = points.map(() => []);
    const [from, to] = [new Int32Array(edges.length), new Int32Array(edges.length)];
    const open = new Uint8Array(edges.length);
    const [plain, needy]: [number[], number[]] = [[], []];
    const blocks: WiredBlock[] = [];
    const gated: Gated[] = [];
    edges.forEach((edge, e) => {
      theItem(out, edge.from).push(e);
      theItem(into, edge.to).push(e);
      from[e] = edge.from;
      to[e] = edge.to;
      if (!inOrder[e]) {
        plain.push(e);
        if (edge.needs.length > 0) needy.push(e);
        else open[e] = 1;
      }
      if (edge.carries.by !== 'block') return;
      const { device, block, on } = edge.carries;
      if (this.wired.has(device)) blocks.push({ edge: e, stage: ref(device, block.id), device, block });
      if (on) gated.push({ edge: e, on, ...made(block, theItem(points, edge.to)) });
    });
    const ends = devices.flatMap((device) =>
      (device.ends ?? []).flatMap((end): WiredEnd[] => {
        const point = this.at.get(pointId(device.id, end.at));
        return point === undefined ? [] : [{ ref: pointId(device.id, end.at), point, device: device.id, end }];
      }),
    );
    return {
      layer: this.layer,
      points,
      edges,
      plain,
      ordered: this.ordered,
      from,
      to,
      open,
      needy,
      out,
      into,
      at: this.at,
      inserts: this.inserts,
      blocks,
      gated,
      wired: this.wired,
      plugged: this.plugged,
      sources: ends.filter((e) => e.end.is === 'source'),
      ends: ends.filter((e) => e.end.is !== 'source'),
    };
  }
}
