import { theFirst } from '../../known/the.js';
import { handMoves, isServedBy, type Compilation } from '../../recall/actuate/compile.js';
import type { HandMove } from '../../recall/intend/compiled.js';
import { controlText, valueText } from '../../recall/words/words.js';
import { makesSound, type Stage } from '../../rig/device.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { all, partOf, soundsInOrder, thePart, type Rig } from '../../rig/rig.js';

/** How long a foot takes from one switch to the next, in seconds (assumed; common practice counts a beat for two). */
export const SECONDS_PER_STOMP = 0.3;

/** From one sound to another by foot: what to hit, in the order in which it is heard least. */
export interface FootChange {
  readonly from: string;
  readonly to: string;
  readonly moves: readonly string[];
}

/** The change that asks most of the foot inside a song, against the beat. */
export interface ChangeInSong extends FootChange {
  readonly song: string;
  /** What the foot needs for it, in seconds. */
  readonly seconds: number;
  /** One beat of the song, in seconds; undefined when nobody said its tempo. */
  readonly beat: number | undefined;
}

/** What a loop switcher of so many loops would save: which boxes it takes in, and the stomps that are left. */
export interface WithSwitcher {
  readonly loops: number;
  readonly boxes: readonly Id<'device'>[];
  readonly stomps: number;
  /** Sounds that come back by themselves then; undefined where it could not be tried. */
  readonly proved?: number;
}

/** What the feet have to do over all songs, cue by cue, on a board that nothing calls. */
export interface OnFoot {
  /** Changes from one sound to another, over all songs in their order. */
  readonly changes: number;
  readonly stomps: number;
  readonly worst: FootChange | undefined;
  readonly worstInSong: ChangeInSong | undefined;
  readonly switchers: readonly WithSwitcher[];
}

const GAIN: readonly Stage[] = ['fuzz', 'overdrive', 'distortion', 'boost'];

/** Off before on, and what makes it loud off first and on last (common practice: a change is heard least that way). */
const rankOf = (rig: Rig, { control, value }: HandMove): number => {
  const device = thePart(rig, splitRef(control).device);
  const isLoud = device.chains.some((c) => c.slots.some((s) => s.is === 'block' && GAIN.includes(s.stage)));
  const isOff = String(value) === 'off';
  return isOff ? (isLoud ? 0 : 1) : isLoud ? 3 : 2;
};

/** @example hitText(rig, move) // 'CMP off', 'AMP channel lead' */
export const hitText = (rig: Rig, { control, value }: HandMove): string =>
  `${controlText(rig, control).replace(' on/off', '')} ${valueText(rig, control, value)}`;

/** Moves in the order in which they are heard least. */
export const inFeetOrder = (rig: Rig, moves: readonly HandMove[]): readonly HandMove[] =>
  [...moves].sort((a, b) => rankOf(rig, a) - rankOf(rig, b));

/** What foot and hand have to do from one sound straight to another, in order. */
export const movesBetween = (c: Compilation, from: Id<'sound'>, to: Id<'sound'>): readonly HandMove[] => {
  const stands = c.sounds.get(from)?.state;
  return inFeetOrder(
    c.bearings.rig,
    handMoves(c, to).filter((move) => !isServedBy(move, stands?.get(move.control))),
  );
};

/** A change of the set: what its moves are about. */
type Change = readonly HandMove[];

/** Every way to choose so many of these. */
const choices = <T>(of: readonly T[], most: number): readonly (readonly T[])[] => {
  if (most === 0 || of.length === 0) return [[]];
  if (of.length <= most) return [of];
  const [first, ...rest] = of;
  return [...choices(rest, most - 1).map((others) => [theFirst([first as T]), ...others]), ...choices(rest, most)];
};

const SWITCHERS = [4, 6, 8];
/** Boxes that are tried for the loops: those that are hit most. */
const MOST_TRIED = 14;

/** Stomps with these boxes in loops: one for all of them together, one for each of the others. */
export const stompsWith = (changes: readonly Change[], inLoops: ReadonlySet<string>): number =>
  changes.reduce((sum, change) => {
    const others = change.filter((m) => !inLoops.has(splitRef(m.control).device)).length;
    return sum + others + (others < change.length ? 1 : 0);
  }, 0);

/** The boxes that are best put into so many loops. Every choice is tried. */
const bestSwitcher = (rig: Rig, changes: readonly Change[], loops: number): WithSwitcher | undefined => {
  const hit = new Map<Id<'device'>, number>();
  for (const move of changes.flat()) {
    const device = thePart(rig, splitRef(move.control).device);
    if (device.zone === 'floor' && makesSound(device)) hit.set(device.id, (hit.get(device.id) ?? 0) + 1);
  }
  const tried = [...hit]
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_TRIED)
    .map(([id]) => id);
  if (tried.length < 2) return undefined;
  const best = choices(tried, loops)
    .map((boxes) => ({ boxes, stomps: stompsWith(changes, new Set(boxes)) }))
    .reduce((a, b) => (b.stomps < a.stomps ? b : a));
  return { loops, boxes: best.boxes, stomps: best.stomps };
};

/** What is hit on a board without a controller; undefined where slots call the sounds, or nothing has to be hit. */
export const onFoot = (c: Compilation): OnFoot | undefined => {
  const { rig } = c.bearings;
  if ([...c.sounds.values()].some((s) => s.stored.length > 0)) return undefined;
  const said = (from: Id<'sound'>, to: Id<'sound'>, moves: Change): FootChange => ({
    from: thePart(rig, from).name,
    to: thePart(rig, to).name,
    moves: moves.map((m) => hitText(rig, m)),
  });
  const sounds = soundsInOrder(rig).map((s) => s.id);
  const pairs = sounds.flatMap((from) =>
    sounds.filter((to) => to !== from).map((to) => ({ from, to, moves: movesBetween(c, from, to) })),
  );
  const worst = pairs.reduce<(typeof pairs)[number] | undefined>(
    (a, b) => (b.moves.length > (a?.moves.length ?? 0) ? b : a),
    undefined,
  );
  if (!worst) return undefined;
  const walked: { song: string; bpm: number | undefined; from: Id<'sound'>; to: Id<'sound'>; isInside: boolean }[] = [];
  let last: Id<'sound'> | undefined;
  for (const song of all(rig, 'song')) {
    let isInside = false;
    for (const { call } of song.cues) {
      if (!('sound' in call) || !partOf(rig, call.sound)) continue;
      if (last !== undefined && last !== call.sound)
        walked.push({ song: song.title, bpm: song.bpm, from: last, to: call.sound, isInside });
      last = call.sound;
      isInside = true;
    }
  }
  const changes = walked.map((w) => ({ ...w, moves: movesBetween(c, w.from, w.to) }));
  const inside = changes.filter((w) => w.isInside && w.moves.length > 0);
  const hardest = inside.reduce<(typeof inside)[number] | undefined>(
    (a, b) =>
      !a || b.moves.length > a.moves.length || (b.moves.length === a.moves.length && (b.bpm ?? 0) > (a.bpm ?? 0))
        ? b
        : a,
    undefined,
  );
  return {
    changes: changes.length,
    stomps: changes.reduce((n, w) => n + w.moves.length, 0),
    worst: said(worst.from, worst.to, worst.moves),
    worstInSong: hardest && {
      ...said(hardest.from, hardest.to, hardest.moves),
      song: hardest.song,
      seconds: hardest.moves.length * SECONDS_PER_STOMP,
      beat: hardest.bpm === undefined ? undefined : 60 / hardest.bpm,
    },
    switchers: changes.length
      ? SWITCHERS.flatMap(
          (loops) =>
            bestSwitcher(
              rig,
              changes.map((w) => w.moves),
              loops,
            ) ?? [],
        )
      : [],
  };
};
