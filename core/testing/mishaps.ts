import { setUpBench, takeStep, wrongOnBench } from '../src/derive/play/play.js';
import type { Footstep } from '../src/recall/model/happenings.js';
import type { Reply, RecallTrouble } from '../src/recall/what-if/question.js';
import type { Ref } from '../src/rig/ids.js';
import type { Random } from './random.js';
import { randomPowerUp, type Proved } from './walk.js';

/** Plays what is told to go wrong: how often it was played, and where it ended right on the bench. */
export const replayTroubles = (
  proved: Proved,
  { question, troubles }: Reply,
): { readonly played: number; readonly right: readonly string[] } => {
  const right: string[] = [];
  let played = 0;
  for (const { id, wants } of troubles) {
    for (const want of wants) {
      const { powerUp, events } = want.example();
      const bench = setUpBench(proved, powerUp, false);
      const steps = events.map((e) => question.steps.get(e)!);
      steps.forEach((step, i) => takeStep(proved, bench, step, afterMs(steps[i + 1])));
      played += 1;
      if (String(bench.value(want.variable as Ref)) === want.wanted) right.push(`${id}: ${want.variable}`);
    }
  }
  return { played, right };
};

const afterMs = (step: Footstep | undefined): number | undefined =>
  step?.does === 'recall' ? step.afterMs : undefined;

/** How a walk goes astray before a sound is called that is to come back all the same. */
export type Astray = (
  r: Random,
  recalls: readonly Footstep[],
) => { readonly before: readonly Footstep[]; readonly hasty?: (sound: string) => number };

/** Messages of sounds and latched moves lost on the wire, one or two in a row; the stomp after them is to be right. */
export const losing = ({ question }: Reply): Astray => {
  const lost = [...question.steps.values()].filter(
    (s) => (s.does === 'recall' || s.does === 'stomp') && s.loses !== undefined,
  );
  return (r) => ({ before: lost.length ? [r.pick(lost), ...(r.chance(30) ? [r.pick(lost)] : [])] : [] });
};

/** A stomp so soon after another as the reply says is soon enough, or a little later. */
export const hurrying =
  ({ troubles }: Reply): Astray =>
  (r, recalls) => ({
    before: [r.pick(recalls)],
    hasty: (sound) =>
      Math.max(0.001, ...troubles.filter((t) => t.sound === sound).map((t) => t.waitMs! + 0.002)) +
      (r.chance(50) ? 0 : r.int(0, 90)),
  });

/**
 * Random walks with mishaps, feet, latched moves, pedals and kicked plugs in between: after each the sound that is
 * called must stand right but for what the usual proof or the reply tells.
 */
export const walkAstray = (proved: Proved, reply: Reply, r: Random, rounds: number, go: Astray): readonly string[] => {
  const {
    modelled: { steps, system },
    verdicts,
  } = proved;
  const recalls = [...steps.values()].filter((s) => s.does === 'recall');
  const usual = system.events.filter((e) => !e.when && steps.get(e.id)!.does !== 'recall').map((e) => steps.get(e.id)!);
  const bench = setUpBench(proved, randomPowerUp(proved, r), false);
  const known = (sound: string) =>
    new Set([
      ...reply.troubles
        .filter((t: RecallTrouble) => t.sound === sound && t.waitMs === undefined)
        .flatMap((t) => t.wants.map((w) => w.variable)),
      ...(verdicts.get(sound)?.is === 'broken'
        ? (verdicts.get(sound) as { wrong: readonly { variable: string }[] }).wrong.map((w) => w.variable)
        : []),
    ]);
  const wrong: string[] = [];
  for (let n = 0; n < rounds && recalls.length && system.sounds.length; n += 1) {
    if (usual.length && r.chance(40)) takeStep(proved, bench, r.pick(usual));
    const { before, hasty } = go(r, recalls);
    const last = r.pick(recalls);
    const waitMs = hasty?.(last.sound);
    before.forEach((step, i) => takeStep(proved, bench, step, i === before.length - 1 ? waitMs : undefined));
    takeStep(proved, bench, waitMs === undefined ? last : { ...last, afterMs: waitMs });
    if (reply.undecided.some((u) => u.sound === last.sound)) continue;
    const may = known(last.sound);
    for (const control of wrongOnBench(proved, bench, last.sound))
      if (!may.has(control)) wrong.push(`${last.sound} after ${n + 1} rounds: ${control}`);
  }
  return wrong;
};
