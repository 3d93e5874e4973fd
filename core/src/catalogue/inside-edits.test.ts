import fc from 'fast-check';
import type { Device, Slot } from '../rig/device.js';
import { wrongInDevice } from '../rig/device-references.js';
import { CATALOGUE } from './boxes.js';
import { blankBox } from './box-parts.js';
import {
  addChain,
  addLoop,
  addSplit,
  addStage,
  carry,
  figurePlace,
  placesIn,
  rowIn,
  slotAt,
  STAGE_GROUPS,
  stagesIn,
  takeOut,
  type Place,
  type Row,
} from './inside-edits.js';
import { figuresOf } from './figures.js';
import { STAGES } from '../rig/device.js';

const BOXES: readonly Device[] = [
  blankBox('device:blank'),
  ...CATALOGUE.map(({ box }): Device => ({ ...box, id: 'device:x', kind: 'device' })),
];

/** Every place where something can be put: before each stage of a row and behind the last one. */
const gaps = (device: Device): readonly Place[] => {
  const rows: readonly Row[] = [
    ...device.chains.map((c) => [c.id]),
    ...placesIn(device).flatMap((place) => {
      const slot = slotAt(device, place);
      return slot?.is === 'fork' ? slot.arms.map((a) => [...place.row, slot.id, a.id]) : [];
    }),
  ];
  return rows.flatMap((row) => Array.from({ length: rowIn(device, row).length + 1 }, (_, at) => ({ row, at })));
};
const count = (device: Device): number => placesIn(device).length;

const box = fc.constantFrom(...BOXES);
const withGap = box
  .filter((device) => device.chains.length > 0)
  .chain((device) => fc.record({ device: fc.constant(device), place: fc.constantFrom(...gaps(device)) }));
const acts = fc.array(
  fc.record({
    what: fc.constantFrom('stage', 'loop', 'split', 'take out', 'carry', 'chain'),
    one: fc.nat(),
    other: fc.nat(),
    stage: fc.constantFrom(...STAGES),
  }),
  { maxLength: 12 },
);

test('a box stays whole whatever is put in, carried about and taken out', () =>
  fc.assert(
    fc.property(box, acts, (start, list) => {
      let device = start;
      for (const { what, one, other, stage } of list) {
        const [open, filled] = [gaps(device), placesIn(device)];
        const [gap, place] = [open[one % open.length], filled[other % filled.length]];
        if (what === 'chain') device = addChain(device);
        else if (gap && what === 'stage') device = addStage(device, gap, stage).device;
        else if (gap && what === 'loop') device = addLoop(device, gap).device;
        else if (gap && what === 'split') device = addSplit(device, gap).device;
        else if (place && what === 'take out') device = takeOut(device, place);
        else if (gap && place && what === 'carry') {
          const before = [...stagesIn(device)].sort();
          device = carry(device, place, gap).device;
          expect([...stagesIn(device)].sort()).toEqual(before);
        }
        expect(wrongInDevice(device)).toEqual([]);
      }
    }),
    { numRuns: 400 },
  ));

test('what was put in and is taken out leaves the box as it was', () =>
  fc.assert(
    fc.property(withGap, fc.constantFrom(...STAGES), ({ device, place }, stage) => {
      for (const added of [addStage(device, place, stage), addSplit(device, place)]) {
        expect(count(added.device)).toBe(count(device) + 1);
        expect(takeOut(added.device, added.place)).toEqual(device);
      }
    }),
    { numRuns: 300 },
  ));

test('carried there and back within its row, all stands as it stood', () =>
  fc.assert(
    fc.property(
      box.filter((d) => d.chains.some((c) => c.slots.length > 1)),
      fc.nat(),
      fc.nat(),
      (device, one, other) => {
        const chain = device.chains.find((c) => c.slots.length > 1)!;
        const [from, to] = [one % chain.slots.length, other % chain.slots.length];
        const row = [chain.id];
        const there = carry(device, { row, at: from }, { row, at: to > from ? to + 1 : to });
        expect(there.place.at).toBe(to);
        expect(carry(there.device, there.place, { row, at: from > to ? from + 1 : from }).device).toEqual(device);
      },
    ),
  ));

test('a split cannot be carried into itself', () => {
  const { device, place } = addSplit(blankBox('device:x'), { row: ['path'], at: 0 });
  expect(carry(device, place, { row: ['path', 'split', 'one'], at: 0 }).device).toBe(device);
});

test('every stage that a box can have is offered once', () =>
  expect(Object.values(STAGE_GROUPS).flat().sort()).toEqual([...STAGES].sort()));

test('a loop comes with its jacks and its switch', () => {
  const { device } = addLoop(blankBox('device:x'), { row: ['path'], at: 0 });
  expect(device.jacks.map((j) => j.id)).toEqual(['in', 'out', 'send1', 'return1']);
  expect(rowIn(device, ['path'])[0]).toMatchObject({ is: 'insert', on: [{ control: 'loop1', in: ['on'] }] });
  expect(device.actuators.map((a) => a.by)).toEqual([{ foot: 'loop1 switch', gesture: 'press' }]);
});

test('the figures of what stands at a place are found by it', () => {
  for (const device of BOXES) {
    const keys = figuresOf(device).map((f) => f.key);
    const named = placesIn(device).filter((p) => (slotAt(device, p) as Slot).is !== 'fork');
    for (const place of named) expect(keys.some((key) => key.startsWith(`${figurePlace(device, place)}: `))).toBe(true);
  }
});
