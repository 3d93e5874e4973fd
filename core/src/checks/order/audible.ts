import type { Block, End } from '../../rig/device.js';
import type { Id, Ref } from '../../rig/ids.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { sounding, stillMeets } from '../../signal/graph/order.js';
import { isDrivenStage } from '../../electric/gain.js';
import type { Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { CheckInputs } from '../check.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { theEntry, theItem } from '../../known/the.js';

/** A stage that sounds in a sound. */
export interface SoundingStage {
  readonly stage: Ref;
  readonly device: Id<'device'>;
  readonly block: Block;
  readonly isDriven: boolean;
}

/** The stages that sound in one sound, and which of them the signal meets before which. */
export interface Audible {
  readonly sound: Id<'sound'>;
  readonly trace: Trace;
  readonly stages: readonly SoundingStage[];
  readonly before: (first: SoundingStage, second: SoundingStage) => boolean;
  /** What the sources are that it carries. */
  readonly sources: ReadonlySet<End['what']>;
}

export const audible = ({ rig, compilation }: CheckInputs): readonly Audible[] =>
  [...compilation.sounds.values()].map((c) => listen(c, rig));

const listen = once(({ sound, trace }: Compiled, rig: Rig): Audible => {
  const {
    wiring: { to, sources },
    onPath,
  } = trace;
  const ways = sounding(trace);
  const meets = stillMeets(
    trace,
    ways.map((b) => b.edge),
  );
  const places = grouped(
    ways.map((b, place) => ({ stage: b.stage, to: theItem(to, b.edge), place })),
    (s) => s.stage,
  );
  return {
    sound,
    trace,
    stages: [
      ...new Map(
        ways.map(({ stage, device, block }) => [
          stage,
          { stage, device, block, isDriven: isDrivenStage(rig, device, block) },
        ]),
      ).values(),
    ],
    before: (first, second) =>
      theEntry(places, first.stage).some(({ to }) =>
        theEntry(places, second.stage).some(({ place }) => meets(to, place)),
      ),
    sources: new Set(sources.filter((s) => onPath[s.point]).map((s) => s.end.what)),
  };
});

const DIRT = new Set(['overdrive', 'distortion', 'fuzz']);
export const isDirt = ({ block }: SoundingStage): boolean => DIRT.has(block.stage);
export const isTime = ({ block }: SoundingStage): boolean => block.stage === 'delay' || block.stage === 'reverb';

/** A preamp stage that is made to be driven. */
export const isDriven = ({ isDriven: driven }: SoundingStage): boolean => driven;
