// Type-checks every workspace that has a tsconfig.json, two at a time.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');
const queue = ['web', 'core', 'server', 'cli', 'e2e'].filter(
  (name) => existsSync(join(root, name, 'tsconfig.json')) && existsSync(join(root, name, 'src')),
);
const check = (name) =>
  new Promise((done) => {
    const run = spawn(process.execPath, [join(root, 'node_modules/typescript/bin/tsc'), '-p', join(root, name)], {
      stdio: 'inherit',
    });
    run.on('exit', (code) => done(code ?? 1));
  });
let worst = 0;
const worker = async () => {
  for (let name = queue.shift(); name; name = queue.shift()) worst = Math.max(worst, await check(name));
};
await Promise.all([worker(), worker()]);
process.exit(worst);
