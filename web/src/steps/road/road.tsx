import './road.css';
import { SegmentedControl } from '@mantine/core';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import type { FailureLine } from '@yunta/core/derive/views/fails';
import { Link, useSearchParams } from 'react-router';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Failures } from './failures.js';
import { LineChecks } from './line-check.js';
import { Houses } from './houses/houses.js';
import { Logbook } from './logbook/logbook.js';
import { Monitors } from './monitors/monitors.js';
import { PackingList } from './packing/packing.js';
import { OpenPoints } from './open-points.js';
import { FindFault } from './find-fault.js';

const PARTS = [
  { value: 'dies', label: 'When something dies' },
  { value: 'find', label: 'Find the fault' },
  { value: 'check', label: 'Line check' },
  { value: 'pack', label: 'Packing' },
  { value: 'open', label: 'Open points' },
  { value: 'log', label: 'Logbook' },
  { value: 'houses', label: 'Houses' },
  { value: 'mix', label: 'Monitors' },
] as const;

/** What needs boxes that are wired, and a sound. */
const NEED_SOUNDS: readonly string[] = ['dies', 'find', 'check'];

/** On the road: what to do when something dies, and how to find out what it is. */
export const Road = () => {
  const { rig, hookup } = useRig();
  const [params, setParams] = useSearchParams();
  const part = PARTS.find((p) => p.value === params.get('show'))?.value ?? 'dies';
  const lines = useAsked(['failure lines'], (worker) => worker.answers.failureLines());
  const asked = params.get('dies') ?? undefined;
  const choose = (key: string): void => setParams({ show: 'dies', dies: key }, { replace: true });
  const isReady = soundsInOrder(rig).length > 0 && all(rig, 'cable').length > 0;
  return (
    <>
      <div className="headline">
        <h1>Road</h1>
        {part === 'dies' && lines && lines.length > 0 && <span className="soft">{headline(lines)}</span>}
        <div className="tools">
          <SegmentedControl
            aria-label="What to look at"
            size="xs"
            value={part}
            onChange={(show) => setParams({ show }, { replace: true })}
            data={[...PARTS]}
          />
        </div>
      </div>
      {part === 'pack' && hookup && <PackingList hookup={hookup} />}
      {part === 'open' && <OpenPoints />}
      {part === 'log' && <Logbook />}
      {part === 'houses' && <Houses />}
      {part === 'mix' && hookup && <Monitors hookup={hookup} />}
      {!isReady && NEED_SOUNDS.includes(part) && (
        <p className="soft">
          As soon as boxes are wired and a sound is said, it stands here what each box, lead and supply output silences
          when it fails, and the quickest way out. <Link to="../routing">Wire the rig</Link> or{' '}
          <Link to="../sounds">say a sound</Link>.
        </p>
      )}
      {isReady && part === 'check' && <LineChecks />}
      {isReady && part === 'find' && <FindFault choose={choose} />}
      {isReady && part === 'dies' && !lines && <p className="soft">Working it out …</p>}
      {isReady && part === 'dies' && lines && <Failures lines={lines} asked={asked} choose={choose} />}
    </>
  );
};

const isAllSilent = ({ counts }: FailureLine): boolean => {
  const of = Object.values(counts).reduce((a, b) => a + b, 0);
  return of > 0 && counts.silent === of;
};

const headline = (lines: readonly FailureLine[]): string => {
  const single = lines.filter(isAllSilent).length;
  if (single === 0) return 'No single thing silences every sound.';
  return `${single} of ${lines.length} things that can fail silence every sound.`;
};
