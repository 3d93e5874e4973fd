import { after } from '../../testing/after.js';
import { giantRig } from '../../testing/giant-rig.js';
import { randomEdit } from '../../testing/random-edit.js';
import { randomRig } from '../../testing/random-rig.js';
import { Random } from '../../testing/random.js';
import { apply } from '../change/apply.js';
import { editOf, invert } from '../change/delta.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { acceptFinding, withdrawAcceptance } from '../edits/findings.js';
import { everyPart, partOf, type Rig } from '../rig/rig.js';
import { SEVERITIES } from './check.js';
import { CHECKS } from './index.js';

const RIGS = 80;

/**
 * Rigs as people have them, and as they are in the middle of being changed: cables pulled, boxes gone, sounds half
 * said.
 */
const inTheMaking = (seed: number): { readonly rig: Rig; readonly hookup: `hookup:${string}` } => {
  const { rig: first, hookup } = randomRig(seed);
  const r = new Random(seed);
  let rig = first;
  for (let i = 0; i < 5; i += 1) {
    const applied = apply(rig, randomEdit(r, rig, `m${i}`));
    if (applied.ok && partOf(applied.value.rig, hookup.id)) rig = applied.value.rig;
  }
  return { rig, hookup: hookup.id };
};

const judged: readonly Derived[] = [
  ...Array.from({ length: RIGS }, (_, i) => inTheMaking(i + 1)).flatMap(
    ({ rig, hookup }) => deriveOnce(rig, hookup) ?? [],
  ),
  ...DEMO_RIGS.flatMap(({ make }) => [...make().parts.hookup.keys()].map((h) => deriveOnce(make(), h)!)),
];
const findings = judged.flatMap((d) => d.judgement.findings.map((f) => ({ d, f })));

describe('what holds for every finding, on random rigs in the making and on the rigs that ship', () => {
  test('no check ever fails, and many kinds of finding were met', () => {
    expect(judged.flatMap((d) => d.judgement.faults)).toEqual([]);
    expect(new Set(findings.map(({ f }) => f.code)).size).toBeGreaterThan(15);
  });
  test('where two boxes share a name, a finding of the wiring names each by its code too; and no internal id is ever shown', () => {
    let shared = 0;
    for (const { d, f } of findings) {
      expect(f.why).not.toMatch(/device:|cable:|sound:|hookup:|#[a-z]/);
      if (!f.code.startsWith('wire.') && !f.code.startsWith('order.')) continue;
      const devices = [...d.rig.parts.device.values()];
      for (const { name } of devices.filter((x) => devices.some((y) => y !== x && y.name === x.name))) {
        for (const after of f.why.split(`${name} `).slice(1))
          if (!/^(and|with|that|[a-z])/.test(after)) {
            shared += 1;
            expect(`${f.code}: ${name} ${after.slice(0, 8)}`).toMatch(/ \(/);
          }
        expect(
          f.why.includes(`${name} is`) || f.why.includes(`${name} feeds`) || f.why.includes(`${name} stands`),
        ).toBe(false);
      }
    }
    expect(shared).toBeGreaterThan(0);
  });
  test('each case is found once', () => {
    for (const d of judged) {
      const prints = d.judgement.findings.map((f) => `${f.code} ${f.fingerprint}`);
      expect(new Set(prints).size).toBe(prints.length);
    }
  });
  test('evidence is there, in the rig, and a reason is a sentence', () => {
    for (const { d, f } of findings) {
      expect([f.code, f.evidence.length > 0, f.evidence.filter((id) => !partOf(d.rig, id))]).toEqual([
        f.code,
        true,
        [],
      ]);
      expect([f.code, f.why]).toEqual([f.code, expect.stringMatching(/^\S[^]*\.$/)]);
      expect(f.why).not.toMatch(/undefined|\[object|NaN|device:|sound:/);
    }
  });
  test('severities are those that the check announces, worst first', () => {
    for (const { f } of findings) expect(CHECKS.find((c) => c.code === f.code)!.severities).toContain(f.severity);
    for (const d of judged) {
      const ranks = d.judgement.findings.map((f) => SEVERITIES.indexOf(f.severity));
      expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    }
  });
  test('what a program would do can be done and taken back', () => {
    let done = 0;
    for (const { d, f } of findings) {
      for (const remedy of d.judgement.remediesOf(f)) {
        if (remedy.by === 'hand') continue;
        const applied = apply(d.rig, remedy.edit);
        expect([f.code, remedy.id, applied.ok]).toEqual([f.code, remedy.id, true]);
        if (!applied.ok) continue;
        done += 1;
        const back = after(applied.value.rig, editOf(invert(applied.value.delta)));
        expect(everyPart(back).length).toBe(everyPart(d.rig).length);
      }
    }
    expect(done).toBeGreaterThan(30);
  });
  test('dangers come with caution and nothing lifts the mains earth', () => {
    for (const { f } of findings.filter((x) => x.f.severity === 'danger'))
      expect(f.why).toMatch(/before|Switch off|licensed|overheat/);
    for (const c of CHECKS) expect(`${c.title} ${c.source}`).not.toMatch(/lift the (mains )?earth/);
  });
});

test('an accepted finding is quiet whatever its code, and comes back when it is taken back', () => {
  const byCode = new Map(findings.map((x) => [x.f.code, x]));
  for (const { d, f } of byCode.values()) {
    const quiet = after(d.rig, acceptFinding('acceptance:law', d.hookup.id, f.code, f.fingerprint, 'so be it'));
    const now = deriveOnce(quiet, d.hookup.id)!.judgement.findings.find(
      (x) => x.code === f.code && x.fingerprint === f.fingerprint,
    );
    expect([f.code, now?.accepted?.reason]).toEqual([f.code, 'so be it']);
    const loud = deriveOnce(after(quiet, withdrawAcceptance('acceptance:law')), d.hookup.id)!.judgement.findings.find(
      (x) => x.code === f.code && x.fingerprint === f.fingerprint,
    );
    expect([f.code, loud?.accepted]).toEqual([f.code, undefined]);
  }
});

test('a very full rig has few findings, not one for every sound', () => {
  const { rig, hookup } = giantRig(1, { sounds: 40, pedals: 16, midi: 16, moves: 8 });
  const found = deriveOnce(rig, hookup.id)!.judgement.findings.filter((f) => f.severity !== 'note');
  expect(found.length).toBeLessThan(40);
  expect(found.find((f) => f.code === 'midi.capacity')!.why).toContain('every sound needs more');
});
