import { type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import type { Value } from '../../rig/value.js';
import { type Domains } from './domains.js';
import { surely } from '../../known/the.js';

/**
 * Keeps what each part names from one edit to the next, and the domains as long as all of it together stays the same.
 */
export class DomainMemory {
  private readonly numbers = new Map<Ref, Map<Value, number>>();
  private readonly pairs: (readonly [control: Ref, value: string])[] = [];
  private readonly sent = new Map<number, object>();
  private readonly open = new Map<Ref, object>();
  private mentions = new WeakMap<object, readonly number[]>();
  private ground: readonly unknown[] = [];
  private marks: readonly true[] = [];
  private domains: Domains | undefined;

  /** A part that stands for a number that is sent. */
  standFor(number: number): object {
    return keptIn(this.sent, number, () => ({}));
  }

  /** A part that stands for a control that may be left open. */
  standForOpen(control: Ref): object {
    return keptIn(this.open, control, () => ({}));
  }

  /** What one part names, as numbers of pairs of a control and a value. */
  of(part: object, say: (note: (control: Ref, value: Value) => void) => void): readonly number[] {
    let known = this.mentions.get(part);
    if (!known) {
      const found = new Set<number>();
      say((control, value) => found.add(this.numberOf(control, value)));
      this.mentions.set(part, (known = [...found]));
    }
    return known;
  }

  /** The same for a number and the text of it. */
  private numberOf(control: Ref, value: Value): number {
    const values = keptIn(this.numbers, control, () => new Map<Value, number>());
    let number = values.get(value);
    if (number === undefined) {
      const text = String(value);
      number = values.get(text) ?? this.pairs.push([control, text]) - 1;
      values.set(text, number).set(value, number);
    }
    return number;
  }

  /** What parts name rests on the boxes alone. */
  on(ground: readonly unknown[]): void {
    if (ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i])) return;
    this.mentions = new WeakMap();
    this.domains = undefined;
    this.ground = ground;
  }

  same(marks: readonly true[], make: (pairs: readonly (readonly [Ref, string])[]) => Domains): Domains {
    const isSame =
      this.domains &&
      marks.length === this.marks.length &&
      marks.every((_, i) => this.marks[i]) &&
      this.marks.every((_, i) => marks[i]);
    if (!isSame) {
      this.domains = make(this.pairs.filter((_, i) => marks[i]));
      this.marks = marks;
    }
    return surely(this.domains);
  }
}
