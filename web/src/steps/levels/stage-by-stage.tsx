import { Select } from '@mantine/core';
import type { SoundLine } from '@yunta/core/derive/views/levels';
import type { LevelStep, WayLevels } from '@yunta/core/derive/views/sound-levels';
import type { Id } from '@yunta/core/rig/ids';
import { useState } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceDot, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { useAsked } from '../../shared/rig-context.js';
import { Spectrum } from './spectrum.js';
import { Measured } from './measured.js';
import { HowChip } from '../../shared/figures/figure-chips.js';
import { minus, signed } from './scale.js';

/** A chosen sound from its strings to its outputs: drawn, and in figures; another can be laid over it. */
export const StageByStage = ({ line, others }: { line: SoundLine; others: readonly SoundLine[] }) => {
  const [over, layOver] = useState<Id<'sound'>>();
  const ways = useAsked(['sound-levels', line.id], (worker) => worker.answers.soundLevels(line.id));
  const other = others.find((s) => s.id === over && s.id !== line.id);
  const theirs = useAsked(['sound-levels', over], (worker) => worker.answers.soundLevels(over ?? line.id), !!over);
  return (
    <section className="card" aria-label={`${line.name}, stage by stage`}>
      <div className="levels-head">
        <h2>{line.name}, stage by stage</h2>
        <Select
          size="xs"
          aria-label="Lay another sound over it"
          placeholder="Lay another over it"
          clearable
          data={others.filter((s) => s.id !== line.id).map((s) => ({ value: s.id, label: s.name }))}
          value={other?.id ?? null}
          onChange={(id) => layOver(others.find((s) => s.id === id)?.id)}
        />
      </div>
      <Facts line={line} />
      {ways?.map((way) => (
        <Way
          key={way.key}
          way={way}
          named={ways.length > 1}
          over={other && theirs?.find((w) => w.key === way.key)}
          overName={other?.name}
        />
      ))}
      {ways?.length === 0 && <p className="soft">Nothing sounds here.</p>}
      <Measured sound={line.id} />
      <Spectrum line={line} over={other} />
    </section>
  );
};

const Facts = ({ line: { noise, ms, over } }: { line: SoundLine }) => (
  <p className="levels-facts">
    {over ? (
      <span className="broken">
        Strongest notes {over.db} dB over what {over.at} takes.
      </span>
    ) : (
      <span>Nothing clips where nobody wants it.</span>
    )}
    {noise && (
      <span>
        Noise {noise.under} dB under it, most of it from {noise.most}.
      </span>
    )}
    <span>{ms === 0 ? 'No digital delay on the way.' : `${ms} ms late.`}</span>
  </p>
);

interface Drawn {
  readonly key: string;
  readonly label: string;
  readonly code: string;
  readonly average?: number;
  readonly peak?: number;
  readonly other?: number;
}

/** The two courses one after the other of their stages: what both have stands at one place. */
const laidOver = (steps: readonly LevelStep[], others: readonly LevelStep[]): readonly Drawn[] => {
  const theirs = new Map(others.map((s) => [s.key, s]));
  const drawn: Drawn[] = steps.map(({ key, label, code, average, peak }) => {
    const other = theirs.get(key)?.average;
    return { key, label, code, average, peak, ...(other === undefined ? {} : { other }) };
  });
  const own = new Set(steps.map((s) => s.key));
  let place = 0;
  for (const step of others) {
    if (own.has(step.key)) place = drawn.findIndex((d) => d.key === step.key) + 1;
    else drawn.splice(place++, 0, { key: step.key, label: step.label, code: step.code, other: step.average });
  }
  return drawn;
};

const clips = ({ takes, peak }: LevelStep): boolean => takes !== undefined && peak > takes;
/** What is drawn: stages, and the inputs that are overloaded; the small losses of joints stand in the table. */
const told = (steps: readonly LevelStep[]): readonly LevelStep[] => steps.filter((s) => s.is !== 'input' || clips(s));

const Way = ({
  way,
  named,
  over,
  overName,
}: {
  way: WayLevels;
  named: boolean;
  over: WayLevels | undefined;
  overName: string | undefined;
}) => {
  const drawn = laidOver(told(way.steps), told(over?.steps ?? []));
  const takes = way.steps.filter(clips);
  return (
    <div className="levels-way">
      {named && <h3>From {way.source}</h3>}
      <div className="levels-chart" role="img" aria-label={`Level stage by stage, ${way.source}: in the table below`}>
        <ResponsiveContainer width="100%" height={220}>
          <LineChart data={[...drawn]} margin={{ top: 8, right: 12, bottom: 4, left: 0 }}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="key"
              tickFormatter={(key: string) => drawn.find((d) => d.key === key)?.code ?? ''}
              tick={{ fill: 'var(--soft)', fontSize: 12 }}
              stroke="var(--strong)"
            />
            <YAxis
              width={44}
              tick={{ fill: 'var(--soft)', fontSize: 12 }}
              stroke="var(--strong)"
              tickFormatter={(v: number) => minus(v)}
            />
            <Tooltip
              contentStyle={{ background: 'var(--card)', border: '1px solid var(--strong)', color: 'var(--ink)' }}
              labelFormatter={(key) => drawn.find((d) => d.key === key)?.label ?? ''}
              formatter={(value) => `${minus(Number(value))} dBu`}
            />
            <Line
              dataKey="peak"
              name="strongest"
              stroke="var(--strong)"
              strokeDasharray="5 4"
              dot={false}
              isAnimationActive={false}
            />
            <Line
              dataKey="average"
              name="on average"
              stroke="var(--second)"
              strokeWidth={2.5}
              dot={{ r: 2.5 }}
              isAnimationActive={false}
            />
            {over && (
              <Line
                dataKey="other"
                name={overName ?? 'the other'}
                stroke="var(--path)"
                strokeWidth={2.5}
                strokeDasharray="2 3"
                dot={{ r: 2.5 }}
                connectNulls
                isAnimationActive={false}
              />
            )}
            {takes.map((s) => (
              <ReferenceDot key={s.key} x={s.key} y={s.peak} r={5} fill="var(--accent)" stroke="var(--card)" />
            ))}
          </LineChart>
        </ResponsiveContainer>
        <p className="levels-key" aria-hidden="true">
          <span className="is-average">on average</span>
          <span className="is-peak">strongest</span>
          {over && <span className="is-other">{overName}, on average</span>}
          <span>dBu</span>
        </p>
      </div>
      <Figures steps={way.steps} />
      <p>
        {way.outputs.map((o) => (
          <span key={o.key} className="levels-out">
            <strong>{o.text}</strong> {minus(o.average)} dBu, strongest {minus(o.peak)}
          </span>
        ))}
      </p>
    </div>
  );
};

const Figures = ({ steps }: { steps: readonly LevelStep[] }) => (
  <details>
    <summary>In figures, and how each came about</summary>
    <table className="plain tight">
      <thead>
        <tr>
          <th>place</th>
          <th>average, dBu</th>
          <th>strongest</th>
          <th>change, dB</th>
          <th>to spare</th>
          <th>how</th>
        </tr>
      </thead>
      <tbody>
        {steps.map((s) => (
          <tr key={s.key}>
            <td>{s.label}</td>
            <td className="mono">{minus(s.average)}</td>
            <td className="mono">{minus(s.peak)}</td>
            <td className="mono">{s.gain === undefined ? '' : signed(s.gain)}</td>
            <td className={clips(s) ? 'mono broken' : 'mono'}>
              {s.takes === undefined ? '' : minus(Math.round(10 * (s.takes - s.peak)) / 10)}
            </td>
            <td>
              <HowChip of={s.label} how={s.how} from={s.from} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  </details>
);
