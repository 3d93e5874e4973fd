import type { DialCard, DialCase, Stands } from '../rig/dial-card.js';
import type { Id } from '../rig/ids.js';
import { keptIn } from '../kept/kept.js';
import { all, type Rig } from '../rig/rig.js';
import { samePosition } from './knob-words.js';

/** The box of a card; undefined stands for whichever instrument is in hand. */
export type Dialled = Id<'device'> | undefined;

/** What is asked about: the hook-up, and as far as it is known the sound, the song and the instrument in hand. */
export type Situation = DialCase;

const CASES = ['hookup', 'song', 'instrument', 'sound'] as const;

/** A sound with those that it is derived from, the nearest first: what a forebear's card says holds for it too. */
const lineOf = (rig: Rig, sound: Id<'sound'> | undefined): readonly Id<'sound'>[] => {
  const line = new Set<Id<'sound'>>();
  for (let at = sound; at !== undefined && !line.has(at); at = rig.parts.sound.get(at)?.parent) line.add(at);
  return [...line];
};

const fits = (card: DialCard, now: Situation, line: readonly Id<'sound'>[]): boolean =>
  CASES.every((key) =>
    key === 'sound'
      ? card.in?.sound === undefined || line.includes(card.in.sound)
      : card.in?.[key] === undefined || card.in[key] === now[key],
  );
const narrowness = ({ in: where = {} }: DialCard): number => CASES.filter((key) => where[key] !== undefined).length;

/** The days on which a card was written, the oldest first. */
export const daysOf = (card: DialCard): readonly string[] => Object.keys(card.readings).sort();

/**
 * What a card says.
 * @param day what it said on that day; the latest when it is left out
 */
export const standsOn = (card: DialCard, day?: string): Stands => {
  const last = daysOf(card).findLast((d) => day === undefined || d <= day);
  return (last === undefined ? undefined : card.readings[last]) ?? {};
};

/** Where one knob stands, and which card says so. */
export interface Standing {
  readonly device: Dialled;
  readonly knob: string;
  readonly at: string;
  readonly card: DialCard;
}

const key = (device: Dialled, knob: string): string => `${device ?? ''} ${knob.toLowerCase()}`;

/** Where every knob stands in a situation, as far as a card says it: what is said for less counts before what is said for more. */
export const standingIn = (rig: Rig, now: Situation, day?: string): ReadonlyMap<string, Standing> => {
  const found = new Map<string, Standing>();
  const line = lineOf(rig, now.sound);
  const cards = all(rig, 'dialCard').filter((card) => fits(card, now, line));
  /** Of cards as narrow as each other that of the nearest forebear comes last, and counts. */
  const away = ({ in: where }: DialCard): number => (where?.sound ? line.indexOf(where.sound) : 0);
  for (const card of [...cards].sort((a, b) => narrowness(a) - narrowness(b) || away(b) - away(a)))
    for (const [knob, at] of Object.entries(standsOn(card, day)))
      found.set(key(card.device, knob), { device: card.device, knob, at, card });
  return found;
};

/**
 * Knobs that stand otherwise after than before, of boxes that are heard then; what nobody says afterwards is left as it
 * was.
 */
export const turnedBetween = (
  before: ReadonlyMap<string, Standing>,
  after: ReadonlyMap<string, Standing>,
  isHeard: (device: Id<'device'>) => boolean,
): readonly Standing[] =>
  [...after].flatMap(([knob, standing]) => {
    const { device, at } = standing;
    return (device === undefined || isHeard(device)) && !samePosition(before.get(knob)?.at, at) ? [standing] : [];
  });

/** A knob that a hand turns for a sound, because another sound has it elsewhere. */
export interface DialMove {
  readonly device: Dialled;
  readonly knob: string;
  readonly at: string;
}

/** Knobs that a sound turns and of which another says nothing: there they stay as they were left. */
export interface DialLeft {
  readonly device: Dialled;
  readonly knob: string;
  /** Where somebody turns it. */
  readonly turned: readonly { readonly sound: Id<'sound'>; readonly at: string }[];
  /** Where nobody said how it stands. */
  readonly open: readonly Id<'sound'>[];
}

/** A knob that some sound turns, and where it is taken to stand in all others: whoever turns it turns it back. */
export interface DialHome {
  readonly device: Dialled;
  readonly knob: string;
  readonly at: string;
  readonly turned: readonly Id<'sound'>[];
}

export interface DialsOf {
  readonly moves: ReadonlyMap<Id<'sound'>, readonly DialMove[]>;
  readonly homes: readonly DialHome[];
  readonly left: readonly DialLeft[];
}

export const NO_DIALS: DialsOf = { moves: new Map(), homes: [], left: [] };

/** Where a knob stands in the sounds that it is heard in. */
interface Heard {
  readonly device: Dialled;
  readonly knob: string;
  /** What sounds say themselves; the others have what holds for all. */
  readonly own: Map<Id<'sound'>, string>;
}

/**
 * What a hand has to turn for each sound of a hook-up: what the sound says itself, unless the knob stands so anyhow. In
 * all other sounds it is taken to stand at home, as its card says for all; where no card says it, it stays as it was
 * left.
 * @param isHeard whether the box is heard in a sound: of others it does not matter where their knobs stand
 */
export const dialsOf = (
  rig: Rig,
  hookup: Id<'hookup'>,
  isHeard: (sound: Id<'sound'>, device: Id<'device'>) => boolean,
): DialsOf => {
  if (rig.parts.dialCard.size === 0) return NO_DIALS;
  const sounds = [...rig.parts.sound.keys()];
  const knobs = new Map<string, Heard>();
  for (const sound of sounds)
    for (const [name, { device, knob, at, card }] of standingIn(rig, { hookup, sound })) {
      if (device !== undefined && !isHeard(sound, device)) continue;
      const heard = keptIn(knobs, name, (): Heard => ({ device, knob, own: new Map() }));
      if (card.in?.sound) heard.own.set(sound, at);
    }
  const moves = new Map<Id<'sound'>, DialMove[]>(sounds.map((s) => [s, []]));
  const homes: DialHome[] = [];
  const left: DialLeft[] = [];
  const forAll = standingIn(rig, { hookup });
  for (const [name, { device, knob, own }] of knobs) {
    const at = forAll.get(name)?.at;
    const others = sounds.filter((s) => !own.has(s) && (device === undefined || isHeard(s, device)));
    const open = at === undefined ? others : [];
    const [first] = own.values();
    const isAlike = at === undefined && open.length === 0 && [...own.values()].every((o) => samePosition(o, first));
    const turned = [...own].filter(([, o]) => !samePosition(o, at) && !isAlike);
    for (const [sound, o] of turned) moves.get(sound)?.push({ device, knob, at: o });
    if (at !== undefined && turned.length) homes.push({ device, knob, at, turned: turned.map(([sound]) => sound) });
    if (open.length && own.size)
      left.push({ device, knob, turned: [...own].map(([sound, o]) => ({ sound, at: o })), open });
  }
  return { moves, homes, left };
};

/** What differs between two days, knob by knob. */
export interface DialDifference {
  readonly card: DialCard;
  readonly knob: string;
  /** Undefined where nothing was said. */
  readonly then: string | undefined;
  readonly now: string | undefined;
}

/** Every day on which somebody wrote a card, the latest first. */
export const dialDays = (rig: Rig): readonly string[] =>
  [...new Set(all(rig, 'dialCard').flatMap(daysOf))].sort().reverse();

/** What stood elsewhere on one day than on another, card by card. */
export const dialsCompared = (rig: Rig, then: string, now: string): readonly DialDifference[] =>
  all(rig, 'dialCard').flatMap((card) => {
    const [before, after] = [standsOn(card, then), standsOn(card, now)];
    const knobs = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return knobs
      .filter((knob) => !samePosition(before[knob], after[knob]))
      .map((knob) => ({ card, knob, then: before[knob], now: after[knob] }));
  });
