import { callFits } from '../intend/wants.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import type { Assign, Program, Sweep } from '../../rig/program.js';
import { keptIn, once } from '../../kept/kept.js';
import { all, partOf, programAt, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Act } from '../../rig/act.js';
import { mannerOf, wantTarget, type Manner, type Move, type Sound, type Want } from '../../rig/sound.js';
import { allows, type Value } from '../../rig/value.js';
import { actsFor, actuate, withWaits, type Caller } from './actuate.js';
import { touched } from './touched.js';
import type { Compiled, HandMove, StoredSlot } from '../intend/compiled.js';
import { valueAgainst, valueFor } from '../intend/gates.js';
import type { Bearings } from './bearings.js';
import { intend, type Intention } from '../intend/intend.js';
import { overRelays } from './relays.js';
import type { WayFinder } from './ways.js';
import { sweepsFor, sweepsOf } from './pedals.js';
import { isDialled, onTopOf } from '../../signal/graph/state.js';
import { USUAL_DISTURBANCES } from '../../rig/hookup.js';
import { surely, theFirst } from '../../known/the.js';
import { controlAt, memoryIn } from '../../rig/box.js';

export interface Compilation {
  readonly bearings: Bearings;
  readonly sounds: ReadonlyMap<Id<'sound'>, Compiled>;
  /**
   * Controls that nothing but a hand or foot changes and that all sounds want alike: set once and left alone, taken
   * for granted.
   */
  readonly leftAlone: ReadonlyMap<Ref, Value>;
  /** By sound, the controls that serve over a range and stay in it: nobody has to set them. */
  readonly spared?: ReadonlyMap<Id<'sound'>, ReadonlySet<Ref>>;
}

/** From each sound's wants to what every controller stores; what no controller reaches becomes a hand move. */
export const compile = (b: Bearings, before?: ReadonlyMap<Id<'sound'>, Compiled>): Compilation => {
  const compiled = new Map<Id<'sound'>, Compiled>();
  for (const sound of soundsInOrder(b.rig)) compiled.set(sound.id, before?.get(sound.id) ?? compileSound(b, sound));
  return { bearings: b, sounds: compiled, leftAlone: agreedHands(b, [...compiled.values()]) };
};

export const compileSound = (b: Bearings, sound: Sound): Compiled => {
  const intention = intend(b.rig, b.anatomy, b.grounds, sound);
  const callers = callersOf(b, sound);
  const pedals = sweepsOf(b, callers, intention.pedals.values());
  const relays = overRelays(b, callers, intention.wants);
  const wanted = relays.wants.length
    ? new Map([...intention.wants, ...relays.wants.map((w) => [w.control, w] as const)])
    : intention.wants;
  const apart = new Set(relays.reached);
  for (const c of callers) apart.add(ref(c.device.id, c.memory.control));
  const { slots, hand, toggled } = actuate(b.rig, b.finder, callers, wanted, apart);
  return {
    sound: sound.id,
    wants: [...wanted.values()],
    hand,
    stored: slots.map(({ caller, contents, sent }) =>
      storedSlot(b, sound, caller, contents, sent, intention, sweepsFor(pedals, caller)),
    ),
    state: relays.wants.length
      ? onTopOf(intention.state, new Map(relays.wants.map((w) => [w.control, w.value])))
      : intention.state,
    trace: intention.trace,
    heard: intention.heard,
    problems: intention.problems,
    toggled,
    pedals,
  };
};

const plannedId = ({ device, memory, slot, of }: Caller): Id<'program'> =>
  `program:planned-${device.id.slice('device:'.length)}-${of === undefined ? slot : `${memory.id}-${of}-${slot}`}`;

const callersOf = (b: Bearings, sound: Sound): readonly Caller[] => {
  const calls = sound.calls.filter((c) => callFits(b.rig, c, b.hookup.id));
  return calls.flatMap((call): Caller[] => {
    const device = partOf(b.rig, call.device);
    const memory = memoryIn(device, call.memory);
    if (!device || !memory) return [];
    const of = calls.find((c) => c.device === call.device && c.memory === memory.inside)?.slot;
    return [{ device, memory, slot: call.slot, ...(of === undefined ? {} : { of }) }];
  });
};

type Sent = ReturnType<typeof actuate>['slots'][number]['sent'];

const storedSlot = (
  b: Bearings,
  sound: Sound,
  caller: Caller,
  contents: Readonly<Record<string, Value>>,
  sent: Sent,
  intention: Intention,
  sweeps: readonly Sweep[],
): StoredSlot => {
  const standing = programAt(b.rig, caller.device.id, caller.memory.id, caller.slot, caller.of);
  const typed = standing?.contents === 'unplanned' ? undefined : standing;
  const assigns = all(b.rig, 'move').flatMap((move) => assignOf(b, sound, move, caller, intention));
  const planned: Program = {
    kind: 'program',
    id: plannedId(caller),
    device: caller.device.id,
    memory: caller.memory.id,
    number: caller.slot,
    ...(caller.of === undefined ? {} : { of: caller.of }),
    name: sound.display ?? sound.name,
    contents,
    acts: sent.map((s) => s.act),
    assigns,
    ...(sweeps.length ? { sweeps } : {}),
  };
  const meant = sent.map((s) => s.meant);
  return typed
    ? { program: { ...typed, assigns: typed.assigns.length ? typed.assigns : assigns }, typed: true, meant }
    : { program: planned, typed: false, meant };
};

/** What a move would give back, but the sound says nothing of it: how it was dialled in is not known here. */
const isLeftOpen = (b: Bearings, { wants }: Intention, control: Ref): boolean => {
  const found = controlAt(b.rig, control);
  return found !== undefined && isDialled(found) && !wants.has(control);
};

/** What a move's switch does in this sound. Without an off list it gives back what the sound wants. */
const assignOf = (b: Bearings, sound: Sound, move: Move, caller: Caller, intention: Intention): readonly Assign[] => {
  if (move.sounds !== 'all' && !move.sounds.includes(sound.id)) return [];
  const lists = caller.memory.inside === undefined ? listsOf(b, move, caller) : undefined;
  if (!lists) return [];
  const { assign, givesBack } = lists;
  return [
    givesBack
      ? {
          ...assign,
          off: actsFrom(
            b,
            caller,
            givesBack
              .filter((control) => !isLeftOpen(b, intention, control))
              .map((control) => [control, surely(intention.state.get(control))]),
          ),
        }
      : assign,
  ];
};

type Settings = readonly (readonly [Ref, Value])[];

/** What a move's switch does on one controller, whatever the sound. */
interface MoveLists {
  readonly assign: Assign;
  /** Without an off list: what it gives back as the sound wants it. */
  readonly givesBack: readonly Ref[] | undefined;
}

/** Whether a controller remembers that a switch was pressed, to do the other list the next time. */
const LATCHES: Readonly<Record<Manner, boolean>> = { latched: true, 'while held': false, 'one way': true };

const moveLists = new WeakMap<WayFinder, Map<Ref, Map<Move, MoveLists | 'elsewhere'>>>();

const listsOf = (b: Bearings, move: Move, caller: Caller): MoveLists | undefined => {
  const known = keptIn(
    keptIn(moveLists, b.finder, () => new Map<Ref, Map<Move, MoveLists | 'elsewhere'>>()),
    ref(caller.device.id, caller.memory.id),
    () => new Map<Move, MoveLists | 'elsewhere'>(),
  );
  const lists = keptIn(known, move, () => {
    const place = move.at.find((a) => a.device === caller.device.id)?.switch;
    if (place === undefined) return 'elsewhere';
    const on = move.on.flatMap((w) => valuesOf(b, w));
    const assign: Assign = {
      switch: place,
      latch: LATCHES[mannerOf(move)],
      on: actsFrom(b, caller, on),
      off: actsFrom(
        b,
        caller,
        move.off.flatMap((w) => valuesOf(b, w)),
      ),
      afterLoad: 'off',
    };
    return { assign, givesBack: move.off.length ? undefined : on.map(([control]) => control) };
  });
  return lists === 'elsewhere' ? undefined : lists;
};

/** What a controller does to bring values about, with waits where a box would not hear yet. */
const actsFrom = (b: Bearings, caller: Caller, values: Settings): readonly Act[] => {
  const sent = values.flatMap(([control, value]) =>
    (actsFor(b.rig, b.finder, { device: caller.device.id, memory: caller.memory }, control, value) ?? []).map(
      (act) => ({ act, to: splitRef(control).device }),
    ),
  );
  return (caller.memory.limits?.waits === false ? sent : withWaits(b.rig, sent, (s) => s.to)).map((s) => s.act);
};

/** The control values behind one want of a move. */
export const valuesOf = (b: Bearings, want: Want): readonly (readonly [Ref, Value])[] => {
  if (!('stage' in want)) return 'is' in want ? [[wantTarget(want), want.is]] : [];
  const stage = b.anatomy.stages.get(want.stage);
  if (!stage) return [];
  const facts = [
    ...stage.inserts.map((l) => ({ device: l.device, fact: l.insert.on?.[0] })),
    ...(want.is === 'in' || stage.inserts.length === 0
      ? (stage.block.on ?? []).map((fact) => ({ device: stage.device, fact }))
      : []),
  ];
  return facts.flatMap(({ device, fact }) => {
    if (!fact || !('control' in fact)) return [];
    const control = ref(device, fact.control);
    if (b.grounds.given.has(control)) return [];
    const value = want.is === 'in' ? valueFor(fact, controlAt(b.rig, control)) : valueAgainst(b.rig, control, fact);
    return value === undefined ? [] : [[control, value] as const];
  });
};

const agreedHands = (b: Bearings, compiled: readonly Compiled[]): ReadonlyMap<Ref, Value> => {
  const moved = touched(b, compiled);
  const { powerCycle } = b.hookup.admits ?? USUAL_DISTURBANCES;
  const forgets = (control: Ref, wanted: Value): boolean => {
    const wakes = controlAt(b.rig, control)?.powerUp;
    return powerCycle && typeof wakes === 'object' && String(wakes.at) !== String(wanted);
  };
  const byControl = new Map<Ref, HandMove[]>();
  for (const { hand } of compiled)
    for (const move of hand) keptIn(byControl, move.control, (): HandMove[] => []).push(move);
  return new Map(
    [...byControl].flatMap(([control, moves]): readonly (readonly [Ref, Value])[] => {
      const { value } = moves.find((move) => !move.within) ?? theFirst(moves);
      return moves.every((move) => isServedBy(move, value)) && !moved.has(control) && !forgets(control, value)
        ? [[control, value]]
        : [];
    }),
  );
};

/** Whether a move has nothing left to do where its control stands so. */
export const isServedBy = ({ value, within }: HandMove, stands: Value | undefined): boolean =>
  String(stands) === String(value) || (within !== undefined && stands !== undefined && allows(within, stands));

/** A program that a person chooses on its box: it brings all that it holds, and counts as one move. */
export interface HandChosen {
  readonly device: Device;
  readonly memory: Memory;
  readonly number: number;
}

/**
 * Programs that somebody chooses on the boxes themselves for a sound, before it is stomped; those that belong to
 * others after those around them.
 */
export const chosenByHand = (c: Compilation, sound: Id<'sound'>): readonly HandChosen[] =>
  (c.sounds.get(sound)?.hand ?? NO_HANDS)
    .flatMap((move): readonly HandChosen[] => {
      const chosen = choosers(c.bearings.rig.parts.device).get(move.control);
      return chosen && isProper(c, sound, move) ? [{ ...chosen, number: Number(move.value) }] : [];
    })
    .sort((a, b) => Number(a.memory.inside !== undefined) - Number(b.memory.inside !== undefined));

/** Controls that say which program of a box is loaded. */
const choosers = once(
  (devices: Rig['parts']['device']): ReadonlyMap<Ref, Omit<HandChosen, 'number'>> =>
    new Map(
      [...devices.values()].flatMap((device) =>
        device.memories.map((memory) => [ref(device.id, memory.control), { device, memory }] as const),
      ),
    ),
);

/** Hand moves proper: what differs from sound to sound and only a hand or foot reaches. */
export const handMoves = (c: Compilation, sound: Id<'sound'>): readonly HandMove[] =>
  properMoves(c).get(sound) ?? NO_HANDS;

const properMoves = once(
  (c: Compilation): ReadonlyMap<Id<'sound'>, readonly HandMove[]> =>
    new Map([...c.sounds].map(([id, { hand }]) => [id, hand.filter((move) => isProper(c, id, move))])),
);

const isProper = (c: Compilation, sound: Id<'sound'>, { control }: HandMove): boolean =>
  !c.leftAlone.has(control) && !c.spared?.get(sound)?.has(control);

const NO_HANDS: readonly HandMove[] = [];
