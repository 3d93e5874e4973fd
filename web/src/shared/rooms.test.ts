import { CHECKS } from '@yunta/core/checks/index';
import { SHELVES } from '@yunta/core/catalogue/boxes';
import { makeDevice } from '@yunta/core/catalogue/make';
import { rigOf } from '@yunta/core/rig/rig';
import { doesText } from './does-text.js';
import { boxName, jackText } from '../steps/routing/jack-text.js';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ROOMS, roomOf, VIEWS } from './rooms.js';

describe('rooms', () => {
  test('every check has a room in which it is seen to', () => {
    const rooms = ROOMS.map((r) => r.path);
    for (const { code } of CHECKS) expect(rooms).toContain(roomOf(code));
  });
  test.each([
    ['wire.silent', 'routing'],
    ['order.dirt-in-loop', 'routing'],
    ['wire.unused', 'kit'],
    ['order.conflict', 'sounds'],
    ['recall.hand-move', 'sounds'],
    ['recall.unpinned', 'proof'],
    ['midi.crosstalk', 'proof'],
  ])('%s is seen to in %s', (code, room) => expect(roomOf(code)).toBe(room));
  test.each(VIEWS.map(({ to, name }) => [name, to] as const))('the view “%s” is one that its room knows', (_, to) => {
    const [room, show] = to.split('?show=');
    const file = join(dirname(fileURLToPath(import.meta.url)), `../steps/${room}/${room}.tsx`);
    expect(readFileSync(file, 'utf8')).toMatch(new RegExp(`'${show}'`));
  });
  test('a code of a family that has no room yet belongs to none', () => expect(roomOf('unheard.of')).toBeUndefined());
});

describe('a box in a few words', () => {
  test.each([
    ['compressor', 'compressor'],
    ['switcher-8', '8 loops, can reorder'],
    ['switcher-4', '4 loops'],
    ['valve-head', 'preamp clean, preamp lead, power amp'],
    ['ab-in', 'passes on'],
    ['desk', 'where it is heard'],
    ['supply-8', 'feeds 8 boxes'],
    ['adaptor', 'feeds one box'],
    ['daisy-lead', 'passes on'],
    ['preamp-cab', 'preamp, cabinet simulation'],
  ])('%s: %s', (key, words) => expect(doesText(makeDevice(key, 'device:x'))).toBe(words));
  test('every box on the shelves has words, and an instrument says its level as assumed', () => {
    for (const shelf of SHELVES)
      for (const g of shelf.boxes) expect([g.key, doesText(g.box).length > 0]).toEqual([g.key, true]);
    expect(doesText(makeDevice('humbucker', 'device:x'))).toBe('instrument, -14 dBu assumed');
  });
});

describe('jacks in words', () => {
  const rig = rigOf([makeDevice('switcher-4', 'device:s', { code: 'SWI', name: 'My switcher' })]);
  test('by the code of the box and the name of the jack', () =>
    expect([jackText(rig, 'device:s.send1'), boxName(rig, 'device:s.send1')]).toEqual(['SWI send1', 'My switcher']));
  test('a box that is gone is named by what is left of it', () =>
    expect([jackText(rig, 'device:none.out'), boxName(rig, 'device:none.out')]).toEqual(['device:none out', '']));
});
