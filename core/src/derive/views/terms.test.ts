import { after } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { FERRY_ID, islandRun } from '../../demo/island-run.js';
import { setHeard, setSetting, usualHeard } from '../../edits/hookups.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { termsOf } from './terms.js';

const rig = smallRig({
  boxes: { g: 'single-coil', d: 'stereo-delay', i: 'di-stereo', foh: 'desk', m: 'microphone' },
  leads: ['g.out>d.in-l', 'd.out-l>i.in-l', 'd.out-r>i.in-r', 'i.out-l>foh.ch1', 'i.out-r>foh.ch2', 'm.out>foh.ch3'],
  sounds: { Wide: ['d.delay'], Dry: [] },
});
const terms = (r: Rig) => termsOf(deriveOnce(r, SMALL)!);
const pair = (r: Rig, from: string) => terms(r).listening.find((l) => l.from === from)!;
const hookup = (r: Rig) => partOf(r, SMALL)!;

test('who is heard where, in how many sounds, and with two sides in how many', () => {
  expect(pair(rig, 'device:g.out')).toEqual({
    from: 'device:g.out',
    at: 'device:foh.#house',
    as: 'sounds',
    heard: 2,
    wide: 1,
    of: 2,
  });
  expect(pair(rig, 'device:m.out')).toEqual({
    from: 'device:m.out',
    at: 'device:foh.#house',
    heard: 2,
    wide: 0,
    of: 2,
  });
  expect(terms(rig)).toMatchObject({ usual: true, ends: [{ ref: 'device:foh.#house', is: 'house' }] });
});
test('what is said for one pair keeps what was taken for granted of the others; the usual comes back', () => {
  const said = after(
    rig,
    setHeard(hookup(rig), terms(rig).standing, { from: 'device:m.out', at: 'device:foh.#house', as: 'silent' }),
  );
  expect(hookup(said).hears).toEqual([
    { from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' },
    { from: 'device:m.out', at: 'device:foh.#house', as: 'silent' },
  ]);
  expect(terms(said).usual).toBe(false);
  const again = after(
    said,
    setHeard(hookup(said), terms(said).standing, { from: 'device:m.out', at: 'device:foh.#house', as: 'either' }),
  );
  expect(hookup(again).hears).toHaveLength(2);
  expect(terms(after(said, usualHeard(hookup(said)))).usual).toBe(true);
});
test('what is set once: as the box wakes until it is said, and again when it is taken back', () => {
  const blend = smallRig({
    boxes: { g: 'bass', s: 'bass-preamp-di', foh: 'desk' },
    leads: ['g.out>s.in', 's.xlr>foh.ch1'],
    sounds: { One: [] },
  });
  const setting = (r: Rig) => terms(r).settings.find((s) => s.control === 'device:s.cabinet');
  expect(setting(blend)).toMatchObject({ value: 'on', said: false });
  const off = after(blend, setSetting(hookup(blend), 'device:s.cabinet', 'off'));
  expect(setting(off)).toMatchObject({ value: 'off', said: true });
  expect(setting(after(off, setSetting(hookup(off), 'device:s.cabinet', undefined)))).toMatchObject({
    value: 'on',
    said: false,
  });
});
test('a hook-up without the amp hears the guitar at the desk all the same', () => {
  expect(termsOf(deriveOnce(islandRun(), FERRY_ID)!).listening.find((l) => l.as === 'sounds')).toMatchObject({
    heard: 16,
    of: 16,
  });
});
