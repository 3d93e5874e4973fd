// Builds what plain Node runs: core, cli and server by swc, file by file; the server then as one, and the web, by Vite.
// `node scripts/build.mjs` builds all; `node scripts/build.mjs core cli` only those. Folders that are up to date are
// left alone.
import { transformFile } from '@swc/core';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');
const FOLDERS = {
  core: [
    ['core/src', 'core/dist'],
    ['core/testing', 'core/dist-testing'],
  ],
  cli: [['cli/src', 'cli/dist']],
  server: [['server/src', 'server/dist/modules']],
  e2e: [['e2e/src', 'e2e/dist']],
};

const walk = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return ['node_modules', 'dist'].includes(entry.name) ? [] : walk(path);
    return [path];
  });
const newest = (path) => {
  if (!existsSync(path)) return 0;
  const here = statSync(path);
  return here.isDirectory() ? Math.max(0, ...walk(path).map((f) => statSync(f).mtimeMs)) : here.mtimeMs;
};

const compile = async (from, to) => {
  const source = join(root, from);
  const target = join(root, to);
  const stamp = join(target, '.built');
  if (!existsSync(source)) return;
  if (existsSync(stamp) && statSync(stamp).mtimeMs > Math.max(newest(source), statSync(import.meta.filename).mtimeMs))
    return;
  rmSync(target, { recursive: true, force: true });
  const files = walk(source).filter((f) => /\.ts$/.test(f) && !/\.(test|d)\.ts$/.test(f));
  await Promise.all(
    files.map(async (file) => {
      const { code } = await transformFile(file, {
        swcrc: false,
        jsc: {
          target: 'es2023',
          keepClassNames: true,
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
        },
        module: { type: 'es6' },
      });
      const out = join(target, relative(source, file)).replace(/\.ts$/, '.js');
      mkdirSync(dirname(out), { recursive: true });
      writeFileSync(out, code.replaceAll(/(from\s+['"](?:\.\.?\/)+)src\//g, '$1dist/'));
    }),
  );
  mkdirSync(target, { recursive: true });
  writeFileSync(stamp, '');
};

/** Builds a workspace by Vite when something that goes into it is newer than what came of it. */
const buildByVite = (workspace, made, sources) => {
  const stamp = join(root, workspace, made);
  const newestSource = Math.max(...sources.map((path) => newest(join(root, path))));
  if (existsSync(stamp) && statSync(stamp).mtimeMs > newestSource) return;
  const run = spawnSync(
    process.execPath,
    [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'],
    { cwd: join(root, workspace), stdio: ['ignore', 'inherit', 'inherit'] },
  );
  if (run.status !== 0) process.exit(run.status ?? 1);
};

const wanted = process.argv.slice(2);
for (const [name, folders] of Object.entries(FOLDERS)) {
  if (wanted.length && !wanted.includes(name)) continue;
  for (const [from, to] of folders) await compile(from, to);
}
const isWanted = (name) => !wanted.length || wanted.includes(name);
if (isWanted('server')) buildByVite('server', 'dist/main.js', ['server/src', 'server/vite.config.ts', 'core/src']);
if (isWanted('web') && existsSync(join(root, 'web/index.html')))
  buildByVite('web', 'dist/index.html', ['web/src', 'core/src', 'examples', 'web/package.json']);
