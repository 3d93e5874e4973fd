import type { DrillKey } from '@yunta/core/derive/views/drill';

/** Which MIDI message is which switch, by what a message is recognised by. */
export type Learnt = Readonly<Record<string, string>>;

const placeOf = (rigId: string): string => `yunta-midi-switches ${rigId}`;

type Store = Pick<Storage, 'getItem' | 'setItem'>;

/** What this browser remembers of the switches of a rig. */
export const readLearnt = (rigId: string, store: Store = localStorage): Learnt => {
  try {
    const kept: unknown = JSON.parse(store.getItem(placeOf(rigId)) ?? '{}');
    if (typeof kept !== 'object' || kept === null) return {};
    return Object.fromEntries(Object.entries(kept).filter(([, key]) => typeof key === 'string')) as Learnt;
  } catch {
    return {}; // A note that somebody else wrote over is learnt anew.
  }
};

export const keepLearnt = (rigId: string, learnt: Learnt, store: Store = localStorage): void =>
  store.setItem(placeOf(rigId), JSON.stringify(learnt));

/** The first switch of a song that no message stands for yet. */
export const nextToLearn = (keys: readonly DrillKey[], learnt: Learnt): DrillKey | undefined => {
  const known = new Set(Object.values(learnt));
  return keys.find((key) => !known.has(key.id));
};
