import { testCheck } from '../../../testing/check-tester.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { failureLines } from '../../derive/views/fails.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { keyOf } from '../../plan/fails/failure.js';
import { singlePoints } from '../../plan/fails/single.js';
import { all } from '../../rig/rig.js';
import { judge } from '../settle.js';
import { singlePoint } from './single-point.js';

const row = {
  boxes: { g: 'single-coil', b: 'boost', a: 'combo' },
  leads: ['g.out>b.in', 'b.out>a.in'],
  sounds: { Clean: [], Loud: ['b.boost'] },
};

testCheck(singlePoint, SMALL, [
  {
    name: 'one sound alone makes nothing indispensable',
    rig: smallRig({ ...row, sounds: { Clean: [] } }),
    evidence: [],
  },
  {
    name: 'boxes and leads in a row',
    rig: smallRig(row),
    evidence: ['device:g', 'device:a', 'cable:1', 'cable:2'],
    says: 'silence every sound by failing, each alone',
    ways: [],
  },
  { name: 'nothing is wired', rig: smallRig({ ...row, leads: [] }), evidence: [] },
]);

// Two ways of finding the same: with all that is told of a failure, and without.
test.each(DEMO_RIGS.map(({ id, make }) => [id, make] as const))(
  '%s: just what silences every sound on the page of failures',
  (_, make) => {
    const rig = make();
    let found = 0;
    for (const { id } of all(rig, 'hookup')) {
      const d = deriveOnce(rig, id)!;
      const silent = failureLines(d).filter(
        ({ counts: { silent: n, ...others } }) => n > 0 && !Object.values(others).some(Boolean),
      );
      expect(singlePoints(d.compilation).map(keyOf)).toEqual(silent.map((l) => l.key));
      const [finding] = judge(d, [singlePoint]).findings;
      expect(finding === undefined).toBe(silent.length === 0);
      found += silent.length;
    }
    expect(found).toBeGreaterThan(3);
  },
);
