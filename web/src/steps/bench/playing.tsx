import { Button } from '@mantine/core';
import type { BenchView } from '@yunta/core/derive/bench-view';
import type { SystemState } from '@yunta/core/recall/proof/system';
import type { SaidStep } from '@yunta/core/recall/words';
import type { Ref } from '@yunta/core/rig/ids';
import { useEffect, useState } from 'react';
import { useRig } from '../../app/rig-context.js';

/** A counterexample on its way over the bench. */
export interface Play {
  readonly name: string;
  readonly control: Ref;
  readonly text: string;
  readonly wanted: string;
  readonly powerUp: SystemState;
  readonly steps: readonly SaidStep[];
}

export const Playing = ({ play, step, again, stop, bench }: { play: Play; step: number; again: () => void; stop: () => void; bench: BenchView }) => {
  const { ask } = useRig();
  const done = step >= play.steps.length - 1;
  const [stands, setStands] = useState<string>();
  useEffect(() => { void ask.stands(play.control).then(setStands); }, [ask, play.control, bench]);
  return (
    <section className="card alarm">
      <h2>How {play.name} comes back wrong</h2>
      <ol style={{ listStyle: 'none', margin: 0, padding: 0 }}>
        {play.steps.map((s, i) => <li key={i} className={i === step ? 'now' : ''} aria-current={i === step ? 'step' : undefined} style={{ padding: '4px 6px', background: i === step ? 'var(--chosen)' : undefined, opacity: i > step ? 0.65 : 1 }}><strong>{i}. {s.text}</strong> <span className="soft">{play.text} {s.value}</span></li>)}
      </ol>
      {done && stands !== undefined && <p>{stands === play.wanted ? <span className="proved">On the bench {play.text} now ends at {stands}, as wanted.</span> : <span className="broken">On the bench too: {play.text} is {stands}, wanted {play.wanted}.</span>}</p>}
      <div style={{ display: 'flex', gap: 8 }}><Button size="xs" variant="default" onClick={again}>Play it again</Button><Button size="xs" variant="default" onClick={stop}>Play freely</Button></div>
    </section>
  );
};
