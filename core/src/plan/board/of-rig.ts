import { isAngled, laidOut, plugOn } from '../../board/laid-out.js';
import { sizeOf } from '../../board/jacks.js';
import { switchesOf } from '../../board/shoe.js';
import { around, turnedSize, turnNear, type Point } from '../../board/shapes.js';
import { noiseOf } from '../../electric/supply.js';
import { jackAt } from '../../rig/box.js';
import { TURNS, type Board, type Side, type Spot, type Turn } from '../../rig/board.js';
import type { Device } from '../../rig/device.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { cablesOf, partOf, type Rig } from '../../rig/rig.js';
import type { BoxToLay, BoxTurned, Layout, LayoutProblem, LeadToLay } from './problem.js';
import type { LayoutPlan } from './layout.js';

const isStomped = ({ actuators }: Device): boolean => actuators.some(({ by }) => 'foot' in by);
const hasKnobs = ({ controls }: Device): boolean => controls.length > 0;
const feeds = ({ jacks }: Device): boolean => jacks.some((j) => j.kind === 'power' && j.poles.tip === 'out');

/** What a foot or a hand has to reach stands upright; what only has jacks may be turned. */
const turnsOf = (device: Device): readonly Turn[] => (isStomped(device) || hasKnobs(device) ? [0] : TURNS);

interface End {
  readonly lead: number;
  readonly cable: Cable;
  readonly end: 0 | 1;
}

/** At which end of a lead sound goes into it; undefined where none does, or at both. */
const givingEnd = (rig: Rig, { ends }: Cable): 0 | 1 | undefined => {
  const [a, b] = ends.map((end) => jackAt(rig, end));
  if (a?.kind !== 'audio' || b?.kind !== 'audio' || a.poles.tip === b.poles.tip) return undefined;
  return a.poles.tip === 'out' ? 0 : 1;
};

const OTHER_SIDE = { left: 'right', right: 'left' } as const;

/**
 * The leads of some boxes, and at which of them each ends. One to elsewhere leaves at the side that is said for it:
 * where the signal comes in, on the other side where it goes out, or for all the same.
 */
const leadsOf = (
  rig: Rig,
  cables: readonly Cable[],
  devices: readonly Id<'device'>[],
  { leave, enters }: Board,
): { readonly leads: readonly LeadToLay[]; readonly ends: readonly (readonly End[])[] } => {
  const leads: LeadToLay[] = [];
  const ends = devices.map((): End[] => []);
  for (const cable of cables) {
    const [a, b] = cable.ends.map((e) => devices.indexOf(splitRef(e).device));
    if (a === undefined || b === undefined || (a < 0 && b < 0)) continue;
    const lead = leads.length;
    const gives = enters && givingEnd(rig, cable);
    if (a >= 0 && b >= 0) {
      const [from, to] = gives === 1 ? [b, a] : [a, b];
      leads.push({ from, to, ...(gives === undefined ? {} : { runs: enters === 'left' ? 1 : -1 }) });
    } else {
      const comesIn = gives !== undefined && (gives === 0) === a < 0;
      const side: Side | undefined = comesIn
        ? enters
        : (leave ?? (gives === undefined || !enters ? undefined : OTHER_SIDE[enters]));
      leads.push({ from: a < 0 ? b : a, to: side ?? leave });
    }
    ends[a]?.push({ lead, cable, end: 0 });
    ends[b]?.push({ lead, cable, end: 1 });
  }
  return { leads, ends };
};

/** A box in one way of standing, with its plugs. */
const turnedSo = (rig: Rig, device: Device, turn: Turn, mine: readonly End[]): BoxTurned => {
  const [w, d] = sizeOf(device);
  const plugs = mine.flatMap(({ lead, cable, end }) => {
    const { name: jack } = splitRef(cable.ends[end]);
    const plug = plugOn(device, jack, turn, cable.plugs?.[end], isAngled(rig, cable, end));
    return plug ? [{ lead, plug }] : [];
  });
  const body = { x: 0, y: 0, ...turnedSize(w, d, turn) };
  const rects = plugs.map(({ plug }) => plug.rect);
  return {
    turn,
    body,
    plugs: rects,
    around: around([body, ...rects]),
    ends: new Map<number, Point>(plugs.map(({ lead, plug }) => [lead, plug.end])),
    switches: switchesOf(device, turn),
  };
};

/** What lays some boxes out on a board, and which of them are which. */
export interface BoardProblem extends LayoutProblem {
  readonly name: string;
  readonly devices: readonly Id<'device'>[];
}

/**
 * The boxes to lay out on a board; boxes that stand there and are not among them stay. A lead to what stands elsewhere
 * leaves at the board's side for that, where one is said.
 * @returns undefined when there is no such board
 */
export const layoutProblem = (
  rig: Rig,
  hookup: Hookup,
  name: string,
  devices: readonly Id<'device'>[],
): BoardProblem | undefined => {
  const out = laidOut(rig, hookup);
  const board = out.boards.get(name);
  if (!board) return undefined;
  const { leads, ends } = leadsOf(rig, cablesOf(rig, hookup.id), devices, board);
  const boxes = devices.flatMap((id, i): readonly BoxToLay[] => {
    const device = partOf(rig, id);
    if (!device) return [];
    const hum = feeds(device) ? 'makes' : noiseOf(device) === 'high gain' ? 'hears' : 'neither';
    return [
      {
        id,
        isStomped: isStomped(device),
        hum,
        turned: turnsOf(device).map((turn) => turnedSo(rig, device, turn, ends[i] ?? [])),
      },
    ];
  });
  const stays = (id: Id<'device'>): boolean => !devices.includes(id);
  const taken = [
    ...out.boxes.filter((b) => b.board === name && stays(b.device.id)).map((b) => b.rect),
    ...out.plugs.filter((p) => p.board === name && stays(p.device)).map((p) => p.rect),
  ];
  const [w, d] = board.mm;
  return { name, devices, boxes, leads, taken, board: { x: 0, y: 0, w, d } };
};

/** The boxes as they stand on the board now; nothing for one that is turned as no layout turns it. */
export const layoutNow = ({ name, devices, boxes }: BoardProblem, { place = {} }: Hookup): Layout =>
  devices.map((id, i) => {
    const spot = place[id];
    if (spot?.at !== name) return undefined;
    const as = boxes[i]?.turned.findIndex((t) => t.turn === turnNear(spot.turn)) ?? -1;
    return as < 0 ? undefined : { as, x: spot.x, y: spot.y };
  });

/** Where a plan stands its boxes. Those that found no room stand nowhere. */
export const spotsOf = (
  { name, devices, boxes }: BoardProblem,
  { layout }: LayoutPlan,
): Readonly<Record<Id<'device'>, Spot | undefined>> =>
  Object.fromEntries(
    devices.map((id, i) => {
      const laid = layout[i];
      const turn = laid && boxes[i]?.turned[laid.as]?.turn;
      return [id, laid && turn !== undefined ? { at: name, x: laid.x, y: laid.y, turn } : undefined];
    }),
  );
