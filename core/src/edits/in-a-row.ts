import { together, type Edit } from '../change/edit.js';
import { apply } from '../change/apply.js';
import { jackIn } from '../rig/box.js';
import type { Device, Leg, Tap } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { cablesOf, thePart, type Rig } from '../rig/rig.js';
import { connect, givesOut, offers, takesIn } from './cables.js';

type Goes = 'in' | 'out';

/** From a send on to its return, which are joined as long as nothing is plugged in. */
const isLoop = (device: Device, send: Tap, back: Tap): boolean => {
  const [out, into] = [jackIn(device, send.at), jackIn(device, back.at)];
  return out !== undefined && into !== undefined && givesOut(out) && takesIn(into);
};

/** The jacks by which the signal goes through a box: none of its loops, whose send and return are joined inside. */
const through = (device: Device, goes: Goes): readonly Tap[] => {
  const begins = device.chains.flatMap((c) => c.from);
  const ends = device.chains.flatMap((c) => c.to);
  const loops = device.chains.filter((c) => c.from.some((s) => c.to.some((r) => isLoop(device, s, r))));
  const joined = new Set(loops.flatMap((c) => (goes === 'in' ? c.to : c.from)).map((tap) => tap.at));
  const isWay = (at: string): boolean => {
    const jack = jackIn(device, at);
    const isSignal = jack?.kind === 'audio' || jack?.kind === 'air';
    return isSignal && !joined.has(at) && (goes === 'in' ? takesIn(jack) : givesOut(jack));
  };
  const taps = (goes === 'in' ? begins : ends).filter((tap) => isWay(tap.at));
  // An instrument has nothing inside: it gives by its jack.
  return taps.length || device.chains.length ? taps : device.jacks.flatMap((j) => (isWay(j.id) ? [{ at: j.id }] : []));
};
const jacksOf = (device: Device, goes: Goes): readonly Ref[] => [
  ...new Set(through(device, goes).map((tap) => ref(device.id, tap.at))),
];
/** Left and right, as taps of one chain or as jacks of two. */
const hasTwoSides = (device: Device, goes: Goes): boolean => {
  const sides = new Set(through(device, goes).map((tap) => tap.leg ?? SIDES[tap.at.slice(-2)]));
  return sides.has('left') && sides.has('right');
};
/** A desk has a channel for each side. */
const isDesk = (device: Device): boolean => device.ends?.some((e) => e.is === 'house') ?? false;
const SIDES: Readonly<Record<string, Leg>> = { '-l': 'left', '-r': 'right' };

/** The best free way from one box into another, by the jacks that the signal goes through. */
const bestCable = (
  rig: Rig,
  hookup: Id<'hookup'>,
  from: Id<'device'>,
  to: Id<'device'>,
): readonly [Ref, Ref] | undefined => {
  const taken = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const ins = jacksOf(thePart(rig, to), 'in');
  for (const out of jacksOf(thePart(rig, from), 'out').filter((r) => !taken.has(r))) {
    const suits = new Set(
      offers(rig, hookup, out)
        .filter((o) => !o.taken)
        .map((o) => o.jack),
    );
    const into = ins.find((r) => suits.has(r));
    if (into) return [out, into];
  }
  return undefined;
};

/**
 * Cables that join boxes in the order in which they were said: each feeds the next, both sides where both have two.
 * What the last box cannot feed is fed by the nearest before it that can: two combos behind a delay stand side by side.
 * Jacks that hold a plug are left alone. A foot switch or a controller of no sound of its own is plugged into what it
 * was said with: the nearest box before it, else behind it, that a contact or MIDI leads into.
 * @param all every box that was said, also those that the signal does not pass
 * @example inARow(rig, 'hookup:main', ['device:gtr', 'device:wah', 'device:amp'], newCable)
 */
export const inARow = (
  rig: Rig,
  hookup: Id<'hookup'>,
  boxes: readonly Id<'device'>[],
  newCable: () => Id<'cable'>,
  all: readonly Id<'device'>[] = boxes,
): Edit => {
  let wired = rig;
  const edits: Edit[] = [];
  const plug = (from: Id<'device'>, to: Id<'device'>): boolean => {
    return join(bestCable(wired, hookup, from, to));
  };
  const join = (cable: readonly [Ref, Ref] | undefined): boolean => {
    if (!cable) return false;
    const edit = connect(wired, hookup, newCable(), ...cable);
    const after = apply(wired, edit);
    if (!after.ok) return false;
    edits.push(edit);
    wired = after.value.rig;
    return true;
  };
  boxes.forEach((box, i) => {
    const feeder = boxes
      .slice(0, i)
      .reverse()
      .find((before) => plug(before, box));
    const isWide =
      feeder &&
      hasTwoSides(thePart(rig, feeder), 'out') &&
      (hasTwoSides(thePart(rig, box), 'in') || isDesk(thePart(rig, box)));
    if (isWide) plug(feeder, box);
  });
  for (const [i, box] of all.entries()) {
    const kind = commandsBy(thePart(rig, box));
    const near = [...all.slice(0, i).reverse(), ...all.slice(i + 1)];
    if (kind) near.find((to) => join(commandCable(wired, hookup, box, to, kind)));
  }
  return together(...edits);
};

/** How a box that passes no sound tells others what to do; undefined for one that passes some. */
const commandsBy = (device: Device): 'contact' | 'midi' | undefined => {
  if (device.jacks.some((j) => j.kind === 'audio' || j.kind === 'air') || device.zone !== 'floor') return undefined;
  return (['contact', 'midi'] as const).find((kind) =>
    device.jacks.every((j) => (j.kind === kind ? j.poles.tip === 'out' : j.kind === 'power')) ||
    (kind === 'midi' && device.memories.some((m) => m.by === 'slot'))
      ? device.jacks.some((j) => j.kind === kind && j.poles.tip === 'out')
      : false,
  );
};

/** The first free output of a kind, into the first free input of that kind. */
const commandCable = (
  rig: Rig,
  hookup: Id<'hookup'>,
  from: Id<'device'>,
  to: Id<'device'>,
  kind: 'contact' | 'midi',
): readonly [Ref, Ref] | undefined => {
  const taken = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const free = (box: Id<'device'>, goes: Goes): Ref | undefined =>
    thePart(rig, box)
      .jacks.filter((j) => j.kind === kind && j.poles.tip === goes)
      .map((j) => ref(box, j.id))
      .find((r) => !taken.has(r));
  const [out, into] = [free(from, 'out'), free(to, 'in')];
  return out && into && commandsBy(thePart(rig, to)) === undefined ? [out, into] : undefined;
};
