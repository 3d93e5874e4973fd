/** Where every path begins. */
export const START = 0;
const NOTHING = -1;
const [FIRST_ROOM, MOST_KEPT] = [256, 4096];

/**
 * Rows of whole numbers as paths: equal rows end at the same place. Kept in a table with open places, as nothing is
 * asked more often.
 */
export class Paths {
  private room = FIRST_ROOM;
  private from = new Int32Array(this.room);
  private number = new Int32Array(this.room);
  /** Where each step leads; 0 where the table is open. */
  private to = new Int32Array(this.room);
  /** What ends at each place; beyond `last` of paths forgotten. */
  private readonly ends: number[] = [NOTHING];
  private last = START;

  /**
   * Forgets all paths. It keeps its room unless that is so large that emptying it would take longer than growing
   * again.
   */
  clear(): void {
    if (this.room > MOST_KEPT) this.makeRoom(FIRST_ROOM);
    else this.to.fill(0);
    this.last = START;
    this.ends[START] = NOTHING;
  }

  /** What ends where the path leads; −1 for nothing. */
  endAt(place: number): number {
    return this.ends[place]!;
  }

  endWith(place: number, what: number): number {
    return (this.ends[place] = what);
  }

  /** Where the path leads that goes on from a place with this number. */
  goOn(from: number, number: number): number {
    let i = this.placeOf(from, number);
    if (this.to[i] !== 0) return this.to[i]!;
    if (this.last * 2 >= this.room) {
      this.grow();
      i = this.placeOf(from, number);
    }
    this.from[i] = from;
    this.number[i] = number;
    this.last += 1;
    this.ends[this.last] = NOTHING;
    return (this.to[i] = this.last);
  }

  private placeOf(from: number, number: number): number {
    const most = this.room - 1;
    let i = ((Math.imul(from, 0x9e3779b1) ^ Math.imul(number, 0x85ebca6b)) >>> 7) & most;
    while (this.to[i] !== 0 && (this.from[i] !== from || this.number[i] !== number)) i = (i + 1) & most;
    return i;
  }

  private makeRoom(room: number): void {
    this.room = room;
    this.from = new Int32Array(room);
    this.number = new Int32Array(room);
    this.to = new Int32Array(room);
  }

  private grow(): void {
    const { from, number, to } = this;
    this.makeRoom(this.room * 4);
    to.forEach((place, old) => {
      if (place === 0) return;
      const i = this.placeOf(from[old]!, number[old]!);
      this.from[i] = from[old]!;
      this.number[i] = number[old]!;
      this.to[i] = place;
    });
  }
}
