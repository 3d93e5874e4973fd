import { apply } from '../../change/apply.js';
import { bridged } from '../../edits/place.js';
import { levelsAt } from '../../electric/levels/along.js';
import { endText } from '../../recall/words/part-words.js';
import type { Id, Ref } from '../../rig/ids.js';
import { splitRef } from '../../rig/ids.js';
import { makesSound, type Device, type Stage } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { all, partOf, soundsInOrder, type Rig } from '../../rig/rig.js';
import { wantTarget, type Move } from '../../rig/sound.js';
import { onlyThrough } from '../../signal/graph/only-through.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';
import { consequencesOf, type Consequences } from './consequences.js';
import { align, type Aligned } from './side-by-side.js';
import { runOf, soundTrace } from './view.js';

/** A sound with a box and without it: pulled out, its leads joined. */
export interface WithAndWithout {
  /** The run as it is, and without the box, or only what passes it, lined up. */
  readonly runs: Aligned;
  /** By how much each end is louder without it, in dB, by gains that are partly assumed; nothing where it is silent. */
  readonly levels: readonly { readonly end: string; readonly db?: number }[];
  readonly brings?: Consequences;
}

export type Look = 'without' | 'only';

/** Both runs of a sound, and what else is then otherwise in the rig. */
export const withAndWithout = (
  d: Derived,
  sound: Id<'sound'>,
  device: Id<'device'>,
  look: Look,
): WithAndWithout | undefined => {
  const now = soundTrace(d, sound);
  if (look === 'only') {
    const only = onlyThrough(now, device);
    return { runs: align(runOf(d, now), runOf(d, only)), levels: levelsBetween(d, now, d, only) };
  }
  let n = 0;
  const applied = apply(
    d.rig,
    bridged(d.rig, d.hookup.id, device, () => `cable:bridge-${(n += 1)}`),
  );
  const later = applied.ok ? deriveOnce(applied.value.rig, d.hookup.id) : undefined;
  if (!later) return undefined;
  const then = soundTrace(later, sound);
  return {
    runs: align(runOf(d, now), runOf(later, then)),
    levels: levelsBetween(d, now, later, then),
    brings: consequencesOf(d, later),
  };
};

type Traced = ReturnType<typeof soundTrace>;

const levelsBetween = (d: Derived, now: Traced, later: Derived, then: Traced): WithAndWithout['levels'] => {
  const [before, after] = [levelsAt(d.rig, now), levelsAt(later.rig, then)];
  const ends = new Set<Ref>(now.reaches.map((r) => r.end.ref));
  return [...ends].map((end) => {
    const [was, is] = [before.get(end), after.get(end)];
    const name = endText(d.rig, end);
    return was === undefined || is === undefined ? { end: name } : { end: name, db: Math.round((is - was) * 10) / 10 };
  });
};

/** Which sounds, songs and set lists use a box. */
export interface UseOfBox {
  readonly sounds: readonly string[];
  readonly of: number;
  readonly songs: readonly string[];
  readonly sets: readonly string[];
  /** In one sentence what follows from it. */
  readonly says: string;
}

/** Whether a box is heard in a sound: one of its stages is in; one without stages is used where the signal passes it. */
export const isUsed = (d: Derived, sound: Id<'sound'>, device: Id<'device'>): boolean => {
  const t = d.compilation.sounds.get(sound)?.trace;
  if (!t) return false;
  const own = [...t.stages].filter(([stage]) => splitRef(stage).device === device);
  return own.length
    ? own.some(([, is]) => is === 'in')
    : t.wiring.points.some((p, i) => p.device === device && t.onPath[i]);
};

/** A move that takes a stage of a box in, or turns something of it. */
const movesOf = (rig: Rig, device: Id<'device'>): readonly Move[] =>
  all(rig, 'move').filter((m) => [...m.on, ...m.off].some((w) => splitRef(wantTarget(w)).device === device));

/**
 * Where a box is heard in this hook-up, sound by sound, and so in which songs and sets; undefined for one that makes
 * no sound itself, such as a guitar, a controller or a supply: of these it says nothing whether a sound meets them.
 */
export const boxUse = (d: Derived, device: Id<'device'>): UseOfBox | undefined => {
  const { rig } = d;
  const box = partOf(rig, device);
  if (!box || !makesSound(box)) return undefined;
  const sounds = soundsInOrder(rig);
  const using = new Set(sounds.filter((s) => isUsed(d, s.id, device)).map((s) => s.id));
  const songs = all(rig, 'song').filter((song) =>
    song.cues.some(({ call }) => 'sound' in call && using.has(call.sound)),
  );
  const sets = all(rig, 'setList').filter((set) => set.songs.some((id) => songs.some((s) => s.id === id)));
  const byMoves = movesOf(rig, device);
  const says =
    using.size === 0
      ? byMoves.length > 0
        ? `Only ${byMoves.map((m) => m.name).join(', ')} ${byMoves.length === 1 ? 'uses' : 'use'} it.`
        : 'No sound and no move uses it in this hook-up.'
      : songs.length === 1 && rig.parts.song.size > 1
        ? `One song only: ${songs[0]?.title ?? ''}.`
        : using.size === 1
          ? 'One sound only.'
          : rig.parts.setList.size > 0 && songs.length > 0 && sets.length === 0
            ? 'No set list has a song that uses it.'
            : '';
  return {
    sounds: sounds.filter((s) => using.has(s.id)).map((s) => s.name),
    of: sounds.length,
    songs: songs.map((s) => s.title),
    sets: sets.map((s) => s.name),
    says,
  };
};

/** How the direct sound comes through: where it is turned into numbers and back. */
export interface DryPath {
  readonly converted: readonly string[];
  /** Boxes on the way of which nobody said it. */
  readonly unsaid: readonly string[];
  readonly says: string;
}

/** Stages of which many are digital (common practice): of a box with one it has to be said. */
const OFTEN_DIGITAL: ReadonlySet<Stage> = new Set<Stage>([
  'wireless',
  'pitch',
  'octave',
  'modulation',
  'delay',
  'reverb',
  'looper',
  'generator',
  'cabinet simulation',
]);
const mayConvert = ({ chains, memories }: Device): boolean =>
  memories.some((m) => m.stores.length > 0) ||
  chains.some((c) => blocksIn(c.slots).some((b) => OFTEN_DIGITAL.has(b.stage)));

/** Whether the direct sound of a sound stays analogue, box by box on its way. */
export const dryPath = (d: Derived, sound: Id<'sound'>): DryPath => {
  const t = soundTrace(d, sound);
  const order = new Map<Id<'device'>, boolean>();
  t.wiring.points.forEach((p, i) => {
    if (t.onPath[i]) order.set(p.device, true);
  });
  const onWay = [...order.keys()].flatMap((id) => partOf(d.rig, id) ?? []).filter((box) => box.chains.length > 0);
  const converted = onWay.filter((box) => box.figures.direct === 'converted').map((box) => box.code);
  const unsaid = onWay.filter((box) => box.figures.direct === undefined && mayConvert(box)).map((box) => box.code);
  const times = converted.length;
  const says =
    times === 0
      ? unsaid.length
        ? 'It stays analogue, as far as is said.'
        : 'It stays analogue.'
      : `It is turned into numbers and back ${times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`}: ${converted.join(', ')}.`;
  return { converted, unsaid, says };
};
