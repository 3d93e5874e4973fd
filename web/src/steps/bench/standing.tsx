import { Button, Checkbox } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import type { BenchView } from '@yunta/core/derive/views/bench-view';
import { dropTest, keepTest } from '@yunta/core/edits/standing';
import { useEffect, useState } from 'react';
import type { Played } from '../../worker/bench-play.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { newPartId } from '../../session/ids.js';
import { fits, TextField } from '../../shared/text-field.js';

/** What was just played becomes a test: its steps, and what of the boxes must stand so at the end. */
export const KeepTest = ({ bench, done }: { bench: BenchView; done: () => void }) => {
  const { ask, hookup, edit } = useRig();
  const [played, setPlayed] = useState<Played>();
  const [name, setName] = useState('');
  const [expected, expect] = useState<ReadonlySet<string>>();
  useEffect(() => {
    void ask.bench.played().then((p) => {
      setPlayed(p);
      expect(new Set(p?.expects.filter((e) => e.wanted).map((e) => e.control)));
    });
  }, [ask, bench]);
  if (!played || !hookup) return null;
  const chosen = played.expects.filter((e) => expected?.has(e.control));
  const turn = (control: string) =>
    expect(
      new Set(expected?.has(control) ? [...expected].filter((c) => c !== control) : [...(expected ?? []), control]),
    );
  const save = () => {
    if (
      edit(
        keepTest(
          newPartId('standingTest'),
          hookup.id,
          name.trim(),
          played.steps.map((s) => s.step),
          chosen.map(({ control, value }) => ({ control, value })),
        ),
        `Keep test ${name.trim()}`,
      ).length === 0
    )
      done();
  };
  return (
    <form
      className="card"
      style={{ marginBottom: 14 }}
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim() && chosen.length && played.steps.length) save();
      }}
    >
      <h2>Keep as a test</h2>
      {played.faulty && (
        <p className="soft" style={{ margin: 0 }}>
          Something went wrong on the bench since the power came on, or a stomp came before everything had settled. A
          test is played on a rig that is whole, at rest. Power up again first.
        </p>
      )}
      {!played.faulty && played.steps.length === 0 && (
        <p className="soft" style={{ margin: 0 }}>
          Nothing was played since the power came on. Stomp first, then keep it.
        </p>
      )}
      {!played.faulty && played.steps.length > 0 && (
        <>
          <p style={{ margin: '0 0 8px' }}>
            <span className="soft">Power up, then </span>
            {played.steps.map((s) => s.text).join(', ')}.
          </p>
          <p className="soft" style={{ margin: '0 0 6px' }}>
            Then this must stand so. Chosen is what the called sound wants; choose less or more.
          </p>
          <div className="test-expects">
            {played.expects.map((e) => (
              <Checkbox
                key={e.control}
                size="xs"
                label={e.text}
                checked={expected?.has(e.control) ?? false}
                onChange={() => turn(e.control)}
              />
            ))}
          </div>
          <div style={{ display: 'flex', gap: 10, alignItems: 'center', marginTop: 10, flexWrap: 'wrap' }}>
            <TextField
              most={LONGEST.name}
              size="xs"
              aria-label="Name of the test"
              placeholder="what it makes sure of"
              w={280}
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <Button type="submit" size="xs" disabled={!fits(name, LONGEST.name) || chosen.length === 0}>
              Keep it
            </Button>
            <span className="soft">It is played after every edit; the line below says when it fails.</span>
          </div>
        </>
      )}
    </form>
  );
};

const SAYS = { holds: ['✓', 'proved'], fails: ['≠', 'broken'], cannot: ['?', 'broken'] } as const;

/** Tests of this hook-up, as they stand now. */
export const StandingTests = () => {
  const { edit } = useRig();
  const tests = useAsked(['standing tests'], (worker) => worker.answers.standingTests());
  if (!tests?.length) return null;
  return (
    <section className="card">
      <h2>Tests that are kept</h2>
      <ul style={{ listStyle: 'none', margin: 0, padding: 0, display: 'grid', gap: 10 }}>
        {tests.map((t) => (
          <li key={t.id}>
            <div style={{ display: 'flex', gap: 10, alignItems: 'baseline' }}>
              <span className={SAYS[t.is][1]} aria-hidden="true">
                {SAYS[t.is][0]}
              </span>
              <strong style={{ overflowWrap: 'anywhere' }}>{t.name}</strong>
              <Button
                ml="auto"
                variant="default"
                size="compact-xs"
                aria-label={`Remove test ${t.name}`}
                onClick={() => edit(dropTest(t.id), `Remove test ${t.name}`)}
              >
                Remove
              </Button>
            </div>
            <div className={t.is === 'holds' ? 'soft' : 'broken'} style={{ fontSize: 14 }}>
              {t.text}
            </div>
            <details className="soft" style={{ fontSize: 14 }}>
              <summary>
                {t.steps.length} {t.steps.length === 1 ? 'step' : 'steps'}, {t.expects.length} expected
              </summary>
              {t.steps.join(', ')}; then {t.expects.join(', ')}.
            </details>
          </li>
        ))}
      </ul>
    </section>
  );
};
