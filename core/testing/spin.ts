import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promela, wantNumbers } from '../src/prover/promela.js';
import type { RecallSystem } from '../src/prover/system.js';
import type { PlainVerdict } from './whole-states.js';

/** Runs SPIN itself on a system: exhaustive, breadth-first, so that the trail it finds is a shortest one. */
export const askSpin = (system: RecallSystem): ReadonlyMap<string, PlainVerdict> => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-spin-'));
  const run = (command: string, args: readonly string[], env: Record<string, string> = {}) =>
    execFileSync(command, args, {
      cwd: folder,
      encoding: 'utf8',
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
  try {
    writeFileSync(join(folder, 'model.pml'), promela(system));
    writeFileSync(
      join(folder, 'want.c'),
      '#include <stdlib.h>\nint want_;\n__attribute__((constructor)) static void read_want(void) { const char *w = getenv("WANT"); want_ = w ? atoi(w) : 0; }\n',
    );
    run('spin', ['-a', 'model.pml']);
    run('gcc', ['-O1', '-DSAFETY', '-DBFS', '-DNOREDUCE', '-w', '-o', 'pan', 'pan.c', 'want.c']);
    const lengthOf = (want: number): number | undefined => {
      rmSync(join(folder, 'model.pml.trail'), { force: true });
      const searched = run('./pan', ['-E', '-m1000000'], { WANT: String(want) });
      const errors = /errors: (\d+)/.exec(searched)?.[1];
      if (errors === undefined || /max search depth too small|out of memory/.test(searched))
        throw new Error(`SPIN did not finish: ${searched}`);
      if (errors === '0') return undefined;
      return (run('./pan', ['-r'], { WANT: String(want) }).match(/@E \d+/g) ?? []).length;
    };
    const verdicts = new Map<string, PlainVerdict>();
    wantNumbers(system).forEach(({ sound, variable }, i) => {
      const length = lengthOf(i + 1);
      if (variable === undefined)
        verdicts.set(
          sound,
          length === undefined ? { verdict: 'proved' } : { verdict: 'broken', length, variables: {} },
        );
      else if (length !== undefined)
        (verdicts.get(sound) as { variables: Record<string, number> }).variables[variable] = length;
    });
    return verdicts;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
};
