import { meant } from '../catalogue/kit-line/spelling.js';
import { theFirst } from '../known/the.js';
import { controlText } from '../recall/words/words.js';
import { tracksIn } from '../rig/box.js';
import { ref, splitRef, type Ref } from '../rig/ids.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import type { Cue, LooperAct } from '../rig/show.js';
import { COMMON_TIME, placeText, readPlace, type Metre } from '../units/metre.js';

/** What a cue calls, as it is typed. @example 'Verse clean', '+Lift', 'record LOP track 1', '“breathe”' */
export const callText = (rig: Rig, { call }: Pick<Cue, 'call'>): string => {
  if ('note' in call) return `“${call.note}”`;
  if ('track' in call) return `${call.act} ${controlText(rig, call.track)}`;
  if ('sound' in call) return partOf(rig, call.sound)?.name ?? call.sound;
  return `${call.to === 'on' ? '+' : '−'}${partOf(rig, call.move)?.name ?? call.move}`;
};

/** A cue as it is typed. @example '@12.3 verse: Verse clean, “heel down”' */
export const cueText = (rig: Rig, cue: Cue): string => {
  const target = callText(rig, cue);
  const said = cue.name === target ? target : `${cue.name}: ${target}`;
  return [
    `${cue.at === undefined ? '' : `@${placeText(cue.at)} `}${said}`,
    ...(cue.hands ?? []).map((text) => `“${text}”`),
  ].join(', ');
};

/** Why a stretch says no cue, and what could be meant. */
export interface UnreadCue {
  readonly text: string;
  readonly wrong: string;
  readonly would: string;
}
export type ReadCues = { readonly cues: readonly Cue[] } | { readonly unread: UnreadCue };

/** Stretches between semicolons, new lines, tabs and slashes with room around; a note in quotes stays whole. */
const STRETCH = /(?:“[^”]*”|"[^"]*"|(?!\s\/\s)[^;\n\t])+/g;
/** Commas that stand in no note. */
const COMMA = /,(?=(?:[^“”"]|“[^”]*”|"[^"]*")*$)/;
const WHEN = /^@\s*(?:bar\s*)?([\d:.]+)\s*(?:[:,]\s)?\s*/i;
/** What stands between its quotation marks; undefined for a text that is not one quotation. */
const quoted = (text: string): string | undefined => /^(?:“([^”]*)”|"([^"]*)")$/.exec(text)?.slice(1).find(Boolean);

/**
 * Cues as people write them in a row: "V clean / Ch crunch / Solo lead / @40 Br wide, heel down". A comma parts them
 * too, but where a name has one in it the name counts; words about hands and feet behind a comma belong to the cue
 * before it.
 * @param before cues of the song so far: a looper goes on with its last track
 * @returns the cues, or the first stretch that says none
 */
export const readCues = (rig: Rig, text: string, metre: Metre = COMMON_TIME, before: readonly Cue[] = []): ReadCues => {
  const cues: Cue[] = [];
  for (const [stretch] of text.matchAll(STRETCH)) {
    let parts = stretch.replace(/^\s*\/\s/, '').split(COMMA);
    let isFirst = true;
    while (parts.length) {
      if (theFirst(parts).trim() === '') {
        parts = parts.slice(1);
        continue;
      }
      const found = longestCue({ rig, metre, track: lastTrack([...before, ...cues]) }, parts, isFirst);
      if ('cue' in found) {
        cues.push(found.cue);
        parts = parts.slice(found.length);
        isFirst = false;
        continue;
      }
      const last = cues.at(-1);
      const hands = isFirst || !last ? undefined : handsText(rig, theFirst(parts).trim());
      if (hands === undefined || !last) return { unread: found };
      cues[cues.length - 1] = { ...last, hands: [...(last.hands ?? []), hands] };
      parts = parts.slice(1);
    }
  }
  return { cues };
};

/** What is known where a cue is read. */
interface Where {
  readonly rig: Rig;
  readonly metre: Metre;
  /** The track of a looper that the song last spoke of. */
  readonly track: Ref | undefined;
}

const lastTrack = (cues: readonly Cue[]): Ref | undefined => {
  const last = cues.findLast(({ call }) => 'track' in call);
  return last && 'track' in last.call ? last.call.track : undefined;
};

type Found = { readonly cue: Cue; readonly length: number } | UnreadCue;

/** The cue that as many parts as possible say together. @param isFirst a note in quotes is a cue of its own there only */
const longestCue = (where: Where, parts: readonly string[], isFirst: boolean): Found => {
  const { rig, metre } = where;
  const first = theFirst(parts).trim();
  for (let length = parts.length; length > 0; length -= 1) {
    const said = parts.slice(0, length).join(',').trim();
    const when = WHEN.exec(said);
    const at = when?.[1] === undefined ? undefined : readPlace(when[1].replace(/[.:]$/, ''), metre);
    if (when && at === undefined) return noPlace(first, metre);
    const rest = when ? said.slice(when[0].length).trim() : said;
    if (!isFirst && !when && quoted(rest) !== undefined) continue;
    const cue = rest ? readCue(where, rest, length === 1) : undefined;
    if (cue) return { cue: at === undefined ? cue : { ...cue, at }, length };
  }
  return unknown(rig, first);
};

const noPlace = (text: string, { beats }: Metre): UnreadCue => ({
  text,
  wrong: `"${text}" says no place in the song.`,
  would: `Type @12 for bar 12, @12.3 for its third beat of ${beats}, or @1:04 for minutes and seconds.`,
});

const unknown = (rig: Rig, text: string): UnreadCue => {
  const target = text.slice(text.indexOf(':') + 1).trim();
  const near = fitting(rig, target.split(/\s+/).at(-1) ?? '');
  const [verb = ''] = target.split(/\s+/);
  if (ACTS[verb.toLowerCase()] && tracksOf(rig).length)
    return {
      text,
      wrong: `"${text}" does not say which track.`,
      would: `Type ${tracksOf(rig)
        .slice(0, 4)
        .map((track) => `"${verb} ${controlText(rig, track)}"`)
        .join(' or ')}.`,
    };
  const several = near.length > 1 && near.length <= 4 ? ` It could be ${near.map((s) => s.name).join(' or ')}.` : '';
  return {
    text,
    wrong: `"${text}" names no sound of this rig.${several}`,
    would:
      'Type names of sounds with ; or , between them, such as "verse: Verse clean; Lead". A move is +Lift or −Lift, a looper "record track 1", a note “in quotes”.',
  };
};

/** Words with which people begin to say what hands and feet do (common practice). */
const HANDS =
  /^(?:hold|let|release|lift|heel|toe|volume|vol|tone|pedal|wah|ride|set|leave|roll|pick|fingers?|thumb|neck|bridge|middle|capo|mute|unmute|tap|press|switch|turn|open|close|wait|count|swell|damp|palm|slide|strum|mic|sing|tune|foot|feet|hands?)\b/i;

/** A word of which one nearly is a word of a sound or move: somebody meant that one, and missed a key. */
const isNearAName = (rig: Rig, words: readonly string[]): boolean => {
  const names = [...all(rig, 'sound'), ...all(rig, 'move')].flatMap(({ name }) => name.toLowerCase().split(/\s+/));
  const isNear = (word: string, name: string): boolean => name.startsWith(word) || meant(word, [name]).length > 0;
  return words.some((word) => names.some((name) => name.length > 2 && isNear(word, name)));
};

/**
 * What hands and feet do, without its quotes: words that begin as people begin them, and several words of which none is
 * nearly a name of the rig. Undefined for all else: a name that is not there.
 */
const handsText = (rig: Rig, text: string): string | undefined => {
  const own = quoted(text)?.trim();
  if (own || HANDS.test(text)) return own || text;
  if (/^[+−-]|:/.test(text)) return undefined;
  const words = text
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word.length > 2);
  return words.length > 1 && !isNearAName(rig, words) ? text : undefined;
};

const named = <T extends { readonly name: string }>(parts: readonly T[], name: string): T | undefined =>
  parts.find((p) => p.name === name) ?? parts.find((p) => p.name.toLowerCase() === name.toLowerCase());

/** Sounds of which each of these words begins a word of the name. @example 'V clean' fits 'Verse clean' */
const fitting = (rig: Rig, text: string) => {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  return all(rig, 'sound').filter((s) => {
    const own = s.name.toLowerCase().split(/\s+/);
    return words.every((word) => own.some((o) => o.startsWith(word)));
  });
};
const theFitting = (rig: Rig, text: string) => {
  const [sound, ...others] = fitting(rig, text);
  return others.length ? undefined : sound;
};

/** "verse: Verse clean", "Verse clean", "V clean", "lift: +Lift", "“breathe”". @param mayEndSo its last words may name the sound */
const readCue = ({ rig, track }: Where, text: string, mayEndSo: boolean): Cue | undefined => {
  const sounds = all(rig, 'sound');
  const whole = named(sounds, text);
  if (whole) return { name: whole.name, call: { sound: whole.id } };
  const colon = text.indexOf(':');
  const name = colon < 0 ? undefined : text.slice(0, colon).trim();
  const target = text.slice(colon + 1).trim();
  const sound = named(sounds, target);
  if (sound) return { name: name || sound.name, call: { sound: sound.id } };
  const call = moveCall(rig, target) ?? trackCall(rig, target, track);
  if (call) return { name: name || callText(rig, { call }), call };
  const note = quoted(target);
  if (note) return { name: name || 'note', call: { note } };
  if (!mayEndSo) return undefined;
  const last = colon < 0 ? endingIn(rig, text) : undefined;
  if (last) return last;
  const fits = theFitting(rig, target);
  return fits && { name: name || fits.name, call: { sound: fits.id } };
};

/** "V clean", "chorus Wide": the last words name the sound, or fit one alone when they do so together with the first. */
const endingIn = (rig: Rig, text: string): Cue | undefined => {
  const words = text.split(/\s+/);
  for (let i = 1; i < words.length; i += 1) {
    const last = named(all(rig, 'sound'), words.slice(i).join(' '));
    if (last) return { name: words.slice(0, i).join(' '), call: { sound: last.id } };
  }
  if (theFitting(rig, text)) return undefined;
  for (let i = 1; i < words.length; i += 1) {
    const last = theFitting(rig, words.slice(i).join(' '));
    if (last) return { name: words.slice(0, i).join(' '), call: { sound: last.id } };
  }
  return undefined;
};

const SWITCHED: readonly (readonly [RegExp, 'on' | 'off'])[] = [
  [/^\+\s*/, 'on'],
  [/^[−-]\s*/, 'off'],
  [/^(?:hold|press)\s+/i, 'on'],
  [/^(?:let go of|let go|release)\s+/i, 'off'],
];

/** "+Lift", "−Lift", "hold Lift", "let go of Lift". */
const moveCall = (rig: Rig, text: string): Cue['call'] | undefined => {
  for (const [says, to] of SWITCHED) {
    const found = says.exec(text);
    const move = found && named(all(rig, 'move'), text.slice(found[0].length).trim());
    if (move) return { move: move.id, to };
  }
  return undefined;
};

const ACTS: Readonly<Record<string, LooperAct>> = {
  record: 'record',
  rec: 'record',
  overdub: 'overdub',
  dub: 'overdub',
  play: 'play',
  stop: 'stop',
  clear: 'clear',
};

/** Every track of every looper of a rig. */
export const tracksOf = (rig: Rig): readonly Ref[] =>
  all(rig, 'device').flatMap((device) => tracksIn(device).map((track) => ref(device.id, track.id)));

/** "record LOP track 1", "rec track 1", "overdub 1"; of one track alone, or the one spoken of last, it need not be said which. */
const trackCall = (rig: Rig, text: string, last: Ref | undefined): Cue['call'] | undefined => {
  const [verb = '', ...rest] = text.split(/\s+/);
  const act = ACTS[verb.toLowerCase()];
  if (!act) return undefined;
  const tracks = tracksOf(rig);
  const said = rest.join(' ').toLowerCase();
  const names = (track: Ref): readonly string[] => {
    const full = controlText(rig, track).toLowerCase();
    const own = full.slice(full.indexOf(' ') + 1);
    const box = partOf(rig, splitRef(track).device);
    const number = /\d+$/.exec(own)?.[0];
    const alone = tracks.filter((t) => splitRef(t).device === box?.id).length === 1;
    return [
      full,
      own,
      ...(number ? [number, `loop ${number}`] : []),
      ...(alone && box ? [box.code.toLowerCase()] : []),
    ];
  };
  const meant = said === '' ? tracks : tracks.filter((track) => names(track).includes(said));
  const exact = meant.find((track) => controlText(rig, track).toLowerCase() === said);
  const track = exact ?? (meant.length === 1 ? theFirst(meant) : said === '' ? last : undefined);
  return track && { track, act };
};
