import { spawn, spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import {
  chownSync,
  existsSync,
  openSync,
  closeSync,
  cpSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { connect, createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { Endings } from './again.mjs';
import { matterInWords, matterOf } from './damage.mjs';
import { canReach, databaseUser, giveTo, isRoot, ownFolder } from './owner.mjs';
import { end, processOf, wordsOf } from './processes.mjs';
import { during, fail, inWords, say } from './say.mjs';

const READY_WITHIN_MS = 120_000;
const MB = 1024 * 1024;
/** Room that a database takes when it starts: files of its own that it makes anew; and, once, its data folder. */
const ROOM_TO_START = 40 * MB;
const ROOM_TO_MAKE = 220 * MB;
const LONGEST_SOCKET = 100;
const LARGEST_LOG = 5 * MB;
/** What the application may do, with its own database and nothing else. */
const RIGHTS = 'SELECT, INSERT, UPDATE, DELETE, CREATE, ALTER, DROP, INDEX, REFERENCES';
const USER = 'yunta';

export const find = (name) =>
  ['/usr/sbin', '/usr/bin', '/usr/local/sbin', '/usr/local/bin'].map((d) => join(d, name)).find(existsSync) ?? name;

/** @returns a port on 127.0.0.1 that nobody uses; the wanted one when it is free */
export const freePort = (wanted = 0) =>
  new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(wanted ? freePort(0) : 0));
    probe.listen(wanted, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => done(port));
    });
  });

/** Whether a database answers at a socket: it greets whoever comes. */
const greets = (socket) =>
  new Promise((done) => {
    const line = connect(socket);
    line.once('data', () => {
      done(true);
      line.destroy();
    });
    line.once('error', () => done(false));
    line.setTimeout(2000, () => {
      done(false);
      line.destroy();
    });
  });

const quoted = (text) => `'${text.replaceAll(/[\\']/g, '\\$&')}'`;

/**
 * Read by the database itself before it lets anybody in: the one user that there is, with the rights it needs. Nobody
 * else stays, so that also data folders of older versions, to which a login was open or closed for all, are put right.
 */
const setUp = (password, tests) =>
  [
    'CREATE DATABASE IF NOT EXISTS yunta CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;',
    `CREATE USER IF NOT EXISTS '${USER}'@'localhost' IDENTIFIED BY ${quoted(password)};`,
    `ALTER USER '${USER}'@'localhost' IDENTIFIED BY ${quoted(password)};`,
    `SELECT GROUP_CONCAT(CONCAT(QUOTE(User), '@', QUOTE(Host)) SEPARATOR ', ') INTO @others FROM mysql.global_priv WHERE User <> 'PUBLIC' AND NOT (User IN ('${USER}', 'mariadb.sys') AND Host = 'localhost');`,
    "EXECUTE IMMEDIATE IF(@others IS NULL, 'DO 0', CONCAT('DROP USER ', @others));",
    `REVOKE ALL PRIVILEGES, GRANT OPTION FROM '${USER}'@'localhost';`,
    `GRANT ${RIGHTS} ON \`yunta\`.* TO '${USER}'@'localhost';`,
    ...(tests ? [`GRANT ${RIGHTS} ON \`yunta\\_%\`.* TO '${USER}'@'localhost';`] : []),
  ].join('\n');

/**
 * A MariaDB of our own in a folder: made when missing, mended when half made. Nobody but the folder's owner gets near
 * it: no port, a socket in a closed folder.
 */
export class Database {
  /**
   * @param durable false for tests, where a power cut need not be outlived
   * @param tests databases of tests may be made beside the one
   * @param backup the newest backup, to be named when the data is damaged
   * @param lost told when it cannot be kept running, with why in words
   */
  constructor(folder, { durable = true, tests = false, backup = () => undefined, lost = (why) => say(why) } = {}) {
    Object.assign(this, { folder, durable, tests, backup, lost });
    this.stopping = false;
    this.endings = new Endings();
  }

  get data() {
    return join(this.folder, 'data');
  }
  get log() {
    return join(this.folder, 'mariadb.log');
  }
  get pidFile() {
    return join(this.folder, 'm.pid');
  }

  async start() {
    this.settleIn();
    await this.retireStrays();
    this.needsRoom(existsSync(this.data) ? ROOM_TO_START : ROOM_TO_MAKE);
    this.makeData();
    const secret = join(this.folder, 'secret.json');
    const known = existsSync(secret) ? JSON.parse(readFileSync(secret, 'utf8')) : {};
    this.password = known.password ?? randomBytes(18).toString('hex');
    writeFileSync(secret, JSON.stringify({ password: this.password, socket: this.socket }), { mode: 0o600 });
    await during('Starting the database', () => this.run());
    return this;
  }

  /**
   * Whose the folder is, and closed to everybody else. A database that may not run as root and cannot get as far as
   * root's folder gets one where it can.
   */
  settleIn() {
    mkdirSync(dirname(this.folder), { recursive: true });
    this.user = databaseUser(this.data);
    if (!canReach(this.user, dirname(this.folder)))
      this.moveTo(join('/var/lib/yunta', createHash('sha256').update(this.folder).digest('hex').slice(0, 12)));
    ownFolder(this.folder, this.user);
    if (isRoot()) giveTo(this.user, this.data);
    const near = join(this.folder, 'm.sock');
    this.socket = near;
    if (near.length > LONGEST_SOCKET) {
      const apart = `/tmp/yunta-${this.user.uid}-${createHash('sha256').update(this.folder).digest('hex').slice(0, 12)}`;
      ownFolder(apart, this.user);
      this.socket = join(apart, 'm.sock');
    }
    this.closed = join(this.folder, 'closed');
    ownFolder(this.closed, this.user);
  }

  moveTo(elsewhere) {
    if (!existsSync(elsewhere))
      say(
        `The database does not run as root, and its user cannot enter ${dirname(this.folder)}: its data lies in ${elsewhere}.`,
      );
    mkdirSync(dirname(elsewhere), { recursive: true, mode: 0o755 });
    if (existsSync(this.folder) && !existsSync(elsewhere)) {
      cpSync(this.folder, elsewhere, { recursive: true, filter: (path) => !path.endsWith('.sock') });
      renameSync(this.folder, `${this.folder}.moved-${Date.now()}`);
    }
    this.folder = elsewhere;
    this.user = databaseUser(this.data);
  }

  /**
   * A server that a killed Yunta left behind holds the data folder; it is asked to stop first. It is told by the
   * folder it was started with.
   */
  async retireStrays() {
    const mine = `--datadir=${this.data}`;
    const strays = readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .map(Number)
      .filter((pid) => wordsOf(pid).includes(mine))
      .map(processOf)
      .filter(Boolean);
    for (const stray of strays) {
      say('Stopping a database that an earlier Yunta left running …');
      if (!(await end(stray, 30_000)))
        fail(
          `The database that an earlier Yunta left running (process ${stray.pid}) does not end. End it with kill -9 ${stray.pid}, then start again.`,
        );
    }
    rmSync(this.pidFile, { force: true });
  }

  get room() {
    const { bavail, bsize } = statfsSync(this.folder);
    return bavail * bsize;
  }

  needsRoom(bytes) {
    const free = this.room;
    if (free < bytes)
      fail(
        `The disk is full: ${this.folder} has ${Math.floor(free / MB)} MB left, and the database needs ${Math.ceil(bytes / MB)} MB to start. Free some space there, then run this again. What was saved is safe.`,
      );
  }

  makeData() {
    const made = join(this.folder, 'made');
    if (existsSync(made) && existsSync(join(this.data, 'mysql'))) return;
    if (existsSync(this.data)) {
      const aside = `${this.data}.half-made-${Date.now()}`;
      renameSync(this.data, aside);
      say(`The data folder was half made; it was moved to ${aside} and a new one is made.`);
    }
    const run = spawnSync(
      find('mariadb-install-db'),
      ['--no-defaults', `--datadir=${this.data}`, '--auth-root-authentication-method=socket', '--skip-test-db'],
      { encoding: 'utf8', ...this.asUser },
    );
    if (run.status !== 0) {
      const text = `${run.stdout}${run.stderr}${run.error ?? ''}`;
      rmSync(this.data, { recursive: true, force: true });
      fail(
        matterOf(text) === 'full'
          ? matterInWords('full', this)
          : `The database's data folder could not be made in ${this.data}:\n${text}`,
      );
    }
    writeFileSync(made, '');
  }

  /** How its programs are run: as its user, from where that user can be. */
  get asUser() {
    return isRoot()
      ? { uid: this.user.uid, gid: this.user.gid, cwd: '/', env: { ...process.env, HOME: '/nonexistent' } }
      : { cwd: '/' };
  }

  async run() {
    const wishes = join(this.folder, 'set-up.sql');
    writeFileSync(wishes, `${setUp(this.password, this.tests)}\n`, { mode: 0o600 });
    if (isRoot()) chownSync(wishes, this.user.uid, this.user.gid);
    rmSync(this.socket, { force: true });
    const began = this.openLog();
    const child = spawn(
      find('mariadbd'),
      [
        '--no-defaults',
        `--datadir=${this.data}`,
        `--socket=${this.socket}`,
        '--skip-networking',
        '--skip-name-resolve',
        `--pid-file=${this.pidFile}`,
        `--init-file=${wishes}`,
        `--secure-file-priv=${this.closed}`,
        '--local-infile=0',
        '--skip-symbolic-links',
        '--character-set-server=utf8mb4',
        '--collation-server=utf8mb4_bin',
        '--default-time-zone=+00:00',
        '--max-allowed-packet=64M',
        ...(this.durable ? [] : ['--innodb-flush-log-at-trx-commit=0', '--innodb-doublewrite=0']),
      ],
      { ...this.asUser, stdio: ['ignore', this.out, this.out], detached: true },
    );
    closeSync(this.out);
    this.child = child;
    child.once('error', () => undefined);
    const isGone = () => child.exitCode !== null || child.signalCode !== null || child.pid === undefined;
    for (const until = Date.now() + READY_WITHIN_MS; !(await greets(this.socket)); await wait(50)) {
      if (Date.now() > until || isGone()) fail(this.why(began));
    }
    rmSync(wishes, { force: true });
    child.once('exit', (code, signal) => void this.mend(code, signal, began));
    if (isGone()) void this.mend(child.exitCode, child.signalCode, began);
  }

  /** @returns how long the log was; what is written from here on is of the database that starts now */
  openLog() {
    const size = statSync(this.log, { throwIfNoEntry: false })?.size ?? 0;
    if (size > LARGEST_LOG) renameSync(this.log, `${this.log}.old`);
    this.out = openSync(this.log, 'a', 0o600);
    return size > LARGEST_LOG ? 0 : size;
  }

  why(began) {
    const matter = matterOf(readFileSync(this.log, 'utf8').slice(began));
    return matterInWords(matter, { folder: this.folder, log: this.log, backup: this.backup() });
  }

  /**
   * Killed from outside, or by a full disk: started again, so that the application finds it; given up when that does
   * not help.
   */
  async mend(code, signal, began) {
    if (this.stopping) return;
    if (this.room < ROOM_TO_START) {
      say(
        `The database ended because the disk is full. Free some space at ${this.folder}: it is then started again by itself. What was saved is safe.`,
      );
      while (!this.stopping && this.room < ROOM_TO_START) await wait(1000, undefined, { ref: false });
      if (this.stopping) return;
    }
    const pause = this.endings.next();
    if (pause === undefined)
      return this.lost(`The database ends again and again and is not started any more.\n${this.why(began)}`);
    say(`The database ended (${signal ?? `code ${code}`}); starting it again …`);
    try {
      await wait(pause);
      if (!this.stopping) await this.run();
    } catch (e) {
      if (!this.stopping) this.lost(inWords(e));
    }
  }

  get environment() {
    return { YUNTA_DB_SOCKET: this.socket, YUNTA_DB_PASSWORD: this.password, YUNTA_DB_USER: USER };
  }

  async stop() {
    this.stopping = true;
    if (this.child?.pid === undefined || this.child.exitCode !== null || this.child.signalCode !== null) return;
    const ended = new Promise((done) => this.child.once('exit', done));
    this.child.kill('SIGTERM');
    await Promise.race([ended, wait(60_000, undefined, { ref: false })]);
  }
}
