import { z } from 'zod';
import { ok, refuse, type Result } from '../../rig/result.js';
import { readJson } from '../../rig/read-json.js';
import { usedSounds, type SlotsProblem } from './problem.js';

export interface SlotsCase {
  readonly id: string;
  readonly problem: SlotsProblem;
}

const count = z.number().int().min(0);
const shape = z.object({
  id: z.string(),
  banks: z.number().int().min(1).max(1000),
  switches: z.number().int().min(1).max(1000),
  wrap: z.boolean(),
  bankKeys: z.enum(['both', 'up']),
  sounds: count.max(10_000),
  copies: z.number().int().min(1).max(2),
  songs: z.array(z.array(count)),
  pinned: z.array(z.tuple([count, count, count])).optional(),
});

/** What is wrong with a case that has the right form. */
const wrongIn = (problem: SlotsProblem): string | undefined => {
  const { banks, switches, sounds, copies, wrap, bankKeys, pinned = [] } = problem;
  const strange = usedSounds(problem).find((s) => s >= sounds);
  if (strange !== undefined) return `A song calls sound ${strange}; the last is ${sounds - 1}.`;
  const taken = new Set<string>();
  for (const [sound, bank, key] of pinned) {
    if (sound >= sounds || bank >= banks || key >= switches)
      return `There is no place for what is pinned as ${[sound, bank, key].join(', ')}.`;
    if (taken.has(`${bank} ${key}`)) return `Two sounds are pinned to switch ${key} of bank ${bank}.`;
    taken.add(`${bank} ${key}`);
    if (pinned.filter(([s]) => s === sound).length > copies)
      return `Sound ${sound} is pinned more often than it may stand.`;
  }
  return bankKeys === 'up' && !wrap ? 'With a key up alone and no way round, no bank comes back.' : undefined;
};

/** Cases of placing sounds, as a file holds them: docs/formats.md. */
export const readSlotsCases = (text: string): Result<readonly SlotsCase[]> => {
  const read = readJson('slots', z.object({ cases: z.array(shape).min(1) }), text);
  if (!read.ok) return read;
  const cases: SlotsCase[] = [];
  for (const { id, pinned, ...rest } of read.value.cases) {
    const problem: SlotsProblem = { ...rest, ...(pinned ? { pinned } : {}) };
    const wrong = wrongIn(problem);
    if (wrong) return refuse({ code: 'slots', where: id, wrong, would: 'Mend that case in the file.' });
    cases.push({ id, problem });
  }
  return ok(cases);
};
