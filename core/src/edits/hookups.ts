import { dialCardsAbout } from './dial-cards.js';
import { making, type Making, nothing, type Edit } from '../change/edit.js';
import type { Cable, HeardWish, Hookup } from '../rig/hookup.js';
import type { AnyId, Id, Ref } from '../rig/ids.js';
import { all, cablesOf, partOf, thePart, type Part, type Rig } from '../rig/rig.js';
import type { Want } from '../rig/sound.js';
import type { Case, Value } from '../rig/value.js';

export const addHookup = (id: Id<'hookup'>, name: string): Edit => ({
  put: [{ kind: 'hookup', id, name, settings: {}, hears: [], assumes: [] }],
  remove: [],
});

export const changeHookup = (hookup: Hookup, change: Partial<Omit<Hookup, 'id' | 'kind'>>): Making<Hookup> =>
  making({ ...hookup, ...change });

/**
 * The same wiring under another name, to be changed from there, with what sounds and moves want only in it. What was
 * accepted here has to be judged anew there.
 */
export const copyHookup = (
  rig: Rig,
  from: Id<'hookup'>,
  id: Id<'hookup'>,
  name: string,
  cableId: (place: number) => Id<'cable'>,
): Edit => {
  const hookup = partOf(rig, from);
  if (!hookup) return nothing;
  // What was checked was checked there.
  const { lineChecks: _, ...wiring } = hookup;
  const again = <T extends { readonly in?: Case }>(list: readonly T[]): readonly T[] => [
    ...list,
    ...list.filter((x) => x.in?.hookup === from).map((x) => ({ ...x, in: { ...x.in, hookup: id } })),
  ];
  const sounds = all(rig, 'sound')
    .map((s) => ({ ...s, wants: again(s.wants), calls: again(s.calls) }))
    .filter((s) => s.wants.length + s.calls.length > thePart(rig, s.id).wants.length + thePart(rig, s.id).calls.length);
  const moves = all(rig, 'move')
    .map((m) => ({ ...m, on: again(m.on), off: again(m.off) }))
    .filter((m) => m.on.length + m.off.length > thePart(rig, m.id).on.length + thePart(rig, m.id).off.length);
  return {
    put: [
      { ...wiring, id, name },
      ...cablesOf(rig, from).map((c, i): Cable => ({ ...c, id: cableId(i), hookup: id })),
      ...sounds,
      ...moves,
    ],
    remove: [],
  };
};

/**
 * What is heard where, for every sound of a hook-up; said for one pair, whatever was taken for granted is said as
 * well.
 */
export const setHeard = (hookup: Hookup, standing: readonly HeardWish[], heard: HeardWish): Edit => {
  const rest = standing.filter((h) => h.from !== heard.from || h.at !== heard.at);
  return changeHookup(hookup, { hears: [...rest, heard] });
};

/**
 * Says nothing of who is heard where: the instrument is then to be heard in the house, or from the loudspeakers on
 * stage.
 */
export const usualHeard = (hookup: Hookup): Edit => changeHookup(hookup, { hears: [] });

/** What is set once in a hook-up; undefined leaves it as the box wakes. */
export const setSetting = (hookup: Hookup, control: Ref, value: Value | undefined): Edit => {
  const { [control]: _, ...settings } = hookup.settings;
  return changeHookup(hookup, { settings: value === undefined ? settings : { ...settings, [control]: value } });
};

/**
 * Takes for granted that a control stands so: taped, at full, never touched. One that was taken for granted before
 * stands as said now.
 */
export const assume = (hookup: Hookup, control: Ref, value: Value, why: string): Making<Hookup> =>
  changeHookup(hookup, { assumes: [...hookup.assumes.filter((a) => a.control !== control), { control, value, why }] });

export const doNotAssume = (hookup: Hookup, control: Ref): Edit =>
  changeHookup(hookup, { assumes: hookup.assumes.filter((a) => a.control !== control) });

const outside =
  (id: Id<'hookup'>) =>
  (want: Want): boolean =>
    want.in?.hookup !== id;

/**
 * Takes a hook-up away with its cables, what was accepted in it, its standing tests, and what sounds and moves want
 * only there.
 */
export const removeHookup = (rig: Rig, id: Id<'hookup'>): Edit => {
  if (!partOf(rig, id)) return nothing;
  const belongs = (part: { readonly hookup: Id<'hookup'> }) => part.hookup === id;
  const put: Part[] = [
    ...all(rig, 'sound')
      .filter(
        (s) =>
          s.wants.some((w) => !outside(id)(w)) || s.calls.some((c) => c.in?.hookup === id) || s.measured?.some(belongs),
      )
      .map(({ measured, ...s }) => ({
        ...s,
        wants: s.wants.filter(outside(id)),
        calls: s.calls.filter((c) => c.in?.hookup !== id),
        ...(measured ? { measured: measured.filter((m) => !belongs(m)) } : {}),
      })),
    ...all(rig, 'move')
      .filter((m) => [...m.on, ...m.off].some((w) => !outside(id)(w)))
      .map((m) => ({ ...m, on: m.on.filter(outside(id)), off: m.off.filter(outside(id)) })),
  ];
  for (const { hookup, ...engagement } of all(rig, 'engagement')) if (hookup === id) put.push(engagement);
  const remove: AnyId[] = [
    id,
    ...[...all(rig, 'cable'), ...all(rig, 'acceptance'), ...all(rig, 'standingTest')].filter(belongs).map((p) => p.id),
    ...dialCardsAbout(rig, id),
  ];
  return { put, remove };
};

export interface HookupChange {
  /** Cables to pull, then cables to plug, each box after box so that nobody moves about more than needed. */
  readonly pull: readonly Cable[];
  readonly plug: readonly Cable[];
  readonly stays: number;
}

const endsOf = (cable: Cable): string => [...cable.ends].sort().join(' ');

/** What to pull and what to plug to come from one hook-up to another. */
export const compareHookups = (rig: Rig, from: Id<'hookup'>, to: Id<'hookup'>): HookupChange => {
  const [now, then] = [cablesOf(rig, from), cablesOf(rig, to)];
  const [here, there] = [new Set(now.map(endsOf)), new Set(then.map(endsOf))];
  const place = new Map<string, number>(all(rig, 'device').map((d, i) => [d.id, i]));
  const at = (cable: Cable): number =>
    Math.min(...cable.ends.map((end) => place.get(end.slice(0, end.indexOf('.'))) ?? 0));
  const alongTheFloor = (cables: readonly Cable[]): readonly Cable[] => [...cables].sort((a, b) => at(a) - at(b));
  const pull = alongTheFloor(now.filter((c) => !there.has(endsOf(c))));
  return { pull, plug: alongTheFloor(then.filter((c) => !here.has(endsOf(c)))), stays: now.length - pull.length };
};
