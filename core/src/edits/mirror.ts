import equal from 'fast-deep-equal';
import { making, together, type Edit } from '../change/edit.js';
import { theItem } from '../known/the.js';
import { memoryIn } from '../rig/box.js';
import type { Id } from '../rig/ids.js';
import { cutTo, LONGEST } from '../rig/limits.js';
import { partOf, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Call, Sound, Want } from '../rig/sound.js';
import type { Caller } from './calls.js';

/** A controller whose slots stand in banks. */
type From = Pick<Caller, 'device' | 'memory'>;

/** Two banks of a controller, from 0: in the one stand the sounds of the other once more. */
export interface MirroredBank extends From {
  readonly from: number;
  readonly to: number;
  /** Switches of a bank. */
  readonly size: number;
}

export const bankSize = (rig: Rig, { device, memory: name }: From): number | undefined => {
  const memory = memoryIn(partOf(rig, device), name);
  return memory?.bank && memory.shows.bank?.size;
};

const callAt = ({ calls }: Sound, { device, memory }: From): Call | undefined =>
  calls.find((c) => c.device === device && c.memory === memory);

const inBank = (rig: Rig, of: From, bank: number, size: number): readonly Sound[] =>
  soundsInOrder(rig).filter((s) => Math.floor((callAt(s, of)?.slot ?? -1) / size) === bank);

/** Banks that were mirrored: a sound in the one is the mirror of a sound in the other. */
export const mirroredBanks = (rig: Rig): readonly MirroredBank[] => {
  const found = new Map<string, MirroredBank>();
  for (const sound of soundsInOrder(rig)) {
    const original = sound.mirror && sound.parent && partOf(rig, sound.parent);
    if (!original) continue;
    for (const { device, memory, slot } of sound.calls) {
      const size = bankSize(rig, { device, memory });
      const call = callAt(original, { device, memory });
      if (!size || !call) continue;
      const [from, to] = [Math.floor(call.slot / size), Math.floor(slot / size)];
      if (from !== to) found.set(`${device} ${memory} ${from} ${to}`, { device, memory, from, to, size });
    }
  }
  return [...found.values()];
};

const mirrorOf = (rig: Rig, bank: MirroredBank, original: Id<'sound'>): Sound | undefined =>
  inBank(rig, bank, bank.to, bank.size).find((s) => s.mirror && s.parent === original);

/** What its mirrors say of themselves: the input, the trim. Most of them say the same. */
const saidByMirrors = (rig: Rig, bank: MirroredBank): readonly Want[] => {
  const said = inBank(rig, bank, bank.to, bank.size).flatMap((s) => (s.mirror ? [s.wants] : []));
  const votes = said.map((wants) => said.filter((other) => equal(other, wants)).length);
  return said[votes.indexOf(Math.max(...votes))] ?? [];
};

/** How a mirror stands to its original: its level against the mirrors of the others, everything else the same. */
const likeItsOriginal = (rig: Rig, bank: MirroredBank, mirror: Sound, original: Sound): Sound => {
  const { level: _, leaving: __, hears: ___, ...rest } = mirror;
  const { level, leaving, hears, role } = original;
  return {
    ...rest,
    role,
    calls: mirror.calls.map((c) =>
      c.device === bank.device && c.memory === bank.memory
        ? { ...c, slot: bank.to * bank.size + ((callAt(original, bank)?.slot ?? 0) % bank.size) }
        : c,
    ),
    ...(level ? { level: { ...level, than: mirrorOf(rig, bank, level.than)?.id ?? level.than } } : {}),
    ...(leaving ? { leaving } : {}),
    ...(hears ? { hears } : {}),
  };
};

const mirrorMade = (
  rig: Rig,
  bank: MirroredBank,
  original: Sound,
  id: Id<'sound'>,
  at: number,
  wants: readonly Want[],
): Sound => {
  const call = callAt(original, bank);
  const mark = ` ${bank.to + 1}`;
  return likeItsOriginal(
    rig,
    bank,
    {
      kind: 'sound',
      id,
      name: `${cutTo(original.name, LONGEST.name - mark.length)}${mark}`,
      role: original.role,
      at,
      parent: original.id,
      mirror: true,
      wants,
      calls: [{ ...call, device: bank.device, memory: bank.memory, slot: 0 }],
    },
    original,
  );
};

const lastPlace = (rig: Rig): number => Math.max(0, ...soundsInOrder(rig).map((s) => s.at));

/**
 * The sounds of a bank once more in another one, on the same switches, each derived from its original: it follows in all
 * that it does not say itself.
 * @param wants what is otherwise there, such as the input
 * @returns 'taken' where other sounds stand in that bank
 */
export const mirrorBank = (
  rig: Rig,
  bank: MirroredBank,
  wants: readonly Want[],
  newId: () => Id<'sound'>,
): Edit | 'taken' => {
  const originals = inBank(rig, bank, bank.from, bank.size).filter((s) => !mirrorOf(rig, bank, s.id));
  const places = new Set(originals.map((s) => (callAt(s, bank)?.slot ?? 0) % bank.size));
  const isTaken = inBank(rig, bank, bank.to, bank.size).some((s) =>
    places.has((callAt(s, bank)?.slot ?? 0) % bank.size),
  );
  if (isTaken) return 'taken';
  const last = lastPlace(rig);
  return {
    put: originals.map((s, i) => mirrorMade(rig, bank, s, newId(), last + 1 + i, wants)),
    remove: [],
  };
};

/** Where a mirrored bank no longer follows the other, and what brings it in step; none where another sound is in the way. */
export interface OutOfStep {
  readonly sound: Sound;
  readonly is: 'missing' | 'other switch' | 'other role' | 'other level' | 'otherwise left' | 'says more';
  readonly cure: Edit | undefined;
}

export const outOfStep = (rig: Rig, bank: MirroredBank): readonly OutOfStep[] => {
  const originals = inBank(rig, bank, bank.from, bank.size).filter((s) => !s.mirror);
  const usual = saidByMirrors(rig, bank);
  return originals.flatMap((original): readonly OutOfStep[] => {
    const mirror = mirrorOf(rig, bank, original.id);
    const isFree = (slot: number): boolean =>
      !soundsInOrder(rig).some((s) => s.id !== mirror?.id && callAt(s, bank)?.slot === slot);
    if (!mirror) {
      const id: Id<'sound'> = `sound:${cutTo(original.id.slice('sound:'.length), 50)}-m${bank.to + 1}`;
      const made = mirrorMade(rig, bank, original, id, lastPlace(rig) + 1, usual);
      const can = !partOf(rig, id) && isFree(callAt(made, bank)?.slot ?? -1);
      return [{ sound: original, is: 'missing', cure: can ? making(made) : undefined }];
    }
    const right = likeItsOriginal(rig, bank, mirror, original);
    const cure = isFree(callAt(right, bank)?.slot ?? -1) ? making(right) : undefined;
    const here: OutOfStep[] = [];
    const say = (is: OutOfStep['is']): void => void here.push({ sound: mirror, is, cure });
    if (callAt(right, bank)?.slot !== callAt(mirror, bank)?.slot) say('other switch');
    if (right.role !== mirror.role) say('other role');
    if (!equal(right.level, mirror.level)) say('other level');
    if (right.leaving !== mirror.leaving || !equal(right.hears, mirror.hears)) say('otherwise left');
    const more = mirror.wants.filter((w) => !w.why && !usual.some((u) => equal(u, w)));
    if (more.length > 0 || usual.some((u) => !mirror.wants.some((w) => equal(u, w))))
      here.push({ sound: mirror, is: 'says more', cure: making({ ...mirror, wants: withUsual(mirror.wants, usual) }) });
    return here;
  });
};

/** All of a mirrored bank in step again, but for sounds on whose switch another one stands. */
export const broughtInStep = (rig: Rig, bank: MirroredBank): Edit => {
  const usual = saidByMirrors(rig, bank);
  const apart = outOfStep(rig, bank);
  const inTheWay = new Set(apart.filter((a) => !a.cure).map((a) => a.sound.id));
  const cures = apart.flatMap(({ sound, is, cure }): readonly Edit[] => {
    const original = is === 'missing' ? undefined : sound.parent && partOf(rig, sound.parent);
    if (!cure || !original || inTheWay.has(sound.id)) return cure ? [cure] : [];
    return [making(likeItsOriginal(rig, bank, { ...sound, wants: withUsual(sound.wants, usual) }, original))];
  });
  return together(...cures);
};

/** What all mirrors say, and what this one says for a reason of its own. */
const withUsual = (wants: readonly Want[], usual: readonly Want[]): readonly Want[] => [
  ...usual,
  ...wants.filter((w) => w.why && !usual.some((u) => equal(u, w))),
];

/** @example bankName(rig, caller, 0) // 'bank 1', as the box counts them */
export const bankName = (rig: Rig, { device, memory: name }: From, bank: number): string => {
  const memory = memoryIn(partOf(rig, device), name);
  return `bank ${(memory?.shows.bank?.first ?? 1) + bank}`;
};

/** Banks of a controller that hold sounds, and those that hold none. */
export const banksOf = (rig: Rig, of: From): { readonly used: readonly number[]; readonly free: readonly number[] } => {
  const memory = memoryIn(partOf(rig, of.device), of.memory);
  const size = bankSize(rig, of);
  if (!memory || !size) return { used: [], free: [] };
  const all = Array.from({ length: Math.ceil(memory.size / size) }, (_, bank) => bank);
  const counts = all.map((bank) => inBank(rig, of, bank, size).length);
  return {
    used: all.filter((bank) => theItem(counts, bank) > 0),
    free: all.filter((bank) => theItem(counts, bank) === 0),
  };
};
