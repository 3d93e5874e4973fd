import { comb, combAt } from '../../electric/circuit/delays.js';
import { earthGraph, independentLoops, isolation, nodeDevice, type EarthLoop } from '../../electric/earths.js';
import { alongs, type Along, type Joint, type PassedStage } from '../../electric/levels/along.js';
import { isDrivenInput } from '../../electric/levels/driven-input.js';
import { noiseAt } from '../../electric/levels/noise.js';
import { isHeard, measuredIn, type StepWish } from '../../electric/levels/steps.js';
import { theItem } from '../../known/the.js';
import { applyMatch, matchLevels, type MatchedSound } from '../../plan/levels/match.js';
import { boxText, endText, stageText } from '../../recall/words/part-words.js';
import { controlText } from '../../recall/words/words.js';
import { jackAt } from '../../rig/box.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { MeasuredLevel, Role } from '../../rig/sound.js';
import type { Edit } from '../../change/edit.js';
import type { Trace } from '../../signal/graph/trace.js';
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
    .flatMap((a) => a.joints.filter((j) => j.level.peak > j.takes.dbu && trace && minds(rig, trace, j)))
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

/** Whether too much is too much there: not where it goes on over wire, nor into a stage that is meant to be driven. */
const minds = (rig: Rig, trace: Trace, { passesOn, to }: Joint): boolean => !passesOn && !isDrivenInput(rig, trace, to);

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

/** A place on the way of a sound: what comes in there and what goes on. Levels in dBu. */
export interface LevelStep {
  readonly key: string;
  readonly label: string;
  /** What stands on the tag of its box. */
  readonly code: string;
  readonly is: 'source' | 'stage' | 'input' | 'output';
  readonly average: number;
  readonly peak: number;
  /** By how much it is louder behind it than before it. */
  readonly gain?: number;
  /** What the place takes before it clips, in dBu. */
  readonly takes?: number;
  /** Somebody wrote the figures down; else they are assumed. */
  readonly said: boolean;
  /** How the number came about. */
  readonly how: string;
}

export interface NoiseLine {
  readonly text: string;
  readonly dbu: number;
  /** Its part of all noise power, in percent. */
  readonly percent: number;
}

export interface OutputView {
  readonly key: string;
  readonly text: string;
  readonly average: number;
  readonly peak: number;
  readonly ms: number;
  /** Noise while one plays, and in a pause behind gates. */
  readonly noise: number;
  readonly paused: number;
  readonly shares: readonly NoiseLine[];
}

export interface MeetingView {
  readonly key: string;
  readonly text: string;
  readonly ms: number;
  readonly db: number;
  readonly inverted: boolean;
  readonly notches: readonly number[];
  /** Level of the sum in dB against the first way alone, by frequency in Hz. */
  readonly curve: readonly { readonly hz: number; readonly db: number }[];
}

/** A sound from one of its sources. */
export interface WayLevels {
  readonly key: string;
  readonly source: string;
  readonly steps: readonly LevelStep[];
  readonly outputs: readonly OutputView[];
  readonly meetings: readonly MeetingView[];
}

/** A sound stage by stage, from each of its sources. */
export const soundLevels = (d: Derived, id: Id<'sound'>): readonly WayLevels[] => {
  const trace = d.compilation.sounds.get(id)?.trace;
  if (!trace) return [];
  return alongs(trace, d.rig).map((along): WayLevels => ({
    key: along.source.ref,
    source: sourceText(d.rig, along.source),
    steps: stepsOf(d, along, trace),
    outputs: along.outputs.map((output): OutputView => {
      const noise = noiseAt(d.rig, trace, along, output.point);
      return {
        key: output.jack,
        text: outputText(d.rig, output.end, output.jack),
        average: tenth(output.average),
        peak: tenth(output.peak),
        ms: tenth(output.ms[0]),
        noise: tenth(noise.dbu),
        paused: tenth(noise.paused),
        shares: noise.shares.slice(0, 8).map(({ stage, dbu }) => ({
          text: stage ? stageText(d.rig, stage) : 'the instrument itself',
          dbu: tenth(dbu),
          percent: Math.round(100 * 10 ** ((dbu - noise.dbu) / 10)),
        })),
      };
    }),
    meetings: meetingsOf(d.rig, along),
  }));
};

const sourceText = (rig: Rig, { end, device }: Along['source']): string => {
  const box = boxText(rig, device);
  return end.name === box ? box : `${end.name}, ${box}`;
};

const outputText = (rig: Rig, end: Ref, jack: Ref): string => {
  const { device, name } = splitRef(jack);
  const is = partOf(rig, device)?.ends?.find((e) => e.at === splitRef(end).name)?.is;
  if (is === 'stage') return `${endText(rig, end)}, ${boxText(rig, device)}`;
  return jackAt(rig, jack) && jack !== end ? `${endText(rig, end)}, ${name}` : endText(rig, end);
};

const stepsOf = (
  { rig, anatomy }: Derived,
  { source, start, stages, joints, order }: Along,
  trace: Trace,
): readonly LevelStep[] => {
  const place = new Map(order.map((point, i) => [point, i]));
  const { wiring } = anatomy;
  const at = (point: number | undefined): number => (point === undefined ? Infinity : (place.get(point) ?? Infinity));
  const met = [
    ...stages.map((s) => ({ at: at(theItem(wiring.to, theItem(s.edges, 0))), step: stageStep(rig, s) })),
    ...joints.map((j) => ({ at: at(wiring.at.get(j.to)), step: jointStep(rig, j, minds(rig, trace, j)) })),
  ].sort((a, b) => a.at - b.at);
  const said = source.end.dbu !== undefined && partOf(rig, source.device)?.figures.origin === 'measured';
  return [
    {
      key: source.ref,
      label: boxText(rig, source.device),
      code: codeOf(rig, source.device),
      is: 'source',
      average: tenth(start.average),
      peak: tenth(start.peak),
      said,
      how: said ? 'measured' : 'a typical level of its kind, assumed until somebody measures it',
    },
    ...met.map((m) => m.step),
  ];
};

const codeOf = (rig: Rig, device: Id<'device'>): string => partOf(rig, device)?.code ?? '';

const stageStep = (rig: Rig, { stage, into, out, said }: PassedStage): LevelStep => ({
  key: stage,
  label: stageText(rig, stage),
  code: codeOf(rig, splitRef(stage).device),
  is: 'stage',
  average: tenth(out.average),
  peak: tenth(out.peak),
  gain: tenth(out.average - into.average),
  said,
  how: said
    ? `${tenth(into.average)} dBu and its stated gain`
    : `${tenth(into.average)} dBu; its level knob is taken to stand as people leave it, so that a usual instrument comes out as loud as it went in`,
});

const jointStep = (rig: Rig, { to, from, loss, level, takes }: Joint, isMinded: boolean): LevelStep => {
  const [a, b] = [jackAt(rig, from), jackAt(rig, to)];
  return {
    key: `${from} ${to}`,
    label: `into ${boxText(rig, splitRef(to).device)}`,
    code: codeOf(rig, splitRef(to).device),
    is: 'input',
    average: tenth(level.average),
    peak: tenth(level.peak),
    gain: Math.round(loss * 100) / 100 + 0,
    ...(isMinded ? { takes: takes.dbu } : {}),
    said: takes.said,
    how: `20·log10(Zin / (Zin + Zout)) with ${b?.ohm ?? '?'} ohm in and ${a?.ohm ?? '1000, assumed,'} ohm out; it takes ${takes.dbu} dBu${takes.said ? '' : ', assumed'}`,
  };
};

/** Points of a curve, evenly on a scale of ratios from 20 Hz to 20 kHz. */
export const AUDIBLE_HZ: readonly number[] = Array.from({ length: 241 }, (_, i) => 20 * 1000 ** (i / 240));

const meetingsOf = (rig: Rig, { meetings }: Along): readonly MeetingView[] =>
  meetings.map(({ device, from, ms, db, inverted }, i): MeetingView => {
    const gain = 10 ** (db / 20) * (inverted ? -1 : 1);
    return {
      key: `${device} ${i}`,
      text: `${[...new Set(from.map((id) => boxText(rig, id)))].join(' and ')} meet in ${boxText(rig, device)}`,
      ms: Math.round(ms * 100) / 100,
      db: tenth(db),
      inverted,
      notches: ms > 0 ? comb(ms / 1000, gain).notches : [],
      curve: AUDIBLE_HZ.map((hz) => ({ hz, db: Math.max(-60, combAt(ms / 1000, gain, hz)) })),
    };
  });
