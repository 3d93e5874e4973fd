import {
  supplyOutputs,
  supplyOutputsIn,
  USUAL_SUPPLY_PLUG,
  type Feed,
  type SupplyNeed,
  type SupplyOutputJack,
} from '../../electric/supply.js';
import type { SupplyNoise as NoiseOfBox } from '../../rig/device.js';
import type { Id, Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { grouped } from '../../known/grouped.js';
import {
  bridgeGives,
  USUAL_PLUG,
  voltsThatFit,
  type SupplyBox,
  type SupplyBridge,
  type SupplyNoise,
  type SupplyOutput,
  type SupplyProblem,
} from './problem.js';

const NOISE: Readonly<Record<NoiseOfBox, SupplyNoise>> = { digital: 'digital', 'high gain': 'gain', neither: 'none' };

const boxOf = ({ jack, volts, milliamps, centre, plug, noise }: SupplyNeed): SupplyBox => ({
  id: jack,
  volts,
  mA: milliamps,
  ac: centre === 'ac',
  centre: centre === 'positive' ? 'positive' : 'negative',
  plug: plug === USUAL_SUPPLY_PLUG ? USUAL_PLUG : plug,
  noise: NOISE[noise],
});
const outputOf = ({ jack, volts, milliamps, centre, group }: SupplyOutputJack): SupplyOutput => ({
  id: jack,
  volts,
  mA: milliamps,
  ac: centre === 'ac',
  ...(centre === 'positive' ? { centre } : {}),
  group,
});

/** Whether a source could feed a box by itself. */
export const suits = (box: SupplyBox, gives: Pick<SupplyOutput, 'volts' | 'mA' | 'ac'> | undefined): boolean =>
  gives !== undefined && gives.ac === box.ac && gives.mA >= box.mA && voltsThatFit(gives.volts, box.volts).length > 0;

/** Runs of so many that lie side by side. @example runs(['a', 'b', 'c'], 2) // [['a', 'b'], ['b', 'c']] */
const runs = <T>(of: readonly T[], many: number): readonly (readonly T[])[] =>
  of.slice(0, Math.max(0, of.length - many + 1)).map((_, i) => of.slice(i, i + many));

/**
 * Choices of so many outputs. Of outputs that are alike any will do, so only those side by side are tried: whatever
 * several leads take of them can be laid side by side.
 */
const choices = (kinds: readonly (readonly SupplyOutput[])[], many: number): readonly (readonly SupplyOutput[])[] => {
  const [first, ...others] = kinds;
  if (!first) return many === 0 ? [[]] : [];
  return Array.from({ length: many + 1 }, (_, of) => of).flatMap((of) =>
    (of === 0 ? [[]] : runs(first, of)).flatMap((some) => choices(others, many - of).map((rest) => [...some, ...rest])),
  );
};

/** Isolated outputs of one supply by their kind, those that feed nothing now first. */
const kindsOf = (outputs: readonly SupplyOutput[], used: ReadonlySet<string>): readonly (readonly SupplyOutput[])[] => {
  const direct = outputs.filter((o) => !o.ac);
  const freeFirst = [...direct].sort((a, b) => Number(used.has(a.id)) - Number(used.has(b.id)));
  return [...grouped(freeFirst, (o) => `${o.volts.join()} ${o.mA} ${o.centre ?? ''}`).values()];
};

/**
 * Leads that would join two or three isolated outputs of one supply, for each box those of which no output would do by
 * itself: where one would, joining it with others brings nothing.
 */
const bridgesFor = (
  boxes: readonly SupplyBox[],
  supplies: Iterable<readonly SupplyOutput[]>,
  used: ReadonlySet<string>,
): readonly SupplyBridge[] => {
  const isolated = [...supplies];
  const found = new Map<string, SupplyBridge>();
  for (const box of boxes.filter((b) => !b.ac))
    for (const outputs of isolated) {
      const kinds = kindsOf(
        outputs.filter((o) => !suits(box, o)),
        used,
      );
      for (const some of [2, 3].flatMap((many) => choices(kinds, many)))
        for (const adds of ['mA', 'volts'] as const) {
          const bridge: SupplyBridge = { outputs: some.map((o) => o.id), adds };
          if (suits(box, bridgeGives(bridge, some))) found.set(`${adds} ${bridge.outputs.join()}`, bridge);
        }
    }
  return [...found.values()];
};

/** Bridges that are plugged now. */
const bridgesNow = (fed: readonly Feed[]): readonly SupplyBridge[] =>
  fed.flatMap(({ given }) =>
    given?.adds
      ? [{ outputs: given.outputs.map((o) => o.jack), adds: given.adds === 'volts' ? 'volts' : ('mA' as const) }]
      : [],
  );

/**
 * The boxes of the kit and the outputs of its supplies, as a problem of feeding: before anything is wired already.
 *
 * @param hookup with the supplies that come along in it; undefined: all of the kit
 * @param needs what wants to be fed
 * @param fed how they are fed now, so that a plan leaves as much of it as it can
 * @param chains whether an output may feed several boxes
 */
export const supplyOfRig = (
  rig: Rig,
  hookup: Id<'hookup'> | undefined,
  needs: readonly SupplyNeed[],
  fed: readonly Feed[],
  chains: boolean,
): SupplyProblem => {
  const boxes = needs.map(boxOf);
  const jacks = hookup ? supplyOutputsIn(rig, hookup) : supplyOutputs(rig);
  const bySupply = [...grouped(jacks, (o) => o.device)];
  const isolated = bySupply.map(([, some]) => some.filter((o) => o.group === o.jack).map(outputOf));
  const totals = bySupply.flatMap(([device, some]) => {
    const watts = thePart(rig, device).figures.givesWatts;
    return watts === undefined ? [] : [{ outputs: some.map((o) => o.jack), W: watts }];
  });
  const now = new Map(
    fed.flatMap(({ need, given }) =>
      given ? [[need.jack as string, given.outputs.map((o) => o.jack as string)] as const] : [],
    ),
  );
  const outputs = jacks.map(outputOf);
  const used = new Set([...now.values()].flat());
  const known = bridgesNow(fed);
  const made = bridgesFor(boxes, isolated, used);
  const isKnown = ({ adds, outputs: of }: SupplyBridge): boolean =>
    known.some((k) => k.adds === adds && k.outputs.join() === of.join());
  return {
    boxes,
    outputs,
    bridges: [...known, ...made.filter((bridge) => !isKnown(bridge))],
    adapters: { polarity: null, plug: null },
    now,
    ...(chains ? { daisy: true } : {}),
    ...(totals.length ? { totals } : {}),
  };
};

/** The jacks of a plan, which are the names of its boxes and outputs. */
export const jackOf = (id: string): Ref => id as Ref;
