import { line } from '../../testing/run-line.js';
import { SMALL, smallRig, type SmallRig } from '../../testing/small-rig.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import type { Device } from '../rig/device.js';
import { partOf, type Part } from '../rig/rig.js';
import { ringsOf } from './graph/trace.js';
import { wire } from './graph/wiring.js';

/**
 * Ways in which touring players wire their rigs (common practice), each with the path of every sound as one would
 * write it down by hand.
 */
interface Topology extends Omit<SmallRig, 'sounds'> {
  readonly name: string;
  /** By sound: the stages that are in, and the expected path. */
  readonly sounds: Readonly<Record<string, readonly [stages: readonly string[], path: string]>>;
}

const changeBox =
  (id: string, change: (d: Device) => Device) =>
  (part: Part): Part =>
    part.kind === 'device' && part.id === `device:${id}` ? change(part) : part;
const derived = (t: Topology): Derived =>
  deriveOnce(
    smallRig({ ...t, sounds: Object.fromEntries(Object.entries(t.sounds).map(([name, [stages]]) => [name, stages])) }),
    SMALL,
  )!;

const HOUSE = 'Front of house';

const TOPOLOGIES: readonly Topology[] = [
  {
    name: 'an eight-loop switcher with a volume pedal in its insert and one stereo box in two loops, before and after the gain',
    boxes: {
      g: 'single-coil',
      s: 'switcher-8-insert',
      d: 'low-drive',
      m: 'stereo-modulation',
      v: 'volume',
      h: 'valve-head',
      c: 'cab-212',
    },
    leads: [
      'g.out>s.in',
      's.send1>d.in',
      'd.out>s.return1',
      's.send2>m.in-l',
      'm.out-l>s.return2',
      's.insert-send>v.in',
      'v.out>s.insert-return',
      's.send5>h.in',
      'h.send>s.return5',
      's.send6>m.in-r',
      'm.out-r>s.return6',
      's.out>h.return',
      'h.speaker>c.in',
    ],
    // Each side works on its own: the left one before the gain, the right one after it.
    with: changeBox('m', (d) => ({
      ...d,
      chains: (['l', 'r'] as const).map((side) => ({
        id: side,
        from: [{ at: `in-${side}` }],
        slots: [
          {
            is: 'block',
            id: side === 'l' ? 'before' : 'after',
            stage: 'modulation',
            on: [{ control: 'on', in: ['on'] }],
          },
        ],
        to: [{ at: `out-${side}` }],
      })),
    })),
    sounds: {
      Before: [['d.overdrive', 'm.before', 'h.clean'], 'g (d) (m) // // (v) (h) /m/ // // h c →Stage:mono'],
      After: [['d.overdrive', 'm.after', 'h.lead'], 'g (d) /m/ // // (v) (h) (m) // // h c →Stage:mono'],
      Both: [['m.before', 'm.after', 'h.clean'], 'g /d/ (m) // // (v) (h) (m) // // h c →Stage:mono'],
      Plain: [['h.clean'], 'g /d/ /m/ // // (v) (h) /m/ // // h c →Stage:mono'],
    },
  },
  {
    name: 'four cables through a modeller',
    boxes: { g: 'single-coil', m: 'modeller', h: 'valve-head', c: 'cab-212' },
    leads: ['g.out>m.in', 'm.send>h.in', 'h.send>m.return', 'm.out-l>h.return', 'h.speaker>c.in'],
    sounds: {
      Clean: [['h.clean', 'm.delay'], 'g [m] (h) [m] h c →Stage:mono'],
      Lead: [['m.drive', 'h.lead', 'm.delay', 'm.reverb'], 'g m (h) [m] h c →Stage:mono'],
    },
  },
  {
    name: 'a preamp pedal with modulation in its loop, cabinet simulation on the XLR only',
    boxes: { g: 'single-coil', p: 'preamp-loop', k: 'chorus', w: 'powered-speaker', foh: 'desk' },
    leads: ['g.out>p.in', 'p.send>k.in', 'k.out>p.return', 'p.out>w.in', 'p.xlr>foh.ch1'],
    hears: [
      { from: 'the instrument in hand', at: 'device:foh.#house', as: 'sounds' },
      { from: 'the instrument in hand', at: 'device:w.#stage', as: 'sounds' },
    ],
    sounds: {
      Wide: [['p.preamp', 'k.modulation'], `g p (k) {w →Full-range speaker:mono | p →${HOUSE}:mono}…`],
      Dry: [['p.preamp'], `g p ([k]) {w →Full-range speaker:mono | p →${HOUSE}:mono}…`],
    },
  },
  {
    name: 'a bass split by frequency, fuzz and preamp above, compressor below, joined again in the splitter',
    boxes: {
      b: 'bass',
      x: 'splitter-frequency',
      k: 'bass-compressor',
      f: 'bass-fuzz',
      p: 'bass-preamp-di',
      i: 'di',
      foh: 'desk',
    },
    leads: [
      'b.out>x.in',
      'x.low-send>k.in',
      'k.out>x.low-return',
      'x.high-send>f.in',
      'f.out>p.in',
      'p.out>x.high-return',
      'x.out>i.in',
      'i.out>foh.ch1',
    ],
    sounds: {
      Drive: [['k.compressor', 'f.fuzz', 'p.preamp'], `b x {(k) | (f p)} i →${HOUSE}:mono`],
      Clean: [['k.compressor'], `b x {(k) | ([f] [p])} i →${HOUSE}:mono`],
    },
  },
  {
    name: 'the same, with the XLR of the high arm on a desk channel of its own',
    boxes: {
      b: 'bass',
      x: 'splitter-frequency',
      k: 'bass-compressor',
      f: 'bass-fuzz',
      p: 'bass-preamp-di',
      i: 'di',
      foh: 'desk',
    },
    leads: [
      'b.out>x.in',
      'x.low-send>k.in',
      'k.out>x.low-return',
      'x.high-send>f.in',
      'f.out>p.in',
      'p.xlr>foh.ch2',
      'x.out>i.in',
      'i.out>foh.ch1',
    ],
    sounds: { Drive: [['k.compressor', 'f.fuzz', 'p.preamp', 'p.cabinet'], `b x {(k) i | f p} →${HOUSE}:mono`] },
  },
  {
    name: 'a band generator and a multi-effect that feed each other: one sound goes back in mono, one leaves straight for the desk in stereo',
    boxes: { g: 'single-coil', n: 'band-generator', m: 'modeller-two-loops', foh: 'desk' },
    leads: [
      'g.out>n.in',
      'n.send>m.in',
      'm.out-l>n.return',
      'n.out-l>foh.ch1',
      'n.out-r>foh.ch2',
      'm.xlr-l>foh.ch3',
      'm.xlr-r>foh.ch4',
    ],
    with: changeBox('m', (d) => ({
      ...d,
      controls: [
        ...d.controls,
        { id: 'route', domain: { values: ['back', 'straight'] }, powerUp: 'left', use: 'sound' },
      ],
      actuators: [
        ...d.actuators,
        {
          id: 'route',
          by: { midi: 'cc', number: 99 },
          acts: [
            {
              control: 'route',
              map: [
                [0, 63, 'back'],
                [64, 127, 'straight'],
              ],
            },
          ],
        },
      ],
      chains: d.chains.map((c) =>
        c.id === 'path'
          ? {
              ...c,
              to: c.to.map((t) => ({
                ...t,
                when: [...(t.when ?? []), { control: 'route', in: [t.at.startsWith('xlr') ? 'straight' : 'back'] }],
              })),
            }
          : c,
      ),
    })),
    sounds: {
      Mono: [['m.amp-a', 'm.cab-a', 'm.delay', 'm.route=back'], `g ([m]) ═→${HOUSE}:mono`],
      Stereo: [['m.amp-a', 'm.cab-a', 'm.delay', 'm.route=straight'], `g n [m]< ═→${HOUSE}:left+right`],
    },
  },
  {
    name: 'wet and dry from a tap on the speaker line, the wet side with a stereo reverb and power amps of its own',
    boxes: {
      g: 'single-coil',
      h: 'valve-head',
      l: 'line-out',
      c: 'cab-212',
      r: 'stereo-reverb',
      w: 'stereo-return-amp',
    },
    leads: ['g.out>h.in', 'h.speaker>l.in', 'l.through>c.in', 'l.line>r.in-l', 'r.out-l>w.in-l', 'r.out-r>w.in-r'],
    sounds: {
      Big: [['h.lead', 'r.reverb'], 'g h l {c →Stage:mono | l r< ═w {→Wet left:left | →Wet right:right}…}…'],
      Dry: [['h.clean'], 'g h l {c →Stage:mono | l [r] ═w {→Wet left:mono | →Wet right:mono}…}…'],
    },
  },
  {
    name: 'a multi-effect whose two loops each hold a small switcher, the second as a test loop',
    boxes: {
      g: 'single-coil',
      m: 'multi-two-loops',
      a: 'switcher-4',
      d: 'low-drive',
      t: 'switcher-4',
      k: 'chorus',
      i: 'di',
      foh: 'desk',
    },
    leads: [
      'g.out>m.in',
      'm.send1>a.in',
      'a.send1>d.in',
      'd.out>a.return1',
      'a.out>m.return1',
      'm.send2>t.in',
      't.send1>k.in',
      'k.out>t.return1',
      't.out>m.return2',
      'm.out-l>i.in',
      'i.out>foh.ch1',
    ],
    sounds: {
      Drive: [['d.overdrive'], `g [m] ((d) // // //) /k/ [m] i →${HOUSE}:mono`],
      Test: [['k.modulation', 'm.delay'], `g [m] /d/ ((k) // // //) [m] i →${HOUSE}:mono`],
      Both: [['d.overdrive', 'k.modulation'], `g [m] ((d) // // //) ((k) // // //) [m] i →${HOUSE}:mono`],
    },
  },
  {
    name: "a looper station in the amp's loop, percussion on its second input, four channels at the desk",
    boxes: {
      g: 'single-coil',
      p: 'percussion',
      v: 'microphone',
      h: 'valve-head',
      l: 'looper-station',
      c: 'cab-212',
      m: 'cab-mic',
      i: 'di',
      j: 'di',
      foh: 'desk',
    },
    leads: [
      'g.out>h.in',
      'h.send>l.in1',
      'l.main-l>h.return',
      'h.speaker>c.in',
      'c.air>m.air',
      'm.out>foh.ch1',
      'p.out>l.in2',
      'l.sub>i.in',
      'i.out>foh.ch2',
      'v.out>foh.ch3',
      'l.main-r>j.in',
      'j.out>foh.ch4',
    ],
    settings: { 'l.out2': 'sub' },
    sounds: { Solo: [['h.clean'], `g h l {h c →Stage:mono m →${HOUSE}:mono | j →${HOUSE}:mono}…`] },
  },
  {
    name: 'two guitars on an A/B selector',
    boxes: { g: 'single-coil', k: 'humbucker', s: 'ab-in', h: 'valve-head', c: 'cab-212' },
    leads: ['g.out>s.a', 'k.out>s.b', 's.out>h.in', 'h.speaker>c.in'],
    with: (part) =>
      part.kind === 'sound' && part.name === 'Humbucker'
        ? { ...part, hears: [{ from: 'device:k.out', at: 'device:c.air', as: 'sounds' }] }
        : part,
    sounds: { Single: [['h.clean'], 'g s h c →Stage:mono'], Humbucker: [['h.lead'], 'k s h c →Stage:mono'] },
  },
  {
    name: 'one bass into two DI boxes, one clean and one driven',
    boxes: { b: 'bass', s: 'ab-out', d: 'bass-drive', i: 'di', j: 'di', foh: 'desk' },
    leads: ['b.out>s.in', 's.a>i.in', 's.b>d.in', 'd.out>j.in', 'i.out>foh.ch1', 'j.out>foh.ch2'],
    sounds: {
      Clean: [['s.select=a'], `b s i →${HOUSE}:mono`],
      Driven: [['s.select=b', 'd.drive'], `b s d { | d} j →${HOUSE}:mono`],
      Both: [['s.select=both', 'd.drive'], `b s {i | d { | d} j} →${HOUSE}:mono`],
    },
  },
  {
    name: 'three amps, each with its own cabinet',
    boxes: {
      g: 'single-coil',
      s: 'abc-out',
      x: 'plain-amp',
      y: 'one-channel-amp',
      z: 'valve-head',
      a: 'cab-112',
      b: 'cab-212',
      c: 'cab-412',
    },
    leads: ['g.out>s.in', 's.a>x.in', 's.b>y.in', 's.c>z.in', 'x.speaker>a.in', 'y.speaker>b.in', 'z.speaker>c.in'],
    hears: (['a', 'b', 'c'] as const).map((cab) => ({
      from: 'the instrument in hand' as const,
      at: `device:${cab}.air` as const,
      as: 'either' as const,
    })),
    sounds: {
      First: [['s.select=a'], 'g s x a →Stage:mono'],
      Third: [['s.select=c', 'z.lead'], 'g s z c →Stage:mono'],
      All: [['s.select=all', 'z.clean'], 'g s {x a →Stage:mono | y b →Stage:mono | z c →Stage:mono}…'],
    },
  },
  {
    name: 'everything over a multicore that also carries the supply',
    boxes: { g: 'single-coil', u: 'multicore', d: 'analog-delay', h: 'valve-head', c: 'cab-212', p: 'supply' },
    leads: [
      'g.out>u.in1',
      'u.out1>h.in',
      'h.send>u.in2',
      'u.out2>d.in',
      'd.out>u.in3',
      'u.out3>h.return',
      'h.speaker>c.in',
      'p.out1>u.supply-in1',
      'u.supply-out1>d.dc',
    ],
    sounds: {
      Clean: [['h.clean', 'd.delay'], 'g u h u d u h c →Stage:mono'],
      Dry: [['h.lead'], 'g u h u [d] u h c →Stage:mono'],
    },
  },
];

describe.each(TOPOLOGIES.map((t) => [t.name, t] as const))('%s', (_, topology) => {
  const d = derived(topology);
  test.each(Object.entries(topology.sounds).map(([name, [, path]]) => [name, path]))('%s: %s', (name, path) => {
    const sound = [...d.rig.parts.sound.values()].find((s) => s.name === name)!;
    const compiled = d.compilation.sounds.get(sound.id)!;
    expect(line(soundRun(d, sound.id))).toBe(path);
    expect(compiled.problems).toEqual([]);
    expect(ringsOf(compiled.trace)).toEqual([]);
  });
  test('nothing dangerous or broken is found in it', () => {
    expect(d.judgement.faults).toEqual([]);
    expect(
      d.judgement.findings
        .filter((f) => f.severity === 'danger' || (f.severity === 'broken' && !f.code.startsWith('recall.')))
        .map((f) => f.why),
    ).toEqual([]);
  });
});

test('the supply comes over the multicore to the box', () => {
  const d = derived(TOPOLOGIES.at(-1)!);
  const w = wire(d.rig, d.hookup, 'power');
  const seen = new Set([w.at.get('device:p.out1')!]);
  for (const point of seen) for (const e of w.out[point]!) seen.add(w.edges[e]!.to);
  expect(seen.has(w.at.get('device:d.dc')!)).toBe(true);
});

test('percussion on the second input of the looper has its own channel, and is in no amp', () => {
  const d = derived(TOPOLOGIES.find((t) => t.name.startsWith('a looper station'))!);
  const percussion = {
    ...d.rig.parts.sound.get('sound:solo')!,
    hears: [{ from: 'device:p.out', at: 'device:foh.#house', as: 'sounds' }],
  } as const;
  const rig = smallRig({
    ...TOPOLOGIES.find((t) => t.name.startsWith('a looper station'))!,
    sounds: { Solo: ['h.clean'] },
    with: (p) => (p.id === 'sound:solo' ? percussion : p),
  });
  const now = deriveOnce(rig, SMALL)!;
  expect(line(soundRun(now, 'sound:solo'))).toBe(`p l i →${HOUSE}:mono`);
  expect(partOf(rig, 'device:l')!.controls.find((c) => c.id === 'out2')!.use).toBe('setting');
});
