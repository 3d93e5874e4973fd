import { fork, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { Endings } from './again.mjs';
import { A_DAY, backupAge, keepBackup, newestBackup } from './backup.mjs';
import { Database, freePort } from './database.mjs';
import { isRoot, userName } from './owner.mjs';
import { DATABASE_NEEDS, prepare } from './packages.mjs';
import { end, Lock } from './processes.mjs';
import { during, fail, home, inWords, root, say } from './say.mjs';

const USUAL_PORT = 4747;
const AN_HOUR = 3600 * 1000;
/** The server says this with its exit code when it cannot serve, after it has said why. */
const CANNOT_SERVE = 78;

/** The lock of this folder: whoever starts, restores or resets holds it. */
export const folderLock = () => {
  mkdirSync(home, { recursive: true, mode: 0o755 });
  return new Lock(join(home, 'running.json'), home);
};

export const database = (more = {}) => new Database(join(home, 'database'), { backup: newestBackup, ...more });

/** What a command is told that finds another at work in the folder. */
export const busy = ({ what, port, user }) => {
  const who = user === process.getuid?.() || user === undefined ? '' : `, started by ${userName(user)}`;
  if (what === 'start' && !port) return `Yunta is just starting in this folder${who}. Run this again in a moment.`;
  if (what === 'start')
    return `Yunta runs already in this folder${port ? ` at http://127.0.0.1:${port}` : ''}${who}. Stop it with ./yunta stop.`;
  return `./yunta ${what} is at work in this folder${who}. Wait until it is done, then run this again.`;
};

const readOptions = (words) => {
  const options = { port: undefined, demo: true };
  for (let i = 0; i < words.length; i += 1) {
    if (words[i] === '--no-demo') options.demo = false;
    else if (words[i] === '--port') {
      const port = Number(words[i + 1]);
      if (!Number.isInteger(port) || port < 1 || port > 65535)
        fail(`--port needs a number from 1 to 65535, not "${words[i + 1] ?? ''}".`, 2);
      options.port = port;
      i += 1;
    } else fail(`"${words[i]}" is not an option of start; there are --port N and --no-demo.`, 2);
  }
  return options;
};

const choosePort = async (wanted) => {
  if (wanted === undefined) return freePort(USUAL_PORT);
  const port = await freePort(wanted);
  if (port !== wanted)
    fail(
      `Port ${wanted} is in use by another program. Choose another with --port, or leave it out and Yunta takes a free one.`,
    );
  return port;
};

/** The application as a process of its own, started again when it ends by itself. */
class Application {
  constructor(env, lost) {
    Object.assign(this, { env, lost, endings: new Endings(), ending: false });
  }

  run() {
    const server = fork(join(root, 'server/dist/main.js'), [], {
      env: { ...process.env, ...this.env, NODE_ENV: 'production' },
      execArgv: ['--no-warnings'],
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    this.server = server;
    return new Promise((done, never) => {
      server.once('message', () => {
        this.hasRun = true;
        done();
      });
      server.once('exit', (code, signal) => void this.ended(code, signal).catch(never));
    });
  }

  async ended(code, signal) {
    if (this.ending) return;
    if (!this.hasRun)
      fail(
        code === CANNOT_SERVE
          ? 'Yunta could not start; the lines above say why.'
          : `Yunta could not start: the application ended before it was ready (${signal ?? `code ${code}`}).`,
      );
    const pause = this.endings.next();
    if (pause === undefined)
      return this.lost('The application ends again and again and is not started any more; the lines above say more.');
    say(`The application ended (${signal ?? `code ${code}`}); starting it again …`);
    await wait(500 + pause);
    if (!this.ending) void this.run();
  }

  async stop() {
    this.ending = true;
    const { server } = this;
    if (!server || server.exitCode !== null || server.signalCode !== null) return;
    const gone = new Promise((done) => server.once('exit', done));
    server.kill('SIGTERM');
    await Promise.race([gone, wait(10_000, undefined, { ref: false })]);
    server.kill('SIGKILL');
  }
}

/** A backup before anything can change; without one it goes on, but says so. */
const backUp = async (kept) => {
  try {
    await during('Backing up', () => keepBackup(kept));
  } catch (e) {
    say(`No backup could be made. ${inWords(e)}`);
  }
};

/** Starts all of it and stays until Ctrl-C. */
export const start = async (words) => {
  const options = readOptions(words);
  await prepare(DATABASE_NEEDS, 'core', 'server', 'web');
  const port = await choosePort(options.port);
  const lock = folderLock();
  const other = lock.take('start');
  if (other) fail(busy(other));
  let over;
  const kept = database({ lost: (why) => void finish(1, why) });
  let application;
  let daily;
  const finish = (code, why) =>
    (over ??= (async () => {
      if (why) say(why);
      clearInterval(daily);
      await application?.stop();
      await kept.stop();
      lock.letGo();
      process.exit(code);
    })());
  process.on('SIGINT', () => {
    say('Stopping …');
    void finish(0);
  });
  for (const signal of ['SIGTERM', 'SIGHUP']) process.on(signal, () => void finish(0));
  try {
    await kept.start();
    if (over) return over;
    await backUp(kept);
    application = new Application(
      { ...kept.environment, YUNTA_PORT: String(port), YUNTA_DEMO: options.demo ? '1' : '0', YUNTA_HOME: home },
      (why) => void finish(1, why),
    );
    await during('Starting the application', () => application.run());
  } catch (e) {
    return over ?? finish(e.code === 2 ? 2 : 1, inWords(e));
  }
  lock.tell({ port, server: application.server.pid, database: kept.folder });
  daily = setInterval(() => {
    if (backupAge() > A_DAY) void backUp(kept);
  }, AN_HOUR);
  console.log(`Yunta is at http://127.0.0.1:${port}   (Ctrl-C stops it)`);
};

export const stop = async () => {
  const other = existsSync(home) && folderLock().holder();
  if (!other) return say('Yunta does not run here.');
  if (other.what !== 'start') fail(busy(other));
  if (!isRoot() && other.user !== undefined && other.user !== process.getuid?.())
    fail(`Yunta was started by ${userName(other.user)}, who has to stop it (or root: sudo ./yunta stop).`);
  if (!(await end(other.process, 90_000, false)))
    fail(
      `Yunta (process ${other.process.pid}) does not stop; end it with kill -9 ${other.process.pid}. Its data is safe.`,
    );
  say('Yunta has stopped.');
};

/** A database to work with: that of a Yunta that runs, or one started for the occasion. */
export const withDatabase = async (what, work) => {
  const lock = folderLock();
  const other = lock.take(what);
  if (other && !(other.what === 'start' && other.database)) fail(busy(other));
  if (other) {
    const { password, socket } = JSON.parse(readFileSync(join(other.database, 'secret.json'), 'utf8'));
    return work({
      password,
      socket,
      environment: { YUNTA_DB_SOCKET: socket, YUNTA_DB_PASSWORD: password, YUNTA_DB_USER: 'yunta' },
    });
  }
  const kept = database();
  try {
    return await work(await kept.start());
  } finally {
    await kept.stop();
    lock.letGo();
  }
};

/** The demo rigs as they were shipped, as new changes; their history and all other rigs stay. */
export const resetDemo = async () => {
  await prepare(DATABASE_NEEDS, 'core', 'server');
  const status = await withDatabase(
    'reset-demo',
    ({ environment }) =>
      spawnSync(process.execPath, ['--no-warnings', join(root, 'server/dist/reset-demo.js')], {
        stdio: 'inherit',
        env: { ...process.env, ...environment },
      }).status,
  );
  if (status !== 0) fail('The demo rigs could not be put back; the lines above say why.');
};
