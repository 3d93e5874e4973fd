import { theItem, theFirst, surely } from '../known/the.js';

/** Things to come, in microseconds. What is due at the same moment happens in the order in which it was planned. */
export class Timeline {
  now = 0;
  private readonly due: { readonly at: number; readonly run: () => void }[] = [];

  plan(at: number, run: () => void): void {
    let place = this.due.length;
    while (place > 0 && theItem(this.due, place - 1).at > at) place -= 1;
    this.due.splice(place, 0, { at, run });
  }

  get quiet(): boolean {
    return this.due.length === 0;
  }

  /** Lets time pass until nothing is due any more, or until the moment given. */
  pass(until = Infinity): void {
    while (this.due.length && theFirst(this.due).at <= until) {
      const next = surely(this.due.shift());
      this.now = Math.max(this.now, next.at);
      next.run();
    }
    if (until !== Infinity) this.now = Math.max(this.now, until);
  }
}
