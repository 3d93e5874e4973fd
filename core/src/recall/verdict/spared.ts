import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { thePart } from '../../rig/rig.js';
import { handMoves, type Compilation } from '../actuate/compile.js';
import type { HandMove } from '../intend/compiled.js';
import { wantOf, type Modelled } from '../model/model.js';
import { prove, USUAL_BUDGET, type ProofMemory } from '../../prover/prove.js';
import type { RecallSystem } from '../../prover/system.js';

/**
 * The same without the hand moves that nobody has to make: an amount that serves over a range, and that stays in it
 * whatever was done before the sound is called.
 * @example a mix that only a pedal from 20 to 80 % moves, where the delay is wanted in: nobody has to set it first
 */
export const sparing = (c: Compilation, m: Modelled, memory?: ProofMemory): Compilation => {
  const moves = [...c.sounds.keys()].flatMap((sound) =>
    handMoves(c, sound).flatMap((move) => (move.within && !choosesProgram(c, move) ? [{ sound, move }] : [])),
  );
  if (moves.length === 0 || m.isEndless || m.tooMany.length > 0) return c;
  const verdicts = prove(asked(moves, m), USUAL_BUDGET, memory);
  const spared = new Map<Id<'sound'>, Set<Ref>>();
  for (const { sound, move } of moves) {
    if (verdicts.get(`${sound} ${move.control}`)?.is !== 'proved') continue;
    spared.set(sound, (spared.get(sound) ?? new Set()).add(move.control));
  }
  return spared.size ? { ...c, spared } : c;
};

/** The recall is reckoned with such a choice already made (`chosenByHand`): it cannot be what spares it. */
const choosesProgram = ({ bearings: { rig } }: Compilation, { control }: HandMove): boolean => {
  const { device, name } = splitRef(control);
  return thePart(rig, device).memories.some((m) => m.control === name);
};

/**
 * Asks of each of these moves whether the recall of its sound leaves the amount where it serves, with nobody's hand on
 * it.
 */
const asked = (
  moves: readonly { readonly sound: Id<'sound'>; readonly move: HandMove }[],
  { ground, said: { domains } }: Modelled,
): RecallSystem => ({
  ...ground,
  sounds: moves.flatMap(({ sound, move }) => {
    const want = wantOf(domains, move);
    return want ? [{ id: `${sound} ${move.control}`, recall: `recall:${sound}`, wants: [want] }] : [];
  }),
});
