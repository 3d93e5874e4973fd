import fc from 'fast-check';
import type { Device } from '../rig/device.js';
import { wrongInDevice } from '../rig/device-references.js';
import { keysOf } from '../known/keys.js';
import { CATALOGUE } from './boxes.js';
import { addJack, NEW_JACKS } from './new-jacks.js';

const BOXES = CATALOGUE.map(({ box }): Device => ({ ...box, id: 'device:x', kind: 'device' }));

test('a box stays whole with any jacks added, and has one more for each', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...BOXES),
      fc.array(fc.constantFrom(...keysOf(NEW_JACKS)), { maxLength: 8 }),
      (box, kinds) => {
        const made = kinds.reduce(addJack, box);
        expect(wrongInDevice(made)).toEqual([]);
        expect(made.jacks).toHaveLength(box.jacks.length + kinds.length);
      },
    ),
  ));

test('a contact comes with what closes it, kept in the slots of a switcher', () => {
  const switcher = BOXES.find((b) => b.code === 'SWI' && b.jacks.some((j) => j.id === 'ctl2'))!;
  const made = addJack(switcher, 'contact output');
  expect(made.jacks.at(-1)).toMatchObject({ id: 'ctl3', closedWhen: [{ control: 'ctl3', in: ['closed'] }] });
  expect(made.memories[0]!.stores).toContain('ctl3');
});
