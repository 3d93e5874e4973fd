import { apply } from '@yunta/core/change/apply';
import { deltaOf, editOf } from '@yunta/core/change/delta';
import type { ChangeSet } from '@yunta/core/change/edit';
import { rebase } from '@yunta/core/change/rebase';
import type { Journaled } from '@yunta/core/change/session';
import { islandRun } from '@yunta/core/demo/island-run';
import type { Rig } from '@yunta/core/rig/rig';
import { Away, RefusedByServer, type Api } from './api.js';
import { theItem } from '@yunta/core/known/the';

/** A server in memory that can be taken away, and can lose its answers. */
export class MemoryServer {
  rig: Rig = islandRun();
  journal: Journaled[] = [];
  readonly revisions: Rig[] = [this.rig];
  away = false;
  losesAnswers = 0;

  private here(): void {
    if (this.away) throw new Away('away');
  }

  readonly api: Api = {
    rigs: async () => [],
    create: async () => ({ revision: 1 }),
    putAway: async () => undefined,
    bringBack: async () => undefined,
    history: async () => [],
    lastBy: async () => undefined,
    at: async (_, revision) => theItem(this.revisions, revision),
    rig: async () => {
      this.here();
      return this.rig;
    },
    journal: async (_, after) => {
      this.here();
      return this.journal.filter((j) => j.revision > after);
    },
    send: async (_, set: ChangeSet) => {
      this.here();
      const known = this.journal.find((j) => j.id === set.id);
      const answer = known ? { revision: known.revision, again: true } : { revision: this.submit(set), again: false };
      if (this.losesAnswers > 0) {
        this.losesAnswers -= 1;
        throw new Away('the answer was lost');
      }
      return answer;
    },
  };

  submit(set: ChangeSet): number {
    const since = this.journal.filter((j) => j.revision > set.base);
    const mine = since.reduce(
      (delta, j) => {
        const over = rebase(delta, j.delta);
        if (!over.ok) throw new RefusedByServer(409, { title: 'clash', detail: 'clash', clashes: over.error });
        return over.value;
      },
      deltaOf(theItem(this.revisions, set.base), set),
    );
    const applied = apply(this.rig, editOf(mine));
    if (!applied.ok) throw new RefusedByServer(422, { title: 'refused', detail: 'refused', refusals: applied.error });
    this.rig = { ...applied.value.rig, revision: this.rig.revision + 1 };
    this.revisions[this.rig.revision] = this.rig;
    this.journal.push({ revision: this.rig.revision, id: set.id, label: set.label, delta: applied.value.delta });
    return this.rig.revision;
  }
}
