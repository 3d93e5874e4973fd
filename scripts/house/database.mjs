import { spawn, spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { during, fail, say } from './say.mjs';

const READY_WITHIN_MS = 60_000;
const asRoot = process.getuid?.() === 0 ? ['--user=root'] : [];
const find = (name) => ['/usr/sbin', '/usr/bin', '/usr/local/sbin', '/usr/local/bin'].map((d) => join(d, name)).find(existsSync) ?? name;

/** @returns a port on 127.0.0.1 that nobody uses; the wanted one when it is free */
export const freePort = (wanted = 0) => new Promise((done) => {
  const probe = createServer();
  probe.once('error', () => done(wanted ? freePort(0) : 0));
  probe.listen(wanted, '127.0.0.1', () => {
    const { port } = probe.address();
    probe.close(() => done(port));
  });
});

export const alive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

const pidIn = (file) => (existsSync(file) ? Number(readFileSync(file, 'utf8').trim()) || 0 : 0);

/** A MariaDB of our own in a folder: made when missing, mended when half made, reachable on loopback only. */
export class Database {
  constructor(folder, { durable = true } = {}) {
    this.folder = folder;
    this.durable = durable;
    this.data = join(folder, 'data');
    this.pidFile = join(folder, 'm.pid');
    const near = join(folder, 'm.sock');
    this.socket = near.length < 100 ? near : join(tmpdir(), `yunta-${createHash('sha256').update(folder).digest('hex').slice(0, 12)}.sock`);
    this.stopping = false;
  }

  async start() {
    mkdirSync(this.folder, { recursive: true });
    this.retireStray();
    this.makeData();
    const secret = join(this.folder, 'secret.json');
    const known = existsSync(secret) ? JSON.parse(readFileSync(secret, 'utf8')) : { password: randomBytes(18).toString('hex'), port: 0 };
    this.password = known.password;
    this.port = await freePort(known.port);
    writeFileSync(secret, JSON.stringify({ password: this.password, port: this.port }), { mode: 0o600 });
    await this.run();
    this.sql(`CREATE DATABASE IF NOT EXISTS yunta CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
      CREATE USER IF NOT EXISTS 'yunta'@'localhost' IDENTIFIED BY '${this.password}';
      ALTER USER 'yunta'@'localhost' IDENTIFIED BY '${this.password}';
      GRANT ALL ON \`yunta%\`.* TO 'yunta'@'localhost';
      ALTER USER 'root'@'localhost' IDENTIFIED VIA unix_socket;`);
    return this;
  }

  /** A server that a killed Yunta left behind holds the data folder; it is asked to stop first. */
  retireStray() {
    const pid = pidIn(this.pidFile);
    if (!pid || !alive(pid)) return rmSync(this.pidFile, { force: true });
    const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
    if (!command.includes(this.data)) return rmSync(this.pidFile, { force: true });
    say('Stopping a database that an earlier Yunta left running …');
    process.kill(pid, 'SIGTERM');
    for (let i = 0; i < 300 && alive(pid); i += 1) spawnSync('sleep', ['0.1']);
    if (alive(pid)) process.kill(pid, 'SIGKILL');
    rmSync(this.pidFile, { force: true });
  }

  makeData() {
    const made = join(this.folder, 'made');
    if (existsSync(made) && existsSync(join(this.data, 'mysql'))) return;
    if (existsSync(this.data)) {
      const aside = `${this.data}.half-made-${Date.now()}`;
      renameSync(this.data, aside);
      say(`The data folder was half made; it was moved to ${aside} and a new one is made.`);
    }
    const run = spawnSync(find('mariadb-install-db'), ['--no-defaults', ...asRoot, `--datadir=${this.data}`, '--auth-root-authentication-method=normal', '--skip-test-db'], { encoding: 'utf8' });
    if (run.status !== 0) fail(`The database's data folder could not be made in ${this.data}:\n${run.stdout}${run.stderr}${run.error ?? ''}`);
    writeFileSync(made, '');
  }

  async run() {
    const log = join(this.folder, 'mariadb.log');
    const out = openSync(log, 'a');
    this.child = spawn(find('mariadbd'), [
      '--no-defaults', ...asRoot, `--datadir=${this.data}`, `--socket=${this.socket}`, '--bind-address=127.0.0.1', `--port=${this.port}`, `--pid-file=${this.pidFile}`,
      '--character-set-server=utf8mb4', '--collation-server=utf8mb4_bin', '--default-time-zone=+00:00', '--max-allowed-packet=64M',
      ...(this.durable ? [] : ['--innodb-flush-log-at-trx-commit=0', '--innodb-doublewrite=0']),
    ], { stdio: ['ignore', out, out], detached: true });
    this.child.once('exit', (code, signal) => this.mend(code, signal));
    const until = Date.now() + READY_WITHIN_MS;
    await during('Starting the database', async () => {
      while (spawnSync(find('mariadb-admin'), ['--no-defaults', `--socket=${this.socket}`, '-uroot', 'ping'], { stdio: 'ignore' }).status !== 0) {
        if (Date.now() > until || this.child.exitCode !== null) fail(`The database did not start; its last words are in ${log}.`);
        await wait(50);
      }
    });
  }

  /** Killed from outside: started again on the same port, so that the application finds it. */
  async mend(code, signal) {
    if (this.stopping) return;
    say(`The database ended (${signal ?? `code ${code}`}); starting it again …`);
    rmSync(this.pidFile, { force: true });
    await this.run().catch((e) => say(String(e)));
  }

  sql(text) {
    const run = spawnSync(find('mariadb'), ['--no-defaults', `--socket=${this.socket}`, '-uroot', '--batch'], { input: text, encoding: 'utf8' });
    if (run.status !== 0) fail(`The database refused its set-up: ${run.stderr}`);
    return run.stdout;
  }

  get environment() {
    return { YUNTA_DB_PORT: String(this.port), YUNTA_DB_PASSWORD: this.password, YUNTA_DB_USER: 'yunta' };
  }

  async stop() {
    this.stopping = true;
    if (!this.child || this.child.exitCode !== null || this.child.signalCode !== null) return;
    const ended = new Promise((done) => this.child.once('exit', done));
    this.child.kill('SIGTERM');
    await Promise.race([ended, wait(30_000)]);
  }
}
