import type { EarthsView } from '@yunta/core/derive/views/levels';
import type { MeetingView, WetView } from '@yunta/core/derive/views/sound-levels';
import type { Id } from '@yunta/core/rig/ids';
import { useAsked } from '../../shared/rig-context.js';
import { Curve } from './curve.js';
import { hzText, minus } from './scale.js';

/** Two ways of one sound that come together again, how late each output is, and loops of earth. */
export const Meetings = ({ sound, earths }: { sound: Id<'sound'>; earths: EarthsView }) => {
  const ways = useAsked(['sound-levels', sound], (worker) => worker.answers.soundLevels(sound));
  const meetings = ways?.flatMap((w) => w.meetings) ?? [];
  return (
    <>
      <section className="card" aria-label="Ways that meet again">
        <h2>Ways that meet again</h2>
        {ways && meetings.length === 0 && (
          <p className="soft">No two ways of this sound meet again late or upside down: nothing is taken away.</p>
        )}
        {meetings.map((m) => (
          <Meeting key={m.key} meeting={m} />
        ))}
        {ways?.map((way) => (
          <table key={way.key} className="plain tight">
            <caption>How late it comes, from {way.source}</caption>
            <tbody>
              {way.outputs.map((o) => (
                <tr key={o.key}>
                  <td>{o.text}</td>
                  <td className="mono">{o.ms} ms</td>
                  <td className="soft">as if {Math.round(o.ms * 34.32) / 100} m further away</td>
                </tr>
              ))}
            </tbody>
          </table>
        ))}
      </section>
      <WetWays wet={ways?.flatMap((w) => w.wet) ?? []} />
      <Earths earths={earths} />
    </>
  );
};

const Meeting = ({ meeting: { text, ms, db, inverted, notches, curve } }: { meeting: MeetingView }) => {
  const says = `${text}: the second ${ms === 0 ? 'at the same time' : `${ms} ms late`}, ${minus(db)} dB against the first${inverted ? ', upside down' : ''}.${notches.length ? ` Notches at ${notches.map(hzText).join(', ')}.` : ''}`;
  return (
    <div>
      <p>{says}</p>
      <Curve
        points={curve}
        from={-42}
        to={12}
        label={says}
        lines={[{ of: 'db', name: 'both together, against the first alone', colour: 'var(--second)' }]}
      />
    </div>
  );
};

/** Outputs that are wet beside a dry one, and whether dry sound comes through to them. */
const WetWays = ({ wet }: { wet: readonly WetView[] }) =>
  wet.length > 0 && (
    <section className="card" aria-label="Wet ways">
      <h2>Wet beside dry</h2>
      <ul>
        {wet.map(({ text, carriesDry, stands }) => (
          <li key={text}>
            <strong>{text}</strong> {carriesDry ? 'carries dry sound too' : 'is wet alone: no dry sound comes through'}
            {stands.length > 0 && ` (${stands.join(', ')})`}.
          </li>
        ))}
      </ul>
    </section>
  );

const Earths = ({ earths: { loops, earthed, unsaid, throughMains, isolate } }: { earths: EarthsView }) => (
  <section className="card" aria-label="Earths">
    <h2>Earths</h2>
    {throughMains.length === 0 ? (
      <p className="soft">
        No loop goes through the earth of the mains.{' '}
        {loops > 0 && `${loops} small ones lie between shields on the board: short as they are, they pick up little.`}
      </p>
    ) : (
      <>
        <p>
          {throughMains.length === 1 ? 'One loop goes' : `${throughMains.length} loops go`} through the earth of the
          mains and can hum:
        </p>
        <ul>
          {throughMains.map((l) => (
            <li key={l.text}>{l.text}</li>
          ))}
        </ul>
        <p>
          {isolate
            ? `Fewest leads to isolate with a transformer or a lifted DI: ${isolate.join('; ')}.`
            : 'More than six leads would have to be isolated: look at one box after the other.'}
        </p>
      </>
    )}
    <p className="soft">
      Earthed by their mains lead: {earthed.length ? earthed.join(', ') : 'none'}.
      {unsaid.length > 0 &&
        ` ${unsaid.join(', ')}: a mains plug, and nobody said whether it earths. Say so at the box, under Figures.`}
    </p>
    <p className="soft">
      Never lift the earth of a mains lead: it keeps you alive. Local electrical codes and a licensed electrician decide
      about mains.
    </p>
  </section>
);
