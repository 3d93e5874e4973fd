import { SECONDS_PER_STOMP } from '@yunta/core/derive/views/on-foot';
import { SECONDS_PER_TURN, type FootChangeDetail } from '@yunta/core/derive/views/foot-change';
import { useAsked } from '../../shared/rig-context.js';
import type { SoundPair } from './board.js';

const inSeconds = (s: number): string => `${s.toFixed(s < 1 ? 2 : 1)} s`;

/** What foot and hand do on the way from one sound to another, what stays if it is forgotten, and whether a beat is enough. */
export const ByFeet = ({ pair }: { pair: SoundPair }) => {
  const change = useAsked(['by feet', pair.from, pair.to], (worker) => worker.answers.footChange(pair.from, pair.to));
  if (!change || change.steps.length + change.turns.length === 0) return null;
  const { steps, turns, seconds, songs } = change;
  const count = steps.length + turns.length;
  return (
    <>
      <p style={{ margin: '0 0 6px' }}>
        <strong>{count === 1 ? 'One thing is' : `${count} things are`} to be done,</strong> in this order:
      </p>
      <ol className="by-feet">
        {steps.map((s) => (
          <li key={s.text}>
            {s.text} <span className="soft">· forgotten, {s.forgotten}</span>
          </li>
        ))}
        {turns.map((t) => (
          <li key={t}>{t}, by hand</li>
        ))}
      </ol>
      <p className="soft" style={{ margin: '0 0 6px' }}>
        About {inSeconds(seconds)}: {inSeconds(SECONDS_PER_STOMP)} a stomp
        {turns.length > 0 ? `, ${inSeconds(SECONDS_PER_TURN)} a knob` : ''}, assumed. <InSongs songs={songs} />
      </p>
    </>
  );
};

const InSongs = ({ songs }: Pick<FootChangeDetail, 'songs'>) =>
  songs.length === 0
    ? 'No song goes this way.'
    : songs
        .map(({ title, beat, fits }) =>
          beat === undefined
            ? `${title}: its tempo is not said.`
            : `${title}: a beat is ${inSeconds(beat)}, ${fits ? 'it can be done in one.' : 'it cannot be done in one.'}`,
        )
        .join(' ');
