import { splitRef, theRef } from '../../rig/ids.js';
import { USUAL_DISTURBANCES } from '../../rig/hookup.js';
import { all, partOf } from '../../rig/rig.js';
import { mannerOf, type Move } from '../../rig/sound.js';
import { controlText, footstepsText } from '../../recall/words/words.js';
import type { RecallTrouble } from '../../recall/what-if/question.js';
import { whatIf } from '../../recall/what-if/what-if.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { listed, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { byBox, inShort } from './broken-wants.js';
import { cures } from './cures.js';
import { theEntry, theFirst } from '../../known/the.js';

export const moveLeftOn: Check = {
  code: 'recall.move-left-on',
  title: 'A move left on spoils the next sound',
  severities: ['broken'],
  source:
    'the proof: the shortest counterexample goes over a move that was left on, or is let go after the next sound was called',
  *find(inputs: CheckInputs) {
    const { rig, modelled } = inputs;
    for (const group of byBox(inputs, true)) {
      const sounds = [...new Set(group.map((b) => b.sound))];
      const switches = new Set(
        group.flatMap((b) =>
          b.want.example().events.flatMap((e) => {
            const step = theEntry(modelled.steps, e);
            return step.does === 'press' || step.does === 'release' || step.does === 'stomp'
              ? [`${step.device} ${step.switch}`]
              : [];
          }),
        ),
      );
      const moves = [...rig.parts.move.values()].filter((m) =>
        m.at.some((a) => switches.has(`${a.device} ${a.switch}`)),
      );
      yield {
        severity: 'broken' as const,
        evidence: [splitRef(theFirst(group).control).device, ...moves.map((m) => m.id), ...sounds],
        about: group.map((b) => `${b.sound}:${b.control}:${b.want.length}`).join(),
        why: `Leaving a sound with ${listed(moves.map((m) => m.name)) || 'a move'} on leaves ${listed([...new Set(group.map((b) => controlText(rig, b.control)))])} wrong in ${soundNames(rig, sounds)}: ${inShort(inputs, group)}.`,
        remedies: () => cures(inputs, group),
      };
    }
    const { steps, troubles } = letGoLate(inputs);
    for (const group of grouped(
      troubles,
      (t) => `${t.move} ${splitRef(theRef(theFirst(t.wants).variable)).device}`,
    ).values()) {
      const [first] = group;
      const move = first.move && partOf(rig, first.move);
      const sounds = [...new Set(group.map((t) => t.sound))];
      const control = theRef(theFirst(first.wants).variable);
      const way = footstepsText(rig, { steps }, theFirst(first.wants).example());
      yield {
        severity: 'broken' as const,
        evidence: [splitRef(control).device, ...(move ? [move.id] : []), ...sounds],
        about: `late ${group.map((t) => `${t.sound}:${t.wants.map((w) => w.variable).join()}`).join()}`,
        why: `Letting go of ${move?.name ?? 'a held switch'} after the next sound was called leaves ${listed([...new Set(group.flatMap((t) => t.wants.map((w) => controlText(rig, theRef(w.variable)))))])} wrong in ${soundNames(rig, sounds)}: ${way}.`,
        remedies: () => (move ? giveBack(move) : []),
      };
    }
  },
};

const known = new WeakMap<
  CheckInputs['modelled'],
  { readonly steps: CheckInputs['modelled']['steps']; readonly troubles: readonly RecallTrouble[] }
>();

/**
 * Sounds that a late release spoils. A switch that gives back what the sound wants spoils none; asked only where one
 * says otherwise, and moves are reckoned with.
 */
const letGoLate = ({ rig, hookup, compilation, modelled, verdicts }: CheckInputs) => {
  let found = known.get(modelled);
  if (!found) {
    const saysOtherwise =
      (hookup.admits ?? USUAL_DISTURBANCES).moves &&
      (all(rig, 'move').some((m) => mannerOf(m) === 'while held' && m.off.length > 0) ||
        all(rig, 'program').some((p) => p.assigns.some((a) => !a.latch)));
    const reply = saysOtherwise ? whatIf('late release', compilation, modelled, verdicts) : undefined;
    known.set(modelled, (found = { steps: reply?.question.steps ?? modelled.steps, troubles: reply?.troubles ?? [] }));
  }
  return found;
};

const giveBack = (move: Move): readonly Remedy[] =>
  move.off.length === 0
    ? []
    : [
        {
          id: 'give-back',
          label: `Letting go of ${move.name} gives back what each sound wants`,
          note: 'its off list is left to Yunta, sound by sound',
          promise: 'clears',
          by: 'program',
          edit: { put: [{ ...move, off: [] }], remove: [] },
        },
      ];
