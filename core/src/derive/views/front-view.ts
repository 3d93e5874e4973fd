import { sourceText } from '../../rig/figure-source.js';
import { frontEnds, type FrontEnd, type Hung, type Piece } from '../../electric/front/front-end.js';
import {
  buffered,
  frontSound,
  KNOBS,
  onTheStrap,
  referenceSound,
  withHung,
  type FrontSound,
  type Knobs,
} from '../../electric/front/front-response.js';
import { pickupText } from '../../catalogue/figures.js';
import { theOne } from '../../known/the.js';
import { boxText } from '../../recall/words/part-words.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { figureInput, type FigureInput } from './figure-input.js';
import { AUDIBLE_HZ } from './sound-levels.js';

const hundredth = (value: number): number => Math.round(value * 100) / 100 + 0;

/** What hangs on a coil, in the order in which it is met. */
export interface PieceView {
  readonly key: string;
  readonly text: string;
  readonly metres?: number;
  readonly pF?: number;
  readonly ohm?: number;
  /** The figure of a box behind it. */
  readonly from?: FigureInput;
  /** Of a lead, a way or a bypassed box: where it comes from what it is to a coil, in words. */
  readonly source?: string;
  /** The lead, where it is one. */
  readonly cable?: Id<'cable'>;
}

/** What something else in its place would do. */
export interface Otherwise {
  readonly text: string;
  /** Against 3 m of cable, in dB at 5 kHz. */
  readonly at5k: number;
  readonly peakHz?: number;
}

export interface KnobsView {
  readonly knobs: Knobs;
  readonly peak?: { readonly hz: number; readonly db: number };
  readonly minus3?: number;
  readonly against: readonly { readonly hz: number; readonly db: number }[];
  readonly curve: readonly { readonly hz: number; readonly db: number; readonly reference: number }[];
}

/** The passive part behind an instrument in a sound. */
export interface FrontView {
  readonly key: string;
  readonly instrument: string;
  readonly device: Id<'device'>;
  readonly metres: number;
  readonly pF: number;
  readonly unmeasured: number;
  /** The coil and what hangs on it, to be tried otherwise on the page. */
  readonly front: Pick<FrontEnd, 'pickup' | 'hung'>;
  /** The coil and its knobs. */
  readonly coil: FigureInput;
  readonly pieces: readonly PieceView[];
  readonly knobs: readonly KnobsView[];
  readonly otherwise: readonly Otherwise[];
}

/** The passive front end of every instrument with a coil in a sound, the one with most on it first. */
export const frontsIn = (d: Derived, sound: Id<'sound'>): readonly FrontView[] => {
  const trace = d.compilation.sounds.get(sound)?.trace;
  const fronts = trace ? frontEnds(d.rig, trace).map((front) => viewOf(d.rig, front)) : [];
  return fronts.sort((a, b) => b.pF - a.pF);
};

const viewOf = (rig: Rig, front: FrontEnd): FrontView => ({
  key: front.source.ref,
  instrument: boxText(rig, front.source.device),
  device: front.source.device,
  metres: hundredth(front.metres),
  pF: Math.round(front.pF),
  unmeasured: front.unmeasured.length,
  front: { pickup: front.pickup, hung: front.hung },
  coil: figureInput(rig, 'source', front.source.ref, 'pickup', pickupText(front.pickup)),
  pieces: front.hung.map(({ piece }) => pieceView(rig, piece)),
  knobs: KNOBS.map((knobs) => knobsView(front, knobs)),
  otherwise: otherwise(rig, front),
});

const knobsView = (front: FrontEnd, knobs: Knobs): KnobsView => {
  const { peak, minus3, against, at } = frontSound(front, knobs);
  const reference = referenceSound(front.pickup, knobs);
  return {
    knobs,
    ...(peak ? { peak: { hz: Math.round(peak.hz), db: hundredth(peak.db) } } : {}),
    ...(minus3 === undefined ? {} : { minus3: Math.round(minus3) }),
    against: against.map(({ hz, db }) => ({ hz, db: hundredth(db) })),
    curve: SMOOTH_HZ.map((hz) => ({ hz, db: hundredth(at(hz)), reference: hundredth(reference.at(hz)) })),
  };
};

/** A coil's response is smooth: half as many points as for combs. */
const SMOOTH_HZ = AUDIBLE_HZ.filter((_, i) => i % 2 === 0);

const ASSUMED = sourceText({ from: 'assumed' });

/** As figures of boxes are written. */
const ohmText = (ohm: number): string => `${ohm} ohm`;

const pieceView = (rig: Rig, piece: Piece): PieceView => {
  switch (piece.is) {
    case 'lead': {
      const [a, b] = (partOf(rig, piece.cable)?.ends ?? []).map((end) => boxText(rig, splitRef(end).device));
      return {
        key: piece.cable,
        text: `lead from ${a ?? '?'} to ${b ?? '?'}`,
        metres: piece.metres,
        pF: Math.round(piece.pF),
        source: sourceText(piece.from),
        cable: piece.cable,
      };
    }
    case 'way':
      return {
        key: `${piece.device} way`,
        text: `a way through ${boxText(rig, piece.device)}`,
        metres: piece.metres,
        pF: Math.round(piece.pF),
        source: ASSUMED,
      };
    case 'bypassed':
      return { key: piece.device, text: `${boxText(rig, piece.device)}, bypassed`, pF: piece.pF, source: ASSUMED };
    case 'pot':
      return {
        key: piece.device,
        text: `${boxText(rig, piece.device)}, its pot`,
        ohm: piece.ohm,
        from: figureInput(rig, 'jack', piece.jack, 'ohm', ohmText(piece.ohm)),
      };
    case 'input':
      return {
        key: piece.jack,
        text: `input of ${boxText(rig, splitRef(piece.jack).device)}`,
        ohm: piece.ohm,
        from: figureInput(rig, 'jack', piece.jack, 'ohm', ohmText(piece.ohm)),
      };
  }
};

const otherwise = (rig: Rig, front: FrontEnd): readonly Otherwise[] => {
  const tell = (text: string, other: FrontEnd): Otherwise => {
    const sound: FrontSound = frontSound(other, 'full');
    return {
      text,
      at5k: hundredth(theOne(sound.against, (a) => a.hz === 5000).db),
      ...(sound.peak ? { peakHz: Math.round(sound.peak.hz) } : {}),
    };
  };
  const leads = front.hung.flatMap(({ piece }) => (piece.is === 'lead' ? [piece] : []));
  const longest = leads.sort((a, b) => b.metres - a.metres)[0];
  const shortened = (h: Hung): Hung =>
    h.piece === longest && longest
      ? { ...h, piece: { ...longest, metres: 3, pF: (longest.pF / longest.metres) * 3 } }
      : h;
  return [
    tell('a buffer or a transmitter on the strap', onTheStrap(front)),
    ...(longest ? [tell('a buffer behind the first lead', buffered(front))] : []),
    ...(longest && longest.metres > 3
      ? [tell(`3 m instead of ${longest.metres} m for the longest lead`, withHung(front, shortened))]
      : []),
    ...(front.bypassed.length > 0
      ? [
          tell(
            `${[...new Set(front.bypassed)].map((id) => boxText(rig, id)).join(', ')} in a loop instead of in the line`,
            withHung(front, (h) => (h.piece.is === 'bypassed' ? undefined : h)),
          ),
        ]
      : []),
    ...(longest ? [65, 160].map((pF) => tell(`cable of ${pF} pF a metre throughout`, withHung(front, ofPF(pF)))) : []),
  ];
};

/** Every lead of another capacitance. */
const ofPF =
  (pFPerM: number) =>
  (h: Hung): Hung =>
    h.piece.is === 'lead' ? { ...h, piece: { ...h.piece, pF: h.piece.metres * pFPerM } } : h;
