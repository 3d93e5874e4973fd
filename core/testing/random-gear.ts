import { apply } from '../src/change/apply.js';
import type { Act, Message } from '../src/rig/act.js';
import type { Actuator, Chain, Control, Device, Jack, Memory } from '../src/rig/device.js';
import type { Cable, Hookup } from '../src/rig/hookup.js';
import { ref, type Id, type Ref } from '../src/rig/ids.js';
import type { Assign, Program, Sweep } from '../src/rig/program.js';
import { ABOUT, rigOf, type Part, type Rig } from '../src/rig/rig.js';
import type { Move, Sound, Want } from '../src/rig/sound.js';
import type { Value, When } from '../src/rig/value.js';
import { Random } from './random.js';
import { richer } from './richer-gear.js';

const HOOKUP: Id<'hookup'> = 'hookup:main';
const audio = (id: string, way: 'in' | 'out'): Jack => ({ id, kind: 'audio', connector: '6.35 TS', poles: { tip: way }, level: 'instrument' });
const midi = (id: string, way: 'in' | 'out'): Jack => ({ id, kind: 'midi', connector: 'DIN-5', poles: { tip: way } });
const values = (...v: readonly Value[]): Control['domain'] => ({ values: v });
const amount = (max: number): Control['domain'] => ({ min: 0, max, unit: '' });

const [DELAY_ON, MIX, MODE, FLIP, SWAP, BANKISH] = [102, 20, 21, 50, 51, 32];
const SWITCHES = ['A', 'B'] as const;

/** A box with everything that can be said of one, each thing with some chance: what it stores, how it wakes, what sets it off, what it misses. */
const echo = (r: Random, n: number): Device => {
  const id: Id<'device'> = `device:e${n}`;
  const size = r.pick([4, 8, 8, 300]);
  const channel = r.pick([3, 3, 4]);
  const menu = r.chance(20);
  const menuUse = r.pick(['setting', 'sound', 'play'] as const);
  const wakes = (...at: readonly Value[]): Control['powerUp'] => r.pick<Control['powerUp']>(['left', 'unknown', 'loaded', { at: r.pick(at) }]);
  const stores = ['on', 'mix', ...(r.chance(50) ? ['mode'] : []), ...(menu && r.chance(50) ? ['channel'] : [])].filter(() => r.chance(80));
  const scenes = r.chance(25);
  const kept = (control: string, ...at: readonly Value[]): Control['powerUp'] => {
    const woken = wakes(...at);
    return woken === 'loaded' && !stores.includes(control) ? 'left' : woken;
  };
  const controls: Control[] = [
    { id: 'program', domain: amount(size - 1), powerUp: r.pick<Control['powerUp']>(['left', { at: 0 }, 'unknown']), use: 'sound' },
    { id: 'on', domain: values('off', 'on'), powerUp: kept('on', 'off', 'on'), use: 'sound' },
    { id: 'mix', domain: { min: 0, max: 10, unit: '', ...(r.chance(20) ? { step: 0.5 } : {}) }, powerUp: kept('mix', 0, 3), use: 'sound' },
    { id: 'mode', domain: values('a', 'b', 'c'), powerUp: kept('mode', 'a', 'b'), use: r.pick(['sound', 'sound', 'setting', 'play'] as const) },
    { id: 'gain', domain: amount(10), powerUp: 'left', use: 'sound' },
    ...(menu ? [{ id: 'channel', domain: values(...Array.from({ length: 16 }, (_, i) => i + 1)), powerUp: kept('channel', channel), use: menuUse } satisfies Control] : []),
    ...(scenes ? [{ id: 'scene', domain: amount(2), powerUp: r.pick<Control['powerUp']>(['left', { at: 0 }]), use: 'sound' } satisfies Control] : []),
    ...(r.chance(20) ? [{ id: 'tempo', domain: { min: 40, max: 240, unit: 'bpm' }, powerUp: 'left', use: 'sound' } satisfies Control] : []),
  ];
  const has = (control: string) => controls.some((c) => c.id === control);
  const whenever = (): When | undefined => {
    if (!r.chance(25)) return undefined;
    return r.pick<When>([[{ control: 'mode', in: [r.pick(['a', 'b', 'c'])] }], [{ control: 'mix', from: r.int(0, 5), to: r.int(5, 10) }], [{ control: 'on', in: [r.pick(['on', 'off'])] }], [{ control: 'gain', from: 3, to: 10 }], [{ jack: 'tap', plugged: r.chance(50) }]]);
  };
  const under = () => { const when = whenever(); return when ? { when } : {}; };
  const onAct = (): Act => r.pick<Act>([
    { control: 'on', map: [[0, 63, 'off'], [64, 127, 'on']] }, { control: 'on', set: 'on' }, { control: 'on', toggle: ['off', 'on'] }, { control: 'on', step: ['off', 'on'] },
  ]);
  const out = r.chance(30);
  const send = (): Message => r.pick<Message>([{ cc: DELAY_ON, value: r.pick([0, 127]), channel: r.int(3, 4) }, { pc: r.int(0, 5), channel: r.int(3, 4) }, { cc: MIX, value: r.int(0, 127), channel: 3 }]);
  const actuators: Actuator[] = [
    { id: 'pc', by: { midi: 'pc' }, ...under(), acts: [{ load: 'programs', slot: 'value' }] },
    { id: 'on/off', by: { midi: 'cc', number: DELAY_ON, ...(r.chance(15) ? { channel: r.int(3, 4) } : {}) }, ...under(), acts: [onAct(), ...(r.chance(15) ? [{ control: 'mode', step: ['a', 'b', 'c'], ...under() } satisfies Act] : [])] },
    { id: 'mix', by: { midi: 'cc', number: MIX }, ...under(), acts: [{ control: 'mix', scale: [0, 10] }] },
    ...(r.chance(40) ? [{ id: 'mode', by: { midi: 'cc', number: MODE }, ...under(), acts: [{ control: 'mode', map: [[0, 40, 'a'], [41, 80, 'b']] }] } satisfies Actuator] : []),
    ...(r.chance(30) ? [{ id: 'flip', by: { midi: 'cc', number: FLIP }, ...under(), acts: [{ control: 'on', toggle: ['off', 'on'] }] } satisfies Actuator] : []),
    ...(r.chance(15) ? [{ id: 'bankish', by: { midi: 'cc', number: BANKISH }, acts: [{ control: 'on', set: 'off' }] } satisfies Actuator] : []),
    ...(has('channel') && r.chance(50) ? [{ id: 'tune', by: { midi: 'cc', number: SWAP }, acts: [{ control: 'channel', set: r.int(3, 4) }] } satisfies Actuator] : []),
    ...(r.chance(40) ? [{ id: 'tap', by: { contact: 'tap', edge: r.pick(['closing', 'opening'] as const) }, ...under(), acts: [{ control: 'on', toggle: ['off', 'on'] }] } satisfies Actuator] : []),
    ...(r.chance(30) ? [{ id: 'closed', by: { contact: 'tap', level: 'closed' }, acts: [{ control: 'mode', set: 'b' }] } satisfies Actuator, { id: 'open', by: { contact: 'tap', level: 'open' }, acts: [{ control: 'mode', set: 'a' }] } satisfies Actuator] : []),
    ...(r.chance(40) ? [{ id: 'switch', by: { foot: 'switch', gesture: r.pick(['press', 'hold', 'twice', 'release'] as const) }, ...under(), acts: [onAct()] } satisfies Actuator] : []),
    ...(r.chance(20) ? [{ id: 'knob', by: { hand: 'knob' }, acts: [{ control: 'mode', step: ['a', 'b', 'c'] }] } satisfies Actuator] : []),
    ...(r.chance(20) ? [{ id: 'preset', by: { foot: 'preset', gesture: 'press' }, acts: [{ load: 'programs', slot: r.int(0, 3) }] } satisfies Actuator] : []),
    ...(out ? [{ id: 'talk', by: { foot: 'talk', gesture: 'press' }, ...under(), acts: [{ send: send(), at: 'midi-out' }] } satisfies Actuator] : []),
    ...(r.chance(20) ? [{ id: 'start', by: { power: 'on' }, ...under(), acts: [r.pick<Act>([{ control: 'on', set: r.pick(['on', 'off']) }, { control: 'on', toggle: ['off', 'on'] }, ...(out ? [{ send: send(), at: 'midi-out' } satisfies Act] : [])])] } satisfies Actuator] : []),
    ...(has('tempo') ? [{ id: 'clock', by: { midi: 'clock' }, acts: [{ control: 'tempo', take: 'value' }] } satisfies Actuator] : []),
    ...(has('scene') ? [{ id: 'scene', by: { midi: 'cc', number: 22 }, acts: [0, 1, 2].map((slot): Act => ({ load: 'scenes', slot, when: [{ control: 'mode', in: [['a'], ['b'], ['c']][slot]! }] })) } satisfies Actuator, { id: 'scene 1', by: { foot: 'scene', gesture: 'press' }, acts: [{ load: 'scenes', slot: 1 }] } satisfies Actuator] : []),
    ...(r.chance(25) ? [{ id: 'rocker', by: { expression: 'exp' }, ...under(), acts: [r.chance(50) ? { control: 'mix', scale: [0, 10] } : { control: 'mode', map: [[30, 50, 'c'], [90, 110, 'b']] }] } satisfies Actuator] : []),
  ];
  const memory: Memory = {
    id: 'programs', control: 'program', stores, size, shows: { first: 0 }, gapMs: r.pick([0, 30, 80]), mutesMs: 0, again: r.pick(['reloads', 'nothing'] as const),
  };
  const inner: Memory = { id: 'scenes', control: 'scene', stores: ['mode'], size: 3, shows: { first: 1 }, inside: 'programs', gapMs: 0, mutesMs: 0, again: r.pick(['reloads', 'nothing'] as const) };
  const chains: Chain[] = [
    { id: 'path', from: [{ at: 'in' }], slots: [{ is: 'block', id: 'delay', stage: 'delay', on: r.chance(75) ? [{ control: 'on', in: ['on'] }] : [{ control: 'on', in: ['on'] }, { control: 'mix', from: 1, to: 10 }] }], to: [{ at: 'out' }] },
    { id: 'thru', from: [{ at: 'midi-in' }], slots: [], to: [{ at: 'midi-thru' }, ...(out ? [{ at: 'midi-out' }] : [])] },
  ];
  return {
    kind: 'device', id, code: `E${n}`, name: `Echo ${n}`, at: 20 + n, zone: 'floor',
    jacks: [audio('in', 'in'), audio('out', 'out'), midi('midi-in', 'in'), midi('midi-thru', 'out'), ...(out ? [midi('midi-out', 'out')] : []), { id: 'tap', kind: 'contact', connector: '6.35 TS', poles: { tip: 'in' } }, { id: 'exp', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'in' } }],
    chains, controls, actuators, memories: [memory, ...(scenes && stores.includes('mode') === false ? [inner] : scenes ? [{ ...inner, stores: ['mode'] }] : [])],
    midi: { channel: menu ? 'channel' : channel, ...(r.chance(10) ? { omni: true } : {}), messages: r.pick(['lost', 'queued'] as const) }, figures: { origin: 'assumed' },
  };
};

/** A board of switches: slots, a relay, switches that slots assign, an expression input; some can be called by another board. */
const board = (r: Random, n: number): Device => {
  const called = r.chance(60);
  const snapshots = r.chance(15);
  const stores = r.chance(70) ? ['ctl1'] : [];
  return {
    kind: 'device', id: `device:c${n}`, code: `C${n}`, name: `Board ${n}`, at: 10 + n, zone: 'floor',
    jacks: [midi('midi-in', 'in'), midi('midi-out', 'out'), ...(r.chance(30) ? [midi('midi-out-2', 'out')] : []), { id: 'ctl1', kind: 'contact', connector: '6.35 TS', poles: { tip: 'out' }, closedWhen: [{ control: 'ctl1', in: ['closed'] }] }, { id: 'exp1', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'in' } }],
    chains: r.chance(75) ? [{ id: 'merge', from: [{ at: 'midi-in' }], slots: [], to: [{ at: 'midi-out' }] }] : [],
    controls: [
      { id: 'slot', domain: amount(3), powerUp: r.pick<Control['powerUp']>([{ at: 0 }, 'left']), use: 'sound' }, { id: 'bank', domain: values(1, 2), powerUp: { at: 1 }, use: 'play' },
      { id: 'ctl1', domain: values('open', 'closed'), powerUp: r.pick<Control['powerUp']>([stores.length ? 'loaded' : 'left', 'unknown', { at: 'open' }]), use: 'sound' },
      { id: 'latch-E', domain: values('off', 'on'), powerUp: { at: 'off' }, use: 'sound' }, { id: 'held-E', domain: values('off', 'on'), powerUp: { at: 'off' }, use: 'sound' },
      ...(snapshots ? [{ id: 'snap', domain: amount(1), powerUp: { at: 0 }, use: 'sound' } satisfies Control] : []),
    ],
    actuators: [
      ...SWITCHES.map((name, plus): Actuator => ({ id: name, by: { foot: name, gesture: 'press' }, acts: [{ load: 'slots', slot: { bank: 'bank', banks: [1, 2], plus, size: 2 } }] })),
      { id: 'up', by: { foot: 'up', gesture: 'press' }, acts: [{ control: 'bank', step: [1, 2] }] }, { id: 'down', by: { foot: 'down', gesture: 'press' }, acts: [{ control: 'bank', step: [2, 1] }] },
      { id: 'E press', by: { foot: 'E', gesture: 'press' }, acts: [{ follow: 'E', gesture: 'press' }] }, { id: 'E release', by: { foot: 'E', gesture: 'release' }, acts: [{ follow: 'E', gesture: 'release' }] },
      ...(called ? [{ id: 'pcin', by: { midi: 'pc' }, acts: [{ load: 'slots', slot: 'value' }] } satisfies Actuator] : []),
      ...(snapshots ? [{ id: 'snap', by: { foot: 'snap', gesture: 'press' }, acts: [{ load: 'snaps', slot: 1 }] } satisfies Actuator] : []),
    ],
    memories: [
      { id: 'slots', control: 'slot', stores, size: 4, shows: { first: 1, bank: { size: 2, first: 1, letters: 'AB' } }, gapMs: r.pick([0, 0, 20]), mutesMs: 0, again: r.pick(['reloads', 'reloads', 'nothing'] as const), by: 'slot', switches: SWITCHES, bank: { control: 'bank', up: 'up', down: 'down' }, assignable: [{ switch: 'E', latch: 'latch-E', held: 'held-E' }], limits: { clock: true, ...(r.chance(30) ? { waits: false } : {}) } },
      ...(snapshots ? [{ id: 'snaps', control: 'snap', stores: [], size: 2, shows: { first: 1 }, gapMs: 0, mutesMs: 0, again: 'reloads' } satisfies Memory] : []),
    ],
    ...(called ? { midi: { channel: r.pick([3, 5]), messages: r.pick(['lost', 'queued'] as const) } } : {}), figures: { origin: 'assumed' },
  };
};

const outsOf = (d: Device): readonly string[] => d.jacks.filter((j) => j.kind === 'midi' && j.poles.tip === 'out').map((j) => j.id);

const message = (r: Random): Message => r.pick<Message>([
  { pc: r.int(0, 4), channel: r.int(3, 5) }, { pc: r.int(0, 4), channel: r.int(3, 4), bank: r.int(0, 2) }, { cc: DELAY_ON, value: r.pick([0, 63, 64, 127]), channel: r.int(3, 4) },
  { cc: MIX, value: r.pick([0, 25, 64, 127]), channel: r.int(3, 4) }, { cc: r.pick([MODE, FLIP, SWAP, 22]), value: r.pick([0, 60, 127]), channel: r.int(3, 4) }, { cc: r.pick([0, 32]), value: r.int(0, 1), channel: r.int(3, 4) },
]);

const listFor = (r: Random, d: Device, most: number): readonly Act[] => Array.from({ length: r.int(0, most) }, (_, i): Act => {
  if (r.chance(8)) return { pulse: 'ctl1' };
  // Two clocks on one wire at once give no tempo at all: only one board has one, and sends it once.
  if (i === 0 && d.id === 'device:c0' && !d.midi && r.chance(15)) return { send: { bpm: r.pick([90, 120]) }, at: 'midi-out' };
  if (r.chance(5)) return { control: 'ctl1', set: r.pick(['open', 'closed']) };
  return { send: message(r), at: r.pick(outsOf(d)), ...(r.chance(30) ? { afterMs: r.pick([1, 20, 40, 100, 300]) } : {}), ...(r.chance(8) ? { when: [{ control: 'ctl1', in: ['closed'] }] } : {}) };
});

const slotsOf = (r: Random, d: Device): readonly Program[] => r.some([0, 1, 2, 3], 70).map((number): Program => {
  const assigns: Assign[] = r.chance(30) ? [{ switch: 'E', latch: r.chance(50), on: listFor(r, d, 2), off: listFor(r, d, 1), afterLoad: r.pick(['off', 'on', 'kept'] as const) }] : [];
  const sweeps: Sweep[] = r.chance(20) ? [{ jack: 'exp1', heel: r.int(0, 127), toe: r.int(0, 127), ...(r.chance(40) ? { curve: r.pick(['slow', 'fast', 'line'] as const) } : {}), cc: r.pick([MIX, MODE, DELAY_ON]), channel: 3, at: 'midi-out' }] : [];
  return {
    kind: 'program', id: `program:${d.id.slice(7)}-${number}`, device: d.id, memory: 'slots', number, name: `Slot ${number}`,
    contents: r.chance(10) ? 'unplanned' : d.memories[0]!.stores.length && r.chance(75) ? { ctl1: r.pick(['open', 'closed']) } : {}, acts: listFor(r, d, 4), assigns, ...(sweeps.length ? { sweeps } : {}),
  };
}).filter((p) => p.contents !== 'unplanned');

const snapsOf = (r: Random, d: Device): readonly Program[] => (d.memories.some((m) => m.id === 'snaps') ? [{ kind: 'program', id: `program:${d.id.slice(7)}-snap`, device: d.id, memory: 'snaps', number: 1, name: 'Snapshot', contents: {}, acts: listFor(r, d, 2), assigns: [] }] : []);

const programsOf = (r: Random, d: Device): readonly Program[] => d.memories.flatMap((memory) => {
  const of = memory.inside === undefined ? [undefined] : [undefined, 0, 1, 3].filter(() => r.chance(50));
  const numbers = memory.size > 128 ? [0, 1, 3, 129, 131, 257] : Array.from({ length: memory.size }, (_, i) => i);
  return of.flatMap((outer) => r.some(numbers, 50).map((number): Program => ({
    kind: 'program', id: `program:${d.id.slice(7)}-${memory.id}-${number}-${outer ?? 'any'}`, device: d.id, memory: memory.id, number, name: `No ${number}`, ...(outer === undefined ? {} : { of: outer }),
    contents: r.chance(10) ? 'unplanned' : Object.fromEntries(memory.stores.filter(() => r.chance(85)).map((s) => [s, s === 'mix' ? r.int(0, 10) : s === 'mode' ? r.pick(['a', 'b', 'c']) : s === 'channel' ? r.int(3, 4) : r.pick(['off', 'on'])])),
    acts: outsOf(d).includes('midi-out') && r.chance(15) ? [{ send: message(r), at: 'midi-out' }] : [], assigns: [],
  })));
});

const soundsOf = (r: Random, boxes: readonly Device[], boards: readonly Device[]): readonly Sound[] => Array.from({ length: r.int(1, 3) }, (_, i): Sound => {
  const wants = boxes.flatMap((d): readonly Want[] => [
    ...(r.chance(70) ? [{ stage: ref(d.id, 'delay'), is: r.pick(['in', 'in', 'out', 'any'] as const) } satisfies Want] : []),
    ...(r.chance(45) ? [{ control: ref(d.id, 'program'), is: r.int(0, 3) } satisfies Want] : r.chance(50) ? [{ control: ref(d.id, 'program'), any: true } satisfies Want] : []),
    ...(r.chance(25) ? [r.pick<Want>([{ control: ref(d.id, 'mix'), is: r.int(0, 10) }, { control: ref(d.id, 'mix'), any: true }])] : []),
  ]);
  const callers = boards.filter((_, k) => k === 0 || r.chance(35));
  return { kind: 'sound', id: `sound:s${i}`, name: `Sound ${i}`, role: 'other', at: i, wants, calls: callers.map((d) => ({ device: d.id, memory: 'slots', slot: i })) };
});

/** A small rig in which anything that boxes do can come about: boards in a row, side by side or in a ring, banks, scenes, channels that move, relays, pedals, feet that send, what nobody wrote down. */
export const randomGear = (seed: number): { readonly rig: Rig; readonly hookup: Hookup } => {
  const r = new Random(seed);
  const boxes = Array.from({ length: r.int(1, 3) }, (_, i) => echo(r, i));
  const boards = Array.from({ length: r.pick([1, 1, 2, 2, 3, 4]) }, (_, i) => board(r, i));
  const guitar: Device = { kind: 'device', id: 'device:g', code: 'G', name: 'Guitar', at: 1, zone: 'hands', jacks: [audio('out', 'out')], chains: [], controls: [], actuators: [], memories: [], ends: [{ at: 'out', is: 'source', name: 'Guitar', what: 'guitar' }], figures: {} };
  const speaker: Device = { kind: 'device', id: 'device:p', code: 'P', name: 'Speaker', at: 99, zone: 'outputs', jacks: [audio('in', 'in')], chains: [{ id: 'path', from: [{ at: 'in' }], slots: [], to: [{ at: '#stage' }] }], controls: [], actuators: [], memories: [], ends: [{ at: '#stage', is: 'stage', name: 'Speaker' }], figures: {} };
  const pedal: Device = { kind: 'device', id: 'device:x', code: 'X', name: 'Pedal', at: 5, zone: 'floor', jacks: [{ id: 'exp', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'out' } }], chains: [], controls: [], actuators: [], memories: [], figures: {} };
  const ends: [Ref, Ref][] = [];
  const plug = (a: string, b: string) => { ends.push([`device:${a}` as Ref, `device:${b}` as Ref]); };
  [guitar, ...boxes].forEach((d, i, all) => plug(`${d.id.slice(7)}.out`, i + 1 < all.length ? `${all[i + 1]!.id.slice(7)}.in` : 'p.in'));
  const free = new Set(boxes.map((_, i) => `e${i}.midi-in`));
  boards.forEach((d, i) => {
    const next = boards[i + 1];
    const into = next && r.chance(55) ? `c${i + 1}.midi-in` : [...free][0];
    if (into) { plug(`c${i}.midi-out`, into); free.delete(into); }
    if (outsOf(d).length > 1 && free.size) { const [second] = [...free]; plug(`c${i}.midi-out-2`, second!); free.delete(second!); }
  });
  boxes.forEach((d, i) => {
    const [next] = [...free].filter((f) => !f.startsWith(`e${i}.`));
    if (next && r.chance(80)) { plug(`e${i}.midi-thru`, next); free.delete(next); } else if (r.chance(8) && !ends.flat().includes('device:c0.midi-in' as Ref)) plug(`e${i}.midi-thru`, 'c0.midi-in');
    if (outsOf(d).includes('midi-out') && r.chance(40)) { const [other] = [...free].filter((f) => !f.startsWith(`e${i}.`)); if (other) { plug(`e${i}.midi-out`, other); free.delete(other); } }
  });
  boards.forEach((_, i) => { if (i < boxes.length && r.chance(45)) plug(`c${i}.ctl1`, `e${i}.tap`); });
  if (r.chance(50)) plug('x.exp', r.chance(50) ? 'c0.exp1' : 'e0.exp');
  const cables = ends.map((pair, i): Cable => ({ kind: 'cable', id: `cable:${i}`, hookup: HOOKUP, ends: pair }));
  const hookup: Hookup = {
    kind: 'hookup', id: HOOKUP, name: 'Main', settings: boxes.some((d) => d.controls.some((c) => c.id === 'mode' && c.use === 'setting')) && r.chance(30) ? Object.fromEntries(boxes.filter((d) => d.controls.some((c) => c.id === 'mode' && c.use === 'setting')).map((d) => [ref(d.id, 'mode'), 'a'])) : {},
    hears: [], assumes: r.chance(15) ? [{ control: ref(boxes[0]!.id, 'gain'), value: 3, why: 'taped' }] : [],
    ...(r.chance(40) ? { admits: { moves: r.chance(80), feet: r.chance(80), powerCycle: r.chance(70), ...(r.chance(20) ? { knobs: true } : {}) } } : {}),
  };
  const sounds = soundsOf(r, boxes, boards);
  const moves: readonly Move[] = r.chance(30) ? [{ kind: 'move', id: 'move:m', name: 'Move', sounds: 'all', latch: r.chance(50), at: [{ device: 'device:c0', switch: 'E' }], on: [{ control: ref(boxes[0]!.id, 'mix'), is: r.int(0, 10) }], off: [] }] : [];
  const parts: readonly Part[] = [{ kind: 'about', id: ABOUT, name: `Gear ${seed}`, notes: '' }, guitar, ...boards, pedal, ...boxes, speaker, hookup, ...boards.flatMap((d) => [...slotsOf(r, d), ...snapsOf(r, d)]), ...boxes.flatMap((d) => programsOf(r, d)), ...cables, ...sounds, ...moves];
  const built = apply(rigOf([]), { put: seed % 2 ? richer(new Random(seed + 1_000_000), parts) : parts, remove: [] });
  if (!built.ok) throw new Error(`gear ${seed}: ${JSON.stringify(built.error[0])}`);
  return { rig: built.value.rig, hookup };
};
