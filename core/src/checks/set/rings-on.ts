import { controlText } from '../../recall/words/words.js';
import { splitRef, type AnyId, type Id, type Ref } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import { mannerOf } from '../../rig/sound.js';
import type { Check, CheckInputs, Remedy } from '../check.js';

/** Something that a song leaves on: a loop that plays, a switch that is held, a move that nothing takes back. */
interface LeftOn {
  readonly about: string;
  readonly part: AnyId;
  readonly says: string;
  /** The cue that would end it. */
  readonly end: Cue;
}

const tracksLeft = (rig: Rig, { cues }: Song): readonly LeftOn[] => {
  const plays = new Map<Ref, boolean>();
  for (const { call } of cues) if ('track' in call) plays.set(call.track, call.act !== 'stop' && call.act !== 'clear');
  return [...plays]
    .filter(([, isOn]) => isOn)
    .map(([track]) => ({
      about: track,
      part: splitRef(track).device,
      says: `${controlText(rig, track)} is never stopped`,
      end: { name: 'stop', call: { track, act: 'stop' } },
    }));
};

/** A latched move is taken back by the next slot; behind the last sound of a song nothing takes it back. */
const movesLeft = (rig: Rig, { cues }: Song): readonly LeftOn[] => {
  const on = new Set<Id<'move'>>();
  for (const { call } of cues) {
    if ('sound' in call) for (const id of on) if (!isHeld(rig, id)) on.delete(id);
    if (!('move' in call)) continue;
    if (call.to === 'on') on.add(call.move);
    else on.delete(call.move);
  }
  return [...on].flatMap((id) => {
    const move = partOf(rig, id);
    if (!move || mannerOf(move) === 'one way') return [];
    return [
      {
        about: id,
        part: id,
        says: `${move.name} is ${isHeld(rig, id) ? 'held and never let go' : 'on and never taken back'}`,
        end: { name: `${move.name} off`, call: { move: id, to: 'off' } },
      },
    ];
  });
};

const isHeld = (rig: Rig, id: Id<'move'>): boolean => {
  const move = partOf(rig, id);
  return move !== undefined && mannerOf(move) === 'while held';
};

export const ringsOn: Check = {
  code: 'set.rings-on',
  title: 'Something rings on into the next song',
  severities: ['note'],
  source: 'the cues of the song: a looper that plays, a switch that is held, a move that is on behind its last cue',
  *find({ rig }: CheckInputs) {
    for (const song of all(rig, 'song'))
      for (const { about, part, says, end } of [...tracksLeft(rig, song), ...movesLeft(rig, song)])
        yield {
          severity: 'note' as const,
          evidence: [song.id, part],
          about,
          why: `In “${song.title}” ${says}: it goes on into whatever is played next.`,
          remedies: (): readonly Remedy[] => [
            {
              id: 'end',
              label: `Add a cue at the end of “${song.title}” that ends it`,
              promise: 'clears',
              by: 'program',
              edit: { put: [{ ...song, cues: [...song.cues, end] }], remove: [] },
            },
          ],
        };
  },
};
