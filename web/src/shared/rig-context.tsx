import type { Edit } from '@yunta/core/change/edit';
import type { View } from '@yunta/core/derive/views/view';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { AnyId, Id } from '@yunta/core/rig/ids';
import { partOf, type Rig } from '@yunta/core/rig/rig';
import type { Refusal } from '@yunta/core/rig/result';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { createContext, useContext, useEffect, useMemo, useState, useSyncExternalStore, type ReactNode } from 'react';
import { startDeriving, type AskWorker, type DerivedState } from '../worker/client.js';
import { api } from '../session/api.js';
import { useHookupAsked } from './use-hookup-asked.js';
import { newId, pageId } from '../session/ids.js';
import { Outbox } from '../session/outbox.js';
import { SessionStore, type StoreState } from '../session/store.js';

interface RigContext {
  readonly rigId: string;
  readonly store: SessionStore;
  readonly state: StoreState;
  readonly rig: Rig;
  readonly hookup: Hookup | undefined;
  readonly chooseHookup: (id: Id<'hookup'>) => void;
  readonly derived: DerivedState;
  readonly view: View | undefined;
  readonly ask: AskWorker;
  /** What is selected; it belongs to the page, not to the rig. */
  readonly selected: AnyId | undefined;
  readonly select: (id: AnyId | undefined) => void;
  /** Parts that the finding in hand is about, marked wherever they are drawn. */
  readonly pointed: readonly AnyId[];
  readonly point: (ids: readonly AnyId[]) => void;
  readonly edit: (edit: Edit, label: string) => readonly Refusal[];
}

const Context = createContext<RigContext | undefined>(undefined);
export const outbox = new Outbox();

export const useRig = (): RigContext => {
  const context = useContext(Context);
  if (!context) throw new Error('useRig belongs inside RigProvider');
  return context;
};

/** Asks the worker for a detail; asked again when something new was derived, the older answer staying meanwhile. */
export const useAsked = <T,>(
  key: readonly unknown[],
  ask: (worker: AskWorker) => Promise<T>,
  enabled = true,
): T | undefined => {
  const { derived, ask: worker, rigId } = useRig();
  return useQuery({
    queryKey: [rigId, derived.stamp, ...key],
    queryFn: () => ask(worker),
    enabled: enabled && derived.stamp > 0,
    placeholderData: keepPreviousData,
    gcTime: 30_000,
    staleTime: Infinity,
  }).data;
};

export const RigProvider = ({
  rigId,
  fallback,
  children,
}: {
  rigId: string;
  fallback: (state: StoreState) => ReactNode;
  children: ReactNode;
}) => {
  const [tools, setTools] = useState<{ store: SessionStore; client: ReturnType<typeof startDeriving> }>();
  useEffect(() => {
    const store = new SessionStore(rigId, pageId(), api, outbox, newId);
    const client = startDeriving();
    setTools({ store, client });
    void store.open();
    return () => {
      store.close();
      client.close();
    };
  }, [rigId]);
  if (!tools) return fallback({ status: 'loading', online: true, keeps: true });
  return (
    <Opened rigId={rigId} {...tools} fallback={fallback}>
      {children}
    </Opened>
  );
};

const NOTHING: readonly AnyId[] = [];

const Opened = ({
  rigId,
  store,
  client,
  fallback,
  children,
}: {
  rigId: string;
  store: SessionStore;
  client: ReturnType<typeof startDeriving>;
  fallback: (state: StoreState) => ReactNode;
  children: ReactNode;
}) => {
  const state = useSyncExternalStore(store.subscribe, store.snapshot);
  const derived = useSyncExternalStore(client.subscribe, client.snapshot);
  useEffect(() => {
    const ask = (e: BeforeUnloadEvent) => {
      if (store.wouldLose()) e.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [store]);
  const [selected, select] = useState<AnyId>();
  const [pointed, point] = useState<readonly AnyId[]>(NOTHING);
  const rig = state.session?.rig;
  const { hookup, chooseHookup } = useHookupAsked(rig);
  useEffect(() => {
    if (rig && hookup) client.want(rig, hookup.id);
  }, [client, rig, hookup]);
  const value = useMemo(
    () =>
      rig && {
        rigId,
        store,
        state,
        rig,
        hookup,
        chooseHookup,
        derived,
        view: derived.view,
        ask: client.ask,
        selected: selected && partOf(rig, selected) ? selected : undefined,
        select,
        pointed,
        point,
        edit: (edit: Edit, label: string) => store.perform(edit, label),
      },
    [rigId, store, state, rig, hookup, chooseHookup, derived, client, selected, pointed],
  );
  if (!value || state.status === 'missing') return fallback(state);
  return <Context.Provider value={value}>{children}</Context.Provider>;
};
