import { PRACTICE } from '../../../testing/practice.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { all, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { failsOf } from './fails.js';
import { failuresSheet } from './failures-sheet.js';

const failsIn = (rig: Rig) => all(rig, 'hookup').flatMap((h) => failsOf(deriveOnce(rig, h.id)!));

test.each([...DEMO_RIGS.map((r) => [r.id, r.make()] as const), ...PRACTICE.map((p) => [p.file, p.rig] as const)])(
  '%s: whatever silences a sound stands on the sheet once, with its way out and with the caution that belongs to it',
  (_, rig) => {
    for (const hookup of all(rig, 'hookup')) {
      const fails = failsOf(deriveOnce(rig, hookup.id)!);
      const { rows, cautions } = failuresSheet(fails);
      const silencing = fails.filter((f) =>
        f.sounds.some((s) => ['silent', 'partly silent', 'not called'].includes(s.is)),
      );
      expect(rows.flatMap((r) => r.keys).sort()).toEqual(silencing.map((f) => f.key).sort());
      for (const row of rows)
        for (const key of row.keys) {
          const { says, way, needs } = fails.find((f) => f.key === key)!;
          expect(row).toMatchObject({ lost: says });
          expect(row.heed === undefined ? undefined : cautions[row.heed - 1]).toBe(way?.caution);
          expect(row.then).toBe(way?.says);
          if (row.keys.length === 1 && !row.what.startsWith('A lead breaks'))
            expect(row.hands).toBe(way ? way.steps.join(' ') : needs);
        }
    }
  },
);

test('a speaker lead and a supply lead that break keep their caution; a lead of a pedal is put in its place without a word', () => {
  const { rows, cautions } = failuresSheet(failsIn(PRACTICE.find((p) => p.file === 'rack-panel-multicore')!.rig));
  const heeded = (what: RegExp) => {
    const { heed } = rows.find((r) => what.test(r.what))!;
    return heed === undefined ? undefined : cautions[heed - 1];
  };
  expect(heeded(/^A lead breaks.*speaker/)).toContain('Switch the amp off');
  expect(rows.filter((r) => r.what.startsWith('A lead breaks')).some((r) => r.heed === undefined)).toBe(true);
});
