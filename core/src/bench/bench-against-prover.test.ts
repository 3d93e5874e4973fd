import { often } from '../../testing/often.js';
import { hurrying, losing, walkAstray } from '../../testing/mishaps.js';
import { Random } from '../../testing/random.js';
import { randomRig } from '../../testing/random-rig.js';
import { proveRig, replayAll, walk } from '../../testing/walk.js';
import { whatIf } from '../recall/what-if/what-if.js';

const RIGS = often(80);
const FAULTS = 60;
const STOMPS = 460;
const PER_TEST = 20;

describe('prover and bench, on rigs that share nothing but the rig itself', () => {
  test.each(Array.from({ length: RIGS / PER_TEST }, (_, i) => i * PER_TEST + 1))(
    `from seed %i: ${PER_TEST} rigs, ${STOMPS} random stomps each`,
    (first) => {
      for (let seed = first; seed < first + PER_TEST; seed += 1) {
        const { rig, hookup } = randomRig(seed);
        const proved = proveRig(rig, hookup);
        expect({ seed, ...walk(proved, new Random(seed), STOMPS), recalls: 0 }).toEqual({
          seed,
          contradictions: [],
          recalls: 0,
        });
        expect({ seed, ...replayAll(proved), replayed: 0 }).toEqual({ seed, contradictions: [], replayed: 0 });
      }
    },
  );
});

describe('prover and bench, when messages are lost or feet are hasty', () => {
  test.each(Array.from({ length: RIGS / PER_TEST }, (_, i) => i * PER_TEST + 1))(
    `from seed %i: ${PER_TEST} rigs, ${2 * FAULTS} faults each`,
    (first) => {
      for (let seed = first; seed < first + PER_TEST; seed += 1) {
        const { rig, hookup } = randomRig(seed);
        const proved = proveRig(rig, hookup);
        for (const [about, go] of [
          ['lost message', losing],
          ['hasty feet', hurrying],
        ] as const) {
          const reply = whatIf(about, proved.compilation, proved.modelled, proved.verdicts);
          expect([seed, about, walkAstray(proved, reply, new Random(seed), FAULTS, go(reply))]).toEqual([
            seed,
            about,
            [],
          ]);
        }
      }
    },
  );
});
