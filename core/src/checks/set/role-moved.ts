import { callersIn, type Caller } from '../../edits/calls.js';
import { memoryIn } from '../../rig/box.js';
import { ROLES, type Role, type Sound } from '../../rig/sound.js';
import { callFits } from '../../recall/intend/wants.js';
import { partOf, soundsInOrder } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';

/** A sound by the bank and switch from which it is called. */
interface Placed {
  readonly sound: Sound;
  readonly bank: number;
  readonly at: number;
}

const placedIn = ({ rig, hookup }: CheckInputs, { device, memory }: Caller, size: number): readonly Placed[] =>
  soundsInOrder(rig).flatMap((sound) =>
    sound.calls
      .filter((c) => c.device === device && c.memory === memory && callFits(rig, c, hookup.id))
      .map((c) => ({ sound, bank: Math.floor(c.slot / size), at: c.slot % size })),
  );

/** The switch on which a role is in most banks; undefined when no switch has it in more than half of its banks. */
const usualSwitch = (placed: readonly Placed[]): number | undefined => {
  const banks = new Map<number, Set<number>>();
  for (const { at, bank } of placed) banks.set(at, (banks.get(at) ?? new Set()).add(bank));
  const all = new Set(placed.map((p) => p.bank)).size;
  return [...banks].find(([, those]) => those.size > 1 && those.size > all / 2)?.[0];
};

/** Sounds of a role in banks that do not have the role on its usual switch. */
const strayIn = (placed: readonly Placed[], usual: number): readonly Placed[] => {
  const right = new Set(placed.filter((p) => p.at === usual).map((p) => p.bank));
  return placed.filter((p) => !right.has(p.bank));
};

const spoken = (role: Role): string => (role === 'lead' ? 'The lead' : `The ${role} sound`);

export const roleMoved: Check = {
  code: 'set.role-moved',
  title: 'A role sits on another switch than in the other banks',
  severities: ['note'],
  source: 'common practice: clean, crunch, lead on the same switch in every bank, so that the foot finds them unseen',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const caller of callersIn(rig)) {
      const memory = memoryIn(partOf(rig, caller.device), caller.memory);
      const size = memory?.bank && memory.shows.bank?.size;
      if (caller.by !== 'slot' || !size) continue;
      const placed = placedIn(inputs, caller, size);
      for (const role of ROLES) {
        if (role === 'other') continue;
        const mine = placed.filter((p) => p.sound.role === role);
        const usual = usualSwitch(mine);
        const stray = usual === undefined ? [] : strayIn(mine, usual);
        if (usual === undefined || stray.length === 0) continue;
        yield {
          severity: 'note' as const,
          evidence: [caller.device, ...stray.map((p) => p.sound.id)],
          about: role,
          why: `${spoken(role)} is on ${memory.switches?.[usual] ?? `switch ${usual + 1}`} of ${boxName(rig, caller.device)} in most banks, but ${soundNames(
            rig,
            stray.map((p) => p.sound.id),
          )} ${stray.length === 1 ? 'is' : 'are'} elsewhere.`,
          remedies: () => [
            {
              id: 'swap',
              label: 'Change places within the bank: room Program, who calls what',
              promise: 'eases' as const,
              by: 'hand' as const,
            },
          ],
        };
      }
    }
  },
};
