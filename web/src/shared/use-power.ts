import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { powerAsked, powerOf, type Power, type PowerPlans } from '@yunta/core/derive/views/power';
import type { SupplyProblem } from '@yunta/core/plan/supply/problem';
import { jackAt } from '@yunta/core/rig/box';
import type { Ref } from '@yunta/core/rig/ids';
import type { Rig } from '@yunta/core/rig/rig';
import { useMemo } from 'react';
import { planned } from '../worker/planned.js';
import { useRig } from './rig-context.js';

export interface PowerNow {
  /** In words; of an earlier state while a new plan is worked out. */
  readonly power: Power | undefined;
  readonly isOlder: boolean;
  readonly failed: boolean;
}

interface Worked {
  readonly problem: SupplyProblem;
  readonly plans: PowerPlans;
}

/** Whether all that a plan speaks of is still in the kit. */
const stands = (rig: Rig, { boxes, outputs }: SupplyProblem): boolean =>
  [...boxes, ...outputs].every(({ id }) => jackAt(rig, id as Ref) !== undefined);

/**
 * Who would feed whom, worked out beside the page whenever what is asked of the supplies changes.
 * @param chains whether an output may feed several boxes
 */
export const usePower = (chains: boolean): PowerNow => {
  const { rig, hookup } = useRig();
  const problem = useMemo(() => powerAsked(rig, hookup, chains), [rig, hookup, chains]);
  const { data, isError, isPlaceholderData } = useQuery({
    queryKey: ['power', JSON.stringify({ ...problem, now: [...(problem.now ?? [])] })],
    queryFn: async (): Promise<Worked | null> => {
      const { plan: plans } = await planned((planning) => planning.power(problem));
      return plans ? { problem, plans } : null;
    },
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const power = useMemo(
    () => (data && stands(rig, data.problem) ? powerOf(rig, hookup, data.problem, data.plans) : undefined),
    [rig, hookup, data],
  );
  return { power, isOlder: isPlaceholderData, failed: isError || data === null };
};
