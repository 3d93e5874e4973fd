import { apply } from '../change/apply.js';
import { together, type Edit } from '../change/edit.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { passable } from '../signal/graph/passable.js';
import { wire } from '../signal/graph/wiring.js';
import { connect, unplug } from '../edits/cables.js';
import { addDevice } from '../edits/devices.js';
import { moveBox, placesFor, type BoxPlace } from '../edits/place.js';
import { inOf, outOf, theOutput, theInput } from '../edits/wire.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { cablesOf, partOf, thePart, type Rig } from '../rig/rig.js';
import type { CheckInputs, Remedy } from './check.js';
import { boxName } from './names.js';

// Ways out that several checks offer: a box at another place, a cable plugged, moved or pulled, a box put between two
// others.

type Box = Id<'device'>;
type Ways = readonly Remedy[];

const byProgram = (id: string, label: string, edit: Edit, note?: string): Remedy => ({
  id,
  label,
  promise: 'clears',
  by: 'program',
  edit,
  ...(note ? { note } : {}),
});

/** Ids that no cable has yet; the same each time, so that a way out stays the same while it is looked at. */
const newCables = (rig: Rig, stem: string): (() => Id<'cable'>) => {
  let made = 0;
  return () => {
    do made += 1;
    while (partOf(rig, `cable:${stem}-${made}`));
    return `cable:${stem}-${made}`;
  };
};

/** The box at the first place that suits; none where there is no such place. */
const moves = (
  { rig, hookup }: CheckInputs,
  box: Box,
  id: string,
  label: string,
  suits: (place: BoxPlace) => boolean,
): Ways => {
  const edits = placesFor(rig, hookup.id, box)
    .filter(suits)
    .map((place) => ({ place, edit: moveBox(rig, hookup.id, box, place, newCables(rig, box.slice(7))) }));
  const kept = edits.find(({ place, edit }) => place.is === 'out of the path' || keepsEveryWay(rig, hookup, edit));
  return kept ? [byProgram(id, label, kept.edit)] : [];
};

/**
 * Whether every place where people listen can still be reached through the same stages as before: a box that is moved
 * out of one arm must not leave the others.
 */
const keepsEveryWay = (rig: Rig, hookup: Hookup, edit: Edit): boolean => {
  const after = apply(rig, edit);
  if (!after.ok) return false;
  const ways = (of: Rig): string => {
    const wiring = wire(of, hookup);
    return wiring.ends
      .filter((e) => e.end.is !== 'tuner')
      .map((e) => `${e.ref} ${[...passable(wiring, undefined, [e.ref]).stages].sort().join()}`)
      .join('; ');
  };
  return ways(rig) === ways(after.value.rig);
};

/** The move and, where more stands between the two, their exchange as well: of neighbours both come to the same. */
export const orExchanged = (inputs: CheckInputs, box: Box, other: Box, move: Ways): Ways => {
  const neighbours = cablesOf(inputs.rig, inputs.hookup.id).some((c) =>
    c.ends.every((e) => [box, other].includes(splitRef(e).device)),
  );
  return neighbours && move.length ? move : [...move, ...exchange(inputs, box, other)];
};

const exchange = (inputs: CheckInputs, box: Box, other: Box): Ways =>
  moves(
    inputs,
    box,
    'exchange',
    `Exchange ${boxName(inputs.rig, box)} and ${boxName(inputs.rig, other)}`,
    (p) => p.is === 'exchange' && p.with === other,
  );

export const inFrontOf = (inputs: CheckInputs, box: Box, other: Box): Ways => {
  const into = inOf(thePart(inputs.rig, other));
  return into
    ? moves(
        inputs,
        box,
        'front',
        `Move ${boxName(inputs.rig, box)} right in front of ${boxName(inputs.rig, other)}`,
        (p) => p.is === 'between' && p.to === ref(other, into.id),
      )
    : [];
};

export const behind = (inputs: CheckInputs, box: Box, other: Box): Ways => {
  const out = outOf(thePart(inputs.rig, other));
  return out
    ? moves(
        inputs,
        box,
        'behind',
        `Move ${boxName(inputs.rig, box)} right behind ${boxName(inputs.rig, other)}`,
        (p) => p.is === 'between' && p.from === ref(other, out.id),
      )
    : [];
};

export const intoLoopOf = (inputs: CheckInputs, box: Box, host: Box): Ways =>
  moves(
    inputs,
    box,
    'loop',
    `Move ${boxName(inputs.rig, box)} into the loop of ${boxName(inputs.rig, host)}`,
    (p) => p.is === 'loop' && p.host === host,
  );

export const outOfThePath = (inputs: CheckInputs, box: Box): Ways =>
  moves(inputs, box, 'out', `Take ${boxName(inputs.rig, box)} out of the path`, (p) => p.is === 'out of the path');

const jackText = (rig: Rig, r: Ref): string => `${boxName(rig, splitRef(r).device)} (${splitRef(r).name})`;

export const plugIn = ({ rig, hookup }: CheckInputs, from: Ref, to: Ref): Ways => [
  byProgram(
    `plug ${from} ${to}`,
    `Plug a cable from ${jackText(rig, from)} to ${jackText(rig, to)}`,
    connect(rig, hookup.id, newCables(rig, splitRef(from).device.slice(7))(), from, to),
  ),
];

export const pull = ({ rig }: CheckInputs, cable: Cable, note?: string): Ways => [
  byProgram(
    `pull ${cable.id}`,
    `Pull the cable from ${jackText(rig, cable.ends[0])} to ${jackText(rig, cable.ends[1])}`,
    unplug(cable.id),
    note,
  ),
];

/** A cable with one of its ends in another jack. */
export const replugged = (cable: Cable, from: Ref, to: Ref): Cable => ({
  ...cable,
  ends: [cable.ends[0] === from ? to : cable.ends[0], cable.ends[1] === from ? to : cable.ends[1]],
});

export const replug = ({ rig }: CheckInputs, cable: Cable, from: Ref, to: Ref): Ways => [
  byProgram(`replug ${cable.id}`, `Move the plug from ${jackText(rig, from)} to ${splitRef(to).name}`, {
    put: [replugged(cable, from, to)],
    remove: [],
  }),
];

/** A new box from the catalogue in the way of a cable. */
export const putInto = (
  { rig, hookup }: CheckInputs,
  cable: Cable,
  from: Ref,
  to: Ref,
  key: string,
  label: string,
): Ways => {
  const id: Box = `device:${key}-${cable.id.slice(6)}`;
  if (partOf(rig, id)) return [];
  const added = addDevice(rig, key, id);
  const [device] = added.put;
  if (!inOf(device) || !outOf(device)) return [];
  const out = device.jacks.find((j) => j.kind === 'audio' && j.poles.tip === 'out' && j.balanced) ?? theOutput(device);
  const onward: Cable = { kind: 'cable', id: newCables(rig, key)(), hookup: hookup.id, ends: [ref(id, out.id), to] };
  return [
    byProgram(
      `put ${key}`,
      label,
      together(added, { put: [{ ...cable, ends: [from, ref(id, theInput(device).id)] }, onward], remove: [] }),
      'a box is added to the kit',
    ),
  ];
};

/** The cable in a jack. */
export const cableAt = ({ rig, hookup }: CheckInputs, jack: Ref): Cable | undefined =>
  cablesOf(rig, hookup.id).find((c) => c.ends.includes(jack));

/** What a person would do where no change of the document does it. */
export const elseByHand = (ways: Ways, label: string): Ways =>
  ways.length ? ways : [{ id: 'hand', label, promise: 'clears', by: 'hand' }];
