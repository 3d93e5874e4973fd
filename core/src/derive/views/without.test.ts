import { line } from '../../../testing/run-line.js';
import { often } from '../../../testing/often.js';
import { randomRig } from '../../../testing/random-rig.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { apply } from '../../change/apply.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { bridged } from '../../edits/place.js';
import { all } from '../../rig/rig.js';
import { onlyThrough } from '../../signal/graph/only-through.js';
import type { Trace } from '../../signal/graph/trace.js';
import { deriveOnce } from '../steps/deriver.js';
import { soundRun, soundTrace } from './view.js';
import { boxUse, dryPath, withAndWithout } from './without.js';

const two = smallRig({
  boxes: {
    b: 'bass',
    s: 'splitter',
    d: 'distortion',
    c: 'chorus',
    l: 'di',
    r: 'di',
    f: 'desk',
  },
  leads: ['b.out>s.in', 's.out1>d.in', 'd.out>c.in', 'c.out>l.in', 'l.out>f.ch1', 's.out2>r.in', 'r.out>f.ch2'],
  sounds: { Dirty: ['d.distortion', 'c.modulation'], Plain: [] },
});
describe('a sound with a box and without it', () => {
  const d = deriveOnce(two, SMALL)!;
  const shown = (items: readonly unknown[]) => line(items.filter(Boolean) as Parameters<typeof line>[0]);
  test('without it its neighbours are joined', () => {
    const { runs, brings } = withAndWithout(d, 'sound:dirty', 'device:d', 'without')!;
    expect(shown(runs.a)).toContain('d');
    expect(shown(runs.b)).not.toMatch(/\bd\b/);
    expect(shown(runs.b)).toMatch(/\bc\b/);
    expect(brings!.refused).toBeUndefined();
  });
  test('how loud each end is then', () => {
    const [house] = withAndWithout(d, 'sound:dirty', 'device:d', 'without')!.levels;
    // Matched by ear, a distortion is about as loud as what goes into it.
    expect(Math.abs(house!.db!)).toBeLessThan(3);
    expect(withAndWithout(d, 'sound:dirty', 'device:b', 'without')!.levels).toHaveLength(1);
    expect(withAndWithout(d, 'sound:plain', 'device:s', 'only')!.levels.map((l) => l.db)).toEqual([0]);
  });
  test('only through it: the other side is gone', () => {
    const only = onlyThrough(soundTrace(d, 'sound:dirty'), 'device:c');
    expect([...only.stages].filter(([, is]) => is === 'in').map(([s]) => s)).toEqual(
      expect.arrayContaining(['device:d.distortion', 'device:c.modulation']),
    );
    expect(only.wiring.points.some((p, i) => p.device === 'device:r' && only.onPath[i])).toBe(false);
  });
  test('who uses it, and what follows', () => {
    expect(boxUse(d, 'device:d')).toMatchObject({ sounds: ['Dirty'], of: 2, songs: [], says: 'One sound only.' });
    // A splitter, a bass, a controller make no sound: that no sound "uses" them would be untrue.
    for (const id of ['device:s', 'device:b'] as const) expect(boxUse(d, id)).toBeUndefined();
    const demo = deriveOnce(islandRun(), BALLROOM_ID)!;
    expect(boxUse(demo, 'device:cmp')!.songs.length).toBeGreaterThan(1);
  });
  test('the direct sound: analogue until a box turns it into numbers', () => {
    expect(dryPath(d, 'sound:plain').says).toBe('It stays analogue, as far as is said.');
    expect(dryPath(d, 'sound:plain').unsaid).toEqual(['C']);
    const converted = smallRig({
      boxes: { g: 'single-coil', m: 'modeller', n: 'amp-modeller', f: 'desk' },
      leads: ['g.out>m.in', 'm.out-l>n.in', 'n.out-l>f.ch1'],
      sounds: { One: [] },
    });
    expect(dryPath(deriveOnce(converted, SMALL)!, 'sound:one').says).toBe(
      'It is turned into numbers and back twice: M, N.',
    );
  });
});

/** Everything that lies on some way through the box, found place by place over the edges that are active. */
const onSomeWay = ({ wiring, active, onPath }: Trace, device: string): ReadonlySet<number> => {
  const own = wiring.points.flatMap((p, i) => (p.device === device && onPath[i] ? [i] : []));
  const walk = (next: (p: number) => readonly number[]): ReadonlySet<number> => {
    const seen = new Set(own);
    for (const p of seen) for (const q of next(p)) if (onPath[q]) seen.add(q);
    return seen;
  };
  const edges = wiring.edges.map((_, e) => e).filter((e) => active[e]);
  const ahead = walk((p) => edges.filter((e) => wiring.from[e] === p).map((e) => wiring.to[e]!));
  const behind = walk((p) => edges.filter((e) => wiring.to[e] === p).map((e) => wiring.from[e]!));
  return new Set([...ahead, ...behind]);
};

test('on random rigs: only through a box is every way that passes it; without it nothing passes it and nothing is refused', () => {
  let looked = 0;
  for (let seed = 1; seed <= often(25); seed += 1) {
    const { rig, hookup } = randomRig(seed);
    const d = deriveOnce(rig, hookup.id)!;
    const [sound] = all(rig, 'sound');
    const t = soundTrace(d, sound?.id);
    const boxes = [...new Set(t.wiring.points.flatMap((p, i) => (t.onPath[i] ? [p.device] : [])))];
    for (const device of boxes) {
      const only = onlyThrough(t, device);
      const kept = [...only.onPath].flatMap((on, i) => (on ? [i] : []));
      expect([seed, device, kept]).toEqual([seed, device, [...onSomeWay(t, device)].sort((a, b) => a - b)]);
      let n = 0;
      const gone = apply(
        rig,
        bridged(rig, hookup.id, device, () => `cable:x${(n += 1)}`),
      );
      expect([seed, device, gone.ok]).toEqual([seed, device, true]);
      looked += 1;
    }
    expect(soundRun(d, sound?.id)).toBeDefined();
  }
  expect(looked).toBeGreaterThan(60);
});
