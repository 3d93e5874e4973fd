import { Button, Select } from '@mantine/core';
import type { FaultFinder, SuspectView } from '@yunta/core/derive/views/fault-finder';
import { halving } from '@yunta/core/plan/fails/halving';
import type { Id } from '@yunta/core/rig/ids';
import { soundsInOrder } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';

/** A sound is silent: which thing is dead, in the fewest tests. */
export const FindFault = ({ choose }: { choose: (key: string) => void }) => {
  const { rig } = useRig();
  const sounds = soundsInOrder(rig);
  const [asked, ask] = useState<Id<'sound'>>();
  const sound = sounds.find((s) => s.id === asked) ?? sounds[0];
  const finder = useAsked(['fault finder', sound?.id], (worker) => worker.answers.faultFinder(sound?.id));
  if (!sound) return null;
  return (
    <section className="card road-find-fault">
      <Select
        label="Which sound is silent?"
        searchable
        allowDeselect={false}
        data={sounds.map((s) => ({ value: s.id, label: s.name }))}
        value={sound.id}
        onChange={(id) => ask(sounds.find((s) => s.id === id)?.id)}
      />
      {!finder ? (
        <p className="soft">It cannot be followed in this hook-up: it comes to no end.</p>
      ) : (
        <Search key={sound.id} finder={finder} choose={choose} />
      )}
    </section>
  );
};

/** From which suspect to which it may still be; each answer halves what is left. */
type Stretch = readonly [from: number, to: number];

const Search = ({ finder: { suspects, first }, choose }: { finder: FaultFinder; choose: (key: string) => void }) => {
  const [answers, setAnswers] = useState<readonly Stretch[]>([[0, suspects.length]]);
  const [from, to] = answers.at(-1) ?? [0, suspects.length];
  const left = suspects.slice(from, to);
  const { behind, expected, most } = halving(left.map((s) => s.weight));
  const next = behind === undefined ? undefined : left[behind];
  const at = from + (behind ?? 0) + 1;
  return (
    <>
      {answers.length === 1 && (
        <>
          <h2>First, without a plug</h2>
          <ul>
            {first.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </>
      )}
      <div aria-live="polite">
        {next?.listen ? (
          <>
            <h2>Test {answers.length}</h2>
            <p className="road-test">{next.listen}</p>
            <div className="road-answers">
              <Button size="md" onClick={() => setAnswers([...answers, [at, to]])}>
                There is sound
              </Button>
              <Button size="md" variant="default" onClick={() => setAnswers([...answers, [from, at]])}>
                Nothing
              </Button>
            </div>
            <p className="soft">
              {left.length} things left; {expected.toFixed(1)} tests on average, {most} at most. Leads and plugs are
              taken to fail most (common practice, assumed).
            </p>
          </>
        ) : (
          <Found left={left} choose={choose} />
        )}
      </div>
      {answers.length > 1 && (
        <Button size="xs" variant="default" onClick={() => setAnswers(answers.slice(0, -1))}>
          Back
        </Button>
      )}
    </>
  );
};

const Found = ({ left, choose }: { left: readonly SuspectView[]; choose: (key: string) => void }) => {
  const [one] = left;
  if (!one) return null;
  return (
    <>
      <h2>It is {left.map((s) => s.text).join('; or ')}</h2>
      <Button size="md" onClick={() => choose(one.key)}>
        The way out
      </Button>
    </>
  );
};
