import { ref, theId, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import type { Wiring, WiredInsert } from '../../signal/graph/wiring.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { cableAt, replugged } from '../ways-out.js';
import { theFirst, theItem } from '../../known/the.js';

export const exchanged: Check = {
  code: 'wire.exchanged',
  title: 'Two returns exchanged',
  severities: ['broken'],
  source: 'the trace: what leaves by the send of one loop comes back by the return of another, and the other way round',
  *find(inputs: CheckInputs) {
    const { wiring } = inputs.compilation.bearings.anatomy;
    for (const [a, b] of exchangedIn(wiring)) {
      const [first, second] = [theFirst(a.insert.return).at, theFirst(b.insert.return).at];
      yield {
        severity: 'broken' as const,
        evidence: [a.device],
        about: `${a.insert.id} ${b.insert.id}`,
        why: `${boxName(inputs.rig, a.device)}: what leaves by ${theFirst(a.insert.send).at} comes back by ${second}, and what leaves by ${theFirst(b.insert.send).at} by ${first}. The two returns are exchanged: each loop sounds only together with the other.`,
        remedies: () => exchangeBack(inputs, ref(a.device, first), ref(a.device, second)),
      };
    }
  },
};

interface Returning extends WiredInsert {
  readonly comesBackBy: ReadonlySet<string>;
}

/** Pairs of loops of one box whose returns are plugged the wrong way round. */
const exchangedIn = once((wiring: Wiring): readonly (readonly [Returning, Returning])[] => {
  const loops = wiring.inserts.map((insert) => ({ ...insert, comesBackBy: returnsOf(wiring, insert) }));
  return loops.flatMap((a, i) =>
    loops
      .slice(i + 1)
      .filter((b) => a.device === b.device && isExchanged(a, b))
      .map((b) => [a, b] as const),
  );
});

const isExchanged = (a: Returning, b: Returning): boolean => {
  const comesBack = (by: Returning, at: Returning): boolean => at.insert.return.some((t) => by.comesBackBy.has(t.at));
  return comesBack(a, b) && comesBack(b, a) && !comesBack(a, a) && !comesBack(b, b);
};

/** The jacks of its own box at which what an insert sends comes in again first, over whatever boxes. */
const returnsOf = ({ at, points, out, to }: Wiring, { device, insert }: WiredInsert): ReadonlySet<string> => {
  const found = new Set<string>();
  const seen = new Set(insert.send.flatMap((t) => at.get(`${device}.${t.at}`) ?? []));
  const sends = new Set(seen);
  for (const point of seen) {
    if (!sends.has(point) && theItem(points, point).device === device)
      found.add(theItem(points, point).id.slice(device.length + 1));
    else for (const e of theItem(out, point)) seen.add(theItem(to, e));
  }
  return found;
};

const exchangeBack = (inputs: CheckInputs, first: Ref, second: Ref): readonly Remedy[] => {
  const [a, b] = [cableAt(inputs, first), cableAt(inputs, second)];
  if (!a || !b) return [];
  const jack = (r: Ref): string => r.slice(r.indexOf('.') + 1);
  return [
    {
      id: 'exchange-back',
      label: `Exchange the plugs in ${jack(first)} and ${jack(second)} of ${boxName(inputs.rig, theId('device', first.slice(0, first.indexOf('.'))))}`,
      promise: 'clears',
      by: 'program',
      edit: { put: [replugged(a, first, second), replugged(b, second, first)], remove: [] },
    },
  ];
};
