import { Button } from '@mantine/core';
import { BUSY_BARS, type DanceSong } from '@yunta/core/derive/views/dance';
import type { SetList } from '@yunta/core/rig/show';
import { Link } from 'react-router';
import { useAsked } from '../../shared/rig-context.js';

const seconds = (s: number): string => `${Number(s.toFixed(1))} s`;
const stomps = (n: number): string => `${n} ${n === 1 ? 'stomp' : 'stomps'}`;

/** What the feet do song by song: how much, how fast, and what two feet cannot do. */
export const DanceRoom = ({ list }: { list: SetList | undefined }) => {
  const dance = useAsked(['dance', list?.id ?? ''], (worker) => worker.night.dance(list?.id));
  if (!dance) return <p className="soft">Counting the stomps …</p>;
  if (dance.songs.length === 0) return <p className="soft">No song yet, so the feet rest.</p>;
  const hard = dance.songs.filter((s) => s.troubles.length > 0);
  const placeless = dance.songs.filter((s) => s.placeless > 0);
  const unjudged = dance.songs.filter((s) => s.unjudged > 0);
  return (
    <>
      <p className="set-totals">
        <strong>{stomps(dance.stomps)} in all</strong>
        <span>
          {hard.length === 0
            ? unjudged.length + placeless.length > 0
              ? 'Nothing that two feet cannot do, as far as times are said.'
              : 'Nothing that two feet cannot do.'
            : `In ${hard.length} of ${dance.songs.length} songs the feet have more to do than they can.`}
        </span>
        <Button size="xs" component={Link} to={`../drill${list ? `?list=${list.id}` : ''}`}>
          Drill
        </Button>
      </p>
      {hard.length > 0 && (
        <ul className="dance-troubles">
          {hard.flatMap((song) =>
            song.troubles.map((t, i) => (
              <li key={`${song.song} ${i}`}>
                <strong>
                  {song.title}, {t.cue}
                </strong>
                : {t.why} <span className="soft">{t.eases}</span>
              </li>
            )),
          )}
        </ul>
      )}
      <div className="sheet-wrap">
        <table className="plain dance">
          <thead>
            <tr>
              <th scope="col">Song</th>
              <th scope="col">stomps</th>
              <th scope="col">bank keys</th>
              <th scope="col">on boxes</th>
              <th scope="col">held</th>
              <th scope="col">least time</th>
              <th scope="col">busiest {BUSY_BARS} bars</th>
              <th scope="col">
                <span className="visually-hidden">Drill</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {dance.songs.map((song) => (
              <Row key={song.song} song={song} />
            ))}
          </tbody>
        </table>
      </div>
      {unjudged.length > 0 && (
        <p className="soft">
          Several stomps at once, and no tempo to judge them by: {unjudged.map((s) => s.title).join(', ')}.
        </p>
      )}
      {placeless.length > 0 && (
        <p className="soft">
          Cues without a bar have no time: {placeless.map((s) => s.title).join(', ')}. Open a song under Songs and type
          the bars.
        </p>
      )}
    </>
  );
};

const Row = ({ song }: { song: DanceSong }) => {
  const { tightest, busiest } = song;
  return (
    <tr>
      <th scope="row" className="any-name">
        {song.title}
      </th>
      <td className="mono">{song.stomps}</td>
      <td className="mono">{song.bankKeys || ''}</td>
      <td className="mono">{song.plain || ''}</td>
      <td className="mono">{song.holds || ''}</td>
      <td>
        {tightest &&
          `${seconds(tightest.seconds)} to ${tightest.to}${tightest.needs > tightest.seconds ? `, and it takes ${seconds(tightest.needs)}` : ''}`}
      </td>
      <td>{busiest && `${stomps(busiest.stomps)} from bar ${busiest.bar}`}</td>
      <td>
        <Button size="compact-xs" variant="default" component={Link} to={`../drill?song=${song.song}`}>
          Drill
        </Button>
      </td>
    </tr>
  );
};
