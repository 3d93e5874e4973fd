import type { ChangeSet } from '@yunta/core/change/edit';
import type { Part } from '@yunta/core/rig/rig';
import type { AnyId } from '@yunta/core/rig/ids';
import type { Waiting } from '@yunta/core/change/session';
import { openDB, type IDBPDatabase } from 'idb';

/** What a page keeps in the browser, so that nothing is lost when the server or the page goes away. */
export interface Kept {
  readonly rig: string;
  readonly page: string;
  readonly revision: number;
  readonly parts: readonly Part[];
  readonly waiting: readonly { readonly set: ChangeSet; readonly delta: readonly (readonly [AnyId, { readonly before: Part | null; readonly after: Part | null }])[] }[];
}

const NAME = 'yunta';
const STORE = 'pages';

export class Outbox {
  private db: Promise<IDBPDatabase> | undefined;

  private open(): Promise<IDBPDatabase> {
    this.db ??= openDB(NAME, 1, { upgrade: (db) => { db.createObjectStore(STORE, { keyPath: ['rig', 'page'] }); } });
    return this.db;
  }

  async keep(kept: Kept): Promise<void> {
    await (await this.open()).put(STORE, kept);
  }

  async kept(rig: string, page: string): Promise<Kept | undefined> {
    return (await this.open()).get(STORE, [rig, page]);
  }

  /** What every page of this browser keeps of a rig. */
  async all(rig: string): Promise<readonly Kept[]> {
    return ((await (await this.open()).getAll(STORE)) as Kept[]).filter((k) => k.rig === rig);
  }

  async drop(rig: string, page: string): Promise<void> {
    await (await this.open()).delete(STORE, [rig, page]);
  }
}

export const keptWaiting = (waiting: readonly Waiting[]): Kept['waiting'] => waiting.map(({ set, delta }) => ({ set, delta: [...delta] }));
export const readWaiting = (kept: Kept): readonly Waiting[] => kept.waiting.map(({ set, delta }) => ({ set, delta: new Map(delta) }));
