import type { GateView, OutputView } from '@yunta/core/derive/views/sound-levels';
import type { Id } from '@yunta/core/rig/ids';
import { FigureChip } from '../../shared/figures/figure-chips.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { mixStep } from '@yunta/core/electric/levels/gates';
import { partOf } from '@yunta/core/rig/rig';
import { NoiseSearch } from './noise-search.js';
import { minus } from './scale.js';

/** What hisses at each output of a sound, and which box makes how much of it. */
export const Noise = ({ sound }: { sound: Id<'sound'> }) => {
  const ways = useAsked(['sound-levels', sound], (worker) => worker.answers.soundLevels(sound));
  const { rig } = useRig();
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
          <Gates gates={way.gates} />
        </section>
      ))}
      <NoiseSearch
        key={sound}
        sound={partOf(rig, sound)?.name ?? ''}
        outputs={ways.flatMap((way) =>
          way.outputs.map((o) => ({
            key: `${way.key} ${o.key}`,
            text: ways.length > 1 ? `${o.text}, ${way.source}` : o.text,
            suspects: o.suspects,
          })),
        )}
      />
    </>
  );
};

/** Where the threshold of each gate has its place. */
const Gates = ({ gates }: { gates: readonly GateView[] }) =>
  gates.map(({ key, text, noise, sound, wet }) => (
    <div key={key}>
      <h3>Threshold of {text}</h3>
      <p>
        In a pause noise comes to it at {minus(noise)} dBu; what plays at {minus(sound)} dBu.
        {wet.length === 0 && ` Anywhere between parts them.`}
      </p>
      {wet.map((w) => (
        <p key={w.text}>
          {w.dbu === undefined ? (
            <>
              The repeats of {w.text} come before it and must pass: set the threshold while they ring out. How much of
              them is mixed in is not written down.
            </>
          ) : (
            <>
              The wet sound of {w.text} at {w.percent} % comes at {minus(w.dbu)} dBu:{' '}
              {w.dbu > noise
                ? `set the threshold between ${minus(noise)} and ${minus(w.dbu)} dBu.`
                : 'it lies under the noise, so a gate there cuts it.'}{' '}
              Half as much again of it, {Math.round(1.5 * (w.percent ?? 0))} %, brings{' '}
              {Math.round(10 * mixStep(2, 3)) / 10} dB more.
            </>
          )}
        </p>
      ))}
    </div>
  ));

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
