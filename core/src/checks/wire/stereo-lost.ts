import type { Id, Ref } from '../../rig/ids.js';
import { sidesFrom, type Trace } from '../../signal/trace.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, grouped, soundNames } from '../names.js';

export const stereoLost: Check = {
  code: 'wire.stereo-lost',
  title: 'A stereo box of which one side is lost',
  severities: ['doubt'],
  source: 'common practice: the left/mono output alone carries the sum of both sides; two outputs want two ways to the end',
  *find({ rig, compilation }: CheckInputs) {
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
        remedies: [{ id: 'both', label: `Lead both sides of ${boxName(rig, device)} to the end, or use its left/mono output alone`, promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};

interface Lost {
  readonly device: Id<'device'>;
  readonly how: 'one side' | 'summed';
}

const known = new WeakMap<Trace, readonly Lost[]>();

/** Stages that make two sides of which no end gets both. */
const lost = (t: Trace): readonly Lost[] => {
  const before = known.get(t);
  if (before) return before;
  const found = new Map<Id<'device'>, Lost>();
  const { wiring, active, onPath, stages } = t;
  const wide = wiring.blocks.filter((b) => b.block.width === 'spread' && stages.get(b.stage) === 'in');
  for (const source of wide.length ? wiring.sources : []) {
    if (!onPath[source.point]) continue;
    const sides = sidesFrom(t, source);
    for (const { edge, device } of wide) {
      if (!sides.has(wiring.edges[edge]!.from) || found.has(device)) continue;
      const outs = wiring.points.flatMap((p, i) => (p.device === device && !p.inside && onPath[i] && wiring.plugged.has(p.id as Ref) && sides.has(i) ? [i] : []))
        .filter((p) => wiring.out[p]!.some((e) => active[e] && wiring.edges[e]!.carries.by === 'cable'));
      const made = new Set(outs.flatMap((p) => [...sides.get(p)!]));
      const ahead = new Set(outs);
      for (const point of ahead) for (const e of wiring.out[point]!) if (active[e] && onPath[wiring.edges[e]!.to]) ahead.add(wiring.edges[e]!.to);
      const heard = new Set(wiring.ends.filter((e) => e.end.is !== 'tuner' && ahead.has(e.point)).flatMap((e) => [...sides.get(e.point) ?? []]));
      const oneSide = heard.size > 0 && !heard.has('mono') && !(heard.has('left') && heard.has('right'));
      const summed = made.has('left') && made.has('right') && outs.length > 1 && heard.size === 1 && heard.has('mono');
      if (oneSide || summed) found.set(device, { device, how: oneSide ? 'one side' : 'summed' });
    }
  }
  const all = [...found.values()];
  known.set(t, all);
  return all;
};
