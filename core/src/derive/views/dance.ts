import type { Id } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { SetList, Song } from '../../rig/show.js';
import { barQuarters, COMMON_TIME, placeQuarters } from '../../units/metre.js';
import type { Derived } from '../steps/deriver.js';
import { footworkOf, type FootStep, type Footwork } from './footwork.js';
import { SECONDS_PER_STOMP } from './on-foot.js';

/** So many bars count as one busy stretch. */
export const BUSY_BARS = 4;

/** Something that two feet cannot do, or hardly, and what would ease it. */
export interface DanceTrouble {
  readonly cue: string;
  readonly why: string;
  readonly eases: string;
}

/** Two cues between which there is least time for what the feet have to do. */
export interface Tightest {
  readonly from: string;
  readonly to: string;
  readonly seconds: number;
  /** What the feet need for the second, in seconds. */
  readonly needs: number;
}

/** What the feet do in one song. */
export interface DanceSong {
  readonly song: Id<'song'>;
  readonly title: string;
  /** Everything that a foot hits behind the first cue. */
  readonly stomps: number;
  /** Among them: bank keys, switches of plain boxes and loopers, switches that are held. */
  readonly bankKeys: number;
  readonly plain: number;
  readonly holds: number;
  readonly tightest?: Tightest;
  /** The four bars with most to hit; from which bar on. */
  readonly busiest?: { readonly bar: number; readonly stomps: number };
  readonly troubles: readonly DanceTrouble[];
  /** Cues of which nobody said when they come. */
  readonly placeless: number;
  /** Cues with more than one stomp in a song without a tempo: nobody knows whether a beat is enough. */
  readonly unjudged: number;
}

export interface Dance {
  readonly songs: readonly DanceSong[];
  readonly stomps: number;
}

const stompsOf = (work: Footwork): readonly FootStep[] => work.feet.filter((f) => f.held !== 'up');
/** How long the feet need for a cue. Source: see `SECONDS_PER_STOMP`. */
const needs = (work: Footwork): number => stompsOf(work).length * SECONDS_PER_STOMP;

const tightestOf = (work: readonly Footwork[]): Tightest | undefined => {
  let found: Tightest | undefined;
  let before: { readonly name: string; readonly at: number } | undefined;
  for (const one of work) {
    if (one.seconds === undefined) {
      before = undefined;
      continue;
    }
    const hits = stompsOf(one).length;
    if (before && hits && one.seconds >= before.at) {
      const seconds = one.seconds - before.at;
      const slack = seconds - needs(one);
      if (!found || slack < found.seconds - found.needs)
        found = { from: before.name, to: one.cue.name, seconds, needs: needs(one) };
    }
    if (hits || !before) before = { name: one.cue.name, at: one.seconds };
  }
  return found;
};

/** The bars in which a cue with stomps stands first, with all that follows within four bars of it; before the first cue there is time. */
const busiestOf = (song: Song, work: readonly Footwork[]): DanceSong['busiest'] => {
  const { bpm, metre = COMMON_TIME } = song;
  const bar = barQuarters(metre);
  const placed = work.flatMap((w) => {
    const quarters = w.cue.at === undefined ? undefined : placeQuarters(w.cue.at, bpm, metre);
    return quarters === undefined ? [] : [{ quarters, stomps: stompsOf(w).length }];
  });
  let best: DanceSong['busiest'];
  for (const { quarters } of placed) {
    const within = placed.filter((p) => p.quarters >= quarters && p.quarters < quarters + BUSY_BARS * bar);
    const stomps = within.reduce((n, p) => n + p.stomps, 0);
    if (stomps > (best?.stomps ?? 0)) best = { bar: Math.floor(quarters / bar) + 1, stomps };
  }
  return best;
};

const PEDAL = /\b(?:ride|heel|toe|swell|wah|pedal|volume)\b/i;
const isRidden = (work: Footwork): boolean =>
  work.words.some((text) => PEDAL.test(text) && !/\b(?:set|leave|left|to \d)/i.test(text));
const listed = (steps: readonly FootStep[]): string => steps.map((s) => s.text).join(', ');
const round = (seconds: number): string => `${Number(seconds.toFixed(1))} s`;

const easeOf = (steps: readonly FootStep[]): string => {
  if (steps.some((s) => s.is === 'bank')) return 'Have the slots planned: room Set, Slots.';
  const boxes = steps.filter((s) => s.is === 'box');
  return boxes.length > 1
    ? `One switch for all: put ${boxes.map((b) => b.text.split(' ')[0]).join(', ')} into loops of a switcher, or on one move.`
    : 'Put what belongs together on one slot or one move.';
};

/** What two feet cannot do at a cue, while one may be holding a switch or riding a pedal. */
const troubleAt = (song: Song, work: Footwork, holding: readonly FootStep[]): DanceTrouble | undefined => {
  const steps = stompsOf(work);
  const beat = song.bpm === undefined ? undefined : 60 / song.bpm;
  const taken = holding.length + (isRidden(work) ? 1 : 0);
  const busy = [
    ...holding.map((h) => `a foot holds ${h.text}`),
    ...(isRidden(work) ? [`a foot is on the pedal (“${work.words.join(', ')}”)`] : []),
  ].join(' and ');
  if (taken > 0 && steps.length > 0 && taken + 1 > 2)
    return {
      cue: work.cue.name,
      why: `${busy}, and ${listed(steps)} wants a third.`,
      eases: 'Let the move stay on until it is pressed again, or set the pedal and leave it.',
    };
  if (taken > 0 && steps.length > 1)
    return { cue: work.cue.name, why: `${busy}; the other has to hit ${listed(steps)}.`, eases: easeOf(steps) };
  if (steps.length > 1 && beat !== undefined && needs(work) > beat)
    return {
      cue: work.cue.name,
      why: `${listed(steps)} takes about ${round(needs(work))}, and a beat is ${round(beat)}.`,
      eases: easeOf(steps),
    };
  return undefined;
};

/** A cue that comes before the feet are done with what it wants, after the cue with stomps before it. */
const tooNear = (work: readonly Footwork[], i: number): DanceTrouble | undefined => {
  const one = work[i];
  const before = work.slice(0, i).findLast((w) => stompsOf(w).length > 0);
  if (!one || before?.seconds === undefined || one.seconds === undefined || stompsOf(one).length === 0)
    return undefined;
  const seconds = one.seconds - before.seconds;
  if (seconds >= needs(one)) return undefined;
  if (seconds < 0)
    return {
      cue: one.cue.name,
      why: `it comes before ${before.cue.name}, which stands above it in the song.`,
      eases: 'Put the cues in the order in which they come.',
    };
  return {
    cue: one.cue.name,
    why: `${listed(stompsOf(one))} takes about ${round(needs(one))}, and it comes ${round(seconds)} after ${before.cue.name}.`,
    eases: 'Put both on one switch, or let one of them come earlier.',
  };
};

const troublesOf = (song: Song, work: readonly Footwork[]): readonly DanceTrouble[] => {
  let holding: readonly FootStep[] = [];
  return work.flatMap((one, i) => {
    const trouble = i === 0 ? undefined : (troubleAt(song, one, holding) ?? tooNear(work, i));
    const up = one.feet.filter((f) => f.held === 'up').map((f) => f.text);
    holding = [...holding.filter((h) => !up.includes(h.text)), ...one.feet.filter((f) => f.held === 'down')];
    return trouble ? [trouble] : [];
  });
};

/** What the feet do in one song; before its first cue there is time. */
export const danceOf = (d: Derived, song: Song): DanceSong => {
  const work = footworkOf(d, song);
  const steps = work.slice(1).flatMap(stompsOf);
  const count = (is: (s: FootStep) => boolean): number => steps.filter(is).length;
  const tightest = tightestOf(work);
  const busiest = busiestOf(song, work.slice(1));
  return {
    song: song.id,
    title: song.title,
    stomps: steps.length,
    bankKeys: count((s) => s.is === 'bank'),
    plain: count((s) => s.is === 'box' || s.is === 'track'),
    holds: count((s) => s.held === 'down'),
    ...(tightest ? { tightest } : {}),
    ...(busiest ? { busiest } : {}),
    troubles: troublesOf(song, work),
    placeless: work.filter((w) => w.seconds === undefined).length,
    unjudged: song.bpm === undefined ? work.slice(1).filter((w) => stompsOf(w).length > 1).length : 0,
  };
};

/** What the feet do in a night. @param list all songs when it is left out */
export const danceOfSet = (d: Derived, list: SetList | undefined): Dance => {
  const songs = list ? list.songs.flatMap((id) => partOf(d.rig, id) ?? []) : all(d.rig, 'song');
  const danced = songs.map((song) => danceOf(d, song));
  return { songs: danced, stomps: danced.reduce((n, s) => n + s.stomps, 0) };
};
