import { Button } from '@mantine/core';
import type { Id } from '@yunta/core/rig/ids';
import { useAsked } from '../../shared/rig-context.js';
import { fileName, saveFile } from '../../shared/save-file.js';

interface MidiFileProps {
  readonly name: string;
  readonly songs: readonly Id<'song'>[];
  readonly close: () => void;
}

const MOST_NAMED = 6;
const some = (names: readonly string[]): string =>
  `${names.slice(0, MOST_NAMED).join(', ')}${names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : ''}`;
const cuesText = (cues: readonly (readonly [song: string, cue: string])[]): string =>
  some(cues.map(([song, cue]) => `“${cue}” in ${song}`));

/** A MIDI file of songs, with what one has to know before a sequencer plays it. */
export const MidiFile = ({ name, songs, close }: MidiFileProps) => {
  const file = useAsked(['score', ...songs], (worker) => worker.night.scoreOf(name, songs));
  if (!file) return <p className="soft">Writing the MIDI file …</p>;
  const { stomped, byHand, straightTo, placeless, tempoless, cueless, hasty } = file;
  const isWhole = [stomped, byHand, straightTo, placeless, tempoless, cueless, hasty].every(
    (left) => left.length === 0,
  );
  return (
    <section className="card midi-file" aria-label="MIDI file">
      <h2>{name} as a MIDI file</h2>
      <p>
        Every song has its tempo, its time signature and a mark at each cue. What calls a sound goes out early enough
        that all boxes have loaded when the cue comes. Two bars or more stand before each song.
      </p>
      {isWhole && <p role="status">Every cue has its place, and every sound is called by the file.</p>}
      <ul>
        {placeless.length > 0 && (
          <li>
            <strong>No place in the song</strong>, so not in the file: {cuesText(placeless)}. Type bars into the cues.
          </li>
        )}
        {cueless.length > 0 && (
          <li>
            <strong>Nothing is cued</strong> in {some(cueless)}: only tempo and title are in the file.
          </li>
        )}
        {stomped.length > 0 && (
          <li>
            <strong>Called by the foot</strong>, so only a mark: {some(stomped)}.
          </li>
        )}
        {straightTo.length > 0 && (
          <li>
            <strong>Program changes go straight to {some(straightTo)}</strong>: it needs a MIDI lead from the sequencer,
            which is not in this rig.
          </li>
        )}
        {byHand.length > 0 && (
          <li>
            <strong>A hand or foot is needed as well</strong> for {some(byHand)}.
          </li>
        )}
        {tempoless.length > 0 && (
          <li>
            <strong>No tempo is said</strong>, 120 is taken: {some(tempoless)}.
          </li>
        )}
        {hasty.length > 0 && (
          <li>
            <strong>Too close behind the cue before</strong>, boxes may still be loading: {cuesText(hasty)}.
          </li>
        )}
      </ul>
      <div className="sheet-tools">
        <Button size="xs" onClick={() => saveFile(`${fileName(name)}.mid`, file.midi, 'audio/midi')}>
          Save the MIDI file
        </Button>
        <Button size="xs" variant="default" onClick={close}>
          Close
        </Button>
      </div>
    </section>
  );
};
