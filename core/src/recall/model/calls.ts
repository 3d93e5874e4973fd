import type { Device, Memory } from '../../rig/device.js';
import { ref, type Id } from '../../rig/ids.js';
import { type Program } from '../../rig/program.js';
import { keptIn, once } from '../../kept/kept.js';
import { all } from '../../rig/rig.js';
import { pluggedBoxes, type Bearings } from '../actuate/bearings.js';
import { type Compilation } from '../actuate/compile.js';
import { askedIn } from './asked.js';
import { isOther, UNKNOWN } from './domains.js';
import type { Effects, ModelTools } from './effects.js';
import { type ModelMemory } from './model-memory.js';
import { shelfKey, type Shelf } from './shelf.js';
import { type Happening } from './happenings.js';
import { memoryIn } from '../../rig/box.js';

/** Stomps that call only part of a sound: states that feet reach as well, whatever else is reckoned with. */
export const callsByHalf = (c: Compilation, shelf: Shelf): readonly Program[] => {
  const { whole, parts, controllers } = calledIn(c);
  const uncalled = [...shelf.values()].filter(
    (p) => controllers.has(`${p.device} ${p.memory}`) && !whole.has(p) && p.contents !== 'unplanned',
  );
  const halves = [...new Set([...parts, ...uncalled])].filter((p) => !whole.has(p));
  return [...new Map(halves.map((p) => [callId(p.device, p.memory, p.number), p])).values()];
};

/** Programs that are a sound by themselves, those that are a part of one, and the memories that hold them. */
export const calledIn = once((c: Compilation) => {
  const [whole, parts, controllers] = [new Set<Program>(), new Set<Program>(), new Set<string>()];
  for (const { stored } of c.sounds.values()) {
    for (const { program } of stored) {
      controllers.add(`${program.device} ${program.memory}`);
      (stored.length === 1 ? whole : parts).add(program);
    }
  }
  return { whole, parts, controllers };
});

/** Where a foot or hand on a box itself can call a slot: numbers of its memory, as far as they fit. */
export const footCalls = once((device: Device): ReadonlyMap<Memory, ReadonlySet<number>> => {
  const found = new Map<Memory, Set<number>>();
  for (const { by, acts } of device.actuators) {
    if (!('foot' in by || 'hand' in by)) continue;
    for (const act of acts) {
      const memory = 'load' in act ? memoryIn(device, act.load) : undefined;
      if (!memory || !('load' in act) || act.slot === 'value') continue;
      const { slot } = act;
      const numbers = typeof slot === 'number' ? [slot] : slot.banks.map((_, i) => i * slot.size + slot.plus);
      for (const n of numbers) if (n < memory.size) keptIn(found, memory, () => new Set<number>()).add(n);
    }
  }
  return found;
});

/**
 * Slots that a foot can call and no sound does: those that somebody wrote down, and one that is empty for all that
 * are.
 */
export const otherCalls = (
  c: Compilation,
  { domains, shelf, effects }: ModelTools,
  halves: ReadonlySet<Program>,
  kept: ModelMemory,
): readonly Happening[] => {
  const b = c.bearings;
  const plugged = pluggedBoxes(b.anatomy);
  const { whole } = calledIn(c);
  return all(b.rig, 'device')
    .filter((d) => plugged.has(d.id))
    .flatMap((device) =>
      [...footCalls(device)].flatMap(([memory, numbers]) => {
        const loaded = ref(device.id, memory.control);
        if (memory.inside !== undefined)
          return callEach(
            device,
            memory,
            [...numbers].filter(
              (n) => ![...halves].some((p) => p.device === device.id && p.memory === memory.id && p.number === n),
            ),
            effects,
          );
        const empty = new Map<string, number[]>();
        const written: number[] = [];
        for (const n of numbers) {
          const program = shelf.get(shelfKey(device.id, memory.id, n));
          if (!program) keptIn(empty, domains.named(loaded, n), () => []).push(n);
          else if (!whole.has(program) && !halves.has(program)) written.push(n);
        }
        const named = [...empty].flatMap(([name, those]) => (isOther(name) ? [] : those));
        const unnamed = [...empty].flatMap(([name, those]) => (isOther(name) ? [those] : []));
        const key = `feet call ${device.id}.${memory.id} ${[...written, ...named, ...unnamed.flat()].join()} ${written.map((n) => kept.tag(shelf.get(shelfKey(device.id, memory.id, n)))).join()}`;
        return kept.keep(key, () => [
          ...callEach(device, memory, [...written, ...named], effects),
          ...unnamed.flatMap((those) => callEmpty(b, device, memory, those, effects)),
        ]);
      }),
    );
};

/** With more of them what an empty slot leaves is just not known. */
const MOST_HELD = 64;

/**
 * A foot calls a slot that nobody wrote anything down for: once for each way in which it may leave what other things
 * rest on.
 */
const callEmpty = (
  b: Bearings,
  device: Device,
  memory: Memory,
  [slot, or]: readonly number[],
  effects: Effects,
): readonly Happening[] => {
  if (slot === undefined) return [];
  const asked = memory.stores.filter(
    (s) => s !== memory.control && askedIn(b, device).has(s) && effects.isVariable(ref(device.id, s)),
  );
  const held = asked.reduce<Readonly<Record<string, string>>[]>(
    (before, s) => before.flatMap((one) => effects.knownValues(ref(device.id, s)).map((v) => ({ ...one, [s]: v }))),
    [{}],
  );
  const ways = held.length <= MOST_HELD ? held : [Object.fromEntries(asked.map((s) => [s, UNKNOWN]))];
  return ways.map((holds, i): Happening => [
    {
      id: `${callId(device.id, memory.id, slot)}${i ? `:${i}` : ''}`,
      acts: effects.loads.loadAsIf(device, memory, slot, holds),
    },
    {
      does: 'call',
      device: device.id,
      memory: memory.id,
      slot,
      ...(or === undefined ? {} : { or }),
      ...(asked.length && ways.length > 1 ? { holds } : {}),
    },
  ]);
};

export const callId = (device: Id<'device'>, memory: string, slot: number): string =>
  `call:${device}:${memory === 'slots' ? '' : `${memory}:`}${slot}`;

export const callEach = (
  device: Device,
  memory: Memory,
  numbers: readonly number[],
  effects: Effects,
): readonly Happening[] =>
  numbers.map((slot): Happening => [
    { id: callId(device.id, memory.id, slot), acts: effects.loads.load(device, memory, slot, []) },
    { does: 'call', device: device.id, memory: memory.id, slot },
  ]);
