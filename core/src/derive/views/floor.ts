import { shown } from '../../midi/numbering.js';
import { slotText } from '../../recall/words/words.js';
import { memoryIn } from '../../rig/box.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { all, type Rig } from '../../rig/rig.js';
import { mannerOf, type Manner, type Sound } from '../../rig/sound.js';
import type { Value } from '../../rig/value.js';
import { surely } from '../../known/the.js';

/** One switch of a floor, and what a press does now. */
export interface SwitchView {
  readonly device: Id<'device'>;
  readonly switch: string;
  /** What a press does now: a sound's name, a move's, a bank. */
  readonly label: string;
  readonly about: string;
  readonly state: 'called' | 'latched' | 'held' | 'ready' | 'empty';
  readonly holds: boolean;
}

/** What a switch says of the move on it. */
const ABOUT_MOVES: Readonly<Record<Manner, string>> = {
  latched: 'latched',
  'while held': 'while held',
  'one way': 'latched',
};

/** The sound that a switch calls: a scene switch the one in the preset that is loaded. */
const soundAt = (
  sounds: readonly Sound[],
  device: Device,
  memory: Memory,
  slot: number,
  state: ReadonlyMap<Ref, Value>,
): Sound | undefined => {
  const calls = (s: Sound, m: Memory, n: number): boolean =>
    s.calls.some((c) => c.device === device.id && c.memory === m.id && c.slot === n);
  const outer = memoryIn(device, memory.inside);
  const preset = outer && Number(state.get(ref(device.id, outer.control)));
  return sounds.find((s) => calls(s, memory, slot) && (!outer || preset === undefined || calls(s, outer, preset)));
};

/** The switches of a memory: what each calls, what programs assign to the others, and the banks. */
export const floorOf = (
  rig: Rig,
  /** With the calls that count here. */
  sounds: readonly Sound[],
  device: Device,
  memory: Memory,
  state: ReadonlyMap<Ref, Value>,
): readonly SwitchView[] => {
  const value = (control: string) => state.get(ref(device.id, control));
  const size = memory.switches?.length ?? 0;
  const bank = memory.bank ? Number(value(memory.bank.control)) - (memory.shows.bank?.first ?? 1) : 0;
  const calls = (memory.switches ?? []).map((name, i): SwitchView => {
    const slot = bank * size + i;
    const sound = soundAt(sounds, device, memory, slot, state);
    return {
      device: device.id,
      switch: name,
      label: sound?.name ?? 'empty',
      about: sound ? `${slotText(rig, sound)} · ${sound.role}` : shown(memory.shows, slot),
      holds: false,
      state: !sound ? 'empty' : Number(value(memory.control)) === slot ? 'called' : 'ready',
    };
  });
  const loaded = sounds.find((s) =>
    s.calls.some((c) => c.device === device.id && c.slot === Number(value(memory.control))),
  );
  const assigned = (memory.assignable ?? []).map(({ switch: name, latch, held }): SwitchView => {
    const move = all(rig, 'move').find(
      (m) =>
        m.at.some((a) => a.device === device.id && a.switch === name) &&
        (m.sounds === 'all' || (loaded && m.sounds.includes(loaded.id))),
    );
    return {
      device: device.id,
      switch: name,
      label: move?.name ?? 'nothing here',
      about: move ? ABOUT_MOVES[mannerOf(move)] : '',
      holds: move ? mannerOf(move) === 'while held' : false,
      state: value(held) === 'on' ? 'held' : value(latch) === 'on' ? 'latched' : move ? 'ready' : 'empty',
    };
  });
  const banks = memory.bank
    ? [memory.bank.down, memory.bank.up].map((name): SwitchView => ({
        device: device.id,
        switch: name,
        label: name === surely(memory.bank).up ? 'Bank up' : 'Bank down',
        about: `bank ${bank + (memory.shows.bank?.first ?? 1)} shows`,
        holds: false,
        state: 'ready',
      }))
    : [];
  return [...calls, ...assigned, ...banks];
};
