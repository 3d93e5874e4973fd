import type { Edit } from '@yunta/core/change/edit';
import {
  confirm,
  openSession,
  perform,
  redo,
  refused,
  settle,
  undo,
  type Session,
  type Trouble,
} from '@yunta/core/change/session';
import { everyPart } from '@yunta/core/rig/rig';
import type { Refusal } from '@yunta/core/rig/result';
import { insist, type Clash } from '@yunta/core/change/rebase';
import { Away, Failing, RefusedByServer, type Api, type SaidProblem } from './api.js';
import { holdsAnything, keptOf, sessionOf, type Kept, type Outbox } from './outbox.js';
import { surely, theItem } from '@yunta/core/known/the';

export interface StoreState {
  readonly status: 'loading' | 'ready' | 'missing' | 'away';
  readonly session?: Session;
  /** The server answered last time. */
  readonly online: boolean;
  /** What the server says of why it cannot just now: a full disk, say. */
  readonly why?: SaidProblem | undefined;
  /** False when this browser could not keep what waits: then only this page has it. */
  readonly keeps: boolean;
  /** The last thing that could not be done, in words; cleared by the next that can. */
  readonly complaint?: string;
}

type Locks = Pick<LockManager, 'request'>;

const POLL_MS = 1500;
const RETRY_MS = [500, 1000, 2000, 4000];
/** So often a change is sent at which the server fails; then it is set aside, and the rest goes on. */
const MOST_TRIES = 3;

/** So long a copy that is asked for waits until the server has all that it will hold. */
const PATIENCE_MS = 3000;

/** The lock that a page holds as long as it is open. */
export const lockOf = (page: string): string => `yunta-page-${page}`;

/**
 * The only writer of a rig in this page: applies at once, keeps in the browser, sends one by one, takes in what others
 * did.
 */
export class SessionStore {
  private state: StoreState = { status: 'loading', online: true, keeps: true };
  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private sending = false;
  private failures = 0;
  /** How often the server failed at a change. */
  private readonly tries = new Map<string, number>();
  private closed = false;
  private release: (() => void) | undefined;
  private writes: Promise<void> = Promise.resolve();

  constructor(
    readonly rigId: string,
    /** The name under which it keeps; another one when a duplicate of this page has that. */
    public page: string,
    private readonly api: Api,
    private readonly outbox: Outbox,
    private readonly newId: () => string,
    private readonly locks: Locks | undefined = globalThis.navigator?.locks,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): StoreState => this.state;

  private set(change: Partial<StoreState>): void {
    this.state = { ...this.state, ...change };
    this.listeners.forEach((l) => l());
  }

  /** Takes up what this page, or one that is gone, kept in the browser; then what the server has. */
  async open(): Promise<void> {
    const kept = await this.claim();
    if (kept) this.set({ session: sessionOf(kept) });
    try {
      const session = this.state.session;
      if (session) await this.catchUp();
      else this.set({ session: openSession(await this.api.rig(this.rigId)) });
      this.set({ status: 'ready', online: true });
    } catch (e) {
      if (e instanceof RefusedByServer) return this.set({ status: 'missing', online: true });
      this.cannot(e);
      this.set({ status: this.state.session ? 'ready' : 'away' });
    }
    await this.persist();
    this.schedule(0);
  }

  /**
   * This page's own keep from before a reload; else that of a page which is no longer open. Where none of them holds
   * anything of its own, the newest rig that any page of this browser kept: without a server it is opened from there.
   */
  private async claim(): Promise<Kept | undefined> {
    if (!(await this.hold(this.page))) {
      this.page = this.newId();
      await this.hold(this.page);
    }
    const own = await this.outbox.kept(this.rigId, this.page).catch(() => undefined);
    if (own && holdsAnything(own)) return own;
    let newest = own;
    for (const other of await this.outbox.all(this.rigId).catch(() => [])) {
      if (other.page === this.page) continue;
      if (!newest || other.revision > newest.revision) newest = { ...other, waiting: [], troubles: [] };
      const orphan =
        !this.locks || (await this.locks.request(lockOf(other.page), { ifAvailable: true }, (lock) => lock !== null));
      if (!orphan) continue;
      if (!holdsAnything(other)) {
        await this.outbox.drop(this.rigId, other.page);
        continue;
      }
      await this.outbox.keep({ ...other, page: this.page });
      await this.outbox.drop(this.rigId, other.page);
      return other;
    }
    return newest && { ...newest, page: this.page };
  }

  /** Holds the page's name while it is open. False when another page, a duplicate of this one, has it. */
  private hold(page: string): Promise<boolean> {
    const { locks } = this;
    if (!locks) return Promise.resolve(true);
    return new Promise((got) => {
      void locks.request(lockOf(page), { ifAvailable: true }, (lock) => {
        got(lock !== null);
        return lock
          ? new Promise<void>((release) => {
              this.release = release;
            })
          : undefined;
      });
    });
  }

  close(): void {
    this.release?.();
    this.closed = true;
    clearTimeout(this.timer);
  }

  /** @returns the reasons when the edit cannot be */
  perform(edit: Edit, label: string): readonly Refusal[] {
    const { session } = this.state;
    return session ? this.change(session, edit, label) : [];
  }

  private change(session: Session, edit: Edit, label: string): readonly Refusal[] {
    const done = perform(session, edit, this.newId(), label);
    if (!done.ok) {
      this.set({ complaint: sayAll(done.error) });
      return done.error;
    }
    this.accept(done.value);
    return [];
  }

  undo(): void {
    this.back(undo);
  }
  redo(): void {
    this.back(redo);
  }

  private back(step: typeof undo): void {
    const { session } = this.state;
    if (!session) return;
    const done = step(session, this.newId());
    if (done.ok) return this.accept(done.value);
    const [first] = done.error;
    this.set({
      complaint:
        first && 'wrong' in first
          ? `${first.wrong} ${first.would}`
          : 'Somebody changed the same thing since; it cannot be taken back without losing theirs.',
    });
  }

  /**
   * A trouble that was seen to otherwise: by a change that takes its place, or not at all.
   * @returns the reasons when that change cannot be; the trouble stays then
   */
  settleBy(trouble: Trouble, edit: Edit, label: string): readonly Refusal[] {
    const { session } = this.state;
    return session ? this.change(settle(session, trouble.set.id), edit, label) : [];
  }

  /**
   * A trouble that the person settled: with their own values, or by leaving things as they are. It stays when their
   * own cannot be.
   */
  settle(trouble: Trouble, keepMine: boolean): void {
    const { session } = this.state;
    if (!session) return;
    const settled = settle(session, trouble.set.id);
    if (keepMine) this.change(settled, insist(trouble.delta, session.rig), trouble.set.label);
    else this.accept(settled);
  }

  private accept(session: Session): void {
    this.set({ session, complaint: undefined });
    void this.persist();
    this.schedule(0);
  }

  private persist(): Promise<void> {
    this.writes = this.writes.then(async () => {
      const { session } = this.state;
      if (!session) return;
      const keeps = await this.outbox
        .keep({
          rig: this.rigId,
          page: this.page,
          revision: session.confirmed.revision,
          parts: everyPart(session.confirmed),
          ...keptOf(session),
        })
        .then(
          () => true,
          () => false,
        );
      if (keeps !== this.state.keeps) this.set({ keeps });
    });
    return this.writes;
  }

  /** When all that was to be written down in the browser is. */
  atRest(): Promise<void> {
    return this.writes;
  }

  /**
   * The rig to hand on, once the server has all that was done so far: the copy then knows a beginning that holds it too.
   * A server that does not answer, or is slow, is not waited for.
   */
  async toHandOn(): Promise<Session> {
    const waits = () => this.state.online && !this.closed && surely(this.state.session).waiting.length > 0;
    if (waits())
      await new Promise<void>((done) => {
        const stop = () => {
          clearTimeout(late);
          leave();
          done();
        };
        const leave = this.subscribe(() => waits() || stop());
        const late = setTimeout(stop, PATIENCE_MS);
      });
    return surely(this.state.session);
  }

  /** Whether closing the page now would lose something. */
  wouldLose(): boolean {
    const { session, keeps } = this.state;
    return !keeps && session !== undefined && session.waiting.length + session.troubles.length > 0;
  }

  /** The server could not be reached, or failed: it is asked again, later each time. */
  private cannot(e: unknown): void {
    if (!(e instanceof Away) && !(e instanceof Failing) && !(e instanceof RefusedByServer)) throw e;
    this.failures += 1;
    this.set({ online: false, why: e instanceof Away ? e.why : e.problem });
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    if (!this.closed) this.timer = setTimeout(() => void this.tick(), ms);
  }

  /** Sends what waits, one change at a time, and asks what others did. */
  private async tick(): Promise<void> {
    if (this.sending || this.closed) return;
    this.sending = true;
    try {
      if (!this.state.session) await this.open();
      for (let next = this.state.session?.waiting[0]; next; next = this.state.session?.waiting[0])
        await this.sendOne(next.set.id);
      await this.catchUp();
      this.failures = 0;
      if (!this.state.online) this.set({ online: true, why: undefined });
    } catch (e) {
      this.cannot(e);
    } finally {
      this.sending = false;
      this.schedule(this.failures ? theItem(RETRY_MS, Math.min(this.failures, RETRY_MS.length) - 1) : POLL_MS);
    }
  }

  private async sendOne(id: string): Promise<void> {
    const waiting = surely(this.state.session).waiting.find((w) => w.set.id === id);
    if (!waiting) return;
    try {
      await this.api.send(this.rigId, waiting.set);
      this.tries.delete(id);
    } catch (e) {
      if (e instanceof Failing && this.countTry(id) >= MOST_TRIES)
        return this.take(
          refused(
            surely(this.state.session),
            id,
            [],
            [
              {
                code: 'server',
                wrong: 'The server tried three times and could not keep it.',
                would: 'It is set aside here, with all that you meant.',
              },
            ],
          ),
        );
      if (!(e instanceof RefusedByServer)) throw e;
      // What others did comes first: a person who is asked to choose must see both, and what is then chosen stands on
      // top of it.
      await this.catchUp();
      const still = surely(this.state.session).waiting.find((w) => w.set.id === id);
      if (still?.set.base === waiting.set.base)
        this.take(
          refused(
            surely(this.state.session),
            id,
            e.problem.clashes ?? [],
            e.problem.refusals ?? (e.problem.clashes ? [] : [{ code: 'server', wrong: e.problem.detail, would: '' }]),
          ),
        );
    }
    await this.catchUp();
  }

  private countTry(id: string): number {
    const count = (this.tries.get(id) ?? 0) + 1;
    this.tries.set(id, count);
    return count;
  }

  private async catchUp(): Promise<void> {
    const { session } = this.state;
    if (!session) return;
    const news = await this.api.journal(this.rigId, session.confirmed.revision);
    if (news.length) this.take(confirm(surely(this.state.session), news));
  }

  private take(session: Session): void {
    this.set({ session });
    void this.persist();
  }
}

export const sayAll = (refusals: readonly (Refusal | Clash)[]): string =>
  refusals
    .slice(0, 3)
    .map((r) => ('wrong' in r ? `${r.wrong} ${r.would}` : `${r.part} ${r.field ?? ''}`))
    .join(' ');
