import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { prepare } from './packages.mjs';
import { fail, root } from './say.mjs';
import { NEEDS } from './test.mjs';

/** Speeds of the core beside their references, then of the screens in a browser. */
export const bench = async () => {
  await prepare(NEEDS);
  for (const script of ['cli/dist/bench/main.js', 'scripts/screen-bench.mjs']) {
    const { status } = spawnSync(process.execPath, [join(root, script)], { stdio: 'inherit' });
    if (status !== 0) fail('A benchmark ended early; the lines above say why.');
  }
};
