import type { LoadView, TapView } from '@yunta/core/derive/views/speakers-view';
import { FigureChip, HowChip } from '../../shared/figures/figure-chips.js';
import { useAsked } from '../../shared/rig-context.js';
import { Gauge, Metres } from '../../shared/lead-fields.js';
import { minus } from './scale.js';

/** What hangs on every loudspeaker jack, in each state that can come about. */
export const Speakers = () => {
  const taps = useAsked(['speakers'], (worker) => worker.answers.speakers());
  if (!taps) return <p className="soft">Working it out …</p>;
  if (taps.length === 0) return <p className="soft">No amp with a loudspeaker jack is played through here.</p>;
  return (
    <>
      <p className="soft">
        Cabinets side by side: 1/R = 1/R1 + 1/R2, and each takes power as it conducts. A valve amp must never be driven
        without its load: switch off before you plug. Repairs inside belong to a licensed technician.
      </p>
      {taps.map((tap) => (
        <Tap key={tap.key} tap={tap} />
      ))}
    </>
  );
};

const Tap = ({ tap }: { tap: TapView }) => (
  <section className="card" aria-label={`Loudspeaker jack, ${tap.text} ${tap.while}`}>
    <div className="levels-head">
      <h2>
        {tap.text}
        {tap.while && <span className="soft">, {tap.while}</span>}
      </h2>
      <span className="figure-chips">
        {tap.from.map((f) => (
          <FigureChip key={f.of} input={f} />
        ))}
      </span>
    </div>
    <p>{says(tap)}</p>
    {tap.loads.length > 0 && (
      <table className="plain tight">
        <thead>
          <tr>
            <th>loudspeaker</th>
            <th>Ω</th>
            <th>of the power</th>
            <th>gets at most</th>
            <th>stands</th>
            <th>lead, m</th>
            <th>gauge, AWG</th>
            <th>lost on it</th>
            <th>how</th>
          </tr>
        </thead>
        <tbody>
          {tap.loads.map((load) => (
            <LoadRow key={load.key} load={load} />
          ))}
        </tbody>
      </table>
    )}
  </section>
);

const says = ({ loads, ohm, valve }: TapView): string => {
  if (loads.length === 0)
    return valve ? 'No load at all: a danger to the amp.' : 'No load: a transistor amp stands that.';
  return ohm === undefined ? 'The impedance of a cabinet is not written down.' : `${ohm} Ω in all.`;
};

const watts = (value: number | undefined): string => (value === undefined ? 'not known' : `${value} W`);

const LoadRow = ({ load }: { load: LoadView }) => {
  const { text, ohm, percent, gets, stands, lossDb, leads, from } = load;
  const isTooMuch = gets !== undefined && stands !== undefined && gets > stands * 1.01;
  return (
    <tr>
      <td>{text}</td>
      <td className="mono">{ohm ?? 'not known'}</td>
      <td className="mono">{percent === undefined ? 'not known' : `${percent} %`}</td>
      <td className={isTooMuch ? 'mono broken' : 'mono'}>
        {watts(gets)}
        {isTooMuch && ', too much'}
      </td>
      <td className="mono">{watts(stands)}</td>
      <td>
        {leads.map((l, i) => (
          <Metres key={l.cable} of={`Lead ${i + 1} to ${text}`} cable={l.cable} />
        ))}
      </td>
      <td>
        {leads.map((l, i) => (
          <Gauge key={l.cable} of={`Lead ${i + 1} to ${text}`} cable={l.cable} usual={l.awg} />
        ))}
      </td>
      <td className="mono">{lossDb === undefined ? 'no length yet' : `${minus(lossDb)} dB`}</td>
      <td>
        <HowChip
          of={`what ${text} gets`}
          how="Power by conductance; 20·log10(R / (R + lead)) with both legs of copper (ASTM B258, IEC 60028)"
          from={from}
        />
      </td>
    </tr>
  );
};
