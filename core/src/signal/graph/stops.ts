import { surely, theItem } from '../../known/the.js';
import type { Id, Ref } from '../../rig/ids.js';
import type { Value } from '../../rig/value.js';
import { backward, spreadFrom, type Trace } from './trace.js';
import type { Need, WiredEnd } from './wiring.js';

/** Where a wanted signal stops: a gate that is shut, or the furthest open jack on the way that is wanted. */
export interface Stop {
  readonly device: Id<'device'>;
  /** The point, as the wiring names it. */
  readonly at: string;
  readonly because: 'shut' | 'nothing plugged in';
  /** What keeps a gate shut. */
  readonly by: readonly { readonly control: Ref; readonly value: Value | undefined }[];
}

/** What a sound wants, as far as it tells where its signal should go. */
export interface WantedWay {
  readonly stages: ReadonlySet<Ref>;
  /** The sound itself wants this control to stand as it does. */
  readonly isWanted: (control: Ref) => boolean;
}

const NO_WAY: WantedWay = { stages: new Set(), isWanted: () => false };

/**
 * Why a source is not heard at an end. Gates that the sound wants shut are none of the reasons, unless there is no
 * other.
 */
export const stopsBetween = (t: Trace, source: WiredEnd, end: WiredEnd, way: WantedWay = NO_WAY): readonly Stop[] => {
  const { wiring, active } = t;
  const { sides } = spreadFrom(t, source);
  const leads = backward(wiring, active, [end.point]);
  const shut = wiring.edges.flatMap((e, i): readonly Stop[] => {
    if (active[i] || !sides[e.from] || !leads[e.to]) return [];
    return [
      {
        device: theItem(wiring.points, e.from).device,
        at: theItem(wiring.points, e.to).id,
        because: 'shut',
        by: unmet(e.needs, t),
      },
    ];
  });
  const unwanted = shut.filter((s) => !s.by.some(({ control }) => way.isWanted(control)));
  if (unwanted.length) return unwanted;
  const last = furthest(t, openJacks(t, sides), way.stages);
  return last === undefined
    ? shut
    : [
        {
          device: theItem(wiring.points, last).device,
          at: theItem(wiring.points, last).id,
          because: 'nothing plugged in',
          by: [],
        },
      ];
};

const unmet = (needs: readonly Need[], { state }: Trace): Stop['by'] =>
  needs.flatMap((need) => {
    const fails = need.facts.filter(({ control, allows }) => {
      const value = state.get(control);
      return (value !== undefined && allows(value)) !== 'when' in need;
    });
    return fails.map(({ control }) => ({ control, value: state.get(control) }));
  });

/**
 * Jacks that a signal reaches and from which nothing leads on; a send behind which its box goes on by itself is none.
 */
const openJacks = ({ wiring, leaving }: Trace, reached: Uint8Array): readonly number[] => {
  const isEnd = new Set(wiring.ends.map((w) => w.point));
  const sends = new Set(
    wiring.inserts
      .filter((i) => !i.patched)
      .flatMap(({ device, insert }) => insert.send.map((tap) => `${device}.${tap.at}`)),
  );
  const open = wiring.points.flatMap((p, i) =>
    reached[i] && !p.inside && leaving.at[i] === leaving.at[i + 1] && !isEnd.has(i) ? [i] : [],
  );
  const main = open.filter((p) => !sends.has(theItem(wiring.points, p).id));
  return main.length ? main : open;
};

/** The open jack behind most of the wanted stages; of several the one that is furthest along. */
const furthest = (t: Trace, open: readonly number[], wanted: ReadonlySet<Ref>): number | undefined => {
  const { wiring, active, spreads } = t;
  const order = [...spreads.values()].flatMap((s) => s.order);
  const stages = wiring.blocks.filter((b) => wanted.has(b.stage) && active[b.edge] === 1);
  const passed = (jack: number): number => {
    const behind = backward(wiring, active, [jack]);
    return new Set(
      stages
        .filter((b) => behind[theItem(wiring.to, b.edge)] && t.reached[theItem(wiring.from, b.edge)])
        .map((b) => b.stage),
    ).size;
  };
  const ranked = open.map((jack) => ({ jack, passed: passed(jack), place: order.lastIndexOf(jack) }));
  return ranked.sort((a, b) => b.passed - a.passed || b.place - a.place)[0]?.jack;
};

/**
 * How far the signal comes on the way to a stage that it does not meet: to the last point before it, or, where it does
 * get there, to the last one after it.
 */
export const furthestOnTheWay = (
  t: Trace,
  stage: Ref,
): { readonly is: 'reached' | 'on the way'; readonly device: Id<'device'>; readonly at: string } | undefined => {
  const { wiring, leaving, reached } = t;
  const blocks = wiring.blocks.filter((b) => b.stage === stage);
  if (blocks.length === 0) return undefined;
  const isThere = blocks.some((b) => reached[theItem(wiring.edges, b.edge).from]);
  if (isThere) {
    const after = new Set(
      blocks.filter((b) => reached[theItem(wiring.edges, b.edge).from]).map((b) => theItem(wiring.edges, b.edge).to),
    );
    for (const p of after)
      for (let k = theItem(leaving.at, p); k < theItem(leaving.at, p + 1); k += 1)
        after.add(theItem(wiring.to, theItem(leaving.edges, k)));
    const last = [...after].findLast((p) => !theItem(wiring.points, p).inside) ?? surely([...after].at(-1));
    return { is: 'reached', device: theItem(wiring.points, last).device, at: theItem(wiring.points, last).id };
  }
  /** Points from which some setting of the controls leads to the stage. */
  const towards = new Set(blocks.map((b) => theItem(wiring.edges, b.edge).from));
  for (const p of towards) for (const e of theItem(wiring.into, p)) towards.add(theItem(wiring.from, e));
  const onTheWay = [...towards].filter((p) => reached[p]);
  const last = onTheWay[0] ?? openJacks(t, t.reached).at(-1);
  return last === undefined
    ? undefined
    : { is: 'on the way', device: theItem(wiring.points, last).device, at: theItem(wiring.points, last).id };
};
