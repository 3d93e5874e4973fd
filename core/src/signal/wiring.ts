import type { Arm, Block, Chain, Device, End, Gain, Insert, JackKind, Leg, Pole, Slot, Tap } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, type Rig } from '../rig/rig.js';
import type { Value, When } from '../rig/value.js';
import { FINISH, START } from './arrangement.js';

/** What must hold for an edge to carry the signal. Facts about plugs are settled already: plugs do not move while one plays. */
export type Need =
  | { readonly device: Id<'device'>; readonly when: When; readonly facts: readonly SeenFact[] }
  | { readonly device: Id<'device'>; readonly unless: When; readonly facts: readonly SeenFact[] };

/** A chain whose slots follow one another as a control says: an edge carries the signal when the arrangement has its pair of slots (`a>b`). */
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

const seen = (device: Id<'device'>, when: When): readonly SeenFact[] => when.flatMap((fact): readonly SeenFact[] => {
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
  /** Only this leg of the chain enters or leaves here. */
  readonly fromLeg?: Leg;
  readonly toLeg?: Leg;
  /** By how much it is louder or softer at its far end; a block says that itself. */
  readonly gain?: Gain;
}

export type Carried =
  | { readonly by: 'cable'; readonly cable: Id<'cable'> }
  /** `on`: what must hold for the block to be on; undefined when a plug, or its absence, keeps it off. */
  | { readonly by: 'block'; readonly device: Id<'device'>; readonly block: Block; readonly on: readonly SeenFact[] | undefined }
  | { readonly by: 'send' | 'return' | 'past'; readonly device: Id<'device'>; readonly insert: Insert }
  | { readonly by: 'arm'; readonly device: Id<'device'>; readonly fork: string; readonly arm: Arm }
  | { readonly by: 'wire'; readonly device: Id<'device'> };

export interface Point {
  readonly id: string;
  readonly device: Id<'device'>;
  /** A jack's pole or an inner bus has no legs; a point inside a chain has. */
  readonly inside: boolean;
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
  readonly entry: number;
  readonly exit: number;
  readonly patched: boolean;
}

export interface WiredBlock {
  readonly edge: number;
  readonly stage: Ref;
  readonly device: Id<'device'>;
  readonly block: Block;
}

/** One layer (audio, MIDI, power …) of a hook-up as a graph of poles, buses and points inside chains, in no particular state. */
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
  /** Edges that pass a block, of whatever device, with what must hold for it to be on; those that a plug keeps off are left out. */
  readonly gated: readonly { readonly edge: number; readonly on: readonly SeenFact[] }[];
  /** Edges that pass a block of a wired device. */
  readonly blocks: readonly WiredBlock[];
  /** Devices with a jack of this layer in which a plug sits. */
  readonly wired: ReadonlySet<Id<'device'>>;
  readonly plugged: ReadonlySet<Ref>;
}

export const pointId = (device: Id<'device'>, at: string): string => `${device}.${at}`;

/** The jack of a point, without its pole. @example jackOf('exp:ring') // 'exp' */
export const jackOf = (at: string): string => at.replace(/:(tip|ring)$/, '');

/** Sound in the air between a loudspeaker and a microphone belongs to the audio layer. */
const inLayer = (kind: JackKind, layer: JackKind): boolean => kind === layer || (layer === 'audio' && kind === 'air');

export const wire = (rig: Rig, hookup: Hookup, layer: JackKind = 'audio'): Wiring => {
  const cables = cablesOf(rig, hookup.id);
  const plugged = new Set<Ref>(cables.flatMap((c) => c.ends));
  const build = new Builder(layer, plugged);
  for (const device of all(rig, 'device')) build.addDevice(device);
  for (const cable of cables) build.addCable(rig, cable);
  return build.finish(all(rig, 'device'));
};

class Builder {
  private readonly points: Point[] = [];
  private readonly edges: Edge[] = [];
  private readonly at = new Map<string, number>();
  private readonly inserts: WiredInsert[] = [];
  private readonly ordered: Ordered[] = [];
  private readonly wired = new Set<Id<'device'>>();

  constructor(private readonly layer: JackKind, private readonly plugged: ReadonlySet<Ref>) {}

  private point(id: string, device: Id<'device'>, inside: boolean): number {
    const known = this.at.get(id);
    if (known !== undefined) return known;
    this.at.set(id, this.points.length);
    this.points.push({ id, device, inside });
    return this.points.length - 1;
  }

  private edge(from: number, to: number, needs: readonly (Need | false)[], carries: Carried, more: { fromLeg?: Leg | undefined; toLeg?: Leg | undefined; gain?: Gain | undefined } = {}): void {
    if (needs.includes(false)) return;
    this.edges.push({
      from, to, needs: needs as readonly Need[], carries,
      ...(more.fromLeg ? { fromLeg: more.fromLeg } : {}), ...(more.toLeg ? { toLeg: more.toLeg } : {}), ...(more.gain === undefined ? {} : { gain: more.gain }),
    });
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
    return this.plugged.has(`${device.id}.${jackOf(jack)}` as Ref);
  }

  addDevice(device: Device): void {
    const kinds = new Map(device.jacks.map((j) => [j.id, j.kind]));
    for (const jack of device.jacks) {
      if (!inLayer(jack.kind, this.layer)) continue;
      if (jack.poles.tip) this.point(pointId(device.id, jack.id), device.id, false);
      if (jack.poles.ring) this.point(pointId(device.id, `${jack.id}:ring`), device.id, false);
    }
    const layerOf = (chain: Chain): JackKind => {
      const taps = [...chain.from, ...chain.to, ...chain.slots.flatMap((s) => (s.is === 'insert' ? [...s.send, ...s.return] : []))];
      const jack = taps.find((t) => !t.at.startsWith('#'));
      return jack ? kinds.get(jackOf(jack.at)) ?? 'audio' : 'audio';
    };
    for (const chain of device.chains) if (inLayer(layerOf(chain), this.layer)) this.addChain(device, chain);
  }

  private tapPoint(device: Device, tap: Tap): number {
    const at = tap.at.replace(/:tip$/, '');
    return this.point(pointId(device.id, at), device.id, false);
  }

  private addChain(device: Device, chain: Chain): void {
    const base = `${device.id}/${chain.id}`;
    const start = this.point(base, device.id, true);
    const finish = this.point(`${base}/end`, device.id, true);
    const gate = this.when(device, chain.when);
    for (const tap of chain.from) {
      this.edge(this.tapPoint(device, tap), start, [...gate, ...this.when(device, tap.when)], { by: 'wire', device: device.id }, { toLeg: tap.leg, gain: tap.gain });
    }
    if (chain.order) this.addOrdered(device, chain, base, start, finish);
    else this.addSeries(device, chain, chain.slots, base, start, finish);
    for (const tap of chain.to) {
      this.edge(finish, this.tapPoint(device, tap), this.when(device, tap.when), { by: 'wire', device: device.id }, { fromLeg: tap.leg, gain: tap.gain });
    }
  }

  private addSeries(device: Device, chain: Chain, slots: readonly Slot[], base: string, start: number, finish: number): void {
    let at = start;
    slots.forEach((slot, i) => {
      const next = i === slots.length - 1 ? finish : this.point(`${base}/after-${slot.id}`, device.id, true);
      this.addSlot(device, chain, slot, base, at, next);
      at = next;
    });
    if (slots.length === 0) this.edge(start, finish, [], { by: 'wire', device: device.id });
  }

  private addOrdered(device: Device, chain: Chain, base: string, start: number, finish: number): void {
    const pairs: { readonly edge: number; readonly pair: string }[] = [];
    const follow = (from: number, to: number, pair: string) => {
      pairs.push({ edge: this.edges.length, pair });
      this.edge(from, to, [], { by: 'wire', device: device.id });
    };
    const places = chain.slots.map((slot) => {
      const entry = this.point(`${base}/before-${slot.id}`, device.id, true);
      const exit = this.point(`${base}/after-${slot.id}`, device.id, true);
      this.addSlot(device, chain, slot, base, entry, exit);
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

  private addSlot(device: Device, chain: Chain, slot: Slot, base: string, at: number, next: number): void {
    switch (slot.is) {
      case 'block':
        return this.addBlock(device, slot, at, next);
      case 'fork': {
        for (const arm of slot.arms) {
          const armBase = `${base}/${slot.id}/${arm.id}`;
          const entry = this.point(armBase, device.id, true);
          const exit = this.point(`${armBase}/end`, device.id, true);
          this.edge(at, entry, this.when(device, arm.when), { by: 'arm', device: device.id, fork: slot.id, arm }, { fromLeg: arm.leg, toLeg: arm.leg, gain: arm.gain });
          this.addSeries(device, chain, arm.slots, armBase, entry, exit);
          this.edge(exit, next, [], { by: 'wire', device: device.id });
        }
        return;
      }
      case 'insert':
        return this.addInsert(device, chain, slot, at, next);
    }
  }

  private addBlock(device: Device, block: Block, at: number, next: number): void {
    const on = this.when(device, block.on);
    this.edge(at, next, block.mutes ? this.unless(device, block.mutes) : [], { by: 'block', device: device.id, block, on: on.includes(false) ? undefined : (on as readonly Need[]).flatMap((n) => n.facts) });
  }

  private addInsert(device: Device, chain: Chain, insert: Insert, at: number, next: number): void {
    const sent = insert.send.some((t) => this.isPlugged(device, t.at));
    const returned = insert.return.some((t) => this.isPlugged(device, t.at));
    const patched = insert.breaks === 'send' ? sent : insert.breaks === 'either' ? sent || returned : returned;
    this.inserts.push({ device: device.id, chain: chain.id, insert, entry: at, exit: next, patched });
    const on = this.when(device, insert.on);
    const off = this.unless(device, insert.on);
    const past: Carried = { by: 'past', device: device.id, insert };
    const sendNeeds = insert.off === 'return' ? [] : on;
    for (const tap of insert.send) {
      this.edge(at, this.tapPoint(device, tap), [...sendNeeds, ...this.when(device, tap.when)], { by: 'send', device: device.id, insert }, { fromLeg: tap.leg, gain: tap.gain });
    }
    if (!patched) {
      this.edge(at, next, insert.unpatched === 'through' ? [] : off, past);
      return;
    }
    const returnAlways = insert.off === 'send';
    for (const tap of insert.return) {
      const from = this.tapPoint(device, tap);
      const needs = this.when(device, tap.when);
      const carries: Carried = { by: 'return', device: device.id, insert };
      this.edge(from, next, [...(returnAlways ? [] : on), ...needs], carries, { toLeg: tap.leg, gain: tap.gain });
      if (typeof insert.off === 'object') this.edge(from, next, [...off, ...this.when(device, insert.off.sendOnlyWhen), ...needs], carries, { toLeg: tap.leg, gain: tap.gain });
    }
    if (insert.direct === true) this.edge(at, next, [], past);
    else {
      this.edge(at, next, off, past);
      if (insert.direct) this.edge(at, next, [...on, ...this.when(device, insert.direct)], past);
    }
  }

  addCable(rig: Rig, cable: Cable): void {
    const [a, b] = cable.ends.map((end) => {
      const { device, name } = splitRef(end);
      const jack = rig.parts.device.get(device)?.jacks.find((j) => j.id === name);
      return jack && { device, jack };
    });
    if (!a || !b || !inLayer(a.jack.kind, this.layer) || !inLayer(b.jack.kind, this.layer)) return;
    this.wired.add(a.device).add(b.device);
    for (const pole of ['tip', 'ring'] as const satisfies readonly Pole[]) {
      const suffix = pole === 'ring' ? ':ring' : '';
      for (const [x, y] of [[a, b], [b, a]] as const) {
        if (x.jack.poles[pole] !== 'out' || y.jack.poles[pole] !== 'in') continue;
        const from = this.point(pointId(x.device, x.jack.id + suffix), x.device, false);
        const to = this.point(pointId(y.device, y.jack.id + suffix), y.device, false);
        this.edge(from, to, [], { by: 'cable', cable: cable.id });
      }
    }
  }

  finish(devices: readonly Device[]): Wiring {
    const out: number[][] = this.points.map(() => []);
    const into: number[][] = this.points.map(() => []);
    this.edges.forEach((e, i) => {
      out[e.from]!.push(i);
      into[e.to]!.push(i);
    });
    const ends = devices.flatMap((device) => (device.ends ?? []).flatMap((end): WiredEnd[] => {
      const point = this.at.get(pointId(device.id, end.at));
      return point === undefined ? [] : [{ ref: pointId(device.id, end.at) as Ref, point, device: device.id, end }];
    }));
    const blocks = this.edges.flatMap(({ carries }, edge): readonly WiredBlock[] => {
      if (carries.by !== 'block' || !this.wired.has(carries.device)) return [];
      const { device, block } = carries;
      return [{ edge, stage: ref(device, block.id), device, block }];
    });
    const inOrder = new Set(this.ordered.flatMap((o) => o.pairs.map((p) => p.edge)));
    const plain = this.edges.flatMap((_, e) => (inOrder.has(e) ? [] : [e]));
    return {
      layer: this.layer, points: this.points, edges: this.edges, plain, ordered: this.ordered,
      from: Int32Array.from(this.edges, (e) => e.from), to: Int32Array.from(this.edges, (e) => e.to),
      open: Uint8Array.from(this.edges, (e, i) => (e.needs.length || inOrder.has(i) ? 0 : 1)), needy: plain.filter((e) => this.edges[e]!.needs.length > 0),
      out, into, at: this.at, inserts: this.inserts, blocks, gated: this.edges.flatMap(({ carries }, edge) => (carries.by === 'block' && carries.on ? [{ edge, on: carries.on }] : [])),
      wired: this.wired, plugged: this.plugged,
      sources: ends.filter((e) => e.end.is === 'source'), ends: ends.filter((e) => e.end.is !== 'source'),
    };
  }
}
