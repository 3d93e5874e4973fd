import type { ChangeSet } from '@yunta/core/change/edit';
import { rigOf, type Part } from '@yunta/core/rig/rig';
import type { AnyId } from '@yunta/core/rig/ids';
import { restoreSession, type Session, type Trouble, type Waiting } from '@yunta/core/change/session';
import { openDB, type IDBPDatabase } from 'idb';

/** What a page keeps in the browser, so that nothing is lost when the server or the page goes away. */
export interface Kept {
  readonly rig: string;
  readonly page: string;
  readonly revision: number;
  readonly parts: readonly Part[];
  readonly waiting: readonly KeptChange[];
  /** What others' changes stood against, and the person has not settled yet. */
  readonly troubles?: readonly (KeptChange & Pick<Trouble, 'clashes' | 'refusals' | 'after'>)[];
}

interface KeptChange {
  readonly set: ChangeSet;
  readonly delta: readonly (readonly [AnyId, { readonly before: Part | null; readonly after: Part | null }])[];
}

const NAME = 'yunta';
const STORE = 'pages';

const OPENING = 'yunta-opening';
/** How long the browser may take to open its database; then the page goes on without, and asks again later. */
const PATIENCE_MS = 8000;

/**
 * Opens by turns. A page that the browser sets aside for the way back, just as it opens the database, leaves it half
 * open, and every other page waits for it without end. A browser drops a page that it has set aside as soon as another
 * one asks for a lock that it holds; so the lock is held as long as opening takes.
 */
const byTurns = <T>(
  open: () => Promise<T>,
  locks: LockManager | undefined = globalThis.navigator?.locks,
): Promise<T> => {
  if (!locks) return open();
  return new Promise<T>((opened, failed) => {
    locks.request(OPENING, () => open().then(opened, failed)).catch(failed);
  });
};

/** What takes too long is given up; when it is done after all, nobody waits for it any more. */
const inTime = <T>(what: Promise<T>): Promise<T> =>
  new Promise((done, failed) => {
    const tooLong = setTimeout(() => failed(new Error('the browser does not open its database')), PATIENCE_MS);
    what.then(done, failed).finally(() => clearTimeout(tooLong));
  });

export class Outbox {
  private db: Promise<IDBPDatabase> | undefined;

  /** A browser that refused once is asked again the next time; one that closed its database by itself, too. */
  private open(): Promise<IDBPDatabase> {
    const forget = () => {
      this.db = undefined;
    };
    this.db ??= byTurns(() =>
      openDB(NAME, 1, {
        upgrade: (db) => {
          db.createObjectStore(STORE, { keyPath: ['rig', 'page'] });
        },
        terminated: forget,
      }),
    );
    this.db.catch(forget);
    return inTime(this.db);
  }

  async keep(kept: Kept): Promise<void> {
    await (await this.open()).put(STORE, kept);
  }

  async kept(rig: string, page: string): Promise<Kept | undefined> {
    return (await this.open()).get(STORE, [rig, page]);
  }

  /** What every page of this browser keeps, of one rig or of all. */
  async all(rig?: string): Promise<readonly Kept[]> {
    return (await (await this.open()).getAll(STORE)).filter((k) => rig === undefined || k.rig === rig);
  }

  async drop(rig: string, page: string): Promise<void> {
    await (await this.open()).delete(STORE, [rig, page]);
  }
}

/** What a session holds that is nowhere else. */
export const keptOf = ({ waiting, troubles }: Session): Pick<Kept, 'waiting' | 'troubles'> => {
  const plain = <T extends Waiting>(one: T) => ({ ...one, delta: [...one.delta] });
  return { waiting: waiting.map(plain), troubles: troubles.map(plain) };
};

export const sessionOf = ({ parts, revision, waiting, troubles = [] }: Kept): Session => {
  const read = <T extends KeptChange>(one: T) => ({ ...one, delta: new Map(one.delta) });
  return restoreSession(rigOf(parts, revision), waiting.map(read), troubles.map(read));
};

export const holdsAnything = ({ waiting, troubles = [] }: Kept): boolean => waiting.length + troubles.length > 0;
