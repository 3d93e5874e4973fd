import { onTheStrap, withHung } from '../../electric/front/front-response.js';
import { changeCable } from '../../edits/cables.js';
import { USUAL_PF_PER_M } from '../../electric/front/front-end.js';
import { partOf } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { db } from '../level/alongs-here.js';
import { dullFronts, isBypassChain, lossAt5k, type DullFront } from './fronts-here.js';

/** Lengths that leads are sold in, in metres (common practice). */
const SOLD = [3, 4.5, 6] as const;

export const treble: Check = {
  code: 'load.treble',
  title: 'Treble that is lost before the first box',
  severities: ['doubt'],
  source:
    'nodal analysis of coil, knobs, cable and first input, against 3 m of 100 pF/m into 1 megohm; checked against a circuit simulator',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const dull of dullFronts(inputs).filter((d) => !isBypassChain(d.front))) {
      const { front, sounds, db: loss, peakHz } = dull;
      yield {
        severity: 'doubt' as const,
        evidence: [front.source.device, ...cablesOf(dull), ...sounds],
        why: `${boxName(rig, front.source.device)} hangs on ${Math.round(front.metres * 10) / 10} m of cable (${Math.round(front.pF)} pF) before the first box that is on, in ${soundNames(rig, sounds)}. That is ${db(loss)} less at 5 kHz than with 3 m${peakHz ? `; its peak lies at ${Math.round(peakHz / 10) * 10} Hz` : ''}.`,
        remedies: () => [...otherLead(inputs, dull), withBuffer(dull)],
      };
    }
  },
};

const cablesOf = ({ front }: DullFront) =>
  front.hung.flatMap(({ piece }) => (piece.is === 'lead' ? [piece.cable] : []));

/** Another lead for the longest: as long as can be, of its own kind or of the usual capacitance, so that it cures. */
const otherLead = ({ rig }: CheckInputs, { front }: DullFront): readonly Remedy[] => {
  const leads = front.hung.flatMap(({ piece }) => (piece.is === 'lead' ? [piece] : []));
  const longest = leads.sort((a, b) => b.metres - a.metres)[0];
  const cable = longest && partOf(rig, longest.cable);
  if (!longest || !cable) return [];
  const own = longest.pF / longest.metres;
  const choices = [longest.metres, ...[...SOLD].reverse().filter((m) => m < longest.metres)].flatMap((m) =>
    own > USUAL_PF_PER_M
      ? [
          { m, pFPerM: own },
          { m, pFPerM: USUAL_PF_PER_M },
        ]
      : [{ m, pFPerM: own }],
  );
  const cure = choices.find(
    ({ m, pFPerM }) =>
      lossAt5k(
        withHung(front, (h) => (h.piece === longest ? { ...h, piece: { ...longest, metres: m, pF: m * pFPerM } } : h)),
      ) > -3,
  );
  if (!cure) return [];
  const isSofter = cure.pFPerM !== own;
  return [
    {
      id: `lead ${cable.id}`,
      label: `Use a lead of ${cure.m} m${isSofter ? ` and ${cure.pFPerM} pF a metre` : ''} instead of ${longest.metres} m${isSofter ? ` and ${own}` : ''}`,
      promise: 'clears',
      by: 'program',
      edit: changeCable(cable, { m: cure.m, ...(isSofter ? { pFPerM: cure.pFPerM } : {}) }),
    },
  ];
};

const withBuffer = ({ front }: DullFront): Remedy => ({
  id: 'buffer',
  label: `Put a buffer right behind the instrument, or go wireless: nothing of the lead is felt then (${signedDb(lossAt5k(onTheStrap(front)))} at 5 kHz)`,
  promise: 'clears',
  by: 'hand',
});

const signedDb = (value: number): string => `${value < 0 ? '−' : '+'}${db(value)}`;
