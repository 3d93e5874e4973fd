import type { AnyId } from '../rig/ids.js';
import type { Part } from '../rig/rig.js';

/** A wish: these parts as they shall be, and these gone. An edit names every part that it removes; nothing cascades. */
export interface Edit {
  readonly put: readonly Part[];
  readonly remove: readonly AnyId[];
}

/** An edit that puts one part and takes nothing away: `put[0]` is what it makes. */
export interface Making<P extends Part> extends Edit {
  readonly put: readonly [P];
}

export const making = <P extends Part>(part: P): Making<P> => ({ put: [part], remove: [] });

/** What is sent. Sending it twice is harmless: its id is the same. */
export interface ChangeSet extends Edit {
  readonly id: string;
  /** Revision of the rig that it was made on. */
  readonly base: number;
  /** One gesture, as the person would call it. */
  readonly label: string;
}

export const nothing: Edit = { put: [], remove: [] };

export const isNothing = ({ put, remove }: Edit): boolean => put.length === 0 && remove.length === 0;

/** Several edits as one; the later wins over the earlier. */
export const together = (...edits: readonly Edit[]): Edit => {
  const last = new Map<AnyId, Part | null>();
  for (const edit of edits) {
    for (const id of edit.remove) last.set(id, null);
    for (const part of edit.put) last.set(part.id, part);
  }
  return {
    put: [...last.values()].filter((p): p is Part => p !== null),
    remove: [...last].filter(([, p]) => p === null).map(([id]) => id),
  };
};
