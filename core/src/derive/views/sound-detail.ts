import { stepBetween } from '../../electric/levels/steps.js';
import { beatsText } from '../../recall/intend/beats.js';
import { jumpOf, pluggedPedals } from '../../recall/actuate/pedals.js';
import { controlText, valueText } from '../../recall/words/words.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { blockIds, blocksIn } from '../../rig/domain.js';
import { partOf, thePart, type Rig } from '../../rig/rig.js';
import type { HeardWish } from '../../rig/hookup.js';
import { controlIn, type Device, type Slot } from '../../rig/device.js';
import { wantTarget, type Sound } from '../../rig/sound.js';
import { readArrangement, slotsOf } from '../../signal/graph/arrangement.js';
import { stagesMet } from '../../signal/graph/order.js';
import type { Derived } from '../steps/deriver.js';
import { surely } from '../../known/the.js';

/** What a sound says besides the cells of its row: order, ends, level, pedals, times in beats. Plain data. */
export interface SoundDetail {
  /** Its stages as the signal meets them, those of one loop of a switcher that can change their order together. */
  readonly order: readonly OrderPlace[];
  readonly ownOrder: boolean;
  readonly ends: readonly HeardView[];
  readonly ownEnds: boolean;
  readonly sources: readonly RefChoice[];
  readonly places: readonly RefChoice[];
  /** By how many dB it is louder than the sound that it is measured against, as it was measured, else by what is stated and differs. */
  readonly level?: { readonly wished: number; readonly is?: number; readonly measured?: boolean };
  readonly pedals: readonly PedalLine[];
  /** What a pedal moves by itself that is plugged into a box, whatever the sound. */
  readonly ownPedals: readonly string[];
  readonly beats: readonly string[];
  /** What of this the hook-up cannot do. */
  readonly fails: readonly string[];
}

/** What stands in one place on the way through a sound: a stage, or all stages of a loop or of two amps side by side. */
export interface OrderPlace {
  readonly text: string;
  readonly stages: readonly Ref[];
  /** The loop or block with which they are carried to another place, where a box can do that. */
  readonly loop?: LoopPlace;
}

export interface LoopPlace {
  /** The control that keeps the order, and how it stands for this sound. */
  readonly control: Ref;
  readonly arrangement: string;
  readonly slot: string;
  /** How many ways the switcher can lead beside each other. */
  readonly ways: number;
  /** Which of several ways it is, where it stands beside others. */
  readonly beside?: { readonly group: number; readonly way: number };
}

export interface RefChoice {
  readonly value: Ref;
  readonly label: string;
}

export interface HeardView {
  readonly from: Ref;
  readonly at: Ref;
  readonly as: HeardWish['as'];
  /** How it arrives there now. */
  readonly now: 'not at all' | 'mono' | 'stereo';
}

export interface PedalLine {
  readonly control: Ref;
  readonly text: string;
  readonly pedal: Ref;
  /** What brings it about, or why nothing does. */
  readonly says: string;
  readonly works: boolean;
}

/** @example stageText(rig, 'device:low.overdrive') // 'LOW'; with several stages in the box 'HED lead' */
const stageText = (rig: Rig, stage: Ref): string => {
  const { device, name } = splitRef(stage);
  const box = partOf(rig, device);
  const blocks = box?.chains.flatMap((c) => blockIds(c.slots)) ?? [];
  return blocks.length > 1 ? `${box?.code ?? device} ${name}` : (box?.code ?? stage);
};

/** The slots in which a stage stands: loops around it, the outermost first, and its own place in its box. */
const slotsAround = ({ rig, anatomy }: Derived, stage: Ref): readonly { device: Device; slot: Slot }[] => {
  const embedded = anatomy.stages.get(stage);
  if (!embedded) return [];
  const box = thePart(rig, embedded.device);
  const own = box.chains.flatMap((c) => c.slots).filter((slot) => blocksIn([slot]).includes(embedded.block));
  return [
    ...embedded.inserts.map(({ device, insert }) => ({ device: thePart(rig, device), slot: insert })),
    ...own.map((slot) => ({ device: box, slot })),
  ];
};

/** The place of a stage in the order of a switcher or modeller that can change it. */
const loopOf = (d: Derived, sound: Id<'sound'>, stage: Ref): LoopPlace | undefined => {
  for (const { device, slot } of slotsAround(d, stage)) {
    const chain = device.chains.find((c) => c.order !== undefined && c.slots.includes(slot));
    const domain = chain?.order === undefined ? undefined : controlIn(device, chain.order)?.domain;
    if (chain?.order === undefined || !domain || !('arrange' in domain)) continue;
    const control = ref(device.id, chain.order);
    const wanted = d.compilation.sounds.get(sound)?.wants.find((w) => w.control === control)?.value;
    const arrangement = String(wanted ?? chain.slots.map((s) => s.id).join(' '));
    const beside = besideOf(arrangement, slot.id);
    return { control, arrangement, slot: slot.id, ways: domain.branches, ...(beside ? { beside } : {}) };
  }
  return undefined;
};

const besideOf = (arrangement: string, slot: string): LoopPlace['beside'] => {
  const steps = readArrangement(arrangement);
  for (const [group, step] of steps.entries()) {
    if (typeof step === 'string') continue;
    const way = step.arms.findIndex((arm) => slotsOf(arm).includes(slot));
    if (way >= 0) return { group, way };
  }
  return undefined;
};

const orderOf = (d: Derived, sound: Id<'sound'>, stages: readonly Ref[]): readonly OrderPlace[] => {
  const places: OrderPlace[] = [];
  for (const stage of stages) {
    const loop = loopOf(d, sound, stage);
    const isWith = (p: OrderPlace) => p.loop && loop && p.loop.control === loop.control && p.loop.slot === loop.slot;
    const at = places.findIndex(isWith);
    const text = stageText(d.rig, stage);
    const known = places[at];
    if (known) places[at] = { ...known, text: `${known.text} + ${text}`, stages: [...known.stages, stage] };
    else places.push({ text, stages: [stage], ...(loop ? { loop } : {}) });
  }
  return inOrderOfLoops(places);
};

/** Ways beside each other are met in no order of their own: they are told as the switcher has them. */
const inOrderOfLoops = (places: readonly OrderPlace[]): readonly OrderPlace[] => {
  const carried = places.filter((p) => p.loop !== undefined);
  const rank = ({ loop }: OrderPlace) => (loop ? slotsOf(readArrangement(loop.arrangement)).indexOf(loop.slot) : 0);
  const sorted = [...carried].sort((a, b) =>
    a.loop?.control === b.loop?.control ? rank(a) - rank(b) : carried.indexOf(a) - carried.indexOf(b),
  );
  return places.map((p) => (p.loop ? surely(sorted.shift()) : p));
};

/** Whether the sound says itself in which order its stages come. */
const saysOrder = (sound: Sound, places: readonly OrderPlace[]): boolean =>
  sound.order !== undefined ||
  places.some(({ loop }) => loop && sound.wants.some((w) => wantTarget(w) === loop.control));

const WHY = {
  'nothing plugged in': 'nothing is plugged in there',
  'not called': 'the sound calls no slot of its controller',
  'no way': 'nothing that its controller sends moves this',
} as const;

const ownPedals = ({ rig, compilation }: Derived): readonly string[] =>
  [...pluggedPedals(compilation.bearings)].flatMap((input) => {
    const { device: id, name: jack } = splitRef(input);
    const device = thePart(rig, id);
    return device.actuators
      .filter((a) => 'expression' in a.by && a.by.expression === jack)
      .flatMap((a) =>
        a.acts.flatMap((act) => {
          if (!('control' in act)) return [];
          const control = ref(id, act.control);
          const range =
            'scale' in act ? ` from ${act.scale[0]} (heel) to ${valueText(rig, control, act.scale[1])} (toe)` : '';
          return [
            `The pedal at ${device.code} ${jack} moves ${controlText(rig, control)}${range}. Until it is moved, it stays as the program or the sound says.`,
          ];
        }),
      );
  });

export const soundDetail = (d: Derived, id: Id<'sound'>): SoundDetail | undefined => {
  const sound = partOf(d.rig, id);
  const compiled = d.compilation.sounds.get(id);
  if (!sound || !compiled) return undefined;
  const { rig } = d;
  const { trace } = compiled;
  const { sources, ends, wired } = d.anatomy.wiring;
  const step =
    sound.level && stepBetween(rig, d.hookup, (s) => d.compilation.sounds.get(s)?.trace, sound.level.than, id);
  const name = (r: Ref) =>
    `${[...sources, ...ends].find((e) => e.ref === r)?.end.name ?? splitRef(r).name}, ${partOf(rig, splitRef(r).device)?.code ?? ''}`;
  const order = orderOf(d, id, stagesMet(trace));
  return {
    order,
    ownOrder: saysOrder(sound, order),
    ends: compiled.heard.map(({ from, at, as }) => {
      const reach = trace.reaches.find((r) => r.source.ref === from && r.end.ref === at);
      return {
        from,
        at,
        as,
        now: !reach ? 'not at all' : reach.sides.includes('left') && reach.sides.includes('right') ? 'stereo' : 'mono',
      };
    }),
    ownEnds: sound.hears !== undefined,
    sources: sources.filter((s) => wired.has(s.device)).map((s) => ({ value: s.ref, label: name(s.ref) })),
    places: ends.filter((e) => wired.has(e.device)).map((e) => ({ value: e.ref, label: name(e.ref) })),
    ...(sound.level
      ? {
          level: {
            wished: sound.level.db,
            ...(step ? { is: Math.round(step.db * 10) / 10, measured: step.measured } : {}),
          },
        }
      : {}),
    pedals: compiled.pedals.map((p): PedalLine => ({
      control: p.control,
      pedal: p.pedal,
      works: typeof p.by === 'object',
      text: `${controlText(rig, p.control)} from ${valueText(rig, p.control, p.heel)} (heel) to ${valueText(rig, p.control, p.toe)} (toe)`,
      says:
        typeof p.by === 'string'
          ? WHY[p.by]
          : `${'control' in p.by ? 'on the box itself' : `by controller ${p.by.cc} on channel ${p.by.channel}`}${p.at === undefined ? '; it stands as it was left until the pedal is touched' : `; ${valueText(rig, p.control, p.at)} until it is touched, then it can jump by ${jumpOf(p)}`}`,
    })),
    ownPedals: ownPedals(d),
    beats: sound.wants.flatMap((w) =>
      'note' in w ? [`${controlText(rig, w.control)}: ${beatsText(rig, id, w.control, w.note)}`] : [],
    ),
    fails: compiled.problems.flatMap((p) => {
      if (p.is === 'order')
        return [`${stageText(rig, p.first)} cannot be met before ${stageText(rig, p.second)} in this hook-up.`];
      if (p.is === 'silent' && p.from) return [`${name(p.from)} does not get to ${name(p.at)}.`];
      if (p.is === 'not silent') return [`${name(p.from)} is heard at ${name(p.at)} all the same.`];
      return p.is === 'narrow' ? [`${name(p.from)} arrives at ${name(p.at)} with one side only.`] : [];
    }),
  };
};
