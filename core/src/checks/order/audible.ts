import type { Block, End } from '../../rig/device.js';
import type { Id, Ref } from '../../rig/ids.js';
import type { Compiled } from '../../recall/compiled.js';
import type { Trace } from '../../signal/trace.js';
import { once } from '../once.js';
import type { CheckInputs } from '../check.js';

/** A stage that sounds in a sound. */
export interface Heard {
  readonly stage: Ref;
  readonly device: Id<'device'>;
  readonly block: Block;
}

/** The stages that sound in one sound, and which of them the signal meets before which. */
export interface Audible {
  readonly sound: Id<'sound'>;
  readonly trace: Trace;
  readonly stages: readonly Heard[];
  readonly before: (first: Heard, second: Heard) => boolean;
  /** What the sources are that it carries. */
  readonly sources: ReadonlySet<End['what']>;
}

export const audible = ({ compilation }: CheckInputs): readonly Audible[] => [...compilation.sounds.values()].map(listen);

const listen = once(({ sound, trace }: Compiled): Audible => {
  const { wiring, onPath, stages } = trace;
  const sounding = wiring.blocks.filter((b) => stages.get(b.stage) === 'in');
  const ahead = new Map<Ref, ReadonlySet<number>>();
  const aheadOf = (stage: Ref): ReadonlySet<number> => {
    const before = ahead.get(stage);
    if (before) return before;
    const found = downstream(trace, wiring.blocks.filter((b) => b.stage === stage).map((b) => wiring.edges[b.edge]!.to));
    ahead.set(stage, found);
    return found;
  };
  const entries = new Map<Ref, number[]>();
  for (const b of sounding) entries.set(b.stage, [...entries.get(b.stage) ?? [], wiring.edges[b.edge]!.from]);
  return {
    sound, trace, stages: sounding.map(({ stage, device, block }) => ({ stage, device, block })),
    before: (first, second) => entries.get(second.stage)!.some((p) => aheadOf(first.stage).has(p)),
    sources: new Set(wiring.sources.filter((s) => onPath[s.point]).map((s) => s.end.what)),
  };
});

/** Points that the signal comes to from others, without passing what is in the way. */
export const downstream = ({ wiring, active, onPath }: Trace, from: readonly number[], inTheWay: (edge: number) => boolean = () => false): ReadonlySet<number> => {
  const seen = new Set(from.filter((p) => onPath[p]));
  for (const point of seen) for (const e of wiring.out[point]!) if (active[e] && onPath[wiring.edges[e]!.to] && !inTheWay(e)) seen.add(wiring.edges[e]!.to);
  return seen;
};

const DIRT = new Set(['overdrive', 'distortion', 'fuzz']);
export const isDirt = ({ block }: Heard): boolean => DIRT.has(block.stage);
export const isTime = ({ block }: Heard): boolean => block.stage === 'delay' || block.stage === 'reverb';

/** Channels that are not the clean one of several count as driven; a preamp with a single channel may be either. */
export const isDriven = ({ block }: Heard): boolean => block.stage === 'preamp' && block.id !== 'preamp' && block.id !== 'clean' && block.id !== 'amp';
