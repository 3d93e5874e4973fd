import { standingIn, turnedBetween } from '../../dials/dial-cards.js';
import { handMoves } from '../../recall/actuate/compile.js';
import { controlText, knobText, slotText } from '../../recall/words/words.js';
import type { HandMove } from '../../recall/intend/compiled.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import { mannerOf, type Call, type Move } from '../../rig/sound.js';
import { COMMON_TIME, placeSeconds } from '../../units/metre.js';
import type { Derived } from '../steps/deriver.js';
import { hitText, inFeetOrder, movesBetween } from './on-foot.js';
import { stompsBetween } from './stomps.js';
import { isUsed } from './without.js';

/** One thing that a foot does. */
export interface FootStep {
  /** A bank key, the switch of a slot, a switch that a move sits on, a looper, a switch of a plain box. */
  readonly is: 'bank' | 'slot' | 'move' | 'track' | 'box';
  /** @example 'bank up', '2B', 'CTL 3', 'LOP track 1', 'CHO on' */
  readonly text: string;
  readonly device: Id<'device'>;
  /** The foot stays on it until it is let go, or leaves it. */
  readonly held?: 'down' | 'up';
  readonly calls?: Call;
  readonly track?: Ref;
}

/** What a cue of a song asks of foot and hand, besides what sounds then. */
export interface Footwork {
  readonly cue: Cue;
  /** Seconds from the start of the song, when the cue says so. */
  readonly seconds: number | undefined;
  /** The sound that it calls. */
  readonly sound: Id<'sound'> | undefined;
  readonly feet: readonly FootStep[];
  /** What a hand moves so that the sound comes back. */
  readonly hands: readonly string[];
  /** What the player wrote down for hands and feet. */
  readonly words: readonly string[];
}

/** @example switchText(rig, move) // 'CTL 3', or 'CTL 3 + 4' when it sits on two */
export const switchText = (rig: Rig, { at }: Move): string =>
  at
    .map(({ device, switch: name }, i) => {
      const code = partOf(rig, device)?.code ?? '';
      return i > 0 && at[i - 1]?.device === device ? name : `${code} ${name}`;
    })
    .join(' + ');

/** How the cue before left the rig. */
interface Before {
  readonly sound: Id<'sound'> | undefined;
  readonly stands: ReturnType<typeof standingIn> | undefined;
}

/** Walks through a song: what each cue asks, after all cues before it. */
class Walk {
  private before: Before = { sound: undefined, stands: undefined };

  constructor(
    private readonly d: Derived,
    private readonly song: Song,
  ) {}

  cue(cue: Cue): Footwork {
    const { at, call, hands = [] } = cue;
    const { bpm, metre = COMMON_TIME } = this.song;
    const seconds = at === undefined ? undefined : placeSeconds(at, bpm, metre);
    const sound = 'sound' in call ? call.sound : undefined;
    const does = sound ? this.toSound(sound) : { feet: this.feetOf(call), hands: [] };
    return { cue, seconds, sound, ...does, words: [...('note' in call ? [call.note] : []), ...hands] };
  }

  /** A move is on one switch, a looper on its own. */
  private feetOf(call: Cue['call']): readonly FootStep[] {
    const { rig } = this.d;
    if ('track' in call) {
      const { device } = splitRef(call.track);
      return [{ is: 'track', text: controlText(rig, call.track), device, track: call.track }];
    }
    const move = 'move' in call ? partOf(rig, call.move) : undefined;
    const at = move?.at[0];
    if (!move || !at || !('move' in call)) return [];
    const held = mannerOf(move) === 'while held' ? (call.to === 'on' ? 'down' : 'up') : undefined;
    return [{ is: 'move', text: switchText(rig, move), device: at.device, ...(held ? { held } : {}) }];
  }

  private toSound(id: Id<'sound'>): Pick<Footwork, 'feet' | 'hands'> {
    const { d, song, before } = this;
    const { rig, compilation } = d;
    const where = { hookup: d.hookup.id, song: song.id, sound: id };
    const stands = standingIn(rig, song.instrument ? { ...where, instrument: song.instrument } : where);
    const moves = before.sound
      ? movesBetween(compilation, before.sound, id)
      : inFeetOrder(rig, handMoves(compilation, id));
    const turned = turnedBetween(before.stands ?? new Map(), stands, (device) => isUsed(d, id, device));
    this.before = { sound: id, stands };
    return {
      feet: [...this.hits(before.sound, id), ...moves.filter((m) => m.by === 'foot').map((m) => this.boxStep(m))],
      hands: [
        ...moves.filter((m) => m.by === 'hand').map((m) => hitText(rig, m)),
        ...turned.map(({ device, knob, at }) => `${knobText(rig, device, knob)} to ${at}`),
      ],
    };
  }

  private boxStep(move: HandMove): FootStep {
    return { is: 'box', text: hitText(this.d.rig, move), device: splitRef(move.control).device };
  }

  /** Bank keys first, then the switch of each slot. */
  private hits(from: Id<'sound'> | undefined, to: Id<'sound'>): readonly FootStep[] {
    const { rig, hookup } = this.d;
    const sound = partOf(rig, to);
    if (!sound) return [];
    const { hits, keys, way } = stompsBetween(rig, hookup.id, from && partOf(rig, from), sound);
    return hits.flatMap((call, i): readonly FootStep[] => [
      ...(i === 0
        ? Array.from({ length: keys }, () => ({ is: 'bank' as const, text: `bank ${way}`, device: call.device }))
        : []),
      { is: 'slot', text: slotText(rig, { ...sound, calls: [call] }), device: call.device, calls: call },
    ]);
  }
}

/** What every cue of a song asks of foot and hand, played from its first to its last. */
export const footworkOf = (d: Derived, song: Song): readonly Footwork[] => {
  const walk = new Walk(d, song);
  return song.cues.map((cue) => walk.cue(cue));
};

const TIMES = ['', '', ' twice'] as const;

/** Bank keys in one word. @example bankText([up, up, up]) // 'bank up 3 times' */
export const bankText = (feet: readonly FootStep[]): string | undefined => {
  const keys = feet.filter((f) => f.is === 'bank').map((f) => f.text);
  const [key] = keys;
  return key === undefined ? undefined : `${key}${TIMES[keys.length] ?? ` ${keys.length} times`}`;
};
