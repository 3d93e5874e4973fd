import fc from 'fast-check';
import { often } from '../../testing/often.js';
import { Random } from '../../testing/random.js';
import { randomEdit } from '../../testing/random-edit.js';
import { randomRig } from '../../testing/random-rig.js';
import { islandRun } from '../demo/island-run.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { MOST_ORIGINS } from '../rig/limits.js';
import { ABOUT, everyPart, partOf, rigOf, type Rig } from '../rig/rig.js';
import { sayDifference } from '../sheets/change-words.js';
import { apply } from './apply.js';
import { compare, taking, type Difference } from './compare.js';
import { deltaOf, editOf } from './delta.js';
import { difference } from './diff.js';
import { fingerprint, originsOf, partings, withOrigin } from './origin.js';
import { rebase } from './rebase.js';

const seed = fc.integer({ min: 1, max: 1_000_000 });
const parts = (rig: Rig) => Object.fromEntries(everyPart(rig).map((p) => [p.id, p]));

/** The same, whatever the order of members that have names of their own: merging puts new ones last. */
const inAnyOrder = (rig: Rig) =>
  JSON.parse(JSON.stringify(parts(rig)), (_, v: unknown) =>
    Array.isArray(v) && v.every((m) => typeof m === 'object' && m !== null)
      ? v.map((m) => JSON.stringify(m)).sort()
      : v,
  ) as unknown;

const changed = (rig: Rig, r: Random, tag: string): Rig => {
  let now = rig;
  for (let i = 0; i < r.int(1, 6); i += 1) {
    const applied = apply(now, randomEdit(r, now, `${tag}${i}`));
    if (applied.ok) now = applied.value.rig;
  }
  return now;
};

/** The parts as they are with an edit, whether they may be so or not. */
const withEdit = (rig: Rig, edit: ReturnType<typeof taking>): Rig =>
  rigOf([
    ...everyPart(rig).filter((p) => !edit.remove.includes(p.id) && !edit.put.some((q) => q.id === p.id)),
    ...edit.put,
  ]);

describe('two rigs compared', () => {
  test('all taken, the one is as the other; nothing taken, it is as it was', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const [mine, theirs] = [changed(rig, new Random(s), 'a'), changed(rig, new Random(s + 1), 'b')];
        const all = compare(mine, theirs);
        expect(all.every((d) => d.by === 'unknown')).toBe(true);
        expect(parts(withEdit(mine, taking(mine, theirs, all)))).toEqual(parts(theirs));
        expect(taking(mine, theirs, [])).toEqual({ put: [], remove: [] });
        expect(compare(mine, mine)).toEqual([]);
      }),
      { numRuns: often(60) },
    ));

  test('what only they changed, taken, is what two pages make of it; where two pages would ask, both changed it', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const [mine, theirs] = [changed(rig, new Random(s), 'a'), changed(rig, new Random(s + 1), 'b')];
        const all = compare(mine, theirs, rig);
        const [ours, others] = [mine, theirs].map((to) => deltaOf(rig, difference(rig, to)));
        const merged = rebase(others!, ours!);
        if (!merged.ok) return expect(all.some((d) => d.by === 'both')).toBe(true);
        const taken = all.filter((d) => d.by === 'theirs');
        expect(inAnyOrder(withEdit(mine, taking(mine, theirs, taken)))).toEqual(
          inAnyOrder(withEdit(mine, editOf(merged.value))),
        );
      }),
      { numRuns: often(60) },
    ));

  test('the other way round, mine is theirs', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const [mine, theirs] = [changed(rig, new Random(s), 'a'), changed(rig, new Random(s + 1), 'b')];
        const key = (d: Difference) => `${d.part} ${d.field ?? ''}`;
        const other = { mine: 'theirs', theirs: 'mine', both: 'both', unknown: 'unknown' } as const;
        const here = new Map(compare(mine, theirs, rig).map((d) => [key(d), d.by]));
        for (const d of compare(theirs, mine, rig)) if (here.has(key(d))) expect(here.get(key(d))).toBe(other[d.by]);
      }),
      { numRuns: often(30) },
    ));

  test('members in another order are one difference', () => {
    const rig = islandRun();
    const song = [...rig.parts.song.values()][0]!;
    const theirs = withEdit(rig, { put: [{ ...song, cues: song.cues.toReversed() }], remove: [] });
    expect(compare(rig, theirs).map(({ part, field }) => [part, field])).toEqual([[song.id, 'cues']]);
  });

  test('is said in the words of the sheets, with what both rigs call things', () => {
    const rig = islandRun();
    const device = [...rig.parts.device.values()].find((d) => d.code === 'LOW')!;
    const theirs = withEdit(rig, { put: [{ ...device, name: 'Lower drive' }], remove: [] });
    const [said] = compare(rig, theirs, rig).map((d) => sayDifference(rig, theirs, d));
    expect(said).toEqual({ what: 'Low-gain drive: name', was: device.name, mine: device.name, theirs: 'Lower drive' });
  });
});

describe('where a rig comes from', () => {
  test('a saved file knows; saved and opened by others it still does; and its own history is left out', () => {
    const rig = { ...islandRun(), revision: 7 };
    const read = readRigFile(writeRigFile(withOrigin(rig, 'mine')));
    if (!read.ok) throw new Error('unread');
    const theirs = withOrigin({ ...read.value, revision: 3 }, 'theirs');
    expect(originsOf(theirs).map(({ rig: id, revision }) => [id, revision])).toEqual([
      ['mine', 7],
      ['theirs', 3],
    ]);
    const known = [...originsOf(rig), { rig: 'mine', revision: 20, print: 'later' }];
    expect(partings(known, originsOf(theirs))).toEqual([{ rig: 'mine', revision: 7, print: fingerprint(rig) }]);
    expect(compare(rig, theirs)).toEqual([]);
  });

  test('equal rigs have equal fingerprints, whatever the order of parts and fields; unlike ones do not', () => {
    const rig = islandRun();
    const turned = rigOf(
      everyPart(rig)
        .toReversed()
        .map((p) => Object.fromEntries(Object.entries(p).toReversed()) as unknown as typeof p),
    );
    expect(fingerprint(turned)).toBe(fingerprint(rig));
    expect(fingerprint(withOrigin(rig, 'x'))).toBe(fingerprint(rig));
    const about = partOf(rig, ABOUT)!;
    expect(fingerprint(withEdit(rig, { put: [{ ...about, name: 'Other' }], remove: [] }))).not.toBe(fingerprint(rig));
  });

  test('handed round often, only the latest are remembered, each once', () => {
    let rig: Rig = islandRun();
    for (let i = 0; i < MOST_ORIGINS + 5; i += 1) rig = withOrigin(withOrigin(rig, `r${i}`), `r${i}`);
    expect(originsOf(rig)).toHaveLength(MOST_ORIGINS);
    expect(originsOf(rig).at(-1)?.rig).toBe(`r${MOST_ORIGINS + 4}`);
    expect(readRigFile(writeRigFile(rig)).ok).toBe(true);
  });
});
