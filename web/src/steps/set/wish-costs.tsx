import { Button } from '@mantine/core';
import { proxy, wrap } from 'comlink';
import type { SlotsOfRig } from '@yunta/core/plan/slots/of-rig';
import { costOf } from '@yunta/core/plan/slots/problem';
import { bankBySong, banksNeeded, NO_WISHES, wished, type SlotWishes } from '@yunta/core/plan/slots/wishes';
import type { Song } from '@yunta/core/rig/show';
import { useEffect, useRef, useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import type { Planning } from '../../worker/plan.worker.js';
import { planWorker } from '../../worker/planned.js';

interface Wish {
  readonly name: string;
  readonly wishes: SlotWishes;
}

/** What may be wished, each by itself. A shoe apart is a matter of switches and costs no stomp. */
const WISHES: readonly Wish[] = [
  { name: 'nothing but few stomps', wishes: NO_WISHES },
  { name: 'each role on one switch', wishes: { ...NO_WISHES, roles: true } },
  { name: 'a sound in two slots', wishes: { ...NO_WISHES, twice: true } },
  { name: 'a bank for one role', wishes: { ...NO_WISHES, bankFor: 'role' } },
  { name: 'a bank for one act', wishes: { ...NO_WISHES, bankFor: 'act' } },
  { name: 'a bank for one instrument', wishes: { ...NO_WISHES, bankFor: 'instrument' } },
  { name: 'a bank for one song', wishes: { ...NO_WISHES, bankFor: 'song' } },
];

interface Costs {
  readonly name: string;
  readonly stomps?: number;
  /** At least so many are needed. */
  readonly bound?: number;
  readonly says: string;
}

const SECONDS_EACH = 3;

/** What each wish costs in stomps, one after the other in a worker. */
const useWishCosts = (plain: SlotsOfRig, songs: readonly Song[]) => {
  const { rig } = useRig();
  const worker = useRef<Worker>(undefined);
  const [costs, setCosts] = useState<readonly Costs[]>();
  const [isBusy, setBusy] = useState(false);
  const [hasFailed, fail] = useState(false);
  useEffect(() => () => worker.current?.terminate(), []);
  const ask = async (): Promise<void> => {
    const mine = planWorker('wishes');
    worker.current = mine;
    const planning = wrap<Planning>(mine);
    setBusy(true);
    setCosts([]);
    fail(false);
    try {
      for (const { name, wishes } of WISHES) {
        const of = wished(rig, plain, songs, wishes);
        const { problem } = of;
        // Without two kinds of it there is nothing to part.
        const isMoot =
          (wishes.roles && !problem.apart) ||
          (wishes.bankFor !== undefined && wishes.bankFor !== 'song' && !problem.groups);
        if (isMoot) continue;
        const told = wishes.bankFor === 'song' ? bySong(plain, name) : await planned(planning, of, name);
        setCosts((before) => [...(before ?? []), told]);
      }
    } catch {
      fail(true);
    } finally {
      mine.terminate();
      setBusy(false);
    }
  };
  return { costs, isBusy, hasFailed, ask };
};

const bySong = ({ problem, mayUse: there }: SlotsOfRig, name: string): Costs => {
  const { places, banks } = bankBySong(problem);
  if (banks > there) return { name, says: `needs ${banks} banks, and there are ${there}` };
  const { stomps } = costOf({ ...problem, banks, copies: places.length }, places);
  return { name, stomps, bound: stomps, says: `${places.length} slots in ${banks} banks` };
};

const planned = async (
  planning: ReturnType<typeof wrap<Planning>>,
  { problem, mayUse: there }: SlotsOfRig,
  name: string,
): Promise<Costs> => {
  const needed = banksNeeded(problem);
  if (needed > there) return { name, says: `needs ${needed} banks, and there are ${there}` };
  const banks = Math.max(needed, problem.banks);
  const quiet = proxy(() => undefined);
  const plan = await planning.slots({ ...problem, banks }, quiet, SECONDS_EACH);
  if (!plan) return { name, says: `no placement was found in ${banks} banks` };
  return { name, stomps: plan.stomps, bound: plan.bound, says: banks > problem.banks ? `in ${banks} banks` : '' };
};

export const WishCosts = ({ plain, songs }: { plain: SlotsOfRig; songs: readonly Song[] }) => {
  const { costs, isBusy, hasFailed, ask } = useWishCosts(plain, songs);
  const least = costs?.[0]?.stomps;
  return (
    <section className="card">
      <h2>What each wish costs</h2>
      <p className="sheet-tools">
        <Button size="xs" variant="default" disabled={isBusy} onClick={() => void ask()}>
          Reckon it
        </Button>
        <span className="soft">
          {isBusy ? 'Reckoning …' : 'Each way to lay out the banks by itself, with its fewest stomps.'}
        </span>
      </p>
      {hasFailed && (
        <p className="broken" role="alert">
          The planner could not work here. Reload the page and try once more.
        </p>
      )}
      {costs && costs.length > 0 && (
        <table className="plain dance" aria-live="polite">
          <thead>
            <tr>
              <th scope="col">wish</th>
              <th scope="col">stomps</th>
              <th scope="col">against the first line</th>
              <th scope="col">
                <span className="visually-hidden">besides</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {costs.map((c) => (
              <tr key={c.name}>
                <th scope="row">{c.name}</th>
                <td className="mono">{c.stomps ?? ''}</td>
                <td className="mono">
                  {c.stomps !== undefined && least !== undefined && c !== costs[0] ? c.stomps - least : ''}
                </td>
                <td className="soft">
                  {c.says}
                  {c.stomps !== undefined && c.bound !== undefined && c.bound < c.stomps
                    ? ` at least ${c.bound}, as far as it is proved`
                    : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
};
