import { withMaybe } from '../known/maybe.js';
import equal from 'fast-deep-equal';
import { dialCardsAbout } from './dial-cards.js';
import { making, type Making, nothing, together, type Edit } from '../change/edit.js';
import { surely } from '../known/the.js';
import { setReserve } from './set-list.js';
import { makesSound, type Device, type Memory, type Stage } from '../rig/device.js';
import { wiredBoxes } from '../rig/box.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { cutTo, LONGEST } from '../rig/limits.js';
import { all, partOf, soundsInOrder, type Rig } from '../rig/rig.js';
import { wantTarget, type Call, type MeasuredLevel, type Role, type Sound, type Want } from '../rig/sound.js';

/**
 * The first slot that no sound calls, on the first controller that has stored slots.
 * @param among the boxes that may call
 * @param by by what they may call: slots, songs or cues
 */
export const freeCall = (
  rig: Rig,
  among: readonly Device[] = all(rig, 'device'),
  by: readonly Memory['by'][] = ['slot'],
): Call | undefined => {
  for (const device of among) {
    const memory = device.memories.find((m) => m.by !== undefined && by.includes(m.by) && m.inside === undefined);
    if (!memory) continue;
    const taken = new Set(
      all(rig, 'sound')
        .flatMap((s) => s.calls)
        .filter((c) => c.device === device.id && c.memory === memory.id)
        .map((c) => c.slot),
    );
    for (let slot = 0; slot < memory.size; slot += 1)
      if (!taken.has(slot)) return { device: device.id, memory: memory.id, slot };
  }
  return undefined;
};

/**
 * What calls a sound that nothing was said of: the next free slot of a controller; where there is none, the next place
 * of a song list or a timeline that is plugged in; and where nothing commands, a preset of the box that makes the sound.
 */
export const usualCall = (rig: Rig, boxes: readonly Device[] = all(rig, 'device')): Call | undefined => {
  const plugged = wiredBoxes(rig);
  return (
    freeCall(
      rig,
      boxes.filter((d) => !makesSound(d)),
    ) ??
    freeCall(
      rig,
      boxes.filter((d) => plugged.has(d.id)),
      ['song', 'cue'],
    ) ??
    freeCall(rig, boxes.filter(makesSound))
  );
};

/**
 * A new sound at the end of the sheet, stored in the next free slot. With a parent it takes over all that it does not
 * say itself.
 */
export const addSound = (
  rig: Rig,
  id: Id<'sound'>,
  name: string,
  role: Role = 'other',
  parent?: Id<'sound'>,
): Making<Sound> => {
  const call = usualCall(rig);
  return making({
    kind: 'sound',
    id,
    name,
    role,
    at: Math.max(0, ...all(rig, 'sound').map((s) => s.at)) + 1,
    wants: parent ? [] : firstChannels(rig),
    calls: call ? [call] : [],
    ...(parent ? { parent } : {}),
  });
};

/** Stages of which a box has several, and one always sounds. */
const ONE_OF: readonly Stage[] = ['preamp', 'channel', 'cabinet simulation'];

/** Channels of which one always sounds, the stages of each box that is wired together. */
const channelsOf = (rig: Rig): readonly (readonly Ref[])[] => {
  const wired = wiredBoxes(rig);
  return all(rig, 'device')
    .filter((d) => wired.has(d.id))
    .flatMap((device) =>
      device.chains.flatMap((chain) =>
        chain.slots.flatMap((slot): readonly (readonly Ref[])[] => {
          const arms =
            slot.is === 'fork' && slot.arms.length > 1 && slot.arms.every((arm) => arm.when) ? slot.arms : [];
          const blocks = arms.map((arm) =>
            arm.slots.find((s) => s.is === 'block' && ONE_OF.includes(s.stage) && !s.on),
          );
          return blocks[0] ? [blocks.flatMap((block) => (block ? [ref(device.id, block.id)] : []))] : [];
        }),
      ),
    );
};

/** Of channels of which one always sounds a sound has the first until it says another. */
const firstChannels = (rig: Rig): readonly Want[] =>
  channelsOf(rig).map(([first]): Want => ({ stage: surely(first), is: 'in' }));

/**
 * Sounds that were made before their boxes were wired stand as if they had been made behind it: with the first of
 * channels that they say nothing of, and in a slot.
 */
export const caughtUp = (rig: Rig): Edit => {
  const channels = channelsOf(rig);
  const put = soundsInOrder(rig).flatMap((sound): readonly Sound[] => {
    if (sound.parent) return [];
    const said = new Set(sound.wants.map(wantTarget));
    const unsaid = channels.filter((stages) => !stages.some((stage) => said.has(stage)));
    const more = unsaid.map(([first]): Want => ({ stage: surely(first), is: 'in' }));
    return more.length ? [{ ...sound, wants: [...sound.wants, ...more] }] : [];
  });
  const channelled = put.reduce((map, sound) => map.set(sound.id, sound), new Map(rig.parts.sound));
  // Where some are called, the others are called by nothing on purpose.
  if (all(rig, 'sound').some((s) => s.calls.length > 0)) return { put, remove: [] };
  return together({ put, remove: [] }, giveSlots({ ...rig, parts: { ...rig.parts, sound: channelled } }));
};

/** Sounds made while the rig had no controller get a slot as soon as there is one. */
export const giveSlots = (rig: Rig): Edit => {
  const put: Sound[] = [];
  let sofar = rig;
  for (const sound of soundsInOrder(rig)) {
    if (sound.calls.length) continue;
    const call = usualCall(sofar);
    if (!call) break;
    const placed = { ...sound, calls: [call] };
    put.push(placed);
    sofar = { ...sofar, parts: { ...sofar.parts, sound: new Map(sofar.parts.sound).set(sound.id, placed) } };
  }
  return { put, remove: [] };
};

const sameCase = (a: Want, b: Want): boolean => wantTarget(a) === wantTarget(b) && equal(a.in ?? {}, b.in ?? {});

export const setWant = (sound: Sound, want: Want): Making<Sound> => {
  const place = sound.wants.findIndex((w) => sameCase(w, want));
  const wants = place < 0 ? [...sound.wants, want] : sound.wants.with(place, want);
  return making({ ...sound, wants });
};

/** Where a wish holds: in every hook-up that does not say otherwise, or in one only. */
export interface Scope {
  readonly hookup: Id<'hookup'>;
  readonly only: boolean;
  /** What is not named: out, or, in the list of a move, left as it is. */
  readonly unsaid?: 'out' | 'as it is';
}

const isAbout =
  (target: Ref, { hookup, only }: Scope) =>
  (w: Want): boolean =>
    wantTarget(w) === target &&
    !w.in?.instrument &&
    !w.in?.song &&
    (only ? w.in?.hookup === hookup : w.in?.hookup === undefined || w.in.hookup === hookup);

/**
 * Says nothing about it any more: a derived sound follows its parent again, any other leaves the stage out. Without a
 * scope, nowhere.
 */
export const clearWant = (sound: Sound, target: Ref, scope?: Scope): Making<Sound> => {
  const gone = scope ? isAbout(target, scope) : (w: Want) => wantTarget(w) === target;
  return making({ ...sound, wants: sound.wants.filter((w) => !gone(w)) });
};

/**
 * A wish with its scope. One for every hook-up takes the place of one for this hook-up only, so that it holds here
 * too; others keep their own.
 */
export const setWantIn = (sound: Sound, want: Want, scope: Scope): Making<Sound> => {
  const why = want.why ?? sound.wants.find(isAbout(wantTarget(want), scope))?.why;
  const [cleared] = clearWant(sound, wantTarget(want), scope).put;
  return setWant(cleared, withMaybe(scope.only ? { ...want, in: { hookup: scope.hookup } } : want, 'why', why));
};

/**
 * Why a sound wants it so, beside what it says of it; nothing takes the reason back. A stage of which the sound says
 * nothing is said as it is.
 */
export const setReason = (
  sound: Sound,
  about: readonly Ref[],
  why: string | undefined,
  scope: Scope,
  unsaid?: Want,
): Making<Sound> => {
  const isMeant = (want: Want): boolean => about.some((target) => isAbout(target, scope)(want));
  if (!sound.wants.some(isMeant)) return why && unsaid ? setWantIn(sound, { ...unsaid, why }, scope) : making(sound);
  return making({ ...sound, wants: sound.wants.map((w) => (isMeant(w) ? withMaybe(w, 'why', why) : w)) });
};

/** Why its stages come in the order that it says. */
export const setOrderReason = (sound: Sound, why: string | undefined): Making<Sound> =>
  making(withMaybe(sound, 'orderWhy', why));

export const changeSound = (sound: Sound, change: Partial<Omit<Sound, 'id' | 'kind'>>): Making<Sound> =>
  making({ ...sound, ...change });

/** One of the things that a sound may leave open; undefined leaves it open again. */
const say = <K extends 'leaving' | 'order' | 'hears' | 'level'>(sound: Sound, what: K, value: Sound[K]): Edit => {
  const { [what]: _, ...rest } = sound;
  return { put: [(value === undefined ? rest : { ...rest, [what]: value }) as Sound], remove: [] };
};

/** What becomes of its repeats when another sound is called; undefined leaves it to the boxes. */
export const setLeaving = (sound: Sound, leaving: Sound['leaving']): Edit => say(sound, 'leaving', leaving);

/** What a display shows that is too narrow for its name; undefined shows as much of the name as there is room for. */
export const setDisplay = (sound: Sound, display: string | undefined): Making<Sound> =>
  making(withMaybe(sound, 'display', display));

/** In which order its stages are to be met; undefined leaves it to the wiring. */
export const setOrder = (sound: Sound, order: Sound['order']): Edit => say(sound, 'order', order);

/** Which source is to be heard where; undefined leaves it to the hook-up. */
export const setHears = (sound: Sound, hears: Sound['hears']): Edit => say(sound, 'hears', hears);

/** What was measured of it in a hook-up; nothing takes it back. */
export const setMeasured = (
  sound: Sound,
  hookup: Id<'hookup'>,
  level: Omit<MeasuredLevel, 'hookup'> | undefined,
): Making<Sound> => {
  const rest = sound.measured?.filter((m) => m.hookup !== hookup) ?? [];
  const measured = level ? [...rest, { hookup, ...level }] : rest;
  return making(withMaybe(sound, 'measured', measured.length > 0 ? measured : undefined));
};

/** How much louder than another sound it is to be; undefined wishes nothing. */
export const setLevel = (sound: Sound, level: Sound['level']): Edit => say(sound, 'level', level);

/** Takes a sound away. Sounds derived from it keep what they took over; cues and moves that name it let go of it. */
export const removeSound = (rig: Rig, id: Id<'sound'>): Edit => {
  const gone = partOf(rig, id);
  if (!gone) return nothing;
  const put = [
    ...all(rig, 'sound')
      .filter(
        (s) =>
          s.id !== id && (s.parent === id || s.level?.than === id || s.measured?.some((m) => m.hole?.after === id)),
      )
      .map((s): Sound => {
        const { parent, level, mirror, measured, ...rest } = s;
        const inherited = parent === id ? gone.wants.filter((w) => !s.wants.some((own) => sameCase(own, w))) : [];
        const up = parent === id ? gone.parent : parent;
        return {
          ...rest,
          wants: [...inherited, ...s.wants],
          ...(up ? { parent: up } : {}),
          ...(mirror && parent !== id ? { mirror } : {}),
          ...(level && level.than !== id ? { level } : {}),
          ...(measured
            ? { measured: measured.map((m) => (m.hole?.after === id ? withMaybe(m, 'hole', undefined) : m)) }
            : {}),
        };
      }),
    ...all(rig, 'move').flatMap((m) =>
      m.sounds !== 'all' && m.sounds.includes(id) ? [{ ...m, sounds: m.sounds.filter((s) => s !== id) }] : [],
    ),
    ...all(rig, 'song').flatMap((song) =>
      song.cues.some((c) => 'sound' in c.call && c.call.sound === id)
        ? [{ ...song, cues: song.cues.filter((c) => !('sound' in c.call && c.call.sound === id)) }]
        : [],
    ),
  ];
  const lists = all(rig, 'setList').filter((list) => list.reserve?.includes(id));
  return {
    put: [...put, ...lists.map((list) => setReserve(list, id, false))],
    remove: [id, ...dialCardsAbout(rig, id)],
  };
};

const NUMBER_AT_END = / \d+$/;

/** A name for a sound derived from another that no sound has yet. @example 'Rhythm 2', and then 'Rhythm 3' */
export const derivedName = (rig: Rig, { name }: Sound): string => {
  const taken = new Set(all(rig, 'sound').map((s) => s.name));
  const base = name.replace(NUMBER_AT_END, '');
  for (let n = 2; ; n += 1) {
    const next = `${cutTo(base, LONGEST.name - String(n).length - 1)} ${n}`;
    if (!taken.has(next)) return next;
  }
};
