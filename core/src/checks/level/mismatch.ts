import { NOMINAL_DBU } from '../../electric/typical.js';
import { grouped } from '../../known/grouped.js';
import { jackAt } from '../../rig/box.js';
import type { Jack } from '../../rig/device.js';
import { splitRef } from '../../rig/ids.js';
import { passesOn, type Joint } from '../../electric/levels/along.js';
import type { Rig } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { alongsHere, db } from './alongs-here.js';

/** From here on the level at an input is off by more than a knob makes good; common practice, about 12 dB. */
const SOFT_LINE = -17;
const LOUD_INSTRUMENT = -4;

interface Wrong {
  readonly off: number;
  readonly text: string;
  readonly cure: string;
}

const wrongAt = (rig: Rig, { from, to, level }: Joint): Wrong | undefined => {
  const [a, b]: readonly (Jack['level'] | undefined)[] = [jackAt(rig, from)?.level, jackAt(rig, to)?.level];
  if (b === 'line' && a === 'instrument' && level.average < SOFT_LINE)
    return {
      off: NOMINAL_DBU.line - level.average,
      text: 'too soft for its line input: it has to be turned up, and hiss with it',
      cure: 'Use its instrument input, or a preamp or DI between',
    };
  if (b === 'instrument' && a === 'line' && level.average > LOUD_INSTRUMENT)
    return {
      off: level.average - NOMINAL_DBU.instrument,
      text: 'too loud for its instrument input: it distorts, and its knobs have no travel left',
      cure: 'Use its line input, turn the line down, or put a box between that lowers it',
    };
  return undefined;
};

export const mismatch: Check = {
  code: 'level.mismatch',
  title: 'Instrument level into a line input, or the other way',
  severities: ['doubt'],
  source:
    'nominal levels: instrument about −20 dBu, line −10 dBV (−7.8 dBu) to +4 dBu (common practice, 12 to 24 dB apart)',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const wrong = alongsHere(inputs).flatMap(({ sound, trace, along }) =>
      along.joints.flatMap((joint) => {
        const found = wrongAt(rig, joint);
        return found && !passesOn(rig, trace, joint) ? [{ sound, joint, ...found }] : [];
      }),
    );
    for (const here of grouped(wrong, (w) => w.joint.to).values()) {
      const { joint, off, text, cure } = here.reduce((a, b) => (b.off > a.off ? b : a));
      const box = splitRef(joint.to).device;
      const before = splitRef(joint.from).device;
      const sounds = [...new Set(here.map((w) => w.sound))];
      yield {
        severity: 'doubt' as const,
        evidence: [box, before, joint.cable, ...sounds],
        about: joint.to,
        why: `What ${boxName(rig, before)} gives is ${db(off)} ${text} (${boxName(rig, box)}, in ${soundNames(rig, sounds)}).`,
        remedies: () => [{ id: 'level', label: cure, promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};
