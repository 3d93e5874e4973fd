import { isNothing } from '@yunta/core/change/edit';
import { difference } from '@yunta/core/change/diff';
import type { View } from '@yunta/core/derive/views/view';
import type { Id } from '@yunta/core/rig/ids';
import { everyPart, type Part, type Rig } from '@yunta/core/rig/rig';
import type { Card } from '@yunta/core/derive/views/card';
import { wrap, type Remote } from 'comlink';
import type { Deriving } from './deriving.js';

export interface DerivedState {
  /** The last result. */
  readonly view?: View;
  /** Tells results apart, 0 before the first; questions about details are asked anew when it changes. */
  readonly stamp: number;
  /** The rig has changed since; a newer result is on its way. */
  readonly older: boolean;
  readonly fault?: string;
}

/** What the page can ask of the worker, room by room; every answer comes as a promise. */
type Rooms<Room extends keyof Deriving> = { readonly [R in Room]: Remote<Deriving[R]> };
export type AskWorker = Rooms<'answers' | 'asking' | 'night' | 'bench'>;

/** Comlink's types know a nested object only as a promise of it; its proxies go on at every depth. */
const roomsOf = (worker: Worker) => wrap<Deriving>(worker) as unknown as Rooms<keyof Deriving>;

let lastStamp = 0;
/** No two results of a page have the same, whoever derived them: what was asked of an older one is never taken for it. */
const nextStamp = (): number => (lastStamp += 1);

/** The page's side of the worker: tells it what changed, keeps the older result on screen until the new one comes. */
export class DerivedClient {
  private readonly remote: Rooms<keyof Deriving>;
  private readonly listeners = new Set<() => void>();
  private state: DerivedState = { stamp: 0, older: true };
  private sent: Rig | undefined;
  private wanted: { readonly rig: Rig; readonly hookup: Id<'hookup'> } | undefined;
  private done: { readonly rig: Rig; readonly hookup: Id<'hookup'> } | undefined;
  private busy = false;

  constructor(private readonly worker: Worker) {
    this.remote = roomsOf(worker);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): DerivedState => this.state;
  get ask(): AskWorker {
    return this.remote;
  }

  private set(change: Partial<DerivedState>): void {
    this.state = { ...this.state, ...change };
    this.listeners.forEach((l) => l());
  }

  /** A rig that says the same as the last one, such as the next revision of it, is not derived again. */
  want(rig: Rig, hookup: Id<'hookup'>): void {
    if (this.wanted?.hookup === hookup && isNothing(difference(this.wanted.rig, rig))) return;
    this.wanted = { rig, hookup };
    if (!this.state.older) this.set({ older: true });
    void this.work();
  }

  private async work(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      while (this.wanted && (this.wanted.rig !== this.done?.rig || this.wanted.hookup !== this.done.hookup)) {
        const { rig, hookup } = this.wanted;
        const edit = this.sent ? difference(this.sent, rig) : undefined;
        if (!edit) await this.remote.held.load(everyPart(rig));
        this.sent = rig;
        const view = await this.remote.held.update(edit ?? { put: [], remove: [] }, hookup);
        this.done = { rig, hookup };
        this.set({ view, stamp: nextStamp(), older: this.wanted.rig !== rig, fault: undefined });
      }
    } catch (e) {
      this.sent = undefined;
      this.done = this.wanted;
      this.set({ fault: e instanceof Error ? e.message : String(e), older: true });
    } finally {
      this.busy = false;
    }
  }

  close(): void {
    this.worker.terminate();
  }
}

const startWorker = (name: string): Worker =>
  new Worker(new URL('./derive.worker.ts', import.meta.url), { type: 'module', name });

export const startDeriving = (): DerivedClient => new DerivedClient(startWorker('derive'));

/** What draws the cards of rigs that are not open; started when the first is asked for. */
export class CardMaker {
  private worker: Worker | undefined;
  private rooms: Rooms<'cards'> | undefined;

  card(parts: readonly Part[]): Promise<Card> {
    this.worker ??= startWorker('cards');
    this.rooms ??= roomsOf(this.worker);
    return this.rooms.cards.card(parts);
  }

  close(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.rooms = undefined;
  }
}
