import { DomainMemory } from './domains.js';

/** Keeps what did not change from one edit to the next, so that the prover meets the very same events and wants again. */
export class ModelMemory {
  readonly domains = new DomainMemory();
  private ground: readonly unknown[] = [];
  private old = new Map<string, unknown>();
  private now = new Map<string, unknown>();
  private readonly tags = new WeakMap<object, number>();
  private lastTag = 0;

  /** Everything kept rests on this ground; on another one all is made anew. */
  on(ground: readonly unknown[]): void {
    this.old = ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i]) ? this.now : new Map<string, unknown>();
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
    const kept = this.old.has(key) ? this.old.get(key) as T : make();
    this.now.set(key, kept);
    return kept;
  }
}
