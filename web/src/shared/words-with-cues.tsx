import './words-with-cues.css';
import type { WordsLine } from '@yunta/core/derive/views/song-words';

const CHORD = /(\[[^\]]+\])/;

/** Words line by line; chords stand out, and a cue stands in the margin of its line. */
export const WordsWithCues = ({
  lines,
  cues,
  now,
}: {
  lines: readonly WordsLine[];
  cues: readonly { readonly name: string }[];
  /** The cue that is played. */
  now?: number;
}) => (
  <ol className="song-words">
    {lines.map(({ text, isLabel, cue }, i) => (
      <li key={i} className={cue !== undefined && cue === now ? 'is-now' : undefined}>
        {cue === undefined ? <span /> : <strong className="song-mark">{cues[cue]?.name}</strong>}
        {isLabel ? (
          <em>{text}</em>
        ) : (
          <span>
            {text.split(CHORD).map((part, k) =>
              k % 2 ? (
                <b key={k} className="song-chord">
                  {part.slice(1, -1)}
                </b>
              ) : (
                part
              ),
            )}
          </span>
        )}
      </li>
    ))}
  </ol>
);
