import type { Insert } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import type { Side, Trace } from './trace.js';
import type { Edge } from './wiring.js';

/** The path of a sound as a person draws it: tags in order, loops below the line, arms side by side. */
export type Item =
  | { readonly is: 'box'; readonly device: Id<'device'>; readonly stages: readonly StageMark[] }
  | { readonly is: 'loop'; readonly device: Id<'device'>; readonly insert: string; readonly on: true; readonly inside: readonly Item[] }
  /** A loop that is off: its boxes stand outside the path. */
  | { readonly is: 'loop'; readonly device: Id<'device'>; readonly insert: string; readonly on: false; readonly holds: readonly Id<'device'>[] }
  | { readonly is: 'split'; readonly arms: readonly (readonly Item[])[]; readonly joins: boolean }
  | { readonly is: 'end'; readonly end: Ref; readonly name: string; readonly sides: readonly Side[] };

export interface StageMark {
  readonly stage: Ref;
  readonly on: boolean;
}

/**
 * The run of a traced sound, from its source to every end that counts. Series–parallel where the wiring is; where it is not, what
 * two arms share is drawn in each of them. A ring is cut where it closes.
 */
export const picture = (t: Trace, holds: (insert: Insert, device: Id<'device'>) => readonly Id<'device'>[]): readonly Item[] => new Drawer(t, holds).draw();

const MOST_ITEMS = 2000;

class Drawer {
  private readonly next: readonly (readonly number[])[];
  private readonly joins: Int32Array;
  private readonly inserts = new Map<number, { device: Id<'device'>; insert: Insert; exit: number; patched: boolean }>();
  private drawn = 0;

  constructor(private readonly t: Trace, private readonly holds: (insert: Insert, device: Id<'device'>) => readonly Id<'device'>[]) {
    const { wiring } = t;
    for (const { device, insert, entry, exit, patched } of wiring.inserts) this.inserts.set(entry, { device, insert, exit, patched });
    this.next = this.withoutBackEdges();
    this.joins = this.findJoins();
  }

  draw(): readonly Item[] {
    const starts = this.t.wiring.sources.filter((s) => this.t.onPath[s.point]);
    const runs = starts.map((s): readonly Item[] => merged([{ is: 'box', device: s.device, stages: [] }, ...this.series(s.point, -1)]));
    return runs.length > 1 ? [{ is: 'split', arms: runs, joins: false }] : runs[0] ?? [];
  }

  private onWay(e: number): boolean {
    const edge = this.t.wiring.edges[e]!;
    return this.t.active[e] === 1 && this.t.onPath[edge.from] === 1 && this.t.onPath[edge.to] === 1;
  }

  private withoutBackEdges(): readonly (readonly number[])[] {
    const { wiring } = this.t;
    const next: number[][] = wiring.points.map(() => []);
    const state = new Uint8Array(wiring.points.length);
    for (const source of wiring.sources) {
      if (!this.t.onPath[source.point] || state[source.point]) continue;
      const stack: [point: number, at: number][] = [[source.point, 0]];
      state[source.point] = 1;
      while (stack.length) {
        const top = stack[stack.length - 1]!;
        const e = wiring.out[top[0]]![top[1]];
        top[1] += 1;
        if (e === undefined) {
          state[top[0]] = 2;
          stack.pop();
          continue;
        }
        if (!this.onWay(e)) continue;
        const { to } = wiring.edges[e]!;
        if (state[to] === 1) continue;
        next[top[0]]!.push(e);
        if (state[to] === 0) {
          state[to] = 1;
          stack.push([to, 0]);
        }
      }
    }
    return next;
  }

  /** For each point where arms part: the first point through which all of them go again (its immediate post-dominator), or none. */
  private findJoins(): Int32Array {
    const { wiring } = this.t;
    const order: number[] = [];
    const seen = new Uint8Array(wiring.points.length);
    const visit = (root: number) => {
      const stack: [number, number][] = [[root, 0]];
      seen[root] = 1;
      while (stack.length) {
        const top = stack[stack.length - 1]!;
        const e = this.next[top[0]]![top[1]];
        top[1] += 1;
        if (e === undefined) {
          order.push(top[0]);
          stack.pop();
        } else if (!seen[wiring.edges[e]!.to]) {
          seen[wiring.edges[e]!.to] = 1;
          stack.push([wiring.edges[e]!.to, 0]);
        }
      }
    };
    wiring.sources.forEach((s) => this.t.onPath[s.point] && !seen[s.point] && visit(s.point));
    const END = wiring.points.length;
    const dom = new Int32Array(END + 1).fill(-1);
    const rank = new Int32Array(END + 1).fill(-1);
    rank[END] = -1;
    order.forEach((p, i) => { rank[p] = i; });
    const isEnd = new Set(wiring.ends.filter((e) => this.t.onPath[e.point]).map((e) => e.point));
    const meet = (a: number, b: number): number => {
      let [x, y] = [a, b];
      while (x !== y) {
        while (rank[x]! > rank[y]!) x = dom[x]!;
        while (rank[y]! > rank[x]!) y = dom[y]!;
      }
      return x;
    };
    dom[END] = END;
    for (const p of order) {
      const after = [...this.next[p]!.map((e) => wiring.edges[e]!.to), ...(isEnd.has(p) || this.next[p]!.length === 0 ? [END] : [])];
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
      const outs = this.next[at]!;
      if (insert && insert.exit !== undefined && this.isLoop(insert, outs)) {
        items.push(this.loop(insert, outs));
        at = insert.exit;
        continue;
      }
      if (outs.length === 0) break;
      if (outs.length === 1) {
        const edge = wiring.edges[outs[0]!]!;
        items.push(...this.mark(edge));
        at = edge.to;
        continue;
      }
      const join = this.joins[at]!;
      const arms = outs.map((e) => {
        const edge = wiring.edges[e]!;
        return [...this.mark(edge), ...(edge.to === join ? [] : this.series(edge.to, join))];
      });
      items.push(...split(arms, join >= 0));
      at = join;
    }
    return items;
  }

  /** A series insert, on or off; a parallel one is drawn as arms. */
  private isLoop({ exit, patched }: { exit: number; patched: boolean }, outs: readonly number[]): boolean {
    const tos = outs.map((e) => this.t.wiring.edges[e]!);
    const past = tos.some((e) => e.to === exit);
    return (past && tos.length === 1) || (patched && !past && tos.length >= 1 && this.joinsAt(tos, exit));
  }

  private joinsAt(edges: readonly Edge[], exit: number): boolean {
    return edges.every((e) => {
      for (let p = e.to; p >= 0; p = this.joins[p]!) if (p === exit) return true;
      return false;
    });
  }

  private loop({ device, insert, exit, patched }: { device: Id<'device'>; insert: Insert; exit: number; patched: boolean }, outs: readonly number[]): Item {
    const edges = outs.map((e) => this.t.wiring.edges[e]!);
    if (edges.length === 1 && edges[0]!.to === exit) return { is: 'loop', device, insert: insert.id, on: false, holds: patched ? this.holds(insert, device) : [] };
    const arms = edges.map((e) => this.series(e.to, exit));
    const inside: readonly Item[] = arms.length === 1 ? arms[0]! : [{ is: 'split', arms, joins: true }];
    return { is: 'loop', device, insert: insert.id, on: true, inside: withoutLast(merged(inside), (box) => box === device) };
  }

  private endsAt(point: number): readonly Item[] {
    return this.t.wiring.ends.filter((e) => e.point === point && e.end.is !== 'tuner').map((e): Item => ({
      is: 'end', end: e.ref, name: e.end.name, sides: [...new Set(this.t.reaches.filter((r) => r.end === e).flatMap((r) => r.sides))],
    }));
  }

  private mark({ carries, to }: Edge): readonly Item[] {
    if (carries.by === 'block') {
      const stage = ref(carries.device, carries.block.id);
      return [{ is: 'box', device: carries.device, stages: [{ stage, on: this.t.stages.get(stage) === 'in' }] }];
    }
    return carries.by === 'cable' ? [{ is: 'box', device: this.t.wiring.points[to]!.device, stages: [] }] : [];
  }
}

type Box = Extract<Item, { is: 'box' }>;
const isPlainBox = (item: Item | undefined): item is Box => item?.is === 'box' && item.stages.length === 0;
const withoutLast = (items: readonly Item[], drop: (device: Id<'device'>) => boolean): readonly Item[] => {
  const last = items.at(-1);
  return isPlainBox(last) && drop(last.device) ? items.slice(0, -1) : items;
};

/** Arms side by side; the box in which all of them meet again stands once, behind them. */
const split = (arms: readonly (readonly Item[])[], joins: boolean): readonly Item[] => {
  const meets = arms.map((arm) => arm.at(-1));
  const [first] = meets;
  const inOne = joins && isPlainBox(first) && meets.every((m) => isPlainBox(m) && m.device === first.device);
  const drawn = arms.map((arm) => merged(inOne ? arm.slice(0, -1) : arm));
  return [...(drawn.some((arm) => arm.length > 0) ? [{ is: 'split' as const, arms: drawn, joins }] : []), ...(inOne ? [first] : [])];
};

/** Neighbouring marks of one box are one tag; a box that only hosts loops stands as the loops' host. */
const merged = (items: readonly Item[]): Item[] => {
  const out: Item[] = [];
  for (const item of items) {
    const last = out.at(-1);
    if (item.is === 'box' && last?.is === 'box' && last.device === item.device) out[out.length - 1] = { ...last, stages: [...last.stages, ...item.stages] };
    else out.push(item);
  }
  return out.filter((item, i) => {
    if (item.is !== 'box' || item.stages.length > 0) return true;
    const [before, after] = [out[i - 1], out[i + 1]];
    const hostsLoop = [before, after].some((n) => n?.is === 'loop' && n.device === item.device);
    return !hostsLoop && !(after?.is === 'end' && after.end.startsWith(`${item.device}.`));
  });
};
