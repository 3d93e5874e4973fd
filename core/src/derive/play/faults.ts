import type { Bench } from '../../bench/bench.js';
import { theItem } from '../../known/the.js';
import type { Chain, Device, Jack } from '../../rig/device.js';
import type { Cable } from '../../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, partOf, rigOf, everyPart, type Rig, thePart } from '../../rig/rig.js';
import { anatomy, type Anatomy } from '../../signal/graph/anatomy.js';
import { cablesInOrder } from '../../signal/graph/order.js';
import { withoutSupply } from '../../signal/graph/dark.js';
import type { RigState } from '../../signal/graph/state.js';
import { wire } from '../../signal/graph/wiring.js';
import type { Derived } from '../steps/deriver.js';

/** What goes wrong on stage, and what puts it right again. */
export type Fault =
  | { readonly fault: 'pull' | 'plug'; readonly cable: Id<'cable'> }
  | { readonly fault: 'swap'; readonly cables: readonly [Id<'cable'>, Id<'cable'>]; readonly at: Id<'device'> }
  | { readonly fault: 'dark' | 'light'; readonly devices: readonly Id<'device'>[] }
  | { readonly fault: 'lose a byte' | 'corrupt a byte' }
  | { readonly fault: 'channel' | 'spare'; readonly device: Id<'device'> };

export const FAULT_GROUPS = ['On the wire', 'Supply', 'MIDI boxes', 'Cables pulled', 'Plugs exchanged'] as const;

export interface SaidFault {
  readonly group: (typeof FAULT_GROUPS)[number];
  readonly text: string;
  readonly fault: Fault;
}

const jackText = (rig: Rig, r: Ref): string => `${partOf(rig, splitRef(r).device)?.code ?? ''} ${splitRef(r).name}`;
const cableText = (rig: Rig, { ends: [a, b] }: Pick<Cable, 'ends'>): string =>
  `from ${jackText(rig, a)} to ${jackText(rig, b)}`;

/** Everything that can go wrong with a hook-up, in words, in the order of the signal. */
export const faultsOf = (d: Derived): readonly SaidFault[] => {
  const {
    rig,
    anatomy: { wiring },
  } = d;
  const listening = all(rig, 'device').filter((x) => x.midi && x.memories.length && d.control.midi.size);
  return [
    { group: 'On the wire', text: 'A byte is lost on the wire', fault: { fault: 'lose a byte' } },
    { group: 'On the wire', text: 'A byte arrives wrong', fault: { fault: 'corrupt a byte' } },
    ...supplyFaults(d),
    ...listening.flatMap((x): SaidFault[] => [
      {
        group: 'MIDI boxes',
        text: `${x.name}: its channel switch is one off`,
        fault: { fault: 'channel', device: x.id },
      },
      {
        group: 'MIDI boxes',
        text: `${x.name}: its spare, with factory programs`,
        fault: { fault: 'spare', device: x.id },
      },
    ]),
    ...cablesInOrder(rig, d.anatomy).map(({ cable, from, to }): SaidFault => ({
      group: 'Cables pulled',
      text: `The cable from ${jackText(rig, from)} to ${jackText(rig, to)} is pulled`,
      fault: { fault: 'pull', cable: cable.id },
    })),
    ...all(rig, 'device')
      .filter((x) => wiring.wired.has(x.id))
      .flatMap((x) => swapsAt(d, x)),
  ];
};

/** Outputs of supplies with what they feed; boxes that need a supply of their own where the kit does not say which. */
const supplyFaults = ({ rig, hookup, anatomy: { wiring } }: Derived): readonly SaidFault[] => {
  const power = wire(rig, hookup, 'power');
  const fedBy = (device: Device, jack: Jack): readonly Id<'device'>[] => {
    const seen = new Set<number>([power.at.get(`${device.id}.${jack.id}`) ?? -1]);
    for (const p of seen) for (const e of power.out[p] ?? []) seen.add(theItem(power.edges, e).to);
    return [...new Set([...seen].flatMap((p) => power.points[p]?.device ?? []))].filter(
      (id) => id !== device.id && partOf(rig, id)?.zone !== 'supply',
    );
  };
  const outputs = all(rig, 'device').flatMap((device) =>
    device.jacks
      .filter((j) => j.kind === 'power' && j.poles.tip === 'out' && power.plugged.has(ref(device.id, j.id)))
      .map((jack) => ({ device, jack, feeds: fedBy(device, jack) })),
  );
  const names = (ids: readonly Id<'device'>[]) => ids.map((id) => thePart(rig, id).code).join(', ');
  return [
    ...outputs
      .filter((o) => o.feeds.length)
      .map(({ device, jack, feeds }): SaidFault => ({
        group: 'Supply',
        text: `${device.code} ${jack.id} fails: ${names(feeds)} ${feeds.length === 1 ? 'goes' : 'go'} dark`,
        fault: { fault: 'dark', devices: feeds },
      })),
    ...all(rig, 'device')
      .filter((x) => wiring.wired.has(x.id) && needsSupply(x))
      .map((x): SaidFault => ({
        group: 'Supply',
        text: `${x.name} loses its supply`,
        fault: { fault: 'dark', devices: [x.id] },
      })),
  ];
};

const needsSupply = ({ jacks, figures, zone }: Device): boolean =>
  zone !== 'supply' &&
  (figures.battery !== undefined ||
    jacks.some((j) => (j.kind === 'power' || j.kind === 'mains') && j.poles.tip === 'in'));

/** Plugs of one kind that sit side by side at one box, and so are exchanged in the dark. */
const swapsAt = ({ rig, anatomy: { wiring } }: Derived, d: Device): readonly SaidFault[] => {
  const plugged = d.jacks.flatMap((jack) =>
    all(rig, 'cable')
      .filter(
        (c) =>
          wiring.plugged.has(ref(d.id, jack.id)) &&
          c.ends.includes(ref(d.id, jack.id)) &&
          splitRef(c.ends[0]).device !== splitRef(c.ends[1]).device,
      )
      .slice(0, 1)
      .map((cable) => ({ jack, cable })),
  );
  return plugged.flatMap(({ jack, cable }, i) => {
    const next = plugged
      .slice(i + 1)
      .find(
        (o) =>
          o.jack.kind === jack.kind &&
          o.jack.connector === jack.connector &&
          JSON.stringify(o.jack.poles) === JSON.stringify(jack.poles),
      );
    return next
      ? [
          {
            group: 'Plugs exchanged',
            text: `${d.code}: the plugs in ${jack.id} and ${next.jack.id} are exchanged`,
            fault: { fault: 'swap', cables: [cable.id, next.cable.id], at: d.id },
          },
        ]
      : [];
  });
};

/** Makes it so on the bench. What the fault speaks of and the rig does not have is passed over. */
export const goWrong = ({ rig }: Pick<Derived, 'rig'>, bench: Bench, fault: Fault): void => {
  const cable = (id: Id<'cable'>) => partOf(rig, id);
  switch (fault.fault) {
    case 'lose a byte':
      return bench.wires.loseByte();
    case 'corrupt a byte':
      return bench.wires.corruptByte();
    case 'spare':
      return bench.faults.spare(fault.device);
    case 'channel': {
      const channel = partOf(rig, fault.device)?.midi?.channel;
      return bench.faults.mischannel(fault.device, typeof channel === 'number' ? (channel % 16) + 1 : 1);
    }
    case 'dark':
      return fault.devices.forEach((id) => bench.faults.darken(id));
    case 'light':
      return fault.devices.forEach((id) => bench.faults.light(id));
    case 'swap': {
      const [one, other] = fault.cables.map(cable);
      return one && other && bench.faults.swap(one, other, fault.at);
    }
    case 'pull':
    case 'plug': {
      const found = cable(fault.cable);
      if (found) bench.faults[fault.fault](found);
    }
  }
};

const sameEnds = (a: Pick<Cable, 'ends'>, [x, y]: readonly [Ref, Ref]): boolean =>
  (a.ends[0] === x && a.ends[1] === y) || (a.ends[0] === y && a.ends[1] === x);

/** What is wrong with the bench now and can be put right, in words. */
export const wrongNow = (
  { rig, hookup }: Pick<Derived, 'rig' | 'hookup'>,
  bench: Bench,
): readonly { readonly text: string; readonly right: Fault }[] => {
  const plugged = bench.plugged;
  return [
    ...[...bench.dark].map((id) => ({
      text: `${thePart(rig, id).name} is dark`,
      right: { fault: 'light' as const, devices: [id] },
    })),
    ...all(rig, 'cable')
      .filter((c) => c.hookup === hookup.id && !plugged.some((p) => sameEnds(c, p)))
      .map((c) => ({ text: `No cable ${cableText(rig, c)}`, right: { fault: 'plug' as const, cable: c.id } })),
  ];
};

/**
 * The rig as it stands on the bench: plugs where they sit now, and of a box without supply only what passes without
 * it.
 */
export const asItStands = (d: Derived, bench: Bench): Anatomy => {
  const plugged = bench.plugged;
  const { dark } = bench;
  const mine = all(d.rig, 'cable').filter((c) => c.hookup === d.hookup.id);
  const moved = plugged.filter((p) => !mine.some((c) => sameEnds(c, p)));
  if (dark.size === 0 && moved.length === 0 && plugged.length === mine.length) return d.anatomy;
  const state = bench.state();
  const parts = everyPart(d.rig).flatMap((part) => {
    if (part.kind === 'device' && dark.has(part.id))
      return [{ ...part, chains: part.chains.flatMap((c) => chainInTheDark(part, c, state)) }];
    return part.kind === 'cable' && part.hookup === d.hookup.id && !plugged.some((p) => sameEnds(part, p))
      ? []
      : [part];
  });
  const cables = moved.map((ends, i): Cable => ({
    kind: 'cable',
    id: `cable:on-the-bench-${i}`,
    hookup: d.hookup.id,
    ends,
  }));
  return anatomy(rigOf([...parts, ...cables]), d.hookup);
};

const chainInTheDark = (device: Device, chain: Chain, state: RigState): readonly Chain[] => {
  const is = withoutSupply(device, chain, state);
  return is === 'nothing' ? [] : [is === 'through' ? { ...chain, slots: [] } : chain];
};
