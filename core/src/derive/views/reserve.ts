import { slotText } from '../../recall/words/words.js';
import { soundHere } from '../../recall/intend/wants.js';
import { handMoves } from '../../recall/actuate/compile.js';
import { memoryIn } from '../../rig/box.js';
import type { Id } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import type { SetList } from '../../rig/show.js';
import type { Sound } from '../../rig/sound.js';
import type { Derived } from '../steps/deriver.js';
import { movesBetween } from './on-foot.js';
import { standsText } from './song-cards.js';
import { stompsBetween } from './stomps.js';

/** A sound that somebody may call for in any song, and how it is reached. */
export interface ReserveSound {
  readonly sound: Id<'sound'>;
  readonly name: string;
  /** What to hit, as the box shows it; what foot and hand do where no slot calls it. */
  readonly hit: string;
  /** Stomps from the sound of the set from which most are needed, bank keys and plain switches among them. */
  readonly most: number;
  readonly from: string;
}

/** Stomps from one sound to another, whatever they hit. */
const stompsTo = ({ rig, hookup, compilation }: Derived, from: Sound, to: Sound): number => {
  const { hits, keys } = stompsBetween(rig, hookup.id, from, to);
  return hits.length + keys + movesBetween(compilation, from.id, to.id).length;
};

/** The slot as its box shows it, with the box where no foot hits it; without one how all stands in it. */
const hitFor = ({ rig, hookup, compilation }: Derived, sound: Sound): string => {
  const here = soundHere(rig, sound, hookup.id);
  const listed = here.calls.find(({ device, memory }) => {
    const by = memoryIn(partOf(rig, device), memory)?.by;
    return by === 'song' || by === 'cue';
  });
  const box = listed ? `${partOf(rig, listed.device)?.code ?? ''} ` : '';
  if (here.calls.length > 0) return `${box}${slotText(rig, here)}`;
  return standsText(rig, handMoves(compilation, sound.id)).join(', ');
};

/** What a night has in reserve, each from wherever in the songs it may be called for. */
export const reserveOf = (d: Derived, list: SetList): readonly ReserveSound[] => {
  const { rig } = d;
  const played = list.songs.flatMap((id) => partOf(rig, id)?.cues ?? []);
  const heard = new Set(played.flatMap(({ call }) => ('sound' in call ? [call.sound] : [])));
  return (list.reserve ?? []).flatMap((id): readonly ReserveSound[] => {
    const sound = partOf(rig, id);
    if (!sound) return [];
    const ways = [...heard].flatMap((from) => {
      const before = partOf(rig, from);
      return before && from !== id ? [{ name: before.name, stomps: stompsTo(d, before, sound) }] : [];
    });
    const worst = ways.reduce((a, b) => (b.stomps > a.stomps ? b : a), { name: '', stomps: 0 });
    const hit = hitFor(d, sound);
    return [{ sound: id, name: sound.name, hit, most: worst.stomps, from: worst.name }];
  });
};
