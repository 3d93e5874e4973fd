import { tempoOf } from '../../recall/intend/beats.js';
import { controlText } from '../../recall/words/words.js';
import { controlAt } from '../../rig/box.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { all, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import type { Sound } from '../../rig/sound.js';
import type { Check, CheckInputs, Occurrence } from '../check.js';
import { boxName, listed, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';

/** So much a tempo may differ before repeats run away from the beat: half a beat a minute (assumed). */
const SAME_BPM = 0.5;
/** Half and double the tempo fall on the beat as well. */
const FITTING = [1, 2, 0.5] as const;

const fits = (carried: number, song: number): boolean =>
  FITTING.some((times) => Math.abs(carried - song * times) <= SAME_BPM * times);

/** A tempo that a sound wants of a box, in beats a minute. */
const carriedBy = (rig: Rig, sound: Sound): readonly { readonly control: Ref; readonly bpm: number }[] =>
  sound.wants.flatMap((want) => {
    if (!('control' in want) || !('is' in want) || typeof want.is !== 'number') return [];
    const domain = controlAt(rig, want.control)?.domain;
    return domain && 'min' in domain && domain.unit === 'bpm' ? [{ control: want.control, bpm: want.is }] : [];
  });

const songsWith = (rig: Rig, sound: Sound): readonly Song[] =>
  all(rig, 'song').filter((s) => s.cues.some(({ call }) => 'sound' in call && call.sound === sound.id));

const songText = ({ title, bpm }: Song): string => `“${title}” at ${bpm ?? ''}`;

/** Sounds that send more than one tempo by one out: whoever follows a clock there hears the last. */
const severalClocks = function* ({ rig, compilation }: CheckInputs): Iterable<Occurrence> {
  for (const { sound, stored } of compilation.sounds.values())
    for (const { program } of stored) {
      const clocks = program.acts.flatMap((act) =>
        'send' in act && 'bpm' in act.send ? [{ at: act.at, bpm: act.send.bpm }] : [],
      );
      for (const group of grouped(clocks, (c) => c.at).values()) {
        const tempi = [...new Set(group.map((c) => c.bpm))];
        if (tempi.length < 2) continue;
        yield {
          severity: 'doubt',
          evidence: [sound, program.device],
          about: `clock ${group[0].at}`,
          why: `${soundNames(rig, [sound])} wants ${tempi.join(' and ')} bpm of boxes that hear one clock, from ${group[0].at} of ${boxName(rig, program.device)}: all of them take the last.`,
          remedies: () => [
            {
              id: 'apart',
              label: 'Set the time of one of them by a program or a controller of its own, not by the clock',
              promise: 'eases',
              by: 'hand',
            },
          ],
        };
      }
    }
};

export const tempo: Check = {
  code: 'set.tempo',
  title: 'A sound carries another tempo than its song',
  severities: ['doubt'],
  source: 'units: a tempo, its half or its double fall on the beat of the song; anything else runs away from it',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    yield* severalClocks(inputs);
    for (const sound of soundsInOrder(rig)) {
      const songs = songsWith(rig, sound).filter((s) => s.bpm !== undefined);
      for (const { control, bpm } of carriedBy(rig, sound)) {
        const against = songs.filter((s) => s.bpm !== undefined && !fits(bpm, s.bpm));
        if (against.length === 0) continue;
        yield {
          severity: 'doubt' as const,
          evidence: [sound.id, splitRef(control).device, ...against.map((s) => s.id)],
          about: control,
          why: `“${sound.name}” sets ${controlText(rig, control)} to ${bpm}, and it is played in ${listed(against.map(songText))}.`,
          remedies: () => [
            {
              id: 'derive',
              label: 'Derive a sound for each tempo, or say the time in beats of the song',
              promise: 'eases' as const,
              by: 'hand' as const,
            },
          ],
        };
      }
      const inBeats = sound.wants.filter((w) => 'note' in w);
      if (inBeats.length === 0 || tempoOf(rig, sound.id) !== 'several') continue;
      yield {
        severity: 'doubt' as const,
        evidence: [sound.id, ...songs.map((s) => s.id)],
        about: 'beats',
        why: `“${sound.name}” tells a time in beats, and its songs have more than one tempo: ${listed(songs.map(songText))}. One slot can hold one time.`,
        remedies: () => [
          {
            id: 'derive',
            label: 'Derive a sound for each tempo',
            promise: 'eases' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};
