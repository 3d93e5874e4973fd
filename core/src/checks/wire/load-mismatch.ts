import { loadedTaps, type LoadedBy, type LoadedTap } from '../../electric/speakers/speakers.js';
import { whichCanStand } from '../../recall/what-if/can-stand.js';
import type { Rig } from '../../rig/rig.js';
import type { Check, CheckInputs, Occurrence } from '../check.js';
import { boxName, listed } from '../names.js';
import { standingText } from './standing-text.js';

const rounded = (value: number): number => Number(value.toFixed(1));

/** Loads of less than the jack is made for; a hundredth is no difference. */
const isTooHeavy = ({ ohm, output: { jack } }: LoadedTap): boolean =>
  ohm !== undefined && jack.ohm !== undefined && ohm < jack.ohm * 0.99;
const isTooMuchFor = ({ gets, stands }: LoadedBy): boolean =>
  gets !== undefined && stands !== undefined && gets > stands * 1.01;

export const loadMismatch: Check = {
  code: 'wire.load-mismatch',
  title: 'Cabinets that load the amp too heavily, or get more than they stand',
  severities: ['danger', 'doubt'],
  source:
    'loads side by side: 1/R = 1/R1 + 1/R2, power by conductance (Ohm’s law); what an amp gives and a cabinet stands is a figure of its maker',
  *find({ rig, hookup, compilation, modelled }: CheckInputs) {
    const taps = loadedTaps(rig, hookup, compilation.bearings.anatomy);
    const bad = taps.filter((t) => isTooHeavy(t) || t.loads.some(isTooMuchFor));
    const told = new Set<string>();
    for (const tap of bad.length ? whichCanStand(modelled, bad) : []) {
      for (const found of [
        ...(isTooHeavy(tap) ? [heavy(rig, tap)] : []),
        ...tap.loads.filter(isTooMuchFor).map((l) => tooMuch(rig, tap, l)),
      ]) {
        const key = `${found.evidence.join(' ')} ${found.about}`;
        if (!told.has(key)) yield found;
        told.add(key);
      }
    }
  },
};

const heavy = (rig: Rig, { output: { device, jack }, ohm = 0, loads, standing }: LoadedTap): Occurrence => {
  const isSolid = device.figures.powerStage === 'solid state';
  const cabinets = listed(loads.map((l) => `${boxName(rig, l.at.device.id)} (${l.ohm} Ω)`));
  return {
    severity: isSolid ? 'danger' : 'doubt',
    evidence: [device.id, ...loads.map((l) => l.at.device.id)],
    about: jack.id,
    why: `${cabinets} together are ${rounded(ohm)} Ω on the ${jack.ohm} Ω jack of ${boxName(rig, device.id)}${standingText(rig, standing)}. ${isSolid ? 'A transistor amp can overheat and fail below its rated load.' : 'A valve amp loses power and wears its valves; use the tap that fits the cabinets.'}`,
    remedies: () => [
      {
        id: 'tap',
        label: `Use a ${rounded(ohm)} Ω jack of the amp, or cabinets of a higher impedance`,
        promise: 'clears',
        by: 'hand',
      },
    ],
  };
};

const tooMuch = (rig: Rig, { output: { device, jack }, standing }: LoadedTap, load: LoadedBy): Occurrence => ({
  severity: 'danger',
  evidence: [load.at.device.id, device.id],
  about: `${jack.id} ${load.at.jack.id} watts`,
  why: `${boxName(rig, device.id)} can give ${boxName(rig, load.at.device.id)} ${rounded(load.gets ?? 0)} W${standingText(rig, standing)}; it stands ${load.stands} W. Loudspeakers burn out like that.`,
  remedies: () => [
    {
      id: 'cabinet',
      label: `Use a cabinet that stands ${Math.ceil(load.gets ?? 0)} W, or share the power between two`,
      promise: 'clears',
      by: 'hand',
    },
  ],
});
