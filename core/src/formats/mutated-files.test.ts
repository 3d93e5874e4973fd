import { often } from '../../testing/often.js';
import { everythingOf } from '../../testing/everything-of.js';
import { FAILURES } from '../../testing/failures.js';
import { mutated, type Json } from '../../testing/mutations.js';
import { Random } from '../../testing/random.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { readRigFile, writeRigFile } from './rig-file.js';

const FILES = often(200);

const documents = [...FAILURES.map((f) => f.rig), ...DEMO_RIGS.map((d) => d.make())].map(
  (rig) => JSON.parse(writeRigFile(rig)) as Json,
);

test(
  `${FILES} rig files that were mangled: each is read and judged, or refused with place and reason`,
  () => {
    const crashed: string[] = [];
    let judged = 0;
    for (let seed = 0; seed < FILES; seed += 1) {
      const r = new Random(seed);
      const text = JSON.stringify(mutated(r, r.pick(documents), 2));
      try {
        const read = readRigFile(text);
        if (read.ok) {
          judged += 1;
          everythingOf(read.value);
        } else
          for (const { where, part, wrong, would } of read.error)
            if (!(where || part) || !wrong || !would)
              throw new Error(`refused without place or reason: ${JSON.stringify(read.error)}`);
      } catch (e) {
        crashed.push(`${seed}: ${(e as Error).stack?.split('\n').slice(0, 4).join(' ')}`);
      }
    }
    expect(crashed).toEqual([]);
    expect(judged).toBeGreaterThan(FILES / 5);
  },
  FILES * 200,
);
