import { bankName, mirroredBanks, outOfStep, type OutOfStep } from '../../edits/mirror.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { grouped } from '../../known/grouped.js';

const SAYS: Readonly<Record<OutOfStep['is'], (names: string) => string>> = {
  missing: (names) => `${names} ${isSeveral(names) ? 'have' : 'has'} no mirror there`,
  'other switch': (names) => `${names} ${isSeveral(names) ? 'stand' : 'stands'} on another switch`,
  'other role': (names) => `${names} ${isSeveral(names) ? 'have' : 'has'} another role`,
  'other level': (names) => `${names} ${isSeveral(names) ? 'are' : 'is'} to be of another loudness`,
  'otherwise left': (names) =>
    `${names} ${isSeveral(names) ? 'end' : 'ends'} otherwise or ${isSeveral(names) ? 'are' : 'is'} heard elsewhere`,
  'says more': (names) =>
    `${names} ${isSeveral(names) ? 'differ' : 'differs'} in more than the others there, and no reason is written beside it`,
};
const isSeveral = (names: string): boolean => names.includes(', ');

const LABELS: Readonly<Record<OutOfStep['is'], (name: string) => string>> = {
  missing: (name) => `Mirror “${name}” as well`,
  'other switch': (name) => `Put “${name}” on the switch of its original`,
  'other role': (name) => `Give “${name}” the role of its original`,
  'other level': (name) => `Make “${name}” as loud as its original`,
  'otherwise left': (name) => `Let “${name}” end and sound where its original does`,
  'says more': (name) => `Let “${name}” differ in what all of that bank differ in`,
};

export const mirrorApart: Check = {
  code: 'set.mirror-apart',
  title: 'A mirrored bank is out of step',
  severities: ['note'],
  source: 'the mirror: each sound of it is its original, on the same switch, but for what all of that bank differ in',
  *find({ rig }: CheckInputs) {
    for (const bank of mirroredBanks(rig)) {
      const apart = outOfStep(rig, bank);
      if (apart.length === 0) continue;
      const says = [...grouped(apart, (a) => a.is)].map(([is, those]) =>
        SAYS[is](those.map((a) => `“${a.sound.name}”`).join(', ')),
      );
      yield {
        severity: 'note' as const,
        evidence: [bank.device, ...new Set(apart.map((a) => a.sound.id))],
        about: `${bank.from} ${bank.to}`,
        why: `On ${boxName(rig, bank.device)} ${bankName(rig, bank, bank.to)} mirrors ${bankName(rig, bank, bank.from)}: ${says.join('; ')}.`,
        remedies: (): readonly Remedy[] =>
          apart.map(({ sound, is, cure }): Remedy => {
            const shared = { id: `${is} ${sound.id}`, label: LABELS[is](sound.name), promise: 'eases' as const };
            return cure
              ? { ...shared, promise: apart.length === 1 ? 'clears' : 'eases', by: 'program', edit: cure }
              : { ...shared, note: 'Another sound stands on that switch: free it first.', by: 'hand' };
          }),
      };
    }
  },
};
