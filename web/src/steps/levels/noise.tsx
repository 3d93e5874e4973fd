import type { OutputView } from '@yunta/core/derive/views/sound-levels';
import type { Id } from '@yunta/core/rig/ids';
import { FigureChip } from '../../shared/figures/figure-chips.js';
import { useAsked } from '../../shared/rig-context.js';
import { minus } from './scale.js';

/** What hisses at each output of a sound, and which box makes how much of it. */
export const Noise = ({ sound }: { sound: Id<'sound'> }) => {
  const ways = useAsked(['sound-levels', sound], (worker) => worker.answers.soundLevels(sound));
  if (!ways) return <p className="soft">Working it out …</p>;
  return (
    <>
      <p className="soft">
        Each stage’s own noise, through the gains behind it. Noises are unlike, so their powers add. At the end of each
        line stands what a box makes by itself: a typical value, until somebody writes down what it really does.
      </p>
      {ways.map((way) => (
        <section key={way.key} className="card" aria-label={`Noise, ${way.source}`}>
          <h2>{way.source}</h2>
          <div className="levels-outputs">
            {way.outputs.map((output) => (
              <Output key={output.key} output={output} />
            ))}
          </div>
        </section>
      ))}
    </>
  );
};

const Output = ({ output: { text, average, noise, paused, shares } }: { output: OutputView }) => (
  <div>
    <h3>{text}</h3>
    <p>
      Noise {minus(noise)} dBu, {Math.round((average - noise) * 10) / 10} dB under the sound.{' '}
      {paused < noise - 0.5 && <>In a pause the gate takes it to {minus(paused)} dBu.</>}
    </p>
    <ol className="noise-shares">
      {shares.map((s) => (
        <li key={s.text}>
          <span title={s.text}>{s.text}</span>
          <span className="noise-bar" aria-hidden="true">
            <span style={{ width: `${s.percent}%` }} />
          </span>
          <span className="mono" title={`${minus(s.dbu)} dBu here`}>
            {s.percent < 1 ? '<1' : s.percent} %<span className="visually-hidden"> of it, {minus(s.dbu)} dBu</span>
          </span>
          {s.from && <FigureChip input={s.from} />}
        </li>
      ))}
    </ol>
  </div>
);
