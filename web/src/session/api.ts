import type { ChangeSet } from '@yunta/core/change/edit';
import type { Device } from '@yunta/core/rig/device';
import type { Clash } from '@yunta/core/change/rebase';
import type { Journaled } from '@yunta/core/change/session';
import { personHere } from './person.js';
import { rigOf, type Part, type Rig } from '@yunta/core/rig/rig';
import type { AnyId } from '@yunta/core/rig/ids';
import type { Refusal } from '@yunta/core/rig/result';

export interface RigEntry {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly changed: string;
  readonly demo: boolean;
  /** Put away; it can be brought back. */
  readonly removed: boolean;
  readonly last?: { readonly label: string; readonly who: string; readonly when: string };
}

export interface HistoryEntry {
  readonly revision: number;
  readonly id: string;
  readonly label: string;
  readonly who: string;
  readonly when: string;
  /** How many it touched. */
  readonly parts: number;
}

/** What the server says when it refuses, or cannot: problem details (RFC 9457). */
export interface SaidProblem {
  readonly title: string;
  readonly detail: string;
  readonly refusals?: readonly Refusal[];
  readonly clashes?: readonly Clash[];
}

/** The server answered and refused. */
export class RefusedByServer extends Error {
  constructor(
    readonly status: number,
    readonly problem: SaidProblem,
  ) {
    super(problem.detail);
  }
}

/**
 * The server, or its database, could not be reached, or has no room just now. Nothing is known about what became of
 * the request; it may be sent again.
 */
export class Away extends Error {
  /** @param why what the server said of it, when it said anything */
  constructor(
    message: string,
    readonly why?: SaidProblem,
  ) {
    super(message);
  }
}

/** The server answered that it failed at this very request: sending it again may help, or never. */
export class Failing extends Error {
  constructor(
    readonly status: number,
    readonly problem: SaidProblem,
  ) {
    super(problem.detail);
  }
}

const TIMEOUT_MS = 15_000;
/** A large rig file takes its time. */
const FILE_TIMEOUT_MS = 120_000;
/** Answers of something that stands before the server, or of a server that says of itself that it cannot just now. */
const AWAY: ReadonlySet<number> = new Set([502, 503, 504]);

const problemIn = (response: Response): Promise<SaidProblem | undefined> =>
  response
    .json()
    .then((said: Partial<SaidProblem> | null) =>
      typeof said?.detail === 'string' ? { ...said, title: said.title ?? 'Refused', detail: said.detail } : undefined,
    )
    .catch(() => undefined);

const ask = async <T>(
  path: string,
  body?: unknown,
  method = body === undefined ? 'GET' : 'POST',
  timeout = TIMEOUT_MS,
): Promise<T> => {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(method === 'GET' ? {} : { 'x-yunta-person': encodeURIComponent(personHere()) }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(timeout),
    });
    if (response.ok) return await response.json();
  } catch (e) {
    throw new Away(String(e));
  }
  const said = await problemIn(response);
  if (AWAY.has(response.status)) throw new Away(`the server answered ${response.status}`, said);
  const problem = said ?? { title: 'No reason given', detail: `The server answered ${response.status}.` };
  throw response.status >= 500 ? new Failing(response.status, problem) : new RefusedByServer(response.status, problem);
};

interface WireEntry extends Omit<Journaled, 'delta'> {
  readonly delta: readonly { readonly id: AnyId; readonly before: Part | null; readonly after: Part | null }[];
}
const JOURNAL_PAGE = 500;
export const HISTORY_PAGE = 100;

const askRig = async (path: string): Promise<Rig> => {
  const { revision, parts } = await ask<{ revision: number; parts: readonly Part[] }>(path);
  return rigOf(parts, revision);
};

export const api = {
  rigs: () => ask<readonly RigEntry[]>('/rigs'),
  rig: (id: string) => askRig(`/rigs/${id}`),
  putAway: (id: string) => ask<unknown>(`/rigs/${id}`, undefined, 'DELETE'),
  bringBack: (id: string) => ask<unknown>(`/rigs/${id}/back`, {}),
  /** The rig as it was at a revision. */
  at: (id: string, revision: number) => askRig(`/rigs/${id}/revisions/${revision}`),
  create: (id: string, change: string, file: string, label: string) =>
    ask<{ revision: number }>('/rigs', { id, change, file, label }, 'POST', FILE_TIMEOUT_MS),
  send: (rig: string, set: ChangeSet) => ask<{ revision: number; again: boolean }>(`/rigs/${rig}/changes`, set),
  /** All that came after a revision, page by page. */
  journal: async (rig: string, after: number): Promise<readonly Journaled[]> => {
    const all: Journaled[] = [];
    for (;;) {
      const { entries, more } = await ask<{ entries: readonly WireEntry[]; more: boolean }>(
        `/rigs/${rig}/journal?after=${all.at(-1)?.revision ?? after}&most=${JOURNAL_PAGE}`,
      );
      all.push(
        ...entries.map((j) => ({
          ...j,
          delta: new Map(j.delta.map(({ id, before, after: to }) => [id, { before, after: to }])),
        })),
      );
      if (!more) return all;
    }
  },
  /** The last change that was made by then; none where the rig was not there yet. */
  lastBy: async (rig: string, until: Date): Promise<HistoryEntry | undefined> =>
    (await ask<readonly HistoryEntry[]>(`/rigs/${rig}/history?most=1&until=${until.toISOString()}`))[0],
  /** The newest first, from before a revision on. */
  history: (rig: string, before?: number) =>
    ask<readonly HistoryEntry[]>(
      `/rigs/${rig}/history?most=${HISTORY_PAGE}${before === undefined ? '' : `&before=${before}`}`,
    ),
};

export type Api = typeof api;

/** A person's own boxes; they belong to no rig. */
export const shelfApi = {
  boxes: () => ask<readonly { readonly key: string; readonly box: Device }[]>('/shelf'),
  shelve: (key: string, box: Device) => ask<{ key: string }>('/shelf', { key, box }),
  takeOff: (key: string) => ask<{ key: string }>(`/shelf/${key}`, undefined, 'DELETE'),
};

/** A night as others on the network may see it: in words, and where the player is. */
export interface SharedNight {
  readonly rig: string;
  readonly name: string;
  readonly songs: readonly {
    readonly title: string;
    readonly facts: string;
    readonly cues: readonly {
      readonly name: string;
      readonly sound?: string;
      readonly hit?: string;
      readonly bank?: string;
      readonly hands: readonly string[];
    }[];
  }[];
  readonly song: number;
  readonly cue: number;
}
export interface Show {
  readonly token: string;
  readonly urls: readonly string[];
}

/** Nights that are shared with others on the same network, to look at only. */
export const showsApi = {
  shared: (rig: string) => ask<{ readonly show: Show | null }>(`/shows?rig=${rig}`),
  share: (night: SharedNight) => ask<Show>('/shows', night),
  goOn: (token: string, night: SharedNight) => ask<unknown>(`/shows/${token}`, night, 'PUT'),
  withdraw: (token: string) => ask<unknown>(`/shows/${token}`, undefined, 'DELETE'),
};
