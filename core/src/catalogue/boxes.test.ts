import { apply } from '../change/apply.js';
import { emptyRig } from '../rig/rig.js';
import { readPart } from '../rig/read.js';
import { CATALOGUE } from './boxes.js';
import { freeCode, makeDevice } from './make.js';

describe('the catalogue', () => {
  test('gives each box names of its own', () => {
    const names = CATALOGUE.flatMap((g) => g.says.map((s) => s.toLowerCase()));
    expect(names.filter((n, i) => names.indexOf(n) !== i)).toEqual([]);
    expect(new Set(CATALOGUE.map((g) => g.key)).size).toBe(CATALOGUE.length);
  });
  test.each(CATALOGUE.map((g) => [g.key]))('%s can be saved and has the shape of a part', (key) => {
    const device = makeDevice(key, 'device:x');
    expect(readPart(device)).toMatchObject({ ok: true });
    const applied = apply(emptyRig(), { put: [device], remove: [] });
    expect(applied.ok ? [] : applied.error).toEqual([]);
    expect(device.figures.origin).toBe('assumed');
  });
  test('there is no such box', () => expect(() => makeDevice('nothing', 'device:x')).toThrow('no box "nothing"'));
});

test('a code is made free by a number', () => {
  expect([
    freeCode('DLY', []),
    freeCode('DLY', ['DLY']),
    freeCode('DLY', ['DLY', 'DLY2']),
    freeCode('ABCD', ['ABCD']),
  ]).toEqual(['DLY', 'DLY2', 'DLY3', 'ABC2']);
});
