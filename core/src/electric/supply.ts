import { theItem } from '../known/the.js';
import { wiredBoxes } from '../rig/box.js';
import { blocksIn } from '../rig/domain.js';
import type { Device, Jack, Stage, SupplyNoise, SupplyPlug } from '../rig/device.js';
import type { Hookup } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, partOf, type Rig } from '../rig/rig.js';

/** A jack of a box that wants to be fed. */
export interface SupplyNeed {
  readonly jack: Ref;
  readonly device: Id<'device'>;
  /** Any one of these will do. */
  readonly volts: readonly number[];
  readonly milliamps: number;
  readonly centre: Centre;
  readonly plug: SupplyPlug;
  readonly noise: SupplyNoise;
}
type Centre = 'negative' | 'positive' | 'ac';

/** A jack that feeds boxes. */
export interface SupplyOutputJack {
  readonly jack: Ref;
  readonly device: Id<'device'>;
  /** It is set to one of these. */
  readonly volts: readonly number[];
  readonly milliamps: number;
  readonly centre: Centre;
  /** Outputs of one common have the same. */
  readonly group: string;
}

/** The plug that a supply lead carries unless somebody says otherwise (common practice). */
export const USUAL_SUPPLY_PLUG: SupplyPlug = 'barrel 2.1';

/** What of a battery reaches the boxes, behind its converter; assumed. */
export const BATTERY_EFFICIENCY = 0.85;

const DIGITAL: readonly Stage[] = ['delay', 'reverb', 'looper', 'pitch', 'wireless'];
const HIGH_GAIN: readonly Stage[] = ['overdrive', 'distortion', 'fuzz', 'preamp', 'channel'];

/**
 * What a box is to its neighbours on one supply by its kind of stages: digital, or of high gain (common practice:
 * repeats, reverbs and loopers are digital; drives and preamps make noise heard).
 */
export const noiseByKind = ({ chains, figures }: Device): SupplyNoise => {
  const stages = chains.flatMap((c) => blocksIn(c.slots)).map((b) => b.stage);
  if (figures.direct === 'converted' || stages.some((s) => DIGITAL.includes(s))) return 'digital';
  return stages.some((s) => HIGH_GAIN.includes(s)) ? 'high gain' : 'neither';
};

/** The same as somebody said it of the box, else by its kind. */
export const noiseOf = (device: Device): SupplyNoise => device.figures.onSupply ?? noiseByKind(device);

/** Neither supply, mains nor battery, such as a passive pedal. */
export const needsNoSupply = ({ zone, jacks, figures }: Device): boolean =>
  zone !== 'supply' &&
  jacks.length > 0 &&
  !figures.battery &&
  !jacks.some((j) => j.kind === 'power' || j.kind === 'mains');

const isPassedOn = ({ chains }: Device, jack: Jack): boolean =>
  chains.some((c) => c.from.some((t) => t.at === jack.id));
const isPassedHere = ({ chains }: Device, jack: Jack): boolean =>
  chains.some((c) => c.to.some((t) => t.at === jack.id));

/**
 * Every jack that wants to be fed in a hook-up; what only passes a supply on, such as a multicore, wants none. A box that
 * is wired elsewhere and has no lead here stays at home; one that is wired nowhere yet counts everywhere.
 */
export const supplyNeedsIn = (rig: Rig, hookup: Id<'hookup'>): readonly SupplyNeed[] => {
  const here = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends.map((end) => splitRef(end).device)));
  const anywhere = wiredBoxes(rig);
  return supplyNeeds(rig).filter(({ device }) => here.has(device) || !anywhere.has(device));
};

/** Every jack of the kit that wants to be fed. */
export const supplyNeeds = (rig: Rig): readonly SupplyNeed[] =>
  all(rig, 'device').flatMap((device) =>
    device.jacks.flatMap((jack): readonly SupplyNeed[] =>
      jack.kind === 'power' && jack.poles.tip === 'in' && jack.supply && !isPassedOn(device, jack)
        ? [
            {
              jack: ref(device.id, jack.id),
              device: device.id,
              volts: jack.supply.volts,
              milliamps: jack.supply.milliamps,
              centre: jack.supply.centre,
              plug: jack.supply.plug ?? USUAL_SUPPLY_PLUG,
              noise: noiseOf(device),
            },
          ]
        : [],
    ),
  );

/** Every jack that feeds others from a supply of its own. */
export const supplyOutputs = (rig: Rig): readonly SupplyOutputJack[] =>
  all(rig, 'device').flatMap((device) =>
    device.jacks.flatMap((jack): readonly SupplyOutputJack[] =>
      jack.kind === 'power' && jack.poles.tip === 'out' && jack.supply && !isPassedHere(device, jack)
        ? [
            {
              jack: ref(device.id, jack.id),
              device: device.id,
              volts: jack.supply.volts,
              milliamps: jack.supply.milliamps,
              centre: jack.supply.centre,
              group: jack.supply.isolated ? ref(device.id, jack.id) : device.id,
            },
          ]
        : [],
    ),
  );

/**
 * The same of the supplies that come along in a hook-up: those with a lead here, and those that are wired nowhere yet.
 * As long as none has a lead here, any of them may come along.
 */
export const supplyOutputsIn = (rig: Rig, hookup: Id<'hookup'>): readonly SupplyOutputJack[] => {
  const outputs = supplyOutputs(rig);
  const here = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const chosen = new Set(outputs.filter((o) => here.has(o.jack)).map((o) => o.device));
  if (chosen.size === 0) return outputs;
  const anywhere = new Set(all(rig, 'cable').flatMap((c) => c.ends.map((end) => splitRef(end).device)));
  return outputs.filter(({ device }) => chosen.has(device) || !anywhere.has(device));
};

/** What comes out of a supply lead. */
export interface Given {
  readonly volts: readonly number[];
  readonly milliamps: number;
  readonly centre: Centre;
  readonly outputs: readonly SupplyOutputJack[];
  /** How outputs are joined on the way. */
  readonly adds?: 'current' | 'volts';
}

/** A need and what its lead brings; no `given` where the lead comes from nothing that feeds. */
export interface Feed {
  readonly need: SupplyNeed;
  readonly cable: Id<'cable'>;
  readonly given?: Given;
}

const turned: Readonly<Record<Centre, Centre>> = { negative: 'positive', positive: 'negative', ac: 'ac' };

/** What feeds each box that has a supply lead in this hook-up, through leads that bridge, share or turn. */
export const feeds = (rig: Rig, hookup: Hookup): readonly Feed[] => {
  const outputs = new Map(supplyOutputs(rig).map((o) => [o.jack, o]));
  const cables = new Map(cablesOf(rig, hookup.id).flatMap((c) => c.ends.map((end) => [end, c] as const)));

  const into = (jack: Ref, seen: ReadonlySet<Ref>): Given | undefined => {
    const cable = cables.get(jack);
    const from = cable?.ends.find((end) => end !== jack);
    if (!cable || !from || seen.has(from)) return undefined;
    const given = outOf(from, new Set([...seen, from]));
    return given && cable.turns ? { ...given, centre: turned[given.centre] } : given;
  };
  const outOf = (jack: Ref, seen: ReadonlySet<Ref>): Given | undefined => {
    const output = outputs.get(jack);
    if (output) {
      const { volts, milliamps, centre } = output;
      return { volts, milliamps, centre, outputs: [output] };
    }
    const { device, name } = splitRef(jack);
    const chain = partOf(rig, device)?.chains.find((c) => c.to.some((t) => t.at === name));
    const brought = chain?.from.flatMap((t) => into(ref(device, t.at), seen) ?? []) ?? [];
    return brought.length > 1 && chain?.adds ? added(brought, chain.adds) : brought[0];
  };

  return supplyNeeds(rig).flatMap((need): readonly Feed[] => {
    const cable = cables.get(need.jack);
    if (!cable) return [];
    const given = into(need.jack, new Set([need.jack]));
    return [{ need, cable: cable.id, ...(given ? { given } : {}) }];
  });
};

/** What outputs give when they are joined: their currents add at one voltage, or their voltages at the smaller current. */
export const joinedOutputs = (
  of: readonly Pick<SupplyOutputJack, 'volts' | 'milliamps' | 'centre'>[],
  adds: 'current' | 'volts',
): Pick<SupplyOutputJack, 'volts' | 'milliamps' | 'centre'> => {
  const { volts, centre } = theItem(of, 0);
  const strengths = of.map((o) => o.milliamps);
  return adds === 'current'
    ? {
        volts: volts.filter((v) => of.every((o) => o.volts.includes(v))),
        milliamps: strengths.reduce((sum, one) => sum + one, 0),
        centre,
      }
    : {
        volts: [
          ...new Set(of.reduce<readonly number[]>((sums, o) => sums.flatMap((s) => o.volts.map((v) => s + v)), [0])),
        ],
        milliamps: Math.min(...strengths),
        centre,
      };
};

/** The same of leads that come together. */
const added = (brought: readonly Given[], adds: 'current' | 'volts'): Given => ({
  ...joinedOutputs(brought, adds),
  outputs: brought.flatMap((b) => b.outputs),
  adds,
});

/** What hangs on an output. */
export interface OutputLoad {
  readonly output: SupplyOutputJack;
  readonly feeds: readonly Feed[];
  /** Taken of it in milliamps; of a bridge that adds currents in proportion to what each output gives. */
  readonly milliamps: number;
  /** The lowest voltage that suits all that hang on it; undefined where none does. */
  readonly volts: number | undefined;
}

/** Every output with what hangs on it. */
export const outputLoads = (rig: Rig, fed: readonly Feed[]): readonly OutputLoad[] =>
  supplyOutputs(rig).map((output) => {
    const here = fed.filter((f) => f.given?.outputs.some((o) => o.jack === output.jack));
    const milliamps = here.reduce((sum, { need, given }) => {
      const share = given?.adds === 'current' ? output.milliamps / given.milliamps : 1;
      return sum + need.milliamps * share;
    }, 0);
    const suits = output.volts.filter((v) => here.every((f) => f.given?.adds === 'volts' || f.need.volts.includes(v)));
    return { output, feeds: here, milliamps, volts: suits.length ? Math.min(...suits) : undefined };
  });
