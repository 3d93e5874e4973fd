import fc from 'fast-check';
import type { Id } from '@yunta/core/rig/ids';
import { often } from '@yunta/core/testing/often';
import { BALLROOM_ID, islandRun } from '@yunta/core/demo/island-run';
import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import type { Item } from '@yunta/core/signal/drawing/picture';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import { soundRun } from '@yunta/core/derive/views/view';
import { randomRig } from '@yunta/core/testing/random-rig';
import { layRun, RIM, type Laid } from './layout.js';
import { AMPLE, sharedColumns, TAG, TURN } from './run-rows.js';

/** Height of a line of names. */
const NAME = 17;

const overlaps = ({ tags }: Laid) =>
  tags.flatMap((a, i) =>
    tags
      .slice(i + 1)
      .filter((b) => Math.abs(a.x - b.x) < TAG.width && Math.abs(a.y - b.y) < TAG.height)
      .map((b) => `${a.device} on ${b.device}`),
  );

describe('the run as it is drawn', () => {
  test('no two tags overlap and everything lies within the drawing, on the demo and on random rigs', () => {
    const runs = [
      ...[...islandRun().parts.sound.keys()].map((id) => soundRun(deriveOnce(islandRun(), BALLROOM_ID)!, id)),
      ...Array.from({ length: often(60) }, (_, seed) => randomRig(seed + 1)).flatMap(({ rig, hookup }) =>
        [...rig.parts.sound.keys()].slice(0, 2).map((id) => soundRun(deriveOnce(rig, hookup.id)!, id)),
      ),
    ];
    let drawn = 0;
    const rooms = [AMPLE, { width: 900, names: true }, { width: 320, names: false }];
    for (const [items, room] of runs.flatMap((r) => rooms.map((room) => [r, room] as const))) {
      const laid = layRun(items, { room });
      drawn += laid.tags.length;
      expect(overlaps(laid)).toEqual([]);
      const { x, y, width, height } = laid.box;
      for (const t of laid.tags)
        expect([
          t.x >= x,
          t.x + TAG.width <= x + width,
          t.y - TAG.height / 2 >= y,
          t.y + TAG.height / 2 <= y + height,
        ]).toEqual([true, true, true, true]);
    }
    expect(drawn).toBeGreaterThan(200);
  });
  test('a run longer than its room goes on in the next row: nothing is lost, nothing is wider than it must be', () => {
    const rig = islandRun();
    for (const sound of rig.parts.sound.keys()) {
      const items = soundRun(deriveOnce(rig, BALLROOM_ID)!, sound);
      const whole = layRun(items);
      fc.assert(
        fc.property(fc.integer({ min: 150, max: 1800 }), (width) => {
          const laid = layRun(items, { room: { width, names: true } });
          expect(laid.tags.map((t) => t.device)).toEqual(whole.tags.map((t) => t.device));
          expect(laid.ends.map((e) => e.name)).toEqual(whole.ends.map((e) => e.name));
          const widest = Math.max(...items.map((item) => sharedColumns([item], [undefined])[0]!));
          expect(laid.box.width).toBeLessThanOrEqual(Math.max(width, widest + 2 * TURN.room) + RIM);
          if (whole.box.width - RIM <= width) expect(laid).toEqual(whole);
          else expect(laid.box.height).toBeGreaterThan(whole.box.height);
        }),
        { numRuns: often(20) },
      );
    }
  });
  test('two runs that are lined up are folded at the same places', () => {
    const rig = islandRun();
    const d = deriveOnce(rig, BALLROOM_ID)!;
    const [a, b] = ['sound:01', 'sound:04'].map((id) => soundRun(d, id as Id<'sound'>));
    const [left, right] = [[...a!.slice(0, 5)], [...b!.slice(0, 5)]];
    const room = { width: 250, names: true };
    const columns = sharedColumns(left, right);
    const rows = (laid: Laid) => [...new Set(laid.tags.map((t) => t.y))].length;
    expect(rows(layRun(left, { room, columns }))).toBe(rows(layRun(right, { room, columns })));
    expect(rows(layRun(left, { room, columns }))).toBeGreaterThan(1);
  });
  test('loops of one switcher share one bar', () => {
    const laid = layRun(soundRun(deriveOnce(islandRun(), BALLROOM_ID)!, 'sound:04'));
    expect(laid.hosts).toHaveLength(1);
    expect(laid.stubs.map((s) => s.codes)).toEqual([['device:ofz'], ['device:gat'], ['device:mod']]);
  });
  test.each(DEMO_RIGS.map(({ id, make }) => [id, make] as const))(
    '%s: names of boxes and bars keep clear of each other, in every hook-up',
    (_, make) => {
      const rig = make();
      for (const hookup of rig.parts.hookup.keys()) {
        const d = deriveOnce(rig, hookup)!;
        for (const sound of rig.parts.sound.keys()) {
          const laid = layRun(soundRun(d, sound));
          expect(overlaps(laid)).toEqual([]);
          for (const h of laid.hosts) {
            const crossed = laid.tags.filter(
              (t) =>
                t.x < h.x + h.width && t.x + TAG.width > h.x && t.y < h.y && t.y + TAG.height / 2 + NAME > h.y - NAME,
            );
            expect(crossed.map((t) => `${t.device} meets the bar of ${h.device}`)).toEqual([]);
            expect(h.y - NAME).toBeGreaterThanOrEqual(laid.box.y);
          }
        }
      }
    },
  );
  test('arms that never meet again end side by side, those that do meet in one point', () => {
    const end = (name: string): Item => ({
      is: 'end',
      end: `device:${name}.air` as never,
      name,
      by: [],
      sides: ['mono'],
    });
    const box = (id: string): Item => ({ is: 'box', device: `device:${id}`, stages: [] });
    const apart = layRun([
      box('s'),
      {
        is: 'split',
        joins: false,
        arms: [
          [box('a'), end('Left')],
          [box('b'), end('Right')],
        ],
      },
    ]);
    expect(new Set(apart.ends.map((e) => e.y)).size).toBe(2);
    const met = layRun([box('s'), { is: 'split', joins: true, arms: [[box('a')], []] }, end('House')]);
    expect(met.ends).toHaveLength(1);
    expect(met.tags.map((t) => t.device)).toEqual(['device:s', 'device:a']);
    expect(layRun([]).tags).toEqual([]);
  });
  test('what comes over both sides is reached by two lines, and where two sides begin is marked above the tag', () => {
    const box = (id: string, more: object = {}): Item => ({ is: 'box', device: `device:${id}`, stages: [], ...more });
    const [narrow, wide] = [
      layRun([box('d'), box('r')]),
      layRun([box('d', { sides: 'part' }), box('r', { wide: true })]),
    ];
    expect([narrow.pairs.length, wide.pairs.length]).toEqual([0, 1]);
    expect(wide.pairs[0]!.lines.match(/M/g)).toHaveLength(2);
    expect(wide.tags.map((t) => t.sides)).toEqual(['part', undefined]);
    expect(wide.box.height).toBeGreaterThan(narrow.box.height);
  });
});
