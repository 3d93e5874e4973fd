import { spawn, spawnSync } from 'node:child_process';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  closeSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { find } from './database.mjs';
import { matterOf } from './damage.mjs';
import { fail, home } from './say.mjs';

export const FOLDER = join(home, 'backups');
const ENDING = '.yunta-backup.gz';
const KEPT = 7;
const HEAD = '-- yunta backup ';
const TAIL = '-- Dump completed';
export const A_DAY = 24 * 3600 * 1000;

/** The automatic backups of this folder, the oldest first: their names begin with the time. */
export const backups = () =>
  existsSync(FOLDER)
    ? readdirSync(FOLDER)
        .filter((name) => name.endsWith(ENDING))
        .sort()
    : [];
export const newestBackup = () => {
  const [newest] = backups().slice(-1);
  return newest && join(FOLDER, newest);
};

/**
 * Which of the automatic backups go. Of a day with several the older ones go first, so that seven starts in one
 * evening do not push out last week.
 */
export const superfluous = (names, kept = KEPT) => {
  const left = [...names].sort();
  const gone = [];
  while (left.length > kept) {
    const day = (name) => name.slice(0, 10);
    const twice = left.findIndex((name, i) => i + 1 < left.length && day(name) === day(left[i + 1]));
    gone.push(...left.splice(Math.max(0, twice), 1));
  }
  return gone;
};

const client = (database) => ({
  words: ['--no-defaults', `--socket=${database.socket}`, `--user=${database.environment.YUNTA_DB_USER}`],
  env: { ...process.env, MYSQL_PWD: database.password },
});

const ask = (database, sql) => {
  const { words, env } = client(database);
  const { status, stdout, stderr } = spawnSync(
    find('mariadb'),
    [...words, '--batch', '--raw', '--skip-column-names', '--default-character-set=utf8mb4', 'yunta', '--execute', sql],
    { encoding: 'utf8', env },
  );
  return status === 0
    ? stdout.split('\n').filter(Boolean)
    : fail(`The database does not answer a question: ${stderr.trim()}`);
};

/** What a database holds, for a person to recognise it; undefined while it holds nothing of Yunta's yet. */
export const contents = (database) => {
  if (ask(database, "SHOW TABLES LIKE 'rig'").length === 0) return undefined;
  const rigs = ask(database, 'SELECT name FROM rig ORDER BY changed DESC');
  const [changes] = ask(database, 'SELECT COUNT(*) FROM journal_entry');
  const [changed] = ask(database, 'SELECT COALESCE(MAX(`when`), "") FROM journal_entry');
  return { rigs, changes: Number(changes), changed };
};

const MOST_NAMED = 6;
export const contentsInWords = ({ rigs, changes, changed }) =>
  `${rigs.length} ${rigs.length === 1 ? 'rig' : 'rigs'}${rigs.length ? ` (${rigs.slice(0, MOST_NAMED).join(', ')}${rigs.length > MOST_NAMED ? ' …' : ''})` : ''}, ${changes} ${changes === 1 ? 'change' : 'changes'}${changed ? `, the last of ${changed.slice(0, 16)}` : ''}`;

const dump = async function* (database, head) {
  yield `${HEAD}${JSON.stringify(head)}\n`;
  const { words, env } = client(database);
  const child = spawn(
    find('mariadb-dump'),
    [
      ...words,
      '--single-transaction',
      '--skip-lock-tables',
      '--skip-add-locks',
      '--no-tablespaces',
      '--hex-blob',
      '--default-character-set=utf8mb4',
      'yunta',
    ],
    { env, stdio: ['ignore', 'pipe', 'pipe'] },
  );
  let said = '';
  child.stderr.on('data', (d) => {
    said += d;
  });
  const ended = new Promise((done) => {
    child.once('close', done);
    child.once('error', (e) => {
      said += e.message;
      done(1);
    });
  });
  for await (const piece of child.stdout) yield piece;
  const code = await ended;
  if (code !== 0) fail(`The database could not be read whole: ${said.trim()}`);
};

const sync = (path) => {
  const file = openSync(path, 'r');
  fsyncSync(file);
  closeSync(file);
};

/**
 * Writes all that a running database holds into a file, as it is at one moment. The file is there whole, or not at
 * all.
 */
export const writeBackup = async (database, file, now = new Date()) => {
  const held = contents(database);
  if (!held) return undefined;
  const part = `${file}.part`;
  try {
    await pipeline(
      Readable.from(dump(database, { format: 1, made: now.toISOString(), ...held })),
      createGzip(),
      createWriteStream(part, { mode: 0o600 }),
    );
    sync(part);
    renameSync(part, file);
  } catch (e) {
    rmSync(part, { force: true });
    if (e.code === 'ENOSPC' || matterOf(e.message) === 'full')
      fail(
        `The disk is full: the backup ${file} could not be written. Free some space there. The rigs themselves are not touched.`,
      );
    throw e;
  }
  return held;
};

const fileName = (now) => `${now.toISOString().slice(0, 19).replaceAll(':', '-')}${ENDING}`;

/** A backup among the automatic ones; those that are too many go, once the new one is there. @returns its path */
export const keepBackup = async (database, now = new Date()) => {
  mkdirSync(FOLDER, { recursive: true, mode: 0o700 });
  const file = join(FOLDER, fileName(now));
  if (!(await writeBackup(database, file, now))) return undefined;
  for (const name of superfluous(backups()))
    if (join(FOLDER, name) !== file) rmSync(join(FOLDER, name), { force: true });
  return file;
};

/** How long ago the newest automatic backup was made; a clock that was set back counts as long ago. */
export const backupAge = (now = Date.now()) => {
  const newest = newestBackup();
  const age = newest ? now - statSync(newest).mtimeMs : Infinity;
  return age < 0 ? Infinity : age;
};

/** Where a person wants a backup: a file, or a folder in which it gets a name. */
export const fileFor = (said, now = new Date()) => {
  const path = resolve(process.env.YUNTA_CWD ?? process.cwd(), said ?? '.');
  return existsSync(path) && statSync(path).isDirectory() ? join(path, `yunta-${fileName(now)}`) : path;
};

const textOf = (file) => createReadStream(file).pipe(createGunzip()).setEncoding('utf8');

/** Reads a backup through to its end. @returns what it holds @throws Failure when it is none, or not whole */
export const readBackup = async (file) => {
  if (!existsSync(file)) fail(`There is no file ${file}.`, 2);
  let head = '';
  let tail = '';
  try {
    for await (const piece of textOf(file)) {
      if (head.length < 100_000) head += piece;
      tail = (tail + piece).slice(-400);
    }
  } catch (e) {
    fail(
      `${basename(file)} cannot be read as a backup: ${e.code === 'Z_BUF_ERROR' ? 'it was cut off' : e.message}. Take another; ./yunta restore lists those that were made here.`,
      2,
    );
  }
  const [first] = head.split('\n');
  if (!first.startsWith(HEAD))
    fail(`${basename(file)} is not a backup of Yunta. Take one that ./yunta backup wrote.`, 2);
  if (!tail.includes(TAIL))
    fail(`${basename(file)} was cut off. Take another; ./yunta restore lists those that were made here.`, 2);
  const held = JSON.parse(first.slice(HEAD.length));
  if (held.format !== 1) fail(`${basename(file)} was written by a newer Yunta. Restore it with that one.`, 2);
  return held;
};

/** Fills an empty database from a backup. */
export const loadBackup = async (database, file) => {
  const { words, env } = client(database);
  const child = spawn(
    find('mariadb'),
    [...words, '--default-character-set=utf8mb4', '--max-allowed-packet=64M', 'yunta'],
    { env, stdio: ['pipe', 'ignore', 'pipe'] },
  );
  let said = '';
  child.stderr.on('data', (d) => {
    said += d;
  });
  const ended = new Promise((done) => child.once('close', done));
  child.stdin.on('error', () => undefined);
  await pipeline(createReadStream(file), createGunzip(), child.stdin).catch(() => undefined);
  if ((await ended) !== 0) fail(`The backup could not be put back: ${said.trim()}`);
};
