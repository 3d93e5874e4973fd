import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Database } from './database.mjs';
import { build, installDebian, installPackages } from './packages.mjs';
import { home, root, say } from './say.mjs';

const NEEDS = { mariadbd: 'mariadb-server', 'mariadb-install-db': 'mariadb-server', chromium: 'chromium', spin: 'spin', gcc: 'gcc libc6-dev', dot: 'graphviz', xmllint: 'libxml2-utils', midicsv: 'midicsv', '/usr/lib/python3/dist-packages/mido': 'python3-mido' };

const run = (args, env = {}) => new Promise((done) => {
  const child = spawn(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  child.on('exit', (code) => done(code === 0));
});

/** Lint, types, all tests, then the real interface in a browser with the machine to itself. Further words are handed to Jest. The last line counts. */
export const test = async (words) => {
  await installPackages();
  await installDebian(NEEDS);
  let passed = 0;
  let failed = 0;
  const count = (name, ok) => {
    say(`${name}: ${ok ? 'passed' : 'failed'}`);
    if (ok) passed += 1;
    else failed += 1;
  };
  const whole = words.length === 0;
  if (whole) {
    const [lint, types] = await Promise.all([run([join(root, 'node_modules/eslint/bin/eslint.js'), '.']), run([join(root, 'scripts/types.mjs')])]);
    count('Lint', lint);
    count('Types', types);
  }
  await build();
  mkdirSync(home, { recursive: true });
  const database = await new Database(join(home, 'test-database'), { durable: false }).start();
  const jest = async (args) => {
    const report = join(home, 'jest.json');
    rmSync(report, { force: true });
    const ok = await run(['--no-warnings', join(root, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args], { ...database.environment, YUNTA_TEST: '1' });
    const { numPassedTests = 0, numFailedTests = 0, numRuntimeErrorTestSuites = 0 } = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : {};
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
    if (!ok && failed === 0) failed += 1;
  };
  try {
    if (whole) {
      await jest(['--selectProjects', 'core', 'cli', 'server', 'web']);
      await jest(['--selectProjects', 'e2e', '--maxWorkers=1']);
    } else await jest(words);
  } finally {
    await database.stop();
  }
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(failed === 0 && passed > 0 ? 0 : 1);
};
