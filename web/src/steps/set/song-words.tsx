import { Button, Textarea } from '@mantine/core';
import { wordsLines } from '@yunta/core/derive/views/song-words';
import { withMaybe } from '@yunta/core/known/maybe';
import { LONGEST, wrongText } from '@yunta/core/rig/limits';
import type { Song } from '@yunta/core/rig/show';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { WordsWithCues } from '../../shared/words-with-cues.js';

/** The words of a song, with its cues beside the lines at which they come. */
export const SongWords = ({ song }: { song: Song }) => {
  const { edit } = useRig();
  const [draft, setDraft] = useState<string>();
  const save = (): void => {
    const words = draft?.trimEnd() || undefined;
    if (edit({ put: [withMaybe(song, 'words', words)], remove: [] }, `${song.title}: words`).length === 0)
      setDraft(undefined);
  };
  if (draft === undefined)
    return (
      <section className="card" aria-label={`Words of ${song.title}`}>
        {song.words ? (
          <WordsWithCues lines={wordsLines(song.words, song.cues)} cues={song.cues} />
        ) : (
          <p className="soft">No words yet. They stand beside the cues on stage and on paper.</p>
        )}
        <Button size="xs" variant="default" onClick={() => setDraft(song.words ?? '')}>
          {song.words ? 'Change the words' : 'Type or paste the words'}
        </Button>
      </section>
    );
  const wrong = wrongText(draft, LONGEST.text);
  return (
    <section className="card" aria-label={`Words of ${song.title}`}>
      <Textarea
        label="Words"
        description="“Chorus:” on a line names a part. “> solo” on a line marks where the cue solo comes. Chords stand in [Em] brackets."
        autosize
        minRows={8}
        maxRows={24}
        value={draft}
        error={wrong}
        onChange={(e) => setDraft(e.currentTarget.value)}
      />
      <div className="sheet-tools">
        <Button size="xs" disabled={wrong !== undefined} onClick={save}>
          Keep the words
        </Button>
        <Button size="xs" variant="default" onClick={() => setDraft(undefined)}>
          Cancel
        </Button>
        {song.cues.map((cue, i) => (
          <Button
            key={`${i} ${cue.name}`}
            size="compact-xs"
            variant="default"
            onClick={() => setDraft(`${draft.replace(/\n*$/, '')}\n▸ ${cue.name}\n`)}
          >
            Mark {cue.name}
          </Button>
        ))}
      </div>
    </section>
  );
};

/** What the player wants to remember of a song; kept when the field is left. */
export const SongNotes = ({ song }: { song: Song }) => {
  const { edit } = useRig();
  const [text, setText] = useState(song.notes ?? '');
  const [last, setLast] = useState(song.notes);
  if (last !== song.notes) {
    setLast(song.notes);
    setText(song.notes ?? '');
  }
  const wrong = wrongText(text.trim(), LONGEST.reason);
  const keep = (): void => {
    if (wrong || text.trim() === (song.notes ?? '')) return;
    edit({ put: [withMaybe(song, 'notes', text.trim() || undefined)], remove: [] }, `${song.title}: notes`);
  };
  return (
    <Textarea
      label="Notes"
      description="What you want to remember of this song"
      autosize
      minRows={2}
      maxRows={8}
      value={text}
      error={wrong}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={keep}
    />
  );
};
