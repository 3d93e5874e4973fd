import './build.css';
import { SegmentedControl } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { cutList, cutsAsked, shoppingFor, type CutsOfKind, type LeadView } from '@yunta/core/derive/views/leads';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { PrintButton } from '../../shared/paper/paper.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { planned } from '../../worker/planned.js';
import { Boards } from './board/boards.js';
import { InOrder } from './in-order.js';
import { Labels } from './labels.js';
import { LeadsPaper } from './leads-paper.js';
import { LeadTable } from './lead-table.js';
import { Stocked } from './stocked.js';
import { CutList, ToBuy } from './to-do.js';

/** What is cut of which reel, worked out beside the page whenever leads or reels change. */
const useCuts = (leads: readonly LeadView[]): readonly CutsOfKind[] | undefined => {
  const { rig } = useRig();
  const asked = useMemo(() => cutsAsked(rig, leads), [rig, leads]);
  const { data } = useQuery({
    queryKey: ['cuts', JSON.stringify([...asked])],
    queryFn: async () => {
      const { plan } = await planned((planning) => planning.cuts(asked));
      return plan ? { asked, plans: plan } : null;
    },
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  return useMemo(() => (data ? cutList(leads, data.asked, data.plans) : undefined), [leads, data]);
};

const NONE: readonly LeadView[] = [];

const PARTS = [
  { value: 'leads', label: 'Leads' },
  { value: 'board', label: 'Board' },
  { value: 'labels', label: 'Labels' },
  { value: 'order', label: 'In order' },
] as const;

/** Before build day: every lead, what to cut, and what to buy. */
export const Build = () => {
  const { hookup } = useRig();
  const [params, setParams] = useSearchParams();
  const part = PARTS.find((p) => p.value === params.get('show'))?.value ?? 'leads';
  const leads = useAsked(['leads'], (worker) => worker.answers.leads());
  const cuts = useCuts(leads ?? NONE);
  return (
    <>
      <div className="headline">
        <h1>Build</h1>
        {leads && leads.length > 0 && <span className="soft">{headline(leads)}</span>}
        <div className="tools">
          {part === 'leads' && leads && leads.length > 0 && <PrintButton what="leads, cut list and what to buy" />}
          <SegmentedControl
            aria-label="What to look at"
            size="xs"
            value={part}
            onChange={(show) => setParams({ show }, { replace: true })}
            data={[...PARTS]}
          />
        </div>
      </div>
      {part === 'board' && hookup && <Boards hookup={hookup} />}
      {!leads && part !== 'board' && <p className="soft">Working it out …</p>}
      {leads?.length === 0 && part !== 'board' && (
        <p className="soft">
          No lead is plugged in {hookup?.name ?? 'this rig'} yet. <Link to="../routing">Wire the rig</Link>, then its
          leads stand here.
        </p>
      )}
      {part === 'order' && leads && leads.length > 0 && <InOrder />}
      {part === 'labels' && leads && leads.length > 0 && <Labels leads={leads} />}
      {part === 'leads' && (
        <div className="build-both">
          {leads && leads.length > 0 && <LeadTable leads={leads} />}
          <div className="build-right">
            {leads && leads.length > 0 && <ToBuy shopping={shoppingFor(leads, cuts ?? [])} unsaid={unsaid(leads)} />}
            {cuts && <CutList cuts={cuts} />}
            <Stocked />
          </div>
        </div>
      )}
      {part === 'leads' && leads && cuts && <LeadsPaper leads={leads} cuts={cuts} />}
    </>
  );
};

const unsaid = (leads: readonly LeadView[]): number =>
  leads.filter((l) => l.m === undefined && l.is !== 'there').length;

const headline = (leads: readonly LeadView[]): string => {
  const count = (is: LeadView['is']): number => leads.filter((l) => l.is === is).length;
  return `${leads.length} leads: ${count('there')} there, ${count('to make')} to make, ${count('to buy')} to buy`;
};
