import { soundHere } from '../../recall/intend/wants.js';
import { boxText } from '../../recall/words/part-words.js';
import { standingIn } from '../../dials/dial-cards.js';
import { handMoves, isServedBy } from '../../recall/actuate/compile.js';
import { knobText, slotText } from '../../recall/words/words.js';
import type { HandMove } from '../../recall/intend/compiled.js';
import type { Id, Ref } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import type { Value } from '../../rig/value.js';
import { samePosition } from '../../dials/knob-words.js';
import type { Derived } from '../steps/deriver.js';
import { callText } from '../../sheets/cue-words.js';
import { switchText } from './footwork.js';
import { hitText, inFeetOrder } from './on-foot.js';
import { isUsed } from './without.js';

/** A song on one card, as it lies on the floor: how everything stands when it begins, and what is hit at each cue. */
export interface SongCard {
  readonly song: Id<'song'>;
  readonly title: string;
  /** Tempo, instrument, tuning. */
  readonly about: readonly string[];
  /** What the first sound is called by, and all that stands by foot and hand. */
  readonly start: readonly string[];
  readonly cues: readonly {
    readonly name: string;
    readonly sound: string;
    readonly does: readonly string[];
  }[];
}

/** @example '96 a minute', 'Bass', 'one tone down' */
const aboutSong = (rig: Rig, { bpm, instrument, tuning }: Song): readonly string[] => [
  ...(bpm === undefined ? [] : [`${bpm} a minute`]),
  ...(instrument ? [boxText(rig, instrument)] : []),
  ...(tuning ? [tuning] : []),
];

const isOff = ({ value }: HandMove): boolean => String(value) === 'off';

/** How all stands for a sound, whatever stood before: what is on, what is set, and that the rest is off. */
export const standsText = (rig: Rig, moves: readonly HandMove[]): readonly string[] => {
  const off = moves.filter(isOff);
  const others = moves.filter((m) => !isOff(m)).map((m) => hitText(rig, m));
  return off.length > 2 ? [...others, 'all else off'] : [...others, ...off.map((m) => hitText(rig, m))];
};

/** Walks through a song and says at each cue what is not so already. */
class Walk {
  private readonly stands = new Map<Ref, Value>();
  private knobs = new Map<string, string>();

  constructor(
    private readonly d: Derived,
    private readonly song: Song,
  ) {}

  private get rig(): Rig {
    return this.d.rig;
  }

  /** What foot and hand do for a sound: the switch that calls it, then what nothing else moves, then knobs. */
  to(id: Id<'sound'>, isFirst = false): readonly string[] {
    const { rig, d } = this;
    const sound = partOf(rig, id);
    if (!sound) return [];
    const moves = handMoves(d.compilation, id).filter((m) => !isServedBy(m, this.stands.get(m.control)));
    for (const m of moves) this.stands.set(m.control, m.value);
    const hits = isFirst ? standsText(rig, moves) : inFeetOrder(rig, moves).map((m) => hitText(rig, m));
    const { instrument } = this.song;
    const here = soundHere(rig, sound, d.hookup.id);
    const now = [
      ...standingIn(rig, {
        hookup: d.hookup.id,
        sound: id,
        song: this.song.id,
        ...(instrument ? { instrument } : {}),
      }),
    ].filter(([, { device }]) => device === undefined || isUsed(d, id, device));
    const turned = now.filter(([knob, { at }]) => !samePosition(this.knobs.get(knob), at));
    for (const [knob, { at }] of turned) this.knobs.set(knob, at);
    return [
      ...(here.calls.length ? [slotText(rig, here)] : []),
      ...hits,
      ...turned.map(([, { device, knob, at }]) => `${knobText(rig, device, knob)} ${at}`),
    ];
  }

  cue(cue: Cue): SongCard['cues'][number] {
    const told = this.called(cue);
    return { ...told, does: [...told.does, ...(cue.hands ?? [])] };
  }

  private called({ name, call }: Cue): SongCard['cues'][number] {
    if ('note' in call) return { name, sound: '', does: [call.note] };
    if ('sound' in call) return { name, sound: partOf(this.rig, call.sound)?.name ?? '', does: this.to(call.sound) };
    if ('track' in call) return { name, sound: '', does: [callText(this.rig, { call })] };
    const move = partOf(this.rig, call.move);
    const at = move && switchText(this.rig, move);
    return { name, sound: '', does: [`${move?.name ?? ''} ${call.to}${at ? `: ${at}` : ''}`] };
  }
}

/** Every song on a card of its own. */
export const songCards = (d: Derived): readonly SongCard[] =>
  all(d.rig, 'song').map((song) => {
    const walk = new Walk(d, song);
    const first = song.cues.find((c) => 'sound' in c.call);
    const start = first && 'sound' in first.call ? walk.to(first.call.sound, true) : [];
    return {
      song: song.id,
      title: song.title,
      about: aboutSong(d.rig, song),
      start,
      cues: song.cues.map((cue) => walk.cue(cue)),
    };
  });
