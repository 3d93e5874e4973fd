import { ONE_PERSON_KG, packedCases, type CaseView } from '../../board/packed.js';
import { repack } from '../../edits/packing.js';
import type { Check, Remedy } from '../check.js';

const kilos = (kg: number): string => `${Math.round(kg * 10) / 10} kg`;

/** Moves the lightest thing that is heavy enough into a case that has room for it. */
const moves = (one: CaseView, others: readonly CaseView[]): readonly Remedy[] => {
  const things = [...one.things].sort((a, b) => (a.kg ?? 0) - (b.kg ?? 0));
  return others.flatMap((to): readonly Remedy[] => {
    const room = (to.case.mostKg ?? Infinity) - to.kg;
    const thing = things.find(({ kg = 0 }) => kg >= one.over && kg <= room);
    return thing
      ? [
          {
            id: `to ${to.case.id}`,
            label: `Put ${thing.name} into ${to.case.name}`,
            promise: 'clears',
            by: 'program',
            edit: repack(one.case, to.case, thing.name),
          },
        ]
      : [];
  });
};

export const weight: Check = {
  code: 'build.weight',
  title: 'A case that is heavier than it may be',
  severities: ['doubt'],
  source: `the limit that somebody wrote down (a checked bag often has 23 kg: common practice, ask your carrier); one person lifts no more than ${ONE_PERSON_KG} kg (NIOSH 94-110)`,
  *find({ rig, hookup }) {
    const cases = packedCases(rig, hookup);
    for (const one of cases) {
      if (one.over <= 0) continue;
      yield {
        severity: 'doubt' as const,
        evidence: [one.case.id],
        why: `${one.case.name} weighs ${kilos(one.kg)} and may weigh ${kilos(one.case.mostKg ?? 0)}: ${kilos(one.over)} too much.`,
        remedies: () => [
          ...moves(
            one,
            cases.filter((c) => c !== one),
          ),
          { id: 'hand', label: 'Leave something at home', promise: 'clears' as const, by: 'hand' as const },
        ],
      };
    }
  },
};
