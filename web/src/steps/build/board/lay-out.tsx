import { Button } from '@mantine/core';
import { hungBeneath } from '@yunta/core/board/beneath';
import { standAt } from '@yunta/core/edits/boards';
import { layoutNow, layoutProblem, spotsOf } from '@yunta/core/plan/board/of-rig';
import { leadsMm } from '@yunta/core/plan/board/problem';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { Id } from '@yunta/core/rig/ids';
import { thePart } from '@yunta/core/rig/rig';
import { useRig } from '../../../shared/rig-context.js';
import { useLayout, type Laying } from './use-layout.js';

interface LayOutProps {
  readonly hookup: Hookup;
  readonly name: string;
  /** What stands on the board, and what stands nowhere yet. */
  readonly here: readonly Id<'device'>[];
  readonly nowhere: readonly Id<'device'>[];
}

/** A bound below this says nothing, in mm: boxes can stand side by side. */
const NOTHING_TO_SAY = 100;

const metres = (mm: number): string => `${(mm / 1000).toFixed(1)} m`;

/** Finds places for the boxes: short leads, switches in front, supplies away from high gain. */
export const LayOut = ({ hookup, name, here, nowhere }: LayOutProps) => {
  const { rig, edit } = useRig();
  const { state, start, stop, forget } = useLayout();
  const begin = (ids: readonly Id<'device'>[]): void => {
    const problem = layoutProblem(rig, hookup, name, ids);
    if (problem) start(problem);
  };
  const take = (): void => {
    if (!state.problem || !state.plan) return;
    edit(standAt(hookup, spotsOf(state.problem, state.plan)), `Lay out ${name}`);
    forget();
  };
  const all = [...here, ...nowhere];
  const supplies = all.filter((id) => thePart(rig, id).zone === 'supply');
  const hang = (): void => {
    edit(hungBeneath(rig, hookup, name, supplies), `Hang beneath ${name}`);
    stop();
    forget();
  };
  return (
    <section className="card" aria-label="Lay it out for me">
      <h2>Lay it out for me</h2>
      {state.is === 'at rest' ? (
        <>
          <p className="soft">
            Short leads, switches where a foot reaches and a shoe apart, supplies away from high gain. Nothing moves
            before you say so.
          </p>
          <div className="board-do">
            {nowhere.length > 0 && (
              <Button size="xs" onClick={() => begin(all)}>
                All {all.length} boxes
              </Button>
            )}
            {here.length > 0 && (
              <Button size="xs" variant={nowhere.length ? 'default' : 'filled'} onClick={() => begin(here)}>
                {nowhere.length ? `Only the ${here.length} on it` : `The ${here.length} on it`}
              </Button>
            )}
            {supplies.length > 0 && (
              <Button size="xs" variant="default" onClick={hang}>
                Hang {supplies.length === 1 ? 'the supply' : 'the supplies'} beneath
              </Button>
            )}
          </div>
        </>
      ) : (
        <Found state={state} hookup={hookup}>
          {state.is === 'looking' && (
            <Button size="xs" variant="default" onClick={stop}>
              Stop
            </Button>
          )}
          {supplies.length > 0 && (state.plan?.without.length ?? 0) > 0 && (
            <Button size="xs" onClick={hang}>
              Hang {supplies.length === 1 ? 'the supply' : 'the supplies'} beneath
            </Button>
          )}
          {state.plan && (
            <Button size="xs" onClick={take}>
              Stand them so
            </Button>
          )}
          <Button
            size="xs"
            variant="default"
            onClick={() => {
              stop();
              forget();
            }}
          >
            Leave it
          </Button>
        </Found>
      )}
    </section>
  );
};

interface FoundProps {
  readonly state: Laying;
  readonly hookup: Hookup;
  readonly children: React.ReactNode;
}

const Found = ({ state: { is, plan, problem, seconds }, hookup, children }: FoundProps) => {
  const { rig } = useRig();
  const now = problem && layoutNow(problem, hookup);
  const leadNow = problem && now?.every(Boolean) ? leadsMm(problem, now) : undefined;
  const left = plan?.without.flatMap((i) => problem?.devices[i] ?? []).map((id) => thePart(rig, id).name) ?? [];
  return (
    <>
      <p role="status">
        {is === 'failed'
          ? 'It could not be worked out.'
          : is === 'looking'
            ? 'Looking …'
            : is === 'stopped'
              ? 'Stopped.'
              : `Looked for ${(seconds ?? 0).toFixed(1)} s.`}
        {plan && (
          <>
            {' '}
            <strong>{metres(plan.leadMm)} of lead</strong>
            {leadNow === undefined ? '' : `, ${metres(leadNow)} as it stands`}.
          </>
        )}
      </p>
      {plan && (
        <p className="soft">
          {plan.least >= NOTHING_TO_SAY &&
            `With knobs and switches towards you, at least ${metres(plan.least)} is needed on any board. `}
          Plugs are not counted.
        </p>
      )}
      {left.length > 0 && (
        <p className="broken" role="alert">
          {left.join(', ')} {left.length === 1 ? 'finds' : 'find'} no room
          {plan?.cannotFit ? ': together the boxes cover more than the board.' : '.'}
        </p>
      )}
      <div className="board-do">{children}</div>
    </>
  );
};
