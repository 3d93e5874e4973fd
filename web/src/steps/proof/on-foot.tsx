import { SECONDS_PER_STOMP, type ChangeInSong, type FootChange } from '@yunta/core/derive/views/on-foot';
import { Link } from 'react-router';
import { partOf } from '@yunta/core/rig/rig';
import { useAsked, useRig } from '../../shared/rig-context.js';

/** What the feet have to do on a board that nothing calls, and what a loop switcher would save. */
export const OnFoot = () => {
  const { rig } = useRig();
  const feet = useAsked(['on foot'], (worker) => worker.answers.onFoot());
  if (!feet?.worst) return null;
  const { changes, stomps, worst, worstInSong, switchers } = feet;
  return (
    <div className="card on-foot">
      <h2>On foot</h2>
      {changes > 0 ? (
        <p>
          <strong>{stomps} stomps and moves by hand</strong> over all songs, in {changes} changes.
        </p>
      ) : (
        <p className="soft">
          Type the songs and their cues in <Link to="../set?show=songs">Songs</Link>, and the stomps of a set are
          counted here.
        </p>
      )}
      {worstInSong && <InSong change={worstInSong} />}
      <h3>The change that asks most</h3>
      <Switches change={worst} />
      {switchers.length > 0 && (
        <table className="plain">
          <caption>With a loop switcher</caption>
          <thead>
            <tr>
              <th>loops</th>
              <th>in them</th>
              <th>stomps</th>
              <th>saves</th>
              <th>come back</th>
            </tr>
          </thead>
          <tbody>
            {switchers.map((s) => (
              <tr key={s.loops}>
                <td className="mono">{s.loops}</td>
                <td>{s.boxes.map((id) => partOf(rig, id)?.code ?? '').join(', ')}</td>
                <td className="mono">{s.stomps}</td>
                <td className="mono">{stomps - s.stomps}</td>
                <td className="mono">
                  {s.proved === undefined ? 'not tried' : `${s.proved} of ${rig.parts.sound.size}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
};

const inSeconds = (s: number): string => `${s.toFixed(s < 1 ? 2 : 1)} s`;

/** Whether the foot can do it in a beat of the song. */
const InSong = ({ change }: { change: ChangeInSong }) => {
  const { song, seconds, beat } = change;
  return (
    <>
      <h3>The hardest inside a song: {song}</h3>
      <Switches change={change} />
      <p className="soft">
        About {inSeconds(seconds)} at {inSeconds(SECONDS_PER_STOMP)} each (assumed).{' '}
        {beat === undefined
          ? 'Say the tempo of the song, and it is held against a beat.'
          : `A beat of the song is ${inSeconds(beat)}: ${seconds <= beat ? 'it can be done in one beat.' : 'it cannot be done in one beat.'}`}
      </p>
    </>
  );
};

/** What is hit, in the order in which the change is heard least. */
const Switches = ({ change: { from, to, moves } }: { change: FootChange }) => (
  <>
    <p>
      {from} → {to}: {moves.length} {moves.length === 1 ? 'thing' : 'things'} to do, in this order. What is forgotten
      stays as it was.
    </p>
    <ol>
      {moves.map((m) => (
        <li key={m}>{m}</li>
      ))}
    </ol>
  </>
);
