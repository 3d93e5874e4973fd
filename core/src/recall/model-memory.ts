import { DomainMemory } from './domains.js';
import type { SystemEvent } from './proof/system.js';

/** Keeps what did not change from one edit to the next, so that the prover meets the very same events and wants again. */
export class ModelMemory {
  readonly domains = new DomainMemory();
  private ground: readonly unknown[] = [];
  private old = new Map<string, unknown>();
  private now = new Map<string, unknown>();
  private metIn = new Map<string, SystemEvent>();
  private asked: ReadonlySet<SystemEvent> = new Set();
  private readonly tags = new WeakMap<object, number>();
  private lastTag = 0;

  /** Everything kept rests on this ground; on another one all is made anew. */
  on(ground: readonly unknown[]): void {
    this.old = ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i]) ? this.now : new Map<string, unknown>();
    this.now = new Map();
    this.ground = ground;
  }

  /** Everything that some of these events name. As long as every event through which a name was met is still there, only new events are asked. */
  namedBy(events: readonly SystemEvent[], names: (event: SystemEvent) => Iterable<string>): Iterable<string> {
    const now = new Set(events);
    const stand = [...new Set(this.metIn.values())].every((event) => now.has(event));
    if (!stand) this.metIn = new Map();
    for (const event of now) {
      if (stand && this.asked.has(event)) continue;
      for (const name of names(event)) if (!this.metIn.has(name)) this.metIn.set(name, event);
    }
    this.asked = now;
    return this.metIn.keys();
  }

  /** A number for an object, to make keys of. */
  tag(object: object | undefined): number {
    if (!object) return 0;
    const tag = this.tags.get(object) ?? (this.lastTag += 1);
    this.tags.set(object, tag);
    return tag;
  }

  keep<T>(key: string, make: () => T): T {
    const kept = this.old.has(key) ? this.old.get(key) as T : make();
    this.now.set(key, kept);
    return kept;
  }
}
