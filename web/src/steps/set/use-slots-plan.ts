import { proxy, wrap } from 'comlink';
import type { MoveSwitch } from '@yunta/core/plan/slots/change';
import { leastMoved, type SlotsOfRig } from '@yunta/core/plan/slots/of-rig';
import type { PlanProgress } from '@yunta/core/plan/slots/plan';
import { costOf, type SlotPlace } from '@yunta/core/plan/slots/problem';
import type { SwitchesPlan } from '@yunta/core/plan/slots/switches';
import { bankBySong, placesOn, switchesOfRig, type SlotWishes } from '@yunta/core/plan/slots/wishes';
import type { Rig } from '@yunta/core/rig/rig';
import type { Song } from '@yunta/core/rig/show';
import { useEffect, useRef, useState } from 'react';
import { planWorker } from '../../worker/planned.js';
import type { Planning } from '../../worker/plan.worker.js';

/** Everything on its switch, and what that comes to. */
export interface PlacedSlots {
  readonly places: readonly SlotPlace[];
  readonly moves: readonly MoveSwitch[];
  /** What the choice of switches comes to; undefined where the order of the cues says it. */
  readonly switches?: Pick<SwitchesPlan, 'strays' | 'tight' | 'isProved'>;
}

export interface SlotsPlanning {
  readonly is: 'at rest' | 'planning' | 'stopped' | 'done' | 'failed' | 'impossible';
  readonly best?: PlanProgress;
  readonly placed?: PlacedSlots;
  /** Since it began, in seconds, as soon as it has ended. */
  readonly seconds?: number;
}

/** What is planned: the slots with the wishes in their problem, and the songs that are played from them. */
export interface SlotsWanted {
  readonly rig: Rig;
  readonly setup: SlotsOfRig;
  readonly songs: readonly Song[];
  readonly wishes: SlotWishes;
}

/** A bank for every song needs no looking for. */
const bySong = ({ setup }: SlotsWanted): SlotsPlanning => {
  const { places, banks } = bankBySong(setup.problem);
  const cost = costOf({ ...setup.problem, banks, copies: places.length }, places);
  return { is: 'done', best: { places, ...cost, bound: cost.stomps }, placed: { places, moves: [] }, seconds: 0 };
};

/** Plans slots in a worker of its own: it can be stopped at any time, and what it has by then is kept. */
export const useSlotsPlan = () => {
  const worker = useRef<Worker>(undefined);
  const [state, set] = useState<SlotsPlanning>({ is: 'at rest' });
  const end = (): void => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => end, []);
  const start = (wanted: SlotsWanted): void => {
    end();
    if (wanted.wishes.bankFor === 'song') return set(bySong(wanted));
    const { rig, setup, songs, wishes } = wanted;
    const began = performance.now();
    const mine = planWorker('plan');
    worker.current = mine;
    const isMine = (): boolean => worker.current === mine;
    const over = (with_: Partial<SlotsPlanning> & Pick<SlotsPlanning, 'is'>): void => {
      if (!isMine()) return;
      end();
      set((before) => ({ ...before, ...with_, seconds: (performance.now() - began) / 1000 }));
    };
    set({ is: 'planning' });
    const planning = wrap<Planning>(mine);
    const tell = proxy((best: PlanProgress) => isMine() && set({ is: 'planning', best }));
    const plan = async (): Promise<void> => {
      const best = await planning.slots(setup.problem, tell);
      if (!best) return over({ is: 'impossible' });
      const of = switchesOfRig(rig, setup, songs, leastMoved(setup, best.places), wishes);
      const { at, ...switches } = await planning.switches(of.problem, of.first);
      over({ is: 'done', best, placed: { ...placesOn(of, at), switches } });
    };
    plan().catch(() => over({ is: 'failed' }));
  };
  const stop = (): void => {
    end();
    set((before) => ({ ...before, is: 'stopped' }));
  };
  return { state, start, stop, forget: () => set({ is: 'at rest' }) };
};
