import { freeCode, makeDevice } from '../catalogue/make.js';
import type { Edit } from '../change/edit.js';
import { controlIn, type Block, type Device, type Jack, type Memory, type Slot } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { ref, splitRef, theRef, type AnyId, type Id, type Ref } from '../rig/ids.js';
import { inDomain } from '../rig/domain.js';
import type { Program } from '../rig/program.js';
import { all, partOf, type Part, type Rig } from '../rig/rig.js';
import { wantTarget, type Call, type Move, type Sound, type Want } from '../rig/sound.js';
import type { Value } from '../rig/value.js';
import { jackIn, memoryIn } from '../rig/box.js';

export interface Replacement {
  readonly edit: Edit;
  readonly device: Device;
  /** What goes over to the new box, as counts. */
  readonly follows: { readonly cables: number; readonly sounds: number; readonly programs: number };
  /** What has no place in the new box and is let go, in words. */
  readonly lost: readonly string[];
}

const blocksOf = (slots: readonly Slot[]): readonly Block[] =>
  slots.flatMap((s) => (s.is === 'block' ? [s] : s.is === 'fork' ? s.arms.flatMap((a) => blocksOf(a.slots)) : []));
const stagesOf = (device: Device): readonly Block[] => device.chains.flatMap((c) => blocksOf(c.slots));

/** `in-l` and `in` are the same jack to a person who plugs one lead. */
const stem = (jack: string): string => jack.replace(/(-l|-r|1)$/, '');

/** For each plugged jack of the old box the jack of the new one that serves in its place. */
const jackMap = (old: Device, made: Device, plugged: readonly string[]): ReadonlyMap<string, string> => {
  const map = new Map<string, string>();
  const suits = (a: Jack, b: Jack) =>
    a.kind === b.kind && a.poles.tip === b.poles.tip && (a.level === 'speaker') === (b.level === 'speaker');
  const rounds: readonly ((a: Jack, b: Jack) => boolean)[] = [
    (a, b) => a.id === b.id,
    (a, b) => stem(a.id) === stem(b.id),
    () => true,
  ];
  for (const alike of rounds) {
    for (const id of plugged) {
      const jack = jackIn(old, id);
      if (!jack || map.has(id)) continue;
      const found = made.jacks.find((j) => suits(jack, j) && alike(jack, j) && ![...map.values()].includes(j.id));
      if (found) map.set(id, found.id);
    }
  }
  return map;
};

/** The same stage by name, else by what it does, else the only one there is. */
const stageMap = (old: Device, made: Device): ReadonlyMap<string, string> => {
  const [from, to] = [stagesOf(old), stagesOf(made)];
  return new Map(
    from.flatMap((block): [string, string][] => {
      const same =
        to.find((b) => b.id === block.id) ??
        to.find((b) => b.stage === block.stage) ??
        (from.length === 1 && to.length === 1 ? to[0] : undefined);
      return same ? [[block.id, same.id]] : [];
    }),
  );
};

/** Where two stages became one, such as the channels of an amp, it is in when either was. */
const asOne = (wants: readonly Want[]): readonly Want[] => {
  const kept = new Map<string, Want>();
  for (const want of wants) {
    const key = `${wantTarget(want)} ${JSON.stringify(want.in ?? {})}`;
    if (!kept.has(key) || ('stage' in want && want.is === 'in')) kept.set(key, want);
  }
  return [...kept.values()];
};

/** An old box, the new one in its place, and what goes by the same name in both. */
interface Exchange {
  readonly rig: Rig;
  readonly old: Device;
  readonly device: Device;
  readonly stages: ReadonlyMap<string, string>;
  readonly mine: (r: string) => boolean;
  /** The new box has such a control, and it can stand so. */
  readonly hasControl: (name: string, value?: Value) => boolean;
}

/** What becomes of one kind of part. */
interface Outcome {
  readonly put: readonly Part[];
  readonly remove: readonly AnyId[];
  readonly lost: readonly string[];
  /** How many of them follow the new box. */
  readonly follows: number;
}

/**
 * Another box in the place of one: cables, sounds, moves, programs and settings follow where the new box has a place
 * for them; what has none is listed.
 * @throws when the catalogue has no such box
 */
export const replaceDevice = (rig: Rig, id: Id<'device'>, key: string): Replacement | undefined => {
  const old = partOf(rig, id);
  if (!old) return undefined;
  const device = inPlaceOf(rig, old, key);
  const exchange: Exchange = {
    rig,
    old,
    device,
    stages: stageMap(old, device),
    mine: (r) => splitRef(r).device === id,
    hasControl: (name, value) => {
      const found = controlIn(device, name);
      return found !== undefined && (value === undefined || inDomain(found, value));
    },
  };
  const cables = cablesAfter(exchange);
  const sounds = soundsAfter(exchange);
  const programs = programsAfter(exchange);
  const parts = [cables, sounds, movesAfter(exchange), programs, ticksAfter(exchange), hookupsAfter(exchange)];
  return {
    edit: { put: [device, ...parts.flatMap((p) => p.put)], remove: parts.flatMap((p) => p.remove) },
    device,
    follows: { cables: cables.follows, sounds: sounds.follows, programs: programs.follows },
    lost: parts.flatMap((p) => p.lost),
  };
};

/** The new box under the old one's id, with its place and its channel. */
const inPlaceOf = (rig: Rig, old: Device, key: string): Device => {
  const made = makeDevice(key, old.id);
  const others = all(rig, 'device').filter((d) => d.id !== old.id);
  const channel = old.midi?.channel;
  return {
    ...made,
    code: freeCode(
      made.code,
      others.map((d) => d.code),
    ),
    ...(old.at === undefined ? {} : { at: old.at }),
    ...(made.midi && typeof channel === 'number' ? { midi: { ...made.midi, channel } } : {}),
  };
};

const cablesAfter = (exchange: Exchange): Outcome => {
  const { rig, mine } = exchange;
  const outcomes = all(rig, 'hookup').map((hookup) => {
    const cables = all(rig, 'cable').filter((c) => c.hookup === hookup.id && c.ends.some(mine));
    const named = cables.flatMap((c) => c.ends.filter(mine).map((end) => splitRef(end).name));
    const jacks = jackMap(exchange.old, exchange.device, named);
    return together(cables.map((cable) => cableAfter(exchange, cable, jacks, hookup.name)));
  });
  return together(outcomes);
};

const cableAfter = (
  { device, mine }: Exchange,
  cable: Cable,
  jacks: ReadonlyMap<string, string>,
  hookup: string,
): Outcome => {
  const jackAt = (end: Ref): Ref | undefined => {
    if (!mine(end)) return end;
    const jack = jacks.get(splitRef(end).name);
    return jack === undefined ? undefined : ref(device.id, jack);
  };
  const [a, b] = [jackAt(cable.ends[0]), jackAt(cable.ends[1])];
  if (a === undefined || b === undefined) {
    const at = cable.ends.filter(mine).map((end) => splitRef(end).name);
    return { put: [], remove: [cable.id], lost: [`the cable at ${at.join(' and ')} in ${hookup}`], follows: 0 };
  }
  const isElsewhere = a !== cable.ends[0] || b !== cable.ends[1];
  return { put: isElsewhere ? [{ ...cable, ends: [a, b] }] : [], remove: [], lost: [], follows: 1 };
};

const together = (outcomes: readonly Outcome[]): Outcome => ({
  put: outcomes.flatMap((o) => o.put),
  remove: outcomes.flatMap((o) => o.remove),
  lost: outcomes.flatMap((o) => o.lost),
  follows: outcomes.reduce((sum, o) => sum + o.follows, 0),
});

const stageAfter = ({ mine, stages, device }: Exchange, r: Ref): Ref | undefined => {
  if (!mine(r)) return r;
  const to = stages.get(splitRef(r).name);
  return to === undefined ? undefined : ref(device.id, to);
};

/** Wants as they stand with the new box; what has no place in it is told to `gone`. */
const wantsAfter = (exchange: Exchange, wants: readonly Want[], gone: (want: Want) => void): readonly Want[] => {
  const { mine, hasControl } = exchange;
  const hasPedal = (want: Want): boolean =>
    !('pedal' in want) || !mine(want.pedal) || hasControl(splitRef(want.pedal).name);
  return asOne(
    wants.flatMap((want): Want[] => {
      if ('stage' in want) {
        const stage = stageAfter(exchange, want.stage);
        if (!stage) gone(want);
        return stage ? [{ ...want, stage }] : [];
      }
      const target = wantTarget(want);
      const stays = !mine(target) || hasControl(splitRef(target).name, 'is' in want ? want.is : undefined);
      if (!stays) gone(want);
      return stays && hasPedal(want) ? [want] : [];
    }),
  );
};

const isOther = (next: Part, before: Part): boolean => JSON.stringify(next) !== JSON.stringify(before);

const soundsAfter = (exchange: Exchange): Outcome => {
  const taken = new Set<string>();
  return together(all(exchange.rig, 'sound').map((sound) => soundAfter(exchange, sound, taken)));
};

/** @param taken places of the new box that sounds before this one call; a sound that loses its scene may find it there */
const soundAfter = (exchange: Exchange, sound: Sound, taken: Set<string>): Outcome => {
  const { mine } = exchange;
  const gone = new Set<string>();
  const wants = wantsAfter(exchange, sound.wants, (want) => gone.add(splitRef(wantTarget(want)).name));
  const calls = callsAfter(exchange, sound.calls, taken);
  if (calls.length < sound.calls.length) gone.add('its slot');
  const order = sound.order && [...new Set(sound.order.flatMap((r) => stageAfter(exchange, r) ?? []))];
  const hears = sound.hears?.filter((h) => !mine(h.at) && !mine(h.from));
  const next: Sound = { ...sound, wants, calls, ...(order ? { order } : {}), ...(hears ? { hears } : {}) };
  return {
    put: isOther(next, sound) ? [next] : [],
    remove: [],
    lost: gone.size ? [`${[...gone].join(', ')} in “${sound.name}”`] : [],
    follows: gone.size === 0 && sound.wants.some((w) => mine(wantTarget(w))) ? 1 : 0,
  };
};

const callsAfter = ({ old, device }: Exchange, calls: readonly Call[], taken: Set<string>): readonly Call[] => {
  const found = calls.flatMap((call): Call[] => {
    if (call.device !== device.id) return [call];
    const memory = memoryLike(device, memoryIn(old, call.memory), call.memory);
    return memory && call.slot < memory.size ? [{ ...call, memory: memory.id }] : [];
  });
  const own = found.filter((c) => c.device === device.id);
  const place = own.map((c) => `${c.memory} ${c.slot} ${JSON.stringify(c.in ?? {})}`).join();
  if (own.length === 0 || !taken.has(place)) {
    taken.add(place);
    return found;
  }
  return found.filter((c) => c.device !== device.id);
};

const movesAfter = (exchange: Exchange): Outcome =>
  together(all(exchange.rig, 'move').map((move) => moveAfter(exchange, move)));

const moveAfter = (exchange: Exchange, move: Move): Outcome => {
  const { device } = exchange;
  const gone = new Set<string>();
  const note = (want: Want) => gone.add(splitRef(wantTarget(want)).name);
  const switches = new Set(device.memories.flatMap((m) => (m.assignable ?? []).map((s) => s.switch)));
  const at = move.at.filter((a) => a.device !== device.id || switches.has(a.switch));
  if (at.length < move.at.length) gone.add('its switch');
  const next: Move = {
    ...move,
    at,
    on: wantsAfter(exchange, move.on, note),
    off: wantsAfter(exchange, move.off, note),
  };
  const lost = gone.size ? [`${[...gone].join(', ')} in the move “${move.name}”`] : [];
  return { put: isOther(next, move) ? [next] : [], remove: [], lost, follows: 0 };
};

const programsAfter = (exchange: Exchange): Outcome =>
  together(
    all(exchange.rig, 'program')
      .filter((p) => p.device === exchange.device.id)
      .map((program) => programAfter(exchange, program)),
  );

const programAfter = ({ old, device, hasControl }: Exchange, program: Program): Outcome => {
  const before = memoryIn(old, program.memory);
  const calledBy = before?.by;
  const memory = memoryLike(device, before, program.memory);
  const { contents } = program;
  const aroundIt = memoryIn(device, memory?.inside);
  const hasPlace = memory && program.number < memory.size && (program.of ?? 0) < (aroundIt?.size ?? Infinity);
  if (!hasPlace || contents === 'unplanned')
    return { put: [], remove: [program.id], lost: [`program “${program.name}”`], follows: 0 };
  const held = Object.entries(contents).filter(([c, v]) => memory.stores.includes(c) && hasControl(c, v));
  const left = Object.keys(contents).filter((c) => !held.some(([kept]) => kept === c));
  // What a controller stores is planned anew where the old slot does not fit; what an effect held nobody else knows.
  const isUseless = left.length > 0 && (calledBy !== undefined || held.length === 0);
  if (isUseless) return { put: [], remove: [program.id], lost: [`program “${program.name}”`], follows: 0 };
  const isSame = left.length === 0 && memory.id === program.memory;
  return {
    put: isSame ? [] : [{ ...program, memory: memory.id, contents: Object.fromEntries(held) }],
    remove: [],
    lost: left.length
      ? [`${left.map((c) => controlIn(old, c)?.name ?? c).join(', ')} of program “${program.name}”`]
      : [],
    follows: 1,
  };
};

/** The memory of the same name, else one that is called alike; scenes stay scenes. */
const memoryLike = (device: Device, old: Memory | undefined, id: string): Memory | undefined => {
  const alike = device.memories.filter((m) => (m.inside === undefined) === (old?.inside === undefined));
  return alike.find((m) => m.id === id) ?? alike.find((m) => m.by === old?.by);
};

/** Whatever was typed into the old box is not in the new one. */
const ticksAfter = ({ rig, device }: Exchange): Outcome => {
  const ticks = all(rig, 'tick').filter((t) => t.device === device.id);
  return { put: [], remove: ticks.map((t) => t.id), lost: [], follows: 0 };
};

const hookupsAfter = (exchange: Exchange): Outcome =>
  together(all(exchange.rig, 'hookup').map((hookup) => hookupAfter(exchange, hookup)));

const hookupAfter = ({ device, mine, hasControl }: Exchange, hookup: Hookup): Outcome => {
  const stays = (r: Ref, value: Value): boolean => !mine(r) || hasControl(splitRef(r).name, value);
  const hasEnd = (r: string): boolean => !mine(r) || (device.ends ?? []).some((e) => e.at === splitRef(r).name);
  const set = Object.entries(hookup.settings).map(([r, value]) => [theRef(r), value] as const);
  const kept = set.filter(([r, v]) => stays(r, v));
  const assumes = hookup.assumes.filter((a) => stays(a.control, a.value));
  const hears = hookup.hears.filter((h) => hasEnd(h.at) && hasEnd(h.from));
  const isWhole =
    kept.length === set.length && assumes.length === hookup.assumes.length && hears.length === hookup.hears.length;
  if (isWhole) return { put: [], remove: [], lost: [], follows: 0 };
  const settings = Object.fromEntries(kept);
  const lost = [`what ${hookup.name} takes for granted about it`];
  return { put: [{ ...hookup, settings, assumes, hears }], remove: [], lost, follows: 0 };
};
