import { Injectable } from '@nestjs/common';
import { KINDS } from '@yunta/core/rig/ids';
import { rigOf, type Rig } from '@yunta/core/rig/rig';
import { DataSource, type EntityManager } from 'typeorm';
import { notFound } from '../door/problem.js';
import { JournalEntry } from '../journal/journal-entry.entity.js';
import type { Asker } from '../people/who.js';
import { TABLES } from './part.entities.js';
import { toPart } from './part-rows.js';
import { RigEntity } from './rig.entity.js';

export interface ListedRig {
  readonly entry: RigEntity;
  readonly last: Pick<JournalEntry, 'label' | 'who' | 'when'> | undefined;
}

/** The one way to a rig: whoever asks sees what is theirs, and nothing else exists for them. */
@Injectable()
export class RigStore {
  constructor(private readonly db: DataSource) {}

  /**
   * @param lock hold the rig until the transaction ends, so that changes come one after the other, also from another
   * server process
   */
  async entry(who: Asker, id: string, manager: EntityManager = this.db.manager, lock = false): Promise<RigEntity> {
    const found = await manager.findOne(RigEntity, {
      where: { id, owner: who.id },
      ...(lock ? { lock: { mode: 'pessimistic_write' } } : {}),
    });
    if (!found) throw notFound(`There is no rig "${id.slice(0, 80)}".`);
    return found;
  }

  /** The rigs of a person, those changed last first, each with its newest change. */
  async list(who: Asker): Promise<readonly ListedRig[]> {
    const rigs = await this.db.manager.find(RigEntity, {
      where: { owner: who.id },
      order: { changed: 'DESC', id: 'ASC' },
    });
    if (rigs.length === 0) return [];
    const newest = await this.db.manager.find(JournalEntry, {
      select: { rig: true, revision: true, label: true, who: true, when: true },
      where: rigs.map(({ id, revision }) => ({ rig: id, revision })),
    });
    const last = new Map(newest.map((entry) => [entry.rig, entry]));
    return rigs.map((entry) => ({ entry, last: last.get(entry.id) }));
  }

  /** Puts a rig away, or brings it back; doing so twice is harmless. */
  async putAway(who: Asker, id: string, removed: Date | null): Promise<void> {
    const { changed } = await this.entry(who, id);
    await this.db.manager.update(RigEntity, { id }, { removed, changed });
  }

  async load(who: Asker, id: string): Promise<Rig> {
    return this.db.transaction('REPEATABLE READ', async (manager) =>
      this.loadIn(manager, await this.entry(who, id, manager)),
    );
  }

  /** The rig as this transaction sees it. */
  async loadIn(manager: EntityManager, { id, revision }: RigEntity): Promise<Rig> {
    const parts = [];
    for (const kind of KINDS) {
      const rows = await manager.find(TABLES[kind].entity, { where: { rig: id }, order: { id: 'ASC' } });
      parts.push(...rows.map((row) => toPart(kind, row)));
    }
    return rigOf(parts, revision);
  }
}
