import type { ChangeSet } from '@yunta/core/change/edit';
import type { Device } from '@yunta/core/rig/device';
import type { Delta } from '@yunta/core/change/delta';
import type { Clash } from '@yunta/core/change/rebase';
import type { Journaled } from '@yunta/core/change/session';
import { rigOf, type Part, type Rig } from '@yunta/core/rig/rig';
import type { AnyId } from '@yunta/core/rig/ids';
import type { Refusal } from '@yunta/core/rig/result';

export interface RigEntry {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly changed: string;
  readonly demo: boolean;
}

export interface HistoryEntry {
  readonly revision: number;
  readonly id: string;
  readonly label: string;
  readonly who: string;
  readonly when: string;
  readonly parts: readonly string[];
}

/** The server answered and refused; what it said, as problem details. */
export class Refused extends Error {
  constructor(readonly status: number, readonly problem: { readonly title: string; readonly detail: string; readonly refusals?: readonly Refusal[]; readonly clashes?: readonly Clash[] }) {
    super(problem.detail);
  }
}

/** The server, or its database, could not be reached. Nothing is known about what became of the request. */
export class Away extends Error {}

const TIMEOUT_MS = 15_000;

const ask = async <T>(path: string, body?: unknown, method = 'POST'): Promise<T> => {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      ...(body === undefined ? method === 'POST' ? {} : { method } : { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
  } catch (e) {
    throw new Away(String(e));
  }
  if (response.ok) return await response.json() as T;
  if (response.status >= 500) throw new Away(`the server answered ${response.status}`);
  const problem = await response.json().catch(() => ({ title: 'Refused', detail: `The server answered ${response.status}.` }));
  throw new Refused(response.status, problem);
};

interface WireEntry extends Omit<Journaled, 'delta'> {
  readonly delta: readonly { readonly id: AnyId; readonly before: Part | null; readonly after: Part | null }[];
}
const JOURNAL_PAGE = 500;

const askRig = async (path: string): Promise<Rig> => {
  const { revision, parts } = await ask<{ revision: number; parts: readonly Part[] }>(path);
  return rigOf(parts, revision);
};

export const api = {
  rigs: () => ask<readonly RigEntry[]>('/rigs'),
  rig: (id: string) => askRig(`/rigs/${id}`),
  /** The rig as it was at a revision. */
  at: (id: string, revision: number) => askRig(`/rigs/${id}/revisions/${revision}`),
  create: (id: string, change: string, file: string) => ask<{ revision: number }>('/rigs', { id, change, file }),
  send: (rig: string, set: ChangeSet) => ask<{ revision: number; again: boolean }>(`/rigs/${rig}/changes`, set),
  /** All that came after a revision, page by page. */
  journal: async (rig: string, after: number): Promise<readonly Journaled[]> => {
    const all: Journaled[] = [];
    for (;;) {
      const from = all.at(-1)?.revision ?? after;
      const page = await ask<readonly WireEntry[]>(`/rigs/${rig}/journal?after=${from}&most=${JOURNAL_PAGE}`);
      all.push(...page.map((j) => ({ ...j, delta: new Map(j.delta.map(({ id, before, after: to }) => [id, { before, after: to }])) as Delta })));
      if (page.length < JOURNAL_PAGE) return all;
    }
  },
  history: (rig: string) => ask<readonly HistoryEntry[]>(`/rigs/${rig}/history?most=200`),
};

export type Api = typeof api;

/** A person's own boxes; they belong to no rig. */
export const shelfApi = {
  boxes: () => ask<readonly { readonly key: string; readonly box: Device }[]>('/shelf'),
  shelve: (key: string, box: Device) => ask<{ key: string }>('/shelf', { key, box }),
  takeOff: (key: string) => ask<{ key: string }>(`/shelf/${key}`, undefined, 'DELETE'),
};
