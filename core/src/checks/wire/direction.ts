import { unplug } from '../../edits/cables.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { isLead, joined } from '../../signal/joined.js';

export const direction: Check = {
  code: 'wire.direction',
  title: 'Two outputs or two inputs joined',
  severities: ['broken'],
  source: 'common practice: a cable joins an output to an input',
  *find({ rig, hookup }: CheckInputs) {
    const cables = joined(rig, hookup);
    /** Behind a lead into an expression jack runs no signal but a voltage, whichever way round. */
    const leadsToExpression = new Set(
      cables.flatMap(({ from, to }) =>
        (
          [
            [from, to],
            [to, from],
          ] as const
        ).flatMap(([jack, lead]) => (jack.jack.kind === 'expression' && isLead(lead.device) ? [lead.device.id] : [])),
      ),
    );
    for (const { cable, from: a, to: b } of cables) {
      if (
        a.jack.kind === 'expression' ||
        b.jack.kind === 'expression' ||
        [a, b].some((p) => leadsToExpression.has(p.device.id))
      )
        continue;
      const carries =
        a.jack.kind === b.jack.kind &&
        (['tip', 'ring'] as const).some(
          (pole) => a.jack.poles[pole] && b.jack.poles[pole] && a.jack.poles[pole] !== b.jack.poles[pole],
        );
      if (carries) continue;
      const what =
        a.jack.kind !== b.jack.kind
          ? `a ${a.jack.kind} jack and a ${b.jack.kind} jack`
          : a.jack.poles.tip === 'out'
            ? 'two outputs'
            : 'two inputs';
      yield {
        severity: 'broken' as const,
        evidence: [cable.id, a.device.id, b.device.id],
        why: `The cable from ${boxName(rig, a.device.id)} (${a.jack.id}) to ${boxName(rig, b.device.id)} (${b.jack.id}) joins ${what}: nothing passes.`,
        remedies: () => [
          {
            id: 'unplug',
            label: 'Pull this cable',
            promise: 'clears' as const,
            by: 'program' as const,
            edit: unplug(cable.id),
          },
        ],
      };
    }
  },
};
