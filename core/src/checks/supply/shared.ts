import { grouped } from '../../known/grouped.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';
import { fedHere, feedFrom } from './fed.js';

export const shared: Check = {
  code: 'supply.shared',
  title: 'A digital box and one of high gain on one common',
  severities: ['doubt'],
  source: 'common practice: digital boxes whine through high gain unless each has an isolated output',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const fed = fedHere(inputs).flatMap((f) => f.given.outputs.map((output) => ({ ...f, group: output.group })));
    for (const [group, here] of grouped(fed, (f) => f.group)) {
      const named = (noise: string) => [
        ...new Set(here.filter((f) => f.need.noise === noise).map((f) => f.need.device)),
      ];
      const [digital, gain] = [named('digital'), named('high gain')];
      const first = here.find((f) => f.need.noise === 'digital');
      if (!first || gain.length === 0) continue;
      const names = (ids: typeof digital) => listed(ids.map((id) => boxName(rig, id)));
      yield {
        severity: 'doubt' as const,
        evidence: [...gain, ...digital],
        about: group,
        why: `${names(digital)} and ${names(gain)} share one common of their supply: the noise of digital boxes can be heard through high gain.`,
        remedies: () =>
          feedFrom(
            inputs,
            first.need,
            'Feed the digital box from an isolated output of its own',
            (o) => o.group === o.jack,
          ),
      };
    }
  },
};
