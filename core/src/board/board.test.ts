import fc from 'fast-check';
import { bareDemo } from '../../testing/bare-demo.js';
import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { removeBoard, setBoard, standAt } from '../edits/boards.js';
import type { Board, Spot } from '../rig/board.js';
import { TURNS } from '../rig/board.js';
import type { Id } from '../rig/ids.js';
import { all, cablesOf, partOf, thePart, type Rig } from '../rig/rig.js';
import { hungBeneath } from './beneath.js';
import { boardFaults } from './faults.js';
import { jackPoint, sideOf, sizeOf } from './jacks.js';
import { laidOut } from './laid-out.js';
import { leadLengths, STOCK_STEPS } from './lengths.js';
import { BESIDE, OVER_MM, routeOf, UNDER_MM, wayBetween } from './route.js';
import { readBoard } from './said.js';
import { apart, overlaps, turnedPoint, turnedSize, turnNear, type Point, type Rect } from './shapes.js';
import { weightOf } from './weight.js';

const LOW: Id<'device'> = 'device:low';
const HIG: Id<'device'> = 'device:hig';
/** The demo on a board of 900 × 420 mm, with boxes that stand so. */
const on = (place: Record<Id<'device'>, Partial<Spot>>, more: Partial<Board> = {}): Rig => {
  const rig = after(bareDemo(), setBoard(bareDemo(), 'Board', { mm: [900, 420], ...more }));
  const spots = Object.fromEntries(
    Object.entries(place).map(([id, s]) => [id, { at: 'Board', x: 0, y: 0, turn: 0, ...s }]),
  );
  return after(rig, standAt(thePart(rig, BALLROOM_ID), spots));
};
const out = (rig: Rig) => laidOut(rig, thePart(rig, BALLROOM_ID));
const faults = (rig: Rig) => boardFaults(out(rig)).map((f) => f.is);

describe('shapes', () => {
  const mm = fc.integer({ min: 1, max: 500 });
  test('law: four quarter turns bring every point back, and what is turned stays within what it covers', () =>
    fc.assert(
      fc.property(mm, mm, fc.constantFrom(...TURNS), fc.nat(100), fc.nat(100), (w, d, turn, a, b) => {
        const p = { x: (w * a) / 100, y: (d * b) / 100 };
        const size = turnedSize(w, d, turn);
        const q = turnedPoint(p, w, d, turn);
        expect(q.x >= 0 && q.y >= 0 && q.x <= size.w && q.y <= size.d).toBe(true);
        const back = turnedPoint(q, size.w, size.d, turnNear(-turn));
        expect([back.x, back.y]).toEqual([expect.closeTo(p.x, 9), expect.closeTo(p.y, 9)]);
      }),
    ));
  test('a jack on the back looks to the right once its box is turned by a quarter', () => {
    const rig = on({ [LOW]: { turn: 90 } });
    const plug = out(rig).plugs.find((p) => p.jack === 'device:low.dc')!;
    expect([plug.side, plug.at.x, plug.end.x > plug.at.x]).toEqual(['right', 120, true]);
  });
});

describe('jacks', () => {
  const rig = bareDemo();
  const side = (id: Id<'device'>, jack: string) =>
    sideOf(
      thePart(rig, id),
      thePart(rig, id).jacks.find((j) => j.id === jack)!,
    );
  test('of a small box: in on the right, out on the left, supply at the back; a wide one has all at the back', () => {
    expect([side(LOW, 'in'), side(LOW, 'out'), side(LOW, 'dc')]).toEqual(['right', 'left', 'back']);
    expect([side('device:swi', 'in'), side('device:swi', 'send1')]).toEqual(['back', 'back']);
  });
  test('what somebody says counts', () => {
    const low = thePart(rig, LOW);
    const jacks = low.jacks.map((j) => (j.id === 'in' ? { ...j, side: 'back' as const } : j));
    expect(
      jackPoint(
        { ...low, jacks },
        jacks.find((j) => j.id === 'in')!,
      ),
    ).toMatchObject({ side: 'back', y: 120 });
  });
  test('law: jacks of one side stand apart', () => {
    for (const device of rig.parts.device.values()) {
      const points = device.jacks.flatMap((j) => jackPoint(device, j) ?? []).map((p) => `${p.side} ${p.x} ${p.y}`);
      expect(new Set(points).size).toBe(points.length);
    }
  });
});

describe('faults', () => {
  test('boxes apart are right; one over another, over the edge, too high under a lid', () => {
    expect(faults(on({ [LOW]: { x: 300, y: 100 }, [HIG]: { x: 600, y: 100 } }))).toEqual([]);
    // Their plugs are in the way of each other too: that goes with it.
    expect(faults(on({ [LOW]: { x: 300, y: 100 }, [HIG]: { x: 369, y: 100 } }))).toEqual(['overlap']);
    expect(faults(on({ [LOW]: { x: 831, y: 100 } }))).toEqual(['overhang']);
    expect(faults(on({ [LOW]: { x: 300, y: 100 } }, { high: 40 }))).toEqual(['too high']);
  });
  test('a plug that a neighbour stands in, and two plugs that meet', () => {
    // The output of the one looks at the other, 10 mm away: a flat plug needs 18.
    expect(faults(on({ [LOW]: { x: 300, y: 100 }, [HIG]: { x: 220, y: 100 } }))).toContain('blocked');
    // 30 mm between two that look at each other: each plug has room, both have not.
    expect(faults(on({ [LOW]: { x: 300, y: 100 }, [HIG]: { x: 200, y: 100 } }))).toEqual(['plugs']);
  });
  test('a tier is over what stands below it', () => {
    const rig = on({ [LOW]: { x: 300, y: 200 } });
    const low = after(rig, setBoard(rig, 'Tier', { mm: [900, 200], on: { board: 'Board', x: 0, y: 220, z: 40 } }));
    expect(boardFaults(out(low))).toEqual([{ is: 'too high', box: LOW, mm: 15, under: 'Tier' }]);
    const high = after(rig, setBoard(rig, 'Tier', { mm: [900, 200], on: { board: 'Board', x: 0, y: 220, z: 60 } }));
    expect(boardFaults(out(high))).toEqual([]);
  });
  test('a board that hangs beneath another has its plate for a lid', () => {
    const rig = on({ [LOW]: { x: 0, y: 0, at: 'Under' } });
    const under = (z: number, x = 0) =>
      after(rig, setBoard(rig, 'Under', { mm: [300, 200], on: { board: 'Board', x, y: 0, z } }));
    expect(boardFaults(out(under(-50)))).toEqual([{ is: 'too high', box: LOW, mm: 5, under: 'Board' }]);
    expect(boardFaults(out(under(-60)))).toEqual([]);
    // Beside the other board nothing is over it.
    expect(boardFaults(out(under(-50, 900)))).toEqual([]);
  });
});

/** Every way on a grid of 1 mm, wave by wave (C. Y. Lee 1961): the length of the shortest. */
const byWaves = (from: Point, to: Point, boxes: readonly Rect[], size: number): number | undefined => {
  const walls = boxes.map((r) => ({ x: r.x - BESIDE, y: r.y - BESIDE, w: r.w + 2 * BESIDE, d: r.d + 2 * BESIDE }));
  const isIn = (x: number, y: number) => walls.some((r) => x > r.x && x < r.x + r.w && y > r.y && y < r.y + r.d);
  if (isIn(from.x, from.y) || isIn(to.x, to.y)) return undefined;
  const seen = new Map([[`${from.x} ${from.y}`, 0]]);
  const wave: Point[] = [from];
  for (const p of wave) {
    const far = seen.get(`${p.x} ${p.y}`)!;
    if (p.x === to.x && p.y === to.y) return far;
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const [x, y] = [p.x + dx, p.y + dy];
      const key = `${x} ${y}`;
      // A step between two points on a wall's edges could cross it where it is 1 mm wide; walls are wider.
      if (Math.min(x, y) < -20 || Math.max(x, y) > size + 20 || seen.has(key) || isIn(x, y)) continue;
      seen.set(key, far + 1);
      wave.push({ x, y });
    }
  }
  return undefined;
};

describe('routes', () => {
  const size = 60;
  const at = fc.record({ x: fc.nat(size), y: fc.nat(size) });
  const box = fc.record({
    x: fc.nat(size),
    y: fc.nat(size),
    w: fc.integer({ min: 3, max: 25 }),
    d: fc.integer({ min: 3, max: 25 }),
  });
  // Reference: Lee's algorithm on a grid of 1 mm.
  test('law: no way between boxes is shorter', () =>
    fc.assert(
      fc.property(at, at, fc.array(box, { maxLength: 5 }), (from, to, boxes) => {
        const waves = byWaves(from, to, boxes, size);
        const way = wayBetween(from, to, boxes);
        // A way may leave the grid of the reference; then it is no shorter than within it.
        const mm = way?.slice(1).reduce((sum, p, i) => sum + apart(p, way[i]!), 0);
        if (waves === undefined) return;
        expect(mm).toBe(waves);
      }),
      { numRuns: 150 },
    ));
  test('where there is no way it climbs over, or dives beneath a board with slots', () => {
    const cage = [
      { x: 0, y: 0, w: 100, d: 10 },
      { x: 0, y: 90, w: 100, d: 10 },
      { x: 0, y: 10, w: 10, d: 80 },
      { x: 90, y: 10, w: 10, d: 80 },
    ];
    const [from, to] = [
      { x: 50, y: 50 },
      { x: 50, y: 150 },
    ];
    expect(routeOf(from, to, cage, false)).toMatchObject({ mm: 100 + OVER_MM, goes: 'over' });
    expect(routeOf(from, to, cage, true)).toMatchObject({ mm: 100 + UNDER_MM, goes: 'under' });
  });
});

describe('lengths', () => {
  test('every lead between boxes on the board, with slack, in a length that is sold', () => {
    const rig = on({ [LOW]: { x: 400, y: 100 }, 'device:swi': { x: 200, y: 300 } });
    const lengths = leadLengths(rig, thePart(rig, BALLROOM_ID), out(rig));
    const cables = cablesOf(rig, BALLROOM_ID).filter((c) => c.ends.every((e) => /^device:(low|swi)\./.test(e)));
    expect(lengths.map((l) => l.cable).sort()).toEqual(cables.map((c) => c.id).sort());
    for (const l of lengths) {
      expect(l.wanted).toBeGreaterThan(l.least);
      expect(STOCK_STEPS).toContain(l.step);
      expect(l.step).toBeGreaterThanOrEqual(l.wanted);
    }
  });
  test('law: a lead is at least as long as its plugs are apart along the edges, however the boxes stand', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(800), fc.nat(300), fc.constantFrom(...TURNS)), { minLength: 6, maxLength: 6 }),
        (spots) => {
          const ids = ['swi', 'low', 'hig', 'cmp', 'dly', 'rev'].map((n): Id<'device'> => `device:${n}`);
          const rig = on(
            Object.fromEntries(ids.map((id, i) => [id, { x: spots[i]![0], y: spots[i]![1], turn: spots[i]![2] }])),
          );
          const laid = out(rig);
          for (const { cable, least } of leadLengths(rig, thePart(rig, BALLROOM_ID), laid)) {
            const [a, b] = laid.plugs.filter((p) => p.cable === cable);
            const plugs = (apart(a!.at, a!.end) + apart(b!.at, b!.end)) / 1000;
            expect(least).toBeGreaterThanOrEqual(apart(a!.end, b!.end) / 1000 + plugs - 1e-9);
          }
        },
      ),
      { numRuns: 40 },
    ));
  test('from tier to tier the height counts, and boards that stand apart tell nothing', () => {
    const flat = on({ [LOW]: { x: 400, y: 100 }, 'device:swi': { x: 200, y: 10, at: 'Tier' } });
    const least = (z?: number): readonly number[] => {
      const board = {
        mm: [900, 150] as const,
        ...(z === undefined ? {} : { on: { board: 'Board', x: 0, y: 270, z } }),
      };
      const rig = after(flat, setBoard(flat, 'Tier', board));
      return leadLengths(rig, thePart(rig, BALLROOM_ID), out(rig)).map((l) => l.least);
    };
    expect(least()).toEqual([]);
    expect(least(80).map((m, i) => m - least(20)[i]!)).toEqual(least(80).map(() => expect.closeTo(0.06, 9)));
    expect(least(80).length).toBeGreaterThan(0);
  });
});

test('weight: worked by hand, the centre between two boxes by their weights', () => {
  const rig = on({ [LOW]: { x: 0, y: 0 }, 'device:swi': { x: 400, y: 200 } }, { kg: 3 });
  const [low, swi] = [partOf(rig, LOW)!.figures.kg!, partOf(rig, 'device:swi')!.figures.kg!];
  const kg = 3 + low + swi;
  const x = (3 * 450 + low * 35 + swi * 615) / kg;
  expect(weightOf(out(rig), 'Board')).toEqual({ kg, unknown: [], centre: { x, y: expect.any(Number) } });
});

test('law: boxes that do not overlap stay so when both are moved by as much', () =>
  fc.assert(
    fc.property(fc.nat(300), fc.nat(300), fc.integer({ min: -99, max: 99 }), (x, y, by) => {
      const [a, b] = [
        { x: 0, y: 0, w: 70, d: 120 },
        { x, y, w: 430, d: 120 },
      ];
      const moved = (r: Rect): Rect => ({ ...r, x: r.x + by, y: r.y + by });
      expect(overlaps(moved(a), moved(b))).toBe(overlaps(a, b));
    }),
  ));

describe('a board as it is said', () => {
  test.each([
    ['60 x 32', { name: '', mm: [600, 320] }],
    ['Fly board: 60 × 32 cm', { name: 'Fly board', mm: [600, 320] }],
    ['Tier 900x150mm', { name: 'Tier', mm: [900, 150] }],
    ['Big one 24 by 12,5 in', { name: 'Big one', mm: [610, 318] }],
  ])('%s', (text, said) => expect(readBoard(text)).toEqual({ ok: true, value: said }));
  test.each([
    ['0 x 30 cm', 'each side is longer than 0'],
    ['-60 x 32', 'each side is longer than 0'],
    ['600 x 320', 'at most 300 cm'],
    ['a board', 'says no size'],
  ])('%s is refused', (text, why) => {
    const read = readBoard(text);
    expect(!read.ok && read.error[0]!.wrong).toContain(why);
  });
});

test('what finds no room hangs beneath: low enough, on one shelf, in nobody’s way', () => {
  const rig = after(islandRun(), removeBoard(islandRun(), 'Shelf beneath'));
  const supply = all(rig, 'device').find((d) => d.zone === 'supply')!;
  const [board] = Object.keys(thePart(rig, 'about:rig').boards!);
  const hung = after(rig, hungBeneath(rig, thePart(rig, BALLROOM_ID), board!, [supply.id]));
  const spot = thePart(hung, BALLROOM_ID).place![supply.id]!;
  const shelf = thePart(hung, 'about:rig').boards![spot.at]!;
  expect(spot.at).toBe(`Beneath ${board}`);
  expect(shelf.on).toMatchObject({ board, x: 0, y: 0 });
  expect(-shelf.on!.z).toBeGreaterThan(sizeOf(supply)[2]);
  expect(boardFaults(laidOut(hung, thePart(hung, BALLROOM_ID)))).toEqual([]);
  const again = hungBeneath(hung, thePart(hung, BALLROOM_ID), board!, [supply.id]);
  expect(Object.keys(thePart(after(hung, again), 'about:rig').boards!)).toHaveLength(2);
});
