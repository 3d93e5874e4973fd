import { after } from '../../testing/after.js';
import { islandRun } from '../demo/island-run.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { thePart } from '../rig/rig.js';
import { addHouse, changeHouse, houseOn, housesOf, nightsOf, noteNight, removeHouse } from './houses.js';

const two = after(after(islandRun(), addHouse('house:barn', 'The barn')), addHouse('house:attic', 'An attic'));
const barn = thePart(two, 'house:barn');

test('what was found at a house is kept night by night, the last night first, and in the file', () => {
  const first = after(two, noteNight(barn, '2026-05-02', 'Booms; cut 3 dB at 160 Hz'));
  const again = after(first, noteNight(thePart(first, 'house:barn'), '2026-07-11', ''));
  expect(nightsOf(thePart(again, 'house:barn'))).toEqual(['2026-07-11', '2026-05-02']);
  expect(housesOf(again).map((h) => h.name)).toEqual(['The barn', 'An attic']);
  expect([houseOn(again, '2026-05-02')?.name, houseOn(again, '2026-05-03')]).toEqual(['The barn', undefined]);
  const gone = after(again, noteNight(thePart(again, 'house:barn'), '2026-07-11', undefined));
  expect(gone.parts.house).toEqual(first.parts.house);
  const read = readRigFile(writeRigFile(again));
  expect(read.ok && read.value.parts.house).toEqual(again.parts.house);
});

test('what is said of a house can be unsaid, and the house taken away', () => {
  const said = after(two, changeHouse(barn, { sound: 'mono', sockets: 2, lift: 'DI of the bass', room: 'stone' }));
  const unsaid = changeHouse(thePart(said, 'house:barn'), {
    sound: undefined,
    sockets: undefined,
    lift: undefined,
    room: undefined,
  });
  expect(after(said, unsaid).parts.house).toEqual(two.parts.house);
  expect(housesOf(after(said, removeHouse('house:barn'))).map((h) => h.name)).toEqual(['An attic']);
});
