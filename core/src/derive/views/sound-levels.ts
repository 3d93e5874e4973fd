import { comb, combAt } from '../../electric/circuit/delays.js';
import { alongs, type Along, type Joint, type PassedStage } from '../../electric/levels/along.js';
import { mindsTooMuch } from '../../electric/levels/driven-input.js';
import { gateRooms, type GateRoom } from '../../electric/levels/gates.js';
import { wetEnds, type WetEnd } from '../../electric/levels/wet-ways.js';
import { noiseAt, type NoiseAt } from '../../electric/levels/noise.js';
import { typicalOf, USUAL_OUTPUT_OHM } from '../../electric/typical.js';
import { gainOf } from '../../electric/gain.js';
import { isDriven } from '../../electric/levels/stage-gain.js';
import { grouped } from '../../known/grouped.js';
import { theItem } from '../../known/the.js';
import type { Block } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { boxText, endText, stageText } from '../../recall/words/part-words.js';
import { jackAt } from '../../rig/box.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, thePart, type Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { Derived } from '../steps/deriver.js';
import { figureInput, type FigureInput } from './figure-input.js';

const tenth = (value: number): number => Math.round(value * 10) / 10 + 0;

/** A place on the way of a sound: what comes in there and what goes on. Levels in dBu. */
export interface LevelStep {
  readonly key: string;
  readonly device: Id<'device'>;
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
  /** How the number came about, and from which figures. */
  readonly how: string;
  readonly from: readonly FigureInput[];
}

export interface NoiseLine {
  readonly text: string;
  readonly dbu: number;
  /** Its part of all noise power, in percent. */
  readonly percent: number;
  /** What its own noise is taken to be; absent for the heat of the instrument itself. */
  readonly from?: FigureInput;
}

export interface OutputView {
  readonly key: string;
  readonly end: Ref;
  readonly text: string;
  readonly average: number;
  readonly peak: number;
  readonly ms: number;
  /** Noise while one plays, and in a pause behind gates. */
  readonly noise: number;
  readonly paused: number;
  readonly shares: readonly NoiseLine[];
  /** Box by box, for finding at the bench who makes a noise; the instrument by itself is one of them. */
  readonly suspects: readonly NoiseSuspect[];
}

/** A box that may make a noise. */
export interface NoiseSuspect {
  readonly id: string;
  readonly text: string;
  readonly share: number;
}

/** Between what levels the threshold of a gate has its place, in dBu. */
export interface GateView {
  readonly key: string;
  readonly text: string;
  readonly noise: number;
  readonly sound: number;
  readonly wet: readonly { readonly text: string; readonly percent?: number; readonly dbu?: number }[];
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
  readonly gates: readonly GateView[];
  /** Outputs that hear it only through delays and reverbs, beside others that hear it dry. */
  readonly wet: readonly WetView[];
}

export interface WetView {
  readonly text: string;
  readonly carriesDry: boolean;
  /** How the delays and reverbs on its way stand. */
  readonly stands: readonly string[];
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
        end: output.end,
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
          ...(stage ? { from: ownNoise(d.rig, stage) } : {}),
        })),
        suspects: suspectsOf(d.rig, noise),
      };
    }),
    meetings: meetingsOf(d.rig, along),
    wet: wetEnds(d.rig, trace, along).map((w) => wetView(d.rig, w)),
    gates: gateRooms(d.rig, trace, along).map((room) => gateView(d.rig, room)),
  }));
};

const INSTRUMENT = 'instrument';
const suspectsOf = (rig: Rig, { dbu, shares }: NoiseAt): readonly NoiseSuspect[] => {
  const boxes = grouped(shares, ({ stage }) => (stage ? splitRef(stage).device : INSTRUMENT));
  return [...boxes].map(([id, of]) => ({
    id,
    text: id === INSTRUMENT ? 'the instrument (its volume shut)' : boxText(rig, id as Id<'device'>),
    share: of.reduce((sum, s) => sum + 10 ** ((s.dbu - dbu) / 10), 0),
  }));
};

const wetView = (rig: Rig, { end, carriesDry, through }: WetEnd): WetView => ({
  text: boxText(rig, end.device),
  carriesDry,
  stands: through.map(
    ({ stage, percent, isIn }) =>
      `${stageText(rig, stage)} ${isIn ? (percent === undefined ? 'with a mix that is not said' : `at ${Math.round(percent)} %`) : 'out'}`,
  ),
});

const gateView = (rig: Rig, { gate, noise, sound, wet }: GateRoom): GateView => ({
  key: gate,
  text: stageText(rig, gate),
  noise: tenth(noise),
  sound: tenth(sound),
  wet: wet.map(({ stage, percent, dbu }) => ({
    text: stageText(rig, stage),
    ...(percent === undefined ? {} : { percent: Math.round(percent) }),
    ...(dbu === undefined ? {} : { dbu: tenth(dbu) }),
  })),
});

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
    ...joints.map((j) => ({ at: at(wiring.at.get(j.to)), step: jointStep(rig, j, mindsTooMuch(rig, trace, j)) })),
  ].sort((a, b) => a.at - b.at);
  return [
    {
      key: source.ref,
      device: source.device,
      label: boxText(rig, source.device),
      code: codeOf(rig, source.device),
      is: 'source',
      average: tenth(start.average),
      peak: tenth(start.peak),
      how: 'as hard as one usually plays',
      from: [
        figureInput(
          rig,
          'source',
          source.ref,
          'dbu',
          `${tenth(start.average)} on average, ${tenth(start.peak)} at peaks`,
        ),
      ],
    },
    ...met.map((m) => m.step),
  ];
};

const codeOf = (rig: Rig, device: Id<'device'>): string => partOf(rig, device)?.code ?? '';

/** The block of a stage, wherever it stands in its box. */
const blockAt = (rig: Rig, stage: Ref): Block | undefined => {
  const { device, name } = splitRef(stage);
  return thePart(rig, device)
    .chains.flatMap((c) => blocksIn(c.slots))
    .find((b) => b.id === name);
};

const ownNoise = (rig: Rig, stage: Ref): FigureInput =>
  figureInput(rig, 'stage', stage, 'noiseDbu', `${typicalOf(blockAt(rig, stage)?.stage ?? 'buffer').noise} dBu`);

const stageStep = (rig: Rig, { stage, into, out, said }: PassedStage): LevelStep => {
  const block = blockAt(rig, stage);
  const amount = block && gainOf(thePart(rig, splitRef(stage).device), block);
  const isDrive = block !== undefined && isDriven(block.stage);
  const usual = block && (isDrive ? `${amount?.db} dB before it clips` : `${typicalOf(block.stage).lift} dB`);
  const ceiling = block && (isDrive ? amount?.ceiling : (block.maxDbu ?? typicalOf(block.stage).ceiling));
  return {
    key: stage,
    device: splitRef(stage).device,
    label: stageText(rig, stage),
    code: codeOf(rig, splitRef(stage).device),
    is: 'stage',
    average: tenth(out.average),
    peak: tenth(out.peak),
    gain: tenth(out.average - into.average),
    how: said
      ? `${tenth(into.average)} dBu and its gain`
      : `${tenth(into.average)} dBu; its level knob is taken to stand as people leave it, so that a usual instrument comes out as loud as it went in`,
    from: [
      ...(usual ? [figureInput(rig, 'stage', stage, 'gain', usual)] : []),
      ...(ceiling === undefined ? [] : [figureInput(rig, 'stage', stage, 'maxDbu', `${ceiling} dBu`)]),
    ],
  };
};

const jointStep = (rig: Rig, { to, from, loss, level, takes }: Joint, isMinded: boolean): LevelStep => {
  const isDivider = jackAt(rig, to)?.ohm !== undefined && loss !== 0;
  return {
    key: `${from} ${to}`,
    device: splitRef(to).device,
    label: `into ${boxText(rig, splitRef(to).device)}`,
    code: codeOf(rig, splitRef(to).device),
    is: 'input',
    average: tenth(level.average),
    peak: tenth(level.peak),
    gain: Math.round(loss * 100) / 100 + 0,
    ...(isMinded ? { takes: takes.dbu } : {}),
    how: isDivider ? '20·log10(Zin / (Zin + Zout))' : 'no loss is reckoned here',
    from: [
      figureInput(rig, 'jack', from, 'ohm', `${USUAL_OUTPUT_OHM} ohm`),
      figureInput(rig, 'jack', to, 'ohm'),
      figureInput(rig, 'jack', to, 'maxDbu', `${takes.dbu} dBu`),
    ],
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
