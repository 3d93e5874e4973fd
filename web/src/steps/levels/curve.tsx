import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { HZ_TICKS, hzText, minus } from './scale.js';

/** A course over frequency that is drawn: its colour and how it is dashed, so that colour never says it alone. */
export interface CurveLine {
  readonly of: string;
  readonly name: string;
  readonly colour: string;
  readonly dash?: string;
}

const STEP_DB = 6;
const ticks = (from: number, to: number): number[] =>
  Array.from(
    { length: Math.floor((to - from) / STEP_DB) + 1 },
    (_, i) => Math.ceil(from / STEP_DB) * STEP_DB + i * STEP_DB,
  );

/** Levels over frequency, on a scale of ratios from 20 Hz to 20 kHz. */
export const Curve = ({
  points,
  lines,
  label,
  from,
  to,
}: {
  points: readonly object[];
  lines: readonly CurveLine[];
  label: string;
  from: number;
  to: number;
}) => (
  <div className="levels-chart" role="img" aria-label={label}>
    <ResponsiveContainer width="100%" height={240}>
      <LineChart data={[...points]} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
        <CartesianGrid stroke="var(--line)" />
        <XAxis
          dataKey="hz"
          type="number"
          scale="log"
          domain={[20, 20_000]}
          ticks={HZ_TICKS}
          tickFormatter={(hz: number) => (hz >= 1000 ? `${hz / 1000}k` : String(hz))}
          tick={{ fill: 'var(--soft)', fontSize: 12 }}
          stroke="var(--strong)"
        />
        <YAxis
          width={44}
          domain={[from, to]}
          ticks={ticks(from, to)}
          allowDataOverflow
          tick={{ fill: 'var(--soft)', fontSize: 12 }}
          stroke="var(--strong)"
          tickFormatter={(v: number) => minus(v)}
        />
        <Tooltip
          contentStyle={{ background: 'var(--card)', border: '1px solid var(--strong)', color: 'var(--ink)' }}
          labelFormatter={(hz) => hzText(Number(hz))}
          formatter={(value) => `${minus(Math.round(Number(value) * 10) / 10)} dB`}
        />
        {lines.map(({ of, name, colour, dash }) => (
          <Line
            key={of}
            dataKey={of}
            name={name}
            stroke={colour}
            strokeWidth={2.5}
            {...(dash ? { strokeDasharray: dash } : {})}
            dot={false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
    <p className="levels-key" aria-hidden="true">
      {lines.map(({ of, name, colour, dash }) => (
        <span key={of}>
          <svg width="26" height="8">
            <line x1="0" y1="4" x2="26" y2="4" stroke={colour} strokeWidth="2.5" strokeDasharray={dash} />
          </svg>
          {name}
        </span>
      ))}
      <span>dB over Hz</span>
    </p>
  </div>
);
