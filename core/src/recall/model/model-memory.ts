import type { Id } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { DomainMemory } from './domain-memory.js';
import type { Shelf } from './shelf.js';
import type { SystemEvent, SystemSound } from '../../prover/system.js';

/** Everything that some of many things name, worked out anew only as far as they changed. */
export class Names<T extends object> {
  private readonly metIn = new Map<string, T>();
  private asked: ReadonlySet<T> = new Set();

  /** @param say says every name that a thing names, as often as it likes */
  of(things: readonly T[], say: (thing: T, note: (name: string) => void) => void): Iterable<string> {
    const now = new Set(things);
    const lost = new Set<string>();
    for (const [name, thing] of this.metIn) if (!now.has(thing)) lost.add(name);
    for (const name of lost) this.metIn.delete(name);
    const ask = (thing: T): void =>
      say(thing, (name) => {
        if (this.metIn.has(name)) return;
        this.metIn.set(name, thing);
        lost.delete(name);
      });
    for (const thing of now) if (!this.asked.has(thing)) ask(thing);
    for (const thing of now) {
      if (lost.size === 0) break;
      ask(thing);
    }
    this.asked = now;
    return this.metIn.keys();
  }
}

/**
 * Keeps what did not change from one edit to the next, so that the prover meets the very same events and wants again.
 */
export class ModelMemory {
  readonly domains = new DomainMemory();
  readonly usedInEvents = new Names<SystemEvent>();
  readonly wantedBySounds = new Names<SystemSound>();
  private ground: readonly unknown[] = [];
  private old = new Map<string, unknown>();
  private now = new Map<string, unknown>();
  private readonly tags = new WeakMap<object, number>();
  private lastTag = 0;

  /** Everything kept rests on this ground; on another one all is made anew. */
  on(ground: readonly unknown[]): void {
    this.old =
      ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i])
        ? this.now
        : new Map<string, unknown>();
    this.now = new Map();
    this.ground = ground;
  }

  /** A number for an object, to make keys of. */
  tag(object: object | undefined): number {
    if (!object) return 0;
    const tag = this.tags.get(object) ?? (this.lastTag += 1);
    this.tags.set(object, tag);
    return tag;
  }

  keep<T>(key: string, make: () => T): T {
    const kept = this.old.has(key) ? (this.old.get(key) as T) : make();
    this.now.set(key, kept);
    return kept;
  }
}

/** Tags of the programs that stand in each box, as one text: with the ground they say all that a box may hold. */
export const heldTags = once((shelf: Shelf, memory: ModelMemory): ReadonlyMap<Id<'device'>, string> => {
  const tags = new Map<Id<'device'>, string>();
  for (const program of shelf.values())
    tags.set(program.device, `${tags.get(program.device) ?? ''} ${memory.tag(program)}`);
  return tags;
});
