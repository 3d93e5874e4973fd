import { together, type Edit } from '../change/edit.js';
import { apply } from '../change/apply.js';
import { isTunerOut, jackIn, theJack } from '../rig/box.js';
import type { Device, Leg, Tap } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { cablesOf, thePart, type Rig } from '../rig/rig.js';
import { connect, givesOut, offers, takesIn } from './cables.js';
import { planControl } from './wire.js';

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

/** Nothing goes on from a box that the signal comes to: two microphones side by side each have a channel of the desk. */
const endsHere = (rig: Rig, hookup: Id<'hookup'>, box: Id<'device'>): boolean => {
  const taken = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const outs = jacksOf(thePart(rig, box), 'out');
  return (
    outs.length > 0 && outs.every((r) => !taken.has(r)) && jacksOf(thePart(rig, box), 'in').some((r) => taken.has(r))
  );
};

/** The best free way from one box into another, by the jacks that the signal goes through. */
const bestCable = (
  rig: Rig,
  hookup: Id<'hookup'>,
  from: Id<'device'>,
  to: Id<'device'>,
): readonly [Ref, Ref] | undefined => {
  const taken = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const ins = jacksOf(thePart(rig, to), 'in');
  const free = jacksOf(thePart(rig, from), 'out').filter((r) => !taken.has(r));
  const [forTuner, onward] = [
    free.filter((r) => isTunerOut(theJack(rig, r))),
    free.filter((r) => !isTunerOut(theJack(rig, r))),
  ];
  const isTuner = thePart(rig, to).ends?.some((e) => e.is === 'tuner') ?? false;
  const outs = isTuner ? [...forTuner, ...onward] : onward;
  for (const out of outs) {
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
 * Jacks that hold a plug are left alone. Who tells others what to do is led to them: MIDI and contacts.
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
    if (isDesk(thePart(rig, box)))
      for (const end of boxes.slice(0, i)) if (endsHere(wired, hookup, end)) plug(end, box);
  });
  const said = new Set(all);
  for (const { from, to } of planControl(wired, hookup).steps)
    if (said.has(splitRef(from).device) && said.has(splitRef(to).device)) join([from, to]);
  return together(...edits);
};
