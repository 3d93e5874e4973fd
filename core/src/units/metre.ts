import { minutesText, readMinutes } from './minutes.js';

/** How many of which note make a bar. Tempi count quarters, whatever the metre. */
export interface Metre {
  readonly beats: number;
  readonly unit: 2 | 4 | 8 | 16;
}

/** A place in a song as musicians count it: bars and beats from 1; a beat may be a fraction. */
export interface BarBeat {
  readonly bar: number;
  readonly beat: number;
}

/** Where something is in a song: seconds from its start, or a bar and a beat. */
export type Place = number | BarBeat;

export const COMMON_TIME: Metre = { beats: 4, unit: 4 };
export const MOST_BEATS = 32;
export const MOST_BARS = 9999;

/** @example metreText({ beats: 6, unit: 8 }) // '6/8' */
export const metreText = ({ beats, unit }: Metre): string => `${beats}/${unit}`;

/** @returns undefined for what is no metre @example readMetre('6/8') // { beats: 6, unit: 8 } */
export const readMetre = (text: string): Metre | undefined => {
  const found = /^(\d{1,2})\s*\/\s*(2|4|8|16)$/.exec(text.trim());
  const [beats, unit] = [Number(found?.[1]), Number(found?.[2])];
  return beats >= 1 && beats <= MOST_BEATS ? { beats, unit: unit as Metre['unit'] } : undefined;
};

/** How many quarters a bar lasts. @example barQuarters({ beats: 6, unit: 8 }) // 3 */
export const barQuarters = ({ beats, unit }: Metre): number => (4 * beats) / unit;

/** Quarters from the start of the song to a bar and beat. */
export const quartersAt = ({ bar, beat }: BarBeat, metre: Metre): number =>
  (bar - 1) * barQuarters(metre) + ((beat - 1) * 4) / metre.unit;

/** The bar and beat so many quarters behind the start, to a thousandth of a beat. */
export const barBeatAt = (quarters: number, metre: Metre): BarBeat => {
  const beats = Math.round((quarters * metre.unit * 1000) / 4) / 1000;
  const bar = Math.floor(beats / metre.beats);
  return { bar: bar + 1, beat: Number((beats - bar * metre.beats + 1).toFixed(3)) };
};

const MINUTE = 60;

/** Quarters from the start of a song to a place; undefined for seconds in a song of no tempo. */
export const placeQuarters = (place: Place, bpm: number | undefined, metre: Metre): number | undefined => {
  if (typeof place !== 'number') return quartersAt(place, metre);
  return bpm === undefined ? undefined : (place * bpm) / MINUTE;
};

/** Seconds from the start of a song to a place; undefined for a bar in a song of no tempo. */
export const placeSeconds = (place: Place, bpm: number | undefined, metre: Metre): number | undefined => {
  if (typeof place === 'number') return place;
  return bpm === undefined ? undefined : (quartersAt(place, metre) * MINUTE) / bpm;
};

/** @example placeText({ bar: 12, beat: 1 }) // '12'; placeText({ bar: 12, beat: 3 }) // '12.3'; placeText(64) // '1:04' */
export const placeText = (place: Place): string => {
  if (typeof place !== 'number') return place.beat === 1 ? `${place.bar}` : `${place.bar}.${place.beat}`;
  const whole = Math.floor(place);
  const rest = Number((place - whole).toFixed(3));
  return rest >= 1 ? minutesText(whole + 1) : `${minutesText(whole)}${rest ? String(rest).slice(1) : ''}`;
};

/**
 * A place as people type it: a bar, a bar and a beat, or minutes and seconds.
 * @returns undefined for what is none of these, and for a beat that the bar does not have
 * @example readPlace('12.3', COMMON_TIME) // { bar: 12, beat: 3 }
 */
export const readPlace = (text: string, metre: Metre): Place | undefined => {
  const typed = text.trim().replace(/^bar\s*/i, '');
  const time = /^((?:\d+:)?\d{1,3}:\d{2})(\.\d{1,3})?$/.exec(typed);
  const minutes = time?.[1] === undefined ? undefined : readMinutes(time[1]);
  if (minutes !== undefined) return minutes + Number(time?.[2] ?? 0);
  const found = /^(\d{1,4})(?:[.:](\d{1,2}(?:\.\d{1,3})?))?$/.exec(typed);
  if (!found) return undefined;
  const [bar, beat] = [Number(found[1]), Number(found[2] ?? 1)];
  return bar >= 1 && beat >= 1 && beat < metre.beats + 1 ? { bar, beat } : undefined;
};
