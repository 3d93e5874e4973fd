import type { Api } from './api.js';
import { holdsAnything, type Outbox } from './outbox.js';
import { lockOf, SessionStore } from './store.js';

/** What of a rig waits in this browser, from pages that are closed or still open. */
export interface WaitingRig {
  readonly rig: string;
  readonly name: string;
  readonly changes: number;
  /** Of these, what no open page holds: it can be sent from here. */
  readonly left: number;
  /** Could not be kept by the server; a person has to look, in the rig. */
  readonly toSettle: number;
}

type Locks = Pick<LockManager, 'query'>;

/**
 * Rigs of which something waits in this browser.
 * @param mine pages without a screen, from which it is being sent: nobody else holds what they hold
 */
export const waitingRigs = async (
  outbox: Outbox,
  locks: Locks | undefined = globalThis.navigator?.locks,
  mine: ReadonlySet<string> = new Set(),
): Promise<readonly WaitingRig[]> => {
  const held = new Set((await locks?.query())?.held?.map((lock) => lock.name) ?? []);
  const isElsewhere = (page: string): boolean => held.has(lockOf(page)) && !mine.has(page);
  const found = new Map<string, WaitingRig>();
  for (const kept of (await outbox.all()).filter(holdsAnything)) {
    const sofar = found.get(kept.rig);
    const about = kept.parts.find((p) => p.kind === 'about');
    found.set(kept.rig, {
      rig: kept.rig,
      name: sofar?.name ?? (about?.kind === 'about' ? about.name : kept.rig),
      changes: (sofar?.changes ?? 0) + kept.waiting.length,
      left: (sofar?.left ?? 0) + (isElsewhere(kept.page) ? 0 : kept.waiting.length),
      toSettle: (sofar?.toSettle ?? 0) + (kept.troubles?.length ?? 0),
    });
  }
  return [...found.values()];
};

/**
 * Sends what closed pages left behind, without opening the rigs: a page without a screen takes up each, and is closed
 * when nothing waits any more. What an open page holds, that page sends; what is to be settled stays.
 */
export class Sender {
  private readonly stores = new Map<string, SessionStore>();

  constructor(
    private readonly api: Api,
    private readonly outbox: Outbox,
    private readonly newId: () => string,
    private readonly changed: () => void,
  ) {}

  /** Names under which it keeps what it took up. */
  get pages(): ReadonlySet<string> {
    return new Set([...this.stores.values()].map((s) => s.page));
  }

  async send(): Promise<void> {
    for (const { rig, left } of await waitingRigs(this.outbox))
      if (left > 0 && !this.stores.has(rig)) await this.takeUp(rig);
  }

  private async takeUp(rig: string): Promise<void> {
    const store = new SessionStore(rig, this.newId(), this.api, this.outbox, this.newId);
    this.stores.set(rig, store);
    store.subscribe(() => {
      const { session, online } = store.snapshot();
      if (session?.waiting.length || !online) return;
      // What was sent is written down as sent before the page's name is given back.
      void store.atRest().then(() => {
        if (store.snapshot().session?.waiting.length) return;
        this.drop(rig, store);
        this.changed();
      });
    });
    await store.open();
  }

  private drop(rig: string, store: SessionStore): void {
    if (this.stores.get(rig) !== store) return;
    store.close();
    this.stores.delete(rig);
  }

  close(): void {
    for (const store of this.stores.values()) store.close();
    this.stores.clear();
  }
}
