import { Button } from '@mantine/core';
import type { Footwork } from '@yunta/core/derive/views/footwork';
import type { Id } from '@yunta/core/rig/ids';
import { sayRefusal } from '@yunta/core/rig/result';
import { all, soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import type { Cue, Song } from '@yunta/core/rig/show';
import { addCues, carryCue, cueCell, CUE_COLUMNS, nameCue, removeCue, typeCues } from '@yunta/core/sheets/cue-sheet';
import { metreText } from '@yunta/core/units/metre';
import { minutesText } from '@yunta/core/units/minutes';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import type { SheetRow } from '../../shared/sheet/columns.js';
import { Sheet } from '../../shared/sheet/sheet.js';
import { TypedLine } from '../../shared/typed-line.js';
import { AddCue } from './add-cue.js';
import { SongNotes, SongWords } from './song-words.js';

const LONGEST_LINE = 2000;

const factsOf = ({ bpm, metre, seconds, key, tuning, capo }: Song): string =>
  [
    ...(bpm === undefined ? [] : [`${bpm} bpm`]),
    ...(metre ? [metreText(metre)] : []),
    ...(seconds === undefined ? [] : [minutesText(seconds)]),
    ...(key ? [key] : []),
    ...(tuning ? [tuning] : []),
    ...(capo === undefined ? [] : [`capo ${capo}`]),
  ].join(', ');

interface SongPageProps {
  readonly song: Song;
  readonly open: (song: Id<'song'> | undefined) => void;
  readonly complain: (text: string) => void;
}

/** One song: its cues in order with what they ask of foot and hand, its words with the cues beside them. */
export const SongPage = ({ song, open, complain }: SongPageProps) => {
  const { rig } = useRig();
  const songs = all(rig, 'song');
  const at = songs.findIndex((s) => s.id === song.id);
  const beside = (by: number) => songs[at + by];
  return (
    <>
      <nav className="song-head" aria-label="Songs">
        <Button size="xs" variant="default" onClick={() => open(undefined)}>
          All songs
        </Button>
        <h2 className="any-name">{song.title}</h2>
        <span className="soft">{factsOf(song)}</span>
        <span className="song-steps">
          <Button size="xs" variant="default" disabled={!beside(-1)} onClick={() => open(beside(-1)?.id)}>
            Song before
          </Button>
          <Button size="xs" variant="default" disabled={!beside(1)} onClick={() => open(beside(1)?.id)}>
            Next song
          </Button>
        </span>
      </nav>
      <div className="song-page">
        <Cues key={song.id} song={song} complain={complain} />
        <div>
          <SongWords key={song.id} song={song} />
          <SongNotes key={`${song.id} notes`} song={song} />
        </div>
      </div>
    </>
  );
};

/** A letter for what a cue calls. */
const CALLS = {
  sound: { letter: 'S', word: 'sound' },
  move: { letter: 'M', word: 'move' },
  track: { letter: 'L', word: 'looper' },
  note: { letter: 'N', word: 'note' },
} as const;
const calledBy = ({ call }: Cue): keyof typeof CALLS =>
  'sound' in call ? 'sound' : 'move' in call ? 'move' : 'track' in call ? 'track' : 'note';

/** Cues as they could be typed, with sounds that are there. */
const exampleFrom = (rig: Rig): string => {
  const [one = 'Clean', two = 'Crunch'] = soundsInOrder(rig).map((s) => s.name);
  return `Verse: ${one} / @17 Chorus: ${two}, heel down`;
};

const hitsText = ({ feet, hands }: Footwork): string => [...feet.map((f) => f.text), ...hands].join(', ');

const Cues = ({ song, complain }: { song: Song; complain: (text: string) => void }) => {
  const { rig, edit } = useRig();
  const work = useAsked(['footwork', song.id], (worker) => worker.night.footwork(song.id));
  const [chosen, choose] = useState<string>();
  const last = song.cues.length - 1;
  const at = chosen === undefined ? last : Math.min(last, Number(chosen));
  const cue = song.cues[at];
  const rows = song.cues.map((c, i): SheetRow => ({
    id: String(i),
    slot: String(i + 1),
    name: c.name,
    mark: CALLS[calledBy(c)].letter,
    says: `calls a ${CALLS[calledBy(c)].word}`,
    isDerived: false,
    cells: CUE_COLUMNS.map((column) => cueCell(rig, c, column, work?.[i] ? hitsText(work[i]) : '')),
  }));
  const carry = (by: -1 | 1): void => {
    edit(carryCue(song, at, at + by), `${song.title}: ${cue?.name ?? ''} ${by < 0 ? 'earlier' : 'later'}`);
    choose(String(at + by));
  };
  return (
    <section aria-label={`Cues of ${song.title}`}>
      <div className="sheet-tools">
        {cue && (
          <>
            <strong className="clip" style={{ maxWidth: 200 }}>
              {cue.name}
            </strong>
            <Button size="xs" variant="default" disabled={at === 0} onClick={() => carry(-1)}>
              Earlier
            </Button>
            <Button size="xs" variant="default" disabled={at === last} onClick={() => carry(1)}>
              Later
            </Button>
            <Button
              size="xs"
              variant="default"
              onClick={() => edit(removeCue(song, at), `${song.title}: remove ${cue.name}`)}
            >
              Remove it
            </Button>
          </>
        )}
        <AddCue song={song} complain={complain} after={at} />
      </div>
      {rows.length > 0 && (
        <Sheet
          label={`Cues of ${song.title}`}
          heads={['', 'Cue']}
          nameWidth={104}
          rows={rows}
          columns={CUE_COLUMNS}
          chosen={cue && String(at)}
          choose={choose}
          complain={complain}
          rename={(row, to) => edit(nameCue(song, Number(row.id), to), `${song.title}: ${row.name} is called ${to}`)}
          type={(typed, label) => {
            const done = typeCues(rig, song, typed);
            return done.ok ? edit(done.value, `${song.title}, ${label}`) : done.error;
          }}
        />
      )}
      <TypedLine
        label="Cues as you write them"
        description={`${exampleFrom(rig)}. @17 is bar 17, @17.3 its third beat, @1:04 a time.`}
        placeholder={exampleFrom(rig)}
        button="Add these cues"
        most={LONGEST_LINE}
        add={(text) => {
          const done = addCues(rig, song, last, text);
          return (done.ok ? edit(done.value, `${song.title}: more cues`) : done.error).map(sayRefusal);
        }}
      />
    </section>
  );
};
