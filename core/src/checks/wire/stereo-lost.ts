import { waysOut } from '../../edits/wire.js';
import { ref, splitRef, theId, type Id, type Ref } from '../../rig/ids.js';
import { thePart } from '../../rig/rig.js';
import { broughtTo, downstream, type Trace } from '../../signal/graph/trace.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, endName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import type { Leg } from '../../rig/device.js';
import { cableAt, elseByHand, pull, replug } from '../ways-out.js';
import { surely, theItem } from '../../known/the.js';

export const stereoLost: Check = {
  code: 'wire.stereo-lost',
  title: 'A stereo box of which one side is lost',
  severities: ['doubt'],
  source:
    'common practice: the left/mono output alone carries the sum of both sides; two outputs want two ways to the end',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap(({ sound, trace }) =>
      lost(trace).map((l) => ({ sound, ...l })),
    );
    for (const group of grouped(cases, (c) => `${c.device} ${c.how}`).values()) {
      const { device, how } = group[0];
      const { name } = thePart(rig, device);
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...group.map((c) => c.sound)],
        about: how,
        why:
          how === 'one side'
            ? `${name} makes two sides in ${soundNames(
                rig,
                group.map((c) => c.sound),
              )}, and only one of them is heard. What it puts on the other is gone: use its left/mono output alone for a sum of both, or lead both to the end.`
            : `${name} gives two sides over two cables in ${soundNames(
                rig,
                group.map((c) => c.sound),
              )}, and they are added to one further on. The sum is complete, but sides that differ in time or phase thin each other out; its left/mono output alone makes a better sum.`,
        remedies: () =>
          elseByHand(
            monoOutput(inputs, device),
            `Lead both sides of ${boxName(rig, device)} to the end, or use its left/mono output alone`,
          ),
      };
    }
    const narrow = [...compilation.sounds.values()].flatMap((c) =>
      c.problems.flatMap((p) => (p.is === 'narrow' ? [{ sound: c.sound, ...p }] : [])),
    );
    for (const group of grouped(narrow, (n) => `${n.from} ${n.at}`).values()) {
      const { from, at } = group[0];
      const sounds = group.map((n) => n.sound);
      yield {
        severity: 'doubt' as const,
        evidence: [splitRef(at).device, splitRef(from).device, ...sounds],
        about: `narrow ${from} ${at}`,
        why: `${boxName(rig, splitRef(from).device)} is to be heard with two sides at ${endName(rig, at)}; in ${soundNames(rig, sounds)} both sides are not there. Lead both outputs of the last stereo box to it, or say that one side is enough in this hook-up.`,
      };
    }
  },
};

/** Its first output alone: common practice has it carry the sum of both sides while nothing sits in the other. */
const monoOutput = (inputs: CheckInputs, device: Id<'device'>): readonly Remedy[] => {
  const outs = waysOut(thePart(inputs.rig, device))
    .filter((j) => j.level !== 'phones')
    .map((j) => ref(device, j.id));
  const [mono, other] = outs;
  if (!mono || !other || outs.length > 2) return [];
  const [sum, side] = [cableAt(inputs, mono), cableAt(inputs, other)];
  if (!side) return [];
  return sum
    ? pull(inputs, side, 'its left/mono output alone then carries the sum of both')
    : replug(inputs, side, other, mono);
};

interface Lost {
  readonly device: Id<'device'>;
  readonly how: 'one side' | 'summed';
}

/**
 * A box with stages that make two sides: the points at which each side leaves them, and those at which it leaves the
 * box.
 */
interface Made extends Readonly<Record<Leg, readonly number[]>> {
  readonly stages: readonly Ref[];
  readonly outside: readonly number[];
}

const made = once(({ blocks, points, to }: Wiring): ReadonlyMap<Id<'device'>, Made> => {
  const spread = [
    ...grouped(
      blocks.filter((b) => b.block.width === 'spread'),
      (b) => b.device,
    ),
  ];
  return new Map(
    spread.flatMap(([id, own]): readonly (readonly [Id<'device'>, Made])[] => {
      const on = (leg: Leg): readonly number[] =>
        own.map((b) => theItem(to, b.edge)).filter((p) => theItem(points, p).lane === leg);
      const outside = points.flatMap((p, i) => (p.device === id && !p.inside ? [i] : []));
      const sides = { left: on('left'), right: on('right') };
      return sides.left.length + sides.right.length > 0
        ? [[theId('device', id), { ...sides, stages: own.map((b) => b.stage), outside }]]
        : [];
    }),
  );
});

/** Boxes that make two sides of which only one is heard, or which are added to one on the way. */
const lost = once((t: Trace): readonly Lost[] => {
  const {
    wiring: { ends },
    leads,
    reached,
    stages,
    onPath,
  } = t;
  return [...made(t.wiring)].flatMap(([device, sides]): readonly Lost[] => {
    if (!sides.stages.some((stage) => stages.get(stage) === 'in')) return [];
    const [left, right] = (['left', 'right'] as const).map((side) => sides[side].filter((p) => reached[p]));
    if (!surely(left).length || !surely(right).length) return [];
    const heard = [surely(left), surely(right)].filter((made) => made.some((p) => leads[p]));
    if (heard.length === 1) return [{ device, how: 'one side' }];
    const leaving = sides.outside.filter((p) => onPath[p] === 1);
    if (leaving.length < 2) return [];
    const [byLeft, byRight] = [surely(left), surely(right)].map((made) => downstream(t, made));
    const overTwo = leaving.filter((p) => surely(byLeft)[p] !== surely(byRight)[p]).length > 1;
    const apart = ends.some(
      (e) => e.end.is !== 'tuner' && broughtTo(t, e.point).some((p) => surely(byLeft)[p] !== surely(byRight)[p]),
    );
    return overTwo && !apart ? [{ device, how: 'summed' }] : [];
  });
});
