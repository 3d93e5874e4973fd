import { Button, FileButton, NativeSelect } from '@mantine/core';
import type { SoundLine } from '@yunta/core/derive/views/levels';
import type { Take } from '@yunta/core/electric/recording/takes';
import type { Id } from '@yunta/core/rig/ids';
import { BANDS_HZ, type MeasuredLevel } from '@yunta/core/rig/sound';
import { setMeasured } from '@yunta/core/edits/sounds';
import { partOf } from '@yunta/core/rig/rig';
import { sayRefusal, type Refusal, type Result } from '@yunta/core/rig/result';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { planned } from '../../worker/planned.js';
import { today } from '../../shared/today.js';
import { hzText, minus } from './scale.js';

const tenth = (value: number): number => Math.round(value * 10) / 10;
const NOBODY = '';

type Listened = Result<readonly Take[], readonly Refusal[]>;

/** What was heard on a recording, and which sound each take is. */
interface Heard {
  readonly name: string;
  readonly takes: readonly Take[];
  /** By take: the sound that it is, or nobody's. */
  readonly of: readonly string[];
  /** By take with a hole: from which sound it changes to that one. */
  readonly after: readonly (Id<'sound'> | undefined)[];
}

/** Levels from a recording: sounds played one after another are cut apart, measured, and written down. */
export const FromRecording = ({ lines }: { lines: readonly SoundLine[] }) => {
  const { rig, edit, hookup } = useRig();
  const [heard, hear] = useState<Heard>();
  const [says, say] = useState('');
  const listen = async (file: File | null) => {
    if (!file) return;
    hear(undefined);
    say(`Listening to ${file.name} …`);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { plan } = await planned<Listened>(async (planning) => planning.recording(bytes, file.name));
    if (!plan) return say('It could not be read.');
    if (!plan.ok) return say(plan.error.map(sayRefusal).join(' '));
    if (plan.value.length === 0)
      return say(`${file.name} is silent, or shorter than 0.4 s: there is nothing to measure.`);
    say('');
    hear({
      name: file.name,
      takes: plan.value,
      of: plan.value.map((_, i) => lines[i]?.id ?? NOBODY),
      after: plan.value.map(() => undefined),
    });
  };
  const write = () => {
    if (!heard || !hookup) return;
    const put = lines.flatMap((line) => {
      const take = heard.takes[heard.of.lastIndexOf(line.id)];
      const sound = partOf(rig, line.id);
      if (!take || !sound) return [];
      const after = heard.after[heard.of.lastIndexOf(line.id)];
      const level: Omit<MeasuredLevel, 'hookup'> = {
        db: tenth(take.lufs),
        unit: 'LUFS',
        on: today(),
        with: heard.name.slice(0, 100),
        ...(take.bands.length === BANDS_HZ.length ? { bands: take.bands.map((b) => Math.max(-200, tenth(b.db))) } : {}),
        ...(take.holeMs > 0 && after ? { hole: { ms: take.holeMs, after } } : {}),
      };
      return setMeasured(sound, hookup.id, level).put;
    });
    const refused = edit({ put, remove: [] }, `Measured from ${heard.name}`);
    if (refused.length === 0) hear(undefined);
  };
  return (
    <section className="card" aria-label="From a recording">
      <div className="levels-head">
        <h2>From a recording</h2>
        <FileButton accept=".wav,audio/wav" onChange={(file) => void listen(file)}>
          {(props) => (
            <Button size="xs" variant="default" {...props}>
              Open a WAV file
            </Button>
          )}
        </FileButton>
      </div>
      <p className="soft">
        Play the sounds one after another with a second of silence between them. They are cut apart, and each is
        measured (loudness by ITU-R BS.1770, and by octaves). Change sounds within one take, and the hole of the change
        is measured too.
      </p>
      {says && <p role="status">{says}</p>}
      {heard && (
        <>
          <table className="plain tight">
            <thead>
              <tr>
                <th>take</th>
                <th>sound</th>
                <th>LUFS</th>
                <th>peak, dBFS</th>
                <th>loudest octave</th>
                <th>hole, ms</th>
              </tr>
            </thead>
            <tbody>
              {heard.takes.map((take, i) => (
                <TakeRow
                  key={take.from}
                  take={take}
                  lines={lines}
                  of={heard.of[i] ?? NOBODY}
                  choose={(id) => hear({ ...heard, of: heard.of.with(i, id) })}
                  after={heard.after[i]}
                  chooseAfter={(id) => hear({ ...heard, after: heard.after.with(i, id) })}
                />
              ))}
            </tbody>
          </table>
          <div>
            <Button size="xs" onClick={write}>
              Write these down
            </Button>
          </div>
        </>
      )}
    </section>
  );
};

const TakeRow = ({
  take,
  lines,
  of,
  choose,
  after,
  chooseAfter,
}: {
  take: Take;
  lines: readonly SoundLine[];
  of: string;
  choose: (id: string) => void;
  after: Id<'sound'> | undefined;
  chooseAfter: (id: Id<'sound'> | undefined) => void;
}) => {
  const when = `${tenth(take.from)} to ${tenth(take.to)} s`;
  const loudest = take.bands.reduce((a, b) => (b.db > a.db ? b : a));
  return (
    <tr>
      <td>{when}</td>
      <td>
        <NativeSelect
          size="xs"
          aria-label={`Sound of the take ${when}`}
          value={of}
          data={[{ value: NOBODY, label: 'none of them' }, ...lines.map((l) => ({ value: l.id, label: l.name }))]}
          onChange={(e) => choose(e.currentTarget.value)}
        />
      </td>
      <td className="mono">{minus(tenth(take.lufs))}</td>
      <td className={take.atFull >= 3 ? 'mono broken' : 'mono'}>
        {minus(tenth(take.peak))}
        {take.atFull >= 3 && ' clipped'}
      </td>
      <td className="mono">{hzText(loudest.hz)}</td>
      <td className="mono">
        {take.holeMs || '–'}
        {take.holeMs > 0 && (
          <NativeSelect
            size="xs"
            aria-label={`Sound before the hole of the take ${when}`}
            value={after ?? NOBODY}
            data={[
              { value: NOBODY, label: 'in the change from …' },
              ...lines.map((l) => ({ value: l.id, label: `from ${l.name}` })),
            ]}
            onChange={(e) => chooseAfter(lines.find((l) => l.id === e.currentTarget.value)?.id)}
          />
        )}
      </td>
    </tr>
  );
};
