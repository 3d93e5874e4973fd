import fc from 'fast-check';
import { Random } from '../../testing/random.js';
import { randomEdit } from '../../testing/random-edit.js';
import { randomRig } from '../../testing/random-rig.js';
import { islandRun } from '../demo/island-run.js';
import { KINDS, type AnyId } from '../rig/ids.js';
import { everyPart, partOf, type Part, type Rig } from '../rig/rig.js';
import { apply } from './apply.js';
import { deltaOf, patch } from './delta.js';
import { confirm, openSession, perform, redo, refused, settle, undo, type Journaled, type Session } from './session.js';

const must = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error).slice(0, 400));
  return r.value;
};
const rename = (rig: Rig, id: 'sound:01' | 'sound:02', name: string): { put: Part[]; remove: [] } => ({
  put: [{ ...partOf(rig, id)!, name }],
  remove: [],
});
const name = (s: Session, id: 'sound:01' | 'sound:02' = 'sound:01') => partOf(s.rig, id)!.name;
/** Parts by id; the order of their fields does not matter. */
const parts = (rig: Rig) => Object.fromEntries(everyPart(rig).map((p) => [p.id, p]));

/** As it comes over the network: the same, in other objects. */
const afresh = <T>(said: T): T => JSON.parse(JSON.stringify(said)) as T;

/** Somebody else's change, as the journal tells it. */
const others = (rig: Rig, revision: number, id: string, edit: { put: Part[]; remove: [] }): Journaled => ({
  revision,
  id,
  label: 'theirs',
  delta: deltaOf(rig, edit),
});
const acknowledged = (s: Session, revision: number): Journaled => ({
  revision,
  id: s.waiting[0]!.set.id,
  label: '',
  delta: s.waiting[0]!.delta,
});

/** Whether a part has the name that only this change gave it. */
const changedBy = (
  bad: { delta: ReadonlyMap<string, { before: unknown; after: unknown }> },
  part: { id: string },
): boolean => {
  const change = bad.delta.get(part.id);
  const [before, after] = [change?.before, change?.after] as { name?: string }[];
  return (
    before?.name !== undefined &&
    after?.name !== undefined &&
    before.name !== after.name &&
    (part as { name?: string }).name === after.name
  );
};

describe('a session', () => {
  const rig = islandRun();

  test('shows an edit at once and lets it wait until it is confirmed', () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Mine'), 'a', 'Rename'));
    expect(name(s)).toBe('Mine');
    expect(s.waiting.map((w) => w.set.base)).toEqual([0]);
    const done = confirm(s, [acknowledged(s, 1)]);
    expect(done.waiting).toEqual([]);
    expect(done.confirmed.revision).toBe(1);
    expect(name(done)).toBe('Mine');
  });

  test('two edits of the same field in a row are not taken for a clash with myself', () => {
    const one = must(perform(openSession(rig), rename(rig, 'sound:01', 'One'), 'a', ''));
    const two = must(perform(one, rename(one.rig, 'sound:01', 'Two'), 'b', ''));
    const half = confirm(two, [acknowledged(two, 1)]);
    expect(half.troubles).toEqual([]);
    expect(half.waiting.map((w) => [w.set.id, w.set.base])).toEqual([['b', 1]]);
    expect(name(half)).toBe('Two');
  });

  test("others' changes come underneath mine", () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Mine'), 'a', ''));
    const merged = confirm(s, [others(rig, 1, 'x', rename(rig, 'sound:02', 'Theirs'))]);
    expect([name(merged), name(merged, 'sound:02')]).toEqual(['Mine', 'Theirs']);
    expect(merged.waiting[0]!.set.base).toBe(1);
  });

  test('the same field becomes a trouble with both values; the rig shows theirs until it is settled', () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Mine'), 'a', ''));
    const asked = confirm(s, [others(rig, 1, 'x', rename(rig, 'sound:01', 'Theirs'))]);
    expect(name(asked)).toBe('Theirs');
    expect(asked.troubles[0]!.clashes).toEqual([
      { part: 'sound:01', field: 'name', base: 'Verse clean', mine: 'Mine', theirs: 'Theirs' },
    ]);
    expect(settle(asked, 'a').troubles).toEqual([]);
  });

  test('what the server confirms as it was sent leaves every part and every kind as it was: nobody has to look again', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const r = new Random(seed);
        let s = openSession(randomRig(seed).rig);
        for (let i = 0; i < 6; i += 1) {
          const performed = perform(s, randomEdit(r, s.rig, `e${i}`), `e${i}`, '');
          if (performed.ok) s = performed.value;
        }
        const told = s.waiting.map(({ set, delta }, i): Journaled => ({
          revision: s.confirmed.revision + i + 1,
          id: set.id,
          label: '',
          delta: new Map(afresh([...delta])),
        }));
        const first = told.slice(0, r.int(0, told.length));
        const half = confirm(s, first);
        const done = confirm(half, told);
        for (const kind of KINDS)
          expect([half.rig.parts[kind] === s.rig.parts[kind], done.rig.parts[kind] === s.rig.parts[kind]]).toEqual([
            true,
            true,
          ]);
        expect([done.waiting, done.rig.revision, done.confirmed]).toEqual([
          [],
          s.confirmed.revision + told.length,
          done.rig,
        ]);
      }),
      { numRuns: 80 },
    ));

  test('a change of somebody else makes only the part that it changes another', () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Mine'), 'a', ''));
    const merged = confirm(s, [
      others(rig, 1, 'x', {
        put: afresh([partOf(rig, 'sound:03')!, { ...partOf(rig, 'sound:02')!, name: 'Theirs' }]),
        remove: [],
      }),
    ]);
    const isOther = (id: AnyId) => partOf(merged.rig, id) !== partOf(s.rig, id);
    expect(
      everyPart(merged.rig)
        .map((p) => p.id)
        .filter(isOther),
    ).toEqual(['sound:02']);
    expect(KINDS.filter((kind) => merged.rig.parts[kind] !== s.rig.parts[kind])).toEqual(['sound']);
  });

  test('undo takes back only mine, over what came since, and redo brings it again', () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Mine'), 'a', 'Rename'));
    const merged = confirm(s, [others(rig, 1, 'x', rename(rig, 'sound:02', 'Theirs'))]);
    const back = must(undo(merged, 'u'));
    expect([name(back), name(back, 'sound:02')]).toEqual(['Verse clean', 'Theirs']);
    const again = must(redo(back, 'r'));
    expect([name(again), name(again, 'sound:02')]).toEqual(['Mine', 'Theirs']);
  });

  test('a refusal by the server becomes a trouble; undoing it lets it go', () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Mine'), 'a', ''));
    const out = refused(s, 'a', [], [{ code: 'x', wrong: 'No.', would: 'Other.' }]);
    expect(name(out)).toBe('Verse clean');
    expect(out.troubles).toHaveLength(1);
    const back = undo(out, 'u');
    expect(back.ok && [back.value.troubles, back.value.waiting, back.value.undoable]).toEqual([[], [], []]);
  });

  test('what failed does not come back with what was done after it, nor when that is undone', () => {
    const s = must(perform(openSession(rig), rename(rig, 'sound:01', 'Bad'), 'a', 'bad'));
    const later = must(perform(s, { put: [{ ...partOf(s.rig, 'sound:01')!, role: 'lead' }], remove: [] }, 'b', 'role'));
    const out = refused(later, 'a', [], [{ code: 'x', wrong: 'No.', would: 'Other.' }]);
    expect([partOf(out.rig, 'sound:01'), out.waiting.map((w) => w.set.id)]).toMatchObject([
      { name: 'Verse clean', role: 'lead' },
      ['b'],
    ]);
    const let1 = settle(out, 'a');
    expect(partOf(must(undo(let1, 'u')).rig, 'sound:01')).toEqual(partOf(rig, 'sound:01'));
  });

  test('whichever of several changes fails, the others are as if it had never been', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const r = new Random(seed);
        const first = randomRig(seed).rig;
        let s = openSession(first);
        for (let i = 0; i < 5; i += 1) {
          const done = perform(s, randomEdit(r, s.rig, `e${i}`), `e${i}`, `e${i}`);
          if (done.ok) s = done.value;
        }
        fc.pre(s.waiting.length > 1);
        const bad = r.pick(s.waiting);
        const out = refused(s, bad.set.id, [], []);
        const replayed = out.waiting.reduce((now, w) => must(apply(now, w.set)).rig, first);
        expect(parts(out.rig)).toEqual(parts(replayed));
        expect(out.waiting.length + out.troubles.length).toBe(s.waiting.length);
        for (const { set } of out.waiting) for (const part of set.put) expect(changedBy(bad, part)).toBe(false);
        let back = out.troubles.reduce((now, t) => settle(now, t.set.id), out);
        for (let i = back.undoable.length; i > 0; i -= 1) {
          const undone = undo(back, `u${i}`);
          // What the failed change had made room for may have no room now: that is said, and nothing else.
          if (!undone.ok) return void expect(undone.error.length).toBeGreaterThan(0);
          back = undone.value;
        }
        // Whoever undoes the removal of a thing gets it back, also when its making had failed.
        const inAnyOrder = (p: Part) =>
          'wants' in p
            ? { ...p, wants: [...p.wants].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1)) }
            : p;
        const but = (rig: Rig) =>
          Object.fromEntries(
            everyPart(rig)
              .filter((p) => !bad.delta.has(p.id))
              .map((p) => [p.id, inAnyOrder(p)]),
          );
        expect(but(back.rig)).toEqual(but(first));
      }),
      { numRuns: 100 },
    ));

  test('with nothing to undo it says so', () => {
    const nothing = undo(openSession(rig), 'u');
    expect(nothing.ok ? [] : nothing.error[0]).toMatchObject({ wrong: 'There is nothing to undo.' });
  });

  test('any number of gestures, undone to the last, give the first rig back; redone, the last', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const first = randomRig(seed).rig;
        const r = new Random(seed);
        let s = openSession(first);
        for (let i = 0; i < 6; i += 1) {
          const performed = perform(s, randomEdit(r, s.rig, `e${i}`), `e${i}`, '');
          if (performed.ok) s = performed.value;
        }
        const last = s.rig;
        const count = s.undoable.length;
        for (let i = 0; i < count; i += 1) s = must(undo(s, `u${i}`) as never);
        expect(parts(s.rig)).toEqual(parts(first));
        for (let i = 0; i < count; i += 1) s = must(redo(s, `r${i}`) as never);
        expect(parts(s.rig)).toEqual(parts(last));
      }),
      { numRuns: 50 },
    ));

  test('what the page shows is the confirmed rig with the waiting changes on top, whatever comes in between', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const first = randomRig(seed).rig;
        const r = new Random(seed);
        let s = openSession(first);
        let server = first;
        for (let i = 0; i < 12; i += 1) {
          if (r.chance(60)) {
            const performed = perform(s, randomEdit(r, s.rig, `m${i}`), `m${i}`, '');
            if (performed.ok) s = performed.value;
          } else {
            const applied = apply(server, randomEdit(r, server, `t${i}`));
            if (!applied.ok || applied.value.delta.size === 0) continue;
            server = applied.value.rig;
            s = confirm(s, [{ revision: server.revision, id: `t${i}`, label: '', delta: applied.value.delta }]);
          }
        }
        expect(parts(s.confirmed)).toEqual(parts(server));
        expect(parts(s.waiting.reduce((rig, w) => patch(rig, w.delta), s.confirmed))).toEqual(parts(s.rig));
      }),
      { numRuns: 80 },
    ));
});
