import { theFirst, theItem } from '../../known/the.js';
import type { Device } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { cableAt, elseByHand, plugIn } from '../ways-out.js';

export const fourCable: Check = {
  code: 'wire.four-cable',
  title: 'Four cables, one of them missing',
  severities: ['broken'],
  source: 'common practice: guitar to box, send to amp, amp send to return, box to amp return',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const { wiring } = compilation.bearings.anatomy;
    for (const amp of rig.parts.device.values()) {
      if (
        amp.zone !== 'amp' ||
        !wiring.wired.has(amp.id) ||
        !amp.jacks.some((j) => j.id === 'send') ||
        !amp.jacks.some((j) => j.id === 'return')
      )
        continue;
      for (const box of rig.parts.device.values()) {
        const missing = missingOf(wiring, amp, box);
        if (missing.length !== 1) continue;
        yield {
          severity: 'broken' as const,
          evidence: [box.id, amp.id],
          why: `${boxName(rig, box.id)} and ${boxName(rig, amp.id)} are joined by three of the four cables; missing is ${theFirst(missing).name}.`,
          remedies: () => elseByHand(plugs(inputs, theFirst(missing)), `Plug in ${theFirst(missing).name}`),
        };
      }
    }
  },
};

interface Lead {
  readonly name: string;
  readonly from: readonly Ref[];
  readonly to: readonly Ref[];
}

/** Of the leads between an amp and a box with loops those that are not there, also not by way of other boxes. */
const missingOf = (wiring: Wiring, amp: Device, box: Device): readonly Lead[] => {
  const inserts = box.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'insert' ? [s] : [])));
  const sends = inserts.flatMap((i) => i.send.map((t) => ref(box.id, t.at)));
  const returns = inserts.flatMap((i) => i.return.map((t) => ref(box.id, t.at)));
  const outs = box.chains.flatMap((c) => c.to.map((t) => ref(box.id, t.at)));
  const leads = (from: readonly Ref[], to: readonly Ref[]): boolean => {
    const targets = new Set(to.flatMap((r) => wiring.at.get(r) ?? []));
    const seen = new Set(from.flatMap((r) => wiring.at.get(r) ?? []));
    for (const point of seen) {
      if (targets.has(point)) return true;
      for (const e of theItem(wiring.out, point)) {
        const { to: next, carries } = theItem(wiring.edges, e);
        if (carries.by === 'cable' || ![amp.id, box.id].includes(theItem(wiring.points, next).device)) seen.add(next);
      }
    }
    return false;
  };
  const [ampIn, ampSend, ampReturn] = [[ref(amp.id, 'in')], [ref(amp.id, 'send')], [ref(amp.id, 'return')]];
  const wanted: readonly Lead[] = [
    { name: 'the lead from its send to the front of the amp', from: sends, to: ampIn },
    { name: "the lead from the amp's send to its return", from: ampSend, to: returns },
    { name: "the lead from its output to the amp's return", from: outs, to: ampReturn },
  ];
  return wanted.filter(({ from, to }) => inserts.length === 0 || !leads(from, to));
};

/** The missing lead, where both of its jacks are free. */
const plugs = (inputs: CheckInputs, { from, to }: Lead): readonly Remedy[] => {
  const [send, back] = [from, to].map((jacks) => jacks.find((j) => !cableAt(inputs, j)));
  return send && back ? plugIn(inputs, send, back) : [];
};
