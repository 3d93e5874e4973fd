import { CATALOGUE } from '../src/catalogue/boxes.js';
import { makeDevice } from '../src/catalogue/make.js';
import { audioIn, audioOut, block, choice } from '../src/catalogue/parts.js';
import type { Arm, Chain, Device, Insert, Slot, Tap } from '../src/rig/device.js';
import type { Cable, Hookup } from '../src/rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../src/rig/ids.js';
import { ABOUT, all, rigOf, type Rig } from '../src/rig/rig.js';
import type { When } from '../src/rig/value.js';
import { restingState, type RigState } from '../src/signal/graph/state.js';
import type { Random } from './random.js';

const CHAINS = 2;

/** A box such as nobody builds: forks in forks, inserts of every kind, normals, gates, legs taken at will. */
const oddBox = (r: Random, id: Id<'device'>): Device => {
  const controls = ['k0', 'k1', 'k2', 'k3'];
  const jacks = [
    ...Array.from({ length: r.int(1, 3) }, (_, i) => audioIn(`in${i}`)),
    ...Array.from({ length: r.int(1, 3) }, (_, i) => audioOut(`out${i}`)),
  ];
  const ins = jacks.filter((j) => j.poles.tip === 'in').map((j) => j.id);
  const outs = jacks.filter((j) => j.poles.tip === 'out').map((j) => j.id);
  const extra = [audioOut('send'), audioIn('return'), audioOut('send2'), audioIn('return2')];
  let next = 0;
  const name = (of: string) => `${of}${(next += 1)}`;
  const gate = (): When =>
    r.chance(60)
      ? [{ control: r.pick(controls), in: [r.pick(['off', 'on'])] }]
      : [{ jack: r.pick([...ins, ...outs, 'return']), plugged: r.chance(50) }];
  const maybe = (percent: number): { when?: When } => (r.chance(percent) ? { when: gate() } : {});
  const leg = (): Pick<Tap, 'leg'> => (r.chance(35) ? { leg: r.pick(['left', 'right'] as const) } : {});
  const tap = (at: string): Tap => ({ at, ...leg(), ...maybe(25) });
  const insert = (n: 1 | 2): Insert => ({
    is: 'insert',
    id: name('i'),
    send: [{ at: n === 1 ? 'send' : 'send2', ...leg() }],
    return: [{ at: n === 1 ? 'return' : 'return2', ...leg() }],
    unpatched: r.pick(['through', 'broken'] as const),
    ...(r.chance(70) ? { on: gate().filter((f) => 'control' in f) } : {}),
    ...(r.chance(30) ? { direct: r.chance(50) ? true : gate() } : {}),
    ...(r.chance(50) ? { off: r.pick(['both', 'send', 'return', { sendOnlyWhen: gate() }] as const) } : {}),
    ...(r.chance(50) ? { breaks: r.pick(['return', 'send', 'either'] as const) } : {}),
  });
  const inserts: (1 | 2)[] = [1, 2];
  const slot = (depth: number): Slot => {
    if (depth < 2 && r.chance(25)) {
      return {
        is: 'fork',
        id: name('f'),
        arms: Array.from({ length: r.int(2, 3) }, (): Arm => ({
          id: name('a'),
          slots: Array.from({ length: r.int(0, 2) }, () => slot(depth + 1)),
          ...maybe(30),
          ...leg(),
        })),
      };
    }
    const free = r.chance(35) ? inserts.shift() : undefined;
    if (free) return insert(free);
    return block(name('b'), 'boost', {
      ...(r.chance(50) ? { on: gate().filter((f) => 'control' in f) } : {}),
      ...(r.chance(15) ? { mutes: gate() } : {}),
      width: r.pick(['mono', 'each', 'spread', 'sum'] as const),
    });
  };
  const bus = (list: readonly string[]) => (r.chance(15) ? '#bus' : r.pick(list));
  const chains = Array.from({ length: r.int(1, CHAINS) }, (_, i): Chain => ({
    id: `c${i}`,
    from: Array.from({ length: r.int(1, 2) }, () => tap(bus(ins))),
    slots: Array.from({ length: r.int(0, 3) }, () => slot(0)),
    to: Array.from({ length: r.int(1, 2) }, () => tap(bus(outs))),
    ...maybe(20),
  }));
  return {
    kind: 'device',
    id,
    code: 'ODD',
    name: 'Odd box',
    zone: 'floor',
    jacks: [...jacks, ...extra],
    chains,
    controls: controls.map((c) => choice(c, ['off', 'on'])),
    actuators: [],
    memories: [],
    figures: { origin: 'assumed' },
  };
};

export interface RandomWiring {
  readonly rig: Rig;
  readonly hookup: Hookup;
  readonly state: RigState;
}

/**
 * Boxes from every shelf and odd ones, wired at random between jacks of a kind, in a random state: nothing that a sane
 * person would do, so that nothing is taken for granted. In a row, most cables lead to the next box, jack by jack, as
 * sides do.
 */
export const randomWiring = (
  r: Random,
  [fewest, most]: readonly [number, number] = [4, 12],
  isInRow = false,
): RandomWiring => {
  const id = (i: number): Id<'device'> => `device:d${i}`;
  const signal = CATALOGUE.filter((g) => g.box.jacks.some((j) => j.kind === 'audio'));
  const sided = signal.filter((g) => g.box.chains.some((c) => c.from.some((t) => t.leg) && c.to.some((t) => t.leg)));
  const devices = [
    makeDevice('single-coil', id(0)),
    makeDevice('desk', id(1)),
    ...Array.from({ length: r.int(fewest, most) }, (_, i) =>
      r.chance(isInRow ? 15 : 45)
        ? oddBox(r, id(i + 2))
        : makeDevice(r.pick(isInRow && r.chance(95) ? sided : signal).key, id(i + 2)),
    ),
  ];
  const hookup: Hookup = { kind: 'hookup', id: 'hookup:main', name: 'Main', settings: {}, hears: [], assumes: [] };
  /** From the instrument through every box to the desk. */
  const row = [devices[0]!, ...devices.slice(2), devices[1]!].map((d) => d.id);
  const following = (device: Id<'device'>): Id<'device'> | undefined => row[row.indexOf(device) + 1];
  const jacks = devices.flatMap((d) =>
    d.jacks.filter((j) => ['audio', 'air', 'midi'].includes(j.kind)).map((jack) => ({ r: ref(d.id, jack.id), jack })),
  );
  const free = new Set<Ref>(jacks.filter((j) => j.jack.poles.tip === 'in').map((j) => j.r));
  const cables = jacks
    .filter((j) => j.jack.poles.tip === 'out' && r.chance(75))
    .flatMap(({ r: from, jack }, i): Cable[] => {
      const fitting = jacks.filter((j) => free.has(j.r) && j.jack.kind === jack.kind);
      if (fitting.length === 0) return [];
      const next =
        isInRow && r.chance(95)
          ? fitting.find((f) => splitRef(f.r).device === following(splitRef(from).device))
          : undefined;
      const to = (next ?? r.pick(fitting)).r;
      free.delete(to);
      return [{ kind: 'cable', id: `cable:c${i}`, hookup: hookup.id, ends: [from, to] }];
    });
  const rig = rigOf([
    { kind: 'about', id: ABOUT, name: 'Random wiring', notes: '' },
    ...devices.map((d, i) => ({ ...d, at: i + 1 })),
    hookup,
    ...cables,
  ]);
  const state = restingState(rig, hookup);
  for (const device of all(rig, 'device')) {
    for (const { id: control, domain } of device.controls) {
      if ('values' in domain && domain.values.length && r.chance(60))
        state.set(ref(device.id, control), r.pick(domain.values));
      if ('arrange' in domain && r.chance(60))
        state.set(ref(device.id, control), [...domain.arrange].sort(() => (r.chance(50) ? 1 : -1)).join(' '));
    }
  }
  return { rig, hookup, state };
};
