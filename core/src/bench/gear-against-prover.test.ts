import { often } from '../../testing/often.js';
import { randomGear } from '../../testing/random-gear.js';
import { Random } from '../../testing/random.js';
import { proveRig, replayAll, walk } from '../../testing/walk.js';

const RIGS = often(100);
const STOMPS = 60;
const PER_TEST = 50;
/** States of a cone: these rigs are small, and those that are not are left undecided. */
const BUDGET = 3_000;

describe('prover and bench, on boxes that do all that boxes can', () => {
  test.each(Array.from({ length: RIGS / PER_TEST }, (_, i) => i * PER_TEST + 1))(
    `from seed %i: ${PER_TEST} rigs, ${STOMPS} random stomps each`,
    (first) => {
      for (let seed = first; seed < first + PER_TEST; seed += 1) {
        const { rig, hookup } = randomGear(seed);
        const proved = proveRig(rig, hookup, BUDGET);
        expect({ seed, ...walk(proved, new Random(seed), STOMPS), recalls: 0 }).toEqual({
          seed,
          contradictions: [],
          recalls: 0,
        });
        expect({ seed, ...replayAll(proved), replayed: 0 }).toEqual({ seed, contradictions: [], replayed: 0 });
      }
    },
  );
  test('a bank is selected only on the channel that a box answers on now, which programs move: a long walk on such a board', () => {
    const { rig, hookup } = randomGear(80);
    expect(walk(proveRig(rig, hookup, BUDGET), new Random(80), 5_000).contradictions).toEqual([]);
  });
});
