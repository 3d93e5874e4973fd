import type { Device } from '../../rig/device.js';
import type { Cable } from '../../rig/hookup.js';
import type { Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { isLead, joined, type Joined, type Plugged } from '../../signal/joined.js';
import { boxName } from '../names.js';
import { grouped } from '../../known/grouped.js';

export const expression: Check = {
  code: 'wire.expression',
  title: 'A pedal that does not suit its expression input',
  severities: ['doubt'],
  source:
    'common practice: some inputs take the wiper on the tip, others on the ring; a volume pedal must be passive to stand in, and on an insert lead',
  *find({ rig, hookup }: CheckInputs) {
    const cables = joined(rig, hookup);
    for (const { cable, input, other } of cables.flatMap(intoExpression)) {
      if (isLead(other.device)) {
        for (const { device, cable: last } of behindLead(cables, other.device, cable)) {
          if (isPassive(device)) continue;
          yield {
            severity: 'doubt' as const,
            evidence: [last.id, device.id, input.device.id],
            why: `${boxName(rig, device.id)} is active: it cannot stand in for an expression pedal at ${boxName(rig, input.device.id)} (${input.jack.id}), not even on an insert lead. What it gives out is a signal, not the wiper of a potentiometer.`,
            remedies: () => byHand('Use a passive volume pedal or an expression pedal there'),
          };
        }
        continue;
      }
      const clash = wrong(rig, input, other);
      if (!clash) continue;
      yield {
        severity: 'doubt' as const,
        evidence: [cable.id, other.device.id, input.device.id],
        why: clash,
        remedies: () =>
          byHand(
            other.jack.kind === 'expression'
              ? 'Use a lead that crosses tip and ring, or change the setting of the input'
              : 'Use an insert lead and a passive pedal',
          ),
      };
    }
  },
};

const byHand = (label: string): readonly Remedy[] => [{ id: 'lead', label, promise: 'clears', by: 'hand' }];

interface IntoExpression {
  readonly cable: Cable;
  readonly input: Plugged;
  readonly other: Plugged;
}

/** Of two expression jacks the one that does not swing is the input: the box that has no pedal in it. */
const intoExpression = ({ cable, from, to }: Joined): readonly IntoExpression[] => {
  if (to.jack.kind === 'expression' && !isPedal(to.device)) return [{ cable, input: to, other: from }];
  return from.jack.kind === 'expression' ? [{ cable, input: from, other: to }] : [];
};

const isPedal = (device: Device): boolean =>
  device.chains.length === 0 && device.controls.some((c) => c.use === 'play');
const isPassive = (device: Device): boolean => device.chains.some((c) => c.passive);

/** The boxes at the other ends of a lead: what is judged is the pedal, not the lead. */
const behindLead = (
  cables: readonly Joined[],
  lead: Device,
  own: Cable,
): readonly { readonly device: Device; readonly cable: Cable }[] => {
  const ends = cables
    .filter((j) => j.cable.id !== own.id && [j.from.device.id, j.to.device.id].includes(lead.id))
    .map((j) => ({ device: j.from.device.id === lead.id ? j.to.device : j.from.device, cable: j.cable }));
  return [...grouped(ends, (e): Id<'device'> => e.device.id).values()].map((g) => g[0]);
};

const wrong = (rig: Rig, input: Plugged, other: Plugged): string | undefined => {
  const [pedal, box] = [boxName(rig, other.device.id), boxName(rig, input.device.id)];
  if (other.jack.kind === 'audio') {
    return isPassive(other.device)
      ? `${pedal} can serve as an expression pedal on an insert lead only: with a plain lead it has no reference.`
      : `${pedal} is active: it cannot stand in for an expression pedal.`;
  }
  return other.jack.kind === 'expression' && other.jack.poles.tip === input.jack.poles.tip
    ? `${pedal} has its wiper on the other pole than ${box} expects: the pedal jumps or works over a small part of its way.`
    : undefined;
};
