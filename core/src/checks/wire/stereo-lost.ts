import { waysOut } from '../../edits/wire.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import { downstream, sideBit, spreadFrom, type Trace } from '../../signal/trace.js';
import type { Wiring } from '../../signal/wiring.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, endName, grouped, soundNames } from '../names.js';
import { once } from '../../rig/kept.js';
import { cableAt, elseByHand, pull, replug } from '../ways-out.js';

export const stereoLost: Check = {
  code: 'wire.stereo-lost',
  title: 'A stereo box of which one side is lost',
  severities: ['doubt'],
  source: 'common practice: the left/mono output alone carries the sum of both sides; two outputs want two ways to the end',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap(({ sound, trace }) => lost(trace).map((l) => ({ sound, ...l })));
    for (const group of grouped(cases, (c) => `${c.device} ${c.how}`).values()) {
      const { device, how } = group[0]!;
      const { name } = rig.parts.device.get(device)!;
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...group.map((c) => c.sound)],
        about: how,
        why: how === 'one side'
          ? `${name} makes two sides in ${soundNames(rig, group.map((c) => c.sound))}, and only one of them is heard. What it puts on the other is gone: use its left/mono output alone for a sum of both, or lead both to the end.`
          : `${name} gives two sides over two cables in ${soundNames(rig, group.map((c) => c.sound))}, and they are added to one further on. The sum is complete, but sides that differ in time or phase thin each other out; its left/mono output alone makes a better sum.`,
        remedies: () => elseByHand(monoOutput(inputs, device), `Lead both sides of ${boxName(rig, device)} to the end, or use its left/mono output alone`),
      };
    }
    const narrow = [...compilation.sounds.values()].flatMap((c) => c.problems.flatMap((p) => (p.is === 'narrow' ? [{ sound: c.sound, ...p }] : [])));
    for (const group of grouped(narrow, (n) => `${n.from} ${n.at}`).values()) {
      const { from, at } = group[0]!;
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
  const outs = waysOut(partOf(inputs.rig, device)!).filter((j) => j.level !== 'phones').map((j) => ref(device, j.id));
  const [mono, other] = outs;
  if (!mono || !other || outs.length > 2) return [];
  const [sum, side] = [cableAt(inputs, mono), cableAt(inputs, other)];
  if (!side) return [];
  return sum ? pull(inputs, side, 'its left/mono output alone then carries the sum of both') : replug(inputs, side, other, mono);
};

interface Lost {
  readonly device: Id<'device'>;
  readonly how: 'one side' | 'summed';
}

/** The poles with a plug in them, as points, by box. */
const plugged = once(({ points, plugged: jacks }: Wiring) => grouped([...points.keys()].filter((p) => !points[p]!.inside && jacks.has(points[p]!.id as Ref)), (p) => points[p]!.device));

const [LEFT, RIGHT] = [sideBit('left'), sideBit('right')];
const BOTH = LEFT | RIGHT;

/** Stages that make two sides of which no end gets both. */
const lost = once((t: Trace): readonly Lost[] => {
  const found = new Map<Id<'device'>, Lost>();
  const { wiring: { edges, out, blocks, sources, ends }, onPath, active, stages } = t;
  const wide = blocks.filter((b) => b.block.width === 'spread' && stages.get(b.stage) === 'in');
  for (const source of wide.length ? sources : []) {
    if (!onPath[source.point]) continue;
    const { sides } = spreadFrom(t, source);
    for (const { edge, device } of wide) {
      if (!sides[edges[edge]!.from] || found.has(device)) continue;
      const outs = (plugged(t.wiring).get(device) ?? []).filter((p) => onPath[p] && sides[p] && out[p]!.some((e) => active[e] && edges[e]!.carries.by === 'cable'));
      const made = outs.reduce((all, p) => all | sides[p]!, 0);
      const ahead = downstream(t, outs);
      const heard = ends.reduce((all, e) => (e.end.is !== 'tuner' && ahead[e.point] ? all | sides[e.point]! : all), 0);
      const oneSide = heard === LEFT || heard === RIGHT;
      const summed = (made & BOTH) === BOTH && outs.length > 1 && heard === sideBit('mono');
      if (oneSide || summed) found.set(device, { device, how: oneSide ? 'one side' : 'summed' });
    }
  }
  return [...found.values()];
});
