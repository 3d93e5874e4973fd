import type { FigureSource } from '../../rig/figure-source.js';
import { theItem } from '../../known/the.js';
import { jackAt } from '../../rig/box.js';
import { blocksIn } from '../../rig/domain.js';
import type { Pickup } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import { jackOf, type WiredEnd } from '../../signal/graph/wiring.js';
import { inHand } from '../in-hand.js';
import { openness } from '../volume.js';
import { isBypassed, isWire, wayOf, type Way } from './chains.js';

/** What a metre of cable is to a coil where nobody said it (common practice: 65 to 160 pF). */
export const USUAL_PF_PER_M = 100;
/** What a bypassed box adds besides its two leads (common practice: 20 to 50 pF). */
export const BYPASSED_PF = 35;
/** The input of a box that says nothing of it. */
export const USUAL_INPUT_OHM = 1_000_000;

/** One thing that hangs on the coil before the first box that is on. */
export type Piece =
  | {
      readonly is: 'lead';
      readonly cable: Id<'cable'>;
      readonly metres: number;
      readonly pF: number;
      readonly from: FigureSource;
    }
  /** A way of a multicore. */
  | { readonly is: 'way'; readonly device: Id<'device'>; readonly metres: number; readonly pF: number }
  | { readonly is: 'bypassed'; readonly device: Id<'device'>; readonly pF: number }
  /** A passive volume pedal: its pot, and how far it is open (1: at full). */
  | {
      readonly is: 'pot';
      readonly device: Id<'device'>;
      readonly jack: Ref;
      readonly ohm: number;
      readonly open: number;
    }
  /** An input that is felt: of the first box that is on. */
  | { readonly is: 'input'; readonly jack: Ref; readonly ohm: number };

/** A piece, and behind how many pots it stands. */
export interface Hung {
  readonly piece: Piece;
  readonly behind: number;
}

/** The passive part of a rig in a state: a coil, and all that hangs on it up to the first boxes that are on. */
export interface FrontEnd {
  readonly source: WiredEnd;
  readonly pickup: Pickup;
  readonly hung: readonly Hung[];
  readonly metres: number;
  /** Leads without a length; they are left out. */
  readonly unmeasured: readonly Id<'cable'>[];
  readonly pF: number;
  /** Bypassed boxes without a buffer between. */
  readonly bypassed: readonly Id<'device'>[];
}

/**
 * The passive part behind every source with a coil that plays in a state, or would with a selector on its way turned to
 * it: the other guitar.
 */
export const frontEnds = (rig: Rig, t: Trace): readonly FrontEnd[] =>
  t.wiring.sources.flatMap((source) => {
    const coil = t.wiring.wired.has(source.device) ? coilOf(rig, source) : undefined;
    const heard = coil && inHand(rig, t, source);
    return coil && heard ? [frontEnd(rig, heard, source, coil)] : [];
  });

/** A coil as it usually is, of an instrument that says nothing of it; assumed. */
const USUAL_COIL: Pickup = {
  henry: 2.5,
  ohm: 6_000,
  pF: 110,
  volumeOhm: 250_000,
  tone: { ohm: 250_000, nF: 22 },
};
/** An output of more ohms is a coil and its knobs. */
const PASSIVE_OHM = 5_000;

/** The coil of a source; a guitar or bass with a high output has one although nobody described it. */
export const coilOf = (rig: Rig, { end, ref: at }: Pick<WiredEnd, 'end' | 'ref'>): Pickup | undefined => {
  if (end.pickup) return end.pickup;
  const isString = end.what === 'guitar' || end.what === 'bass';
  return isString && (jackAt(rig, at)?.ohm ?? 0) >= PASSIVE_OHM ? USUAL_COIL : undefined;
};

const frontEnd = (rig: Rig, t: Trace, source: WiredEnd, pickup: Pickup): FrontEnd => {
  const walk = new Walk(rig, t);
  walk.from(source.point);
  const { hung, unmeasured } = walk;
  const pieces = hung.map((h) => h.piece);
  return {
    source,
    pickup,
    hung,
    unmeasured,
    metres: sum(pieces.map((p) => ('metres' in p ? p.metres : 0))),
    pF: sum(pieces.map((p) => ('pF' in p ? p.pF : 0))),
    bypassed: pieces.flatMap((p) => (p.is === 'bypassed' ? [p.device] : [])),
  };
};

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

/** Everything that a coil feels: along every lead and every way that is nothing but wire, splits and all. */
class Walk {
  readonly hung: Hung[] = [];
  readonly unmeasured: Id<'cable'>[] = [];
  private readonly seen = new Set<number>();
  private readonly boxes = new Set<string>();

  constructor(
    private readonly rig: Rig,
    private readonly t: Trace,
  ) {}

  from(start: number): void {
    const queue = [{ point: start, behind: 0 }];
    this.seen.add(start);
    for (const { point, behind } of queue) {
      const { leaving, wiring } = this.t;
      for (let k = theItem(leaving.at, point); k < theItem(leaving.at, point + 1); k += 1) {
        const e = theItem(leaving.edges, k);
        const onward = this.over(e, point, behind);
        const to = theItem(wiring.to, e);
        if (onward === undefined || this.seen.has(to)) continue;
        this.seen.add(to);
        queue.push({ point: to, behind: onward });
      }
    }
  }

  private hang(piece: Piece, behind: number): void {
    this.hung.push({ piece, behind });
  }

  /** @returns behind how many pots one stands at the far end; undefined where a box is on */
  private over(e: number, point: number, behind: number): number | undefined {
    const { wiring } = this.t;
    const { carries } = theItem(wiring.edges, e);
    if (carries.by === 'cable') return this.lead(carries.cable, behind);
    const way = wayOf(this.rig, wiring, e);
    if (way && isWire(this.t, way)) return this.through(way, behind);
    this.input(point, behind, way);
    return undefined;
  }

  private lead(id: Id<'cable'>, behind: number): number {
    if (this.boxes.has(id)) return behind;
    this.boxes.add(id);
    const { m, pFPerM, pFFrom = { from: 'assumed' } } = thePart(this.rig, id);
    if (m === undefined) this.unmeasured.push(id);
    else this.hang({ is: 'lead', cable: id, metres: m, pF: m * (pFPerM ?? USUAL_PF_PER_M), from: pFFrom }, behind);
    return behind;
  }

  private through(way: Way, behind: number): number {
    const { device, chain } = way;
    const isPot = blocksIn(chain.slots).some((b) => b.stage === 'volume');
    const key = `${device} ${chain.id}`;
    if (this.boxes.has(key)) return behind + (isPot ? 1 : 0);
    this.boxes.add(key);
    if (isPot) {
      const from = theItem(chain.from, 0);
      const jack = ref(device, jackOf(from.at));
      const ohm = jackAt(this.rig, jack)?.ohm ?? USUAL_INPUT_OHM;
      this.hang({ is: 'pot', device, jack, ohm, open: openness(thePart(this.rig, device), this.t.state) }, behind);
      return behind + 1;
    }
    const { metres } = thePart(this.rig, device).figures;
    if (metres) this.hang({ is: 'way', device, metres, pF: metres * USUAL_PF_PER_M }, behind);
    if (isBypassed(way)) this.hang({ is: 'bypassed', device, pF: BYPASSED_PF }, behind);
    return behind;
  }

  /** The input of a box that is on; a stage that says what it feels like counts before its jack. */
  private input(point: number, behind: number, way: Way | undefined): void {
    const { id, inside, device } = theItem(this.t.wiring.points, point);
    if (inside) return;
    const jack = ref(device, jackOf(id.slice(device.length + 1)));
    const key = `input ${jack}`;
    if (this.boxes.has(key)) return;
    this.boxes.add(key);
    const first = way && blocksIn(way.chain.slots).find((b) => this.t.stages.get(ref(device, b.id)) === 'in');
    this.hang({ is: 'input', jack, ohm: first?.inputOhm ?? jackAt(this.rig, jack)?.ohm ?? USUAL_INPUT_OHM }, behind);
  }
}
