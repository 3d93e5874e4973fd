import { often } from '../../testing/often.js';
import { Random } from '../../testing/random.js';
import { randomCalledModeller, randomModeller } from '../../testing/random-modeller.js';
import { SMALL } from '../../testing/small-rig.js';
import { proveRig, replayAll, walk } from '../../testing/walk.js';
import { partOf } from '../rig/rig.js';

const RIGS = often(60);
const STOMPS = 460;
const PER_TEST = 20;

describe.each([
  ['call their own presets and scenes', randomModeller],
  ['a controller calls by preset and scene', randomCalledModeller],
])('prover and bench, on boxes that %s', (_, randomRig) => {
  let recalls = 0;
  test.each(Array.from({ length: RIGS / PER_TEST }, (_, i) => i * PER_TEST + 1))(
    `from seed %i: ${PER_TEST} rigs, ${STOMPS} random stomps each`,
    (first) => {
      for (let seed = first; seed < first + PER_TEST; seed += 1) {
        const rig = randomRig(seed);
        const proved = proveRig(rig, partOf(rig, SMALL)!);
        const walked = walk(proved, new Random(seed), STOMPS);
        expect({ seed, contradictions: walked.contradictions }).toEqual({ seed, contradictions: [] });
        expect({ seed, ...replayAll(proved), replayed: 0 }).toEqual({ seed, contradictions: [], replayed: 0 });
        recalls += walked.recalls;
      }
    },
  );
  test('they were recalled often', () => expect(recalls).toBeGreaterThan(RIGS * 100));
});
