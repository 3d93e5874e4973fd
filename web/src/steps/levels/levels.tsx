import './levels.css';
import { SegmentedControl, Select } from '@mantine/core';
import { soundsInOrder } from '@yunta/core/rig/rig';
import type { Id } from '@yunta/core/rig/ids';
import { Link, useSearchParams } from 'react-router';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Meetings } from './meet.js';
import { Noise } from './noise.js';
import { FromRecording } from './recording.js';
import { SoundSteps } from './sound-steps.js';
import { Speakers } from './speakers.js';
import { StageByStage } from './stage-by-stage.js';
import { Treble } from './treble.js';

const PARTS = [
  { value: 'steps', label: 'Sounds' },
  { value: 'treble', label: 'Treble' },
  { value: 'noise', label: 'Noise' },
  { value: 'meet', label: 'Ways that meet' },
  { value: 'speakers', label: 'Loudspeakers' },
] as const;

/** How loud, how bright, how quiet: the numbers behind what is heard. */
export const LevelsRoom = () => {
  const { rig } = useRig();
  const [params, setParams] = useSearchParams();
  const part = PARTS.find((p) => p.value === params.get('show'))?.value ?? 'steps';
  const levels = useAsked(['levels'], (worker) => worker.answers.levels());
  const sounds = soundsInOrder(rig);
  const here = levels?.sounds ?? [];
  const asked = params.get('sound');
  const chosen = here.find((s) => s.id === asked) ?? here.find((s) => s.off !== 0) ?? here[0];
  const show = (to: Readonly<Record<string, string>>): void =>
    setParams({ show: part, ...(chosen ? { sound: chosen.id } : {}), ...to }, { replace: true });
  const choose = (id: Id<'sound'>): void => show({ sound: id });
  return (
    <div className="levels">
      <div className="headline">
        <h1>Levels</h1>
        {levels && here.length > 0 && <span className="soft">{headline(levels.off, here.length)}</span>}
        <div className="tools">
          {part !== 'steps' && part !== 'speakers' && chosen && (
            <Select
              size="xs"
              aria-label="Sound"
              allowDeselect={false}
              data={here.map((s) => ({ value: s.id, label: s.name }))}
              value={chosen.id}
              onChange={(id) => id && show({ sound: id })}
            />
          )}
          <SegmentedControl
            aria-label="Which numbers"
            size="xs"
            value={part}
            onChange={(v) => show({ show: v })}
            data={[...PARTS]}
          />
        </div>
      </div>
      {sounds.length === 0 && part !== 'speakers' && (
        <p className="soft">
          There is no sound yet. <Link to="../sounds">Say one in the sheet</Link>, then its levels stand here.
        </p>
      )}
      {!levels && sounds.length > 0 && part !== 'speakers' && <p className="soft">Working it out …</p>}
      {levels && sounds.length > 0 && here.length === 0 && part !== 'speakers' && (
        <p className="soft">No sound can be followed in this hook-up yet: wire it first.</p>
      )}
      {levels && chosen && part === 'steps' && (
        <div className="levels-both">
          <SoundSteps levels={levels} chosen={chosen.id} choose={choose} />
          <div className="levels-right">
            <StageByStage line={chosen} others={here} />
            <FromRecording lines={here} />
          </div>
        </div>
      )}
      {chosen && part === 'treble' && <Treble sound={chosen.id} />}
      {chosen && part === 'noise' && <Noise sound={chosen.id} />}
      {levels && chosen && part === 'meet' && <Meetings sound={chosen.id} earths={levels.earths} />}
      {part === 'speakers' && <Speakers />}
    </div>
  );
};

const headline = (off: number, of: number): string =>
  off === 0 ? `${of} sounds lie where they are wanted` : `${off} of ${of} sounds lie elsewhere than wanted`;
