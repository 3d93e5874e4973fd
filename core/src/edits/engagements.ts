import { making, type Edit, type Making } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import type { Engagement, GigLimits, KeptBanks, SetList, Song } from '../rig/show.js';

export const addEngagement = (id: Id<'engagement'>, name: string): Making<Engagement> =>
  making({ kind: 'engagement', id, name });

/** Another name for it. */
export const renameEngagement = (one: Engagement, name: string): Making<Engagement> => making({ ...one, name });

/** How the rig is wired for it; undefined says nothing of it. */
export const wireBy = (one: Engagement, hookup: Id<'hookup'> | undefined): Making<Engagement> => {
  const { hookup: _, ...rest } = one;
  return making(hookup ? { ...rest, hookup } : rest);
};

/** What its gigs ask of the rig; nothing said is no limit. */
export const limitBy = (one: Engagement, limits: GigLimits): Making<Engagement> => {
  const { limits: _, ...rest } = one;
  return making(Object.keys(limits).length ? { ...rest, limits } : rest);
};

/** Keeps banks of a controller for its sounds; undefined gives them back. */
export const keepBanks = (
  one: Engagement,
  { device, memory }: Pick<KeptBanks, 'device' | 'memory'>,
  banks: Pick<KeptBanks, 'from' | 'to'> | undefined,
): Making<Engagement> => {
  const others = (one.banks ?? []).filter((b) => b.device !== device || b.memory !== memory);
  const { banks: _, ...rest } = one;
  const kept = banks ? [...others, { device, memory, ...banks }] : others;
  return making(kept.length ? { ...rest, banks: kept } : rest);
};

/** What a set is played for; undefined says nothing of it. */
export const playFor = (list: SetList, engagement: Id<'engagement'> | undefined): Making<SetList> => {
  const { engagement: _, ...rest } = list;
  return making(engagement ? { ...rest, engagement } : rest);
};

/** Takes an act away; its sets and songs stay. */
export const removeEngagement = (rig: Rig, id: Id<'engagement'>): Edit => ({
  put: listsOf(rig, id).map((list) => playFor(list, undefined).put[0]),
  remove: [id],
});

export const listsOf = (rig: Rig, engagement: Id<'engagement'>): readonly SetList[] =>
  all(rig, 'setList').filter((list) => list.engagement === engagement);

/** The songs of an act: those of its sets, each once, in the order in which they come. */
export const songsOfEngagement = (rig: Rig, engagement: Id<'engagement'>): readonly Song[] =>
  [...new Set(listsOf(rig, engagement).flatMap((list) => list.songs))].flatMap((id) => partOf(rig, id) ?? []);

/** Sounds that an act needs: those of its songs and what its sets have in reserve. */
export const soundsOfEngagement = (rig: Rig, engagement: Id<'engagement'>): ReadonlySet<Id<'sound'>> =>
  new Set([
    ...songsOfEngagement(rig, engagement).flatMap((song) =>
      song.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : [])),
    ),
    ...listsOf(rig, engagement).flatMap((list) => list.reserve ?? []),
  ]);
