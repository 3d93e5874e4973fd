import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { useMemo } from 'react';
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

const MARGIN = { top: 8, right: 16, bottom: 4, left: 0 };
const TICK = { fill: 'var(--soft)', fontSize: 12 };
const TIP = { background: 'var(--card)', border: '1px solid var(--strong)', color: 'var(--ink)' };
const AUDIBLE = [20, 20_000];

/** What does not change while something is dragged is made once: the chart follows the hand. */
const useParts = (lines: readonly CurveLine[], from: number, to: number) => {
  const key = JSON.stringify(lines);
  return useMemo(
    () => [
      <CartesianGrid key="grid" stroke="var(--line)" />,
      <XAxis
        key="hz"
        dataKey="hz"
        type="number"
        scale="log"
        domain={AUDIBLE}
        ticks={HZ_TICKS}
        tickFormatter={(hz: number) => (hz >= 1000 ? `${hz / 1000}k` : String(hz))}
        tick={TICK}
        stroke="var(--strong)"
      />,
      <YAxis
        key="db"
        width={44}
        domain={[from, to]}
        ticks={ticks(from, to)}
        allowDataOverflow
        tick={TICK}
        stroke="var(--strong)"
        tickFormatter={(v: number) => minus(v)}
      />,
      <Tooltip
        key="tip"
        contentStyle={TIP}
        labelFormatter={(hz) => hzText(Number(hz))}
        formatter={(value) => `${minus(Math.round(Number(value) * 10) / 10)} dB`}
      />,
      ...lines.map(({ of, name, colour, dash }) => (
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
      )),
    ],
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the lines are alike as long as they say the same
    [key, from, to],
  );
};

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
      <LineChart data={[...points]} margin={MARGIN}>
        {useParts(lines, from, to)}
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
