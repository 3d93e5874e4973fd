import type { SoundLine } from '@yunta/core/derive/views/levels';
import { bandsApart, type BandsApart } from '@yunta/core/electric/recording/spectrum';
import { BANDS_HZ } from '@yunta/core/rig/sound';
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { hzText, minus } from './scale.js';

/** The floor on which the bars stand, in dB under full scale. */
const FLOOR = -90;

/** What a recording said of a sound octave by octave, beside the sound that is laid over it. */
export const Spectrum = ({ line, over }: { line: SoundLine; over: SoundLine | undefined }) => {
  const one = line.measured?.bands;
  const other = over?.measured?.bands;
  if (!one) return null;
  const says = over && other ? apartText(line.name, over.name, bandsApart(one, other)) : '';
  const bands = BANDS_HZ.map((hz, i) => ({
    hz: hzText(hz),
    one: Math.max(0, (one[i] ?? FLOOR) - FLOOR),
    ...(other ? { other: Math.max(0, (other[i] ?? FLOOR) - FLOOR) } : {}),
  }));
  return (
    <section aria-label={`Octaves of ${line.name}`}>
      <h3>By octaves, as recorded</h3>
      {over && !other && <p className="soft">{over.name} was not recorded here.</p>}
      {says && <p>{says}</p>}
      <div className="levels-chart" role="img" aria-label={`${line.name} by octaves: ${octaves(one)}`}>
        <ResponsiveContainer width="100%" height={170}>
          <BarChart data={bands} margin={{ top: 8, right: 12, bottom: 4, left: 0 }}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis dataKey="hz" tick={{ fill: 'var(--soft)', fontSize: 12 }} stroke="var(--strong)" />
            <YAxis
              width={44}
              tick={{ fill: 'var(--soft)', fontSize: 12 }}
              stroke="var(--strong)"
              tickFormatter={(v: number) => minus(v + FLOOR)}
            />
            <Tooltip
              contentStyle={{ background: 'var(--card)', border: '1px solid var(--strong)', color: 'var(--ink)' }}
              formatter={(value) => `${minus(Math.round(10 * (Number(value) + FLOOR)) / 10)} dBFS`}
            />
            <Bar dataKey="one" name={line.name} fill="var(--second)" isAnimationActive={false} />
            {other && <Bar dataKey="other" name={over.name} fill="var(--path)" isAnimationActive={false} />}
          </BarChart>
        </ResponsiveContainer>
        <p className="levels-key" aria-hidden="true">
          <span className="is-average">{line.name}</span>
          {other && <span className="is-other">{over.name}</span>}
          <span>dBFS</span>
        </p>
      </div>
    </section>
  );
};

const octaves = (bands: readonly number[]): string =>
  BANDS_HZ.map((hz, i) => `${hzText(hz)} ${minus(bands[i] ?? FLOOR)} dBFS`).join(', ');

const apartText = (one: string, other: string, apart: readonly BandsApart[]): string => {
  if (apart.length === 0) return `${one} and ${other} have the same colour.`;
  const stretches = apart.map(({ fromHz, toHz, db }) => {
    const where = fromHz === toHz ? `around ${hzText(fromHz)}` : `from ${hzText(fromHz)} to ${hzText(toHz)}`;
    return `${Math.abs(db)} dB ${db > 0 ? 'more' : 'less'} ${where}`;
  });
  const isFat = apart.some((a) => a.db > 0 && a.fromHz <= 250);
  return `${one} has ${stretches.join(', ')} than ${other}.${isFat ? ' What is fatter makes the next sound seem small, though a meter may call them as loud.' : ''}`;
};
