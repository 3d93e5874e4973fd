import { takesIn } from '../../edits/cables.js';
import { speakerOutputs } from '../../electric/speakers/speaker-outputs.js';
import { speakerStates } from '../../electric/speakers/speaker-states.js';
import { ref, splitRef, type Ref } from '../../rig/ids.js';
import { all } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { whichCanStand } from '../../recall/what-if/can-stand.js';
import { boxName } from '../names.js';
import { cableAt, elseByHand, plugIn } from '../ways-out.js';
import { standingText } from './standing-text.js';

export const noLoad: Check = {
  code: 'wire.no-load',
  title: 'A valve amp without its load',
  severities: ['danger'],
  source:
    'common practice: a valve output stage that is driven without a load destroys its transformer; looked for in every state that the prover says can come about',
  *find(inputs: CheckInputs) {
    const { rig, hookup, compilation, modelled } = inputs;
    for (const { device, jack } of speakerOutputs(compilation.bearings.anatomy, rig)) {
      if (device.figures.powerStage !== 'valve') continue;
      const unloaded = speakerStates(rig, hookup, ref(device.id, jack.id)).filter((s) => s.loads.length === 0);
      const [bad] = unloaded.length ? whichCanStand(modelled, unloaded) : [];
      if (!bad) continue;
      yield {
        severity: 'danger' as const,
        evidence: [...new Set([device.id, ...[...bad.standing.keys()].map((control) => splitRef(control).device)])],
        about: jack.id,
        why: `${boxName(rig, device.id)} is wired in ${hookup.name}, and its speaker jack (${jack.id}) leads to no loudspeaker and no load${standingText(rig, bad.standing)}. Driven like that its output transformer can burn out. Give it a cabinet or a load box before it is switched on; repairs inside belong to a licensed technician.`,
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
