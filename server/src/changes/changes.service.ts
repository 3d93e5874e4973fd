import { Injectable } from '@nestjs/common';
import { apply, wrongIds } from '@yunta/core/change/apply';
import { deltaOf, editOf, invert, squash, type Delta } from '@yunta/core/change/delta';
import type { ChangeSet } from '@yunta/core/change/edit';
import { rebase } from '@yunta/core/change/rebase';
import { KINDS, kindOf, type AnyId } from '@yunta/core/rig/ids';
import { rigName, type Part, type Rig } from '@yunta/core/rig/rig';
import { FORMAT } from '@yunta/core/rig/versions/index';
import {
  Between,
  DataSource,
  LessThan,
  LessThanOrEqual,
  MoreThan,
  type EntityManager,
  type QueryDeepPartialEntity,
} from 'typeorm';
import { clashing, Problem, refusedFor } from '../door/problem.js';
import { JournalEntry, type StoredDelta } from '../journal/journal-entry.entity.js';
import type { Asker } from '../people/who.js';
import { TABLES, type AnyRow } from '../rigs/part.entities.js';
import { toRow } from '../rigs/part-rows.js';
import { RigEntity } from '../rigs/rig.entity.js';
import { RigStore } from '../rigs/rig-store.js';

export interface Accepted {
  /** The revision that the change made, now or when it was first sent. */
  readonly revision: number;
  /** It had been applied before; nothing was done this time. */
  readonly again: boolean;
}

/** Text of the journal that goes in one answer. */
const MOST_BYTES = 4_000_000;

export const storedDelta = (delta: Delta): StoredDelta => [...delta].map(([id, change]) => ({ id, ...change }));
export const readDelta = (stored: StoredDelta): Delta =>
  new Map(stored.map(({ id, before, after }) => [id as AnyId, { before, after }]));

/** Somebody else entered the same row first. */
const isTaken = (error: unknown): boolean =>
  ['ER_DUP_ENTRY', 'ER_LOCK_DEADLOCK'].includes((error as { code?: string }).code ?? '');

/**
 * The one transaction by which a rig changes: lock, bring up to date, apply, write rows, journal, count the revision.
 */
@Injectable()
export class ChangesService {
  constructor(
    private readonly db: DataSource,
    private readonly rigs: RigStore,
  ) {}

  async submit(who: Asker, rigId: string, set: ChangeSet): Promise<Accepted> {
    const badIds = wrongIds(set);
    if (badIds.length) throw refusedFor(badIds);
    return this.db.transaction('READ COMMITTED', async (manager) => {
      const entry = await this.rigs.entry(who, rigId, manager, true);
      const known = await manager.findOne(JournalEntry, { where: { rig: rigId, change: set.id } });
      if (known) return { revision: known.revision, again: true };
      if (set.base > entry.revision) {
        throw new Problem(
          409,
          'unknown-revision',
          'That revision never was',
          `The change was made on revision ${set.base}; this rig is at ${entry.revision}. Load the rig again, then make the change.`,
          { revision: entry.revision },
        );
      }
      const rig = await this.rigs.loadIn(manager, entry);
      const delta = await this.broughtUpToDate(manager, entry, rig, set);
      const applied = apply(rig, editOf(delta));
      if (!applied.ok) throw refusedFor(applied.error, entry.revision);
      return {
        revision: await this.write(manager, who, entry, applied.value.rig, applied.value.delta, set),
        again: false,
      };
    });
  }

  /**
   * A change made on an older revision is brought on top of what came since; where both changed the same thing it is
   * refused with both values.
   */
  private async broughtUpToDate(manager: EntityManager, entry: RigEntity, rig: Rig, set: ChangeSet): Promise<Delta> {
    if (set.base === entry.revision) return deltaOf(rig, set);
    const since = await this.since(manager, entry.id, set.base);
    const theirs = squash(since.map((j) => readDelta(j.delta)));
    const before = apply(rig, editOf(invert(theirs)));
    if (!before.ok) throw refusedFor(before.error, entry.revision);
    const rebased = rebase(deltaOf(before.value.rig, set), theirs);
    if (!rebased.ok) throw clashing(rebased.error, entry.revision);
    return rebased.value;
  }

  /**
   * A change that turned out to change nothing is journaled all the same, so that sending it again is still harmless.
   */
  private async write(
    manager: EntityManager,
    who: Asker,
    entry: RigEntity,
    rig: Rig,
    delta: Delta,
    set: Pick<ChangeSet, 'id' | 'label'>,
  ): Promise<number> {
    const revision = entry.revision + 1;
    await this.writeRows(manager, entry.id, delta);
    const stored = storedDelta(delta);
    await manager.insert(JournalEntry, {
      rig: entry.id,
      revision,
      change: set.id,
      label: set.label,
      who: who.atKeyboard ?? who.id,
      when: new Date(),
      format: FORMAT,
      delta: stored,
      parts: stored.length,
      bytes: Buffer.byteLength(JSON.stringify(stored)),
    });
    await manager.update(RigEntity, { id: entry.id }, { revision, name: rigName(rig) });
    return revision;
  }

  /** Rows go in the order of kinds and leave in the reverse, as foreign keys demand; nothing cascades. */
  private async writeRows(manager: EntityManager, rig: string, delta: Delta): Promise<void> {
    const removed = [...delta].filter(([, c]) => c.after === null).map(([id]) => id);
    const put = [...delta.values()].map((c) => c.after).filter((p): p is Part => p !== null);
    for (const kind of KINDS) {
      const rows = put.filter((p) => p.kind === kind).map((p) => toRow(rig, p));
      if (rows.length)
        await manager.upsert(TABLES[kind].entity, rows as QueryDeepPartialEntity<AnyRow>[], ['rig', 'id']);
    }
    for (const kind of [...KINDS].reverse()) {
      for (const id of removed.filter((r) => kindOf(r) === kind))
        await manager.delete(TABLES[kind].entity, { rig, id });
    }
  }

  /** A new rig with its first parts, as revision 1. Making the same rig twice is harmless, also at the same moment. */
  async create(who: Asker, rigId: string, rig: Rig, changeId: string, label: string, demo = false): Promise<Accepted> {
    try {
      return await this.made(who, rigId, rig, changeId, label, demo);
    } catch (e) {
      if (!isTaken(e)) throw e;
      return this.made(who, rigId, rig, changeId, label, demo);
    }
  }

  private async made(
    who: Asker,
    rigId: string,
    rig: Rig,
    changeId: string,
    label: string,
    demo: boolean,
  ): Promise<Accepted> {
    return this.db.transaction('READ COMMITTED', async (manager) => {
      const taken = await manager.findOne(RigEntity, { where: { id: rigId } });
      if (taken) {
        const known =
          taken.owner === who.id && (await manager.findOne(JournalEntry, { where: { rig: rigId, change: changeId } }));
        if (known) return { revision: known.revision, again: true };
        throw new Problem(409, 'taken', 'That id is taken', `There is a rig "${rigId}" already. Choose another id.`);
      }
      await manager.insert(RigEntity, { id: rigId, owner: who.id, name: rigName(rig), revision: 0, demo });
      const delta: Delta = new Map(
        KINDS.flatMap((kind) => [...rig.parts[kind]].map(([id, part]) => [id, { before: null, after: part }] as const)),
      );
      return {
        revision: await this.write(manager, who, { id: rigId, revision: 0 } as RigEntity, rig, delta, {
          id: changeId,
          label,
        }),
        again: false,
      };
    });
  }

  /** Back to how the rig was at a revision, as a new change: what came between stays in the journal. */
  async restore(who: Asker, rigId: string, to: number, changeId: string): Promise<Accepted> {
    return this.db.transaction('READ COMMITTED', async (manager) => {
      const entry = await this.rigs.entry(who, rigId, manager, true);
      const known = await manager.findOne(JournalEntry, { where: { rig: rigId, change: changeId } });
      if (known) return { revision: known.revision, again: true };
      if (to < 1 || to > entry.revision)
        throw new Problem(
          404,
          'unknown-revision',
          'That revision never was',
          `This rig has revisions 1 to ${entry.revision}.`,
          { revision: entry.revision },
        );
      const rig = await this.rigs.loadIn(manager, entry);
      const back = invert(squash((await this.since(manager, rigId, to)).map((j) => readDelta(j.delta))));
      const applied = apply(rig, editOf(back));
      if (!applied.ok) throw refusedFor(applied.error, entry.revision);
      return {
        revision: await this.write(manager, who, entry, applied.value.rig, applied.value.delta, {
          id: changeId,
          label: `Back to revision ${to}`,
        }),
        again: false,
      };
    });
  }

  /** The rig as it was at a revision. */
  async at(who: Asker, rigId: string, revision: number): Promise<Rig> {
    return this.db.transaction('REPEATABLE READ', async (manager) => {
      const entry = await this.rigs.entry(who, rigId, manager);
      if (revision < 1 || revision > entry.revision)
        throw new Problem(
          404,
          'unknown-revision',
          'That revision never was',
          `This rig has revisions 1 to ${entry.revision}.`,
          { revision: entry.revision },
        );
      const rig = await this.rigs.loadIn(manager, entry);
      const applied = apply(
        rig,
        editOf(invert(squash((await this.since(manager, rigId, revision)).map((j) => readDelta(j.delta))))),
      );
      if (!applied.ok) throw refusedFor(applied.error);
      return { ...applied.value.rig, revision };
    });
  }

  private since(manager: EntityManager, rig: string, base: number): Promise<JournalEntry[]> {
    return manager.find(JournalEntry, { where: { rig, revision: MoreThan(base) }, order: { revision: 'ASC' } });
  }

  /**
   * What came after a revision, oldest first: so many, and no more text than goes in one answer; at least one.
   * @returns `more` when there is still some to ask for
   */
  async journal(
    who: Asker,
    rigId: string,
    after: number,
    most: number,
  ): Promise<{ readonly entries: readonly JournalEntry[]; readonly more: boolean }> {
    await this.rigs.entry(who, rigId);
    const { manager } = this.db;
    const sizes = await manager.find(JournalEntry, {
      select: { rig: true, revision: true, bytes: true },
      where: { rig: rigId, revision: MoreThan(after) },
      order: { revision: 'ASC' },
      take: most + 1,
    });
    let sum = 0;
    const fitting = sizes.slice(0, most).filter(({ bytes }, i) => (sum += bytes) <= MOST_BYTES || i === 0);
    const last = fitting.at(-1);
    if (!last) return { entries: [], more: false };
    const entries = await manager.find(JournalEntry, {
      where: { rig: rigId, revision: Between(after + 1, last.revision) },
      order: { revision: 'ASC' },
    });
    return { entries, more: fitting.length < sizes.length };
  }

  /** The newest entries first, without what they changed in detail: that is not read either. */
  async history(
    who: Asker,
    rigId: string,
    before: number,
    most: number,
    until?: Date,
  ): Promise<readonly JournalEntry[]> {
    await this.rigs.entry(who, rigId);
    return this.db.manager.find(JournalEntry, {
      select: { rig: true, revision: true, change: true, label: true, who: true, when: true, parts: true },
      where: { rig: rigId, revision: LessThan(before), ...(until ? { when: LessThanOrEqual(until) } : {}) },
      order: { revision: 'DESC' },
      take: most,
    });
  }
}
