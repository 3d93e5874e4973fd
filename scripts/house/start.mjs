import { fork, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { alive, Database, freePort } from './database.mjs';
import { build, installDebian, installPackages } from './packages.mjs';
import { during, fail, home, root, say } from './say.mjs';

const USUAL_PORT = 4747;
const lockFile = join(home, 'running.json');

/** The Yunta that runs here, if one does; a lock that a killed one left behind is taken away. */
const running = () => {
  if (!existsSync(lockFile)) return undefined;
  try {
    const lock = JSON.parse(readFileSync(lockFile, 'utf8'));
    if (alive(lock.pid) && readFileSync(`/proc/${lock.pid}/cmdline`, 'utf8').includes('yunta.mjs')) return lock;
  } catch { /* unreadable or gone: stale */ }
  rmSync(lockFile, { force: true });
  return undefined;
};

const readOptions = (words) => {
  const options = { port: undefined, demo: true };
  for (let i = 0; i < words.length; i += 1) {
    if (words[i] === '--no-demo') options.demo = false;
    else if (words[i] === '--port') {
      const port = Number(words[i + 1]);
      if (!Number.isInteger(port) || port < 1 || port > 65535) fail(`--port needs a number from 1 to 65535, not "${words[i + 1] ?? ''}".`, 2);
      options.port = port;
      i += 1;
    } else fail(`"${words[i]}" is not an option of start; there are --port N and --no-demo.`, 2);
  }
  return options;
};

const choosePort = async (wanted) => {
  if (wanted === undefined) return freePort(USUAL_PORT);
  const port = await freePort(wanted);
  if (port !== wanted) fail(`Port ${wanted} is in use by another program. Choose another with --port, or leave it out and Yunta takes a free one.`);
  return port;
};

/** Starts all of it and stays until Ctrl-C. */
export const start = async (words) => {
  const options = readOptions(words);
  const other = running();
  if (other) fail(`Yunta runs already${other.port ? ` at http://127.0.0.1:${other.port}` : ''}. Stop it with ./yunta stop.`);
  await installPackages();
  await installDebian({ mariadbd: 'mariadb-server', 'mariadb-install-db': 'mariadb-server' });
  const port = await choosePort(options.port);
  mkdirSync(home, { recursive: true });
  writeFileSync(lockFile, JSON.stringify({ pid: process.pid }));
  const database = new Database(join(home, 'database'));
  let server;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    const gone = server && server.exitCode === null && server.signalCode === null ? new Promise((done) => server.once('exit', done)) : undefined;
    server?.kill('SIGTERM');
    if (gone) await Promise.race([gone, wait(10_000)]);
    await database.stop();
    rmSync(lockFile, { force: true });
    process.exit(code);
  };
  process.on('SIGINT', () => { say('Stopping …'); void end(0); });
  process.on('SIGTERM', () => void end(0));
  process.on('exit', () => rmSync(lockFile, { force: true }));
  await Promise.all([build('core', 'server', 'web'), database.start()]);
  const serve = () => {
    server = fork(join(root, 'server/dist/main.js'), [], {
      env: { ...process.env, ...database.environment, YUNTA_PORT: String(port), YUNTA_DEMO: options.demo ? '1' : '0', NODE_ENV: 'production' }, execArgv: ['--no-warnings'], stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    const ready = new Promise((done, lost) => {
      server.once('message', done);
      server.once('exit', () => lost(new Error('the application ended before it was ready')));
    });
    server.once('exit', async (code, signal) => {
      if (ending) return;
      say(`The application ended (${signal ?? `code ${code}`}); starting it again …`);
      await wait(500);
      if (!ending) serve().catch((e) => say(String(e.message)));
    });
    return ready;
  };
  await during('Starting the application', serve).catch((e) => fail(`Yunta could not start: ${e.message}. The lines above say more.`));
  writeFileSync(lockFile, JSON.stringify({ pid: process.pid, port, server: server.pid }));
  console.log(`Yunta is at http://127.0.0.1:${port}   (Ctrl-C stops it)`);
};

export const stop = async () => {
  const other = running();
  if (!other) return say('Yunta does not run here.');
  process.kill(other.pid, 'SIGTERM');
  for (let i = 0; i < 400 && alive(other.pid); i += 1) await wait(100);
  if (alive(other.pid)) fail(`Yunta (process ${other.pid}) does not stop; end it with kill -9 ${other.pid}. Its data is safe.`);
  say('Yunta has stopped.');
};

/** The demo rigs as they were shipped, as new changes; their history and all other rigs stay. */
export const resetDemo = async () => {
  const other = running();
  await installPackages();
  await installDebian({ mariadbd: 'mariadb-server', 'mariadb-install-db': 'mariadb-server' });
  await build('core', 'server');
  const database = new Database(join(home, 'database'));
  const environment = other ? { ...JSON.parse(readFileSync(join(home, 'database/secret.json'), 'utf8')) } : undefined;
  const env = environment ? { YUNTA_DB_PORT: String(environment.port), YUNTA_DB_PASSWORD: environment.password, YUNTA_DB_USER: 'yunta' } : (await database.start()).environment;
  const run = spawnSync(process.execPath, ['--no-warnings', join(root, 'server/dist/reset-demo.js')], { stdio: 'inherit', env: { ...process.env, ...env } });
  if (!other) await database.stop();
  process.exit(run.status ?? 1);
};
