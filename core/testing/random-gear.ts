import { apply } from '../src/change/apply.js';
import type { Act } from '../src/rig/act.js';
import type { Device } from '../src/rig/device.js';
import type { Cable, Hookup } from '../src/rig/hookup.js';
import { ref, type Id, type Ref } from '../src/rig/ids.js';
import type { Assign, Program, Sweep } from '../src/rig/program.js';
import { ABOUT, rigOf, type Part, type Rig } from '../src/rig/rig.js';
import type { Move, Sound, Want } from '../src/rig/sound.js';
import { audio, board, message, outsOf, MODE, MIX, DELAY_ON } from './random-boxes.js';
import { echo } from './random-echo.js';
import { Random } from './random.js';
import { richer } from './richer-gear.js';

const HOOKUP: Id<'hookup'> = 'hookup:main';

const listFor = (r: Random, d: Device, most: number): readonly Act[] =>
  Array.from({ length: r.int(0, most) }, (_, i): Act => {
    if (r.chance(8)) return { pulse: 'ctl1' };
    // Two clocks on one wire at once give no tempo at all: only one board has one, and sends it once.
    if (i === 0 && d.id === 'device:c0' && !d.midi && r.chance(15))
      return { send: { bpm: r.pick([90, 120]) }, at: 'midi-out' };
    if (r.chance(5)) return { control: 'ctl1', set: r.pick(['open', 'closed']) };
    return {
      send: message(r),
      at: r.pick(outsOf(d)),
      ...(r.chance(30) ? { afterMs: r.pick([1, 20, 40, 100, 300]) } : {}),
      ...(r.chance(8) ? { when: [{ control: 'ctl1', in: ['closed'] }] } : {}),
    };
  });

const slotsOf = (r: Random, d: Device): readonly Program[] =>
  r
    .some([0, 1, 2, 3], 70)
    .map((number): Program => {
      const assigns: Assign[] = r.chance(30)
        ? [
            {
              switch: 'E',
              latch: r.chance(50),
              on: listFor(r, d, 2),
              off: listFor(r, d, 1),
              afterLoad: r.pick(['off', 'on', 'kept'] as const),
            },
          ]
        : [];
      const sweeps: Sweep[] = r.chance(20)
        ? [
            {
              jack: 'exp1',
              heel: r.int(0, 127),
              toe: r.int(0, 127),
              ...(r.chance(40) ? { curve: r.pick(['slow', 'fast', 'line'] as const) } : {}),
              cc: r.pick([MIX, MODE, DELAY_ON]),
              channel: 3,
              at: 'midi-out',
            },
          ]
        : [];
      return {
        kind: 'program',
        id: `program:${d.id.slice(7)}-${number}`,
        device: d.id,
        memory: 'slots',
        number,
        name: `Slot ${number}`,
        contents: r.chance(10)
          ? 'unplanned'
          : d.memories[0]!.stores.length && r.chance(75)
            ? { ctl1: r.pick(['open', 'closed']) }
            : {},
        acts: listFor(r, d, 4),
        assigns,
        ...(sweeps.length ? { sweeps } : {}),
      };
    })
    .filter((p) => p.contents !== 'unplanned');

const snapsOf = (r: Random, d: Device): readonly Program[] =>
  d.memories.some((m) => m.id === 'snaps')
    ? [
        {
          kind: 'program',
          id: `program:${d.id.slice(7)}-snap`,
          device: d.id,
          memory: 'snaps',
          number: 1,
          name: 'Snapshot',
          contents: {},
          acts: listFor(r, d, 2),
          assigns: [],
        },
      ]
    : [];

const programsOf = (r: Random, d: Device): readonly Program[] =>
  d.memories.flatMap((memory) => {
    const of = memory.inside === undefined ? [undefined] : [undefined, 0, 1, 3].filter(() => r.chance(50));
    const numbers = memory.size > 128 ? [0, 1, 3, 129, 131, 257] : Array.from({ length: memory.size }, (_, i) => i);
    return of.flatMap((outer) =>
      r.some(numbers, 50).map((number): Program => ({
        kind: 'program',
        id: `program:${d.id.slice(7)}-${memory.id}-${number}-${outer ?? 'any'}`,
        device: d.id,
        memory: memory.id,
        number,
        name: `No ${number}`,
        ...(outer === undefined ? {} : { of: outer }),
        contents: r.chance(10)
          ? 'unplanned'
          : Object.fromEntries(
              memory.stores
                .filter(() => r.chance(85))
                .map((s) => [
                  s,
                  s === 'mix'
                    ? r.int(0, 10)
                    : s === 'mode'
                      ? r.pick(['a', 'b', 'c'])
                      : s === 'channel'
                        ? r.int(3, 4)
                        : r.pick(['off', 'on']),
                ]),
            ),
        acts: outsOf(d).includes('midi-out') && r.chance(15) ? [{ send: message(r), at: 'midi-out' }] : [],
        assigns: [],
      })),
    );
  });

const soundsOf = (r: Random, boxes: readonly Device[], boards: readonly Device[]): readonly Sound[] =>
  Array.from({ length: r.int(1, 3) }, (_, i): Sound => {
    const wants = boxes.flatMap((d): readonly Want[] => [
      ...(r.chance(70)
        ? [{ stage: ref(d.id, 'delay'), is: r.pick(['in', 'in', 'out', 'any'] as const) } satisfies Want]
        : []),
      ...(r.chance(45)
        ? [{ control: ref(d.id, 'program'), is: r.int(0, 3) } satisfies Want]
        : r.chance(50)
          ? [{ control: ref(d.id, 'program'), any: true } satisfies Want]
          : []),
      ...(r.chance(25)
        ? [
            r.pick<Want>([
              { control: ref(d.id, 'mix'), is: r.int(0, 10) },
              { control: ref(d.id, 'mix'), any: true },
            ]),
          ]
        : []),
    ]);
    const callers = boards.filter((_, k) => k === 0 || r.chance(35));
    return {
      kind: 'sound',
      id: `sound:s${i}`,
      name: `Sound ${i}`,
      role: 'other',
      at: i,
      wants,
      calls: callers.map((d) => ({ device: d.id, memory: 'slots', slot: i })),
    };
  });

/**
 * A small rig in which anything that boxes do can come about: boards in a row, side by side or in a ring, banks,
 * scenes, channels that move, relays, pedals, feet that send, what nobody wrote down.
 */
export const randomGear = (seed: number): { readonly rig: Rig; readonly hookup: Hookup } => {
  const r = new Random(seed);
  const boxes = Array.from({ length: r.int(1, 3) }, (_, i) => echo(r, i));
  const boards = Array.from({ length: r.pick([1, 1, 2, 2, 3, 4]) }, (_, i) => board(r, i));
  const guitar: Device = {
    kind: 'device',
    id: 'device:g',
    code: 'G',
    name: 'Guitar',
    at: 1,
    zone: 'hands',
    jacks: [audio('out', 'out')],
    chains: [],
    controls: [],
    actuators: [],
    memories: [],
    ends: [{ at: 'out', is: 'source', name: 'Guitar', what: 'guitar' }],
    figures: {},
  };
  const speaker: Device = {
    kind: 'device',
    id: 'device:p',
    code: 'P',
    name: 'Speaker',
    at: 99,
    zone: 'outputs',
    jacks: [audio('in', 'in')],
    chains: [{ id: 'path', from: [{ at: 'in' }], slots: [], to: [{ at: '#stage' }] }],
    controls: [],
    actuators: [],
    memories: [],
    ends: [{ at: '#stage', is: 'stage', name: 'Speaker' }],
    figures: {},
  };
  const pedal: Device = {
    kind: 'device',
    id: 'device:x',
    code: 'X',
    name: 'Pedal',
    at: 5,
    zone: 'floor',
    jacks: [{ id: 'exp', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'out' } }],
    chains: [],
    controls: [],
    actuators: [],
    memories: [],
    figures: {},
  };
  const ends: [Ref, Ref][] = [];
  const plug = (a: string, b: string) => {
    ends.push([`device:${a}` as Ref, `device:${b}` as Ref]);
  };
  [guitar, ...boxes].forEach((d, i, all) =>
    plug(`${d.id.slice(7)}.out`, i + 1 < all.length ? `${all[i + 1]!.id.slice(7)}.in` : 'p.in'),
  );
  const free = new Set(boxes.map((_, i) => `e${i}.midi-in`));
  boards.forEach((d, i) => {
    const next = boards[i + 1];
    const into = next && r.chance(55) ? `c${i + 1}.midi-in` : [...free][0];
    if (into) {
      plug(`c${i}.midi-out`, into);
      free.delete(into);
    }
    if (outsOf(d).length > 1 && free.size) {
      const [second] = [...free];
      plug(`c${i}.midi-out-2`, second!);
      free.delete(second!);
    }
  });
  boxes.forEach((d, i) => {
    const [next] = [...free].filter((f) => !f.startsWith(`e${i}.`));
    if (next && r.chance(80)) {
      plug(`e${i}.midi-thru`, next);
      free.delete(next);
    } else if (r.chance(8) && !ends.flat().includes('device:c0.midi-in' as Ref)) plug(`e${i}.midi-thru`, 'c0.midi-in');
    if (outsOf(d).includes('midi-out') && r.chance(40)) {
      const [other] = [...free].filter((f) => !f.startsWith(`e${i}.`));
      if (other) {
        plug(`e${i}.midi-out`, other);
        free.delete(other);
      }
    }
  });
  boards.forEach((_, i) => {
    if (i < boxes.length && r.chance(45)) plug(`c${i}.ctl1`, `e${i}.tap`);
  });
  if (r.chance(50)) plug('x.exp', r.chance(50) ? 'c0.exp1' : 'e0.exp');
  const cables = ends.map((pair, i): Cable => ({ kind: 'cable', id: `cable:${i}`, hookup: HOOKUP, ends: pair }));
  const hookup: Hookup = {
    kind: 'hookup',
    id: HOOKUP,
    name: 'Main',
    settings:
      boxes.some((d) => d.controls.some((c) => c.id === 'mode' && c.use === 'setting')) && r.chance(30)
        ? Object.fromEntries(
            boxes
              .filter((d) => d.controls.some((c) => c.id === 'mode' && c.use === 'setting'))
              .map((d) => [ref(d.id, 'mode'), 'a']),
          )
        : {},
    hears: [],
    assumes: r.chance(15) ? [{ control: ref(boxes[0]!.id, 'gain'), value: 3, why: 'taped' }] : [],
    ...(r.chance(40)
      ? {
          admits: {
            moves: r.chance(80),
            feet: r.chance(80),
            powerCycle: r.chance(70),
            ...(r.chance(20) ? { knobs: true } : {}),
          },
        }
      : {}),
  };
  const sounds = soundsOf(r, boxes, boards);
  const moves: readonly Move[] = r.chance(30)
    ? [
        {
          kind: 'move',
          id: 'move:m',
          name: 'Move',
          sounds: 'all',
          latch: r.chance(50),
          at: [{ device: 'device:c0', switch: 'E' }],
          on: [{ control: ref(boxes[0]!.id, 'mix'), is: r.int(0, 10) }],
          off: [],
        },
      ]
    : [];
  const parts: readonly Part[] = [
    { kind: 'about', id: ABOUT, name: `Gear ${seed}`, notes: '' },
    guitar,
    ...boards,
    pedal,
    ...boxes,
    speaker,
    hookup,
    ...boards.flatMap((d) => [...slotsOf(r, d), ...snapsOf(r, d)]),
    ...boxes.flatMap((d) => programsOf(r, d)),
    ...cables,
    ...sounds,
    ...moves,
  ];
  const built = apply(rigOf([]), { put: seed % 2 ? richer(new Random(seed + 1_000_000), parts) : parts, remove: [] });
  if (!built.ok) throw new Error(`gear ${seed}: ${JSON.stringify(built.error[0])}`);
  return { rig: built.value.rig, hookup };
};
