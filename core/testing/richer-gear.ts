import { makeDevice } from '../src/catalogue/make.js';
import type { Act } from '../src/rig/act.js';
import type { Actuator, Control, Device } from '../src/rig/device.js';
import type { Cable } from '../src/rig/hookup.js';
import type { Id } from '../src/rig/ids.js';
import { ref } from '../src/rig/ids.js';
import type { Assign, Program, Sweep } from '../src/rig/program.js';
import type { Part } from '../src/rig/rig.js';
import type { Random } from './random.js';

const isBoard = (part: Part): part is Device => part.kind === 'device' && part.memories.some((m) => m.by === 'slot');
const boardsIn = (parts: readonly Part[]): ReadonlySet<Id> => new Set(parts.filter(isBoard).map((d) => d.id));

/** An act of a board on itself or on a wire, such as few boards know. */
const oddAct = (r: Random): Act => {
  const act = r.pick<Act>([
    { control: 'ctl1', toggle: ['open', 'closed'] },
    { control: 'ctl1', step: ['open', 'closed'] },
    { control: 'ctl1', set: r.pick(['open', 'closed']) },
    { pulse: 'ctl1' },
    {
      send: { cc: 102, value: r.pick([0, 127]), channel: r.int(3, 4) },
      at: 'midi-out',
      ...(r.chance(40) ? { afterMs: r.pick([5, 60]) } : {}),
    },
    { send: { pc: r.int(0, 4), channel: r.int(3, 4), ...(r.chance(40) ? { bank: r.int(0, 2) } : {}) }, at: 'midi-out' },
  ]);
  const when = r.pick([
    undefined,
    undefined,
    [{ jack: 'exp1', plugged: r.chance(50) }],
    [{ control: 'slot', from: r.int(0, 1), to: r.int(1, 3) }],
    [{ control: 'ctl1', in: ['closed'] }],
  ]);
  return when ? ({ ...act, when } as Act) : act;
};
const odd = (r: Random, acts: readonly Act[]): readonly Act[] => (r.chance(50) ? [...acts, oddAct(r)] : acts);

const oddProgram = (r: Random, program: Program): Program => {
  const sweep: Sweep | undefined = r.chance(20)
    ? { jack: 'exp1', heel: 0, toe: 10, control: 'depth', ...(r.chance(50) ? { step: 5 } : {}) }
    : undefined;
  return {
    ...program,
    acts: odd(r, program.acts),
    assigns: program.assigns.map((a): Assign => ({ ...a, on: odd(r, a.on), off: odd(r, a.off) })),
    ...(sweep ? { sweeps: [...(program.sweeps ?? []), sweep] } : {}),
  };
};

const oddBoard = (r: Random, board: Device, hasClock: boolean): Device => {
  const more: readonly Actuator[] = [
    ...(r.chance(40)
      ? [{ id: 'ping', by: { foot: 'ping', gesture: 'press' }, acts: [oddAct(r)] } satisfies Actuator]
      : []),
    ...(r.chance(25) ? [{ id: 'wake', by: { power: 'on' }, acts: [oddAct(r)] } satisfies Actuator] : []),
    // Two clocks on one wire at once give no tempo at all.
    ...(!hasClock && board.id === 'device:c0' && !board.midi && r.chance(30)
      ? [
          {
            id: 'beat',
            by: { foot: 'beat', gesture: 'press' },
            acts: [{ send: { bpm: r.pick([90, 120]) }, at: 'midi-out' }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(20) ? [{ id: 'place', by: { position: 'slots' }, acts: [oddAct(r)] } satisfies Actuator] : []),
  ];
  return {
    ...board,
    controls: [
      ...board.controls,
      {
        id: 'depth',
        domain: { min: 0, max: 10, unit: '' },
        powerUp: r.pick<Control['powerUp']>(['left', { at: 0 }]),
        use: 'sound',
      },
    ],
    actuators: [...board.actuators, ...more],
  };
};

/** Two ways from the first board to whatever it is plugged into. */
const twoWays = (parts: readonly Part[]): readonly Part[] => {
  const first = parts.find((p): p is Cable => p.kind === 'cable' && p.ends[0] === 'device:c0.midi-out');
  if (!first) return parts;
  const leads: readonly Cable['ends'][] = [
    ['device:thr.thru1', 'device:mrg.in1'],
    ['device:thr.thru2', 'device:mrg.in2'],
    ['device:mrg.midi-out', first.ends[1]],
  ];
  return [
    ...parts.map((p) => (p === first ? { ...first, ends: [first.ends[0], ref('device:thr', 'midi-in')] as const } : p)),
    makeDevice('midi-thru', 'device:thr'),
    makeDevice('midi-merge', 'device:mrg'),
    ...leads.map((ends, i): Cable => ({ ...first, id: `cable:way-${i}`, ends })),
  ];
};

/**
 * The same parts, with what few boxes do: contacts that slots turn over, conditions on numbers and plugs, switches
 * that pulse, messages that come by two ways.
 */
export const richer = (r: Random, parts: readonly Part[]): readonly Part[] => {
  const boards = boardsIn(parts);
  const hasClock = parts.some((p) => p.kind === 'program' && p.acts.some((act) => 'send' in act && 'bpm' in act.send));
  const changed = parts.map((p): Part =>
    p.kind === 'program' && boards.has(p.device) && p.memory === 'slots'
      ? oddProgram(r, p)
      : isBoard(p)
        ? oddBoard(r, p, hasClock)
        : p,
  );
  return r.chance(25) ? twoWays(changed) : changed;
};
