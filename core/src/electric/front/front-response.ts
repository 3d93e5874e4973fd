import { once } from '../../kept/kept.js';
import type { Pickup } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { GROUND, type Element } from '../circuit/circuit.js';
import { responseOf, type Response } from '../circuit/response.js';
import { USUAL_INPUT_OHM, USUAL_PF_PER_M, type FrontEnd, type Hung } from './front-end.js';

/** A cable of 3 m and 100 pF a metre straight into 1 megohm: what others are measured against. */
const REFERENCE: readonly Hung[] = [
  {
    behind: 0,
    piece: { is: 'lead', cable: 'cable:reference', metres: 3, pF: 3 * USUAL_PF_PER_M, from: { from: 'assumed' } },
  },
  { behind: 0, piece: { is: 'input', jack: 'device:reference.in', ohm: USUAL_INPUT_OHM } },
];
/** Knobs at full, or rolled down as people roll them down to clean up. */
export const KNOBS = ['full', 'rolled down'] as const;
export type Knobs = (typeof KNOBS)[number];
/** How much of a volume knob is left when it stands at half: an audio taper (common practice, about 15 %). */
const ROLLED = 0.15;
const OPEN: Readonly<Record<Knobs, number>> = { full: 1, 'rolled down': ROLLED };
/** By how much an audio taper grows from shut to full, so that {@link ROLLED} is left at half. */
const TAPER = (1 / ROLLED - 1) ** 2;
/**
 * What is left of a volume knob at a position from 0 to 1, as a share; assumed to follow an audio taper.
 * @example taperedOpen(0.5) // 0.15
 */
export const taperedOpen = (position: number): number => (TAPER ** position - 1) / (TAPER - 1);
/** A pot that is shut still leaves so much. */
const LEAST_OPEN = 0.001;
/** Where differences are told, in Hz. */
export const TOLD_HZ = [1000, 2000, 3000, 5000] as const;

/**
 * A passive front end as a circuit; its last node is what the first box that is on hears.
 * @param open what is left of the volume knob, from 0 to 1
 */
export const frontCircuit = (
  { henry, ohm, pF, volumeOhm, tone, bleedPF }: Pickup,
  hung: readonly Hung[],
  open: number,
): { readonly elements: readonly Element[]; readonly output: string } => {
  const elements: Element[] = [];
  const put = (is: 'resistor' | 'capacitor' | 'inductor', n1: string, n2: string, value: number): void => {
    const letter = { resistor: 'R', capacitor: 'C', inductor: 'L' }[is];
    if (value > 0 || is === 'resistor') elements.push({ is, name: `${letter}${elements.length + 1}`, n1, n2, value });
  };
  elements.push({ is: 'source', name: 'V1', n1: 'emf', n2: GROUND });
  put('resistor', 'emf', 'coil', ohm);
  put('inductor', 'coil', 'hot', henry);
  put('capacitor', 'hot', GROUND, pF * 1e-12);
  if (tone) {
    put('resistor', 'hot', 'tone', tone.ohm);
    put('capacitor', 'tone', GROUND, tone.nF * 1e-9);
  }
  let node = 'hot';
  const pot = (of: number, share: number, next: string): void => {
    put('resistor', node, next, of * (1 - share));
    put('resistor', next, GROUND, of * share);
  };
  if (volumeOhm !== undefined) {
    pot(volumeOhm, Math.max(LEAST_OPEN, open), 'jack');
    if (bleedPF !== undefined && open < 1) put('capacitor', node, 'jack', bleedPF * 1e-12);
    node = 'jack';
  }
  const deepest = Math.max(0, ...hung.map((h) => h.behind));
  for (let behind = 0; behind <= deepest; behind += 1) {
    for (const { piece } of hung.filter((h) => h.behind === behind)) {
      if (piece.is === 'input') put('resistor', node, GROUND, Math.max(1, piece.ohm));
      else if (piece.is !== 'pot') put('capacitor', node, GROUND, piece.pF * 1e-12);
    }
    const found = hung.find((h) => h.behind === behind && h.piece.is === 'pot');
    if (found?.piece.is === 'pot') {
      const next = `behind${behind + 1}`;
      pot(found.piece.ohm, Math.max(LEAST_OPEN, found.piece.open), next);
      node = next;
    }
  }
  return { elements, output: node };
};

/** What a front end does to the sound. Levels in dB, frequencies in Hz. */
export interface FrontSound extends Response {
  /** Against 3 m of cable into 1 megohm, both against their own level at 100 Hz. */
  readonly against: readonly { readonly hz: number; readonly db: number }[];
}

const responseFor = (pickup: Pickup, hung: readonly Hung[], open: number): Response => {
  const { elements, output } = frontCircuit(pickup, hung, open);
  return responseOf(elements, output);
};

const references = once((pickup: Pickup) => ({
  full: responseFor(pickup, REFERENCE, OPEN.full),
  'rolled down': responseFor(pickup, REFERENCE, OPEN['rolled down']),
}));

/** The response of a coil with 3 m of cable into 1 megohm. */
export const referenceSound = (pickup: Pickup, knobs: Knobs): Response => references(pickup)[knobs];

/** The response of a front end as it is wired. @throws never: every node has a way to ground */
export const frontSound = ({ pickup, hung }: Pick<FrontEnd, 'pickup' | 'hung'>, knobs: Knobs): FrontSound => {
  const is = responseFor(pickup, hung, OPEN[knobs]);
  const reference = referenceSound(pickup, knobs);
  return { ...is, against: TOLD_HZ.map((hz) => ({ hz, db: is.at(hz) - reference.at(hz) })) };
};

/** The same front end with its volume knob anywhere, and nothing told against a reference. */
export const frontAt = ({ pickup, hung }: Pick<FrontEnd, 'pickup' | 'hung'>, open: number): Response =>
  responseFor(pickup, hung, open);

/** The same front end with other lengths of leads, each of the cable that it is. */
export const withLengths = (hung: readonly Hung[], metres: ReadonlyMap<Id<'cable'>, number>): readonly Hung[] =>
  hung.map(({ piece, behind }) => {
    const other = piece.is === 'lead' ? metres.get(piece.cable) : undefined;
    return piece.is === 'lead' && other !== undefined
      ? { behind, piece: { ...piece, metres: other, pF: (piece.pF / piece.metres) * other } }
      : { piece, behind };
  });

/** The same front end with something else in it: another length, one box less. */
export const withHung = (front: FrontEnd, change: (hung: Hung) => Hung | undefined): FrontEnd => ({
  ...front,
  hung: front.hung.flatMap((h) => change(h) ?? []),
});

const intoBuffer = (front: FrontEnd, hung: readonly Hung[]): FrontEnd => ({
  ...front,
  hung: [...hung, { behind: 0, piece: { is: 'input', jack: front.source.ref, ohm: USUAL_INPUT_OHM } }],
});

/** The front end with a buffer behind its first lead: nothing behind it is felt. */
export const buffered = (front: FrontEnd): FrontEnd => {
  const lead = front.hung.find((h) => h.piece.is === 'lead');
  return intoBuffer(front, lead ? [{ ...lead, behind: 0 }] : []);
};

/** The front end with a buffer or a transmitter on the strap: half a metre is felt, and nothing else. */
export const onTheStrap = (front: FrontEnd): FrontEnd =>
  intoBuffer(front, [
    {
      behind: 0,
      piece: { is: 'lead', cable: 'cable:strap', metres: 0.5, pF: USUAL_PF_PER_M / 2, from: { from: 'assumed' } },
    },
  ]);
