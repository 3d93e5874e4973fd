import { barQuarters } from '@yunta/core/units/metre';
import type { Drill } from '@yunta/core/derive/views/drill';

/** A song slower or faster than it is: its times and its tempo. @param speed 1 as it is */
export const atSpeed = (drill: Drill, speed: number): Drill => ({
  ...drill,
  bpm: drill.bpm * speed,
  cues: drill.cues.map((c) => ({ ...c, seconds: c.seconds / speed })),
});

/** The part of a song from a cue on: that cue stands already when it begins. */
export const fromCue = (drill: Drill, first: number): Drill => {
  const from = drill.cues[first]?.seconds ?? 0;
  const slot = drill.cues[first]?.steps.find((s) => s.key.startsWith('slot '));
  const at = slot ? drill.shown.indexOf(slot.text) : -1;
  return {
    ...drill,
    cues: drill.cues.slice(first).map((c) => ({ ...c, seconds: c.seconds - from })),
    ...(drill.bank && at >= 0 ? { bank: { ...drill.bank, first: Math.floor(at / drill.bank.size) } } : {}),
  };
};

/** One bar that is counted before a song begins, in seconds. */
export const countIn = ({ metre, bpm }: Drill): number => (barQuarters(metre) * 60) / bpm;

/** How long a drill goes on behind its last cue, so that a late stomp still counts. */
const BEHIND_SECONDS = 3;
export const endOf = (drill: Drill): number => (drill.cues.at(-1)?.seconds ?? 0) + BEHIND_SECONDS;

/** Clicks of a drill from its count-in to its end, in seconds from the start of the song; the first of a bar is heard higher. */
export const clicksOf = (drill: Drill): readonly { readonly at: number; readonly isFirst: boolean }[] => {
  const { beats, unit } = drill.metre;
  const beat = (60 / drill.bpm) * (4 / unit);
  const n = Math.ceil((countIn(drill) + endOf(drill)) / beat);
  return Array.from({ length: n }, (_, i) => ({ at: i * beat - countIn(drill), isFirst: i % beats === 0 }));
};
