import { apply } from '../change/apply.js';
import { emptyRig } from '../rig/rig.js';
import { CATALOGUE, generic } from './boxes.js';
import { understand } from './kit-line/kit-line.js';
import { makeDevice } from './make.js';
import { numbered } from './numbered.js';

const KEYS = [
  ...Array.from({ length: 19 }, (_, i) => `switcher-${i + 2}`),
  ...Array.from({ length: 23 }, (_, i) => `supply-${i + 2}`),
  ...Array.from({ length: 10 }, (_, i) => `contact-${i + 3}`),
  ...Array.from({ length: 15 }, (_, i) => `midi-thru-${i + 2}`),
  ...['1x8', '1x18', '2x10', '4x8', '6x10', '8x10'].map((size) => `cab-${size}`),
];

test.each(KEYS)('%s can be saved like any box of the shelves', (key) => {
  expect(numbered(key)).toBeDefined();
  const applied = apply(emptyRig(), { put: [makeDevice(key, 'device:x')], remove: [] });
  expect(applied.ok ? [] : applied.error).toEqual([]);
});
test.each(['switcher-0', 'switcher-99', 'supply-1', 'cab-4x11', 'cab-99x12', 'switcher-7b', 'nothing-3'])(
  '%s is no box',
  (key) => {
    expect(numbered(key)).toBeUndefined();
    expect(() => generic(key)).toThrow(`no box "${key}"`);
  },
);
test('what stands on a shelf is taken from there', () => {
  for (const { key } of CATALOGUE) expect(generic(key)).toBe(CATALOGUE.find((g) => g.key === key));
});
test.each([
  ['seven loop switcher', 'switcher-7', 7],
  ['5 loop switcher with midi', 'switcher-5', 5],
  ['12 output isolated power supply', 'supply-12', 12],
  ['3-button amp footswitch', 'contact-3', 3],
  ['8x10 bass cab', 'cab-8x10', 1],
  ['6 way midi thru box', 'midi-thru-6', 6],
])('%s: is asked about, and the first that is offered has the number', (say, key, n) => {
  const [first] = understand(say).heard;
  const box = first?.is === 'asked' ? first.candidates[0] : undefined;
  expect(box?.key).toBe(key);
  const outs = box?.box.jacks.filter((j) => /^(send|out\d|contact|thru|air)/.test(j.id)).length;
  expect(outs).toBe(n);
});
