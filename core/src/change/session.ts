import { surely } from '../known/the.js';
import { cutTo, LONGEST_LABEL } from '../rig/limits.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import type { Rig } from '../rig/rig.js';
import { apply, type Applied } from './apply.js';
import { editOf, invert, patch, sharing, squash, type Delta } from './delta.js';
import type { ChangeSet, Edit } from './edit.js';
import { rebase, type Clash } from './rebase.js';

/**
 * What one page knows of a rig: the rig as the server last confirmed it, the change sets that wait to be confirmed, in
 * order, and the rig as the person sees it. A pure reducer: no clock, no network, ids are passed in.
 */
export interface Session {
  readonly confirmed: Rig;
  readonly waiting: readonly Waiting[];
  /** `confirmed` with all that waits on top. */
  readonly rig: Rig;
  /** Every delta since the page was opened, newest last; undo looks back through these. */
  readonly past: readonly Past[];
  /** Ids of my gestures that can be undone, newest last, and of those undone. */
  readonly undoable: readonly string[];
  readonly redoable: readonly string[];
  /** Changes that could not be kept; shown until the person settles each. */
  readonly troubles: readonly Trouble[];
}

export interface Waiting {
  readonly set: ChangeSet;
  readonly delta: Delta;
}

interface Past {
  readonly id: string;
  readonly label: string;
  readonly delta: Delta;
}

export interface Trouble {
  readonly set: ChangeSet;
  readonly delta: Delta;
  readonly clashes: readonly Clash[];
  readonly refusals: readonly Refusal[];
  /** What it was built upon and could not be kept either, as the person called it. */
  readonly after?: string;
}

/** One entry of the journal as the server tells it. */
export interface Journaled {
  readonly revision: number;
  readonly id: string;
  readonly label: string;
  readonly delta: Delta;
}

export const openSession = (rig: Rig): Session => ({
  confirmed: rig,
  waiting: [],
  rig,
  past: [],
  undoable: [],
  redoable: [],
  troubles: [],
});

export type Gesture = 'edit' | 'undo' | 'redo';

/** A gesture of the person at this page: applied at once, then waiting for the server. */
export const perform = (
  session: Session,
  edit: Edit,
  id: string,
  label: string,
  gesture: Gesture = 'edit',
): Result<Session, readonly Refusal[]> => {
  const applied = apply(session.rig, edit);
  if (!applied.ok) return applied;
  const { rig, delta } = applied.value;
  if (delta.size === 0) return ok(session);
  const set: ChangeSet = {
    id,
    base: session.confirmed.revision,
    label: cutTo(label.toWellFormed(), LONGEST_LABEL),
    ...editOf(delta),
  };
  return ok({
    ...session,
    rig,
    waiting: [...session.waiting, { set, delta }],
    past: [...session.past, { id, label: set.label, delta }],
    undoable: gesture === 'undo' ? session.undoable.slice(0, -1) : [...session.undoable, id],
    redoable: gesture === 'edit' ? [] : gesture === 'undo' ? [...session.redoable, id] : session.redoable.slice(0, -1),
  });
};

/** Takes the last gesture back over whatever came since, also from others. */
export const undo = (session: Session, id: string): Result<Session, readonly (Refusal | Clash)[]> =>
  takeBack(session, session.undoable.at(-1), id, 'undo');

export const redo = (session: Session, id: string): Result<Session, readonly (Refusal | Clash)[]> =>
  takeBack(session, session.redoable.at(-1), id, 'redo');

const takeBack = (
  session: Session,
  target: string | undefined,
  id: string,
  gesture: 'undo' | 'redo',
): Result<Session, readonly (Refusal | Clash)[]> => {
  if (target !== undefined && session.troubles.some((t) => t.set.id === target)) return ok(settle(session, target));
  const place = session.past.findIndex((p) => p.id === target);
  const entry = session.past[place];
  if (!entry)
    return refuse([
      {
        code: 'undo',
        wrong: `There is nothing to ${gesture}.`,
        would: 'Changes from before this page was opened are in History.',
      },
    ]);
  const back = rebase(invert(entry.delta), squash(session.past.slice(place + 1).map((later) => later.delta)));
  if (!back.ok) return back;
  const label = `${gesture === 'undo' ? 'Undo' : 'Redo'}: ${entry.label.replace(/^((Undo|Redo): )+/, '')}`;
  return perform(session, editOf(back.value), id, label, gesture);
};

/**
 * What the server confirmed since: my own change sets leave the queue, others' come underneath what still waits.
 * What can no longer be kept becomes a trouble with both values; it is never dropped silently. Parts that say the same
 * as before are the same objects.
 */
export const confirm = (session: Session, journal: readonly Journaled[]): Session => {
  const news = journal.filter((j) => j.revision > session.confirmed.revision);
  if (news.length === 0) return session;
  const confirmed = sharing(
    session.rig,
    news.reduce((rig, j) => patch(rig, j.delta, j.revision), session.confirmed),
  );
  const mine = new Set(session.waiting.map((w) => w.set.id));
  const settled = new Set(news.filter((j) => mine.has(j.id)).map((j) => j.id));
  const others = news.filter((j) => !mine.has(j.id));
  const still = session.waiting.filter((w) => !settled.has(w.set.id));
  const { theirs, rig, ...replayed } = replay(confirmed, still, squash(others.map((j) => j.delta)));
  const kept = forget({ ...session, confirmed, ...replayed, rig: sharing(session.rig, rig) }, replayed.troubles);
  const last = surely(news.at(-1));
  return {
    ...kept,
    past: theirs.size ? [...kept.past, { id: `with ${last.id}`, label: last.label, delta: theirs }] : kept.past,
    troubles: [...session.troubles, ...replayed.troubles],
  };
};

/**
 * The server refused a change set, or failed at it: it becomes a trouble. What came after it goes on without what it
 * did; what cannot stand without it becomes a trouble too and says what it was built on.
 */
export const refused = (
  session: Session,
  id: string,
  clashes: readonly Clash[],
  refusals: readonly Refusal[],
): Session => {
  const out = session.waiting.find((w) => w.set.id === id);
  if (!out) return session;
  const { theirs, rig, waiting, troubles } = replay(session.confirmed, session.waiting, new Map(), id);
  const builtUpon: Refusal = {
    code: 'built',
    wrong: `It changes what “${out.set.label}” brought, and that could not be kept.`,
    would: 'Do it again once that is settled.',
  };
  const built = troubles.map((t): Trouble => ({
    ...t,
    clashes: [],
    refusals: t.refusals.length ? t.refusals : [builtUpon],
    after: out.set.label,
  }));
  const trouble: Trouble = { ...out, clashes, refusals };
  const next = forget({ ...session, rig: sharing(session.rig, rig), waiting }, [trouble, ...built]);
  return {
    ...next,
    past: [...next.past, { id: `without ${id}`, label: out.set.label, delta: theirs }],
    troubles: [...session.troubles, trouble, ...built],
  };
};

/** What was not kept has no effect that could be taken back; undoing it lets it go. */
const forget = (session: Session, troubles: readonly Trouble[]): Session => {
  const lost = new Set(troubles.map((t) => t.set.id));
  if (lost.size === 0) return session;
  return {
    ...session,
    past: session.past.filter((p) => !lost.has(p.id)),
    redoable: session.redoable.filter((id) => !lost.has(id)),
  };
};

/** A trouble that is done with, whatever became of what it meant. */
export const settle = (session: Session, id: string): Session => ({
  ...session,
  troubles: session.troubles.filter((t) => t.set.id !== id),
  undoable: session.undoable.filter((u) => u !== id),
});

interface Replayed {
  readonly rig: Rig;
  readonly waiting: readonly Waiting[];
  readonly troubles: readonly Trouble[];
  /** Their changes as they read on top of mine. */
  readonly theirs: Delta;
}

/**
 * What waits on top of what was confirmed. A change that is not kept is taken back for those that come after it: each
 * holds whole parts, and must not bring back what the one before it wanted.
 * @param out left out, whatever becomes of it
 */
const replay = (confirmed: Rig, waiting: readonly Waiting[], others: Delta, out?: string): Replayed => {
  let rig = confirmed;
  let theirs = others;
  const kept: Waiting[] = [];
  const troubles: Trouble[] = [];
  for (const one of waiting) {
    const again = one.set.id === out ? undefined : carriedOver(rig, one, theirs);
    if (again && 'rig' in again) {
      rig = again.rig;
      kept.push({ set: { ...one.set, base: confirmed.revision, ...editOf(again.delta) }, delta: again.delta });
      const over = rebase(theirs, one.delta);
      if (over.ok) theirs = over.value;
    } else {
      if (again) troubles.push({ ...one, ...again });
      theirs = squash([invert(one.delta), theirs]);
    }
  }
  return { rig, waiting: kept, troubles, theirs };
};

/** A change on top of what others did: the rig with it, or why it cannot be. */
const carriedOver = (rig: Rig, { delta }: Waiting, theirs: Delta): Applied | Pick<Trouble, 'clashes' | 'refusals'> => {
  const mine = rebase(delta, theirs);
  if (!mine.ok) return { clashes: mine.error, refusals: [] };
  const applied = apply(rig, editOf(mine.value));
  return applied.ok ? { rig: applied.value.rig, delta: mine.value } : { clashes: [], refusals: applied.error };
};

/**
 * A session taken up again from what a page kept: what waited waits on, shown on top of what was confirmed; what was
 * not settled is asked again.
 */
export const restoreSession = (
  confirmed: Rig,
  waiting: readonly Waiting[],
  unsettled: readonly Trouble[] = [],
): Session => {
  const { theirs: _, ...replayed } = replay(confirmed, waiting, new Map());
  const troubles = [...unsettled, ...replayed.troubles];
  const undoable = [...troubles, ...replayed.waiting].map((w) => w.set.id);
  return {
    confirmed,
    ...replayed,
    troubles,
    past: replayed.waiting.map(({ set, delta }) => ({ id: set.id, label: set.label, delta })),
    undoable,
    redoable: [],
  };
};
