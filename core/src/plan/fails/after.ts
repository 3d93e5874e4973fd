import { keptIn, once } from '../../kept/kept.js';
import { theEntry } from '../../known/the.js';
import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compilation } from '../../recall/actuate/compile.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { callFits } from '../../recall/intend/wants.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { cablesOf, partOf, type Rig } from '../../rig/rig.js';
import { jackAt } from '../../rig/box.js';
import { isOfTheSound } from '../../rig/device.js';
import { isCabinet } from '../../rig/domain.js';
import { controlWiring, type ControlWiring } from '../../signal/control/reach.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import { brokenBy, withoutCables, type Failure } from './failure.js';
import { following, type Broken, type Follow, type Left, type Whole } from './left.js';

/** What becomes of a sound. */
export interface SoundAfter extends Left {
  readonly sound: Id<'sound'>;
  /** What calls it is dead: it does not come any more. */
  readonly uncalled: boolean;
  /** Boxes that do not follow any more and stay as they were. */
  readonly stays: readonly Id<'device'>[];
}

/** How much of a sound is left, the least first. */
export const OUTCOMES = ['silent', 'partly silent', 'not called', 'less', 'whole'] as const;
export type Outcome = (typeof OUTCOMES)[number];

export const outcomeOf = ({ silentAt, of, misses, uncalled, stays }: SoundAfter): Outcome =>
  silentAt.length > 0
    ? silentAt.length < of
      ? 'partly silent'
      : 'silent'
    : uncalled
      ? 'not called'
      : misses.length + stays.length > 0
        ? 'less'
        : 'whole';

/** A sound as it is when nothing fails. What only lies on its way, such as a tuner, is no part of it. */
export const wholeOf = once(({ state, heard, trace }: Compiled): Whole => {
  const own = new Map(
    trace.wiring.blocks.flatMap(({ stage, block }) => (isOfTheSound(block.stage) ? [[stage, block] as const] : [])),
  );
  const stages = [...trace.stages].flatMap(([stage, is]) => (is === 'in' && own.has(stage) ? [stage] : []));
  return { state, heard, stages, isByCabinet: stages.some((stage) => isCabinet(theEntry(own, stage))) };
});

/** The boxes and cables that a sound passes. */
export const passedBy = once(
  ({ trace: { wiring, active, onPath } }: Compiled): ReadonlySet<Id<'device'> | Id<'cable'>> => {
    const passed = new Set<Id<'device'> | Id<'cable'>>();
    wiring.edges.forEach(({ carries, from, to }, e) => {
      if (active[e] === 1 && onPath[from] === 1 && onPath[to] === 1)
        passed.add(carries.by === 'cable' ? carries.cable : carries.device);
    });
    for (const end of [...wiring.sources, ...wiring.ends]) if (onPath[end.point] === 1) passed.add(end.device);
    return passed;
  },
);

/** Every sound of a hook-up after a failure, in the order of the rig. */
export const afterFailure = (compilation: Compilation, failure: Failure): readonly SoundAfter[] => {
  const { rig, hookup } = compilation.bearings;
  const broken = brokenBy(rig, hookup, failure);
  const deaf = deafBy(failure, compilation);
  const failed = [...broken.dark, ...broken.dead, ...broken.cut];
  const still = new Map<Wiring, Follow>();
  return [...compilation.sounds.values()].map((compiled): SoundAfter => {
    const { sound, trace } = compiled;
    const passed = passedBy(compiled);
    const left = failed.some((id) => passed.has(id))
      ? keptIn(still, trace.wiring, () => following(rig, trace.wiring, broken))(wholeOf(compiled), trace.active)
      : { silentAt: [], of: 1, misses: [], isBare: false };
    return { sound, ...left, ...followedIn(compilation.bearings, compiled, broken, deaf) };
  });
};

/** Who does not hear whom any more: controller and listener. */
export type Deaf = ReadonlySet<string>;
const pair = (controller: Id<'device'>, listener: Id<'device'>): string => `${controller} ${listener}`;

const pairsIn = ({ midi, contacts }: ControlWiring): ReadonlySet<string> =>
  new Set(
    [midi, contacts].flatMap((of) =>
      [...of].flatMap(([from, arrivals]) => arrivals.map((a) => pair(splitRef(from).device, a.device))),
    ),
  );

const CONTROL = ['midi', 'contact', 'expression'];

/** Who is deaf by a failure, all being plugged as it was. */
export const deafBy = once((failure: Failure, compilation: Compilation): Deaf =>
  deafAfter(compilation, compilation.bearings.rig, failure),
);

/** @param then the rig as it is plugged now */
export const deafAfter = ({ bearings: { rig, hookup, control } }: Compilation, then: Rig, failure: Failure): Deaf => {
  const dead = failure.is === 'box' ? failure.device : undefined;
  const isControl = (end: Ref): boolean => CONTROL.includes(jackAt(then, end)?.kind ?? '');
  const gone = cablesOf(then, hookup.id).filter((c) =>
    failure.is === 'cable'
      ? c.id === failure.cable && CONTROL.includes(failure.kind)
      : dead !== undefined && c.ends.some((end) => splitRef(end).device === dead && isControl(end)),
  );
  if (gone.length === 0 && then === rig) return new Set();
  const still = pairsIn(controlWiring(withoutCables(then, new Set(gone.map((c) => c.id))), hookup));
  return new Set([...pairsIn(control)].filter((p) => !still.has(p)));
};

/** Who speaks to whom in a sound. */
const speaksIn = once(({ stored }: Compiled): ReadonlyMap<string, Id<'device'>> => {
  const pairs = stored.flatMap(({ program, meant }) =>
    meant.map((m) => [pair(program.device, m.device), m.device] as const),
  );
  return new Map(pairs);
});

/** The boxes that call a sound in this hook-up. */
const callersOf = once(({ sound }: Compiled, { rig, hookup }: Bearings): readonly Id<'device'>[] =>
  (partOf(rig, sound)?.calls ?? []).filter((c) => callFits(rig, c, hookup.id)).map((c) => c.device),
);

/** What of a sound is not called, or does not follow. */
export const followedIn = (
  bearings: Bearings,
  compiled: Compiled,
  { dark, dead }: Broken,
  deaf: Deaf,
): Pick<SoundAfter, 'uncalled' | 'stays'> => {
  const isOut = (id: Id<'device'>): boolean => dark.has(id) || dead.has(id);
  const callers = callersOf(compiled, bearings);
  const stays = deaf.size
    ? [...deaf].flatMap((key) => speaksIn(compiled).get(key) ?? []).filter((listener) => !isOut(listener))
    : [];
  return { uncalled: callers.length > 0 && callers.every(isOut), stays: [...new Set(stays)] };
};
