import { apply } from '../../change/apply.js';
import type { Edit } from '../../change/edit.js';
import { shown } from '../../midi/numbering.js';
import type { Solver } from '../../plan/solver.js';
import { planPrograms, type PlanFor, type ProgramPlan } from '../../plan/programs.js';
import { handMoves, type Compilation } from '../../recall/actuate/compile.js';
import { controlText, valueText } from '../../recall/words/words.js';
import { theMemory } from '../../rig/box.js';
import { ref, type Id } from '../../rig/ids.js';
import { partOf, thePart } from '../../rig/rig.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';

export interface PlannedProgramView {
  /** As the box shows it. */
  readonly shown: string;
  readonly name: string;
  readonly holds: string;
  readonly sounds: readonly string[];
  readonly is: 'there' | 'changed' | 'new';
}

/** A plan of programs in words, with what it would bring. */
export interface ProgramPlanView {
  readonly boxes: readonly {
    readonly device: Id<'device'>;
    readonly name: string;
    readonly programs: readonly PlannedProgramView[];
  }[];
  readonly left: readonly string[];
  readonly edit: Edit;
  /** How it stands now and how it would stand with the plan. */
  readonly now: PlanFigures;
  readonly then: PlanFigures;
}

export interface PlanFigures {
  readonly proved: number;
  readonly sounds: number;
  /** Controls that only a toggle reaches, counted sound by sound. */
  readonly toggles: number;
  readonly byHand: number;
  readonly messages: number;
}

const figures = (d: Derived): PlanFigures => {
  const { sounds } = d.compilation;
  const sum = (count: (c: NonNullable<ReturnType<Compilation['sounds']['get']>>) => number) =>
    [...sounds.values()].reduce((n, c) => n + count(c), 0);
  return {
    proved: [...d.answers.values()].filter((v) => v.is === 'proved').length,
    sounds: sounds.size,
    toggles: sum((c) => c.toggled.length),
    byHand: sum((c) => handMoves(d.compilation, c.sound).length),
    messages: sum((c) => c.stored.reduce((n, s) => n + s.program.acts.filter((a) => 'send' in a).length, 0)),
  };
};

export const programPlan = (d: Derived, planFor: PlanFor, solver?: Solver): ProgramPlanView => {
  const plan = planPrograms(d.compilation, planFor, solver);
  const name = (id: Id<'sound'>) => partOf(d.rig, id)?.name ?? id;
  const applied = plan.edit.put.length ? apply(d.rig, plan.edit) : undefined;
  const later = applied?.ok ? deriveOnce(applied.value.rig, d.hookup.id) : undefined;
  return {
    boxes: plan.boxes.map(({ device, memory: id, programs }) => {
      const box = thePart(d.rig, device);
      const memory = theMemory(box, id);
      return {
        device,
        name: box.name,
        programs: programs.map((p) => ({
          shown: shown(memory.shows, p.number),
          name: p.name,
          is: p.is,
          sounds: p.sounds.map(name),
          holds: Object.entries(p.contents)
            .map(
              ([control, value]) =>
                `${controlText(d.rig, ref(device, control)).slice(box.code.length + 1)} ${valueText(d.rig, ref(device, control), value)}`,
            )
            .join(', '),
        })),
      };
    }),
    left: plan.left.map((l) => leftText(d, l)),
    edit: plan.edit,
    now: figures(d),
    then: figures(later ?? d),
  };
};

const leftText = (d: Derived, { device, sounds, why, isProved }: ProgramPlan['left'][number]): string => {
  const box = thePart(d.rig, device).name;
  const names = sounds.map((s) => `“${partOf(d.rig, s)?.name ?? s}”`).join(' and ');
  if (why === 'full')
    return `${box} has no number left for ${names}${isProved ? ': what your songs call least often; no other use of its free numbers leaves out less' : ''}.`;
  if (why === 'disagree')
    return `${names} call one number of ${box} and want it differently. Give one of them another number.`;
  return `${box} shares its MIDI channel with another box, which would load as well. Give it a channel of its own first; ${names} ${sounds.length === 1 ? 'is' : 'are'} left as ${sounds.length === 1 ? 'it is' : 'they are'}.`;
};
