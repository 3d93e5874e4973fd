import type { Message } from '../src/rig/act.js';
import type { Actuator, Control, Device, Jack, Memory } from '../src/rig/device.js';
import type { Value } from '../src/rig/value.js';
import { type Random } from './random.js';

export const [DELAY_ON, MIX, MODE, FLIP, SWAP, BANKISH] = [102, 20, 21, 50, 51, 32];
export const SWITCHES = ['A', 'B'] as const;

export const audio = (id: string, way: 'in' | 'out'): Jack => ({
  id,
  kind: 'audio',
  connector: '6.35 TS',
  poles: { tip: way },
  level: 'instrument',
});
export const midi = (id: string, way: 'in' | 'out'): Jack => ({
  id,
  kind: 'midi',
  connector: 'DIN-5',
  poles: { tip: way },
});
export const values = (...v: readonly Value[]): Control['domain'] => ({ values: v });
export const amount = (max: number): Control['domain'] => ({ min: 0, max, unit: '' });

/**
 * A board of switches: slots, a relay, switches that slots assign, an expression input; some can be called by another
 * board.
 */
export const board = (r: Random, n: number): Device => {
  const called = r.chance(60);
  const snapshots = r.chance(15);
  const stores = r.chance(70) ? ['ctl1'] : [];
  return {
    kind: 'device',
    id: `device:c${n}`,
    code: `C${n}`,
    name: `Board ${n}`,
    at: 10 + n,
    zone: 'floor',
    jacks: [
      midi('midi-in', 'in'),
      midi('midi-out', 'out'),
      ...(r.chance(30) ? [midi('midi-out-2', 'out')] : []),
      {
        id: 'ctl1',
        kind: 'contact',
        connector: '6.35 TS',
        poles: { tip: 'out' },
        closedWhen: [{ control: 'ctl1', in: ['closed'] }],
      },
      { id: 'exp1', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'in' } },
    ],
    chains: r.chance(75) ? [{ id: 'merge', from: [{ at: 'midi-in' }], slots: [], to: [{ at: 'midi-out' }] }] : [],
    controls: [
      { id: 'slot', domain: amount(3), powerUp: r.pick<Control['powerUp']>([{ at: 0 }, 'left']), use: 'sound' },
      { id: 'bank', domain: values(1, 2), powerUp: { at: 1 }, use: 'play' },
      {
        id: 'ctl1',
        domain: values('open', 'closed'),
        powerUp: r.pick<Control['powerUp']>([stores.length ? 'loaded' : 'left', 'unknown', { at: 'open' }]),
        use: 'sound',
      },
      { id: 'latch-E', domain: values('off', 'on'), powerUp: { at: 'off' }, use: 'sound' },
      { id: 'held-E', domain: values('off', 'on'), powerUp: { at: 'off' }, use: 'sound' },
      ...(snapshots ? [{ id: 'snap', domain: amount(1), powerUp: { at: 0 }, use: 'sound' } satisfies Control] : []),
    ],
    actuators: [
      ...SWITCHES.map((name, plus): Actuator => ({
        id: name,
        by: { foot: name, gesture: 'press' },
        acts: [{ load: 'slots', slot: { bank: 'bank', banks: [1, 2], plus, size: 2 } }],
      })),
      { id: 'up', by: { foot: 'up', gesture: 'press' }, acts: [{ control: 'bank', step: [1, 2] }] },
      { id: 'down', by: { foot: 'down', gesture: 'press' }, acts: [{ control: 'bank', step: [2, 1] }] },
      { id: 'E press', by: { foot: 'E', gesture: 'press' }, acts: [{ follow: 'E', gesture: 'press' }] },
      { id: 'E release', by: { foot: 'E', gesture: 'release' }, acts: [{ follow: 'E', gesture: 'release' }] },
      ...(called
        ? [{ id: 'pcin', by: { midi: 'pc' }, acts: [{ load: 'slots', slot: 'value' }] } satisfies Actuator]
        : []),
      ...(snapshots
        ? [
            {
              id: 'snap',
              by: { foot: 'snap', gesture: 'press' },
              acts: [{ load: 'snaps', slot: 1 }],
            } satisfies Actuator,
          ]
        : []),
    ],
    memories: [
      {
        id: 'slots',
        control: 'slot',
        stores,
        size: 4,
        shows: { first: 1, bank: { size: 2, first: 1, letters: 'AB' } },
        gapMs: r.pick([0, 0, 20]),
        mutesMs: 0,
        again: r.pick(['reloads', 'reloads', 'nothing'] as const),
        by: 'slot',
        switches: SWITCHES,
        bank: { control: 'bank', up: 'up', down: 'down' },
        assignable: [{ switch: 'E', latch: 'latch-E', held: 'held-E' }],
        limits: { clock: true, ...(r.chance(30) ? { waits: false } : {}) },
      },
      ...(snapshots
        ? [
            {
              id: 'snaps',
              control: 'snap',
              stores: [],
              size: 2,
              shows: { first: 1 },
              gapMs: 0,
              mutesMs: 0,
              again: 'reloads',
            } satisfies Memory,
          ]
        : []),
    ],
    ...(called ? { midi: { channel: r.pick([3, 5]), messages: r.pick(['lost', 'queued'] as const) } } : {}),
    figures: { origin: 'assumed' },
  };
};

export const outsOf = (d: Device): readonly string[] =>
  d.jacks.filter((j) => j.kind === 'midi' && j.poles.tip === 'out').map((j) => j.id);

export const message = (r: Random): Message =>
  r.pick<Message>([
    { pc: r.int(0, 4), channel: r.int(3, 5) },
    { pc: r.int(0, 4), channel: r.int(3, 4), bank: r.int(0, 2) },
    { cc: DELAY_ON, value: r.pick([0, 63, 64, 127]), channel: r.int(3, 4) },
    { cc: MIX, value: r.pick([0, 25, 64, 127]), channel: r.int(3, 4) },
    { cc: r.pick([MODE, FLIP, SWAP, 22]), value: r.pick([0, 60, 127]), channel: r.int(3, 4) },
    { cc: r.pick([0, 32]), value: r.int(0, 1), channel: r.int(3, 4) },
  ]);
