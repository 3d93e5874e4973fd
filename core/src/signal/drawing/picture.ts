import type { Insert } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { arrivals, ledInto } from '../graph/arrivals.js';
import { stereoOf, type Stereo } from '../graph/stereo.js';
import { downstream, type Side, type Trace } from '../graph/trace.js';
import type { Edge } from '../graph/wiring.js';
import { theItem, theFirst, surely } from '../../known/the.js';

/** The path of a sound as a person draws it: tags in order, loops below the line, arms side by side. */
export type Item =
  /** `wide`: it comes there over two cables, one for each side. `sides`: here one becomes two, or two become one. */
  | {
      readonly is: 'box';
      readonly device: Id<'device'>;
      readonly stages: readonly StageMark[];
      readonly wide?: true;
      readonly sides?: 'part' | 'meet';
    }
  | {
      readonly is: 'loop';
      readonly device: Id<'device'>;
      readonly insert: string;
      readonly on: true;
      readonly inside: readonly Item[];
    }
  /** A loop that is off: its boxes stand outside the path. */
  | {
      readonly is: 'loop';
      readonly device: Id<'device'>;
      readonly insert: string;
      readonly on: false;
      readonly holds: readonly Id<'device'>[];
    }
  | { readonly is: 'split'; readonly arms: readonly (readonly Item[])[]; readonly joins: boolean }
  /** `by`: the jacks of its box by which it comes there, where the box has more than these. */
  | {
      readonly is: 'end';
      readonly end: Ref;
      readonly name: string;
      readonly by: readonly string[];
      readonly sides: readonly Side[];
      readonly wide?: true;
    };

/** What is said at a box about sides. */
export const SIDES_TEXT = { part: 'two sides from here', meet: 'both sides added' } as const;

export interface StageMark {
  readonly stage: Ref;
  readonly on: boolean;
}

/**
 * The run of a traced sound, from its source to every end that counts. Series–parallel where the wiring is; where it
 * is not, what
 * two arms share is drawn in each of them. A ring is cut where it closes.
 */
export const picture = (
  t: Trace,
  holds: (insert: Insert, device: Id<'device'>) => readonly Id<'device'>[],
): readonly Item[] => new Drawer(t, holds).draw();

/**
 * The point that stands for each point in the picture. Both sides of a place in a chain are drawn as one where the
 * same instruments come to
 * both, side by side; they stay apart where one lies behind the other, or each carries an instrument of its own.
 */
const sidesAsOne = (t: Trace): Int32Array => {
  const {
    wiring: { points, at, from, to },
    onPath,
    spreads,
  } = t;
  const node = Int32Array.from(points, (_, p) => p);
  const chainOf = (p: number): string => theItem(points, p).place.split('/', 2).join('/');
  const crosses = (e: number): boolean => {
    const [a, b] = [theItem(points, theItem(from, e)), theItem(points, theItem(to, e))];
    return a.lane !== undefined && b.lane !== undefined && a.lane !== b.lane;
  };
  const comes = (a: readonly number[], b: readonly number[]): boolean => {
    const seen = downstream(t, a, crosses);
    return b.some((p) => seen[p]);
  };
  const mayLieBehind = new Map<string, boolean>();
  const lanes = new Map<string, number[]>();
  points.forEach(({ lane }, p) => {
    if (lane && onPath[p]) keptIn(lanes, chainOf(p), (): number[] => []).push(p);
  });
  for (const [chain, all] of lanes) {
    const [left, right] = (['left', 'right'] as const).map((lane) =>
      all.filter((p) => theItem(points, p).lane === lane),
    );
    mayLieBehind.set(chain, comes(surely(left), surely(right)) || comes(surely(right), surely(left)));
  }
  for (const [p, { lane, place }] of points.entries()) {
    const twin = lane === 'right' ? at.get(`${place}@left`) : undefined;
    if (twin === undefined || !onPath[p] || !onPath[twin]) continue;
    if (mayLieBehind.get(chainOf(p)) && (comes([twin], [p]) || comes([p], [twin]))) continue;
    const isShared = [...spreads.values()].every(({ sides }) => (sides[p] === 0) === (sides[twin] === 0));
    if (isShared) node[p] = twin;
  }
  return node;
};

const MOST_ITEMS = 2000;

class Drawer {
  private readonly next: readonly (readonly number[])[];
  private readonly joins: Int32Array;
  private readonly inserts = new Map<
    number,
    { device: Id<'device'>; insert: Insert; exit: number; patched: boolean }
  >();
  private readonly node: Int32Array;
  private drawn = 0;

  constructor(
    private readonly t: Trace,
    private readonly holds: (insert: Insert, device: Id<'device'>) => readonly Id<'device'>[],
  ) {
    this.node = sidesAsOne(t);
    for (const { device, insert, entries, exits, patched } of t.wiring.inserts) {
      entries.forEach((entry, i) =>
        this.inserts.set(theItem(this.node, entry), {
          device,
          insert,
          exit: theItem(this.node, theItem(exits, i)),
          patched,
        }),
      );
    }
    this.next = this.withoutBackEdges();
    this.joins = this.findJoins();
  }

  draw(): readonly Item[] {
    const starts = this.t.wiring.sources.filter((s) => this.t.onPath[s.point]);
    const runs = starts.map((s): readonly Item[] =>
      merged([{ is: 'box', device: s.device, stages: [] }, ...this.series(s.point, -1)]),
    );
    return withSides(runs.length > 1 ? [{ is: 'split', arms: runs, joins: false }] : (runs[0] ?? []), stereoOf(this.t));
  }

  private toOf(e: number): number {
    return theItem(this.node, theItem(this.t.wiring.to, e));
  }

  private isPair(node: number): boolean {
    const {
      wiring: { points, at },
    } = this.t;
    const { lane, place } = theItem(points, node);
    return lane === 'left' && this.node[at.get(`${place}@right`) ?? node] === node && at.has(`${place}@right`);
  }

  /** Edges on the path, by the node that they leave; where both sides go the same way, one of them stands for both. */
  private edgesOut(): readonly (readonly number[])[] {
    const {
      wiring: { points, edges, from, to },
      leaving,
      onPath,
    } = this.t;
    const out: number[][] = points.map(() => []);
    const seen = new Set<string>();
    for (const e of leaving.edges.slice().sort()) {
      if (!onPath[theItem(from, e)] || !onPath[theItem(to, e)]) continue;
      const [here, there] = [theItem(this.node, theItem(from, e)), this.toOf(e)];
      const { carries } = theItem(edges, e);
      const way = `${here} ${there} ${carries.by} ${carries.by === 'block' ? carries.block.id : carries.by === 'cable' ? carries.cable : ''}`;
      const isDoubled = this.isPair(here) || this.isPair(there);
      if (isDoubled && seen.has(way)) continue;
      seen.add(way);
      theItem(out, here).push(e);
    }
    return out;
  }

  private withoutBackEdges(): readonly (readonly number[])[] {
    const { wiring } = this.t;
    const out = this.edgesOut();
    const next: number[][] = wiring.points.map(() => []);
    const state = new Uint8Array(wiring.points.length);
    for (const source of wiring.sources) {
      if (!this.t.onPath[source.point] || state[source.point]) continue;
      const stack: [point: number, at: number][] = [[source.point, 0]];
      state[source.point] = 1;
      while (stack.length) {
        const top = theItem(stack, stack.length - 1);
        const e = theItem(out, top[0])[top[1]];
        top[1] += 1;
        if (e === undefined) {
          state[top[0]] = 2;
          stack.pop();
          continue;
        }
        const to = this.toOf(e);
        if (state[to] === 1) continue;
        theItem(next, top[0]).push(e);
        if (state[to] === 0) {
          state[to] = 1;
          stack.push([to, 0]);
        }
      }
    }
    return next;
  }

  /**
   * For each point where arms part: the first point through which all of them go again (its immediate post-dominator),
   * or none.
   */
  private findJoins(): Int32Array {
    const { wiring } = this.t;
    const order: number[] = [];
    const seen = new Uint8Array(wiring.points.length);
    const visit = (root: number) => {
      const stack: [number, number][] = [[root, 0]];
      seen[root] = 1;
      while (stack.length) {
        const top = theItem(stack, stack.length - 1);
        const e = theItem(this.next, top[0])[top[1]];
        top[1] += 1;
        if (e === undefined) {
          order.push(top[0]);
          stack.pop();
        } else if (!seen[this.toOf(e)]) {
          seen[this.toOf(e)] = 1;
          stack.push([this.toOf(e), 0]);
        }
      }
    };
    wiring.sources.forEach((s) => this.t.onPath[s.point] && !seen[s.point] && visit(s.point));
    const END = wiring.points.length;
    const dom = new Int32Array(END + 1).fill(-1);
    const rank = new Int32Array(END + 1).fill(-1);
    rank[END] = -1;
    order.forEach((p, i) => {
      rank[p] = i;
    });
    const isEnd = new Set(wiring.ends.filter((e) => this.t.onPath[e.point]).map((e) => e.point));
    const meet = (a: number, b: number): number => {
      let [x, y] = [a, b];
      while (x !== y) {
        while (theItem(rank, x) > theItem(rank, y)) x = theItem(dom, x);
        while (theItem(rank, y) > theItem(rank, x)) y = theItem(dom, y);
      }
      return x;
    };
    dom[END] = END;
    for (const p of order) {
      const after = [
        ...theItem(this.next, p).map((e) => this.toOf(e)),
        ...(isEnd.has(p) || theItem(this.next, p).length === 0 ? [END] : []),
      ];
      dom[p] = after.reduce((a, b) => meet(a, b));
    }
    return dom.map((d) => (d === END ? -1 : d));
  }

  private series(from: number, until: number): Item[] {
    const { wiring } = this.t;
    const items: Item[] = [];
    let at = from;
    while (at !== until && at >= 0 && this.drawn < MOST_ITEMS) {
      this.drawn += 1;
      items.push(...this.endsAt(at));
      const insert = this.inserts.get(at);
      const outs = theItem(this.next, at);
      if (insert && insert.exit !== undefined && this.isLoop(insert, outs)) {
        items.push(this.loop(insert, outs));
        at = insert.exit;
        continue;
      }
      if (outs.length === 0) break;
      if (outs.length === 1) {
        items.push(...this.mark(theItem(wiring.edges, theFirst(outs))));
        at = this.toOf(theFirst(outs));
        continue;
      }
      const join = theItem(this.joins, at);
      const arms = outs.map((e) => {
        const to = this.toOf(e);
        return [...this.mark(theItem(wiring.edges, e)), ...(to === join ? [] : this.series(to, join))];
      });
      items.push(...split(arms, join >= 0, this.isPair(at)));
      at = join;
    }
    return items;
  }

  /** A series insert, on or off; a parallel one is drawn as arms. */
  private isLoop({ exit, patched }: { exit: number; patched: boolean }, outs: readonly number[]): boolean {
    const tos = outs.map((e) => this.toOf(e));
    const past = tos.includes(exit);
    return (past && tos.length === 1) || (patched && !past && tos.length >= 1 && this.joinsAt(tos, exit));
  }

  private joinsAt(tos: readonly number[], exit: number): boolean {
    return tos.every((to) => {
      for (let p = to; p >= 0; p = theItem(this.joins, p)) if (p === exit) return true;
      return false;
    });
  }

  private loop(
    { device, insert, exit, patched }: { device: Id<'device'>; insert: Insert; exit: number; patched: boolean },
    outs: readonly number[],
  ): Item {
    const tos = outs.map((e) => this.toOf(e));
    if (tos.length === 1 && tos[0] === exit)
      return { is: 'loop', device, insert: insert.id, on: false, holds: patched ? this.holds(insert, device) : [] };
    const arms = tos.map((to) => this.series(to, exit));
    const inside: readonly Item[] = arms.length === 1 ? theFirst(arms) : [{ is: 'split', arms, joins: true }];
    return {
      is: 'loop',
      device,
      insert: insert.id,
      on: true,
      inside: withoutLast(merged(inside), (box) => box === device),
    };
  }

  private endsAt(point: number): readonly Item[] {
    return this.t.wiring.ends
      .filter((e) => e.point === point && e.end.is !== 'tuner')
      .map((e): Item => ({
        is: 'end',
        end: e.ref,
        name: e.end.name,
        by: (ledInto(this.t.wiring).get(e.device)?.size ?? 0) > 1 ? arrivals(this.t, e) : [],
        sides: [...new Set(this.t.reaches.filter((r) => r.end === e).flatMap((r) => r.sides))],
      }));
  }

  private mark({ carries, to }: Edge): readonly Item[] {
    if (carries.by === 'block') {
      const stage = ref(carries.device, carries.block.id);
      return [{ is: 'box', device: carries.device, stages: [{ stage, on: this.t.stages.get(stage) === 'in' }] }];
    }
    return carries.by === 'cable' ? [{ is: 'box', device: theItem(this.t.wiring.points, to).device, stages: [] }] : [];
  }
}

/** Says at the boxes where two sides begin and where they are added. */
const withSides = (items: readonly Item[], stereo: Stereo): readonly Item[] =>
  items.map((item): Item => {
    switch (item.is) {
      case 'box':
        return item.stages.some((s) => stereo.begins.has(s.stage))
          ? { ...item, sides: 'part' }
          : stereo.summed.has(item.device)
            ? { ...item, sides: 'meet' }
            : item;
      case 'loop':
        return item.on ? { ...item, inside: withSides(item.inside, stereo) } : item;
      case 'split':
        return { ...item, arms: item.arms.map((arm) => withSides(arm, stereo)) };
      case 'end':
        return item;
    }
  });

type Box = Extract<Item, { is: 'box' }>;
const isPlainBox = (item: Item | undefined): item is Box => item?.is === 'box' && item.stages.length === 0;
const withoutLast = (items: readonly Item[], drop: (device: Id<'device'>) => boolean): readonly Item[] => {
  const last = items.at(-1);
  return isPlainBox(last) && drop(last.device) ? items.slice(0, -1) : items;
};

/** Arms side by side; the box in which all of them meet again stands once, behind them. */
const split = (arms: readonly (readonly Item[])[], joins: boolean, isPair: boolean): readonly Item[] => {
  const meets = arms.map((arm) => arm.at(-1));
  const [first] = meets;
  const inOne = joins && isPlainBox(first) && meets.every((m) => isPlainBox(m) && m.device === first.device);
  const drawn = arms.map((arm) => merged(inOne ? arm.slice(0, -1) : arm));
  const together = isPair && joins ? sideBySide(drawn) : undefined;
  if (together) return [...together, ...(inOne ? [{ ...first, wide: true as const }] : [])];
  return [
    ...(drawn.some((arm) => arm.length > 0) ? [{ is: 'split' as const, arms: drawn, joins }] : []),
    ...(inOne ? [first] : []),
  ];
};

/** Two sides that pass the same boxes, one by one; nothing where they part company. */
const sideBySide = ([left, right]: readonly (readonly Item[])[]): readonly Item[] | undefined => {
  if (!left || !right || left.length !== right.length) return undefined;
  const both = left.flatMap((a, i) => {
    const b = theItem(right, i);
    if (a.is !== 'box' || b.is !== 'box' || b.device !== a.device) return [];
    return [{ ...a, stages: [...a.stages, ...b.stages], wide: true as const }];
  });
  return both.length === left.length ? both : undefined;
};

const isStage = (item: Item | undefined, device: Id<'device'>): boolean =>
  item?.is === 'box' && item.device === device && item.stages.length > 0;

/** Neighbouring marks of one box are one tag; a box that only hosts loops stands as the loops' host. */
const merged = (items: readonly Item[]): Item[] => {
  const out: Item[] = [];
  for (const [i, item] of items.entries()) {
    const last = out.at(-1);
    // A loop of a modeller into which nothing is plugged is nothing between two of its stages.
    const isBare = item.is === 'loop' && !item.on && item.holds.length === 0;
    if (isBare && isStage(last, item.device) && isStage(items[i + 1], item.device)) continue;
    if (item.is === 'box' && last?.is === 'box' && last.device === item.device)
      out[out.length - 1] = { ...last, stages: [...last.stages, ...item.stages] };
    else if (item.is === 'end' && isPlainBox(last) && last.wide && item.end.startsWith(`${last.device}.`))
      out.push({ ...item, wide: true });
    else out.push(item);
  }
  return out.filter((item, i) => {
    if (item.is !== 'box' || item.stages.length > 0) return true;
    const [before, after] = [out[i - 1], out[i + 1]];
    const hostsLoop = [before, after].some((n) => n?.is === 'loop' && n.device === item.device);
    return !hostsLoop && !(after?.is === 'end' && after.end.startsWith(`${item.device}.`));
  });
};
