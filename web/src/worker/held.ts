import { deltaOf, patch } from '@yunta/core/change/delta';
import type { Edit } from '@yunta/core/change/edit';
import { Deriver, type Derived } from '@yunta/core/derive/steps/deriver';
import { viewOf, type View } from '@yunta/core/derive/views/view';
import type { Id } from '@yunta/core/rig/ids';
import { rigOf, type Part, type Rig } from '@yunta/core/rig/rig';

/** The worker's own copy of the rig, brought up to date by edits, and what was derived of it last. */
export class Held {
  rig: Rig = rigOf([]);
  readonly deriver = new Deriver();
  derived: Derived | undefined;
  private readonly onLoad: (() => void)[] = [];

  /** What stands on an earlier rig is forgotten then. */
  whenLoaded(forget: () => void): void {
    this.onLoad.push(forget);
  }

  load(parts: readonly Part[]): void {
    this.rig = rigOf(parts);
    this.derived = undefined;
    this.onLoad.forEach((forget) => forget());
  }

  /** Brings the copy up to date and derives. @returns undefined when the rig has no such hook-up */
  update(edit: Edit, hookup: Id<'hookup'>): View | undefined {
    this.rig = patch(this.rig, deltaOf(this.rig, edit));
    this.derived = this.deriver.derive(this.rig, hookup);
    return this.derived && viewOf(this.derived);
  }
}
