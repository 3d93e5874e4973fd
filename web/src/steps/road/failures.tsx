import { Button, TextInput } from '@mantine/core';
import { FAILURE_GROUPS, type FailureLine, type FailureView, type SoundFate } from '@yunta/core/derive/views/fails';
import { useState } from 'react';
import { useAsked } from '../../shared/rig-context.js';
import { FailuresPaper } from './failures-paper.js';

/** What can fail, to be looked up; beside it what to do. */
export const Failures = ({
  lines,
  asked,
  choose,
}: {
  lines: readonly FailureLine[];
  asked: string | undefined;
  choose: (key: string) => void;
}) => {
  const [typed, type] = useState('');
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const found = lines.filter((l) => words.every((w) => l.text.toLowerCase().includes(w)));
  const chosen = lines.find((l) => l.key === asked) ?? lines.find(isHard) ?? lines[0];
  return (
    <div className="road-both">
      <section className="card" aria-label="What can fail">
        <div className="road-find">
          <TextInput
            size="sm"
            aria-label="What failed"
            placeholder="What failed? A name, a code, a jack"
            value={typed}
            onChange={(e) => type(e.currentTarget.value)}
          />
          <FailuresPaper />
        </div>
        {found.length === 0 && <p className="soft">Nothing of that name can fail here.</p>}
        {FAILURE_GROUPS.map((group) => {
          const here = found.filter((l) => l.group === group);
          return here.length === 0 ? null : (
            <div key={group}>
              <h2>{group}</h2>
              <ul className="road-list">
                {here.map((line) => (
                  <Line key={line.key} line={line} isChosen={line.key === chosen?.key} choose={choose} />
                ))}
              </ul>
            </div>
          );
        })}
      </section>
      {chosen && <Chosen key={chosen.key} line={chosen} />}
    </div>
  );
};

const isHard = ({ counts }: FailureLine): boolean => counts.silent > 0;
const isHarmless = ({ counts }: FailureLine): boolean =>
  Object.entries(counts).every(([is, n]) => is === 'whole' || n === 0);

const Line = ({ line, isChosen, choose }: { line: FailureLine; isChosen: boolean; choose: (key: string) => void }) => (
  <li>
    <button
      type="button"
      className={isChosen ? 'chosen' : ''}
      aria-current={isChosen ? 'true' : undefined}
      onClick={() => choose(line.key)}
    >
      <strong>{line.text}</strong>
      <span className={isHarmless(line) ? 'soft' : isHard(line) ? 'broken' : ''}>{line.says}</span>
    </button>
  </li>
);

const Chosen = ({ line }: { line: FailureLine }) => {
  const view = useAsked(['failure', line.key], (worker) => worker.answers.failure(line.key));
  return (
    <section className="card road-now" aria-label={line.text} aria-live="polite">
      <h2>{line.text}</h2>
      <p>{line.says}</p>
      {view ? <WhatToDo view={view} /> : <p className="soft">Looking for the way out …</p>}
    </section>
  );
};

const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

const WhatToDo = ({ view }: { view: FailureView }) => {
  const instead = view.sounds.filter((s) => s.instead !== undefined);
  return (
    <>
      {instead.length > 0 && (
        <>
          <h3>At once, to finish the song</h3>
          <ul>
            {instead.map((s) => (
              <li key={s.sound}>
                Instead of {s.name}: <strong>{s.instead}</strong>
              </li>
            ))}
          </ul>
        </>
      )}
      {view.way && (
        <>
          <h3>The quickest way out</h3>
          {view.way.caution && <p className="road-caution">{view.way.caution}</p>}
          <ol className="road-steps">
            {view.way.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          <p className="soft">
            {[
              view.way.plugs ? many(view.way.plugs, 'plug', 'plugs') : 'No plug is moved',
              ...(view.way.leads ? [many(view.way.leads, 'lead more', 'leads more')] : []),
            ].join(', ')}
          </p>
          <p>
            <strong>Then: {view.way.says}</strong>
          </p>
        </>
      )}
      {view.needs && <p>{view.needs}</p>}
      {view.byHand && (
        <>
          <h3>Until it is back, by foot and hand</h3>
          <ul>
            {view.byHand.map(({ name, hands }) => (
              <li key={name}>
                {name}: <strong>{hands.join(', ')}</strong>
              </li>
            ))}
          </ul>
        </>
      )}
      {!view.way && !view.needs && <p className="soft">Nothing has to be done for the sounds.</p>}
      <Fates view={view} />
    </>
  );
};

/** Sound by sound: as it is left, and as it is after the way out. */
const Fates = ({ view: { sounds, way } }: { view: FailureView }) => {
  const [open, turn] = useState(false);
  const hurt = sounds.filter((s) => s.is !== 'whole');
  if (hurt.length === 0) return null;
  const then = new Map<string, SoundFate>(way?.sounds.map((s) => [s.sound, s]));
  return (
    <>
      <Button variant="default" size="xs" aria-expanded={open} onClick={() => turn(!open)}>
        Sound by sound
      </Button>
      {open && (
        <table className="plain tight">
          <thead>
            <tr>
              <th>sound</th>
              <th>now</th>
              {way && <th>then</th>}
            </tr>
          </thead>
          <tbody>
            {hurt.map((s) => (
              <tr key={s.sound}>
                <td>{s.name}</td>
                <td>{s.text}</td>
                {way && <td>{then.get(s.sound)?.text}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
};
