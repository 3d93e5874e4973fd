import { isAngled, laidOut } from '../../board/laid-out.js';
import { leadLengths } from '../../board/lengths.js';
import { together, type Edit } from '../../change/edit.js';
import { changeCable } from '../../edits/cables.js';
import { grouped } from '../../known/grouped.js';
import { planCuts, type CutPlan, type CutProblem } from '../../plan/cut/cut.js';
import type { Solver } from '../../plan/solver.js';
import { jackAt } from '../../rig/box.js';
import type { Connector, Jack } from '../../rig/device.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { ABOUT, partOf, type Rig } from '../../rig/rig.js';
import { STOCK_KINDS, type StockKind } from '../../rig/show.js';
import { leadOf, type LeadKind } from '../../signal/drawing/map.js';
import { cablesInOrder } from '../../signal/graph/order.js';
import type { Derived } from '../steps/deriver.js';

/** Whether a lead is there, is made by hand, or is bought. */
export type LeadIs = 'there' | 'to make' | 'to buy';

/** One lead of a hook-up, as it is got ready. */
export interface LeadView {
  readonly cable: Id<'cable'>;
  readonly from: string;
  readonly to: string;
  readonly kind: LeadKind | 'mains';
  /** What ends it, as it is bought. @example ['angled 6.35 TS', 'XLR male'] */
  readonly plugs: readonly [string, string];
  /** Metres; absent until somebody says it. */
  readonly m?: number;
  /** By where its jacks are on the board: the least, and the shortest that is sold and long enough; in metres. */
  readonly byBoard?: { readonly least: number; readonly step: number };
  readonly is: LeadIs;
  readonly label?: string;
  /** In for tonight. */
  readonly forNow: boolean;
  /** The leads that it stays plugged with, by the loom's name. */
  readonly loom?: string;
}

/** What is lost of the cable at each plug, in metres: stripped and cut square (assumed). */
export const LOST_AT_A_PLUG = 0.02;

const jackText = (rig: Rig, jack: Ref): string => {
  const { device, name } = splitRef(jack);
  return `${partOf(rig, device)?.code ?? ''} ${name}`;
};

/** XLR leads are male where they go into a jack that takes a signal (IEC 61076-2-103; common practice: pins point on). */
const plugText = (connector: Connector, { poles }: Jack, angled: boolean): string =>
  `${angled ? 'angled ' : ''}${connector}${connector === 'XLR' ? (poles.tip === 'out' ? ' female' : ' male') : ''}`;

/** Every lead of a hook-up, along the signal. A mains lead is never made at home. */
export const leadsIn = ({ rig, hookup, anatomy, place }: Derived): readonly LeadView[] => {
  const lengths = new Map(leadLengths(rig, hookup, laidOut(rig, hookup, place)).map((l) => [l.cable, l]));
  return cablesInOrder(rig, anatomy).flatMap(({ cable, from, to, kind }): readonly LeadView[] => {
    const length = lengths.get(cable.id);
    const [a, b] = [jackAt(rig, from), jackAt(rig, to)];
    if (!a || !b || kind === 'air') return [];
    const [first, second] = cable.ends[0] === from ? ([0, 1] as const) : ([1, 0] as const);
    const plug = (end: 0 | 1, jack: Jack): string =>
      plugText(
        cable.plugs?.[end] ?? jack.connector,
        jack,
        cable.angled?.[end] ?? (length !== undefined && isAngled(rig, cable, end)),
      );
    const isMains = kind === 'mains';
    return [
      {
        cable: cable.id,
        from: jackText(rig, from),
        to: jackText(rig, to),
        kind: isMains ? 'mains' : leadOf(a, b),
        plugs: [plug(first, a), plug(second, b)],
        is: cable.have ? 'there' : cable.byHand && !isMains ? 'to make' : 'to buy',
        ...(cable.m === undefined ? {} : { m: cable.m }),
        ...(length ? { byBoard: { least: length.least, step: length.step } } : {}),
        forNow: cable.forNow ?? false,
        ...(cable.label === undefined ? {} : { label: cable.label }),
        ...(cable.loom === undefined ? {} : { loom: cable.loom }),
      },
    ];
  });
};

/** Leads get the lengths that the board says. */
export const lengthsByBoard = (rig: Rig, leads: readonly LeadView[]): Edit =>
  together(
    ...leads.flatMap(({ cable: id, byBoard }) => {
      const cable = partOf(rig, id);
      return cable && byBoard ? [changeCable(cable, { m: byBoard.step })] : [];
    }),
  );

/** Cable of one kind, and what is cut of it. */
export interface CutsOfKind {
  readonly of: StockKind;
  readonly reels: readonly {
    readonly m: number;
    readonly pieces: readonly { readonly lead: string; readonly m: number }[];
    readonly left: number;
  }[];
  /** Leads for which there is no cable. */
  readonly without: readonly { readonly lead: string; readonly m: number }[];
  /** What is left of the reels that are cut, in metres. */
  readonly offcuts: number;
  readonly isProved: boolean;
}

export interface Shopping {
  readonly what: string;
  readonly many: number;
}

const isStock = (kind: LeadView['kind']): kind is StockKind => STOCK_KINDS.some((k) => k === kind);
const leadText = ({ from, to }: LeadView): string => `${from} → ${to}`;
const metres = (cm: number): number => Math.round(cm) / 100;
const pieceCm = (m: number): number => Math.round((m + 2 * LOST_AT_A_PLUG) * 100);

/** What is to be cut of what, kind by kind: the leads that are made by hand and are not there yet. */
export const cutsAsked = (rig: Rig, leads: readonly LeadView[]): ReadonlyMap<StockKind, CutProblem> => {
  const making = leads.filter((l) => l.is === 'to make' && l.m !== undefined && isStock(l.kind));
  const stock = partOf(rig, ABOUT)?.stock ?? [];
  return new Map(
    [...grouped(making, (l) => l.kind as StockKind)].map(([of, some]) => [
      of,
      {
        pieces: some.map((l) => ({ id: l.cable, cm: pieceCm(l.m ?? 0) })),
        reels: stock.flatMap((s, i) => (s.of === of ? [{ id: `reel ${i}`, cm: Math.round(s.m * 100) }] : [])),
      },
    ]),
  );
};

/** How long the solver looks at one aim, in seconds. */
const SECONDS = 3;

/** Cuts each kind of cable. @returns undefined for a kind when the solver found nothing in its time */
export const planAllCuts = (
  asked: ReadonlyMap<StockKind, CutProblem>,
  solver: Solver,
): ReadonlyMap<StockKind, CutPlan | undefined> =>
  new Map([...asked].map(([of, problem]) => [of, planCuts(problem, solver, SECONDS)]));

/** The cut list in words. The plans must be those of the question. */
export const cutList = (
  leads: readonly LeadView[],
  asked: ReadonlyMap<StockKind, CutProblem>,
  plans: ReadonlyMap<StockKind, CutPlan | undefined>,
): readonly CutsOfKind[] => {
  const named = new Map<string, LeadView>(leads.map((l) => [l.cable, l]));
  const said = (id: string, { pieces }: CutProblem) => {
    const lead = named.get(id);
    return { lead: lead ? leadText(lead) : id, m: metres(pieces.find((p) => p.id === id)?.cm ?? 0) };
  };
  return [...asked].flatMap(([of, problem]): readonly CutsOfKind[] => {
    const plan = plans.get(of);
    if (!plan) return [];
    const reels = problem.reels.flatMap((reel) => {
      const pieces = plan.cuts.get(reel.id)?.map((id) => said(id, problem)) ?? [];
      const taken = pieces.reduce((sum, p) => sum + p.m, 0);
      return pieces.length ? [{ m: metres(reel.cm), pieces, left: metres(reel.cm - taken * 100) }] : [];
    });
    return [
      {
        of,
        reels,
        without: plan.left.map((id) => said(id, problem)),
        offcuts: metres(plan.offcuts),
        isProved: plan.isProved,
      },
    ];
  });
};

/** What is to be bought before build day: leads as they are, cable for those that find none, and plugs. */
export const shoppingFor = (leads: readonly LeadView[], cuts: readonly CutsOfKind[]): readonly Shopping[] => {
  const bought = leads.filter((l) => l.is === 'to buy');
  const ready = [
    ...grouped(
      bought,
      (l) =>
        `${l.kind} lead, ${l.m === undefined ? 'its length not said' : `${l.m} m`}, ${[...l.plugs].sort().join(' to ')}`,
    ),
  ];
  const making = leads.filter((l) => l.is === 'to make');
  const plugs = [
    ...grouped(
      making.flatMap((l) => l.plugs.map((plug) => ({ plug, kind: l.kind }))),
      ({ plug, kind }) => `${plug} plug for ${kind} cable`,
    ),
  ];
  return [
    ...ready.map(([what, some]) => ({ what, many: some.length })),
    ...cuts.flatMap(({ of, without }) =>
      without.length
        ? [{ what: `${metres(without.reduce((sum, w) => sum + w.m * 100, 0))} m of ${of} cable`, many: 1 }]
        : [],
    ),
    ...plugs.map(([what, some]) => ({ what, many: some.length })),
  ];
};

/** A flag around one end of a lead. */
export interface Flag {
  readonly key: string;
  /** What is read from afar: the owner's own code, else where it leads. */
  readonly big: string;
  readonly here: string;
  readonly there: string;
}

/** A strip of tape beside a jack: which lead goes there. */
export interface Tape {
  readonly key: string;
  readonly jack: string;
  /** The lead's own code, else where it leads. */
  readonly lead: string;
}

/** A tape for every jack in which a plug sits, box by box. */
export const tapesOf = (leads: readonly LeadView[]): readonly Tape[] =>
  leads
    .flatMap(({ cable, from, to, label }): readonly Tape[] => [
      { key: `${cable} from`, jack: from, lead: label ?? `to ${to}` },
      { key: `${cable} to`, jack: to, lead: label ?? `from ${from}` },
    ])
    .sort((a, b) => a.jack.localeCompare(b.jack, undefined, { numeric: true }));

/** Leads that stay plugged together. */
export interface Loom {
  readonly name: string;
  readonly leads: readonly LeadView[];
}

export const loomsOf = (leads: readonly LeadView[]): readonly Loom[] =>
  [
    ...grouped(
      leads.filter((l) => l.loom !== undefined),
      (l) => l.loom ?? '',
    ),
  ].map(([name, some]) => ({
    name,
    leads: some,
  }));

const codeOf = (jack: string): string => jack.split(' ')[0] ?? '';

/** Two flags for every lead, one an end, in the order of the list. */
export const flagsOf = (leads: readonly LeadView[]): readonly Flag[] =>
  leads.flatMap(({ cable, from, to, label }): readonly Flag[] => {
    const big = label ?? `${codeOf(from)} → ${codeOf(to)}`;
    return [
      { key: `${cable} from`, big, here: from, there: to },
      { key: `${cable} to`, big, here: to, there: from },
    ];
  });
