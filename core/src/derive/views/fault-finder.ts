import { suspectsOf, type Suspect } from '../../plan/fails/suspects.js';
import { boxText } from '../../recall/words/part-words.js';
import { jackAt } from '../../rig/box.js';
import type { Stage } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';

/** One thing on the way of a sound, and how to hear whether it still plays behind it. */
export interface SuspectView {
  readonly text: string;
  /** How likely it is to be it. */
  readonly weight: number;
  /** What to do to listen behind it; absent for the last, behind which everybody hears it. */
  readonly listen?: string;
  /** By which its way out is looked up. */
  readonly key: Id<'device'> | Id<'cable'>;
}

/** The way of a silent sound, to be halved until what is dead is found. */
export interface FaultFinder {
  readonly suspects: readonly SuspectView[];
  /** What silences a rig and is no fault, to be looked at first. */
  readonly first: readonly string[];
}

const jackText = (rig: Rig, jack: Ref): string => {
  const { device, name } = splitRef(jack);
  return `${partOf(rig, device)?.code ?? ''} ${name}`;
};

const KEEP_OFF = 'Switch the amp off before you touch its speaker lead.';

const listenText = (rig: Rig, suspect: Suspect): string | undefined => {
  const jack = suspect.is === 'lead' ? suspect.to : suspect.out;
  const at = jack && jackAt(rig, jack);
  if (!jack || !at) return undefined;
  if (at.kind === 'air') return `Go to ${boxText(rig, splitRef(jack).device)} and listen there.`;
  if (at.level === 'speaker')
    return suspect.is === 'lead'
      ? `Does ${boxText(rig, splitRef(jack).device)} sound with another speaker lead? ${KEEP_OFF}`
      : `Does a cabinet that works sound on ${jackText(rig, jack)}? Plug nothing but a cabinet there. ${KEEP_OFF}`;
  return suspect.is === 'lead'
    ? `Take the plug out of ${jackText(rig, jack)} and put it into a tuner or an amp that works.`
    : `Plug a lead that works from ${jackText(rig, jack)} into a tuner or an amp that works.`;
};

/** @param passed how often the sound passes a box */
const suspectText = (rig: Rig, suspect: Suspect, passed: ReadonlyMap<Id<'device'>, number>): string => {
  if (suspect.is === 'lead') return `the lead from ${jackText(rig, suspect.from)} to ${jackText(rig, suspect.to)}`;
  const { device, out } = suspect;
  const isFed = partOf(rig, device)?.jacks.some((j) => j.kind === 'power' || j.kind === 'mains') ?? false;
  const until = out && (passed.get(device) ?? 1) > 1 ? ` (up to ${splitRef(out).name})` : '';
  return `${boxText(rig, device)}${until}${isFed ? ', or what feeds it' : ''}`;
};

/** Stages that silence by themselves, and how. */
const SILENCES: Readonly<Partial<Record<Stage, (box: string) => string>>> = {
  tuner: (box) => `${box}: is it muted?`,
  volume: (box) => `${box}: is it at full?`,
  gate: (box) => `${box}: does it shut?`,
  looper: (box) => `${box}: is its level up?`,
};

/** The way of one sound with how to listen behind each thing; undefined when it cannot be followed. */
export const faultFinder = (d: Derived, sound: Id<'sound'>): FaultFinder | undefined => {
  const compiled = d.compilation.sounds.get(sound);
  const way = compiled ? suspectsOf(d.rig, compiled) : [];
  if (way.length === 0) return undefined;
  const boxes = [...new Set(way.flatMap((s) => (s.is === 'box' ? [s.device] : [])))];
  const silencers = boxes.flatMap((id) => {
    const stages = partOf(d.rig, id)?.chains.flatMap((c) => blocksIn(c.slots).map((b) => b.stage)) ?? [];
    return [...new Set(stages)].flatMap((stage) => SILENCES[stage]?.(boxText(d.rig, id)) ?? []);
  });
  const passed = new Map(boxes.map((id) => [id, way.filter((s) => s.is === 'box' && s.device === id).length]));
  const suspects = way.map((s, i): SuspectView => {
    const listen = i === way.length - 1 ? undefined : listenText(d.rig, s);
    return {
      text: suspectText(d.rig, s, passed),
      weight: s.weight,
      ...(listen ? { listen } : {}),
      key: s.is === 'lead' ? s.cable : s.device,
    };
  });
  return {
    suspects: joinedUp(suspects),
    first: ['the volume of the instrument', ...silencers, 'is the channel open at the desk?'],
  };
};

/** Things behind which one cannot listen count with the one that follows. */
const joinedUp = (suspects: readonly SuspectView[]): readonly SuspectView[] =>
  suspects.reduce<readonly SuspectView[]>((all, s, i) => {
    const before = all.at(-1);
    if (!before || before.listen !== undefined || i === 0) return [...all, s];
    return [
      ...all.slice(0, -1),
      { ...s, text: `${before.text}; ${s.text}`, weight: before.weight + s.weight, key: before.key },
    ];
  }, []);
