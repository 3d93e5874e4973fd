import { Select } from '@mantine/core';
import { sayRefusal } from '@yunta/core/rig/result';
import { all, soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import { LOOPER_ACTS, type Song } from '@yunta/core/rig/show';
import { addCues } from '@yunta/core/sheets/cue-sheet';
import { callText, tracksOf } from '@yunta/core/sheets/cue-words';
import { useRig } from '../../shared/rig-context.js';

/** All that a cue can call, as it is typed. */
const callable = (rig: Rig): readonly { readonly value: string; readonly label: string }[] =>
  [
    ...soundsInOrder(rig).map((s) => ({ value: s.name, label: s.name })),
    ...all(rig, 'move').flatMap(({ name }) => [
      { value: `+${name}`, label: `${name} on` },
      { value: `−${name}`, label: `${name} off` },
    ]),
    ...tracksOf(rig).flatMap((track) =>
      LOOPER_ACTS.map((act) => callText(rig, { call: { track, act } })).map((value) => ({ value, label: value })),
    ),
  ].filter((one, i, every) => every.findIndex((o) => o.value === one.value) === i);

interface AddCueProps {
  readonly song: Song;
  readonly complain: (text: string) => void;
  /** Behind which cue it comes; the last one when it is left out. */
  readonly after?: number;
}

/** One more cue by a click: a sound, a move that is switched on or off, a looper. */
export const AddCue = ({ song, complain, after = song.cues.length - 1 }: AddCueProps) => {
  const { rig, edit } = useRig();
  const add = (cue: string) => {
    const done = addCues(rig, song, after, cue);
    const refused = done.ok ? edit(done.value, `${song.title}: ${cue}`) : done.error;
    complain(refused.map(sayRefusal).join(' '));
  };
  return (
    <Select
      size="xs"
      w={170}
      aria-label={`Add a cue to ${song.title}`}
      placeholder="add a cue"
      searchable
      data={[...callable(rig)]}
      value={null}
      onChange={(cue) => cue && add(cue)}
      nothingFoundMessage="No such sound or move"
    />
  );
};
