import fc from 'fast-check';
import { Random } from '../../testing/random.js';
import { randomEdit } from '../../testing/random-edit.js';
import { randomRig } from '../../testing/random-rig.js';
import { deltaOf } from '../change/delta.js';
import { islandRun } from '../demo/island-run.js';
import { removeDevice } from '../edits/devices.js';
import { changeSound, setWant } from '../edits/sounds.js';
import { partOf } from '../rig/rig.js';
import { changeText, sayChange } from './change-words.js';

const rig = islandRun();
const sound = partOf(rig, 'sound:01')!;

describe('what a change makes otherwise, in words', () => {
  test('a name and a wish', () => {
    const renamed = changeSound(sound, { name: 'Opening' });
    expect(sayChange(rig, deltaOf(rig, renamed))).toEqual([
      { is: 'changed', what: 'Verse clean: name', was: 'Verse clean', now: 'Opening' },
    ]);
    expect(sayChange(rig, deltaOf(rig, setWant(sound, { control: 'device:rev.program', is: 4 })))).toEqual([
      { is: 'changed', what: 'Verse clean: REV program', was: '2.1', now: '2.2' },
    ]);
    expect(changeText(rig, 'Rename', deltaOf(rig, renamed))).toBe(
      'Rename:\nVerse clean: name: Opening (was: Verse clean)',
    );
  });
  test('what comes and goes is one thing each', () => {
    const said = sayChange(rig, deltaOf(rig, removeDevice(rig, 'device:cmp')));
    expect(said).toContainEqual({ is: 'taken away', what: 'Compressor', was: 'there', now: 'taken away' });
    expect(sayChange(rig, deltaOf(rig, { put: [{ ...sound, id: 'sound:new', name: 'Fresh' }], remove: [] }))).toEqual([
      { is: 'added', what: 'Fresh', was: 'not there', now: 'there' },
    ]);
  });
  test('every change says something, and nothing in it reads like a program', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const { rig: any } = randomRig(seed);
        const delta = deltaOf(any, randomEdit(new Random(seed), any, 'n'));
        const said = sayChange(any, delta);
        expect(said.length).toBeGreaterThanOrEqual(delta.size);
        for (const { what, was, now } of said)
          expect(`${what} ${was} ${now}`).not.toMatch(/[{}"]|undefined|null|device:|sound:/);
      }),
      { numRuns: 100 },
    ));
});
