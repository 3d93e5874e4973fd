import { isRecord } from '../known/keys.js';
import equal from 'fast-deep-equal';
import fc from 'fast-check';
import { Random } from '../../testing/random.js';
import { randomEdit } from '../../testing/random-edit.js';
import { randomRig } from '../../testing/random-rig.js';
import { makeDevice } from '../catalogue/make.js';
import { islandRun } from '../demo/island-run.js';
import { removeDevice } from '../edits/devices.js';
import { setWant } from '../edits/sounds.js';
import { everyPart, partOf, type Part, type Rig } from '../rig/rig.js';
import type { Tick } from '../rig/show.js';
import type { Sound } from '../rig/sound.js';
import { apply } from './apply.js';
import { deltaOf, editOf, invert, patch, sizeOf, squash, type Delta } from './delta.js';
import type { Edit } from './edit.js';
import { insist, rebase } from './rebase.js';

const seed = fc.integer({ min: 1, max: 1_000_000 });
/** Parts by id; the order of their fields does not matter. */
const parts = (rig: Rig) => Object.fromEntries(everyPart(rig).map((p) => [p.id, p]));

/** Deltas of a few gestures made one after the other from the same rig. */
const gestures = (rig: Rig, r: Random, tag: string, most: number): { rig: Rig; deltas: Delta[] } => {
  const deltas: Delta[] = [];
  let now = rig;
  for (let i = 0; i < r.int(1, most); i += 1) {
    const applied = apply(now, randomEdit(r, now, `${tag}${i}`));
    if (!applied.ok) continue;
    now = applied.value.rig;
    deltas.push(applied.value.delta);
  }
  return { rig: now, deltas };
};

describe('laws of change', () => {
  test('apply, then invert, is the identity', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const { rig: later, deltas } = gestures(rig, new Random(s), 'a', 5);
        const back = deltas.reduceRight<Rig>((now, delta) => {
          const applied = apply(now, editOf(invert(delta)));
          if (!applied.ok) throw new Error(JSON.stringify(applied.error));
          return applied.value.rig;
        }, later);
        expect(parts(back)).toEqual(parts(rig));
      }),
      { numRuns: 60 },
    ));

  test('squash equals one after the other', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const { rig: later, deltas } = gestures(rig, new Random(s), 'a', 6);
        expect(parts(patch(rig, squash(deltas)))).toEqual(parts(later));
        expect(parts(patch(later, invert(squash(deltas))))).toEqual(parts(rig));
      }),
      { numRuns: 60 },
    ));

  test('two people: both orders give the same rig, or the later is refused and shown', () => {
    let merged = 0;
    let shown = 0;
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const mine = squash(gestures(rig, new Random(s), 'mine', 3).deltas);
        const theirs = squash(gestures(rig, new Random(s + 7), 'theirs', 3).deltas);
        const over = rebase(mine, theirs);
        const under = rebase(theirs, mine);
        expect(over.ok).toBe(under.ok);
        if (!over.ok || !under.ok) {
          shown += 1;
          return;
        }
        const one = apply(patch(rig, theirs), editOf(over.value));
        const other = apply(patch(rig, mine), editOf(under.value));
        expect(one.ok).toBe(other.ok);
        if (one.ok && other.ok) {
          merged += 1;
          expect(parts(one.value.rig)).toEqual(parts(other.value.rig));
        } else shown += 1;
      }),
      { numRuns: 150, seed: 20 },
    );
    expect(merged).toBeGreaterThan(30);
    expect(shown).toBeGreaterThan(3);
  });

  /** What others changed and changed back again asks only when it is met step by step. */
  test('rebase over several deltas is rebase over one after the other, and asks in the same cases', () => {
    let merged = 0;
    let asked = 0;
    let askedAlike = 0;
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const mine = squash(gestures(rig, new Random(s), 'mine', 3).deltas);
        const theirs = gestures(rig, new Random(s + 11), 'theirs', 4).deltas;
        const atOnce = rebase(mine, squash(theirs));
        let stepwise = rebase(mine, new Map());
        for (const delta of theirs) if (stepwise.ok) stepwise = rebase(stepwise.value, delta);
        const now = patch(rig, squash(theirs));
        if (!stepwise.ok) {
          asked += 1;
          const differsStill = stepwise.error.some(({ part, field, base, mine: wanted }) => {
            const stands = partOf(now, part) as Readonly<Record<string, unknown>> | undefined;
            return (
              field !== undefined && stands && field in stands && ![base, wanted].some((v) => equal(v, stands[field]))
            );
          });
          if (differsStill) {
            askedAlike += 1;
            expect(atOnce.ok).toBe(false);
          }
          return;
        }
        expect(atOnce.ok).toBe(true);
        if (!atOnce.ok) return;
        merged += 1;
        expect(parts(patch(now, atOnce.value))).toEqual(parts(patch(now, stepwise.value)));
      }),
      { numRuns: 200, seed: 31 },
    );
    expect(merged).toBeGreaterThan(60);
    expect(asked).toBeGreaterThan(3);
    expect(askedAlike).toBeGreaterThan(0);
  });

  test('rebase never loses an edit silently: every field I changed is mine, theirs alike, or a clash', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig } = randomRig(s);
        const mine = squash(gestures(rig, new Random(s), 'mine', 4).deltas);
        const theirs = squash(gestures(rig, new Random(s + 3), 'theirs', 4).deltas);
        const over = rebase(mine, theirs);
        if (!over.ok) {
          expect(over.error.length).toBeGreaterThan(0);
          return;
        }
        const merged = patch(patch(rig, theirs), over.value);
        for (const [id, { before, after }] of mine) {
          const now = partOf(merged, id) as Part | undefined;
          if (!after) expect(now).toBeUndefined();
          else
            for (const key of Object.keys(after) as (keyof Part)[]) {
              if (equal(before?.[key], after[key]) || Array.isArray(after[key])) continue;
              // A record is merged member by member: those that I changed are mine.
              const [was, wish, is] = [before?.[key], after[key], now?.[key]].map((v) => (isRecord(v) ? v : undefined));
              if (!wish) expect(now?.[key]).toEqual(after[key]);
              else
                for (const member of Object.keys(wish))
                  if (!equal(was?.[member], wish[member])) expect(is?.[member]).toEqual(wish[member]);
            }
        }
      }),
      { numRuns: 100 },
    ));
});

describe('rebase merges what can be merged and asks about the rest', () => {
  const rig = islandRun();
  const sound = partOf(rig, 'sound:01')!;
  const change = (part: Part): Delta => new Map([[part.id, { before: partOf(rig, part.id) as Part, after: part }]]);
  const want = (value: number): Sound => ({
    ...sound,
    wants: sound.wants.map((w) =>
      'control' in w && w.control === 'device:rev.program' ? { control: w.control, is: value } : w,
    ),
  });

  test('another field of the same sound', () => {
    const merged = rebase(change({ ...sound, name: 'Mine' }), change({ ...sound, role: 'lead' }));
    expect(merged.ok && merged.value.get('sound:01')!.after).toMatchObject({ name: 'Mine', role: 'lead' });
  });

  test('another cell of the same row', () => {
    const other: Sound = { ...sound, wants: [...sound.wants, { control: 'device:mod.mix', is: 10 }] };
    const merged = rebase(change(want(8)), change(other));
    const wants = merged.ok ? (merged.value.get('sound:01')!.after as Sound).wants : [];
    expect(wants).toContainEqual({ control: 'device:rev.program', is: 8 });
    expect(wants).toContainEqual({ control: 'device:mod.mix', is: 10 });
  });

  test('the same cell asks with all three values', () => {
    const clash = rebase(change(want(8)), change(want(4)));
    expect(clash.ok ? [] : clash.error).toEqual([
      {
        part: 'sound:01',
        field: 'wants.device:rev.program {}',
        base: { control: 'device:rev.program', is: 3 },
        mine: { control: 'device:rev.program', is: 8 },
        theirs: { control: 'device:rev.program', is: 4 },
      },
    ]);
  });

  test('two technicians who tick off one slot: other lines merge, the same line is ticked once, by the first; ticked against taken back asks', () => {
    const ticks = (lines: Tick['lines']): Tick => ({
      kind: 'tick',
      id: 'tick:dly-programs-4',
      device: 'device:dly',
      memory: 'programs',
      number: 4,
      lines,
    });
    const [ana, ben] = [
      { by: 'Ana', revision: 1, when: '2026-01-01T10:00:00Z' },
      { by: 'Ben', revision: 1, when: '2026-01-01T10:00:05Z' },
    ];
    const new_ = (lines: Tick['lines']): Delta =>
      new Map([['tick:dly-programs-4', { before: null, after: ticks(lines) }]]);
    for (const [mine, theirs] of [
      [ana, ben],
      [ben, ana],
    ] as const) {
      const merged = rebase(new_({ 'mix 30': mine, name: mine }), new_({ 'mix 30': theirs, on: theirs }));
      expect(merged.ok && merged.value.get('tick:dly-programs-4')!.after).toEqual(
        ticks({ 'mix 30': ana, name: mine, on: theirs }),
      );
    }
    const taken = rebase(
      new Map([['tick:dly-programs-4', { before: ticks({ on: ana }), after: ticks({}) }]]),
      new Map([['tick:dly-programs-4', { before: ticks({ on: ana }), after: ticks({ on: ben }) }]]),
    );
    expect(taken.ok ? [] : taken.error.map((c) => c.field)).toEqual(['lines.on']);
  });

  test('who insists has their way where both changed the same, and nowhere else', () => {
    const now = patch(rig, change({ ...want(4), name: 'Theirs', role: 'lead' }));
    const insisted = apply(now, insist(change({ ...want(8), name: 'Mine', leaving: 'cut' }), now));
    expect(insisted.ok && partOf(insisted.value.rig, 'sound:01')).toEqual({
      ...want(8),
      name: 'Mine',
      role: 'lead',
      leaving: 'cut',
    });
    const without = patch(rig, new Map([['sound:01', { before: sound, after: null }]]));
    expect(insist(change({ ...sound, name: 'Mine' }), without)).toEqual({
      put: [{ ...sound, name: 'Mine' }],
      remove: [],
    });
    expect(insist(new Map([['sound:01', { before: sound, after: null }]]), now)).toEqual({
      put: [],
      remove: ['sound:01'],
    });
  });

  test('to insist on what does not clash is to rebase it', () =>
    fc.assert(
      fc.property(seed, (s) => {
        const { rig: first } = randomRig(s);
        const mine = squash(gestures(first, new Random(s), 'mine', 3).deltas);
        const theirs = squash(gestures(first, new Random(s + 5), 'theirs', 3).deltas);
        const over = rebase(mine, theirs);
        fc.pre(over.ok);
        const now = patch(first, theirs);
        expect(parts(patch(now, deltaOf(now, insist(mine, now))))).toEqual(
          parts(patch(now, over.ok ? over.value : new Map())),
        );
      }),
      { numRuns: 80 },
    ));

  test('one takes the box away while the other plugs a cable into it: the invariant refuses the later', () => {
    const removed = apply(rig, removeDevice(rig, 'device:pre'));
    const plugged = apply(rig, {
      put: [{ kind: 'cable', id: 'cable:x', hookup: 'hookup:ballroom', ends: ['device:pre.dc', 'device:sup.out10'] }],
      remove: [],
    });
    if (!removed.ok || !plugged.ok) throw new Error('both are right by themselves');
    const over = rebase(plugged.value.delta, removed.value.delta);
    const later = over.ok && apply(removed.value.rig, editOf(over.value));
    expect(later && !later.ok && later.error[0]).toMatchObject({
      code: 'reference',
      part: 'cable:x',
      wrong: expect.stringContaining('device:pre'),
    });
  });
});

describe('what can never be saved is refused with the part, the fault and the way out', () => {
  const rig = islandRun();
  const refusal = (part: Part) => {
    const applied = apply(rig, { put: [part], remove: [] });
    return applied.ok ? undefined : applied.error[0];
  };
  const sound = partOf(rig, 'sound:01')!;
  test.each<[string, Part, string]>([
    [
      'a cable to no jack',
      { kind: 'cable', id: 'cable:x', hookup: 'hookup:ballroom', ends: ['device:cmp.nowhere', 'device:gat.in'] },
      'has no jack "nowhere"',
    ],
    [
      'a cable to no box',
      { kind: 'cable', id: 'cable:x', hookup: 'hookup:ballroom', ends: ['device:ghost.in', 'device:gat.in'] },
      'device:ghost, which is not in the rig',
    ],
    [
      'a second plug in a jack',
      { kind: 'cable', id: 'cable:x', hookup: 'hookup:ballroom', ends: ['device:cmp.in', 'device:gat.dc'] },
      'holds a plug already',
    ],
    [
      'both ends in one jack',
      { kind: 'cable', id: 'cable:x', hookup: 'hookup:ballroom', ends: ['device:cmp.dc', 'device:cmp.dc'] },
      'Both ends',
    ],
    [
      'a program beyond the memory',
      {
        kind: 'program',
        id: 'program:x',
        device: 'device:dly',
        memory: 'programs',
        number: 128,
        name: 'x',
        contents: {},
        acts: [],
        assigns: [],
      },
      'beyond the 128',
    ],
    [
      'a program number twice',
      {
        kind: 'program',
        id: 'program:x',
        device: 'device:dly',
        memory: 'programs',
        number: 4,
        name: 'x',
        contents: {},
        acts: [],
        assigns: [],
      },
      'is there already',
    ],
    ['a value outside its range', { ...sound, wants: [{ control: 'device:swi.trim', is: 40 }] }, '40 is outside'],
    ['a want on no control', { ...sound, wants: [{ control: 'device:swi.nothing', is: 1 }] }, 'is not a control'],
    [
      'the same want twice',
      {
        ...sound,
        wants: [
          { stage: 'device:cmp.compressor', is: 'in' },
          { stage: 'device:cmp.compressor', is: 'out' },
        ],
      },
      'wanted twice',
    ],
    [
      'a slot that is taken',
      { ...sound, calls: [{ device: 'device:swi', memory: 'slots', slot: 1 }] },
      'holds "Chorus crunch" already',
    ],
    [
      'one slot called twice',
      {
        ...sound,
        calls: [
          { device: 'device:swi', memory: 'slots', slot: 20 },
          { device: 'device:swi', memory: 'slots', slot: 20 },
        ],
      },
      'calls the same slot twice',
    ],
    ['a sound derived from itself', { ...sound, parent: 'sound:01' }, 'derived from itself'],
    [
      'a chain to no jack',
      { ...makeDevice('boost', 'device:new'), chains: [{ id: 'c', from: [{ at: 'gone' }], slots: [], to: [] }] },
      '"gone" is not a jack',
    ],
    [
      'two jacks of one name',
      {
        ...makeDevice('boost', 'device:new'),
        jacks: [...makeDevice('boost', 'device:new').jacks, makeDevice('boost', 'device:new').jacks[0]!],
      },
      'there twice',
    ],
    ['an id of another kind', { ...sound, id: 'device:s' } as unknown as Part, 'cannot have the id'],
    ['an id that is none', { ...sound, id: 'Sound One' } as unknown as Part, 'is not an id'],
  ])('%s', (_, part, text) => {
    const found = refusal(part);
    expect(found?.wrong).toContain(text);
    expect(found?.would).toMatch(/\w+/);
    expect(found?.part).toBeDefined();
  });

  test('nothing is half applied: one wrong part refuses the whole edit', () => {
    const applied = apply(rig, {
      put: [
        { ...sound, name: 'New' },
        { ...sound, id: 'sound:02', wants: [{ control: 'device:swi.trim', is: 99 }] },
      ],
      remove: [],
    });
    expect(applied.ok).toBe(false);
    expect(partOf(rig, 'sound:01')!.name).toBe('Verse clean');
  });
});

describe('how much a change is', () => {
  const rig = islandRun();
  const size = (edit: Edit): number => sizeOf(deltaOf(rig, edit));
  const sound = partOf(rig, 'sound:04')!;
  const box = partOf(rig, 'device:dly')!;
  test('nothing, one value, one wish, a whole part', () => {
    expect(size({ put: [sound], remove: [] })).toBe(0);
    expect(size({ put: [{ ...sound, name: 'Another' }], remove: [] })).toBe(1);
    expect(size(setWant(sound, { control: 'device:swi.trim', is: 1 }))).toBe(1);
    expect(size(setWant(sound, { control: 'device:rev.mix', is: 1 }))).toBe(2);
    expect(size({ put: [{ ...box, midi: { ...box.midi!, channel: 9 } }], remove: [] })).toBe(1);
    expect(size({ put: [], remove: ['sound:04'] })).toBeGreaterThan(10);
  });
  test('there and back again are as much, and a change on a change is no more than both together', () =>
    fc.assert(
      fc.property(fc.string(), fc.integer({ min: -6, max: 6 }), (name, trim) => {
        const one = deltaOf(rig, { put: [{ ...sound, name }], remove: [] });
        const both = deltaOf(rig, {
          put: [{ ...(setWant(sound, { control: 'device:swi.trim', is: trim }).put[0] as typeof sound), name }],
          remove: [],
        });
        expect(sizeOf(invert(both))).toBe(sizeOf(both));
        expect(sizeOf(both)).toBeLessThanOrEqual(sizeOf(one) + 1);
      }),
    ));
});
