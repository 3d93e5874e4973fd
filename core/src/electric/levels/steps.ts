import { once } from '../../kept/kept.js';
import { theItem } from '../../known/the.js';
import { controlAt } from '../../rig/box.js';
import type { Gain } from '../../rig/device.js';
import type { Hookup } from '../../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, thePart, type Rig } from '../../rig/rig.js';
import type { MeasuredLevel, Role, Sound } from '../../rig/sound.js';
import type { Trace } from '../../signal/graph/trace.js';
import { alongs } from './along.js';
import { isDriven } from './stage-gain.js';

/** Steps between which a sound should lie, in dB. */
export interface StepWish {
  readonly from: number;
  readonly to: number;
}

/** A lead stands out by so much, and the others by no more (common practice). */
const LEAD: StepWish = { from: 3, to: 6 };
const LIKE: StepWish = { from: -2, to: 2 };
/** A fat fuzz is matched by its bands: in dB it may lie lower and still be as loud (common practice, assumed). */
const FUZZ: StepWish = { from: -4, to: 2 };
/** What a stated wish may be missed by; also what nobody hears of any step. */
export const STEP_TOLERANCE = 1;

/** Where a sound should lie beside those that are neither lead nor fuzz. */
export const standingWish = ({ role }: Pick<Sound, 'role'>): StepWish => standing(role);
const standing = (role: Role): StepWish => (role === 'lead' ? LEAD : role === 'fuzz' ? FUZZ : LIKE);

/** The step that is wanted from one sound to another: as it was stated, else by what they are for. */
export const wishedStep = (from: Sound, to: Sound): StepWish => {
  if (to.level?.than === from.id) return { from: to.level.db - STEP_TOLERANCE, to: to.level.db + STEP_TOLERANCE };
  if (from.level?.than === to.id) return { from: -from.level.db - STEP_TOLERANCE, to: -from.level.db + STEP_TOLERANCE };
  if (from.role === to.role) return LIKE;
  const [a, b] = [standing(from.role), standing(to.role)];
  if (from.role === 'lead') return { from: -LEAD.to + Math.min(0, b.from + 2), to: -LEAD.from + Math.max(0, b.to - 2) };
  return { from: b.from - Math.max(0, a.to - 2), to: b.to - Math.min(0, a.from + 2) };
};

/** By how many dB a step misses what is wanted: above 0 too loud, below 0 too soft. */
export const offBy = (db: number, { from, to }: StepWish): number => (db > to ? db - to : db < from ? db - from : 0);

export const measuredIn = (sound: Sound | undefined, hookup: Id<'hookup'>): MeasuredLevel | undefined =>
  sound?.measured?.find((m) => m.hookup === hookup);

/** From one sound to another. */
export interface Step {
  readonly db: number;
  /** Both were measured in one unit; else reckoned from what differs between them. */
  readonly measured: boolean;
}

/** The traces of the sounds that there are in a hook-up. */
export type TraceOf = (sound: Id<'sound'>) => Trace | undefined;

/**
 * How much louder a sound is than another: measured where both were measured in one unit, else reckoned by what is
 * stated and differs, all else being set by ear. Undefined where a sound is not there.
 */
export const stepBetween = (
  rig: Rig,
  hookup: Hookup,
  traceOf: TraceOf,
  from: Id<'sound'>,
  to: Id<'sound'>,
): Step | undefined => {
  const [was, is] = [from, to].map((id) => measuredIn(partOf(rig, id), hookup.id));
  if (was && is && was.unit === is.unit) return { db: is.db - was.db, measured: true };
  const [a, b] = [traceOf(from), traceOf(to)];
  return a && b && isHeard(rig, a) && isHeard(rig, b) ? { db: reckonedStep(rig, a, b), measured: false } : undefined;
};

/** Whether anything comes to an output in a state: of silence nobody can say how loud it is. */
export const isHeard = (rig: Rig, t: Trace): boolean => alongs(t, rig).length > 0;

/**
 * By how many dB the second of two states is louder by what is stated and differs behind all that is driven: numbers
 * that both have, and boosts that only one has in. Without a measurement all else is taken as matched by ear (common
 * practice); the small-signal gains of drives are no levels.
 */
export const reckonedStep = (rig: Rig, from: Trace, to: Trace): number => {
  if (!isHeard(rig, from) || !isHeard(rig, to)) return 0;
  const [was, is] = [statedLevels(from, rig), statedLevels(to, rig)];
  const numbers = [...is.controls].flatMap(([control, now]) => {
    const before = was.controls.get(control);
    return before ? [(now.now - before.now) * now.per] : [];
  });
  const boosts = [
    ...[...is.boosts].flatMap(([stage, db]) => (was.boosts.has(stage) ? [] : [db])),
    ...[...was.boosts].flatMap(([stage, db]) => (is.boosts.has(stage) ? [] : [-db])),
  ];
  return [...numbers, ...boosts].reduce((sum, db) => sum + db, 0);
};

/** A number that a sound can say of its level, behind all that is driven. */
export interface LevelControl {
  readonly control: Ref;
  readonly now: number;
  /** How many dB a step of 1 of the control is. */
  readonly per: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
}

const controlOf = (rig: Rig, t: Trace, device: Id<'device'>, gain: Gain | undefined): readonly LevelControl[] => {
  if (typeof gain !== 'object') return [];
  const control = ref(device, gain.control);
  const domain = controlAt(rig, control)?.domain;
  if (!domain || !('min' in domain) || domain.max <= domain.min) return [];
  const per = gain.scale ? (gain.scale[1] - gain.scale[0]) / (domain.max - domain.min) : 1;
  const now = Number(t.state.get(control) ?? domain.min);
  return per === 0 ? [] : [{ control, now, per, min: domain.min, max: domain.max, step: domain.step ?? 0.5 }];
};

/** What a state says of its level behind its last driven stage: numbers, and boosts that are in with what they lift. */
interface StatedLevels {
  /** The one nearest to the outputs first. */
  readonly controls: ReadonlyMap<Ref, LevelControl>;
  readonly boosts: ReadonlyMap<Ref, number>;
}

const statedLevels = once((t: Trace, rig: Rig): StatedLevels => {
  const { edges, from } = t.wiring;
  const controls = new Map<Ref, LevelControl>();
  const boosts = new Map<Ref, number>();
  for (const { order, stages } of alongs(t, rig)) {
    const place = new Map(order.map((point, i) => [point, i]));
    const at = (e: number): number => place.get(theItem(from, e)) ?? -1;
    const driven = stages.filter((s) => isDriven(blockStage(t, theItem(s.edges, 0))));
    const last = Math.max(-1, ...driven.flatMap((s) => s.edges.map(at)));
    const isBehind = (e: number): boolean => at(e) > last;
    for (const s of stages)
      if (blockStage(t, theItem(s.edges, 0)) === 'boost' && isBehind(theItem(s.edges, 0)))
        boosts.set(s.stage, s.out.average - s.into.average);
    const behind = edges
      .flatMap((edge, e) => (t.active[e] && isBehind(e) && t.onPath[edge.to] ? [{ edge, e }] : []))
      .sort((a, b) => at(b.e) - at(a.e));
    for (const { edge } of behind) {
      const { carries } = edge;
      if (carries.by === 'cable') continue;
      const isIn = carries.by !== 'block' || t.stages.get(ref(carries.device, carries.block.id)) === 'in';
      const gain = carries.by === 'block' ? carries.block.gain : edge.gain;
      if (isIn)
        for (const c of controlOf(rig, t, carries.device, gain))
          if (!controls.has(c.control) && !isUnderFoot(rig, c.control)) controls.set(c.control, c);
    }
  }
  return { controls, boosts };
});

/** Numbers of level that a sound passes behind its last driven stage, the one nearest to its outputs first. */
export const levelControls = (rig: Rig, t: Trace): readonly LevelControl[] => [
  ...statedLevels(t, rig).controls.values(),
];

const blockStage = (t: Trace, edge: number) => {
  const { carries } = theItem(t.wiring.edges, edge);
  return carries.by === 'block' ? carries.block.stage : 'buffer';
};

const isUnderFoot = (rig: Rig, control: Ref): boolean => {
  const { device, name } = splitRef(control);
  return thePart(rig, device).controls.find((c) => c.id === name)?.use === 'play';
};

/** Where a control has to stand so that a sound is louder by so many dB, as near as it can; undefined where it cannot. */
export const louderBy = ({ now, per, min, max, step }: LevelControl, db: number): number | undefined => {
  const wanted = now + db / per;
  const to = Math.round(wanted / step) * step;
  return to >= min && to <= max && Math.abs((to - wanted) * per) <= STEP_TOLERANCE ? Number(to.toFixed(3)) : undefined;
};
