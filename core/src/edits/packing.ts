import { making, type Edit, type Making } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { LONGEST } from '../rig/limits.js';
import type { PackCase, Packed, PackedBy, Packing } from '../rig/packing.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { all, type Rig } from '../rig/rig.js';

export const addCase = (id: Id<'packCase'>, name: string): Making<PackCase> =>
  making({ kind: 'packCase', id, name, holds: {} });

/** What is undefined is taken away. */
export const changeCase = (
  one: PackCase,
  change: { readonly [K in keyof Omit<PackCase, 'kind' | 'id'>]?: PackCase[K] | undefined },
): Making<PackCase> =>
  making(
    Object.fromEntries(Object.entries({ ...one, ...change }).filter(([, v]) => v !== undefined)) as unknown as PackCase,
  );

export const removeCase = (id: Id<'packCase'>): Edit => ({ put: [], remove: [id] });

/** Puts a thing into a case, or says something else of it; undefined takes it out. */
export const pack = (one: PackCase, name: string, thing: Packed | undefined): Making<PackCase> => {
  const { [name]: _, ...others } = one.holds;
  return making({ ...one, holds: thing ? { ...one.holds, [name]: thing } : others });
};

/** Moves a thing from one case to another. */
export const repack = (from: PackCase, to: PackCase, name: string): Edit => {
  const thing = from.holds[name];
  if (!thing || from.id === to.id) return { put: [], remove: [] };
  const { in: _, ...rest } = thing;
  return { put: [pack(from, name, undefined).put[0], pack(to, name, rest).put[0]], remove: [] };
};

/** The case in which something of that name is, whatever its letters' size. */
export const caseOf = (rig: Rig, name: string): PackCase | undefined => {
  const wanted = name.trim().toLowerCase();
  return all(rig, 'packCase').find((c) => Object.keys(c.holds).some((n) => n.toLowerCase() === wanted));
};

/** How many, unless the number belongs to a unit ("9 V batteries"); what; what one of them weighs. */
const LINE = /^(?:(-?\d+)(?:\s*[x×]\s*|\s+(?!\p{L}{1,2}\s)))?(.+?)(?:,?\s*(-?\d+(?:[.,]\d+)?)\s*(kg|g))?$/iu;
const MOST = 9999;

/** One line of a packing list. @example readThing('3 picks, 2 g') // { name: 'picks', thing: { many: 3, kg: 0.002 } } */
export const readThing = (
  rig: Rig,
  text: string,
): Result<{ readonly name: string; readonly thing: Packed }, readonly Refusal[]> => {
  const no = (wrong: string, would: string): Result<never, readonly Refusal[]> =>
    refuse([{ code: 'packing', where: 'Packing list', wrong, would }]);
  const [, count, name = '', weight, unit] = LINE.exec(text.trim()) ?? [];
  if (name === '') return no('There is nothing to pack in it.', 'Write a thing, such as 3 picks.');
  if (name.length > LONGEST.name) return no('That is too long.', `A thing has at most ${LONGEST.name} characters.`);
  const many = Number(count ?? 1);
  if (!(many >= 1 && many <= MOST)) return no(`${count} of a thing cannot be packed.`, `Write from 1 to ${MOST}.`);
  const kg =
    weight === undefined ? undefined : Number(weight.replace(',', '.')) / (unit?.toLowerCase() === 'g' ? 1000 : 1);
  if (kg !== undefined && !(kg >= 0)) return no(`${weight} ${unit} is no weight.`, 'Write 0 or more.');
  const there = caseOf(rig, name);
  if (there)
    return no(
      `${name} is packed in ${there.name} already.`,
      'Change how many there are, or give this one a name of its own.',
    );
  return ok({ name, thing: { ...(many > 1 ? { many } : {}), ...(kg === undefined ? {} : { kg }) } });
};

/** What was packed for a day. */
export const packingOn = (rig: Rig, on: string): Packing | undefined => all(rig, 'packing').find((p) => p.on === on);

/** Ticks a thing off as gone out to a day, or as come back; undefined opens it again. */
export const tickThing = (
  rig: Rig,
  on: string,
  way: 'out' | 'back',
  name: string,
  how: PackedBy | undefined,
): Making<Packing> => {
  const before: Packing = packingOn(rig, on) ?? { kind: 'packing', id: `packing:${on}`, on, out: {}, back: {} };
  const { [name]: _, ...others } = before[way];
  return making({ ...before, [way]: how ? { ...before[way], [name]: how } : others });
};
