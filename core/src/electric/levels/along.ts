import { once } from '../../kept/kept.js';
import { surely, theItem } from '../../known/the.js';
import { jackAt } from '../../rig/box.js';
import type { Jack } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { arrivals } from '../../signal/graph/arrivals.js';
import { pointsInOrder } from '../../signal/graph/order.js';
import { whenHolds } from '../../signal/graph/state.js';
import type { Trace } from '../../signal/graph/trace.js';
import { jackOf, type Edge, type WiredEnd, type Wiring } from '../../signal/graph/wiring.js';
import { USUAL_DBU } from '../gain.js';
import { CONVERTED_MS, takesDbu, typicalMs, USUAL_OUTPUT_OHM } from '../typical.js';
import { isWire, wayOf } from '../front/chains.js';
import { decibels } from './decibels.js';
import { stageGain } from './stage-gain.js';
import { loudness, louder, merged, type Wave } from './waves.js';

/** How loud a sound is at a place: on average, and where it is strongest, in dBu. */
export interface Level {
  readonly average: number;
  readonly peak: number;
}

/** A stage that a sound passes while it is in. */
export interface PassedStage {
  readonly stage: Ref;
  /** The edges that pass it: one, or one of each side. */
  readonly edges: readonly number[];
  readonly into: Level;
  readonly out: Level;
  /** Its own noise at its output, in dBu. */
  readonly noise: number;
  readonly said: boolean;
}

/** Where a lead joins an output to an input. */
export interface Joint {
  readonly cable: Id<'cable'>;
  readonly from: Ref;
  readonly to: Ref;
  /** What the divider of both impedances costs, in dB. */
  readonly loss: number;
  readonly level: Level;
  /** The strongest signal that the input takes, in dBu, and whether somebody wrote it down. */
  readonly takes: { readonly dbu: number; readonly said: boolean };
}

/** Two ways of one sound that come together although they are not alike. */
export interface Meeting {
  readonly device: Id<'device'>;
  readonly point: number;
  /** The boxes from which both come, the earlier way first. */
  readonly from: readonly [Id<'device'>, Id<'device'>];
  /** By how much the second is late. */
  readonly ms: number;
  /** Level of the second against the first, in dB. */
  readonly db: number;
  readonly inverted: boolean;
}

export interface OutputLevel extends Level {
  readonly end: Ref;
  /** The jack of its box by which it comes in; the end itself where it has none. */
  readonly jack: Ref;
  readonly point: number;
  /** Earliest and latest copy. */
  readonly ms: readonly [number, number];
}

/** A sound of one source from its strings to its outputs. */
export interface Along {
  readonly source: WiredEnd;
  readonly start: Level;
  readonly stages: readonly PassedStage[];
  readonly joints: readonly Joint[];
  readonly meetings: readonly Meeting[];
  readonly outputs: readonly OutputLevel[];
  /** By edge: the power gain of what is too quiet to drive anything; 0 where nothing passes. */
  readonly quiet: Float64Array;
  /** Points that it comes to, each behind all that lead to it. */
  readonly order: readonly number[];
}

interface Here {
  readonly waves: readonly Wave[];
  /** By how much peaks stand above the average, in dB. */
  readonly crest: number;
}

/** The same as it comes over an edge. */
interface Arriving {
  readonly e: number;
  readonly here: Here;
}

/** Ways that lie further apart are heard as two sounds. */
const ECHO_MS = 30;
const LEAST_MS = 0.05;
/** A copy that is so much softer leaves no hole. */
const LEAST_DB = 12;
const USUAL_CREST = 14;

/**
 * Follows one source through a state, stage by stage: gains in dB, dividers at the joints, copies that meet as phasors.
 * A ring is followed once.
 */
export const levelsAlong = (rig: Rig, t: Trace, source: WiredEnd): Along => new Walk(rig, t, source).done();

/** Every source of a trace that comes to an end, followed by itself. */
export const alongs = once((t: Trace, rig: Rig): readonly Along[] =>
  t.wiring.sources
    .filter((s) => t.onPath[s.point] && t.spreads.has(s))
    .map((source) => levelsAlong(rig, t, source))
    .filter((along) => along.outputs.length > 0),
);

/** Average level at every end that the signal reaches, in dBu: of the source that is loudest there. */
export const levelsAt = (rig: Rig, t: Trace): ReadonlyMap<Ref, number> => {
  const levels = new Map<Ref, number>();
  for (const { outputs } of alongs(t, rig))
    for (const { end, average } of outputs) levels.set(end, Math.max(levels.get(end) ?? -Infinity, average));
  return levels;
};

class Walk {
  /** By point. */
  private readonly here: (Here | undefined)[];
  /** By point: what was sent on to it before it is reached. */
  private readonly coming: (Arriving[] | undefined)[];
  private readonly stages = new Map<Ref, PassedStage>();
  private readonly joints: Joint[] = [];
  private readonly meetings: Meeting[] = [];
  private readonly quiet: Float64Array;
  private readonly order: number[] = [];
  private readonly start: Level;

  constructor(
    private readonly rig: Rig,
    private readonly t: Trace,
    private readonly source: WiredEnd,
  ) {
    this.here = new Array<Here | undefined>(t.wiring.points.length);
    this.coming = new Array<Arriving[] | undefined>(t.wiring.points.length);
    this.quiet = new Float64Array(t.wiring.edges.length);
    const { average = USUAL_DBU, peak = average + USUAL_CREST } = source.end.dbu ?? {};
    this.start = { average, peak };
    this.here[source.point] = {
      waves: [{ db: average, ms: 0, inverted: false, wet: false }],
      crest: peak - average,
    };
    for (const point of pointsInOrder(t)) this.visit(point);
  }

  private visit(point: number): void {
    if (point !== this.source.point) {
      const arriving = this.coming[point] ?? [];
      const [one, other] = arriving;
      if (!one) return;
      this.here[point] = other ? this.joined(point, arriving) : one.here;
    }
    this.order.push(point);
    this.sendOn(point);
  }

  /** Brings what is at a point over every edge that leaves it. */
  private sendOn(point: number): void {
    const { leaving, wiring, onPath } = this.t;
    const before = this.here[point];
    if (!before || !onPath[point]) return;
    for (let k = theItem(leaving.at, point); k < theItem(leaving.at, point + 1); k += 1) {
      const e = theItem(leaving.edges, k);
      const to = theItem(wiring.to, e);
      (this.coming[to] ??= []).push({ e, here: this.over(e, theItem(wiring.edges, e), before) });
    }
  }

  private joined(point: number, arriving: readonly Arriving[]): Here {
    this.meet(point, arriving);
    const isMean = theItem(this.t.wiring.points, point).id.endsWith('/both');
    return {
      waves: louder(merged(arriving.flatMap((a) => a.here.waves)), isMean ? -6.0206 : 0),
      crest: Math.max(...arriving.map((a) => a.here.crest)),
    };
  }

  /** What is left of a sound behind an edge. */
  private over(e: number, edge: Edge, before: Here): Here {
    const { carries } = edge;
    if (carries.by === 'cable') return this.joint(e, before);
    if (carries.by === 'block') return this.block(e, before);
    const gain = decibels(this.rig, carries.device, edge.gain, this.t.state);
    const band = carries.by === 'arm' && carries.arm.band ? -3.0103 : 0;
    this.quiet[e] = power(gain + band);
    const turns =
      carries.by === 'arm' &&
      carries.arm.polarity !== undefined &&
      whenHolds(carries.device, carries.arm.polarity.invertedWhen, this.t.state);
    return {
      waves: turned(louder(before.waves, gain + band), turns, this.lateInto(edge)),
      crest: before.crest,
    };
  }

  /** A box that turns all it hears into numbers and back is late from its input on, unless its stages say so. */
  private lateInto({ from, to }: Edge): number {
    const { points } = this.t.wiring;
    const [outside, inside] = [theItem(points, from), theItem(points, to)];
    if (outside.inside || !inside.inside || outside.id.includes('#')) return 0;
    const device = thePart(this.rig, outside.device);
    return device.figures.direct === 'converted' ? CONVERTED_MS : 0;
  }

  private joint(e: number, before: Here): Here {
    const plugged = theItem(plugs(this.t.wiring, this.rig), e);
    if (!plugged) return before;
    const { loss, takes } = plugged;
    const waves = louder(before.waves, loss);
    const average = loudness(waves);
    this.quiet[e] = power(loss);
    if (takes) {
      const { cable, from, to } = plugged;
      this.joints.push({ cable, from, to, loss, takes, level: { average, peak: average + before.crest } });
    }
    return { waves, crest: before.crest };
  }

  private block(e: number, before: Here): Here {
    const { t, rig } = this;
    const { stage, device, block } = surely(blocks(t.wiring, rig)[e]);
    if (t.stages.get(stage) !== 'in') {
      this.quiet[e] = 1;
      return before;
    }
    const { out, quiet, evens, noise, said } = stageGain(rig, device, block, t.state);
    const average = loudness(before.waves);
    const peak = average + before.crest;
    const [loud, strongest] = [out(average), out(peak)];
    const crest = Math.max(Math.min(before.crest, 6), strongest - loud - evens);
    this.quiet[e] = power(quiet);
    const known = this.stages.get(stage);
    const edges = [...(known?.edges ?? []), e];
    this.stages.set(
      stage,
      known && known.into.average >= average
        ? { ...known, edges }
        : { stage, edges, into: { average, peak }, out: { average: loud, peak: loud + crest }, noise, said },
    );
    const inverts = block.polarity !== undefined && whenHolds(device.id, block.polarity.invertedWhen, t.state);
    const wet = block.wetOnly !== undefined && whenHolds(device.id, block.wetOnly, t.state);
    const waves = turned(louder(before.waves, loud - average), inverts, block.ms ?? typicalMs(block));
    return { waves: wet ? waves.map((w) => ({ ...w, wet })) : waves, crest };
  }

  /** Notes where copies that are not alike come together: each arrival against the earliest. */
  private meet(point: number, arriving: readonly Arriving[]): void {
    const { points, from } = this.t.wiring;
    const first = arriving
      .flatMap(({ e, here }) => here.waves.filter((w) => !w.wet).map((wave) => ({ e, wave })))
      .sort((a, b) => a.wave.ms - b.wave.ms);
    const [one, ...others] = first;
    if (!one) return;
    const boxOf = (e: number) => theItem(points, theItem(from, e)).device;
    for (const other of others) {
      const ms = other.wave.ms - one.wave.ms;
      const db = other.wave.db - one.wave.db;
      const inverted = other.wave.inverted !== one.wave.inverted;
      if (other.e === one.e || Math.abs(db) > LEAST_DB || ms > ECHO_MS || (ms < LEAST_MS && !inverted)) continue;
      this.meetings.push({
        device: theItem(points, point).device,
        point,
        from: [boxOf(one.e), boxOf(other.e)],
        ms,
        db,
        inverted,
      });
    }
  }

  done(): Along {
    const { source, start, joints, meetings, quiet, order } = this;
    return {
      source,
      start,
      stages: [...this.stages.values()],
      joints,
      meetings,
      outputs: this.outputs(),
      quiet,
      order,
    };
  }

  private outputs(): readonly OutputLevel[] {
    const { wiring } = this.t;
    return wiring.ends
      .filter((end) => end.end.is !== 'tuner')
      .flatMap((end) => {
        const jacks = arrivals(this.t, end).map((jack) => ref(end.device, jack));
        return (jacks.length ? jacks : [end.ref]).flatMap((jack): readonly OutputLevel[] => {
          const point = wiring.at.get(jack);
          const there = point === undefined ? undefined : this.here[point];
          if (point === undefined || !there) return [];
          const average = loudness(there.waves);
          const times = there.waves.map((w) => w.ms);
          return [
            {
              end: end.ref,
              jack,
              point,
              average,
              peak: average + there.crest,
              ms: [Math.min(...times), Math.max(...times)],
            },
          ];
        });
      });
  }
}

/** What is known of a lead whatever is played over it; `takes` is absent where it ends in the air. */
interface Plug extends Pick<Joint, 'cable' | 'from' | 'to' | 'loss'> {
  readonly takes: Joint['takes'] | undefined;
}

/** By edge: the lead that it is; undefined for what lies within a box. */
const plugs = once(({ edges, points }: Wiring, rig: Rig): readonly (Plug | undefined)[] =>
  edges.map(({ carries, from, to }) => {
    if (carries.by !== 'cable') return undefined;
    const [a, b] = [from, to].map((point) => jackOf(theItem(points, point).id) as Ref) as [Ref, Ref];
    const [out, into] = [jackAt(rig, a), jackAt(rig, b)];
    return {
      cable: carries.cable,
      from: a,
      to: b,
      loss: dividerLoss(out, into),
      takes: into && into.kind !== 'air' ? takesDbu(into) : undefined,
    };
  }),
);

/** By edge: the stage that it passes. */
const blocks = once(({ edges }: Wiring, rig: Rig) =>
  edges.map(({ carries }) =>
    carries.by === 'block'
      ? { stage: ref(carries.device, carries.block.id), device: thePart(rig, carries.device), block: carries.block }
      : undefined,
  ),
);

/** Whether there is nothing but wire behind an input in a state: a panel, a bypassed box. */
export const passesOn = (rig: Rig, t: Trace, { to }: Pick<Joint, 'to'>): boolean => {
  const point = t.wiring.at.get(to);
  const ways =
    point === undefined
      ? []
      : theItem(t.wiring.out, point).flatMap((e) => (t.active[e] ? (wayOf(rig, t.wiring, e) ?? []) : []));
  return ways.length > 0 && ways.every((way) => isWire(t, way));
};

const power = (db: number): number => (db === 0 ? 1 : 10 ** (db / 10));

const turned = (waves: readonly Wave[], inverts: boolean, late: number): readonly Wave[] =>
  inverts || late > 0 ? waves.map((w) => ({ ...w, inverted: w.inverted !== inverts, ms: w.ms + late })) : waves;

/**
 * What an input takes from an output, in dB: 20·log10(Zin/(Zin + Zout)). Loudspeakers and air are no dividers.
 * @example dividerDb(10_000, 1_000_000) // -0.086
 */
export const dividerDb = (outOhm: number, inOhm: number): number => 20 * Math.log10(inOhm / (inOhm + outOhm));

const dividerLoss = (from: Jack | undefined, to: Jack | undefined): number => {
  if (!from || !to || from.kind === 'air' || from.level === 'speaker' || to.level === 'speaker') return 0;
  return to.ohm === undefined || to.ohm <= 0 ? 0 : dividerDb(from.ohm ?? USUAL_OUTPUT_OHM, to.ohm);
};
