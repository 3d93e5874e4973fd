import { Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { LoopsOfRig } from '@yunta/core/derive/views/loops';
import type { LoopsPlan } from '@yunta/core/plan/loops/plan';
import { loopsNeeded, type LoopGroup } from '@yunta/core/plan/loops/problem';
import { useState } from 'react';
import { useAsked } from '../../shared/rig-context.js';
import { planned } from '../../worker/planned.js';
import { Took } from './took.js';

const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

/** How many loops the sounds need, which boxes may share one, and what a smaller switcher would lose. */
export const Loops = () => {
  const of = useAsked(['loops'], (worker) => worker.night.loops());
  const [chosen, choose] = useState<string | null>(null);
  const needed = of && loopsNeeded(of.problem);
  const fewer = Number(chosen);
  const plan = useQuery({
    queryKey: ['loops', JSON.stringify(of?.problem), fewer],
    queryFn: () => (of ? planned((planning) => planning.loops(of.problem, fewer)) : null),
    enabled: of !== undefined && fewer > 0,
    staleTime: Infinity,
  });
  if (!of || !needed) return null;
  const codes = (boxes: readonly number[]): string => boxes.map((box) => of.boxes[box]?.code ?? '').join(' + ');
  const groups = (loops: readonly LoopGroup[]): string => loops.map((l) => codes(l.boxes)).join(', ');
  const shared = needed.loops.filter((l) => l.boxes.length > 1);
  return (
    <section className="card">
      <h2>Loops</h2>
      <p>
        Switched by loops alone, {many(of.sounds.length, 'sound needs', 'sounds need')}{' '}
        <strong>{many(needed.loops.length, 'loop', 'loops')}</strong>
        {needed.loops.length > 0 && `: ${groups(needed.loops)}`}.
        {needed.alwaysIn.length > 0 && ` Always on, without a loop: ${codes(needed.alwaysIn)}.`}
        {needed.neverIn.length > 0 && ` In no sound: ${codes(needed.neverIn)}.`}
      </p>
      {shared.length > 0 && (
        <p className="soft">
          Boxes joined by + are always in together and may share a loop, if they may stand side by side.
        </p>
      )}
      {needed.loops.length > 1 && (
        <Select
          size="xs"
          w={260}
          aria-label="A smaller switcher"
          placeholder="what would a smaller switcher lose?"
          data={Array.from({ length: needed.loops.length - 1 }, (_, i) => ({
            value: String(i + 1),
            label: `a switcher of ${many(i + 1, 'loop', 'loops')}`,
          }))}
          value={chosen}
          onChange={choose}
        />
      )}
      <div aria-live="polite">
        {plan.isFetching && <p className="soft">Trying every use of the loops …</p>}
        {plan.data?.plan && <Fewer of={of} plan={plan.data.plan} groups={groups} codes={codes} />}
        {plan.data?.plan && <Took seconds={plan.data.seconds} />}
        {(plan.isError || (plan.data && !plan.data.plan)) && (
          <p className="broken">The planner found nothing in its time.</p>
        )}
      </div>
    </section>
  );
};

interface FewerProps {
  readonly of: LoopsOfRig;
  readonly plan: LoopsPlan;
  readonly groups: (loops: readonly LoopGroup[]) => string;
  readonly codes: (boxes: readonly number[]) => string;
}

const Fewer = ({ of, plan, groups, codes }: FewerProps) => {
  const lost = of.sounds.filter((_, s) => !plan.kept.includes(s));
  return (
    <>
      <p>
        <strong>
          It keeps {plan.kept.length} of {of.sounds.length} sounds
        </strong>
        {plan.bound <= plan.kept.length
          ? '; more are not possible'
          : `; at most ${plan.bound} could be, as far as it is proved`}
        .
      </p>
      <p>
        Loops: {groups(plan.loops) || 'none'}.{plan.alwaysIn.length > 0 && ` Always on: ${codes(plan.alwaysIn)}.`}
        {plan.neverIn.length > 0 && ` Left out: ${codes(plan.neverIn)}.`}
      </p>
      {lost.length > 0 && <p>Lost: {lost.join(', ')}.</p>}
    </>
  );
};
