import { laidOut } from '../../board/laid-out.js';
import { leadLengths } from '../../board/lengths.js';
import { changeCable } from '../../edits/cables.js';
import { thePart } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { endName } from '../names.js';

const cm = (m: number): string => `${Math.ceil(m * 100)} cm`;

export const cableShort: Check = {
  code: 'build.cable-short',
  title: 'A lead that is shorter than its way on the board',
  severities: ['broken'],
  source: 'route along the edges between boxes, with plugs; sizes of plugs are assumed',
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable: id, least, step } of leadLengths(rig, hookup, laidOut(rig, hookup))) {
      const cable = thePart(rig, id);
      if (cable.m === undefined || cable.m >= least) continue;
      const [from, to] = cable.ends;
      yield {
        severity: 'broken' as const,
        evidence: [id],
        why: `The lead from ${endName(rig, from)} to ${endName(rig, to)} is ${cm(cable.m)} long and needs at least ${cm(least)}.`,
        remedies: () => [
          {
            id: 'longer',
            label: `Use one of ${step} m`,
            ...(cable.have ? { note: 'It is not there yet: it stands among the leads to get.' } : {}),
            promise: 'clears' as const,
            by: 'program' as const,
            edit: changeCable(cable, { m: step, have: undefined }),
          },
        ],
      };
    }
  },
};
