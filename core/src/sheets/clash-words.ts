import type { Clash } from '../change/rebase.js';
import { shown } from '../midi/numbering.js';
import { controlText, valueText } from '../recall/words/words.js';
import { memoryIn } from '../rig/box.js';
import { isId, ref, splitRef, theRef, type Id, type Ref } from '../rig/ids.js';
import { partOf, type Part, type Rig } from '../rig/rig.js';
import { wantTarget, type Want } from '../rig/sound.js';
import type { Case } from '../rig/value.js';
import { wantText } from './sound-sheet.js';

/** Two changes of the same thing, as a person reads them. */
export interface SaidClash {
  readonly what: string;
  readonly was: string;
  readonly mine: string;
  readonly theirs: string;
}

/** Fields of parts in the words of the screens; what is not here reads as it is called. */
const WORDS: Readonly<Record<string, string>> = {
  acts: 'what it sends',
  actuators: 'what sets it',
  admits: 'what the proof reckons with',
  assigns: 'what its switches do',
  asOf: 'holds what its box held on',
  assumes: 'what is taken for granted',
  at: 'place',
  back: 'came back',
  boards: 'board',
  bpm: 'tempo',
  calls: 'slot',
  chains: 'chain',
  code: 'short name',
  colour: 'colour',
  contents: 'contents',
  controls: 'control',
  cues: 'cue',
  ends: 'end',
  enters: 'where the signal comes in',
  everyDays: 'again after so many days',
  expects: 'what is expected',
  figures: 'figures',
  forNow: 'for now',
  have: 'at hand',
  display: 'its name on a display',
  hears: 'where it is heard',
  holds: 'packed in it:',
  jacks: 'jack',
  label: 'label',
  latch: 'stays on',
  leaving: 'tails',
  level: 'loudness',
  lines: 'typed in',
  m: 'metres',
  many: 'how many',
  memories: 'memory',
  mixes: 'what they hear:',
  midi: 'MIDI',
  mm: 'size',
  mostKg: 'at most, kg',
  off: 'what it gives back',
  on: 'what it does',
  order: 'order of the boxes',
  parent: 'derived from',
  out: 'went out',
  place: 'spot on a board',
  settings: 'setting',
  sounds: 'sounds that have it',
  sweeps: 'what pedals do',
  zone: 'where it stands',
};
const NEEDS_NO_WORD: ReadonlySet<string> = new Set(['id', 'kind']);
const GONE = 'something that was taken away';
const LONGEST = 160;
const MOST_LISTED = 6;

/** @param known the part as the person knew it: others may have renamed it since, or taken it away */
export const sayClash = (rig: Rig, { part: id, field, base, mine, theirs }: Clash, known?: Part): SaidClash => {
  const part = known ?? partOf(rig, id);
  const dot = field?.indexOf('.') ?? -1;
  const [name, member] = field === undefined ? [] : dot < 0 ? [field] : [field.slice(0, dot), field.slice(dot + 1)];
  const value = (v: unknown) =>
    cut(name === undefined ? (v === null ? 'taken away' : 'kept') : said(rig, part, name, member, v));
  const about = [base, mine, theirs].find((v) => v !== undefined && v !== null);
  return {
    what: cut(
      `${part ? partText(rig, part) : id}${name === undefined ? '' : `: ${fieldText(rig, part, name, member, about)}`}`,
    ),
    was: value(base),
    mine: value(mine),
    theirs: value(theirs),
  };
};

const cut = (text: string): string => (text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text);

const partText = (rig: Rig, part: Part): string => {
  switch (part.kind) {
    case 'about':
      return 'The rig';
    case 'cable':
      return `Cable ${part.ends.map((end) => refText(rig, end)).join(' to ')}`;
    case 'program':
      return `${programText(rig, part)}${part.name ? ` “${part.name}”` : ''}`;
    case 'tick':
      return programText(rig, part);
    case 'dialCard':
      return `Knobs of ${part.device ? (partOf(rig, part.device)?.name ?? GONE) : 'the instrument in hand'}${caseText(rig, part.in)}`;
    case 'logEntry':
      return 'A note in the log';
    case 'photo':
      return 'A photograph';
    case 'packing':
      return `What was packed for ${part.on}`;
    case 'acceptance':
      return 'An accepted finding';
    case 'song':
      return part.title;
    default:
      return part.name;
  }
};

const refText = (rig: Rig, at: Ref): string => (partOf(rig, splitRef(at).device) ? controlText(rig, at) : GONE);

const programText = (
  rig: Rig,
  { device, memory, number }: { readonly device: Id<'device'>; readonly memory: string; readonly number: number },
): string => {
  const box = partOf(rig, device);
  const shows = memoryIn(box, memory)?.shows;
  return `${box?.code ?? 'Program'} ${shows ? shown(shows, number) : number}`;
};

/** The control that a member of a record of values stands for. */
const controlAt = (part: Part | undefined, name: string, member: string | undefined): Ref | undefined => {
  if (member === undefined) return undefined;
  if (part?.kind === 'program' && name === 'contents') return ref(part.device, member);
  return part?.kind === 'hookup' && name === 'settings' ? theRef(member) : undefined;
};

const fieldText = (
  rig: Rig,
  part: Part | undefined,
  name: string,
  member: string | undefined,
  about: unknown,
): string => {
  if (isWant(about))
    return `${part?.kind === 'move' ? `${WORDS[name]}, ` : ''}${refText(rig, wantTarget(about))}${caseText(rig, about.in)}`;
  const control = controlAt(part, name, member);
  if (control) return refText(rig, control);
  return [WORDS[name] ?? spaced(name), ...(member === undefined ? [] : [memberText(rig, member)])].join(' ');
};

/** A member of a list by what it is about: a control, or a name of its own. */
const memberText = (rig: Rig, member: string): string => {
  const about = member.includes(' {') ? member.slice(0, member.lastIndexOf(' {')) : member;
  if (isId(about)) return plain(rig, about);
  return isId(splitRef(about).device) ? refText(rig, theRef(about)) : spaced(member);
};

const caseText = (rig: Rig, where: Case | undefined): string =>
  Object.values(where ?? {})
    .map((id) => `, in ${plain(rig, id)}`)
    .join('');

const said = (rig: Rig, part: Part | undefined, name: string, member: string | undefined, value: unknown): string => {
  if (value === undefined) return 'nothing';
  if (isWant(value)) return wishText(rig, value);
  const control = controlAt(part, name, member);
  return control && (typeof value === 'string' || typeof value === 'number')
    ? valueText(rig, control, value)
    : plain(rig, value);
};

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isWant = (value: unknown): value is Want =>
  isObject(value) &&
  ('stage' in value || 'control' in value) &&
  ['is', 'between', 'any', 'hand', 'more', 'note', 'pedal'].some((key) => key in value);
const isCall = (value: object): value is { device: Id<'device'>; memory: string; slot: number } =>
  'device' in value && 'memory' in value && 'slot' in value;

const wishText = (rig: Rig, want: Want): string => ('stage' in want ? want.is : wantText(rig, want));

/** Any value, without marks that only a programmer reads. */
const plain = (rig: Rig, value: unknown): string => {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') {
    if (value === '') return 'nothing';
    if (isId(value)) {
      const part = partOf(rig, value);
      return part ? partText(rig, part) : GONE;
    }
    return isId(splitRef(value).device) ? refText(rig, theRef(value)) : value;
  }
  if (Array.isArray(value))
    return value.length === 0
      ? 'none'
      : [
          ...value.slice(0, MOST_LISTED).map((one) => plain(rig, one)),
          ...(value.length > MOST_LISTED ? [`${value.length - MOST_LISTED} more`] : []),
        ].join(', ');
  if (!isObject(value)) return String(value);
  if (isWant(value)) return `${refText(rig, wantTarget(value))} ${wishText(rig, value)}${caseText(rig, value.in)}`;
  if (isCall(value)) return programText(rig, { ...value, number: value.slot });
  return (
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .map(([key, v]) => (NEEDS_NO_WORD.has(key) ? plain(rig, v) : `${WORDS[key] ?? spaced(key)} ${plain(rig, v)}`))
      .join(', ') || 'nothing'
  );
};

/** @example spaced('ringClosedWhen') // 'ring closed when' */
const spaced = (name: string): string =>
  name.replaceAll(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`);
