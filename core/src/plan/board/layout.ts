import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { surely } from '../../known/the.js';
import { coversTooMuch, leastLead } from './bound.js';
import {
  againstCost,
  bodyAt,
  collide,
  costOf,
  isFree,
  leadMm,
  leadsMm,
  nearCost,
  reachCost,
  rowCost,
  shoeCost,
  turnedAs,
} from './problem.js';
import type { Laid, Layout, LayoutProblem } from './problem.js';

export interface LayoutPlan {
  readonly layout: Layout;
  /** Of all leads between boxes and to where they leave, in mm, plugs not counted. */
  readonly leadMm: number;
  /** No layout has less than that. */
  readonly least: number;
  /** Boxes that found no room, by their numbers. */
  readonly without: readonly number[];
  /** It is proved that not all of them fit: they cover more than the board. */
  readonly cannotFit: boolean;
}

/** Boxes stand on a grid of so many mm. */
const GRID = 5;
/** Moves between two looks at the clock. */
const TURN = 500;
/** Moves between two looks for room for what has none. */
const FILL_IN = 2000;
/** Moves in all: about two seconds for 20 boxes on the machine on which it was chosen. */
export const MOVES = 800_000;
/** From how much worse a move is taken at the beginning to the end, in mm. */
const HOT = 400;
const COLD = 0.5;

/** A search for each, until every box has found room. */
const SEEDS = [20_260_712, 4, 15];

/** A box, and where it stands now. */
type Change = readonly [box: number, laid: Laid | undefined];

class Search {
  private readonly generator;
  layout: (Laid | undefined)[];
  private readonly leadsOf: readonly (readonly number[])[];

  constructor(
    private readonly problem: LayoutProblem,
    seed: number,
  ) {
    this.generator = xoroshiro128plus(seed);
    this.layout = problem.boxes.map(() => undefined);
    this.leadsOf = problem.boxes.map((_, box) =>
      problem.leads.flatMap(({ from, to }, lead) => (from === box || to === box ? [lead] : [])),
    );
  }

  private int(least: number, most: number): number {
    return most <= least ? least : uniformInt(this.generator, least, most);
  }
  private chance(): number {
    return uniformInt(this.generator, 0, 999_999) / 1_000_000;
  }

  /** Whether a box can stand there among those that are laid, but for some. */
  private fits(box: number, laid: Laid, but = -1): boolean {
    if (!isFree(this.problem, box, laid)) return false;
    for (const [other, there] of this.layout.entries())
      if (there && other !== box && other !== but && collide(this.problem, box, laid, other, there)) return false;
    return true;
  }

  /** What some boxes cost with their leads, each lead once. */
  private costOf(boxes: readonly number[]): number {
    let cost = 0;
    for (const [i, box] of boxes.entries()) {
      const counted = boxes.slice(0, i).flatMap((b) => this.leadsOf[b] ?? []);
      for (const lead of this.leadsOf[box] ?? [])
        if (!counted.includes(lead))
          cost += leadMm(this.problem, this.layout, lead) + againstCost(this.problem, this.layout, lead);
      cost += reachCost(this.problem, this.layout, box) + rowCost(this.layout, box);
      cost += nearCost(this.problem, this.layout, box) + shoeCost(this.problem, this.layout, box);
    }
    return cost;
  }

  /** Puts the boxes down one after another, the largest first, each where it costs least. */
  start(): void {
    const area = (box: number): number => {
      const body = this.problem.boxes[box]?.turned[0]?.body;
      return body ? body.w * body.d : 0;
    };
    const order = this.problem.boxes.map((_, i) => i).sort((a, b) => area(b) - area(a) || a - b);
    for (const box of order) this.putDown(box, 2 * GRID);
  }

  /** Stands a box where it costs least. */
  private putDown(box: number, step: number): void {
    const { board, boxes } = this.problem;
    let best: Laid | undefined;
    let least = Infinity;
    for (const [as, { body }] of (boxes[box]?.turned ?? []).entries())
      for (let y = 0; y + body.d <= board.d; y += step)
        for (let x = 0; x + body.w <= board.w; x += step) {
          const laid = { as, x, y };
          if (!this.fits(box, laid)) continue;
          this.layout[box] = laid;
          const cost = this.costOf([box]);
          if (cost < least) [best, least] = [laid, cost];
        }
    this.layout[box] = best;
  }

  /** Somewhere else for a box: a little aside, beside a box to which it has a lead, or anywhere; turned or not. */
  private elsewhere(box: number, laid: Laid | undefined): Laid {
    const { boxes, board, leads } = this.problem;
    const turns = boxes[box]?.turned.length ?? 1;
    const as = laid && this.int(0, 3) > 0 ? laid.as : this.int(0, turns - 1);
    const body = turnedAs(this.problem, box, { as, x: 0, y: 0 })?.body ?? { w: 0, d: 0 };
    const snap = (mm: number): number => Math.round(mm / GRID) * GRID;
    const how = this.int(0, 2);
    if (laid && how === 0) return { as, x: laid.x + this.int(-6, 6) * GRID, y: laid.y + this.int(-6, 6) * GRID };
    const mine = this.leadsOf[box] ?? [];
    const lead = how === 1 && mine.length ? leads[mine[this.int(0, mine.length - 1)] ?? 0] : undefined;
    const other = lead ? (lead.from === box ? lead.to : lead.from) : undefined;
    const there = typeof other === 'number' ? this.layout[other] : undefined;
    const by = typeof other === 'number' && there ? bodyAt(this.problem, other, there) : undefined;
    if (by) {
      const beside = this.int(0, 3);
      const away = this.int(0, 8) * GRID;
      const slide = this.int(0, 1) ? 0 : this.int(-8, 8) * GRID;
      return beside === 0
        ? { as, x: snap(by.x + by.w + away), y: snap(by.y + slide) }
        : beside === 1
          ? { as, x: snap(by.x - body.w - away), y: snap(by.y + slide) }
          : beside === 2
            ? { as, x: snap(by.x + slide), y: snap(by.y + by.d + away) }
            : { as, x: snap(by.x + slide), y: snap(by.y - body.d - away) };
    }
    return {
      as,
      x: this.int(0, Math.floor((board.w - body.w) / GRID)) * GRID,
      y: this.int(0, Math.floor((board.d - body.d) / GRID)) * GRID,
    };
  }

  /** Boxes that found no room are tried everywhere once more. */
  fillIn(): void {
    for (const box of this.layout.keys()) if (!this.layout[box]) this.putDown(box, GRID);
  }

  /** A box that has no place takes that of another, which has none then. */
  private takingPlace(box: number): readonly Change[] {
    const other = this.int(0, this.layout.length - 1);
    const theirs = this.layout[other];
    if (!theirs) return [];
    const turns = this.problem.boxes[box]?.turned.length ?? 1;
    const laid = { as: this.int(0, turns - 1), x: theirs.x, y: theirs.y };
    return this.fits(box, laid, other)
      ? [
          [box, laid],
          [other, undefined],
        ]
      : [];
  }

  /** Two boxes that change places, or one that goes elsewhere; nothing where that cannot be. */
  private idea(): readonly Change[] {
    const box = this.int(0, this.layout.length - 1);
    const mine = this.layout[box];
    const other = this.int(0, 3) === 0 ? this.int(0, this.layout.length - 1) : box;
    const theirs = this.layout[other];
    if (!mine && this.int(0, 1) === 0) return this.takingPlace(box);
    if (other === box || !mine || !theirs) {
      const laid = this.elsewhere(box, mine);
      return this.fits(box, laid) ? [[box, laid]] : [];
    }
    const a = { as: mine.as, x: theirs.x, y: theirs.y };
    const b = { as: theirs.as, x: mine.x, y: mine.y };
    return this.fits(box, a, other) && this.fits(other, b, box) && !collide(this.problem, box, a, other, b)
      ? [
          [box, a],
          [other, b],
        ]
      : [];
  }

  /** Tries one move and keeps it when it is better, or not too much worse. @returns by how much the cost changed */
  move(heat: number): number {
    const idea = this.idea();
    if (idea.length === 0) return 0;
    const touched = idea.map(([box]) => box);
    const before = this.costOf(touched);
    const stood = touched.map((box) => this.layout[box]);
    for (const [box, laid] of idea) this.layout[box] = laid;
    const change = this.costOf(touched) - before;
    if (change <= 0 || this.chance() < Math.exp(-change / heat)) return change;
    touched.forEach((box, i) => (this.layout[box] = stood[i]));
    return 0;
  }
}

const planOf = (problem: LayoutProblem, layout: Layout): LayoutPlan => ({
  layout,
  leadMm: leadsMm(problem, layout),
  least: leastLead(problem),
  without: layout.flatMap((laid, box) => (laid ? [] : [box])),
  cannotFit: coversTooMuch(problem) !== undefined,
});

/**
 * Lays boxes out on a board: short leads, stomped boxes in front and a shoe apart, supplies away from boxes of high gain. Simulated
 * annealing over layouts that can all be built, from one that is put down box by box. Where a box finds no room it
 * begins anew, otherwise, up to so often. The same problem gives the same layout when it is let run to the end.
 * @returns the best so far again and again, better each time it changes; whoever has enough stops asking
 */
export function* layOut(problem: LayoutProblem, moves = MOVES): Generator<LayoutPlan, LayoutPlan, void> {
  let best: Best | undefined;
  for (const seed of SEEDS) {
    for (const found of annealed(problem, moves, seed)) {
      if (!best || found.cost < best.cost) best = { ...found, plan: planOf(problem, found.layout) };
      yield best.plan;
    }
    if (best?.plan.without.length === 0 || best?.plan.cannotFit) break;
  }
  return surely(best).plan;
}

interface Found {
  readonly layout: Layout;
  readonly cost: number;
}
interface Best extends Found {
  readonly plan: LayoutPlan;
}

/** The best of one annealing so far, again and again. */
function* annealed(problem: LayoutProblem, moves: number, seed: number): Generator<Found, void, void> {
  const search = new Search(problem, seed);
  search.start();
  let cost = costOf(problem, search.layout);
  let best: Found = { layout: [...search.layout], cost };
  yield best;
  if (problem.boxes.length === 0) return;
  const look = (): void => {
    cost = costOf(problem, search.layout);
    if (cost < best.cost) best = { layout: [...search.layout], cost };
  };
  for (let done = 0; done < moves; done += TURN) {
    const heat = HOT * (COLD / HOT) ** (done / moves);
    for (let i = 0; i < TURN; i += 1) {
      // Two boxes that change places and are near each other count twice, and rows change with them: near the best, the
      // whole is reckoned.
      cost += search.move(heat);
      if (cost < best.cost) look();
    }
    if (done % FILL_IN === 0) search.fillIn();
    look();
    yield best;
  }
}
