import { Button, SegmentedControl } from '@mantine/core';
import type { ProgramPlanView } from '@yunta/core/derive/views/program-plan';
import type { PlanFor } from '@yunta/core/plan/programs';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';

const FOR: readonly { readonly value: PlanFor; readonly label: string }[] = [
  { value: 'what needs one', label: 'For what cannot come back surely without' },
  { value: 'every sound', label: 'For every sound, to send less' },
];
const IS = { there: 'there already', changed: 'holds something else now', new: 'new' } as const;

/**
 * Which program of each box holds what, before anything is written: as few as possible, no number moved without need.
 */
export const PlanRoom = () => {
  const { edit, derived } = useRig();
  const [planFor, setPlanFor] = useState<PlanFor>('what needs one');
  const plan = useAsked(['plan', planFor], (worker) => worker.answers.programPlan(planFor));
  const isAtRest = plan?.edit.put.length === 0;
  return (
    <div className="program-plan">
      <div style={{ display: 'flex', gap: 12, flexWrap: 'wrap', alignItems: 'center' }}>
        <SegmentedControl
          size="xs"
          aria-label="Which sounds get a program"
          value={planFor}
          onChange={(v) => setPlanFor(v)}
          data={[...FOR]}
        />
        <Button
          size="xs"
          ml="auto"
          disabled={!plan || isAtRest || derived.older}
          onClick={() => plan && edit(plan.edit, `Plan programs of ${plan.boxes.map((b) => b.name).join(', ')}`)}
        >
          Carry it out
        </Button>
      </div>
      {!plan && <p className="soft">Planning …</p>}
      {plan && <Figures plan={plan} isAtRest={isAtRest ?? true} />}
      {plan?.left.map((text) => (
        <p key={text} className="broken" style={{ margin: '4px 0' }}>
          {text}
        </p>
      ))}
      {plan?.boxes.map((box) => (
        <section key={box.device} className="card">
          <h2>{box.name}</h2>
          <table className="plain">
            <thead>
              <tr>
                <th scope="col">program</th>
                <th scope="col">name</th>
                <th scope="col">holds</th>
                <th scope="col">called by</th>
                <th scope="col" />
              </tr>
            </thead>
            <tbody>
              {box.programs.map((p) => (
                <tr key={p.shown}>
                  <td className="mono">
                    <strong>{p.shown}</strong>
                  </td>
                  <td>{p.name}</td>
                  <td className="mono">{p.holds}</td>
                  <td>{p.sounds.join(', ')}</td>
                  <td className={p.is === 'there' ? 'soft' : ''}>{IS[p.is]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
      <p className="soft">
        What you wrote down yourself is used where it fits and never altered. A number keeps what it holds as long as
        its sounds agree. What a program does not name here is yours to dial in.
      </p>
    </div>
  );
};

const Figures = ({ plan: { now, then, boxes }, isAtRest }: { plan: ProgramPlanView; isAtRest: boolean }) => {
  if (isAtRest)
    return (
      <p role="status">
        {boxes.length
          ? 'Everything stands as planned: there is nothing to change.'
          : 'No sound needs a program: everything is set by a message, a contact or the switcher itself.'}
      </p>
    );
  const rows = [
    ['sounds that come back', `${now.proved} of ${now.sounds}`, `${then.proved} of ${then.sounds}`],
    ['left to a toggle', now.toggles, then.toggles],
    ['by hand or foot', now.byHand, then.byHand],
    ['messages sent, all sounds', now.messages, then.messages],
  ] as const;
  return (
    <table className="plain plan-figures">
      <caption className="visually-hidden">What the plan would bring</caption>
      <thead>
        <tr>
          <th scope="col">
            <span className="visually-hidden">What</span>
          </th>
          <th scope="col">now</th>
          <th scope="col">with the plan</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([what, before, after]) => (
          <tr key={what}>
            <th scope="row">{what}</th>
            <td>{before}</td>
            <td className={String(before) === String(after) ? '' : 'changed'}>{after}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
};
