import { FAILURES } from '../../../testing/failures.js';
import { SMALL } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import type { Mishap } from '../../recall/what-if/question.js';
import { QUESTIONS } from '../../recall/what-if/what-if.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';
import { answering, type WhatIfView } from './what-ifs.js';

const demo = deriveOnce(islandRun(), BALLROOM_ID)!;

const answer = (d: Derived, about: Mishap): { readonly view: WhatIfView; readonly parts: readonly number[] } => {
  const pieces = answering(d, about);
  const parts: number[] = [];
  for (;;) {
    const piece = pieces.next();
    if (piece.done) return { view: piece.value.view, parts };
    parts.push(piece.value);
  }
};

describe('what the usual proof leaves out, as the screens show it', () => {
  test.each(QUESTIONS.map((q) => q.about))(
    '%s: plain data, told piece by piece, from nothing to all of it',
    (about) => {
      const { view, parts } = answer(demo, about);
      expect(structuredClone(view)).toEqual(view);
      expect(parts[0]).toBe(0);
      expect([...parts].sort((a, b) => a - b)).toEqual(parts);
      expect(parts.at(-1)).toBeLessThanOrEqual(1);
      expect(view.undecided).toEqual([]);
    },
  );
  test('a question that fails says why, and claims nothing', () => {
    const torn = { ...demo, modelled: { ...demo.modelled, ground: { ...demo.modelled.ground, variables: [] } } };
    const { view } = answer(torn, 'late release');
    expect(view).toEqual({
      about: 'late release',
      judged: 0,
      troubles: [],
      undecided: [],
      fault: expect.stringMatching(/./),
    });
    expect(answer(torn, 'turned knob').view.fault).toBeUndefined();
  });
  test('a sound that can be called too early is told once, with the longest wait and the stomp that comes too soon last', () => {
    const { troubles } = answer(demo, 'hasty feet').view;
    expect(new Set(troubles.map((t) => t.sound)).size).toBe(troubles.length);
    expect(troubles).toHaveLength(16);
    for (const t of troubles) {
      expect(t.waitMs).toBeGreaterThan(0);
      expect(Math.ceil(t.steps.at(-1)!.afterMs!)).toBe(t.waitMs);
      expect(t.steps.at(-1)!.value).not.toBe(t.wanted);
    }
    expect(troubles.find((t) => t.name === 'Verse clean')).toMatchObject({
      slot: '1A',
      waitMs: 121,
      text: 'DLY program',
      wanted: '0',
    });
  });
  test('a switch let go late names the move, the sound that it spoils and how to get there', () => {
    const late = deriveOnce(FAILURES.find((f) => f.file.startsWith('04'))!.rig, SMALL)!;
    const [trouble] = answer(late, 'late release').view.troubles;
    expect(trouble).toMatchObject({ move: 'Lift', name: 'Chorus', text: 'DLY mix', wanted: '45 %' });
    expect(trouble!.steps.map((s) => s.text)).toEqual([
      'Power up',
      'Press Lift',
      'Stomp Chorus, 1B, then let go of Lift',
    ]);
    expect(trouble!.steps.at(-1)!.value).toBe('30 %');
  });
  test('a want that is wrong without any mishap is not told again', () => {
    const known = new Map(
      [...demo.verdicts].map(([id, v]) => [id, v.is === 'broken' ? v.wrong.map((w) => w.variable) : []]),
    );
    for (const { about } of QUESTIONS.filter((q) => q.about !== 'first press')) {
      for (const t of answer(demo, about).view.troubles) expect(known.get(t.sound)).not.toContain(t.control);
    }
  });
});
