import { once } from '../../kept/kept.js';
import { theItem } from '../../known/the.js';
import type { HearingPair } from '../../recall/intend/compiled.js';
import type { Id, Ref } from '../../rig/ids.js';
import { isCabinet } from '../../rig/domain.js';
import type { Rig } from '../../rig/rig.js';
import { darkening, type Darkened } from '../../signal/graph/dark.js';
import { activeIn, type RigState } from '../../signal/graph/state.js';
import type { WiredEnd, Wiring } from '../../signal/graph/wiring.js';

/** Boxes that do not work, and cables that carry nothing. */
export interface Broken {
  /** Without supply. */
  readonly dark: ReadonlySet<Id<'device'>>;
  /** Dead altogether. */
  readonly dead: ReadonlySet<Id<'device'>>;
  readonly cut: ReadonlySet<Id<'cable'>>;
}

export const NOTHING_BROKEN: Broken = { dark: new Set(), dead: new Set(), cut: new Set() };

/** What a sound is when all is whole: how the rig stands, where it is to be heard, and the stages that sound in it. */
export interface Whole {
  readonly state: RigState;
  readonly heard: readonly HearingPair[];
  readonly stages: readonly Ref[];
  /** A cabinet, real or simulated, is among them. */
  readonly isByCabinet: boolean;
}

/** What is left of a sound. */
export interface Left {
  /** Ends at which it is to be heard and is not, by the source that is to be heard there. */
  readonly silentAt: readonly Ref[];
  /** At how many ends it is to be heard. */
  readonly of: number;
  /** Stages that belong to it and are not on its way any more. */
  readonly misses: readonly Ref[];
  /** It came over a cabinet, and is heard past all of them now: harsh (common practice). */
  readonly isBare: boolean;
}

/** Follows a sound: where it still comes to, and past which stages. */
export type Follow = (sound: Whole, active?: Uint8Array) => Left;

/**
 * Follows sounds through what is left of a hook-up.
 *
 * @returns a way to follow one; `active` by edge, as the sound has the rig, is worked out where it is not known
 */
export const following = (rig: Rig, wiring: Wiring, broken: Broken): Follow => {
  const gone = darkening(rig, wiring, broken);
  const cut = wiring.edges.flatMap(({ carries }, e) =>
    carries.by === 'cable' && broken.cut.has(carries.cable) ? [e] : [],
  );
  const works = ({ device }: WiredEnd): boolean => !broken.dark.has(device) && !broken.dead.has(device);
  const sources = wiring.sources.filter(works);
  const endsAt = new Map(wiring.ends.filter(works).map((e) => [e.ref, e.point]));
  // One sound after another is followed in the same memory.
  const points = wiring.points.length;
  const alive = new Uint8Array(wiring.edges.length);
  const memory = {
    bySource: sources.map(() => new Uint8Array(points)),
    ahead: new Uint8Array(points),
    back: new Uint8Array(points),
  };
  return (sound, active) => {
    const { dead, instead } = gone(sound.state);
    if (active) alive.set(active);
    else activeIn(wiring, sound.state, alive);
    for (const e of dead) alive[e] = 0;
    for (const e of cut) alive[e] = 0;
    return leftOf(wiring, sound, { alive, instead, sources, endsAt, memory });
  };
};

/** By edge whether something comes over it, where it goes straight through a box, and the ends that are left. */
interface Ways extends Pick<Darkened, 'instead'> {
  readonly alive: Uint8Array;
  readonly sources: readonly WiredEnd[];
  readonly endsAt: ReadonlyMap<Ref, number>;
  /** By point, for what is worked out on the way. */
  readonly memory: { readonly bySource: readonly Uint8Array[]; readonly ahead: Uint8Array; readonly back: Uint8Array };
}

const leftOf = (wiring: Wiring, { heard, stages, isByCabinet }: Whole, ways: Ways): Left => {
  const { alive, instead, sources, endsAt, memory } = ways;
  const wanted = heard.filter((h) => h.as === 'sounds' || h.as === 'stereo');
  const onward = (into: Uint8Array, starts: readonly number[]): Uint8Array =>
    flood(into, starts, alive, wiring.out, wiring.to, instead);
  const from = new Map<Ref, Uint8Array>();
  sources.forEach(({ ref, point }, i) => {
    if (wanted.some((w) => w.from === ref)) from.set(ref, onward(theItem(memory.bySource, i), [point]));
  });
  const comes = ({ from: source, at }: HearingPair): boolean => from.get(source)?.[endsAt.get(at) ?? -1] === 1;
  const sounds = wanted.filter(comes);
  const [first, ...others] = from.values();
  const ahead =
    first && others.length === 0
      ? first
      : onward(
          memory.ahead,
          sources.flatMap((s) => (from.has(s.ref) ? [s.point] : [])),
        );
  const back = flood(
    memory.back,
    sounds.flatMap((w) => endsAt.get(w.at) ?? []),
    alive,
    wiring.into,
    wiring.from,
    turnedRound(instead),
  );
  const onWay = new Set<Ref>();
  let meetsCabinet = false;
  for (const { edge, stage, block } of wiring.blocks) {
    if (!alive[edge] || !back[wiring.to[edge]!] || !ahead[wiring.from[edge]!]) continue;
    onWay.add(stage);
    meetsCabinet ||= isCabinet(block);
  }
  return {
    silentAt: [...new Set(wanted.filter((w) => !sounds.includes(w)).map((w) => w.at))],
    of: new Set(wanted.map((w) => w.at)).size,
    misses: stages.filter((s) => !onWay.has(s)),
    isBare: isByCabinet && sounds.length > 0 && !meetsCabinet,
  };
};

const turnedRound = once(
  (ways: ReadonlyMap<number, number>): ReadonlyMap<number, number> => new Map([...ways].map(([a, b]) => [b, a])),
);

/**
 * Every point that is come to from these.
 * @param seen by point, filled anew and returned
 * @param edges by point: those that lead on
 * @param far by edge: where it leads
 * @param straight from point to point, past what lies between
 */
const flood = (
  seen: Uint8Array,
  starts: readonly number[],
  alive: Uint8Array,
  edges: readonly (readonly number[])[],
  far: Int32Array,
  straight: ReadonlyMap<number, number>,
): Uint8Array => {
  seen.fill(0);
  const stack = [...starts];
  for (const s of starts) seen[s] = 1;
  for (let point = stack.pop(); point !== undefined; point = stack.pop()) {
    const next = straight.get(point);
    if (next !== undefined && !seen[next]) {
      seen[next] = 1;
      stack.push(next);
    }
    for (const e of edges[point]!) {
      if (!alive[e]) continue;
      const there = far[e]!;
      if (seen[there]) continue;
      seen[there] = 1;
      stack.push(there);
    }
  }
  return seen;
};
