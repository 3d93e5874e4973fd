import { often } from '@yunta/core/testing/often';
import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import type { Hookup } from '@yunta/core/rig/hookup';
import { all, type Rig } from '@yunta/core/rig/rig';
import { anatomy } from '@yunta/core/signal/graph/anatomy';
import { mapOf, type RoutingMap } from '@yunta/core/signal/drawing/map';
import { giantRig } from '@yunta/core/testing/giant-rig';
import { Random } from '@yunta/core/testing/random';
import { randomRig } from '@yunta/core/testing/random-rig';
import { randomWiring } from '@yunta/core/testing/random-wiring';
import ELK from 'elkjs/lib/elk.bundled.js';
import { layMap, type LaidMap } from './map-layout.js';
import type { LaidBox } from './map-parts.js';

const elk = new ELK();
const mapFor = (rig: Rig, hookup: Hookup): RoutingMap => mapOf(rig, anatomy(rig, hookup));

const overlaps = (boxes: readonly LaidBox[]): readonly string[] =>
  boxes.flatMap((a, i) =>
    boxes
      .slice(i + 1)
      .filter((b) => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height)
      .map((b) => `${a.box.code} and ${b.box.code}`),
  );

/** Cables whose line does not begin in one of their jacks and end in the other. */
const astray = ({ boxes, cables }: LaidMap): readonly string[] => {
  const at = new Map(boxes.flatMap((b) => b.jacks.map((j) => [j.jack.ref, [b.x + j.x, b.y + j.y]] as const)));
  return cables.flatMap(({ cable, d }) => {
    const numbers = d.match(/-?\d+(\.\d+)?/g)!.map(Number);
    const ends = [numbers.slice(0, 2), numbers.slice(-2)];
    const near = (p: readonly number[], q: readonly number[] | undefined) =>
      q !== undefined && Math.abs(p[0]! - q[0]!) < 0.6 && Math.abs(p[1]! - q[1]!) < 0.6;
    const [from, to] = [at.get(cable.from), at.get(cable.to)];
    return (near(ends[0]!, from) && near(ends[1]!, to)) || (near(ends[0]!, to) && near(ends[1]!, from))
      ? []
      : [`${cable.from} to ${cable.to}: ${d}`];
  });
};

const whole = (map: RoutingMap, laid: LaidMap): void => {
  expect(overlaps(laid.boxes)).toEqual([]);
  expect(astray(laid)).toEqual([]);
  expect(laid.boxes.map((b) => b.box.device).sort()).toEqual(map.boxes.map((b) => b.device).sort());
  expect(laid.cables.map((c) => c.cable.cable).sort()).toEqual(map.cables.map((c) => c.cable).sort());
};

describe.each(
  DEMO_RIGS.flatMap(({ id, make }) => all(make(), 'hookup').map((h) => [`${id}, ${h.name}`, make(), h] as const)),
)('%s', (_, rig, hookup) => {
  test('every box is there once and stands free, every cable goes from jack to jack', async () => {
    const map = mapFor(rig, hookup);
    whole(map, await layMap(map, elk));
  });
});

describe('the map of the demo in the ballroom', () => {
  const rig = DEMO_RIGS[0]!.make();
  const derived = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
  const map = mapOf(rig, derived.anatomy);
  const place = (laid: LaidMap, device: string) => laid.boxes.find((b) => b.box.device === `device:${device}`)!;

  test('what stands in loops hangs below the switcher, in the order of its loops; the amp does not', async () => {
    const laid = await layMap(map, elk);
    const swi = place(laid, 'swi');
    const hung = ['cmp', 'ofz', 'low', 'hig', 'gat', 'mod', 'rev'].map((d) => place(laid, d));
    expect(hung.every((b) => b.y > swi.y + swi.height && b.x > swi.x && b.x + b.width < swi.x + swi.width)).toBe(true);
    expect(hung.map((b) => b.x)).toEqual([...hung.map((b) => b.x)].sort((a, b) => a - b));
    expect(place(laid, 'hed').box.host).toBeUndefined();
    expect(laid.zones.map((z) => z.name)).toEqual(
      expect.arrayContaining(['Hands', 'Floor', 'Amp', 'Outputs', 'Not in the signal path']),
    );
  });

  test('the same wiring is always laid out alike', async () =>
    expect(await layMap(map, elk)).toEqual(await layMap(map, elk)));

  test('jacks in use are drawn, and free ones of the signal while they are few', async () => {
    const laid = await layMap(map, elk);
    const ids = (d: string) => place(laid, d).jacks.map((j) => j.jack.id);
    expect(ids('foh')).not.toContain('ch5');
    expect(ids('pre')).toContain('in');
    expect(ids('swi')).toEqual(expect.arrayContaining(['in', 'out', 'send1', 'return8', 'midi-out']));
  });
});

describe('laws of the layout', () => {
  test('the largest rig: nothing overlaps, all is drawn, in a shape that a screen can hold', async () => {
    const { rig, hookup } = giantRig(1);
    const map = mapFor(rig, hookup);
    const laid = await layMap(map, elk);
    whole(map, laid);
    expect(laid.width).toBeLessThan(2000);
  });

  test.each(Array.from({ length: often(20) }, (_, seed) => seed))(
    'a rig that somebody could own, number %i: nothing overlaps, all is drawn',
    async (seed) => {
      const { rig, hookup } = randomRig(seed, { pedals: [0, 9], midi: [0, 4], sounds: [1, 2], moves: [0, 0] });
      const map = mapFor(rig, hookup);
      whole(map, await layMap(map, elk));
    },
  );

  test.each(Array.from({ length: often(20) }, (_, seed) => seed))(
    'boxes wired without any sense, number %i: nothing overlaps, all is drawn',
    async (seed) => {
      const { rig, hookup } = randomWiring(new Random(seed));
      const map = mapFor(rig, hookup);
      whole(map, await layMap(map, elk));
    },
  );

  test('an empty rig has an empty map', async () => {
    const laid = await layMap({ boxes: [], cables: [] }, elk);
    expect(laid).toMatchObject({ boxes: [], cables: [], zones: [] });
  });
});
