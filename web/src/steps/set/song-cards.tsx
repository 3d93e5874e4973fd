import type { SongCard } from '@yunta/core/derive/views/song-cards';
import { Paper } from '../../shared/paper/paper.js';
import { useAsked } from '../../shared/rig-context.js';

/** Each song on a card that lies on the floor: how all stands when it begins, what is hit at each cue. */
export const SongCards = () => {
  const cards = useAsked(['song cards'], (worker) => worker.night.songCards());
  if (!cards) return <p className="soft">Working out what is hit …</p>;
  return (
    <>
      <div className="song-cards no-print">
        {cards.map((card) => (
          <Card key={card.song} card={card} />
        ))}
      </div>
      <Paper title="Songs on the floor">
        <div className="song-cards">
          {cards.map((card) => (
            <Card key={card.song} card={card} />
          ))}
        </div>
      </Paper>
    </>
  );
};

const Card = ({ card: { title, about, start, cues } }: { card: SongCard }) => (
  <article className="card song-card">
    <h2 className="any-name">{title}</h2>
    {about.length > 0 && <p className="soft">{about.join(', ')}</p>}
    {start.length > 0 && (
      <p>
        Begin with <strong>{start.join(', ')}</strong>
      </p>
    )}
    <ol>
      {cues.map((cue, i) => (
        <li key={`${i} ${cue.name}`}>
          {cue.name} {cue.sound && cue.sound !== cue.name && <span className="soft">{cue.sound}</span>}{' '}
          <strong>{cue.does.length ? cue.does.join(', ') : i === 0 ? '' : 'nothing to do'}</strong>
        </li>
      ))}
    </ol>
  </article>
);
