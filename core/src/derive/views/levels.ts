import { earthGraph, independentLoops, isolation, nodeDevice, type EarthLoop } from '../../electric/earths.js';
import { alongs } from '../../electric/levels/along.js';
import { mindsTooMuch } from '../../electric/levels/driven-input.js';
import { noiseAt } from '../../electric/levels/noise.js';
import { isHeard, measuredIn, type StepWish } from '../../electric/levels/steps.js';
import { applyMatch, matchLevels, type MatchedSound } from '../../plan/levels/match.js';
import { boxText, stageText } from '../../recall/words/part-words.js';
import { controlText } from '../../recall/words/words.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { MeasuredLevel, Role } from '../../rig/sound.js';
import type { Edit } from '../../change/edit.js';
import type { Derived } from '../steps/deriver.js';

const tenth = (value: number): number => Math.round(value * 10) / 10 + 0;

/** A sound beside the others. */
export interface SoundLine {
  readonly id: Id<'sound'>;
  readonly name: string;
  readonly role: Role;
  /** Over the level around which all lie, in dB. */
  readonly db: number;
  readonly wish: StepWish;
  readonly off: number;
  readonly measured?: MeasuredLevel;
  /** What would bring it there, in words; `stored` where a slot can hold it. */
  readonly change?: { readonly text: string; readonly stored: boolean };
  /** By how much noise lies under it where that is worst, in dB, and what makes most of it. */
  readonly noise?: { readonly under: number; readonly most: string };
  /** How late it is at its outputs, in ms. */
  readonly ms: number;
  /** By how much its strongest notes go over what an input takes; absent where they do not. */
  readonly over?: { readonly db: number; readonly at: string };
}

/** All sounds of a hook-up beside each other, and what stands between chassis. */
export interface LevelsView {
  readonly sounds: readonly SoundLine[];
  readonly off: number;
  /** How many of these a slot can store. */
  readonly storable: number;
  readonly earths: EarthsView;
}

export interface EarthsView {
  readonly loops: number;
  /** Boxes that are earthed by their mains lead, and those with a mains plug that say nothing of it. */
  readonly earthed: readonly string[];
  readonly unsaid: readonly string[];
  readonly throughMains: readonly { readonly text: string; readonly boxes: readonly Id<'device'>[] }[];
  /** The fewest signal leads to isolate; undefined where that needs many. */
  readonly isolate: readonly string[] | undefined;
}

/** What a sound passes, where it comes to an output at all. */
const traceOf =
  ({ rig, compilation }: Derived) =>
  (sound: Id<'sound'>) => {
    const trace = compilation.sounds.get(sound)?.trace;
    return trace && isHeard(rig, trace) ? trace : undefined;
  };

export const levelsOf = (d: Derived): LevelsView => {
  const matched = matchLevels(d.rig, d.hookup, traceOf(d));
  const off = matched.filter((m) => m.change);
  return {
    sounds: matched.map((m) => lineOf(d, m)),
    off: off.length,
    storable: off.filter((m) => m.change?.stores).length,
    earths: earthsOf(d),
  };
};

/** Every number that slots can store so that all sounds lie where they are wanted. */
export const matchedByNumbers = (d: Derived): Edit => applyMatch(d.hookup.id, matchLevels(d.rig, d.hookup, traceOf(d)));

const lineOf = (d: Derived, { sound, db, wish, off, change }: MatchedSound): SoundLine => {
  const { rig } = d;
  const trace = d.compilation.sounds.get(sound.id)?.trace;
  const ways = trace ? alongs(trace, rig) : [];
  const noises = ways.flatMap((along) =>
    trace
      ? along.outputs.map((output) => {
          const noise = noiseAt(rig, trace, along, output.point);
          return { under: tenth(output.average - noise.paused), most: noise.shares[0] };
        })
      : [],
  );
  const worst = noises.sort((a, b) => a.under - b.under)[0];
  const over = ways
    .flatMap((a) => a.joints.filter((j) => j.level.peak > j.takes.dbu && trace && mindsTooMuch(rig, trace, j)))
    .sort((a, b) => b.level.peak - b.takes.dbu - (a.level.peak - a.takes.dbu))[0];
  const measured = measuredIn(sound, d.hookup.id);
  return {
    id: sound.id,
    name: sound.name,
    role: sound.role,
    db: tenth(db),
    wish,
    off: tenth(off),
    ms: tenth(Math.max(0, ...ways.flatMap((a) => a.outputs.map((o) => o.ms[0])))),
    ...(measured ? { measured } : {}),
    ...(change ? { change: { text: changeText(rig, change), stored: change.stores !== undefined } } : {}),
    ...(worst?.most
      ? {
          noise: {
            under: worst.under,
            most: worst.most.stage ? stageText(rig, worst.most.stage) : 'the instrument itself',
          },
        }
      : {}),
    ...(over
      ? { over: { db: tenth(over.level.peak - over.takes.dbu), at: boxText(rig, splitRef(over.to).device) } }
      : {}),
  };
};

const changeText = (rig: Rig, { db, stores }: NonNullable<MatchedSound['change']>): string =>
  stores
    ? `${controlText(rig, stores.control.control)} ${stores.control.now} → ${stores.value}`
    : `a level knob behind what is driven: ${byHand(db)}`;

/** @example byHand(-2.4) // 'a little down (2.4 dB)' */
const byHand = (db: number): string => {
  const size = Math.abs(db);
  const much = size < 1.5 ? 'a touch' : size < 4 ? 'a little' : size < 8 ? 'clearly' : 'far';
  return `${much} ${db < 0 ? 'down' : 'up'} (${tenth(size)} dB)`;
};

const earthsOf = ({ rig, hookup }: Derived): EarthsView => {
  const graph = earthGraph(rig, hookup);
  const { loops, leads } = isolation(graph);
  const lead = (id: Id<'cable'>): string => {
    const ends = partOf(rig, id)?.ends ?? [];
    return ends.map((end) => boxText(rig, splitRef(end).device)).join(' to ');
  };
  return {
    loops: independentLoops(graph),
    earthed: graph.edges.flatMap((e) => (e.is === 'mains' ? [boxText(rig, e.between[0] as Id<'device'>)] : [])),
    unsaid: all(rig, 'device')
      .filter((d) => graph.nodes.includes(d.id) && d.figures.mainsEarth === undefined)
      .filter((d) => d.jacks.some((j) => j.kind === 'mains'))
      .map((d) => boxText(rig, d.id)),
    throughMains: loops.map((l) => ({ text: wayText(rig, l), boxes: [...l.boxes] })),
    isolate: leads?.map(lead),
  };
};

const wayText = (rig: Rig, { boxes: [from], way }: EarthLoop): string => {
  const names = [boxText(rig, from)];
  let at: string = from;
  for (const { between } of way) {
    const [a, b] = between;
    at = a === at ? b : a;
    const device = nodeDevice(rig, at as typeof a);
    const name = device ? boxText(rig, device) : 'the mains';
    if (names.at(-1) !== name) names.push(name);
  }
  return `${names.join(' – ')} – earth of the mains`;
};
