import { boardsBeneath, carrierOf, laidOut, type LaidOut } from './laid-out.js';
import { weightOf } from './weight.js';
import { packingOn } from '../edits/packing.js';
import { boxesAlong } from '../rig/box.js';
import type { Device } from '../rig/device.js';
import type { Hookup } from '../rig/hookup.js';
import type { PackCase, Packed, PackedBy } from '../rig/packing.js';
import { all, partOf, type Rig } from '../rig/rig.js';

/**
 * Above this one person alone should not lift, even in the best posture, in kg: the load constant of the revised
 * lifting equation (NIOSH, Publication 94-110, 1994). Local rules may ask for less.
 */
export const ONE_PERSON_KG = 23;

/** Something in a case, and whether it went out and came back. */
export interface ThingView {
  readonly name: string;
  readonly thing: Packed;
  /** Of all of them, in kg; absent where nobody knows. */
  readonly kg?: number;
  readonly out?: PackedBy;
  readonly back?: PackedBy;
}

export interface CaseView {
  readonly case: PackCase;
  readonly things: readonly ThingView[];
  /** With all that belongs in it and has a weight. */
  readonly kg: number;
  /** Things of which nobody knows the weight. */
  readonly unknown: readonly string[];
  /** Over what it may weigh, in kg. */
  readonly over: number;
  /** Boards that do not go in, in words. */
  readonly tooLarge: readonly string[];
  /** What is to be heeded, in words. */
  readonly cautions: readonly string[];
}

export interface PackingView {
  readonly cases: readonly CaseView[];
  /** What this hook-up needs and no case holds. */
  readonly loose: readonly Device[];
  /** Boards on which something stands, and that no case holds. */
  readonly looseBoards: readonly string[];
  /** Boxes that are packed and of no use in this hook-up. */
  readonly stays: readonly string[];
  /** Went in and is not back, once the first thing is back. */
  readonly missing: readonly { readonly name: string; readonly by: PackedBy }[];
  /** Not in yet, once the first thing is in. */
  readonly open: readonly string[];
}

/** What things of a case weigh, in kg; a box from its own figures, a board with all that stands on it. */
const weightIn = (rig: Rig, out: LaidOut, { device, board, many = 1, kg, is }: Packed): number | undefined => {
  // A backup of a box is not the box.
  if (is === 'digital') return (kg ?? 0) * many;
  const one = kg ?? (board === undefined ? device && partOf(rig, device)?.figures.kg : weightOf(out, board).kg);
  return one === undefined ? undefined : one * many;
};

const kilos = (kg: number): string => `${Math.round(kg * 10) / 10} kg`;

/** Why a board does not go into a case: longer, deeper or higher than it is inside. */
const tooLargeFor = ({ mm: inside }: PackCase, out: LaidOut, name: string): string | undefined => {
  const board = out.boards.get(name);
  if (!board || !inside) return undefined;
  const [long, short] = [...board.mm].sort((a, b) => b - a);
  const [iLong, iShort] = inside.slice(0, 2).sort((a, b) => b - a);
  const tiers = boardsBeneath(out.boards, name);
  const tops = tiers.flatMap(({ name: tier, z }) => [
    z,
    ...out.boxes.filter((b) => b.board === tier).map((b) => z + b.high),
  ]);
  const high = Math.max(...tops) - Math.min(...tops);
  const over = [
    ['long', (long ?? 0) - (iLong ?? 0)],
    ['deep', (short ?? 0) - (iShort ?? 0)],
    ['high', high - inside[2]],
  ] as const;
  const words = over.flatMap(([how, mm]) => (mm > 0 ? [`${Math.ceil(mm)} mm too ${how}`] : []));
  return words.length ? `${name} is ${words.join(' and ')} for it.` : undefined;
};

const cautionsFor = ({ travels, holds }: PackCase, kg: number): readonly string[] => [
  ...(kg > ONE_PERSON_KG
    ? [
        `${kilos(kg)}: two people lift it. One alone no more than ${ONE_PERSON_KG} kg (NIOSH 94-110); local rules may ask for less.`,
      ]
    : []),
  ...(travels === 'hold' && Object.values(holds).some((t) => t.is === 'to charge')
    ? [
        'Spare lithium batteries do not go into the hold (49 CFR 175.10): take them into the cabin, and ask your carrier.',
      ]
    : []),
];

/** One case as it stands on a day. */
const caseView = (rig: Rig, out: LaidOut, one: PackCase, on: string): CaseView => {
  const packing = packingOn(rig, on);
  const things = Object.entries(one.holds).map(([name, thing]): ThingView => {
    const kg = weightIn(rig, out, thing);
    const [gone, back] = [packing?.out[name], packing?.back[name]];
    return {
      name,
      thing,
      ...(kg === undefined ? {} : { kg }),
      ...(gone ? { out: gone } : {}),
      ...(back ? { back } : {}),
    };
  });
  const kg = things.reduce((sum, t) => sum + (t.kg ?? 0), one.kg ?? 0);
  return {
    case: one,
    things,
    kg,
    unknown: things.flatMap(({ name, kg: own, thing: { kg: said, board } }) =>
      own === undefined || (said === undefined && board !== undefined && weightOf(out, board).unknown.length > 0)
        ? [name]
        : [],
    ),
    over: one.mostKg === undefined ? 0 : Math.max(0, kg - one.mostKg),
    tooLarge: things.flatMap((t) => (t.thing.board === undefined ? [] : (tooLargeFor(one, out, t.thing.board) ?? []))),
    cautions: cautionsFor(one, kg),
  };
};

/** Every case with what it weighs, on no day in particular. */
export const packedCases = (rig: Rig, hookup: Hookup): readonly CaseView[] => {
  const out = laidOut(rig, hookup);
  return all(rig, 'packCase').map((one) => caseView(rig, out, one, ''));
};

/** The box of the rig itself, and neither a spare one nor a backup of what it holds. */
const boxItself = ({ device, is }: Packed): Packed['device'] =>
  is === 'spare' || is === 'digital' ? undefined : device;

/** What is packed for a hook-up, what is not, and what is missing, on a day. */
export const packingView = (rig: Rig, hookup: Hookup, on: string): PackingView => {
  const out = laidOut(rig, hookup);
  const cases = all(rig, 'packCase').map((one) => caseView(rig, out, one, on));
  const packed = cases.flatMap((c) => c.things.map((t) => t.thing));
  const boards = new Set(packed.flatMap((t) => t.board ?? []));
  const wired = boxesAlong(rig, hookup.id);
  const isPacked = ({ id }: Device): boolean =>
    packed.some((t) => boxItself(t) === id) || boards.has(carrierOf(out.boards, hookup.place?.[id]?.at ?? ''));
  const things = cases.flatMap((c) => c.things);
  const hasOut = things.some((t) => t.out);
  const hasBack = things.some((t) => t.back);
  return {
    cases,
    loose: all(rig, 'device').filter((d) => wired.has(d.id) && isCarried(d) && !isPacked(d)),
    looseBoards: [...new Set(out.boxes.map((b) => carrierOf(out.boards, b.board)))].filter((b) => !boards.has(b)),
    stays: things.flatMap(({ name, thing }) => {
      const box = boxItself(thing);
      return box && !wired.has(box) ? [name] : [];
    }),
    missing: hasBack ? things.flatMap((t) => (t.out && !t.back ? [{ name: t.name, by: t.out }] : [])) : [],
    open: hasOut && !hasBack ? things.flatMap((t) => (t.out ? [] : [t.name])) : [],
  };
};

/** Where sound ends is the house's own: desk and house are not carried. */
const isCarried = ({ ends = [] }: Device): boolean => !ends.some((e) => e.is === 'house');
