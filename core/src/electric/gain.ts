import type { Block, Device, Stage } from '../rig/device.js';
import type { Id, Ref } from '../rig/ids.js';
import { ref, splitRef } from '../rig/ids.js';
import { type Sound, wantTarget } from '../rig/sound.js';
import { blocksIn } from '../rig/domain.js';
import { all, partOf, soundsInOrder, thePart, type Rig } from '../rig/rig.js';
import type { Anatomy } from '../signal/graph/anatomy.js';
import { signalOrder } from '../signal/graph/order.js';
import { addSound, setWant } from '../edits/sounds.js';
import { making, type Edit } from '../change/edit.js';
import { once } from '../kept/kept.js';
import { theItem } from '../known/the.js';
import { isMeasured, typicalOf } from './typical.js';

/** Stages that a player sets the gain with. */
export const GAIN_STAGES: readonly Stage[] = ['boost', 'overdrive', 'distortion', 'fuzz', 'preamp', 'channel'];

interface Amount {
  /** Gain in dB while it does not clip. */
  readonly db: number;
  /** Average level in dBu above which it clips instead of getting louder. */
  readonly ceiling: number;
}

/**
 * How much the channels of a preamp differ from the typical, in dB: the first is taken as the clean one, the last as
 * the most driven (common practice, assumed).
 */
const CHANNEL = { first: -10, between: 4, last: 14 } as const;
/** From this gain on a preamp stage counts as driven, in dB (assumed). */
const DRIVEN_DB = 30;

const preamps = once((device: Device): readonly Block[] =>
  device.chains.flatMap((c) => blocksIn(c.slots)).filter((b) => b.stage === 'preamp' || b.stage === 'channel'),
);

/**
 * The gain of a stage: its own figure when it has one, else the typical one of its kind and of its place among the
 * channels of its box.
 */
export const gainOf = (device: Device, block: Block): Amount & { readonly assumed: boolean } => {
  const typical = typicalOf(block.stage);
  const ceiling = block.maxDbu ?? typical.ceiling;
  if (typeof block.gain === 'number')
    return { db: block.gain, ceiling, assumed: !isMeasured(device, `${block.id}.gain`) };
  const channels = preamps(device);
  const at = channels.findIndex((b) => b.id === block.id);
  const place =
    channels.length < 2 || at < 0 ? 0 : CHANNEL[at === 0 ? 'first' : at === channels.length - 1 ? 'last' : 'between'];
  return { db: typical.db + place, ceiling, assumed: true };
};

/**
 * A preamp stage that is made to be driven: by its gain, or as any but the first channel of its box. A single one may
 * be either and counts as clean.
 */
export const isDrivenStage = (rig: Rig, id: Id<'device'>, block: Block): boolean => {
  const device = partOf(rig, id);
  if (!device || (block.stage !== 'preamp' && block.stage !== 'channel')) return false;
  if (typeof block.gain === 'number') return block.gain >= DRIVEN_DB;
  return preamps(device).findIndex((b) => b.id === block.id) > 0;
};

export interface GainStage {
  readonly stage: Ref;
  readonly device: Id<'device'>;
  readonly text: string;
  readonly kind: Stage;
  readonly amount: Amount;
  /**
   * Of the stages with the same mark exactly one sounds, as with the channels of an amp; absent for one that can be in
   * or out.
   */
  readonly oneOf?: string;
}

export interface Rung {
  readonly stages: readonly Ref[];
  readonly text: string;
  /** Average level in dBu into the first stage of gain and out of the last. */
  readonly into: number;
  readonly out: number;
  /** By how many dB it is driven over what its stages can give, all together: how much it distorts and evens out. */
  readonly driven: number;
  readonly usedBy: readonly Id<'sound'>[];
  /** The rung before it is hardly another: less than 3 dB of drive and 2 dB of level apart. */
  readonly likeTheOneBefore: boolean;
}

/** The gain stages of a hook-up in the order in which the signal meets them. */
export const gainStages = (rig: Rig, anatomy: Anatomy): readonly GainStage[] => {
  const order = signalOrder(anatomy);
  const place = (d: Id<'device'>): number => order.get(d) ?? 999;
  const stages = [...anatomy.stages.values()].filter((s) => GAIN_STAGES.includes(s.block.stage));
  return stages
    .sort((a, b) => place(a.device) - place(b.device))
    .map(({ ref: stage, device, block, gates }): GainStage => {
      const box = thePart(rig, device);
      const siblings = stages.filter((s) => s.device === device);
      const gate = gates.flatMap((g) => g.when).find((f) => 'control' in f);
      return {
        stage,
        device,
        text: siblings.length > 1 ? `${box.code} ${block.id}` : box.code,
        kind: block.stage,
        amount: gainOf(box, block),
        ...(gate && 'control' in gate
          ? { oneOf: ref(device, gate.control) }
          : !block.on && anatomy.stages.get(stage)?.inserts.length === 0
            ? { oneOf: stage }
            : {}),
      };
    });
};

/** Average level of a source that has no figure of its own, in dBu: a guitar, assumed. */
export const USUAL_DBU = -20;
const MOST_RUNGS = 256;

/** The average level of the first instrument that has one, in dBu. */
const sourceLevel = (rig: Rig): number =>
  all(rig, 'device')
    .flatMap((d) => d.ends ?? [])
    .find((e) => e.is === 'source' && e.dbu)?.dbu?.average ?? USUAL_DBU;

/** All that can be made of these gain stages, from the least driven to the most. At most 256. */
export const gainLadder = (rig: Rig, stages: readonly GainStage[]): readonly Rung[] => {
  const source = sourceLevel(rig);
  const groups = [...new Set(stages.flatMap((s) => s.oneOf ?? []))].map((mark) =>
    stages.filter((s) => s.oneOf === mark),
  );
  const free = stages.filter((s) => s.oneOf === undefined).map((s) => [undefined, s]);
  const combinations = [...groups, ...free].reduce<readonly (readonly GainStage[])[]>(
    (sofar, choices) => sofar.flatMap((c) => choices.map((s) => (s ? [...c, s] : c))).slice(0, MOST_RUNGS),
    [[]],
  );
  const sounds = soundsInOrder(rig).map((s) => ({
    id: s.id,
    in: new Set(s.wants.flatMap((w) => ('stage' in w && w.is === 'in' ? [w.stage] : []))),
  }));
  const rungs = combinations
    .filter((c) => c.length > 0)
    .map((combination): Omit<Rung, 'likeTheOneBefore'> => {
      const inOrder = stages.filter((s) => combination.includes(s));
      let [level, driven] = [source, 0];
      for (const { amount } of inOrder) {
        const wanted = level + amount.db;
        driven += Math.max(0, wanted - amount.ceiling);
        level = Math.min(wanted, amount.ceiling);
      }
      return {
        stages: inOrder.map((s) => s.stage),
        text: rungText(inOrder),
        into: source,
        out: Math.round(level * 10) / 10,
        driven: Math.round(driven * 10) / 10,
        usedBy: sounds.filter((s) => stages.every((g) => s.in.has(g.stage) === inOrder.includes(g))).map((s) => s.id),
      };
    })
    .sort((a, b) => a.driven - b.driven || a.out - b.out || a.stages.length - b.stages.length);
  return rungs.map((r, i) => ({
    ...r,
    likeTheOneBefore:
      i > 0 && r.driven - theItem(rungs, i - 1).driven < 3 && Math.abs(r.out - theItem(rungs, i - 1).out) < 2,
  }));
};

const DRIVES: readonly Stage[] = ['overdrive', 'distortion', 'fuzz', 'preamp', 'channel'];

/**
 * A boost before what is driven is gain; behind all of it, it is level (common practice).
 * @example rungText(stages) // 'LOW + HED lead, then BST for level'
 */
const rungText = (inOrder: readonly GainStage[]): string => {
  const lastDrive = inOrder.findLastIndex((s) => DRIVES.includes(s.kind));
  const isLevel = (s: GainStage, i: number): boolean => s.kind === 'boost' && lastDrive >= 0 && i > lastDrive;
  const gain = inOrder
    .filter((s, i) => !isLevel(s, i))
    .map((s) => s.text)
    .join(' + ');
  const level = inOrder
    .filter(isLevel)
    .map((s) => s.text)
    .join(' and ');
  return level ? `${gain}, then ${level} for level` : gain;
};

/** A sound of a rung, stored in the next free slot. */
export const soundOfRung = (rig: Rig, rung: Rung, id: Id<'sound'>): Edit => {
  const [sound] = addSound(rig, id, rung.text.slice(0, 120), 'other').put;
  const boxes = new Set(rung.stages.map((stage) => splitRef(stage).device));
  const others = sound.wants.filter((w) => !boxes.has(splitRef(wantTarget(w)).device));
  return making(
    rung.stages.reduce<Sound>((s, stage) => setWant(s, { stage, is: 'in' }).put[0], { ...sound, wants: others }),
  );
};
