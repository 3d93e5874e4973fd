import { ref, type Id } from '../../rig/ids.js';
import type { Hookup } from '../../rig/hookup.js';
import { all, cablesOf, type Rig } from '../../rig/rig.js';
import type { Anatomy } from '../../signal/graph/anatomy.js';
import { restingState } from '../../signal/graph/state.js';
import { ringsOf, trace, type Trace } from '../../signal/graph/trace.js';
import { wire } from '../../signal/graph/wiring.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { once } from '../../kept/kept.js';
import { pull } from '../ways-out.js';
import { theItem, theFirst } from '../../known/the.js';
import { controlIn } from '../../rig/device.js';

export const ring: Check = {
  code: 'wire.ring',
  title: 'A signal that feeds itself',
  severities: ['broken'],
  source: 'the trace: a closed way through poles and inner chains, in a state that a sound or a foot reaches',
  *find(inputs: CheckInputs) {
    const seen = new Set<string>();
    for (const { t, sound } of states(inputs)) {
      for (const points of ringsOf(t)) {
        const boxes = [...new Set(points.map((p) => theItem(t.wiring.points, p).device))];
        const key = [...boxes].sort().join();
        if (seen.has(key)) continue;
        seen.add(key);
        yield {
          severity: 'broken' as const,
          evidence: [...boxes, ...(sound ? [sound] : [])],
          about: key,
          why: `The signal runs in a ring: ${[...boxes, theFirst(boxes)].map((b) => boxName(inputs.rig, b)).join(' → ')}${sound ? '' : ', once a foot sets it so'}. It will howl.`,
          remedies: () => cuts(inputs, t, points),
        };
      }
    }
  },
};

/** Cables of the ring without which every sound is still heard wherever it is to be heard. */
const cuts = (inputs: CheckInputs, { wiring }: Trace, points: readonly number[]): readonly Remedy[] => {
  const on = new Set(points.map((p) => theItem(wiring.points, p).id));
  const sounding = [...inputs.compilation.sounds.values()];
  return cablesOf(inputs.rig, inputs.hookup.id)
    .filter((c) => c.ends.every((e) => on.has(e)))
    .flatMap((cable) => {
      const { parts } = inputs.rig;
      const without = {
        ...inputs.rig,
        parts: { ...parts, cable: new Map([...parts.cable].filter(([id]) => id !== cable.id)) },
      };
      const wired = wire(without, inputs.hookup);
      const isHeard = sounding.every(({ state, trace: before, heard }) => {
        const { reaches } = trace(wired, state);
        return heard.every(
          (p) =>
            p.as === 'silent' ||
            !before.reaches.some((r) => r.source.ref === p.from && r.end.ref === p.at) ||
            reaches.some((r) => r.source.ref === p.from && r.end.ref === p.at),
        );
      });
      return isHeard ? pull(inputs, cable) : [];
    });
};

/** The states of all sounds, then the rig at rest with each gate that a foot can switch in each of its positions. */
function* states({ rig, hookup, compilation }: CheckInputs): Generator<{ t: Trace; sound?: Id<'sound'> }> {
  for (const compiled of compilation.sounds.values()) yield { t: compiled.trace, sound: compiled.sound };
  for (const t of atRest(compilation.bearings.anatomy, rig, hookup)) yield { t };
}

const atRest = once(({ wiring }: Anatomy, rig: Rig, hookup: Hookup): readonly Trace[] => {
  const rest = restingState(rig, hookup);
  const gates = new Set(wiring.edges.flatMap((e) => e.needs.flatMap((n) => n.facts.map((f) => f.control))));
  const byFoot = all(rig, 'device')
    .filter((d) => wiring.wired.has(d.id))
    .flatMap((device) =>
      device.actuators
        .filter((a) => 'foot' in a.by)
        .flatMap((a) => a.acts)
        .flatMap((act) => {
          const control = 'control' in act ? controlIn(device, act.control) : undefined;
          if (
            !control ||
            control.use === 'play' ||
            !('values' in control.domain) ||
            !gates.has(ref(device.id, control.id))
          )
            return [];
          return control.domain.values.map((value) =>
            trace(wiring, new Map(rest).set(ref(device.id, control.id), value)),
          );
        }),
    );
  return [trace(wiring, rest), ...byFoot];
});
