import { byteFor, scaledValue, type Act } from '../../rig/act.js';
import { shown } from '../../midi/numbering.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { loadsBy, stepOf } from '../../rig/midi-manners.js';
import type { Program } from '../../rig/program.js';
import { keptIn, once } from '../../kept/kept.js';
import { partOf, programAt, thePart, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import { isDialled, restingValue } from '../../signal/graph/state.js';
import type { HandMove, Meant, Wanted } from '../intend/compiled.js';
import { BYTE_US } from '../../units/amounts.js';
import { bytesOf } from './slot-timing.js';
import type { Target, Way, WayFinder } from './ways.js';
import { surely, theOne } from '../../known/the.js';
import { controlAt, memoryChosenBy, memoryIn, theControl } from '../../rig/box.js';

/** A controller that a sound calls. */
export interface Caller {
  readonly device: Device;
  readonly memory: Memory;
  readonly slot: number;
  /** For a scene: the program around it that the same sound calls. */
  readonly of?: number;
}

interface Sent {
  readonly act: Act;
  readonly meant: Meant;
  /** Program changes go before scenes, and both before what adjusts them. */
  readonly rank: number;
}

export interface Actuated {
  readonly slots: readonly {
    readonly caller: Caller;
    readonly contents: Readonly<Record<string, Value>>;
    readonly sent: readonly Sent[];
  }[];
  readonly hand: readonly HandMove[];
  readonly toggled: readonly Ref[];
}

/** What a sound wants, with the programs that it calls. */
interface Wants {
  readonly called: (control: Ref) => Wanted | undefined;
  readonly holders: Map<Wanted, Holder>;
}

/**
 * Finds for every wanted control the surest way by which a called controller reaches it.
 * @param apart what is brought about otherwise
 */
export const actuate = (
  rig: Rig,
  finder: WayFinder,
  callers: readonly Caller[],
  wanted: ReadonlyMap<Ref, Wanted>,
  apart: ReadonlySet<Ref>,
): Actuated => {
  const wants: Wants = {
    called: (control) => (apart.has(control) ? undefined : wanted.get(control)),
    holders: new Map(),
  };
  const slots = callers.map((caller) => {
    const inner = innerOf(caller, callers);
    return {
      caller,
      waysTo: finder.from(caller.device.id, caller.memory),
      contents: { ...(inner ? openAround(caller.memory, inner) : openContents(caller.memory)) },
      sent: [] as Sent[],
    };
  });
  // What a scene holds it sets after the program around it; what is sent goes out with that program.
  const asked = [...slots].sort((a, b) => Number(isInner(b.caller)) - Number(isInner(a.caller)));
  const hand: HandMove[] = [];
  const toggled: Ref[] = [];
  for (const want of wanted.values()) {
    if (apart.has(want.control)) continue;
    let reached = false;
    for (const slot of asked) {
      const way = freeWay(rig, slot.waysTo(want.control), slot.contents, want);
      if (!way || (isInner(slot.caller) && way.by !== 'stored')) continue;
      const target = finder.target(want.control);
      if (isTurnedOver(way) && programHolds(rig, want, target, wants) !== 'surely') toggled.push(want.control);
      use(rig, slot, way, want, target, wants);
      reached = true;
      break;
    }
    if (!reached && programHolds(rig, want, finder.target(want.control), wants) === 'not') {
      hand.push({
        control: want.control,
        value: want.value,
        by: footReaches(rig, want.control) ? 'foot' : 'hand',
        ...(want.within ? { within: want.within } : {}),
      });
    }
  }
  for (const slot of slots) complete(rig, slot);
  return {
    slots: slots.map(({ caller, contents, sent }) => ({
      caller,
      contents: contents as Readonly<Record<string, Value>>,
      sent,
    })),
    hand,
    toggled,
  };
};

/** Everything that a program of a memory holds, in the order of the box, still open. */
const openContents = once((memory: Memory): Readonly<Record<string, Value | undefined>> =>
  Object.fromEntries(memory.stores.map((stored) => [stored, undefined])),
);

/** What no sound says is at rest, or dialled in as it pleases; messages in their order, with the waits between. */
const complete = (rig: Rig, slot: Slot): void => {
  for (const stored of Object.keys(slot.contents)) {
    const control = theControl(slot.caller.device, stored);
    if (slot.contents[stored] === undefined && isDialled(control)) delete slot.contents[stored];
    else slot.contents[stored] ??= restingValue(control);
  }
  slot.sent.sort((a, b) => a.rank - b.rank);
  if (slot.caller.memory.limits?.waits !== false) slot.sent = withWaits(rig, slot.sent, (s) => s.meant.device);
};

const isInner = ({ memory }: Caller): boolean => memory.inside !== undefined;

/** The scene that is called inside a program, by the same sound. */
const innerOf = ({ device, memory }: Caller, callers: readonly Caller[]): Memory | undefined =>
  callers.find((c) => c.device === device && c.memory.inside === memory.id)?.memory;

/** What a program holds around a scene: what the scene does not set anew. */
const openAround = (memory: Memory, inner: Memory): Readonly<Record<string, Value | undefined>> =>
  Object.fromEntries(memory.stores.filter((s) => !inner.stores.includes(s)).map((s) => [s, undefined]));

/** The surest way that brings the value and that no other wanted control uses already. */
const freeWay = (
  rig: Rig,
  ways: readonly Way[],
  contents: Readonly<Record<string, Value | undefined>>,
  want: Wanted,
): Way | undefined => {
  let used: Way | undefined;
  for (const way of ways) {
    if (!brings(rig, way, want)) continue;
    if (way.by !== 'contact' || contents[way.control] === undefined) return way;
    used ??= way;
  }
  return used;
};

/** Whether a way can bring this value about: a control change that only turns on does not turn off. */
const brings = (rig: Rig, way: Way, want: { readonly control: Ref; readonly value: Value }): boolean => {
  const is = (value: Value | undefined): boolean => value !== undefined && String(value) === String(want.value);
  switch (way.by) {
    case 'stored':
      return true;
    case 'contact':
      return is(way.sets.closed) || is(way.sets.open);
    case 'program':
      return Number.isInteger(Number(want.value));
    case 'cc':
      return 'scale' in way.act ? typeof want.value === 'number' : controllerValue(rig, way.act, want) !== undefined;
    case 'clock':
      return typeof want.value === 'number';
    case 'toggle':
    case 'pulse':
      return way.values.some(is);
  }
};

/**
 * A message to a box that is still loading waits until it hears again.
 * @param to the box that a message is meant for
 */
export const withWaits = <T extends { readonly act: Act }>(
  rig: Rig,
  sent: readonly T[],
  to: (sent: T) => Id<'device'>,
): T[] => {
  const deafUntil = new Map<Id<'device'>, number>();
  let now = 0;
  return sent.map((s) => {
    if (!('send' in s.act) || 'bpm' in s.act.send) return s;
    const id = to(s);
    const arrives = now + (bytesOf(s.act.send) * BYTE_US) / 1000;
    const afterMs = Math.max(0, Math.ceil((deafUntil.get(id) ?? 0) - arrives));
    now = arrives + afterMs;
    const device = rig.parts.device.get(id);
    if (device?.midi?.messages === 'lost') {
      const gaps = loadsBy(device, s.act.send).map(({ memory }) => memory.gapMs);
      if (gaps.length) deafUntil.set(id, now + Math.max(...gaps));
    }
    return afterMs ? { ...s, act: waiting(s.act, afterMs) } : s;
  });
};

const waitingActs = new WeakMap<Act, Map<number, Act>>();
/** The very same act each time. */
const waiting = (act: Act, afterMs: number): Act =>
  keptIn(
    keptIn(waitingActs, act, () => new Map<number, Act>()),
    afterMs,
    (): Act => ({ ...act, afterMs }),
  );

const isTurnedOver = (way: Way): way is Extract<Way, { by: 'toggle' | 'pulse' }> =>
  way.by === 'toggle' || way.by === 'pulse';

interface Slot {
  readonly caller: Caller;
  readonly contents: Record<string, Value | undefined>;
  sent: Sent[];
}

const use = (rig: Rig, slot: Slot, way: Way, want: Wanted, target: Target, wants: Wants): void => {
  if (way.by === 'stored') {
    if (target.name !== slot.caller.memory.control) slot.contents[target.name] = want.value;
  } else if (way.by === 'contact')
    slot.contents[way.control] = String(way.sets.closed) === String(want.value) ? way.closed : way.open;
  else if (
    isTurnedOver(way)
      ? mustTurnOver(rig, want, target, wants, way.values)
      : way.by === 'program' || programHolds(rig, want, target, wants) !== 'surely'
  ) {
    const { sent } = sentOver(rig, way, want);
    if (sent && (way.by !== 'clock' || !slot.sent.some(({ act }) => isSameTempo(act, sent.act)))) slot.sent.push(sent);
  }
};

const isSameTempo = (a: Act, b: Act): boolean =>
  'send' in a && 'send' in b && 'bpm' in a.send && 'bpm' in b.send && a.at === b.at && a.send.bpm === b.send.bpm;

const sentBefore = new WeakMap<Way, Map<Value, { readonly sent: Sent | undefined }>>();
/** All sounds that want the same value in the same way send the very same act. */
const sentOver = (rig: Rig, way: SendingWay, want: Wanted): { readonly sent: Sent | undefined } =>
  keptIn(
    keptIn(sentBefore, way, () => new Map<Value, { readonly sent: Sent | undefined }>()),
    want.value,
    () => ({ sent: messageFor(rig, way, want) }),
  );

type SendingWay = Exclude<Way, { by: 'stored' | 'contact' }>;

const messageFor = (rig: Rig, way: SendingWay, want: Wanted): Sent | undefined => {
  const { device: id, name } = splitRef(want.control);
  const device = thePart(rig, id);
  const sent = (act: Act, text: string, rank: number): Sent => ({ act, rank, meant: { device: id, text } });
  switch (way.by) {
    case 'program': {
      const number = Number(want.value);
      const memory = theOne(device.memories, (m) => m.control === name);
      const bank = number >> 7;
      return sent(
        {
          send: { pc: number & 0x7f, channel: way.channel, ...(bank || memory.size > 128 ? { bank } : {}) },
          at: way.at,
        },
        `program ${shown(memory.shows, number)}`,
        0,
      );
    }
    case 'cc': {
      const value = controllerValue(rig, way.act, want);
      return value === undefined
        ? undefined
        : sent(
            { send: { cc: way.number, value, channel: way.channel }, at: way.at },
            valueMeant(rig, device, want),
            memoryChosenBy(device, name) ? 1 : 2,
          );
    }
    case 'clock':
      return typeof want.value === 'number'
        ? sent({ send: { bpm: want.value }, at: way.at }, `tempo ${want.value}`, 2)
        : undefined;
    case 'toggle':
      return sent(
        { send: { cc: way.number, value: 127, channel: way.channel }, at: way.at },
        `turns ${nameOf(rig, want.control)} over`,
        3,
      );
    case 'pulse':
      return sent({ pulse: way.jack }, `turns ${nameOf(rig, want.control)} over`, 3);
  }
};

const valueMeant = (rig: Rig, device: Device, { control, value }: Wanted): string => {
  const memory = memoryChosenBy(device, splitRef(control).name);
  return `${nameOf(rig, control)} ${memory ? shown(memory.shows, Number(value)) : value}`;
};

const nameOf = (rig: Rig, control: Ref): string => controlAt(rig, control)?.name ?? splitRef(control).name;

/** The value of a control change that brings the wanted value; undefined when this message cannot. */
export const controllerValue = (
  rig: Rig,
  act: Act,
  want: { readonly control: Ref; readonly value: Value },
): number | undefined => {
  if ('map' in act) {
    const range = act.map.find(([, , set]) => String(set) === String(want.value));
    return range && (range[1] === 127 ? 127 : range[0]);
  }
  if ('scale' in act && typeof want.value === 'number') {
    const byte = byteFor(want.value, act.scale);
    return scaledValue(byte, act.scale, stepOf(controlAt(rig, want.control))) === want.value
      ? byte
      : byteFor(want.value, act.scale);
  }
  return 'set' in act && String(act.set) === String(want.value) ? 127 : undefined;
};

interface Holder {
  readonly memory: Memory;
  readonly program: Program | undefined;
}

/**
 * The program of the control's own box that the same sound calls, when that box stores the control; the scene in it,
 * where one is called that stores it too.
 */
const holderOf = (rig: Rig, { device, heldIn }: Target, wants: Wants): Holder | undefined => {
  const called = heldIn.flatMap(({ memory, loaded }) => {
    const want = wants.called(loaded);
    return want ? [{ memory, want }] : [];
  });
  const last = called.find(({ memory }) => memory.inside !== undefined) ?? called[0];
  if (!last) return undefined;
  const { memory, want } = last;
  return keptIn(wants.holders, want, () => {
    const box = surely(device);
    const outer = memoryIn(box, memory.inside);
    const around = outer && wants.called(ref(box.id, outer.control));
    return { memory, program: programAt(rig, box.id, memory.id, want.value, around && Number(around.value)) };
  });
};

/**
 * Whether the called program brings the value by itself. A control change may be left out only if calling the same
 * program
 * again reloads it; recall goes before saving a message.
 */
const programHolds = (rig: Rig, want: Wanted, target: Target, wants: Wants): 'surely' | 'if it loads' | 'not' => {
  const holder = holderOf(rig, target, wants);
  const contents = holder?.program?.contents;
  if (!holder || !contents || contents === 'unplanned') return 'not';
  const held = contents[target.name];
  if (held !== want.value && String(held) !== String(want.value)) return 'not';
  return holder.memory.again === 'reloads' ? 'surely' : 'if it loads';
};

/**
 * A toggle is sent when the called program leaves the other value behind; without one, when the wanted value is not
 * how the box rests.
 */
const mustTurnOver = (
  rig: Rig,
  want: Wanted,
  target: Target,
  wants: Wants,
  values: readonly [Value, Value],
): boolean => {
  const holder = holderOf(rig, target, wants);
  const contents = holder?.program?.contents;
  const before = contents && contents !== 'unplanned' ? contents[target.name] : restingOf(rig, want.control);
  return values.some((v) => String(v) === String(want.value)) && String(before) !== String(want.value);
};

const restingOf = (rig: Rig, control: Ref): Value | undefined => {
  const found = controlAt(rig, control);
  return found && restingValue(found);
};

const footReaches = (rig: Rig, control: Ref): boolean => {
  const { device, name } = splitRef(control);
  return (
    partOf(rig, device)?.actuators.some(
      (a) => 'foot' in a.by && a.acts.some((act) => 'control' in act && act.control === name),
    ) ?? false
  );
};

/** Acts that bring one value about from the controller, for a move's lists; undefined when only a hand can. */
export const actsFor = (
  rig: Rig,
  finder: WayFinder,
  caller: { device: Id<'device'>; memory: Memory },
  control: Ref,
  value: Value,
): readonly Act[] | undefined => {
  const way = finder
    .from(
      caller.device,
      caller.memory,
    )(control)
    .find((w) => brings(rig, w, { control, value }));
  const { name } = splitRef(control);
  switch (way?.by) {
    case undefined:
      return undefined;
    case 'stored':
      return [{ control: name, set: value }];
    case 'contact':
      return [{ control: way.control, set: String(way.sets.closed) === String(value) ? way.closed : way.open }];
    case 'program':
      return [{ send: { pc: Number(value) & 0x7f, channel: way.channel }, at: way.at }];
    case 'cc': {
      const byte = controllerValue(rig, way.act, { control, value });
      return byte === undefined
        ? undefined
        : [{ send: { cc: way.number, value: byte, channel: way.channel }, at: way.at }];
    }
    case 'toggle':
      return [{ send: { cc: way.number, value: 127, channel: way.channel }, at: way.at }];
    case 'pulse':
      return [{ pulse: way.jack }];
  }
};
