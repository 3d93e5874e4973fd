import { SegmentedControl } from '@mantine/core';
import type { FrontView, KnobsView, PieceView } from '@yunta/core/derive/views/front-view';
import { KNOBS, type Knobs } from '@yunta/core/electric/front/front-response';
import { theOneOf } from '@yunta/core/known/keys';
import { theOne } from '@yunta/core/known/the';
import type { Id } from '@yunta/core/rig/ids';
import { memo, useState } from 'react';
import { FigureChip } from '../../shared/figures/figure-chips.js';
import { useAsked } from '../../shared/rig-context.js';
import { Curve } from './curve.js';
import { Metres } from '../../shared/lead-fields.js';
import { TryFront, useTried } from './try-front.js';
import { hzText, minus, signed } from './scale.js';

/** What leads, bypassed boxes and the first input do to the coil of an instrument. */
export const Treble = ({ sound }: { sound: Id<'sound'> }) => {
  const [knobs, turn] = useState<Knobs>('full');
  const fronts = useAsked(['fronts', sound], (worker) => worker.answers.fronts(sound));
  if (!fronts) return <p className="soft">Working it out …</p>;
  if (fronts.length === 0)
    return (
      <p className="soft">
        No instrument with a coil is plugged in here. Coil and knobs of an instrument stand among its figures: Kit, open
        the box, Figures.
      </p>
    );
  return (
    <>
      <div className="levels-head">
        <p className="soft">
          The coil feels every metre and every bypassed box up to the first box that is on. Drawn against 3 m of cable
          into 1 megohm.
        </p>
        <SegmentedControl
          aria-label="Knobs on the instrument"
          size="xs"
          value={knobs}
          onChange={(v) => turn(theOneOf(KNOBS, v))}
          data={KNOBS.map((k) => ({ value: k, label: `Knobs ${k === 'full' ? 'at full' : k}` }))}
        />
      </div>
      {fronts.map((front) => (
        <Front key={front.key} front={front} knobs={knobs} />
      ))}
    </>
  );
};

const Front = ({ front, knobs }: { front: FrontView; knobs: Knobs }) => {
  const now = theOne(front.knobs, (k) => k.knobs === knobs);
  const { tried, change, at } = useTried(front);
  return (
    <section className="card" aria-label={`Treble, ${front.instrument}`}>
      <h2>
        {front.instrument}: {front.pF > 0 ? `${front.metres} m, ${front.pF} pF` : 'no lead with a length yet'}
      </h2>
      <p>{says(now)}</p>
      <FigureChip input={front.coil} />
      {front.unmeasured > 0 && (
        <p className="soft">
          {front.unmeasured === 1 ? 'One lead has no length' : `${front.unmeasured} leads have no length`} yet and{' '}
          {front.unmeasured === 1 ? 'is' : 'are'} left out.
        </p>
      )}
      <Curve
        points={at ? now.curve.map((p) => ({ ...p, tried: at(p.hz) })) : now.curve}
        from={-24}
        to={12}
        label={`Response of ${front.instrument}, and with 3 m of cable: ${says(now)}`}
        lines={[
          { of: 'db', name: 'as it is wired', colour: 'var(--second)' },
          { of: 'reference', name: 'with 3 m of cable', colour: 'var(--strong)', dash: '5 4' },
          ...(at ? [{ of: 'tried', name: 'as tried', colour: 'var(--path)', dash: '2 3' }] : []),
        ]}
      />
      <TryFront front={front} tried={tried} change={change} />
      <div className="levels-both">
        <Pieces pieces={front.pieces} />
        <Otherwise front={front} />
      </div>
    </section>
  );
};

/** What stands out by less is no peak to the ear. */
const LEAST_PEAK_DB = 0.3;

const says = ({ peak, minus3, against }: KnobsView): string =>
  [
    peak && peak.db > LEAST_PEAK_DB ? `Its peak lies at ${hzText(peak.hz)}, ${signed(peak.db)} dB.` : 'It has no peak.',
    minus3 === undefined ? '' : `3 dB down at ${hzText(minus3)}.`,
    `Against 3 m: ${against.map(({ hz, db }) => `${signed(Math.round(db * 10) / 10)} dB at ${hzText(hz)}`).join(', ')}.`,
  ]
    .filter(Boolean)
    .join(' ');

const Pieces = memo(({ pieces }: { pieces: readonly PieceView[] }) => (
  <table className="plain tight">
    <caption>What hangs on the coil</caption>
    <thead>
      <tr>
        <th>what</th>
        <th>m</th>
        <th>pF</th>
        <th>ohm</th>
      </tr>
    </thead>
    <tbody>
      {pieces.map((p) => (
        <tr key={p.key}>
          <td>
            {p.text}
            {p.source && <span className="soft"> ({p.source})</span>}
          </td>
          <td className="mono">{p.cable ? <Metres of={p.text} cable={p.cable} /> : (p.metres ?? '')}</td>
          <td className="mono">{p.pF ?? ''}</td>
          <td className="mono">{p.from ? <FigureChip input={p.from} /> : p.ohm === undefined ? '' : ohmText(p.ohm)}</td>
        </tr>
      ))}
    </tbody>
  </table>
));

const ohmText = (ohm: number): string =>
  ohm >= 1e6 ? `${ohm / 1e6} M` : ohm >= 1000 ? `${ohm / 1000} k` : String(ohm);

const Otherwise = memo(({ front }: { front: FrontView }) => (
  <table className="plain tight">
    <caption>What else would do</caption>
    <thead>
      <tr>
        <th>instead</th>
        <th>at 5 kHz, dB</th>
        <th>peak</th>
      </tr>
    </thead>
    <tbody>
      {front.otherwise.map((o) => (
        <tr key={o.text}>
          <td>{o.text}</td>
          <td className="mono">{minus(o.at5k)}</td>
          <td className="mono">{o.peakHz === undefined ? '' : hzText(o.peakHz)}</td>
        </tr>
      ))}
    </tbody>
  </table>
));
