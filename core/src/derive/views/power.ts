import type { FeedWish } from '../../edits/feed.js';
import {
  BATTERY_EFFICIENCY,
  feeds,
  supplyNeeds,
  supplyNeedsIn,
  supplyOutputs,
  supplyOutputsIn,
  USUAL_SUPPLY_PLUG,
  type Feed,
  type SupplyNeed,
  type SupplyOutputJack,
} from '../../electric/supply.js';
import { grouped } from '../../known/grouped.js';
import { withMaybe } from '../../known/maybe.js';
import type { Solver } from '../../plan/solver.js';
import { jackOf, suits, supplyOfRig } from '../../plan/supply/of-rig.js';
import { planSupply, type SupplyPlan } from '../../plan/supply/plan.js';
import {
  adaptersOf,
  bridgeGives,
  voltsThatFit,
  type SupplyBox,
  type SupplyProblem,
} from '../../plan/supply/problem.js';
import { theJack } from '../../rig/box.js';
import type { Hookup } from '../../rig/hookup.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';

/** One box on an output. */
export interface PoweredBox {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly milliamps: number;
  /** What its lead needs besides an ordinary one, in words. */
  readonly adapters: readonly string[];
  /** Its lead is plugged in so already. */
  readonly isPlugged: boolean;
}

export interface PoweredOutput {
  readonly jack: Ref;
  readonly label: string;
  /** What it is set to, in words; what it can be set to while it is free. */
  readonly volts: string;
  readonly gives: number;
  readonly takes: number;
  readonly boxes: readonly PoweredBox[];
  /** The other outputs that are joined with it, by their labels. */
  readonly joinedWith: readonly string[];
  /** It shares its common with others of its supply. */
  readonly isShared: boolean;
}

export interface PoweredSupply {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly outputs: readonly PoweredOutput[];
  readonly watts: { readonly taken: number; readonly gives?: number };
  /** Hours of a battery with what hangs on it. */
  readonly hours?: number;
}

export interface UnpoweredBox {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly needs: string;
  readonly why: string;
  readonly buy: string;
}

/** What the rig needs of supplies, mains and batteries, and who would feed whom. */
export interface Power {
  readonly boxes: number;
  readonly outputs: { readonly needed: number; readonly there: number; readonly used: number };
  readonly supplies: readonly PoweredSupply[];
  readonly left: readonly UnpoweredBox[];
  /** With leads that feed several boxes from one output so many more would be fed; absent where none would. */
  readonly byChains?: number;
  /** Groups in which digital boxes share a common with high gain, as codes. */
  readonly mixed: readonly (readonly string[])[];
  /** Boxes of another hook-up, which stay at home in this one and are not counted. */
  readonly atHome: readonly { readonly code: string; readonly name: string }[];
  /** Leads that are not ordinary ones, in words, to be bought or found. */
  readonly special: readonly string[];
  readonly isProved: boolean;
  /** What is plugged otherwise than planned. */
  readonly toPlug: readonly FeedWish[];
}

/** How long the solver looks at one aim, in seconds. */
const SECONDS = 5;

/** @example supplyText(need) // '9 or 18 V, 100 mA' */
export const supplyText = ({ volts, milliamps, centre }: Pick<SupplyNeed, 'volts' | 'milliamps' | 'centre'>): string =>
  `${volts.join(' or ')} V${centre === 'ac' ? ' AC' : ''}, ${milliamps} mA${centre === 'positive' ? ', centre positive' : ''}`;

const adapterWords = (need: SupplyNeed, { turns }: FeedWish): readonly string[] => [
  ...(turns ? ['turns the polarity'] : []),
  ...(need.plug === USUAL_SUPPLY_PLUG ? [] : [`${need.plug} plug`]),
];

/** What is asked of the supplies: of a hook-up, or of the whole kit before there is one. */
export const powerAsked = (rig: Rig, hookup: Hookup | undefined, chains: boolean): SupplyProblem =>
  supplyOfRig(rig, hookup?.id, countedIn(rig, hookup), hookup ? feeds(rig, hookup) : [], chains);

const countedIn = (rig: Rig, hookup: Hookup | undefined): readonly SupplyNeed[] =>
  hookup ? supplyNeedsIn(rig, hookup.id) : supplyNeeds(rig);

/** The best way to feed the boxes, and where some stay without, the best with leads that feed several. */
export interface PowerPlans {
  readonly plan: SupplyPlan;
  readonly chained?: SupplyPlan;
}

/** @returns undefined when the solver found nothing in its time */
export const planPower = (problem: SupplyProblem, solver: Solver): PowerPlans | undefined => {
  const plan = planSupply(problem, solver, SECONDS);
  if (!plan) return undefined;
  const isOpen = !problem.daisy && plan.cost.powered < problem.boxes.length;
  return withMaybe<PowerPlans, 'chained'>(
    { plan },
    'chained',
    isOpen ? planSupply({ ...problem, daisy: true }, solver, SECONDS) : undefined,
  );
};

/** What the boxes need of supplies, and the best way to feed them, in words. The plans must be those of the question. */
export const powerOf = (
  rig: Rig,
  hookup: Hookup | undefined,
  problem: SupplyProblem,
  { plan, chained }: PowerPlans,
): Power => {
  const fed = hookup ? feeds(rig, hookup) : [];
  const needs = new Map(countedIn(rig, hookup).map((n) => [n.jack as string, n]));
  const wishes = wishesOf(problem, plan);
  const changed = wishes.filter((w) => !isPlugged(w, fed));
  const left = problem.boxes.filter((b) => !plan.assignment.has(b.id));
  const more = chained ? chained.cost.powered - plan.cost.powered : 0;
  const there = hookup ? supplyOutputsIn(rig, hookup.id) : supplyOutputs(rig);
  const along = new Set(there.map((o) => o.device));
  const used = new Set(wishes.flatMap((w) => w.outputs)).size;
  const power: Power = {
    boxes: problem.boxes.length,
    outputs: { there: problem.outputs.length, used, needed: used + left.reduce((n, b) => n + wanted(problem, b), 0) },
    supplies: suppliesOf(rig, there, wishes, needs, new Set(changed)),
    left: left.map((box) => unpowered(rig, box, problem, needs)),
    mixed: mixedGroups(rig, problem, plan, needs),
    special: specialLeads(wishes, needs),
    atHome: [
      ...supplyNeeds(rig).filter((n) => !needs.has(n.jack)),
      ...new Map(supplyOutputs(rig).map((o) => [o.device, o])).values(),
    ]
      .filter(({ device }) => !along.has(device))
      .map(({ device }) => ({ code: thePart(rig, device).code, name: thePart(rig, device).name })),
    isProved: plan.isProved,
    toPlug: changed,
  };
  return withMaybe(power, 'byChains', more > 0 ? more : undefined);
};

/** So many outputs like those that are there a box would take: several where only joined ones are enough. */
const wanted = ({ outputs, bridges }: SupplyProblem, box: SupplyBox): number => {
  if (outputs.some((o) => suits(box, o))) return 1;
  const fitting = bridges.filter((b) => {
    return suits(
      box,
      bridgeGives(
        b,
        outputs.filter((o) => b.outputs.includes(o.id)),
      ),
    );
  });
  return Math.min(...fitting.map((b) => b.outputs.length), fitting.length ? Infinity : 1);
};

/** The plan as wishes: the boxes of one output, or one box of a bridge. */
const wishesOf = ({ bridges, outputs, boxes }: SupplyProblem, { assignment }: SupplyPlan): readonly FeedWish[] =>
  [...grouped(assignment, ([, from]) => from.join('\n'))].map(([, group]): FeedWish => {
    const [[first, from]] = group;
    const joined = from.flatMap((id) => outputs.find((o) => o.id === id) ?? []);
    const box = boxes.find((b) => b.id === first);
    const bridge = bridges.find((b) => b.outputs.join() === from.join() && box && suits(box, bridgeGives(b, joined)));
    return {
      needs: group.map(([need]) => jackOf(need)),
      outputs: from.map(jackOf),
      ...(from.length > 1 ? { adds: bridge?.adds === 'volts' ? 'volts' : 'current' } : {}),
      ...(box && joined[0] && adaptersOf(box, joined[0]).polarity ? { turns: true } : {}),
    };
  });

const isPlugged = ({ needs, outputs, adds }: FeedWish, fed: readonly Feed[]): boolean => {
  const here = fed.filter((f) => f.given?.outputs.some((o) => outputs.includes(o.jack)));
  return (
    here.length === needs.length &&
    here.every(
      ({ need, given }) =>
        needs.includes(need.jack) &&
        given?.outputs.map((o) => o.jack).join() === outputs.join() &&
        given.adds === adds &&
        given.centre === need.centre,
    )
  );
};

const suppliesOf = (
  rig: Rig,
  there: readonly SupplyOutputJack[],
  wishes: readonly FeedWish[],
  needs: ReadonlyMap<string, SupplyNeed>,
  changed: ReadonlySet<FeedWish>,
): readonly PoweredSupply[] =>
  [...grouped(there, (o) => o.device)].map(([device, outputs]): PoweredSupply => {
    const { code, name, figures } = thePart(rig, device);
    const rows = outputs.map(
      ({ jack, volts, milliamps, centre, group }): PoweredOutput & { readonly watts: number } => {
        const wish = wishes.find((w) => w.outputs.includes(jack));
        const here = wish?.needs.flatMap((n) => needs.get(n) ?? []) ?? [];
        const setTo =
          wish && wish.adds !== 'volts'
            ? here.reduce<readonly number[]>((v, n) => voltsThatFit(v, n.volts), volts)
            : volts;
        const strengths =
          wish?.adds === 'current' ? wish.outputs.map((o) => theJack(rig, o).supply?.milliamps ?? 0) : [];
        const share = strengths.length ? milliamps / strengths.reduce((a, b) => a + b, 0) : 1;
        const takes = here.reduce((sum, n) => sum + n.milliamps, 0) * share;
        return {
          jack,
          label: splitRef(jack).name,
          volts: `${wish ? Math.min(...setTo) : volts.join('/')} V${centre === 'negative' ? '' : centre === 'ac' ? ' AC' : ', centre positive'}`,
          gives: milliamps,
          takes: Math.round(takes),
          boxes: here.map((n) => {
            const box = thePart(rig, n.device);
            return {
              device: n.device,
              code: box.code,
              name: box.name,
              milliamps: n.milliamps,
              adapters: wish ? adapterWords(n, wish) : [],
              isPlugged: wish !== undefined && !changed.has(wish),
            };
          }),
          joinedWith: wish?.outputs.filter((o) => o !== jack).map((o) => splitRef(o).name) ?? [],
          isShared: group !== jack,
          watts: wish ? (Math.min(...setTo) * takes) / 1000 : 0,
        };
      },
    );
    const taken = rows.reduce((sum, r) => sum + r.watts, 0);
    const { battery, givesWatts } = figures;
    const hours = battery && taken > 0 ? (battery.mAh * battery.volts * BATTERY_EFFICIENCY) / 1000 / taken : undefined;
    const supply: PoweredSupply = {
      device,
      code,
      name,
      outputs: rows.map(({ watts: _, ...row }) => row),
      watts: givesWatts === undefined ? { taken } : { taken, gives: givesWatts },
    };
    return withMaybe(supply, 'hours', hours);
  });

/** Why a box is left over, and what would feed it. */
const unpowered = (
  rig: Rig,
  box: SupplyBox,
  { outputs, bridges, totals = [] }: SupplyProblem,
  needs: ReadonlyMap<string, SupplyNeed>,
): UnpoweredBox => {
  const need = needs.get(box.id);
  const { code, name, id } = thePart(rig, splitRef(jackOf(box.id)).device);
  const says = need ? supplyText(need) : '';
  const kind = outputs.filter((o) => o.ac === box.ac);
  const fitting = kind.filter((o) => voltsThatFit(o.volts, box.volts).length > 0);
  const most = Math.max(0, ...fitting.map((o) => o.mA));
  const joint = bridges.filter((b) => {
    const joined = outputs.filter((o) => b.outputs.includes(o.id));
    return suits(box, bridgeGives(b, joined));
  });
  const many = Math.min(...joint.map((b) => b.outputs.length));
  const why =
    joint.length > 0 && !outputs.some((o) => suits(box, o))
      ? `it takes ${many} outputs joined for ${joint.some((b) => b.adds === 'volts') ? 'voltage' : 'current'}, and so many that fit are not free`
      : outputs.length === 0
        ? 'no supply is in the kit'
        : kind.length === 0
          ? `no output gives ${box.ac ? 'alternating' : 'direct'} current`
          : fitting.length === 0
            ? `no output gives ${box.volts.join(' or ')} V, alone or joined`
            : most < box.mA
              ? `the strongest output that fits gives ${most} mA, and joined ones are not enough or needed by others`
              : totals.length
                ? 'the outputs that fit are taken, or their supply gives no more altogether'
                : 'the outputs that fit are taken by others';
  return {
    device: id,
    code,
    name,
    needs: says,
    why,
    buy: `an output of ${box.volts.join(' or ')} V${box.ac ? ' AC' : ''} with ${box.mA} mA or more`,
  };
};

const mixedGroups = (
  rig: Rig,
  { outputs }: SupplyProblem,
  { assignment }: SupplyPlan,
  needs: ReadonlyMap<string, SupplyNeed>,
): readonly (readonly string[])[] =>
  [...grouped(outputs, (o) => o.group).values()].flatMap((group) => {
    const ids = new Set(group.map((o) => o.id));
    const here = [...assignment]
      .filter(([, from]) => from.some((o) => ids.has(o)))
      .flatMap(([id]) => needs.get(id) ?? []);
    const noises = here.map((n) => n.noise);
    return noises.includes('digital') && noises.includes('high gain')
      ? [here.filter((n) => n.noise !== 'neither').map((n) => thePart(rig, n.device).code)]
      : [];
  });

/** Leads that are not ordinary ones, each kind with how many. */
const specialLeads = (wishes: readonly FeedWish[], needs: ReadonlyMap<string, SupplyNeed>): readonly string[] => {
  const leads = wishes.flatMap((wish) => [
    ...(wish.needs.length > 1 ? [`a lead that feeds ${wish.needs.length} boxes from one output`] : []),
    ...(wish.outputs.length > 1
      ? [
          `a lead that joins ${wish.outputs.length} outputs for ${wish.adds === 'volts' ? 'more volts' : 'more current'}`,
        ]
      : []),
    ...wish.needs.flatMap((n) => {
      const need = needs.get(n);
      if (!need || adapterWords(need, wish).length === 0) return [];
      const turns = wish.turns ? 'that turns the polarity' : '';
      const plug = need.plug !== USUAL_SUPPLY_PLUG ? `with a ${need.plug} plug` : '';
      return [`a lead ${[turns, plug].filter(Boolean).join(' and ')}`];
    }),
  ]);
  return [...grouped(leads, (l) => l)].map(([lead, same]) => (same.length > 1 ? `${same.length} × ${lead}` : lead));
};
