import { unplug } from '../../edits/cables.js';
import { theEntry, theItem } from '../../known/the.js';
import { ref } from '../../rig/ids.js';
import { cablesOf } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';

export const spareReturn: Check = {
  code: 'wire.spare-return',
  title: 'A loop that is only half plugged',
  severities: ['broken'],
  source: 'common practice: what leaves by a send comes back by the return, unless it is meant to go elsewhere',
  *find({ rig, hookup, compilation }: CheckInputs) {
    const { wiring } = compilation.bearings.anatomy;
    for (const { device, insert } of wiring.inserts) {
      const sends = insert.send.map((t) => ref(device, t.at)).filter((r) => wiring.plugged.has(r));
      const returns = insert.return.map((t) => ref(device, t.at)).filter((r) => wiring.plugged.has(r));
      if (sends.length > 0 === returns.length > 0 || (sends.length > 0 && reachesAnEnd(compilation, sends))) continue;
      const half = sends.length ? 'send' : 'return';
      const cables = cablesOf(rig, hookup.id).filter((c) => c.ends.some((end) => [...sends, ...returns].includes(end)));
      yield {
        severity: 'broken' as const,
        evidence: [device, ...cables.map((c) => c.id)],
        about: insert.id,
        why: `${boxName(rig, device)}: the ${half} of ${insert.id} is plugged and its ${half === 'send' ? 'return' : 'send'} is not. ${half === 'send' ? 'What leaves there never comes back.' : 'Nothing is sent to what comes back there.'}`,
        remedies: () => [
          {
            id: 'unplug',
            label: `Pull the ${half} cable`,
            promise: 'clears' as const,
            by: 'program' as const,
            edit: unplug(...cables.map((c) => c.id)),
          },
        ],
      };
    }
  },
};

/** A return left open on purpose is right when what is sent can reach an end that counts. */
const reachesAnEnd = ({ bearings }: CheckInputs['compilation'], sends: readonly string[]): boolean => {
  const { wiring } = bearings.anatomy;
  const seen = new Set(sends.map((send) => theEntry(wiring.at, send)));
  for (const point of seen) for (const e of theItem(wiring.out, point)) seen.add(theItem(wiring.edges, e).to);
  return wiring.ends.some((end) => end.end.is !== 'tuner' && seen.has(end.point));
};
