import { SegmentedControl, Select } from '@mantine/core';
import type { Look, WithAndWithout } from '@yunta/core/derive/views/without';
import { someOf } from '@yunta/core/known/some-of';
import { theId, type Id } from '@yunta/core/rig/ids';
import { all, partOf } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { ConsequencesText } from '../../shared/consequences-text.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { UsedIn } from '../../shared/use-of-box.js';
import { RunDrawing } from '../../picture/run.js';

const LOOKS = [
  { value: 'without', label: 'Without it' },
  { value: 'only', label: 'Only through it' },
];

/** The sound without a box, its leads joined; or of several ways beside each other only the one that passes it. */
export const Without = ({
  sound,
  device,
  look,
}: {
  sound: Sound;
  device: Id<'device'> | undefined;
  look: (device: Id<'device'>) => void;
}) => {
  const { rig } = useRig();
  const [how, setHow] = useState<Look>('without');
  const box = device && partOf(rig, device);
  const dry = useAsked(['dry path', sound.id], (worker) => worker.answers.dryPath(sound.id));
  return (
    <section className="without" aria-label="With and without a box">
      <div className="without-how">
        <Select
          size="xs"
          aria-label="Which box"
          placeholder="Press a tag above, or choose a box"
          searchable
          w={260}
          value={device ?? null}
          data={all(rig, 'device').map((d) => ({ value: d.id, label: `${d.code} ${d.name}` }))}
          onChange={(v) => v && look(theId('device', v))}
        />
        {box && (
          <SegmentedControl
            size="xs"
            aria-label="What to look at"
            data={LOOKS}
            value={how}
            onChange={(v) => setHow(v === 'only' ? 'only' : 'without')}
          />
        )}
      </div>
      {box && <Shown key={`${box.id} ${how}`} sound={sound} device={box.id} code={box.code} how={how} />}
      {box && <UsedIn device={box.id} code={box.code} />}
      {dry && (
        <p className="without-said">
          <strong>The direct sound:</strong> {dry.says}
          {dry.unsaid.length > 0 && (
            <span className="soft"> Nobody said it of {someOf(dry.unsaid, 4)}: it is a figure of the box.</span>
          )}
        </p>
      )}
    </section>
  );
};

const levelText = ({ end, db }: WithAndWithout['levels'][number]): string =>
  db === undefined
    ? `${end}: silent then`
    : db === 0
      ? `${end}: as loud`
      : `${end}: ${Math.abs(db)} dB ${db < 0 ? 'softer' : 'louder'}`;

interface ShownProps {
  readonly sound: Sound;
  readonly device: Id<'device'>;
  readonly code: string;
  readonly how: Look;
}

const Shown = ({ sound, device, code, how }: ShownProps) => {
  const { rig } = useRig();
  const shown = useAsked(['without', sound.id, device, how], (worker) =>
    worker.answers.withAndWithout(sound.id, device, how),
  );
  if (!shown) return <p className="soft">Working it out …</p>;
  const what = `${how === 'only' ? 'only through' : 'without'} ${code}`;
  const said = (id: Id<'device'>) => partOf(rig, id) ?? { code: '?', name: id };
  return (
    <>
      <h2>
        {sound.name} {what}
      </h2>
      {shown.runs.b.some(Boolean) ? (
        <RunDrawing
          names="in one row"
          items={shown.runs.b}
          beside={shown.runs.a}
          label={`Run of ${sound.name} ${what}`}
          said={said}
        />
      ) : (
        <p className="broken">Silent.</p>
      )}
      {shown.levels.length > 0 && (
        <p className="without-said">
          <strong>Level:</strong> {shown.levels.map(levelText).join('; ')}.{' '}
          <span className="soft">By gains that are partly assumed.</span>
        </p>
      )}
      {shown.brings && (
        <div className="without-said">
          <strong>What else is then otherwise</strong>
          <ConsequencesText would={shown.brings} />
        </div>
      )}
    </>
  );
};
