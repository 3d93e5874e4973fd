import type { Id } from '../../rig/ids.js';
import { SLOT, type Drill, type DrillStep } from './drill.js';

/** One switch that the player hit: when, from the start of the song at the speed of the song. */
export interface DrillHit {
  readonly key: string;
  readonly seconds: number;
}

/** Within so many ms of its time a stomp is on time (assumed; common practice hears a switch later than that). */
export const ON_TIME_MS = 150;
/** A stomp that comes earlier than this is not meant for the cue; one that comes late is, until the next cue. */
const EARLIEST_SECONDS = 1.5;
const LATEST_SECONDS = 8;

export type StepMark = { readonly is: 'on time' | 'early' | 'late'; readonly ms: number } | { readonly is: 'missed' };

export interface ScoredStep extends DrillStep {
  readonly mark: StepMark;
}

export interface ScoredCue {
  readonly name: string;
  readonly steps: readonly ScoredStep[];
  /** How long something else sounded than the cue wants, and what it was. */
  readonly wrong: readonly { readonly sound: string; readonly seconds: number }[];
}

export interface DrillScore {
  readonly cues: readonly ScoredCue[];
  /** Switches that nothing wanted there, with what each would have brought. */
  readonly wrong: readonly { readonly seconds: number; readonly text: string; readonly sound?: string }[];
  readonly onTime: number;
  readonly wanted: number;
}

/** What each hit brings, as bank keys and slots follow one another. */
interface Brought extends DrillHit {
  readonly text: string;
  readonly sound?: string;
}

const broughtBy = (drill: Drill, hits: readonly DrillHit[]): readonly Brought[] => {
  let bank = drill.bank?.first ?? 0;
  const { size, banks } = drill.bank ?? { size: drill.shown.length, banks: 1 };
  return [...hits]
    .sort((a, b) => a.seconds - b.seconds)
    .map((hit): Brought => {
      if (hit.key === 'bank up' || hit.key === 'bank down') {
        bank = (bank + (hit.key === 'bank up' ? 1 : banks - 1)) % Math.max(1, banks);
        return { ...hit, text: hit.key };
      }
      if (!hit.key.startsWith(SLOT)) return { ...hit, text: hit.key };
      const text = drill.shown[bank * size + Number(hit.key.slice(SLOT.length))] ?? hit.key;
      const sound = drill.slots[text];
      return { ...hit, text, ...(sound === undefined ? {} : { sound }) };
    });
};

const serves = (step: DrillStep, hit: Brought): boolean =>
  step.key === hit.key && (!step.key.startsWith(SLOT) || hit.text === step.text);

const markOf = (ms: number): StepMark =>
  Math.abs(ms) <= ON_TIME_MS ? { is: 'on time', ms } : { is: ms < 0 ? 'early' : 'late', ms };

/** What sounds between two moments that should not: each sound with how long. */
const wronglySounding = (
  drill: Drill,
  hits: readonly Brought[],
  [from, to]: readonly [number, number],
  wanted: string,
): ScoredCue['wrong'] => {
  const changes = hits.filter((h) => h.sound !== undefined);
  const at = (seconds: number): string | undefined =>
    changes.findLast((h) => h.seconds <= seconds)?.sound ?? drill.cues[0]?.sound;
  const edges = [from, ...changes.map((h) => h.seconds).filter((s) => s > from && s < to), to];
  const wrong = new Map<string, number>();
  edges.slice(1).forEach((until, i) => {
    const since = edges[i] ?? from;
    const sound = at(since);
    if (sound !== undefined && sound !== wanted) wrong.set(sound, (wrong.get(sound) ?? 0) + until - since);
  });
  return [...wrong]
    .filter(([, seconds]) => seconds * 1000 > ON_TIME_MS)
    .map(([sound, seconds]) => ({ sound, seconds }));
};

/**
 * How a drill was danced. The first cue stands already when it begins. Each switch that is wanted takes the nearest hit
 * that brings it; a hit that nothing wants is wrong.
 * @param until when the drill ended, in seconds from the start of the song
 */
export const scoreDrill = (drill: Drill, hits: readonly DrillHit[], until: number): DrillScore => {
  const brought = broughtBy(drill, hits);
  const used = new Set<Brought>();
  const played = drill.cues.filter((c, i) => i > 0 && c.seconds <= until);
  const sounding = drill.cues.filter((c) => c.sound !== undefined);
  const cues = played.map((cue, i): ScoredCue => {
    const latest = Math.min(
      LATEST_SECONDS,
      Math.max(EARLIEST_SECONDS, (played[i + 1]?.seconds ?? until) - cue.seconds),
    );
    const isMeant = ({ seconds }: Brought): boolean =>
      seconds - cue.seconds >= -EARLIEST_SECONDS && seconds - cue.seconds <= latest;
    const steps = cue.steps.map((step): ScoredStep => {
      const near = brought
        .filter((h) => !used.has(h) && serves(step, h) && isMeant(h))
        .sort((a, b) => Math.abs(a.seconds - cue.seconds) - Math.abs(b.seconds - cue.seconds))[0];
      if (!near) return { ...step, mark: { is: 'missed' } };
      used.add(near);
      return { ...step, mark: markOf(Math.round((near.seconds - cue.seconds) * 1000)) };
    });
    const next = sounding.find((c) => c.seconds > cue.seconds)?.seconds ?? until;
    const wrong = cue.sound ? wronglySounding(drill, brought, [cue.seconds, Math.min(next, until)], cue.sound) : [];
    return { name: cue.name, steps, wrong };
  });
  const marks = cues.flatMap((c) => c.steps);
  return {
    cues,
    wrong: brought
      .filter((h) => !used.has(h) && h.seconds <= until)
      .map(({ seconds, text, sound }) => ({ seconds, text, ...(sound === undefined ? {} : { sound }) })),
    onTime: marks.filter((s) => s.mark.is === 'on time').length,
    wanted: marks.length,
  };
};

/** How often a song was danced well in a row, and when it was last. */
export interface Practised {
  readonly song: Id<'song'>;
  /** Rounds in a row with everything on time. */
  readonly level: number;
  /** ISO 8601. */
  readonly last: string;
}

/** Days until a song is due again, by how often it went well (common practice of spaced repetition). */
export const DAYS_UNTIL_DUE = [0, 1, 3, 7, 14, 30] as const;
const DAY_MS = 24 * 60 * 60 * 1000;

/** After a round: one level up when all was on time and nothing wrong was hit, back to the first otherwise. */
export const practisedAfter = (
  before: Practised | undefined,
  song: Id<'song'>,
  score: DrillScore,
  now: Date,
): Practised => {
  const isClean = score.wrong.length === 0 && score.onTime === score.wanted;
  const level = isClean ? Math.min(DAYS_UNTIL_DUE.length - 1, (before?.level ?? 0) + 1) : 0;
  return { song, level, last: now.toISOString() };
};

/** Songs in the order in which they should be practised: those longest overdue first, new ones before what is not due. */
export const dueFirst = <T extends { readonly song: Id<'song'> }>(
  songs: readonly T[],
  practised: readonly Practised[],
  now: Date,
): readonly (T & { readonly dueInDays: number })[] => {
  const known = new Map(practised.map((p) => [p.song, p]));
  const dueIn = (id: Id<'song'>): number => {
    const p = known.get(id);
    if (!p) return 0;
    return (DAYS_UNTIL_DUE[p.level] ?? 0) - (now.getTime() - Date.parse(p.last)) / DAY_MS;
  };
  return songs.map((s) => ({ ...s, dueInDays: dueIn(s.song) })).sort((a, b) => a.dueInDays - b.dueInDays);
};
