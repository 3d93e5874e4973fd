import { theItem } from '../../known/the.js';
import { ref, type Ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import { partOf } from '../../rig/rig.js';
import { endsReached } from '../../signal/graph/ends-reached.js';
import { whenHolds } from '../../signal/graph/state.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { WiredEnd } from '../../signal/graph/wiring.js';
import type { Along } from './along.js';
import { mixOf } from './mix.js';

/** An output that hears a sound only through delays and reverbs, while another one hears it dry. */
export interface WetEnd {
  readonly end: WiredEnd;
  /** Dry sound comes through: none of them on the way is fully wet. */
  readonly carriesDry: boolean;
  /** On its way, with their mix in percent; undefined where it is not said. */
  readonly through: readonly WetStage[];
}

/** A delay or reverb that can be only wet. */
export interface WetStage {
  readonly stage: Ref;
  readonly percent: number | undefined;
  readonly isIn: boolean;
}

/** The outputs of a sound that are meant to be wet; none where no output hears it dry, or none hears it through repeats. */
export const wetEnds = (rig: Rig, t: Trace, { source }: Pick<Along, 'source'>): readonly WetEnd[] => {
  const { edges } = t.wiring;
  const block = (e: number) => {
    const { carries } = theItem(edges, e);
    return carries.by === 'block' && (carries.block.stage === 'delay' || carries.block.stage === 'reverb')
      ? carries
      : undefined;
  };
  const isOnlyWet = (e: number): boolean => {
    const found = block(e);
    return (
      found?.block.wetOnly !== undefined &&
      t.stages.get(ref(found.device, found.block.id)) === 'in' &&
      whenHolds(found.device, found.block.wetOnly, t.state)
    );
  };
  const all = endsReached(t, source, () => true);
  const dry = endsReached(t, source, (e) => !block(e));
  if (dry.size === 0 || dry.size === all.size) return [];
  const withDry = endsReached(t, source, (e) => !isOnlyWet(e));
  const stages = edges.flatMap((_, e) => {
    const found = t.active[e] ? block(e) : undefined;
    return found ? [{ e, device: found.device, block: found.block, stage: ref(found.device, found.block.id) }] : [];
  });
  return [...all]
    .filter((end) => !dry.has(end))
    .map((end): WetEnd => ({
      end,
      carriesDry: withDry.has(end),
      through: [...new Map(stages.map((s) => [s.stage, s])).values()]
        .filter((s) => s.block.wetOnly !== undefined)
        .filter((s) => !endsReached(t, source, (e) => block(e)?.block !== s.block).has(end))
        .map((s) => {
          const device = partOf(rig, s.device);
          return {
            stage: s.stage,
            percent: device && mixOf(device, s.block, t.state),
            isIn: t.stages.get(s.stage) === 'in',
          };
        }),
    }));
};
