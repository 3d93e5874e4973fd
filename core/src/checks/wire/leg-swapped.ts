import { waysIn } from '../../edits/wire.js';
import { ref, type Id } from '../../rig/ids.js';
import { thePart } from '../../rig/rig.js';
import { sideBit, spreadFrom, type Trace } from '../../signal/graph/trace.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { cableAt, elseByHand, replugged } from '../ways-out.js';
import { theItem } from '../../known/the.js';

export const legSwapped: Check = {
  code: 'wire.leg-swapped',
  title: 'Left and right change places',
  severities: ['doubt'],
  source: 'the trace: the left side comes into a right input, or the other way about',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap(({ sound, trace }) =>
      crossings(trace).map((device) => ({ sound, device })),
    );
    for (const group of grouped(cases, (c) => c.device).values()) {
      const { device } = group[0];
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...group.map((c) => c.sound)],
        why: `Left and right cross on the way into ${boxName(rig, device)} in ${soundNames(
          rig,
          group.map((c) => c.sound),
        )}. If they cross again later it comes out right, and nobody will find it in the dark.`,
        remedies: () => elseByHand(swapped(inputs, device), `Swap the two cables into ${boxName(rig, device)}`),
      };
    }
  },
};

/** The two plugs in its inputs in each other's place. */
const swapped = (inputs: CheckInputs, device: Id<'device'>): readonly Remedy[] => {
  const [left, right] = waysIn(thePart(inputs.rig, device)).map((jack) => ref(device, jack.id));
  const [a, b] = [left && cableAt(inputs, left), right && cableAt(inputs, right)];
  if (!left || !right || !a || !b) return [];
  return [
    {
      id: 'swap',
      label: `Swap the two cables into ${boxName(inputs.rig, device)}`,
      promise: 'clears',
      by: 'program',
      edit: { put: [replugged(a, left, right), replugged(b, right, left)], remove: [] },
    },
  ];
};

/** Boxes into whose left input only the right side comes, or the other way about. */
const crossings = once((t: Trace): readonly Id<'device'>[] => {
  const {
    wiring: { edges, points, sources },
    active,
    onPath,
  } = t;
  const found = new Set<Id<'device'>>();
  for (const source of sources) {
    if (!onPath[source.point]) continue;
    const { sides } = spreadFrom(t, source);
    for (let e = 0; e < edges.length; e += 1) {
      const { from, to, leg } = theItem(edges, e);
      if (
        leg &&
        theItem(points, to).lane &&
        active[e] &&
        onPath[to] &&
        sides[from] === sideBit(leg === 'left' ? 'right' : 'left')
      )
        found.add(theItem(points, to).device);
    }
  }
  return [...found];
});
