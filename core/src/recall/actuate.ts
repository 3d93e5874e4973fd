import { byteFor, scaledValue, type Act } from '../rig/act.js';
import { shown } from '../midi/numbering.js';
import { controlIn, memoriesThatStore, type Device, type Memory } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { stepOf } from '../rig/midi-manners.js';
import type { Program } from '../rig/program.js';
import { keptIn } from '../rig/kept.js';
import { partOf, programAt, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { controlOf, restingValue } from '../signal/state.js';
import type { HandMove, Meant, Wanted } from './compiled.js';
import { BYTE_US } from '../units/amounts.js';
import { bytesOf } from './slot-timing.js';
import type { Way, WayFinder } from './ways.js';

/** A controller that a sound calls. */
export interface Caller {
  readonly device: Device;
  readonly memory: Memory;
  readonly slot: number;
}

interface Sent {
  readonly act: Act;
  readonly meant: Meant;
  /** Program changes go before what adjusts them. */
  readonly rank: number;
}

export interface Actuated {
  readonly slots: readonly { readonly caller: Caller; readonly contents: Readonly<Record<string, Value>>; readonly sent: readonly Sent[] }[];
  readonly hand: readonly HandMove[];
  readonly toggled: readonly Ref[];
}

type Wants = ReadonlyMap<Ref, Wanted>;

/** Finds for every wanted control the surest way by which a called controller reaches it. */
export const actuate = (rig: Rig, finder: WayFinder, callers: readonly Caller[], wanted: readonly Wanted[]): Actuated => {
  const wants: Wants = new Map(wanted.map((w) => [w.control, w]));
  const slots = callers.map((caller) => ({ caller, waysTo: finder.from(caller.device.id, caller.memory), contents: {} as Record<string, Value>, sent: [] as Sent[] }));
  const hand: HandMove[] = [];
  const toggled: Ref[] = [];
  for (const want of wanted) {
    const reached = slots.some((slot) => {
      const ways = slot.waysTo(want.control);
      const way = ways.find((w) => w.by !== 'contact' || slot.contents[w.control] === undefined) ?? ways[0];
      if (!way) return false;
      if (isTurnedOver(way) && programHolds(rig, want, wants) !== 'surely') toggled.push(want.control);
      use(rig, slot, way, want, wants);
      return true;
    });
    if (!reached && !heldByProgram(rig, want, wants)) hand.push({ control: want.control, value: want.value, by: footReaches(rig, want.control) ? 'foot' : 'hand' });
  }
  for (const slot of slots) {
    for (const stored of slot.caller.memory.stores) {
      slot.contents[stored] ??= restingValue(controlIn(slot.caller.device, stored)!);
    }
    slot.sent.sort((a, b) => a.rank - b.rank);
    if (slot.caller.memory.limits?.waits !== false) slot.sent = withWaits(rig, slot.sent, (s) => s.meant.device);
  }
  return { slots, hand, toggled };
};

/** A message to a box that is still loading waits until it hears again. @param to the box that a message is meant for */
export const withWaits = <T extends { readonly act: Act }>(rig: Rig, sent: readonly T[], to: (sent: T) => Id<'device'>): T[] => {
  const deafUntil = new Map<Id<'device'>, number>();
  let now = 0;
  return sent.map((s) => {
    if (!('send' in s.act) || 'bpm' in s.act.send) return s;
    const id = to(s);
    const arrives = now + (bytesOf(s.act.send) * BYTE_US) / 1000;
    const afterMs = Math.max(0, Math.ceil((deafUntil.get(id) ?? 0) - arrives));
    now = arrives + afterMs;
    const device = rig.parts.device.get(id);
    if ('pc' in s.act.send && device?.midi?.messages === 'lost') deafUntil.set(id, now + Math.max(0, ...device.memories.map((m) => m.gapMs)));
    return afterMs ? { ...s, act: waiting(s.act, afterMs) } : s;
  });
};

const waitingActs = new WeakMap<Act, Map<number, Act>>();
/** The very same act each time. */
const waiting = (act: Act, afterMs: number): Act => keptIn(keptIn(waitingActs, act, () => new Map<number, Act>()), afterMs, (): Act => ({ ...act, afterMs } as Act));

const sentBefore = new WeakMap<Way, Map<Value | undefined, Sent>>();
/** All sounds that want the same value in the same way send the very same act. */
const sentOnce = (way: Way, value: Value | undefined, make: () => Sent): Sent => keptIn(keptIn(sentBefore, way, () => new Map<Value | undefined, Sent>()), value, make);

const isTurnedOver = (way: Way): boolean => way.by === 'toggle' || way.by === 'pulse';

const use = (rig: Rig, slot: { caller: Caller; contents: Record<string, Value>; sent: Sent[] }, way: Way, want: Wanted, wants: Wants): void => {
  const { device: id, name } = splitRef(want.control);
  const device = rig.parts.device.get(id)!;
  const send = (value: Value | undefined, rank: number, make: () => { readonly act: Act; readonly text: string }) => slot.sent.push(sentOnce(way, value, () => {
    const { act, text } = make();
    return { act, rank, meant: { device: id, text } };
  }));
  const turnOver = (act: Act) => send(undefined, 2, () => ({ act, text: `turns ${nameOf(rig, want.control)} over` }));
  switch (way.by) {
    case 'stored':
      if (name !== slot.caller.memory.control) slot.contents[name] = want.value;
      return;
    case 'contact':
      slot.contents[way.control] = String(way.sets.get('closed')) === String(want.value) ? way.closed : way.open;
      return;
    case 'program':
      send(want.value, 0, () => {
        const number = Number(want.value);
        const memory = device.memories.find((m) => m.control === name)!;
        const bank = number >> 7;
        return { act: { send: { pc: number & 0x7f, channel: way.channel, ...(bank || memory.size > 128 ? { bank } : {}) }, at: way.at }, text: `program ${shown(memory.shows, number)}` };
      });
      return;
    case 'cc': {
      if (programHolds(rig, want, wants) === 'surely') return;
      const value = controllerValue(rig, way.act, want);
      if (value !== undefined) send(want.value, 1, () => ({ act: { send: { cc: way.number, value, channel: way.channel }, at: way.at }, text: `${nameOf(rig, want.control)} ${want.value}` }));
      return;
    }
    case 'clock': {
      const { value: bpm } = want;
      const isSent = slot.sent.some(({ act }) => 'send' in act && 'bpm' in act.send && act.at === way.at && act.send.bpm === bpm);
      if (programHolds(rig, want, wants) === 'surely' || isSent) return;
      if (typeof bpm === 'number') send(bpm, 1, () => ({ act: { send: { bpm }, at: way.at }, text: `tempo ${bpm}` }));
      return;
    }
    case 'toggle':
      if (mustTurnOver(rig, want, wants, way.values)) turnOver({ send: { cc: way.number, value: 127, channel: way.channel }, at: way.at });
      return;
    case 'pulse':
      if (mustTurnOver(rig, want, wants, way.values)) turnOver({ pulse: way.jack });
  }
};

const nameOf = (rig: Rig, control: Ref): string => controlOf(rig, control)?.name ?? splitRef(control).name;

/** The value of a control change that brings the wanted value; undefined when this message cannot. */
export const controllerValue = (rig: Rig, act: Act, want: { readonly control: Ref; readonly value: Value }): number | undefined => {
  if ('map' in act) {
    const range = act.map.find(([, , set]) => String(set) === String(want.value));
    return range && (range[1] === 127 ? 127 : range[0]);
  }
  if ('scale' in act && typeof want.value === 'number') {
    const byte = byteFor(want.value, act.scale);
    return scaledValue(byte, act.scale, stepOf(controlOf(rig, want.control))) === want.value ? byte : byteFor(want.value, act.scale);
  }
  return 'set' in act && String(act.set) === String(want.value) ? 127 : undefined;
};

interface Holder {
  readonly memory: Memory;
  readonly program: Program | undefined;
}

/** The program of the control's own box that the same sound calls, when that box stores the control. */
const holderOf = (rig: Rig, want: Wanted, wants: Wants): Holder | undefined => {
  const { device: id, name } = splitRef(want.control);
  const device = rig.parts.device.get(id);
  for (const memory of device ? memoriesThatStore(device, name) : []) {
    const called = wants.get(ref(id, memory.control));
    if (called) return { memory, program: programAt(rig, id, memory.id, called.value) };
  }
  return undefined;
};

/**
 * Whether the called program brings the value by itself. A control change may be left out only if calling the same program
 * again reloads it; recall goes before saving a message.
 */
const programHolds = (rig: Rig, want: Wanted, wants: Wants): 'surely' | 'if it loads' | 'not' => {
  const holder = holderOf(rig, want, wants);
  const contents = holder?.program?.contents;
  if (!holder || !contents || contents === 'unplanned') return 'not';
  if (String(contents[splitRef(want.control).name]) !== String(want.value)) return 'not';
  return holder.memory.again === 'reloads' ? 'surely' : 'if it loads';
};

const heldByProgram = (rig: Rig, want: Wanted, wants: Wants): boolean => programHolds(rig, want, wants) !== 'not';

/** A toggle is sent when the called program leaves the other value behind; without one, when the wanted value is not how the box rests. */
const mustTurnOver = (rig: Rig, want: Wanted, wants: Wants, values: readonly [Value, Value]): boolean => {
  const holder = holderOf(rig, want, wants);
  const contents = holder?.program?.contents;
  const before = contents && contents !== 'unplanned' ? contents[splitRef(want.control).name] : restingOf(rig, want.control);
  return values.some((v) => String(v) === String(want.value)) && String(before) !== String(want.value);
};

const restingOf = (rig: Rig, control: Ref): Value | undefined => {
  const found = controlOf(rig, control);
  return found && restingValue(found);
};

const footReaches = (rig: Rig, control: Ref): boolean => {
  const { device, name } = splitRef(control);
  return partOf(rig, device)?.actuators.some((a) => 'foot' in a.by && a.acts.some((act) => 'control' in act && act.control === name)) ?? false;
};

/** Acts that bring one value about from the controller, for a move's lists; undefined when only a hand can. */
export const actsFor = (rig: Rig, finder: WayFinder, caller: { device: Id<'device'>; memory: Memory }, control: Ref, value: Value): readonly Act[] | undefined => {
  const [way] = finder.from(caller.device, caller.memory)(control);
  const { name } = splitRef(control);
  switch (way?.by) {
    case undefined: return undefined;
    case 'stored': return [{ control: name, set: value }];
    case 'contact': return [{ control: way.control, set: String(way.sets.get('closed')) === String(value) ? way.closed : way.open }];
    case 'program': return [{ send: { pc: Number(value) & 0x7f, channel: way.channel }, at: way.at }];
    case 'cc': {
      const byte = controllerValue(rig, way.act, { control, value });
      return byte === undefined ? undefined : [{ send: { cc: way.number, value: byte, channel: way.channel }, at: way.at }];
    }
    case 'toggle': return [{ send: { cc: way.number, value: 127, channel: way.channel }, at: way.at }];
    case 'pulse': return [{ pulse: way.jack }];
  }
};
