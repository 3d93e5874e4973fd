import { comb } from '../../electric/circuit/delays.js';
import { grouped } from '../../known/grouped.js';
import { alongsHere } from '../level/alongs-here.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';

export const parallel: Check = {
  code: 'comb.parallel',
  title: 'Two ways of one sound that meet again and take from each other',
  severities: ['doubt'],
  source: 'phasor sum |1 + g·e^(−j2πfΔt)|: equal ways have their first notch at 1/(2Δt)',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const met = alongsHere(inputs).flatMap(({ sound, along }) => along.meetings.map((meeting) => ({ sound, meeting })));
    for (const here of grouped(met, ({ meeting: m }) => `${m.device} ${m.from.join(' ')}`).values()) {
      const { device, from, ms, db, inverted } = here.reduce((a, b) => (b.meeting.db > a.meeting.db ? b : a)).meeting;
      const sounds = [...new Set(here.map((m) => m.sound))];
      const [early, later] = from.map((id) => boxName(rig, id));
      const where = `${early === later ? `Two ways through ${early}` : `What comes from ${early} and from ${later}`} meets again in ${boxName(rig, device)} (${soundNames(rig, sounds)})`;
      const gain = 10 ** (db / 20) * (inverted ? -1 : 1);
      const holes = ms > 0 ? comb(ms / 1000, gain) : undefined;
      const first = holes?.notches[0];
      yield {
        severity: 'doubt' as const,
        evidence: [...new Set([device, ...from]), ...sounds],
        why:
          holes && first !== undefined
            ? `${where}, one ${Math.round(ms * 100) / 100} ms late${inverted ? ' and upside down' : ''}: first notch at ${Math.round(first)} Hz, ${depth(holes.notchDb)}.`
            : `${where}, one of them upside down: together they are ${depth(20 * Math.log10(Math.abs(1 - Math.abs(gain))))}.`,
        remedies: () => [
          {
            id: 'align',
            label: inverted
              ? 'Turn the polarity of one of them'
              : `Delay the early one by ${Math.round(ms * 100) / 100} ms, pan them apart, or mute one`,
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

const depth = (db: number): string => (db < -60 ? 'down to nothing' : `${Math.round(-db)} dB down`);
