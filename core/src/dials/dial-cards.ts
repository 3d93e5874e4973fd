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

const fits = (card: DialCard, now: Situation): boolean =>
  CASES.every((key) => card.in?.[key] === undefined || card.in[key] === now[key]);
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
  const cards = all(rig, 'dialCard').filter((card) => fits(card, now));
  for (const card of [...cards].sort((a, b) => narrowness(a) - narrowness(b)))
    for (const [knob, at] of Object.entries(standsOn(card, day)))
      found.set(key(card.device, knob), { device: card.device, knob, at, card });
  return found;
};

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

export interface DialsOf {
  readonly moves: ReadonlyMap<Id<'sound'>, readonly DialMove[]>;
  readonly left: readonly DialLeft[];
}

export const NO_DIALS: DialsOf = { moves: new Map(), left: [] };

/**
 * What a hand has to turn for each sound of a hook-up, and what stays as it was left because nobody said it. A knob that all sounds say alike is set once and asks for nothing.
 * @param isHere whether a box is plugged in
 */
export const dialsOf = (rig: Rig, hookup: Id<'hookup'>, isHere: (device: Id<'device'>) => boolean): DialsOf => {
  const sounds = [...rig.parts.sound.keys()];
  const moves = new Map<Id<'sound'>, DialMove[]>(sounds.map((s) => [s, []]));
  const left: DialLeft[] = [];
  if (rig.parts.dialCard.size === 0) return { moves, left };
  const said = new Map<string, Map<Id<'sound'>, Standing>>();
  for (const sound of sounds)
    for (const [knob, standing] of standingIn(rig, { hookup, sound }))
      if (standing.device === undefined || isHere(standing.device))
        keptIn(said, knob, () => new Map<Id<'sound'>, Standing>()).set(sound, standing);
  for (const bySound of said.values()) {
    const [first, ...others] = bySound.values();
    if (!first) continue;
    const { device, knob } = first;
    const open = sounds.filter((s) => !bySound.has(s));
    const differs = others.some((s) => !samePosition(s.at, first.at));
    for (const [sound, { at, card }] of bySound)
      if (differs || (open.length > 0 && card.in?.sound)) moves.get(sound)?.push({ device, knob, at });
    if (open.length === 0) continue;
    left.push({ device, knob, turned: [...bySound].map(([sound, { at }]) => ({ sound, at })), open });
  }
  return { moves, left };
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
