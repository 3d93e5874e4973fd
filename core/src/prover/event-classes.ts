/** What must hold: which values of the variable at `at` satisfy it, as a table of 0 and 1 that begins at `table`. */
export interface NumberedGuard {
  readonly at: number;
  readonly table: number;
}

/** What one act does. */
export interface Op {
  readonly guards: readonly NumberedGuard[];
  readonly at: number;
  /** The new value, whatever the old one was; −1 when it depends on that. */
  readonly to: number;
  /** Where the new value for each old one begins, where it depends on that. */
  readonly table: number;
}

/**
 * Classes of events of one cone, each as a row of numbers: this is what a search spends its time on. A row holds its
 * guards and then its acts, a list of guards
 * is its length and for each of them place and table, an act is its guards, its place and its value or, below zero,
 * its table.
 */
export class EventClasses {
  private readonly rows: number[] = [];
  private readonly starts: number[] = [0];
  private readonly tables: number[] = [];
  private readonly last: boolean[] = [];

  get count(): number {
    return this.last.length;
  }

  /** Keeps a table; where it begins. */
  table(values: Iterable<number>): number {
    const begins = this.tables.length;
    for (const value of values) this.tables.push(value);
    return begins;
  }

  /** @param isLast it is judged and leads nowhere */
  add(guards: readonly NumberedGuard[], ops: readonly Op[], isLast: boolean): number {
    this.addGuards(guards);
    for (const { guards: under, at, to, table } of ops) {
      this.addGuards(under);
      this.rows.push(at, to < 0 ? ~table : to);
    }
    this.starts.push(this.rows.length);
    return this.last.push(isLast) - 1;
  }

  private addGuards(guards: readonly NumberedGuard[]): void {
    this.rows.push(guards.length);
    for (const { at, table } of guards) this.rows.push(at, table);
  }

  isLast(c: number): boolean {
    return this.last[c]!;
  }

  /** Carries out a class in place; false, with nothing changed, when it cannot happen in this state. */
  carryOut(c: number, state: Uint16Array): boolean {
    const { rows, starts, tables } = this;
    const end = starts[c + 1]!;
    let i = starts[c]!;
    let guarded = i + 1 + 2 * rows[i]!;
    if (!this.allHold(i + 1, guarded, state)) return false;
    for (i = guarded; i < end; i = guarded + 2) {
      guarded = i + 1 + 2 * rows[i]!;
      if (!this.allHold(i + 1, guarded, state)) continue;
      const at = rows[guarded]!;
      const to = rows[guarded + 1]!;
      state[at] = to < 0 ? tables[~to + state[at]!]! : to;
    }
    return true;
  }

  private allHold(from: number, to: number, state: Uint16Array): boolean {
    const { rows, tables } = this;
    for (let i = from; i < to; i += 2) if (tables[rows[i + 1]! + state[rows[i]!]!] === 0) return false;
    return true;
  }

  /**
   * Class after class, for each variable whether what the class leaves can depend on what it was: an event forgets a
   * variable that it sets before it or a condition reads it.
   * @param width how many variables the cone has
   */
  matters(width: number): Uint8Array {
    const { rows, starts, count } = this;
    const matters = new Uint8Array(count * width).fill(1);
    const isRead = new Uint8Array(count * width);
    for (let c = 0; c < count; c += 1) {
      const own = c * width;
      const read = (i: number): number => {
        const guarded = i + 1 + 2 * rows[i]!;
        for (let g = i + 1; g < guarded; g += 2) if (matters[own + rows[g]!]) isRead[own + rows[g]!] = 1;
        return guarded;
      };
      for (let i = read(starts[c]!); i < starts[c + 1]!;) {
        const guarded = read(i);
        const at = own + rows[guarded]!;
        const overwrites = guarded === i + 1 && rows[guarded + 1]! >= 0;
        if (overwrites && !isRead[at]) matters[at] = 0;
        else if (!overwrites && matters[at]) isRead[at] = 1;
        i = guarded + 2;
      }
    }
    return matters;
  }

  /** Class after class, for each variable whether the class reads or writes it. */
  touches(width: number): Uint8Array {
    const { rows, starts, count } = this;
    const touched = new Uint8Array(count * width);
    for (let c = 0; c < count; c += 1) {
      const own = c * width;
      const read = (i: number): number => {
        const guarded = i + 1 + 2 * rows[i]!;
        for (let g = i + 1; g < guarded; g += 2) touched[own + rows[g]!] = 1;
        return guarded;
      };
      for (let i = read(starts[c]!); i < starts[c + 1]!; i += 2) {
        i = read(i);
        touched[own + rows[i]!] = 1;
      }
    }
    return touched;
  }
}
