import { often } from '../../../testing/often.js';
import { giantRig } from '../../../testing/giant-rig.js';
import { Random } from '../../../testing/random.js';
import { randomEdit } from '../../../testing/random-edit.js';
import { randomRig } from '../../../testing/random-rig.js';
import { apply } from '../../change/apply.js';
import { tickLine } from '../../edits/line-checks.js';
import { deriveOnce, Deriver, type Derived } from './deriver.js';

const WALKS = often(15);
const EDITS = 8;

const comparable = (d: Derived) => ({
  wants: [...d.compilation.sounds].map(([id, c]) => [id, c.wants, c.stored, c.hand, c.problems]),
  system: d.modelled.system,
  verdicts: [...d.verdicts].map(([id, v]) => [id, v.is === 'broken' ? v.wrong.map((w) => [w.variable, w.length]) : v]),
  findings: d.judgement.findings.map((f) => [f.code, f.fingerprint, f.why]),
});

const walkOver = (seed: number, { rig: first, hookup }: ReturnType<typeof randomRig>): void => {
  const r = new Random(seed);
  const deriver = new Deriver();
  let rig = first;
  for (let i = 0; i < EDITS; i += 1) {
    expect(comparable(deriver.derive(rig, hookup.id)!)).toEqual(comparable(deriveOnce(rig, hookup.id)!));
    const applied = apply(rig, randomEdit(r, rig, `e${i}`));
    if (applied.ok) rig = applied.value.rig;
  }
};

describe('an incremental result equals the one from scratch', () => {
  test.each(Array.from({ length: WALKS }, (_, i) => i + 1))('seed %i', (seed) => walkOver(seed, randomRig(seed)));
  test.each([1, 2, 3])('on a rig with many moves and programs too, seed %i', (seed) =>
    walkOver(seed, giantRig(seed, { sounds: 10, pedals: 3, midi: 3, moves: 8 })),
  );
});

test('a line that is ticked before a gig makes nothing again', () => {
  const { rig, hookup } = giantRig();
  const deriver = new Deriver();
  const before = deriver.derive(rig, hookup.id)!;
  const ticked = apply(rig, tickLine(hookup, '2026-05-31', 'Stage', { by: 'Ada', when: '2026-05-31T17:00:00Z' }));
  if (!ticked.ok) throw new Error('not ticked');
  const after = deriver.derive(ticked.value.rig, hookup.id)!;
  expect([after.anatomy === before.anatomy, after.judgement === before.judgement]).toEqual([true, true]);
});

test('what did not change is not made again', () => {
  const { rig, hookup } = randomRig(5);
  const deriver = new Deriver();
  const before = deriver.derive(rig, hookup.id)!;
  const renamed = apply(rig, {
    put: [{ kind: 'logEntry', id: 'logEntry:1', when: '2026-01-01', text: 'new strings', about: [] }],
    remove: [],
  });
  const after = deriver.derive(renamed.ok ? renamed.value.rig : rig, hookup.id)!;
  expect(after.verdicts).toBe(before.verdicts);
  expect(after.anatomy).toBe(before.anatomy);
  expect(deriver.derive(rig, 'hookup:none')).toBeUndefined();
});
