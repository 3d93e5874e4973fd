import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import {
  callsIn,
  pinnedIn,
  pressesBetween,
  usedSounds,
  withoutRepeats,
  type SlotPlace,
  type SlotsProblem,
} from './problem.js';

/** How a search goes: told every few thousand moves, so that it can be shown and stopped. */
export interface SearchProgress {
  readonly moves: number;
  readonly stomps: number;
}

export interface SearchEffort {
  /** Moves tried in one descent; several are made, each from another start. */
  readonly moves: number;
  readonly descents: number;
  /** A placement of so few stomps cannot be bettered: the search ends with it. */
  readonly floor?: number;
}

const USUAL: SearchEffort = { moves: 1_500_000, descents: 4 };
const TOLD_EVERY = 50_000;
/** From a stomp or two up, which are taken now and then, to hardly any (found by trying). */
const [HOTTEST, COLDEST] = [2.5, 0.12];
/** What stands together and must not counts like so many stomps. */
const FAULT = 6;
/** One move in so many exchanges two banks. */
const BANKS_EVERY = 200;
const NOWHERE = -1;

/**
 * Good placements by annealing: a sound goes to another bank, changes places with one there, or gets or gives back its
 * second slot; what is worse is taken less and less often.
 * @returns undefined when there are more sounds than slots, or no placement was met that leaves apart what must be
 */
export const searchSlots = function* (
  problem: SlotsProblem,
  { moves, descents, floor = 0 }: SearchEffort = USUAL,
): Generator<SearchProgress, readonly SlotPlace[] | undefined, void> {
  const board = Board.of(problem);
  if (!board) return undefined;
  let done = 0;
  for (let descent = 0; descent < descents && board.best > floor; descent += 1) {
    board.begin(descent + 1);
    const cooling = (COLDEST / HOTTEST) ** (1 / moves);
    let heat = HOTTEST;
    for (let n = 0; n < moves && board.best > floor; n += 1) {
      board.tryMove(heat);
      heat *= cooling;
      done += 1;
      if (done % TOLD_EVERY === 0) yield { moves: done, stomps: board.best };
    }
  }
  return board.bestPlaces();
};

/** How many of each kind of sound stand in each bank, where some must not share one. */
class Crowd {
  /** Of each sound: those of which no two may share a bank, by number; its group, counted behind them. */
  private readonly kinds: readonly (readonly number[])[];
  private readonly counts: Int16Array;
  /** Kinds of sounds in a bank, of which there may be one. */
  private readonly groupsIn: Int16Array;
  private readonly apart: number;
  private readonly alone: number;

  constructor(private readonly problem: SlotsProblem) {
    const { apart = [], groups, sounds, banks, pinned = [] } = problem;
    this.apart = apart.length;
    this.kinds = Array.from({ length: sounds }, (_, s) => [
      ...apart.flatMap((those, k) => (those.includes(s) ? [k] : [])),
      ...(groups ? [apart.length + (groups[s] ?? 0)] : []),
    ]);
    const most = apart.length + Math.max(0, ...(groups ?? [])) + 1;
    this.counts = new Int16Array(most * banks);
    this.groupsIn = new Int16Array(banks);
    this.alone = pinned.reduce((sum, [s, b]) => sum + this.put(s, b, 1), 0);
  }

  /** A start: @returns how often a bank holds what must not share one, beyond what is pinned so */
  begin(homes: Int16Array): number {
    this.counts.fill(0);
    this.groupsIn.fill(0);
    let faults = 0;
    homes.forEach((bank, place) => {
      if (bank !== NOWHERE) faults += this.put(place >> 1, bank, 1);
    });
    for (const [s, b] of this.problem.pinned ?? [])
      if (homes[2 * s] !== b && homes[2 * s + 1] !== b) faults += this.put(s, b, 1);
    return faults - this.alone;
  }

  /** A sound goes from a bank to another. @returns by how many faults there are more */
  carried(sound: number, from: number, to: number): number {
    if (this.counts.length === 0 || sound < 0) return 0;
    return (from === NOWHERE ? 0 : this.put(sound, from, -1)) + (to === NOWHERE ? 0 : this.put(sound, to, 1));
  }

  exchange(one: number, other: number): void {
    const { banks } = this.problem;
    for (let k = 0; k < this.counts.length; k += banks)
      [this.counts[k + one], this.counts[k + other]] = [this.counts[k + other]!, this.counts[k + one]!];
    [this.groupsIn[one], this.groupsIn[other]] = [this.groupsIn[other]!, this.groupsIn[one]!];
  }

  private put(sound: number, bank: number, by: 1 | -1): number {
    let more = 0;
    for (const kind of this.kinds[sound]!) {
      const at = kind * this.problem.banks + bank;
      const before = this.counts[at]!;
      const after = before + by;
      this.counts[at] = after;
      if (kind < this.apart) more += Math.max(0, after - 1) - Math.max(0, before - 1);
      else if (before === 0 || after === 0) {
        const held = this.groupsIn[bank]!;
        this.groupsIn[bank] = held + by;
        more += Math.max(0, held + by - 1) - Math.max(0, held - 1);
      }
    }
    return more;
  }
}

/** Which bank each sound stands in, with what each song costs, changed move by move. */
class Board {
  /** The stomps of the best placement that was met. */
  best = Infinity;
  private bestHomes: Int16Array;
  private readonly homes: Int16Array;
  /** Free switches of each bank. */
  private readonly room: Int16Array;
  private readonly presses: Int32Array;
  private readonly songs: readonly Int16Array[];
  private readonly songsOf: readonly (readonly number[])[];
  private readonly costs: Int32Array;
  private cost = 0;
  /** How often a bank holds what must not share one. */
  private faults = 0;
  private readonly crowd: Crowd;
  private random = xoroshiro128plus(1);
  private readonly touched: number[] = [];
  private readonly marks: Uint8Array;
  /** Banks in which something is pinned stay where they are. */
  private readonly hasPin: readonly boolean[];

  static of(problem: SlotsProblem): Board | undefined {
    const used = usedSounds(problem);
    const { banks, switches, pinned = [] } = problem;
    const free = Array.from({ length: banks }, (_, b) => switches - pinnedIn(problem, b)).reduce((a, b) => a + b, 0);
    const open = used.filter((s) => !pinned.some(([sound]) => sound === s));
    return open.length > free ? undefined : new Board(problem, used);
  }

  private constructor(
    private readonly problem: SlotsProblem,
    private readonly used: readonly number[],
  ) {
    const { banks, songs } = problem;
    this.crowd = new Crowd(problem);
    this.homes = new Int16Array(2 * problem.sounds).fill(NOWHERE);
    this.bestHomes = this.homes;
    this.room = new Int16Array(banks);
    this.presses = new Int32Array(banks * banks);
    for (let a = 0; a < banks; a += 1)
      for (let b = 0; b < banks; b += 1) this.presses[a * banks + b] = Math.min(FAR, pressesBetween(problem, a, b));
    this.songs = songs.map((song) => Int16Array.from(withoutRepeats(song)));
    this.songsOf = Array.from({ length: problem.sounds }, (_, sound) =>
      this.songs.flatMap((song, i) => (song.length > 1 && song.includes(sound) ? [i] : [])),
    );
    this.costs = new Int32Array(songs.length);
    this.marks = new Uint8Array(songs.length);
    this.hasPin = Array.from({ length: banks }, (_, bank) => (problem.pinned ?? []).some(([, b]) => b === bank));
  }

  /** A new start: what is pinned in its place, the others wherever there is room. */
  begin(seed: number): void {
    const { banks, switches, pinned = [] } = this.problem;
    this.random = xoroshiro128plus(seed);
    this.homes.fill(NOWHERE);
    for (let bank = 0; bank < banks; bank += 1) this.room[bank] = switches - pinnedIn(this.problem, bank);
    for (const [sound, bank] of pinned) if (this.songsOf[sound]) this.put(sound, bank);
    const open = this.used.filter((s) => this.homes[2 * s] === NOWHERE);
    for (let i = open.length - 1; i > 0; i -= 1) {
      const k = this.below(i + 1);
      [open[i], open[k]] = [open[k]!, open[i]!];
    }
    let bank = 0;
    for (const sound of open) {
      while (this.room[bank] === 0) bank = (bank + 1) % banks;
      this.room[bank]! -= 1;
      this.put(sound, bank);
    }
    this.cost = 0;
    for (let i = 0; i < this.songs.length; i += 1) this.cost += this.costs[i] = this.costOfSong(i);
    this.faults = this.crowd.begin(this.homes);
    this.note();
  }

  private put(sound: number, bank: number): void {
    const at = this.homes[2 * sound] === NOWHERE ? 2 * sound : 2 * sound + 1;
    this.homes[at] = bank;
  }

  private below(n: number): number {
    return (this.random.next() >>> 0) % n;
  }

  private isPinned(place: number): boolean {
    const sound = place >> 1;
    return (this.problem.pinned ?? []).some(([s, bank]) => s === sound && bank === this.homes[place]);
  }

  /** One move, taken when it is no worse, or by chance when it is. */
  tryMove(heat: number): void {
    const { banks, copies } = this.problem;
    if (this.below(BANKS_EVERY) === 0) return this.exchangeBanks(this.below(banks), this.below(banks), heat);
    const sound = this.used[this.below(this.used.length)]!;
    const second = copies > 1 && this.below(2) === 1;
    const place = 2 * sound + (second ? 1 : 0);
    const from = this.homes[place]!;
    const other = this.homes[place ^ 1]!;
    if (from !== NOWHERE && this.isPinned(place)) return;
    if (second && from !== NOWHERE && this.below(4) === 0) return this.change(place, NOWHERE, NOWHERE, 0, heat);
    const to = this.below(banks);
    if (to === from || to === other) return;
    if (this.room[to]! > 0) return this.change(place, to, NOWHERE, 0, heat);
    const swapped = this.someoneIn(to);
    if (swapped === NOWHERE || swapped >> 1 === sound) return;
    const back = from === NOWHERE && (swapped & 1) === 1 ? NOWHERE : from;
    if (back === NOWHERE && (swapped & 1) === 0) return;
    if (back !== NOWHERE && this.homes[swapped ^ 1] === back) return;
    this.change(place, to, swapped, back, heat);
  }

  /** A place of a sound in a bank that may leave it. */
  private someoneIn(bank: number): number {
    const count = 2 * this.used.length;
    const begin = this.below(count);
    for (let k = 0; k < count; k += 1) {
      const i = (begin + k) % count;
      const place = 2 * this.used[i >> 1]! + (i & 1);
      if (this.homes[place] === bank) return this.isPinned(place) ? NOWHERE : place;
    }
    return NOWHERE;
  }

  private change(place: number, to: number, swapped: number, back: number, heat: number): void {
    const from = this.homes[place]!;
    const swappedFrom = swapped === NOWHERE ? NOWHERE : this.homes[swapped]!;
    this.homes[place] = to;
    if (swapped !== NOWHERE) this.homes[swapped] = back;
    let change = this.again(place >> 1);
    if (swapped !== NOWHERE) change += this.again(swapped >> 1);
    const crowd = this.crowd.carried(place >> 1, from, to) + this.crowd.carried(swapped >> 1, swappedFrom, back);
    if (this.isTaken(change + FAULT * crowd, heat)) {
      this.faults += crowd;
      if (from !== NOWHERE) this.room[from]! += 1;
      if (to !== NOWHERE) this.room[to]! -= 1;
      if (swappedFrom !== NOWHERE) this.room[swappedFrom]! += 1;
      if (swapped !== NOWHERE && back !== NOWHERE) this.room[back]! -= 1;
      return this.keep(change);
    }
    this.homes[place] = from;
    if (swapped !== NOWHERE) this.homes[swapped] = swappedFrom;
    this.crowd.carried(swapped >> 1, back, swappedFrom);
    this.crowd.carried(place >> 1, to, from);
    this.forget();
  }

  /** Two banks change places with all that stands in them. */
  private exchangeBanks(one: number, other: number, heat: number): void {
    if (one === other || this.hasPin[one] || this.hasPin[other]) return;
    const exchange = (): void => {
      for (let place = 0; place < this.homes.length; place += 1) {
        const bank = this.homes[place]!;
        if (bank === one) this.homes[place] = other;
        else if (bank === other) this.homes[place] = one;
      }
    };
    exchange();
    let change = 0;
    for (const sound of this.used) change += this.again(sound);
    if (this.isTaken(change, heat)) {
      [this.room[one], this.room[other]] = [this.room[other]!, this.room[one]!];
      this.crowd.exchange(one, other);
      return this.keep(change);
    }
    exchange();
    this.forget();
  }

  private isTaken(change: number, heat: number): boolean {
    return change <= 0 || (this.random.next() >>> 0) / 2 ** 32 < Math.exp(-change / heat);
  }

  private keep(change: number): void {
    this.cost += change;
    for (let k = 0; k < this.touched.length; k += 2) this.costs[this.touched[k]!] = this.touched[k + 1]!;
    this.forget();
    if (this.cost < this.best) this.note();
  }

  private forget(): void {
    for (let k = 0; k < this.touched.length; k += 2) this.marks[this.touched[k]!] = 0;
    this.touched.length = 0;
  }

  /** Reckons the songs of a sound again; by how much they are dearer. */
  private again(sound: number): number {
    let change = 0;
    for (const song of this.songsOf[sound]!) {
      if (this.marks[song]) continue;
      this.marks[song] = 1;
      const cost = this.costOfSong(song);
      this.touched.push(song, cost);
      change += cost - this.costs[song]!;
    }
    return change;
  }

  /** Bank presses of one song, by the copies that make it cheapest. */
  private costOfSong(i: number): number {
    const song = this.songs[i]!;
    if (song.length < 2) return 0;
    const { homes, presses } = this;
    const { banks } = this.problem;
    let [a, b] = [homes[2 * song[0]!]!, homes[2 * song[0]! + 1]!];
    let [toA, toB] = [0, b === NOWHERE ? FAR : 0];
    for (let k = 1; k < song.length; k += 1) {
      const [c, d] = [homes[2 * song[k]!]!, homes[2 * song[k]! + 1]!];
      let toC = toA + presses[a * banks + c]!;
      let toD = FAR;
      if (d !== NOWHERE) toD = toA + presses[a * banks + d]!;
      if (b !== NOWHERE) {
        toC = Math.min(toC, toB + presses[b * banks + c]!);
        if (d !== NOWHERE) toD = Math.min(toD, toB + presses[b * banks + d]!);
      }
      a = c;
      b = d;
      toA = toC;
      toB = toD;
    }
    return Math.min(toA, toB);
  }

  private note(): void {
    const stomps = this.cost + callsIn(this.problem.songs);
    if (this.faults > 0 || stomps >= this.best) return;
    this.best = stomps;
    this.bestHomes = this.homes.slice();
  }

  /** The best placement; undefined when every one that was met has a fault. */
  bestPlaces(): readonly SlotPlace[] | undefined {
    return this.best === Infinity ? undefined : this.placesOf(this.bestHomes);
  }

  /** Each sound on a switch of its bank. */
  private placesOf(homes: Int16Array): readonly SlotPlace[] {
    const { switches, pinned = [] } = this.problem;
    const free = Array.from({ length: this.problem.banks }, (_, bank) =>
      Array.from({ length: switches }, (__, k) => k).filter((k) => !pinned.some(([, b, s]) => b === bank && s === k)),
    );
    const places: SlotPlace[] = [...pinned];
    for (const sound of this.used)
      for (const bank of [homes[2 * sound]!, homes[2 * sound + 1]!]) {
        if (bank === NOWHERE || pinned.some(([s, b]) => s === sound && b === bank)) continue;
        places.push([sound, bank, free[bank]!.shift()!]);
      }
    return places;
  }
}

/** Further than any song goes. */
const FAR = 1 << 20;
