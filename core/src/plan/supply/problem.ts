import { joinedOutputs } from '../../electric/supply.js';
import { theFirst } from '../../known/the.js';

/**
 * What a box does to its neighbours on a common supply, or they to it: digital boxes put noise on it, high gain makes it
 * heard.
 */
export type SupplyNoise = 'digital' | 'gain' | 'none';

export interface SupplyOutput {
  readonly id: string;
  /** It is set to one of these. */
  readonly volts: readonly number[];
  /** What it gives, at every voltage. */
  readonly mA: number;
  readonly ac: boolean;
  /** Negative unless it is said. */
  readonly centre?: 'negative' | 'positive';
  /** Outputs of one group share a common; one with a group of its own is isolated. */
  readonly group: string;
}

/** A lead that joins outputs of one supply for one box. */
export interface SupplyBridge {
  readonly outputs: readonly string[];
  readonly adds: 'mA' | 'volts';
}

export interface SupplyBox {
  readonly id: string;
  /** Any one of these will do. */
  readonly volts: readonly number[];
  readonly mA: number;
  readonly ac: boolean;
  readonly centre: 'negative' | 'positive';
  readonly plug: string;
  readonly noise: SupplyNoise;
}

/** The plug that every output is taken to carry. */
export const USUAL_PLUG = 'barrel21';

/** Boxes, and what could feed them. */
export interface SupplyProblem {
  readonly outputs: readonly SupplyOutput[];
  readonly bridges: readonly SupplyBridge[];
  readonly boxes: readonly SupplyBox[];
  /** An output may feed several boxes through a lead with several plugs. */
  readonly daisy?: boolean;
  /** How many adapter leads there are; null where as many as wanted. */
  readonly adapters: { readonly polarity: number | null; readonly plug: number | null };
  /** What outputs give together, in watts, where that is less than each by itself. */
  readonly totals?: readonly { readonly outputs: readonly string[]; readonly W: number }[];
  /** How boxes are fed now; of plans that are equally good the one that leaves most of it is taken. */
  readonly now?: SupplyAssignment;
}

/** By box: the outputs that feed it, one, or those of a bridge. A box that nothing feeds is not named. */
export type SupplyAssignment = ReadonlyMap<string, readonly string[]>;

/** What an assignment costs, in the order of what matters. */
export interface SupplyCost {
  readonly powered: number;
  /** Polarity adapters, plug adapters and bridging leads. */
  readonly adapters: number;
  /** Groups that hold both a digital box and one of high gain. */
  readonly mixed: number;
}

/** @example voltsThatFit([9, 12], [12, 18]) // [12] */
export const voltsThatFit = (gives: readonly number[], takes: readonly number[]): readonly number[] =>
  gives.filter((v) => takes.includes(v)).sort((a, b) => a - b);

const centreOf = ({ centre = 'negative' }: SupplyOutput): 'negative' | 'positive' => centre;

/** What a bridge gives at every setting of its outputs; undefined where it cannot be made. */
export const bridgeGives = (
  { adds }: SupplyBridge,
  outputs: readonly SupplyOutput[],
): { readonly volts: readonly number[]; readonly mA: number; readonly ac: boolean } | undefined => {
  const [first] = outputs;
  if (!first || outputs.some((o) => o.ac !== first.ac || centreOf(o) !== centreOf(first))) return undefined;
  const centre = first.ac ? 'ac' : centreOf(first);
  const jacks = outputs.map((o) => ({ volts: o.volts, milliamps: o.mA, centre }) as const);
  const { volts, milliamps } = joinedOutputs(jacks, adds === 'mA' ? 'current' : 'volts');
  return { volts, mA: milliamps, ac: first.ac };
};

/** What it takes to plug a box into an output. */
export const adaptersOf = (
  { ac, centre, plug }: SupplyBox,
  output: SupplyOutput,
): { readonly polarity: boolean; readonly plug: boolean } => ({
  polarity: !ac && centre !== centreOf(output),
  plug: plug !== USUAL_PLUG,
});

/** Boxes by the outputs that feed them. */
const byOutputs = (
  { boxes }: SupplyProblem,
  assignment: SupplyAssignment,
): ReadonlyMap<string, readonly SupplyBox[]> => {
  const fed = new Map<string, readonly SupplyBox[]>();
  for (const box of boxes) {
    const key = assignment.get(box.id)?.join('\n');
    if (key !== undefined) fed.set(key, [...(fed.get(key) ?? []), box]);
  }
  return fed;
};

/**
 * What an assignment costs, and in words what is wrong with it: worked out from the assignment alone, so that a plan can
 * be held against it.
 */
export const judged = (
  problem: SupplyProblem,
  assignment: SupplyAssignment,
): { readonly cost: SupplyCost; readonly wrong: readonly string[] } => {
  const outputs = new Map(problem.outputs.map((o) => [o.id, o]));
  const wrong: string[] = [];
  const taken = new Set<string>();
  const groups = new Map<string, Set<SupplyNoise>>();
  const milliwatts = new Map<string, number>();
  let bridges = 0;
  for (const [key, fed] of byOutputs(problem, assignment)) {
    const names = key.split('\n');
    const from = names.flatMap((n) => outputs.get(n) ?? []);
    if (names.some((n) => taken.has(n))) wrong.push(`An output of ${names.join(', ')} is used twice.`);
    names.forEach((n) => taken.add(n));
    if (names.length > 1) bridges += 1;
    const missing = names.filter((n) => !outputs.has(n));
    const used = missing.length ? `There is no output ${missing.join(', ')}.` : feeding(problem, from, fed);
    if (typeof used === 'string') wrong.push(used);
    else milliwatts.set(theFirst(names), used);
    for (const { group } of from)
      for (const { noise } of fed) groups.set(group, (groups.get(group) ?? new Set<SupplyNoise>()).add(noise));
  }
  const powered = problem.boxes.filter((b) => assignment.has(b.id));
  const needed = powered.flatMap((b) => {
    const output = outputs.get(assignment.get(b.id)?.[0] ?? '');
    return output ? [adaptersOf(b, output)] : [];
  });
  const turned = needed.filter((n) => n.polarity).length;
  const plugs = needed.filter((n) => n.plug).length;
  const { adapters, totals = [] } = problem;
  if (turned > (adapters.polarity ?? Infinity))
    wrong.push(`${turned} polarity adapters, and ${adapters.polarity} are there.`);
  if (plugs > (adapters.plug ?? Infinity)) wrong.push(`${plugs} plug adapters, and ${adapters.plug} are there.`);
  for (const { outputs: some, W } of totals) {
    const drawn = some.reduce((sum, id) => sum + (milliwatts.get(id) ?? 0), 0);
    if (drawn > W * 1000 + 1e-6) wrong.push(`${drawn / 1000} W of ${W} W.`);
  }
  const mixed = [...groups.values()].filter((g) => g.has('digital') && g.has('gain')).length;
  return { cost: { powered: powered.length, adapters: turned + plugs + bridges, mixed }, wrong };
};

/** The milliwatts that these boxes take of these outputs, or why they cannot. */
const feeding = (
  { daisy, bridges }: SupplyProblem,
  from: readonly SupplyOutput[],
  fed: readonly SupplyBox[],
): number | string => {
  const first = theFirst(from);
  const names = fed.map((b) => b.id).join(', ');
  if (fed.length > 1 && (!daisy || from.length > 1)) return `${names} cannot hang on one output.`;
  if (fed.length > 1 && fed.some((b) => adaptersOf(b, first).polarity))
    return `One of ${names} wants the other polarity.`;
  const sources =
    from.length === 1
      ? [first]
      : bridges
          .filter((b) => b.outputs.length === from.length && from.every((o) => b.outputs.includes(o.id)))
          .flatMap((b) => bridgeGives(b, from) ?? []);
  const need = fed.reduce((sum, b) => sum + b.mA, 0);
  const fits = sources
    .filter((s) => s.mA >= need && fed.every((b) => b.ac === s.ac))
    .flatMap((s) => fed.reduce<readonly number[]>((volts, b) => voltsThatFit(volts, b.volts), s.volts));
  return fits.length ? Math.min(...fits) * need : `${from.map((o) => o.id).join(' + ')} cannot feed ${names}.`;
};
