import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Database } from './database.mjs';
import { DATABASE_NEEDS, prepare } from './packages.mjs';
import { Lock } from './processes.mjs';
import { fail, home, root, say } from './say.mjs';
import { busy } from './start.mjs';

export const NEEDS = {
  ...DATABASE_NEEDS,
  chromium: 'chromium',
  spin: 'spin',
  cbc: 'coinor-cbc',
  ngspice: 'ngspice',
  ffmpeg: 'ffmpeg',
  gcc: 'gcc libc6-dev',
  dot: 'graphviz',
  xmllint: 'libxml2-utils',
  midicsv: 'midicsv',
  '/usr/lib/python3/dist-packages/mido': 'python3-mido',
  '/usr/lib/python3/dist-packages/networkx': 'python3-networkx',
};

const run = (args, env = {}) =>
  new Promise((done) => {
    const child = spawn(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
    child.on('exit', (code) => done(code === 0));
  });

/** Lint, format, types, all tests. Further words are handed to Jest. The last line counts. */
export const test = async (words) => {
  await prepare(NEEDS);
  mkdirSync(home, { recursive: true });
  const lock = new Lock(join(home, 'testing.json'), home);
  const other = lock.take('test');
  if (other) fail(busy(other));
  process.on('exit', () => lock.letGo());
  let passed = 0;
  let failed = 0;
  const count = (name, ok) => {
    say(`${name}: ${ok ? 'passed' : 'failed'}`);
    if (ok) passed += 1;
    else failed += 1;
  };
  const whole = words.length === 0;
  if (whole) {
    const [lint, unused, format, types] = await Promise.all([
      run([join(root, 'node_modules/eslint/bin/eslint.js'), '.']),
      run([join(root, 'node_modules/knip/bin/knip.js'), '--no-progress']),
      run([join(root, 'node_modules/prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']),
      run([join(root, 'scripts/types.mjs')]),
    ]);
    count('Lint', lint);
    count('Nothing unused', unused);
    count('Format', format);
    count('Types', types);
  }
  const database = await new Database(join(home, 'test-database'), { durable: false, tests: true }).start();
  const jest = async (name, args) => {
    const report = join(home, `jest-${name}.json`);
    rmSync(report, { force: true });
    const ok = await run(
      ['--no-warnings', join(root, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args],
      { ...database.environment, YUNTA_TEST: '1' },
    );
    const {
      numPassedTests = 0,
      numFailedTests = 0,
      numRuntimeErrorTestSuites = 0,
    } = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : {};
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
    if (!ok && failed === 0) failed += 1;
  };
  try {
    if (whole) {
      // What starts and kills whole programs mostly waits: it goes beside what computes, and beside the browser.
      const house = jest('house', ['--selectProjects', 'house', '--maxWorkers=1']);
      await jest('units', ['--selectProjects', 'core', 'cli', 'server', 'web', '--maxWorkers=2']);
      await jest('screens', ['--selectProjects', 'e2e', '--maxWorkers=2']);
      await house;
    } else await jest('some', words);
  } finally {
    await database.stop();
  }
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(failed === 0 && passed > 0 ? 0 : 1);
};
