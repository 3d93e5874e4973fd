/**
 * How often something may end by itself and be started again: beyond that it goes in a circle, and a person has to
 * know.
 */
export class Endings {
  constructor(most = 5, withinMs = 60_000, now = () => performance.now()) {
    Object.assign(this, { most, withinMs, now, times: [] });
  }

  /**
   * Counts one more.
   * @returns how long to wait before the next start, in ms; undefined when it is not to be started again
   */
  next() {
    const now = this.now();
    this.times = [...this.times.filter((at) => now - at < this.withinMs), now];
    return this.times.length > this.most ? undefined : 250 * (this.times.length - 1);
  }
}
