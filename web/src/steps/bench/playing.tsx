import { Button } from '@mantine/core';
import type { SystemState } from '@yunta/core/prover/system';
import type { SaidStep } from '@yunta/core/recall/words/words';
import type { Ref } from '@yunta/core/rig/ids';
import { useEffect, useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import type { DoOnBench } from './act.js';

const PACE_MS = 900;

/** A counterexample on its way over the bench. */
export interface Play {
  readonly name: string;
  readonly control: Ref;
  readonly text: string;
  readonly wanted: string;
  readonly powerUp: SystemState;
  readonly steps: readonly SaidStep[];
}

/** How far one has come, and where its control stood after the last footstep. */
export interface Progress {
  readonly of: Play | undefined;
  readonly step: number;
  readonly end?: string | undefined;
}

/**
 * Takes the footsteps one after the other, each when what the one before did can be seen. Another object is begun
 * anew, even one of the same footsteps.
 */
export const useProgress = (play: Play | undefined, act: DoOnBench): Progress => {
  const { ask } = useRig();
  const [reached, setReached] = useState<Progress>({ of: undefined, step: 0 });
  const progress: Progress = reached.of === play ? reached : { of: play, step: 0 };
  const { step } = progress;
  useEffect(() => {
    const next = play?.steps[step + 1];
    if (!play || !next) return undefined;
    let isGivenUp = false;
    const take = async () => {
      const after = play.steps[step + 2];
      if (next.event)
        await act({ step: next.event, ...(after?.afterMs === undefined ? {} : { nextMs: after.afterMs }) });
      const end = after ? undefined : await ask.bench.stands(play.control);
      if (!isGivenUp) setReached({ of: play, step: step + 1, end });
    };
    const timer = setTimeout(() => void take(), PACE_MS);
    return () => {
      isGivenUp = true;
      clearTimeout(timer);
    };
  }, [play, step, act, ask]);
  return progress;
};

export const Playing = ({
  play,
  progress: { step, end },
  again,
  stop,
}: {
  play: Play;
  progress: Progress;
  again: () => void;
  stop: () => void;
}) => (
  <section className="card alarm">
    <h2>How {play.name} comes back wrong</h2>
    <ol style={{ listStyle: 'none', margin: 0, padding: 0 }}>
      {play.steps.map((s, i) => (
        <li
          key={i}
          className={i === step ? 'now' : ''}
          aria-current={i === step ? 'step' : undefined}
          style={{
            padding: '4px 6px',
            background: i === step ? 'var(--chosen)' : undefined,
            opacity: i > step ? 0.65 : 1,
          }}
        >
          <strong>
            {i}. {s.text}
          </strong>{' '}
          <span className="soft">
            {play.text} {s.value}
          </span>
        </li>
      ))}
    </ol>
    {end !== undefined && (
      <p role="status">
        {end === play.wanted ? (
          <span className="proved">
            On the bench {play.text} now ends at {end}, as wanted.
          </span>
        ) : (
          <span className="broken">
            On the bench too: {play.text} is {end}, wanted {play.wanted}.
          </span>
        )}
      </p>
    )}
    <div style={{ display: 'flex', gap: 8 }}>
      <Button size="xs" variant="default" onClick={again}>
        Play it again
      </Button>
      <Button size="xs" variant="default" onClick={stop}>
        Play freely
      </Button>
    </div>
  </section>
);
