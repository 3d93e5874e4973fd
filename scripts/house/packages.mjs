import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { become, handOverBuilt, isRoot, ownerOf } from './owner.mjs';
import { during, fail, home, root, say } from './say.mjs';

export const DATABASE_NEEDS = {
  mariadbd: 'mariadb-server',
  'mariadb-install-db': 'mariadb-server',
  'mariadb-dump': 'mariadb-client',
};

const run = (command, args, options = {}) =>
  new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NO_COLOR: '1', FORCE_COLOR: '0' },
      ...options,
    });
    let text = '';
    child.stdout?.on('data', (d) => {
      text += d;
    });
    child.stderr?.on('data', (d) => {
      text += d;
    });
    child.on('error', (e) => done({ code: 127, text: e.message }));
    child.on('exit', (code) => done({ code: code ?? 1, text }));
  });

/** npm packages exactly as the lock file says; left alone when they are there already. */
export const installPackages = async ({ quiet = false } = {}) => {
  const lock = readFileSync(join(root, 'package-lock.json'));
  const wanted = createHash('sha256').update(lock).digest('hex');
  const stamp = join(root, 'node_modules/.yunta-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  if (!quiet) say('Installing the npm packages (once; about two minutes) …');
  const { code, text } = await during('npm packages', () =>
    run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']),
  );
  if (code !== 0)
    fail(
      `The npm packages could not be installed:\n${text.slice(-2000)}\nIs the npm registry reachable? Run ./yunta again when it is.`,
    );
  writeFileSync(stamp, wanted);
};

/** An ordinary user's path often lacks the folders of system programs. */
const FOLDERS = ['/usr/sbin', '/usr/bin', '/usr/local/sbin', '/usr/local/bin', '/sbin', '/bin'];
const isThere = (program) =>
  program.startsWith('/')
    ? existsSync(program)
    : [...FOLDERS, ...(process.env.PATH ?? '').split(':')].some((folder) => existsSync(join(folder, program)));

/**
 * Programs from Debian; each is asked for by a command, or a file, that it brings. Installed as root, otherwise the
 * one command is printed.
 */
export const installDebian = async (needs) => {
  const missing = Object.entries(needs)
    .filter(([command]) => !isThere(command))
    .map(([, name]) => name);
  if (missing.length === 0) return;
  const names = [...new Set(missing)].join(' ');
  const command = `apt-get update && apt-get install -y --no-install-recommends ${names}`;
  if (process.getuid?.() !== 0)
    fail(
      `Yunta needs these packages from Debian: ${names}.\nInstall them with this one command, then run ./yunta again:\n\n  sudo sh -c '${command}'\n\nWithout sudo, ask whoever looks after this machine to run it once.`,
    );
  say(`Installing from Debian: ${names} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const { code, text } = await during('Debian packages', () => run('sh', ['-c', command], { env }));
  if (code !== 0) fail(`Debian's packages could not be installed:\n${text.slice(-2000)}\nThe command was: ${command}`);
};

export const build = async (...folders) => {
  const { code, text } = await during('Building', () =>
    run(process.execPath, [join(root, 'scripts/build.mjs'), ...folders]),
  );
  if (code !== 0) fail(`The build failed:\n${text.slice(-4000)}`);
};

/**
 * All that a command needs: Debian's programs, for which root may be needed, npm's packages, and the build. Yunta works
 * as the user that owns its data, so that what root starts once that user can start again; root with a folder of root's
 * own stays root, and only its database does not.
 */
export const prepare = async (needs, ...folders) => {
  await installDebian(needs);
  const owner = ownerOf(home);
  const isTheirs = isRoot() && owner.uid !== 0;
  if (isTheirs && ownerOf(root).uid === owner.uid) become(owner);
  await installPackages();
  await build(...folders);
  if (!isRoot()) return;
  handOverBuilt();
  if (isTheirs) become(owner);
};
