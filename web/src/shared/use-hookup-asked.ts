import type { Hookup } from '@yunta/core/rig/hookup';
import { tailOf, type Id } from '@yunta/core/rig/ids';
import { all, type Rig } from '@yunta/core/rig/rig';
import { useCallback, useEffect, useState } from 'react';
import { useLocation, useSearchParams } from 'react-router';

const IN = 'in';

/**
 * The hook-up that is looked at stands in the address: a reload, a link that is sent on and the way back show the same
 * one. A room whose address does not say it keeps the last.
 * @returns the hook-up, the first where none is asked for, and how another is chosen
 */
export const useHookupAsked = (
  rig: Rig | undefined,
): { readonly hookup: Hookup | undefined; readonly chooseHookup: (id: Id<'hookup'>) => void } => {
  const [params, setParams] = useSearchParams();
  const { state } = useLocation();
  const asked = params.get(IN) ?? undefined;
  const [held, hold] = useState(asked);
  if (asked !== undefined && asked !== held) hold(asked);
  const put = useCallback(
    (tail: string) =>
      setParams(
        (now) => {
          now.set(IN, tail);
          return now;
        },
        { replace: true, state },
      ),
    [setParams, state],
  );
  useEffect(() => {
    if (asked === undefined && held !== undefined) put(held);
  }, [asked, held, put]);
  const hookups = rig ? all(rig, 'hookup') : [];
  const hookup = hookups.find((h) => tailOf(h.id) === (asked ?? held)) ?? hookups[0];
  const chooseHookup = useCallback((id: Id<'hookup'>) => put(tailOf(id)), [put]);
  return { hookup, chooseHookup };
};
