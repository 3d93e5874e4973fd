import fc from 'fast-check';
import { Random } from '../../testing/random.js';
import { randomEdit } from '../../testing/random-edit.js';
import { randomRig } from '../../testing/random-rig.js';
import { apply } from '../change/apply.js';
import { deltaOf, patch } from '../change/delta.js';
import { rebase, type Clash } from '../change/rebase.js';
import type { Edit } from '../change/edit.js';
import { islandRun } from '../demo/island-run.js';
import { removeDevice } from '../edits/devices.js';
import { changeSound, setWant } from '../edits/sounds.js';
import { all, everyPart, partOf, type Part, type Rig } from '../rig/rig.js';
import { sayClash } from './clash-words.js';

const rig = islandRun();
const sound = partOf(rig, 'sound:01')!;
const clashOf = (on: Rig, mine: Edit, theirs: Edit): readonly Clash[] => {
  const over = rebase(deltaOf(on, mine), deltaOf(on, theirs));
  return over.ok ? [] : over.error;
};
const put = (part: Part): Edit => ({ put: [part], remove: [] });
const said = (mine: Edit, theirs: Edit) => clashOf(rig, mine, theirs).map((c) => sayClash(rig, c));

describe('two changes of the same thing, in words', () => {
  test('a wish as the box shows it', () => {
    expect(
      said(
        setWant(sound, { control: 'device:rev.program', is: 4 }),
        setWant(sound, { control: 'device:rev.program', is: 8 }),
      ),
    ).toEqual([{ what: 'Verse clean: REV program', was: '2.1', mine: '2.2', theirs: '3.3' }]);
    expect(
      said(
        setWant(sound, { stage: 'device:cmp.compressor', is: 'out' }),
        setWant(sound, { stage: 'device:cmp.compressor', is: 'any' }),
      ),
    ).toEqual([{ what: 'Verse clean: CMP compressor', was: 'in', mine: 'out', theirs: 'any' }]);
  });
  test('a wish for one hook-up says which', () => {
    const here = (is: number) => setWant(sound, { control: 'device:rev.mix', is, in: { hookup: 'hookup:ballroom' } });
    expect(said(here(10), here(20))).toEqual([
      { what: 'Verse clean: REV mix, in Ballroom', was: 'nothing', mine: '10', theirs: '20' },
    ]);
  });
  test('names, slots and places by name', () => {
    expect(said(changeSound(sound, { name: 'Mine' }), changeSound(sound, { name: 'Theirs' }))).toEqual([
      { what: 'Verse clean: name', was: 'Verse clean', mine: 'Mine', theirs: 'Theirs' },
    ]);
    const call = (slot: number) => changeSound(sound, { calls: [{ device: 'device:swi', memory: 'slots', slot }] });
    expect(said(call(20), call(21))).toEqual([
      { what: 'Verse clean: slot', was: 'SWI 1A', mine: 'SWI 6A', theirs: 'SWI 6B' },
    ]);
    const cable = all(rig, 'cable')[0]!;
    const [clash] = said(put({ ...cable, label: 'a' }), put({ ...cable, label: 'b' }));
    expect(clash!.what).toMatch(/^Cable [A-Z]{3} \S+ to [A-Z]{3} \S+: label$/);
  });
  test('what a program holds, with its unit', () => {
    const program = partOf(rig, 'program:dly-4')!;
    const mix = (value: number) => put({ ...program, contents: { ...(program.contents as object), mix: value } });
    expect(said(mix(11), mix(12))).toEqual([
      { what: 'DLY 4 “Slap”: DLY mix', was: '22 %', mine: '11 %', theirs: '12 %' },
    ]);
  });
  test('a part that is gone, by what it was called', () => {
    const [clash] = clashOf(
      rig,
      put({ ...partOf(rig, 'program:dly-4')!, name: 'Mine' }),
      removeDevice(rig, 'device:dly'),
    );
    const without = patch(rig, deltaOf(rig, removeDevice(rig, 'device:dly')));
    expect(sayClash(without, clash!, partOf(rig, 'program:dly-4')!)).toEqual({
      what: 'Program 4 “Slap”',
      was: 'kept',
      mine: 'kept',
      theirs: 'taken away',
    });
  });
  test('a part that somebody renamed, by the name that the person knew', () => {
    const [clash] = clashOf(rig, changeSound(sound, { name: 'Mine' }), changeSound(sound, { name: 'Theirs' }));
    const renamed = patch(rig, deltaOf(rig, changeSound(sound, { name: 'Theirs' })));
    expect(sayClash(renamed, clash!, sound).what).toBe('Verse clean: name');
  });
  test('a list that is long and a text that is long are cut', () => {
    const [clash] = said(changeSound(sound, { name: 'x'.repeat(400) }), changeSound(sound, { name: 'y' }));
    expect(clash!.mine).toBe(`${'x'.repeat(160)}…`);
  });

  test('whatever clashes in random rigs is said without braces, quotes or ids', () => {
    let count = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const { rig: first } = randomRig(seed);
        const later = (tag: string, r: Random): Rig => {
          let now = first;
          for (let i = 0; i < 5; i += 1) {
            const applied = apply(now, randomEdit(r, now, `${tag}${i}`));
            if (applied.ok) now = applied.value.rig;
          }
          return now;
        };
        const [mine, theirs] = [later('m', new Random(seed)), later('t', new Random(seed + 11))];
        const between = (to: Rig): Edit => ({
          put: everyPart(to),
          remove: everyPart(first)
            .filter((p) => !partOf(to, p.id))
            .map((p) => p.id),
        });
        for (const clash of clashOf(first, between(mine), between(theirs))) {
          const {
            what,
            was,
            mine: yours,
            theirs: others,
          } = sayClash(theirs, clash, partOf(first, clash.part) as Part | undefined);
          expect(
            [what, was, yours, others].filter(
              (text) => text === '' || /[{}"[\]]|device:|sound:|undefined|null|object/.test(text),
            ),
          ).toEqual([]);
          expect(yours).not.toBe(others);
          count += 1;
        }
      }),
      { numRuns: 300, seed: 7 },
    );
    expect(count).toBeGreaterThan(40);
  });
});
