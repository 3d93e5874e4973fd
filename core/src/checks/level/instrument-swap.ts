import { GAIN_STAGES } from '../../electric/gain.js';
import { inHand } from '../../electric/in-hand.js';
import { levelsAlong } from '../../electric/levels/along.js';
import type { Ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { WiredEnd } from '../../signal/graph/wiring.js';
import { passable } from '../../signal/graph/passable.js';
import { audible } from '../order/audible.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { db } from './alongs-here.js';

/** Instruments that lie closer drive a stage alike. */
const LEAST = 4;

export const instrumentSwap: Check = {
  code: 'level.instrument-swap',
  title: 'The same sound with a louder instrument',
  severities: ['doubt'],
  source:
    'common practice: two instruments of one kind go through the same gain; a louder one drives it harder, and a trim for each input evens them',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const { wiring } = compilation.bearings.anatomy;
    const players = wiring.sources.filter((s) => s.end.dbu && wiring.wired.has(s.device));
    const driven = audible(inputs).flatMap(({ sound, trace, stages }) =>
      stages
        .filter((s) => GAIN_STAGES.includes(s.block.stage))
        .map(({ stage, device }) => ({ sound, trace, stage, device })),
    );
    for (const [i, one] of players.entries())
      for (const other of players.slice(i + 1)) {
        if (one.end.what !== other.end.what || one.device === other.device) continue;
        const both = [one, other].map((s) => passable(wiring, [s.ref]).stages);
        const met = driven.filter((d) => both.every((stages) => stages.has(d.stage)));
        const at = met[0];
        const levels = at && [one, other].map((source) => levelInto(rig, at, source));
        const [a, b] = levels ?? [];
        if (!at || a === undefined || b === undefined || Math.abs(a - b) < LEAST) continue;
        const [soft, loud] = a <= b ? [one, other] : [other, one];
        const by = Math.abs(a - b);
        const first = at.device;
        const sounds = [...new Set(met.map((d) => d.sound))];
        yield {
          severity: 'doubt' as const,
          evidence: [loud.device, soft.device, first, ...sounds],
          why: `${boxName(rig, loud.device)} drives ${boxName(rig, first)} ${db(by)} harder than ${boxName(rig, soft.device)}: in ${soundNames(rig, sounds)} it is dirtier and hardly louder.`,
          remedies: () => [
            {
              id: 'trim',
              label: `Trim the input of ${boxName(rig, loud.device)} by ${db(by)}, or turn its volume down a little; a boost for the softer one does the same`,
              promise: 'clears' as const,
              by: 'hand' as const,
            },
          ],
        };
      }
  },
};

/** How loud an instrument comes into a stage when it is in hand, past trims and whatever else stands on its way. */
const levelInto = (
  rig: Rig,
  { trace, stage }: { readonly trace: Trace; readonly stage: Ref },
  source: WiredEnd,
): number | undefined => {
  const heard = inHand(rig, trace, source);
  return heard && levelsAlong(rig, heard, source).stages.find((s) => s.stage === stage)?.into.average;
};
