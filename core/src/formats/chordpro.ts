import type { Refusal } from '../rig/result.js';
import { LONGEST, LONGEST_SONG_SECONDS, MOST_FRETS, TEMPO } from '../rig/limits.js';
import type { Song } from '../rig/show.js';
import { metreText, readMetre } from '../units/metre.js';
import { minutesText, readMinutes } from '../units/minutes.js';

/** What a song sheet says of a song. */
export type SongText = Pick<Song, 'title' | 'bpm' | 'metre' | 'key' | 'capo' | 'seconds' | 'words'>;

export interface ReadSongs {
  readonly songs: readonly SongText[];
  /** What could not be taken as it stands, by its line; the line itself is kept among the words. */
  readonly refused: readonly Refusal[];
}

/** Begins a line that marks where a cue comes. */
export const CUE_MARK = '▸';
/** A line that says which part of the song begins. @example 'Chorus:' */
export const LABEL = /^(\p{L}[^:{}[\]]{0,40}):$/u;
const DIRECTIVE = /^\{\s*([a-z_]+)\s*(?::?\s+|:)?\s*(.*?)\s*\}$/i;
const PARTS: Readonly<Record<string, string>> = {
  soc: 'Chorus',
  start_of_chorus: 'Chorus',
  chorus: 'Chorus',
  sov: 'Verse',
  start_of_verse: 'Verse',
  sob: 'Bridge',
  start_of_bridge: 'Bridge',
};
const ENDS = /^(?:eo[cvb]|end_of_(?:chorus|verse|bridge))$/;

type Facts = Omit<SongText, 'words' | 'title'>;

/** A directive that says a fact of the song; a text that says it wrongly, with what would be right. */
const factOf = (name: string, value: string): Facts | { readonly would: string } | undefined => {
  if (name === 'key')
    return value && value.length <= LONGEST.tuning ? { key: value } : { would: 'Write a key such as Em.' };
  if (name === 'tempo') {
    const bpm = Number(value.replace(/\s*bpm$/i, ''));
    return bpm >= TEMPO.min && bpm <= TEMPO.max ? { bpm } : { would: `Write ${TEMPO.min} to ${TEMPO.max}.` };
  }
  if (name === 'time') {
    const metre = readMetre(value);
    return metre ? { metre } : { would: 'Write a time signature such as 3/4.' };
  }
  if (name === 'duration') {
    const seconds = /^\d+$/.test(value) ? Number(value) : readMinutes(value);
    return seconds !== undefined && seconds >= 1 && seconds <= LONGEST_SONG_SECONDS
      ? { seconds }
      : { would: 'Write minutes and seconds such as 3:32, or seconds.' };
  }
  if (name === 'capo') {
    const capo = Number(value);
    if (capo === 0) return {};
    return Number.isInteger(capo) && capo > 0 && capo <= MOST_FRETS ? { capo } : { would: `Write 1 to ${MOST_FRETS}.` };
  }
  return undefined;
};

/** One song while it is read. */
class Sheet {
  title: string | undefined;
  facts: Facts = {};
  readonly lines: string[] = [];

  get isEmpty(): boolean {
    return this.title === undefined && Object.keys(this.facts).length === 0 && this.lines.every((l) => l.trim() === '');
  }

  /** @returns why the line could not be taken as it is meant */
  take(line: string): Omit<Refusal, 'code' | 'where'> | undefined {
    const found = DIRECTIVE.exec(line.trim());
    if (!found) {
      this.lines.push(line.trimEnd());
      return /^\{[^}]*$/.test(line.trim())
        ? { wrong: `“${line.trim().slice(0, 60)}” begins a directive and does not end it.`, would: 'Close it with }.' }
        : undefined;
    }
    const [meta, rest] = [found[1]?.toLowerCase() ?? '', found[2] ?? ''];
    const words = rest.split(/\s+/);
    const [name, value] = meta === 'meta' ? [words[0]?.toLowerCase() ?? '', words.slice(1).join(' ')] : [meta, rest];
    return this.directive(name, value, line.trim());
  }

  private directive(name: string, value: string, line: string): Omit<Refusal, 'code' | 'where'> | undefined {
    if (name === 'title' || name === 't') {
      this.title = value.slice(0, LONGEST.name);
      return value ? undefined : { wrong: 'The title says nothing.', would: 'Write the title behind the colon.' };
    }
    if (/^(?:c|comment|comment_italic|ci|highlight)$/.test(name)) this.lines.push(`${value}:`);
    else if (name === 'x_cue') this.lines.push(`${CUE_MARK} ${value}`);
    else if (PARTS[name]) this.lines.push(`${labelIn(value) || PARTS[name]}:`);
    else if (ENDS.test(name)) this.lines.push('');
    else {
      const fact = factOf(name, value);
      if (fact && !('would' in fact)) this.facts = { ...this.facts, ...fact };
      else this.lines.push(line);
      if (fact && 'would' in fact) return { wrong: `“${value}” cannot be taken as ${name}.`, would: fact.would };
    }
    return undefined;
  }

  song(otherwise: string): SongText {
    const words = this.lines
      .join('\n')
      .replace(/\n{3,}/g, '\n\n')
      .replace(/^\n+|\s+$/g, '')
      .slice(0, LONGEST.text);
    return { title: this.title || otherwise, ...this.facts, ...(words ? { words } : {}) };
  }
}

/** @example labelIn('label="Last chorus"') // 'Last chorus' */
const labelIn = (value: string): string => /label="([^"]*)"/.exec(value)?.[1] ?? value;

/**
 * Songs as ChordPro writes them. Directives that say nothing about the song stay among the words; so does what cannot
 * be taken, and it is told by its line. Source: ChordPro 6, its directives title, key, tempo, time, duration, capo,
 * comment, chorus, verse, bridge, new_song; `x_cue` is an extension of our own, as it allows them.
 * @param name of the file, for a song that has no title
 */
export const readChordPro = (text: string, name: string): ReadSongs => {
  const sheets = [new Sheet()];
  const refused: Refusal[] = [];
  text
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/)
    .forEach((line, i) => {
      if (/^\{\s*(?:ns|new_song)\b.*\}$/i.test(line.trim())) return void sheets.push(new Sheet());
      const wrong = sheets.at(-1)?.take(line);
      if (wrong) refused.push({ code: 'song', where: `line ${i + 1}`, ...wrong });
    });
  const songs = sheets.filter((s) => !s.isEmpty).map((s, i) => s.song(i === 0 ? name : `${name} ${i + 1}`));
  return { songs, refused };
};

const lineOut = (line: string): string => {
  if (line.startsWith(CUE_MARK)) return `{x_cue: ${line.slice(CUE_MARK.length).trim()}}`;
  const label = LABEL.exec(line.trim())?.[1];
  return label ? `{comment: ${label}}` : line;
};

/** A song as ChordPro; `readChordPro` gives the same back. */
export const writeChordPro = ({ title, key, bpm, metre, seconds, capo, words }: SongText): string =>
  [
    `{title: ${title}}`,
    ...(key ? [`{key: ${key}}`] : []),
    ...(bpm === undefined ? [] : [`{tempo: ${bpm}}`]),
    ...(metre ? [`{time: ${metreText(metre)}}`] : []),
    ...(seconds === undefined ? [] : [`{duration: ${minutesText(seconds)}}`]),
    ...(capo === undefined ? [] : [`{capo: ${capo}}`]),
    ...(words ? ['', ...words.split('\n').map(lineOut)] : []),
    '',
  ].join('\n');
