import { unplug } from '../../edits/cables.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { cablesOf, partOf, type Rig } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';

export const direction: Check = {
  code: 'wire.direction',
  title: 'Two outputs or two inputs joined',
  severities: ['broken'],
  source: 'common practice: a cable joins an output to an input',
  *find({ rig, hookup }: CheckInputs) {
    for (const cable of cablesOf(rig, hookup.id)) {
      const [a, b] = cable.ends.map((end) => jackAt(rig, end));
      if (!a || !b) continue;
      const carries = a.jack.kind === b.jack.kind && (['tip', 'ring'] as const).some((pole) => a.jack.poles[pole] && b.jack.poles[pole] && a.jack.poles[pole] !== b.jack.poles[pole]);
      if (carries) continue;
      const what = a.jack.kind !== b.jack.kind ? `a ${a.jack.kind} jack and a ${b.jack.kind} jack` : a.jack.poles.tip === 'out' ? 'two outputs' : 'two inputs';
      yield {
        severity: 'broken' as const,
        evidence: [cable.id, a.device, b.device],
        why: `The cable from ${boxName(rig, a.device)} (${a.jack.id}) to ${boxName(rig, b.device)} (${b.jack.id}) joins ${what}: nothing passes.`,
        remedies: [{ id: 'unplug', label: 'Pull this cable', promise: 'clears' as const, by: 'program' as const, edit: unplug(cable.id) }],
      };
    }
  },
};

const jackAt = (rig: Rig, end: Ref) => {
  const { device, name } = splitRef(end);
  const jack = partOf(rig, device)?.jacks.find((j) => j.id === name);
  return jack && { device, jack };
};
