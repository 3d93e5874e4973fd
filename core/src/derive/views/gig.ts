import { packedCases } from '../../board/packed.js';
import { sizeOf } from '../../board/jacks.js';
import { sizeText } from '../../board/said.js';
import { supplyNeedsIn } from '../../electric/supply.js';
import { boxesAlong } from '../../rig/box.js';
import type { Device } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { GigLimits } from '../../rig/show.js';
import type { Derived } from '../steps/deriver.js';
import { boxUse } from './without.js';

/** A box that is plugged in a hook-up, with what it takes and what it is used for. */
export interface GigBox {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  /** Sounds and songs in which it is heard; absent for one that makes no sound. */
  readonly use?: { readonly sounds: number; readonly of: number; readonly songs: number };
  /** In kg. */
  readonly kg?: number;
  readonly price?: number;
  /** Supply outputs that it takes. */
  readonly outputs: number;
  /** What it covers of a board, in mm²; nothing where it stands beside it. */
  readonly covers: number;
  /** Plugs into the wall less sockets that it brings. */
  readonly mains: number;
  readonly isAmp: boolean;
  /** A loudspeaker on stage. */
  readonly isLoud: boolean;
}

/** One thing that a gig asks, and whether the kit keeps to it. */
export interface GigLine {
  readonly asks: string;
  readonly is: string;
  readonly holds: boolean;
}

const isHouse = ({ ends = [] }: Device): boolean => ends.some((e) => e.is === 'house');
const isLoud = ({ ends = [], jacks }: Device): boolean =>
  ends.some((e) => e.is === 'stage') || jacks.some((j) => j.level === 'speaker' && j.poles.tip === 'in');
const mainsOf = ({ jacks }: Device): number => {
  const plugs = jacks.filter((j) => j.kind === 'mains');
  return plugs.some((j) => j.poles.tip === 'in') ? 1 - plugs.filter((j) => j.poles.tip === 'out').length : 0;
};

/** Every box of a hook-up that is carried, in the order of the kit. */
export const gigBoxes = (d: Derived): readonly GigBox[] => {
  const { rig, hookup } = d;
  const wired = boxesAlong(rig, hookup.id);
  const needs = supplyNeedsIn(rig, hookup.id);
  return all(rig, 'device')
    .filter((device) => wired.has(device.id) && !isHouse(device))
    .map((device) => {
      const use = boxUse(d, device.id);
      const [w, deep] = sizeOf(device);
      const { kg, price, powerStage } = device.figures;
      return {
        device: device.id,
        code: device.code,
        name: device.name,
        ...(use ? { use: { sounds: use.sounds.length, of: use.of, songs: use.songs.length } } : {}),
        ...(kg === undefined ? {} : { kg }),
        ...(price === undefined ? {} : { price }),
        outputs: needs.filter((n) => n.device === device.id).length,
        covers: device.zone === 'floor' ? w * deep : 0,
        mains: mainsOf(device),
        isAmp: powerStage !== undefined,
        isLoud: isLoud(device),
      };
    });
};

/** What some boxes take together. */
export interface GigSums {
  readonly kg: number;
  /** Boxes of which nobody knows the weight, or the price. */
  readonly unweighed: number;
  readonly unpriced: number;
  readonly price: number;
  readonly outputs: number;
  readonly covers: number;
  readonly mains: number;
}

export const gigSums = (boxes: readonly GigBox[]): GigSums => {
  const sum = (of: (box: GigBox) => number): number => boxes.reduce((n, box) => n + of(box), 0);
  return {
    kg: sum((b) => b.kg ?? 0),
    unweighed: boxes.filter((b) => b.kg === undefined).length,
    price: sum((b) => b.price ?? 0),
    unpriced: boxes.filter((b) => b.price === undefined).length,
    outputs: sum((b) => b.outputs),
    covers: sum((b) => b.covers),
    mains: Math.max(
      0,
      sum((b) => b.mains),
    ),
  };
};

const cm2 = (mm2: number): string => `${Math.round(mm2 / 100)} cm²`;
const named = (boxes: readonly GigBox[]): string => boxes.map((b) => b.name).join(', ') || 'none';

/** Each limit of a gig against the boxes that come along. */
export const gigLines = (
  { rig, hookup }: Pick<Derived, 'rig' | 'hookup'>,
  limits: GigLimits,
  boxes: readonly GigBox[],
): readonly GigLine[] => {
  const sums = gigSums(boxes);
  const [amps, loud] = [boxes.filter((b) => b.isAmp), boxes.filter((b) => b.isLoud)];
  const line = (asks: string, is: string, holds: boolean): GigLine => ({ asks, is, holds });
  const { silent, house, amp, outputs, board, mostKg, sockets } = limits;
  const hears = [...hookup.hears, ...all(rig, 'sound').flatMap((s) => s.hears ?? [])];
  const stereo = hears.some((h) => h.as === 'stereo');
  return [
    ...(silent ? [line('A silent stage', `loudspeakers: ${named(loud)}`, loud.length === 0)] : []),
    ...(amp === 'none' ? [line('No amp', `amps: ${named(amps)}`, amps.length === 0)] : []),
    ...(house === 'mono'
      ? [line('A mono house', stereo ? 'sides are wanted apart' : 'nothing is wanted in stereo', !stereo)]
      : []),
    ...(outputs === undefined
      ? []
      : [line(`At most ${outputs} supply outputs`, `${sums.outputs} are needed`, sums.outputs <= outputs)]),
    ...(board
      ? [
          line(
            `A board of ${sizeText(board)}`,
            `boxes cover ${cm2(sums.covers)} of ${cm2(board[0] * board[1])}${boardInUse(rig, hookup.place, board)}`,
            sums.covers <= board[0] * board[1] && boardInUse(rig, hookup.place, board) === '',
          ),
        ]
      : []),
    ...(mostKg === undefined
      ? []
      : [
          line(
            `At most ${mostKg} kg`,
            `${sums.unweighed ? 'at least ' : ''}${Math.round(sums.kg * 10) / 10} kg`,
            sums.kg <= mostKg,
          ),
        ]),
    ...(sockets === undefined
      ? []
      : [
          line(
            `${sockets} mains ${sockets === 1 ? 'socket' : 'sockets'}`,
            `${sums.mains} ${sums.mains === 1 ? 'plug goes' : 'plugs go'} into the wall`,
            sums.mains <= sockets,
          ),
        ]),
    ...packedCases(rig, hookup)
      .filter((c) => c.over > 0)
      .map((c) => line(`${c.case.name} within its weight`, `${Math.round(c.over * 10) / 10} kg too much`, false)),
  ];
};

/** A board on which something stands and that is larger than there is room. */
const boardInUse = (rig: Rig, place: Derived['place'], [w, d]: readonly [number, number]): string => {
  const boards = partOf(rig, 'about:rig')?.boards ?? {};
  const used = new Set(Object.values(place ?? {}).map((spot) => spot.at));
  const large = Object.entries(boards).filter(
    ([name, { mm }]) => used.has(name) && (Math.max(...mm) > Math.max(w, d) || Math.min(...mm) > Math.min(w, d)),
  );
  return large.map(([name, { mm }]) => `; ${name} has ${sizeText(mm)}`).join('');
};
