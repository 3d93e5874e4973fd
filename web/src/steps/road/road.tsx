import './road.css';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import { Link, useSearchParams } from 'react-router';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Failures } from './failures.js';

/** On the road: what to do when something dies. */
export const Road = () => {
  const { rig, hookup } = useRig();
  const [params, setParams] = useSearchParams();
  const lines = useAsked(['failure lines'], (worker) => worker.answers.failureLines());
  const asked = params.get('dies') ?? undefined;
  const choose = (key: string): void => setParams({ show: 'dies', dies: key }, { replace: true });
  const isReady = hookup !== undefined && soundsInOrder(rig).length > 0 && all(rig, 'cable').length > 0;
  return (
    <>
      <div className="headline">
        <h1>When something dies</h1>
        {lines && lines.length > 0 && <span className="soft">{headline(lines.map((l) => l.counts))}</span>}
      </div>
      {!isReady && (
        <p className="soft">
          As soon as boxes are wired and a sound is said, it stands here what each box, lead and supply output silences
          when it fails, and the quickest way out. <Link to="../routing">Wire the rig</Link> or{' '}
          <Link to="../sounds">say a sound</Link>.
        </p>
      )}
      {isReady && !lines && <p className="soft">Working it out …</p>}
      {isReady && lines && <Failures lines={lines} asked={asked} choose={choose} />}
    </>
  );
};

type Counts = Readonly<Record<string, number>>;

const isAllSilent = (counts: Counts): boolean => {
  const of = Object.values(counts).reduce((a, b) => a + b, 0);
  return of > 0 && counts['silent'] === of;
};

const headline = (all: readonly Counts[]): string => {
  const single = all.filter(isAllSilent).length;
  if (single === 0) return 'No single thing silences every sound.';
  return `${single} of ${all.length} things that can fail silence every sound.`;
};
