import { someOf } from '../known/some-of.js';
import type { Id } from '../rig/ids.js';
import { partOf, type Rig } from '../rig/rig.js';

export { boxText as boxName, endText as endName } from '../recall/words/part-words.js';

const MOST_NAMED = 3;
const EVERY = 'every sound';

/** @example listed(['a', 'b', 'c', 'd']) // 'a, b, c and 1 more' */
export const listed = (names: readonly string[]): string => {
  if (names.length <= 1) return names[0] ?? '';
  if (names.length <= MOST_NAMED) return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
  return someOf(names, MOST_NAMED);
};

export const soundNames = (rig: Rig, ids: readonly Id<'sound'>[]): string =>
  ids.length > MOST_NAMED && new Set(ids).size === rig.parts.sound.size
    ? EVERY
    : listed(ids.map((id) => `“${partOf(rig, id)?.name ?? id}”`));

/** The same with what they do. @example soundsDo(rig, ids, 'needs', 'need') // 'every sound needs' */
export const soundsDo = (rig: Rig, ids: readonly Id<'sound'>[], one: string, many: string): string => {
  const names = soundNames(rig, ids);
  return `${names} ${ids.length === 1 || names === EVERY ? one : many}`;
};
