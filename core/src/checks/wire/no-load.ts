import { takesIn } from '../../edits/cables.js';
import { ref, type Ref } from '../../rig/ids.js';
import { all } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { controlText, valueText } from '../../recall/words/words.js';
import { boxName, listed } from '../names.js';
import { unloadedState } from './speaker-states.js';
import { speakerOutputs } from './speaker-outputs.js';
import { cableAt, elseByHand, plugIn } from '../ways-out.js';

export const noLoad: Check = {
  code: 'wire.no-load',
  title: 'A valve amp without its load',
  severities: ['danger'],
  source:
    'common practice: a valve output stage that is driven without a load destroys its transformer; looked for in every state that switches on the way can come to',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    for (const { device, jack } of speakerOutputs(inputs)) {
      if (device.figures.powerStage !== 'valve') continue;
      const bad = unloadedState(rig, hookup, ref(device.id, jack.id));
      if (!bad) continue;
      const isSwitched = bad.standing.length > 0;
      yield {
        severity: 'danger' as const,
        evidence: [...new Set([device.id, ...bad.standing.map((s) => s.device)])],
        about: jack.id,
        why: `${boxName(rig, device.id)} is wired in ${hookup.name}, and its speaker jack (${jack.id}) leads to no loudspeaker and no load${isSwitched ? ` as soon as ${listed(bad.standing.map((s) => `${controlText(rig, s.control)} stands at ${valueText(rig, s.control, s.value)}`))}` : ''}. Driven like that its output transformer can burn out. Give it a cabinet or a load box before it is switched on; repairs inside belong to a licensed technician.`,
        remedies: () =>
          elseByHand(
            cabinetFor(inputs, ref(device.id, jack.id), jack.ohm),
            'Plug in a cabinet, or a load box that suits the amp',
          ),
      };
    }
  },
};

/** A loudspeaker of the kit that hangs free, of the impedance of the jack. */
const cabinetFor = (inputs: CheckInputs, from: Ref, ohm: number | undefined): readonly Remedy[] => {
  if (cableAt(inputs, from)) return [];
  const free = all(inputs.rig, 'device')
    .flatMap((d) =>
      d.jacks
        .filter((j) => j.load === 'speaker' && takesIn(j) && (ohm === undefined || j.ohm === undefined || j.ohm >= ohm))
        .map((j) => ({ jack: ref(d.id, j.id), ohm: j.ohm ?? Infinity })),
    )
    .filter((j) => !cableAt(inputs, j.jack));
  const best = free.sort((a, b) => a.ohm - b.ohm)[0];
  return best ? plugIn(inputs, from, best.jack) : [];
};
