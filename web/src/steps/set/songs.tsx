import { Button, Textarea } from '@mantine/core';
import type { Id } from '@yunta/core/rig/ids';
import { sayRefusal } from '@yunta/core/rig/result';
import { all } from '@yunta/core/rig/rig';
import { readSongLines } from '@yunta/core/sheets/song-lines';
import { addSong, removeSong, songCell, SONG_COLUMNS, typeSongs } from '@yunta/core/sheets/song-sheet';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import type { SheetRow } from '../../shared/sheet/columns.js';
import { Sheet } from '../../shared/sheet/sheet.js';
import { newPartId } from '../../session/ids.js';
import { NewByName } from '../../shared/new-by-name.js';
import { SongCards } from './song-cards.js';
import { BandSongs } from './band-songs.js';
import { AddCue } from './add-cue.js';
import { SongFiles } from './song-files.js';
import { surely, theOne } from '@yunta/core/known/the';

interface SongsProps {
  readonly complain: (text: string) => void;
  /** Opens a song on a page of its own. */
  readonly open: (song: Id<'song'>) => void;
}

/** Songs with their tempo and cues; what somebody has to move by hand while they go on is told beside them. */
export const Songs = ({ complain, open }: SongsProps) => {
  const { rig, edit } = useRig();
  const hands = useAsked(['songs'], (worker) => worker.night.songHands());
  const [chosen, choose] = useState<string>();
  const [onFloor, setOnFloor] = useState(false);
  const songs = all(rig, 'song');
  const song = songs.find((s) => s.id === chosen) ?? songs[0];
  const byHand = (id: Id<'song'>) => hands?.find((h) => h.song === id);
  const rows = songs.map((s, i): SheetRow => ({
    id: s.id,
    slot: String(i + 1),
    name: s.title,
    mark: '♪',
    says: '',
    isDerived: false,
    cells: SONG_COLUMNS.map((c) => songCell(rig, s, c, byHand(s.id)?.text ?? '')),
    ...(byHand(s.id)?.between ? { note: `${surely(byHand(s.id)).between} by hand while it goes on` } : {}),
  }));
  const add = (title: string): boolean => {
    const id = newPartId('song');
    if (edit(addSong(rig, id, title), `Add ${title}`).length > 0) return false;
    choose(id);
    return true;
  };
  return (
    <>
      <div className="sheet-tools">
        {song && (
          <>
            <strong className="clip" style={{ maxWidth: 260 }}>
              {song.title}
            </strong>
            <Button size="xs" onClick={() => open(song.id)}>
              Open it
            </Button>
            <AddCue song={song} complain={complain} />
            <Button variant="default" size="xs" onClick={() => edit(removeSong(rig, song.id), `Remove ${song.title}`)}>
              Remove it
            </Button>
          </>
        )}
        {songs.length > 0 && (
          <Button variant="default" size="xs" aria-expanded={onFloor} onClick={() => setOnFloor(!onFloor)}>
            Cards for the floor
          </Button>
        )}
        <NewByName label="Title of a new song" placeholder="Salt waltz" button="Add a song" add={add} />
      </div>
      <div className="sheet-tools">
        <PasteSongs />
        <SongFiles songs={songs} />
        <BandSongs />
      </div>
      {onFloor && songs.length > 0 ? (
        <SongCards />
      ) : rows.length === 0 ? (
        <p className="soft">
          No song yet. A song gives its sounds a tempo, so that their times can be told in beats, and shows what has to
          be moved by hand while it goes on.
        </p>
      ) : (
        <Sheet
          label="Songs"
          heads={['', 'Song']}
          nameWidth={250}
          rows={rows}
          columns={SONG_COLUMNS}
          chosen={song?.id}
          choose={choose}
          complain={complain}
          rename={(row, to) =>
            edit({ put: [{ ...theOne(songs, (s) => s.id === row.id), title: to }], remove: [] }, `Rename ${row.name}`)
          }
          type={(typed, label) => {
            const done = typeSongs(rig, songs, typed);
            return done.ok ? edit(done.value, label) : done.error;
          }}
        />
      )}
    </>
  );
};

/** A list of titles as it is, one song a line. */
const PasteSongs = () => {
  const { rig, edit } = useRig();
  const [opened, open] = useState(false);
  const [text, setText] = useState('');
  const [left, leave] = useState<readonly string[]>([]);
  const take = () => {
    const { edit: made, songs, refused } = readSongLines(rig, text, () => newPartId('song'));
    const wrong = songs.length ? edit(made, `Add ${songs.length} songs`) : [];
    leave([...wrong, ...refused].map(sayRefusal));
    if (wrong.length > 0) return;
    setText('');
    if (refused.length === 0) open(false);
  };
  if (!opened)
    return (
      <Button variant="default" size="xs" onClick={() => open(true)}>
        Paste a list of songs
      </Button>
    );
  return (
    <form
      className="card"
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <Textarea
        label="One song a line"
        description="Tempo, length, key and capo may stand behind the title: Salt waltz, 132 bpm, 3:32, Em, capo 2"
        autosize
        minRows={4}
        maxRows={14}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      {left.map((why) => (
        <p key={why} className="broken" role="alert">
          {why}
        </p>
      ))}
      <div className="sheet-tools">
        <Button type="submit" size="xs" disabled={text.trim() === ''}>
          Take these
        </Button>
        <Button size="xs" variant="default" onClick={() => open(false)}>
          Cancel
        </Button>
      </div>
    </form>
  );
};
