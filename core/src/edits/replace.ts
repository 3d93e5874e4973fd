import { freeCode, makeDevice } from '../catalogue/make.js';
import type { Edit } from '../change/edit.js';
import type { Block, Device, Jack, Slot } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { ref, splitRef, type AnyId, type Id, type Ref } from '../rig/ids.js';
import { inDomain } from '../rig/domain.js';
import type { Program } from '../rig/program.js';
import { all, partOf, type Part, type Rig } from '../rig/rig.js';
import { wantTarget, type Move, type Sound, type Want } from '../rig/sound.js';
import type { Value } from '../rig/value.js';

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
  const suits = (a: Jack, b: Jack) => a.kind === b.kind && a.poles.tip === b.poles.tip && (a.level === 'speaker') === (b.level === 'speaker');
  const rounds: readonly ((a: Jack, b: Jack) => boolean)[] = [(a, b) => a.id === b.id, (a, b) => stem(a.id) === stem(b.id), () => true];
  for (const alike of rounds) {
    for (const id of plugged) {
      const jack = old.jacks.find((j) => j.id === id);
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
  return new Map(from.flatMap((block): [string, string][] => {
    const same = to.find((b) => b.id === block.id) ?? to.find((b) => b.stage === block.stage) ?? (from.length === 1 && to.length === 1 ? to[0] : undefined);
    return same ? [[block.id, same.id]] : [];
  }));
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

/**
 * Another box in the place of one: cables, sounds, moves, programs and settings follow where the new box has a place for them; what has none is listed.
 * @throws when the catalogue has no such box
 */
export const replaceDevice = (rig: Rig, id: Id<'device'>, key: string): Replacement | undefined => {
  const old = partOf(rig, id);
  if (!old) return undefined;
  const made = makeDevice(key, id);
  const device: Device = {
    ...made, code: freeCode(made.code, all(rig, 'device').filter((d) => d.id !== id).map((d) => d.code)),
    ...(old.at === undefined ? {} : { at: old.at }), ...(made.midi && typeof old.midi?.channel === 'number' ? { midi: { ...made.midi, channel: old.midi.channel } } : {}),
  };
  const put: Part[] = [device];
  const remove: AnyId[] = [];
  const lost: string[] = [];
  const follows = { cables: 0, sounds: 0, programs: 0 };
  const mine = (r: string): boolean => splitRef(r).device === id;

  for (const hookup of all(rig, 'hookup')) {
    const cables = all(rig, 'cable').filter((c) => c.hookup === hookup.id && c.ends.some(mine));
    const jacks = jackMap(old, device, cables.flatMap((c) => c.ends.filter(mine).map((end) => splitRef(end).name)));
    for (const cable of cables) {
      const ends = cable.ends.map((end) => (mine(end) ? jacks.get(splitRef(end).name) : end));
      if (ends.every((end) => end !== undefined)) {
        follows.cables += 1;
        const moved = cable.ends.map((end) => (mine(end) ? ref(id, jacks.get(splitRef(end).name)!) : end)) as [Ref, Ref];
        if (moved.some((end, i) => end !== cable.ends[i])) put.push({ ...cable, ends: moved } satisfies Cable);
      } else {
        remove.push(cable.id);
        lost.push(`the cable at ${cable.ends.filter(mine).map((end) => splitRef(end).name).join(' and ')} in ${hookup.name}`);
      }
    }
  }

  const stages = stageMap(old, device);
  const control = (name: string, value?: Value): boolean => {
    const found = device.controls.find((c) => c.id === name);
    return found !== undefined && (value === undefined || inDomain(found, value));
  };
  const moveStage = (r: Ref): Ref | undefined => {
    if (!mine(r)) return r;
    const to = stages.get(splitRef(r).name);
    return to === undefined ? undefined : ref(id, to);
  };
  const moveWants = (wants: readonly Want[], gone: (want: Want) => void): readonly Want[] => asOne(wants.flatMap((want): Want[] => {
    if ('stage' in want) {
      const stage = moveStage(want.stage);
      if (!stage) gone(want);
      return stage ? [{ ...want, stage }] : [];
    }
    const stays = !mine(wantTarget(want)) || control(splitRef(wantTarget(want)).name, 'is' in want ? want.is : undefined);
    if (!stays) gone(want);
    return stays && !('pedal' in want && mine(want.pedal) && !control(splitRef(want.pedal).name)) ? [want] : [];
  }));
  const memoryOf = (name: string) => device.memories.find((m) => m.id === name);

  for (const sound of all(rig, 'sound')) {
    const gone = new Set<string>();
    const wants = moveWants(sound.wants, (want) => gone.add(splitRef(wantTarget(want)).name));
    const calls = sound.calls.filter((c) => c.device !== id || (memoryOf(c.memory)?.size ?? 0) > c.slot);
    if (calls.length < sound.calls.length) gone.add('its slot');
    const order = sound.order && [...new Set(sound.order.flatMap((r) => moveStage(r) ?? []))];
    const hears = sound.hears?.filter((h) => !mine(h.at) && !mine(h.from));
    const next: Sound = { ...sound, wants, calls, ...(order ? { order } : {}), ...(hears ? { hears } : {}) };
    if (JSON.stringify(next) !== JSON.stringify(sound)) put.push(next);
    if (gone.size) lost.push(`${[...gone].join(', ')} in “${sound.name}”`);
    else if (sound.wants.some((w) => mine(wantTarget(w)))) follows.sounds += 1;
  }
  for (const move of all(rig, 'move')) {
    const gone = new Set<string>();
    const note = (want: Want) => gone.add(splitRef(wantTarget(want)).name);
    const at = move.at.filter((a) => a.device !== id || device.memories.some((m) => m.assignable?.some((s) => s.switch === a.switch)));
    if (at.length < move.at.length) gone.add('its switch');
    const next: Move = { ...move, at, on: moveWants(move.on, note), off: moveWants(move.off, note) };
    if (JSON.stringify(next) !== JSON.stringify(move)) put.push(next);
    if (gone.size) lost.push(`${[...gone].join(', ')} in the move “${move.name}”`);
  }
  for (const program of all(rig, 'program')) {
    if (program.device !== id) continue;
    const memory = memoryOf(program.memory) ?? device.memories.find((m) => m.by === old.memories.find((o) => o.id === program.memory)?.by);
    const fits = memory && program.number < memory.size && program.contents !== 'unplanned' && Object.entries(program.contents).every(([c, v]) => memory.stores.includes(c) && control(c, v));
    if (fits) {
      follows.programs += 1;
      if (memory.id !== program.memory) put.push({ ...program, memory: memory.id } satisfies Program);
    } else {
      remove.push(program.id);
      lost.push(`program “${program.name}”`);
    }
  }
  // Whatever was typed into the old box is not in the new one.
  remove.push(...all(rig, 'tick').filter((t) => t.device === id).map((t) => t.id));
  for (const hookup of all(rig, 'hookup')) {
    const settings = Object.fromEntries(Object.entries(hookup.settings).filter(([r, v]) => !mine(r) || control(splitRef(r).name, v))) as Hookup['settings'];
    const assumes = hookup.assumes.filter((a) => !mine(a.control) || control(splitRef(a.control).name, a.value));
    const hears = hookup.hears.filter((h) => ![h.at, h.from].some((r) => mine(r) && !device.ends?.some((e) => e.at === splitRef(r).name)));
    if (Object.keys(settings).length + assumes.length + hears.length < Object.keys(hookup.settings).length + hookup.assumes.length + hookup.hears.length) {
      put.push({ ...hookup, settings, assumes, hears });
      lost.push(`what ${hookup.name} takes for granted about it`);
    }
  }
  return { edit: { put, remove }, device, follows, lost };
};
