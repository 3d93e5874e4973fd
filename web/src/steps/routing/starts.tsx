import { Button, SegmentedControl } from '@mantine/core';
import { carryOutStart, planStart, type StartAnswers, type StartPlan } from '@yunta/core/starts/plan';
import { STARTING_POINTS } from '@yunta/core/starts/points';
import type { StartingPoint } from '@yunta/core/starts/questions';
import { cablesOf } from '@yunta/core/rig/rig';
import { splitRef, type Ref } from '@yunta/core/rig/ids';
import { useMemo, useState } from 'react';
import { RunDrawing } from '../../picture/run.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { newPartId } from '../../session/ids.js';
import { surely, theItem } from '@yunta/core/known/the';

const MOST_BOXES = 60;

/**
 * Eleven ways to begin. A way chosen is planned at once with what is in the kit; nothing is touched until it is wanted.
 */
export const Starts = ({ done }: { done: () => void }) => {
  const [key, setKey] = useState<string>();
  const point = STARTING_POINTS.find((p) => p.key === key);
  return (
    <div className={`starts ${point ? 'chosen' : ''}`}>
      <ul aria-label="Starting points">
        {STARTING_POINTS.map((p) => (
          <li key={p.key}>
            <button type="button" className="card" aria-pressed={p.key === key} onClick={() => setKey(p.key)}>
              <strong>{p.name}</strong>
              <span className="soft">{p.says}</span>
            </button>
          </li>
        ))}
      </ul>
      {point && <Planned key={point.key} point={point} done={done} />}
    </div>
  );
};

const Planned = ({ point, done }: { point: StartingPoint; done: () => void }) => {
  const { rig, hookup, edit } = useRig();
  const [answers, setAnswers] = useState<StartAnswers>({});
  const ids = useMemo(() => Array.from({ length: MOST_BOXES }, () => newPartId('device')), []);
  const plan = useMemo(() => planStart(rig, point, answers, (n) => theItem(ids, n)), [rig, point, answers, ids]);
  const after = useAsked(
    ['start', point.key, JSON.stringify(answers), hookup?.id],
    (worker) =>
      worker.answers.runAfter(
        carryOutStart(rig, surely(hookup).id, plan, { cable: () => newPartId('cable'), sound: newPartId('sound') }),
      ),
    hookup !== undefined,
  );
  if (!hookup) return null;
  const plugged = cablesOf(rig, hookup.id).length;
  const carryOut = () => {
    const wish = carryOutStart(rig, hookup.id, plan, { cable: () => newPartId('cable'), sound: newPartId('sound') });
    if (edit(wish, `Begin with: ${point.name}`).length === 0) done();
  };
  return (
    <section className="card" aria-label={point.name}>
      <div className="headline" style={{ marginBottom: 4 }}>
        <h2 style={{ margin: 0 }}>{point.name}</h2>
        <div className="tools">
          <Button onClick={carryOut}>Wire it so</Button>
        </div>
      </div>
      <p className="soft" style={{ margin: '0 0 12px' }}>
        {plan.got.length ? `${plan.got.length} ${plan.got.length === 1 ? 'box' : 'boxes'} to get` : 'Nothing to get'},{' '}
        {plan.leads.length} cables{plugged ? `; the ${plugged} that are plugged in ${hookup.name} are pulled` : ''}. It
        can be undone.
      </p>
      <div className="start-drawn" aria-busy={after === undefined}>
        {after ? (
          <RunDrawing
            items={after.run}
            label={`The way of the signal, wired so: ${point.name}`}
            said={(id) => after.names[id] ?? { code: '?', name: '' }}
          />
        ) : (
          <p className="soft">Drawing what it will be …</p>
        )}
      </div>
      <div className="questions">
        {plan.chosen.map(({ question, choice }) => (
          <div key={question.id}>
            <strong id={`ask-${question.id}`}>{question.ask}</strong>
            <SegmentedControl
              size="xs"
              aria-labelledby={`ask-${question.id}`}
              value={choice.value}
              onChange={(value) => setAnswers({ ...answers, [question.id]: value })}
              data={question.choices.map((c) => ({ value: c.value, label: c.label }))}
            />
            <span className="soft">{choice.because}.</span>
          </div>
        ))}
      </div>
      {plan.notes.map((n) => (
        <p key={n} style={{ margin: '8px 0 0' }}>
          ● {n}
        </p>
      ))}
      <div className="start-plan">
        <Boxes plan={plan} />
        <section>
          <h3>How it is wired, and why</h3>
          <ol className="plan">
            {plan.leads.map((l) => (
              <li key={`${l.from} ${l.to}`}>
                <span className="cable-line">
                  {jackName(plan, l.from)} → {jackName(plan, l.to)}
                </span>{' '}
                <span className="soft">{l.why}</span>
              </li>
            ))}
          </ol>
        </section>
      </div>
      {plan.leftOver.length > 0 && (
        <p className="soft">Plays no part and stays unplugged: {plan.leftOver.map((d) => d.name).join(', ')}.</p>
      )}
    </section>
  );
};

const Boxes = ({ plan }: { plan: StartPlan }) => (
  <section>
    {(
      [
        ['To get', plan.got],
        ['From the kit', plan.used],
      ] as const
    )
      .filter(([, boxes]) => boxes.length)
      .map(([title, boxes]) => (
        <div key={title}>
          <h3>{title}</h3>
          <ul className="plan">
            {boxes.map(({ device, why }) => (
              <li key={device.id}>
                <span className="mono">{device.code}</span> {device.name} <span className="soft">{why}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
  </section>
);

const jackName = (plan: StartPlan, r: Ref): string => {
  const { device, name } = splitRef(r);
  return `${[...plan.used, ...plan.got].find((b) => b.device.id === device)?.device.code ?? ''} ${name}`;
};
