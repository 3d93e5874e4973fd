import type { Practised } from '@yunta/core/derive/views/drill-score';

const keyOf = (rigId: string): string => `yunta-practised ${rigId}`;

const isPractised = (one: unknown): one is Practised =>
  typeof one === 'object' &&
  one !== null &&
  'song' in one &&
  'level' in one &&
  typeof one.level === 'number' &&
  'last' in one &&
  !Number.isNaN(Date.parse(String(one.last)));

type Store = Pick<Storage, 'getItem' | 'setItem'>;

/** What was practised of a rig, as this browser remembers it. */
export const readPractised = (rigId: string, store: Store = localStorage): readonly Practised[] => {
  try {
    const kept: unknown = JSON.parse(store.getItem(keyOf(rigId)) ?? '[]');
    return Array.isArray(kept) ? kept.filter(isPractised) : [];
  } catch {
    return []; // A note that somebody else wrote over is a song to be practised anew.
  }
};

export const keepPractised = (rigId: string, one: Practised, store: Store = localStorage): readonly Practised[] => {
  const all = [...readPractised(rigId, store).filter((p) => p.song !== one.song), one];
  store.setItem(keyOf(rigId), JSON.stringify(all));
  return all;
};
