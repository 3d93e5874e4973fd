import { callFits } from '../../recall/intend/wants.js';
import { pressesBetween } from '../../plan/slots/problem.js';
import { memoryIn } from '../../rig/box.js';
import type { Memory } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Call, Sound } from '../../rig/sound.js';

/** What a foot does to call a sound: which slots it hits, after how many keys to their bank. */
export interface Stomps {
  readonly hits: readonly Call[];
  readonly keys: number;
  /** Which of the two bank keys is the shorter way. */
  readonly way: 'up' | 'down';
}

/** A slot that a foot hits: what a song list or a timeline calls comes by itself. */
interface SlotCall {
  readonly call: Call;
  readonly memory: Memory;
}

const slotCalls = (rig: Rig, hookup: Id<'hookup'>, sound: Sound | undefined): readonly SlotCall[] =>
  (sound?.calls ?? []).flatMap((call): readonly SlotCall[] => {
    const memory = memoryIn(partOf(rig, call.device), call.memory);
    return memory?.by === 'slot' && callFits(rig, call, hookup) ? [{ call, memory }] : [];
  });

const inSameMemory = (a: Call, b: Call): boolean => a.device === b.device && a.memory === b.memory;

/**
 * From one sound to another. A slot that is loaded already is not hit again, but for a scene whose preset is.
 * @param from what sounded before; undefined before a song, when there is time to show any bank
 */
export const stompsBetween = (rig: Rig, hookup: Id<'hookup'>, from: Sound | undefined, to: Sound): Stomps => {
  if (from?.id === to.id) return { hits: [], keys: 0, way: 'up' };
  const before = slotCalls(rig, hookup, from);
  const calls = slotCalls(rig, hookup, to);
  const isLoaded = ({ call }: SlotCall): boolean =>
    before.some((b) => inSameMemory(b.call, call) && b.call.slot === call.slot);
  const hits = calls.filter((c) => {
    const outer = calls.find((o) => o.call.device === c.call.device && o.memory.id === c.memory.inside);
    return !isLoaded(c) || (outer !== undefined && !isLoaded(outer));
  });
  let keys = 0;
  let way: Stomps['way'] = 'up';
  for (const { call, memory } of hits) {
    const last = before.find((b) => inSameMemory(b.call, call));
    const size = memory.bank && memory.shows.bank?.size;
    if (!last || !size) continue;
    const [a, b] = [Math.floor(last.call.slot / size), Math.floor(call.slot / size)];
    const banks = { banks: Math.ceil(memory.size / size), wrap: true } as const;
    const presses = pressesBetween({ ...banks, bankKeys: 'both' }, a, b);
    if (presses > 0) way = pressesBetween({ ...banks, bankKeys: 'up' }, a, b) === presses ? 'up' : 'down';
    keys += presses;
  }
  return { hits: hits.map((h) => h.call), keys, way };
};
