import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import { CATALOGUE } from '@yunta/core/catalogue/boxes';
import { all } from '@yunta/core/rig/rig';
import { nameLines } from './name-lines.js';
import { layRun } from './layout.js';
import { sharedColumns } from './run-rows.js';
import type { Item } from '@yunta/core/signal/drawing/picture';

describe('names on the map', () => {
  test('two lines at most, none longer than the box is wide', () => {
    for (const name of [
      ...CATALOGUE.map((g) => g.box.name),
      ...DEMO_RIGS.flatMap((r) => all(r.make(), 'device').map((d) => d.name)),
      'x'.repeat(60),
      '🎸 שלום Nine-piece orchestra',
    ]) {
      const lines = nameLines(name, 13);
      expect(lines.length).toBeLessThanOrEqual(2);
      expect(lines.every((l) => l !== undefined && l.length > 0 && l.length <= 13)).toBe(true);
      expect(name.startsWith(lines[0]!.replace('…', ''))).toBe(true);
    }
  });
  test('broken at a space', () =>
    expect(nameLines('Two-channel valve head', 13)).toEqual(['Two-channel', 'valve head']));
});

describe('two runs lined up', () => {
  const box = (d: string): Item => ({ is: 'box', device: `device:${d}`, stages: [] });
  const loop: Item = { is: 'loop', device: 'device:s', insert: 'loop1', on: true, inside: [box('d')] };
  const off: Item = { is: 'loop', device: 'device:s', insert: 'loop1', on: false, holds: ['device:d'] };
  const end: Item = { is: 'end', end: 'device:c.air', name: 'Stage', by: [], sides: ['mono'] };
  test('what both have stands above each other, whatever stands between', () => {
    const [a, b] = [
      [box('g'), loop, undefined, box('h'), end],
      [box('g'), off, box('x'), box('h'), end],
    ];
    const columns = sharedColumns(a, b);
    const x = (run: readonly (Item | undefined)[], device: string) =>
      layRun(run, { columns }).tags.find((t) => t.device === `device:${device}`)!.x;
    expect(x(a, 'h')).toBe(x(b, 'h'));
    expect(x(a, 'g')).toBe(x(b, 'g'));
    expect(layRun(a, { columns }).box.width).toBe(layRun(b, { columns }).box.width);
  });
  test('a place without a box is bare wire, and none hangs behind the last thing that is there', () => {
    const wires = layRun([box('g'), undefined, box('h'), end, undefined], {
      columns: sharedColumns([box('g'), box('x'), box('h'), end, box('z')], []),
    }).wires.join(' ');
    expect(wires).toContain('h69');
    const last = layRun([box('g'), undefined], { columns: [69, 69] });
    expect(last.wires).toEqual(['M0 0h69']);
  });
});
