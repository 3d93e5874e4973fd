import { Button, FileButton, Menu } from '@mantine/core';
import type { SongsIn } from '@yunta/core/derive/views/song-files';
import { songsChordPro, songTable } from '@yunta/core/derive/views/song-files';
import { sayRefusal } from '@yunta/core/rig/result';
import { rigName } from '@yunta/core/rig/rig';
import type { Song } from '@yunta/core/rig/show';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { fileName, saveFile } from '../../shared/save-file.js';
import { MidiFile } from './midi-file.js';

const titles = (n: number): string => `${n} ${n === 1 ? 'song' : 'songs'}`;
const takenText = ({ added, changed }: SongsIn): string =>
  [
    ...(added.length ? [`${titles(added.length)} added`] : []),
    ...(changed.length ? [`${titles(changed.length)} that were here changed`] : []),
  ].join(', ') || 'No song was in it';

const KINDS = '.mid,.midi,.csv,.tsv,.cho,.chopro,.chordpro,.pro,.crd,.txt,audio/midi,text/plain,text/csv';

/** Songs from a file of whatever kind, and out to one: a table, ChordPro, a MIDI file. */
export const SongFiles = ({ songs }: { songs: readonly Song[] }) => {
  const { rig, ask, edit } = useRig();
  const [said, say] = useState<readonly string[]>([]);
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [asksMidi, askMidi] = useState(false);
  const bring = async (file: File | null): Promise<void> => {
    if (!file) return;
    const read = await ask.night.songsIn(file.name, new Uint8Array(await file.arrayBuffer()));
    if (!read) return;
    if (!read.ok) {
      say([]);
      return setWrong(read.error.map(sayRefusal));
    }
    const { edit: made, refused, notes } = read.value;
    const refusals = made.put.length ? edit(made, `Songs from ${file.name}`) : [];
    say(refusals.length ? [] : [`${takenText(read.value)}.`, ...notes]);
    setWrong([...refusals, ...refused].map(sayRefusal));
  };
  const name = fileName(rigName(rig), 'songs');
  return (
    <>
      <FileButton accept={KINDS} onChange={(file) => void bring(file)}>
        {(props) => (
          <Button size="xs" variant="default" {...props}>
            Songs from a file
          </Button>
        )}
      </FileButton>
      {songs.length > 0 && (
        <Menu position="bottom-start">
          <Menu.Target>
            <Button size="xs" variant="default">
              Save songs as
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => saveFile(`${name}.csv`, songTable(rig, songs), 'text/csv')}>
              A table (CSV)
            </Menu.Item>
            <Menu.Item onClick={() => saveFile(`${name}.cho`, songsChordPro(songs), 'text/plain')}>
              Words and chords (ChordPro)
            </Menu.Item>
            <Menu.Item onClick={() => askMidi(true)}>A MIDI file for a sequencer</Menu.Item>
          </Menu.Dropdown>
        </Menu>
      )}
      <Told said={said} wrong={wrong} />
      {asksMidi && <MidiFile name={rigName(rig)} songs={songs.map((s) => s.id)} close={() => askMidi(false)} />}
    </>
  );
};

const MOST_TOLD = 12;

const Told = ({ said, wrong }: { said: readonly string[]; wrong: readonly string[] }) => (
  <div style={{ flexBasis: '100%' }}>
    {said.map((text) => (
      <p key={text} role="status">
        {text}
      </p>
    ))}
    {wrong.slice(0, MOST_TOLD).map((text) => (
      <p key={text} role="alert" className="broken">
        {text}
      </p>
    ))}
    {wrong.length > MOST_TOLD && <p className="broken">and {wrong.length - MOST_TOLD} more like these.</p>}
  </div>
);
