import {
  closeSync,
  linkSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { fail } from './say.mjs';

const read = (file) => {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return undefined;
  }
};

/**
 * When a process began, in ticks since this boot: with the boot it tells a process from a later one that got the same
 * number.
 */
const began = (pid) =>
  read(`/proc/${pid}/stat`)
    ?.replace(/^.*\) /s, '')
    .split(' ')[19];
const boot = () => read('/proc/sys/kernel/random/boot_id')?.trim() ?? '';

/**
 * @returns what tells this process from every other, also from one that gets its number later; undefined when none has
 * the number
 */
export const processOf = (pid) => {
  const start = began(pid);
  return start === undefined ? undefined : { pid, start, boot: boot() };
};

/** Whether that very process still runs. */
export const runs = (known) => {
  const now = known?.pid && processOf(known.pid);
  return (
    Boolean(now) &&
    now.start === known.start &&
    now.boot === known.boot &&
    !/^State:\s+Z/m.test(read(`/proc/${known.pid}/status`) ?? '')
  );
};

/** The words that a process was started with. */
export const wordsOf = (pid) => (read(`/proc/${pid}/cmdline`) ?? '').split('\0');

/** Ends a process, gently first. @returns whether it is gone */
export const end = async (known, patienceMs, kill = true) => {
  const { setTimeout: wait } = await import('node:timers/promises');
  const tell = (signal) => {
    try {
      process.kill(known.pid, signal);
    } catch {
      /* it is gone already */
    }
  };
  const gone = async (ms) => {
    for (const until = Date.now() + ms; Date.now() < until; await wait(50)) if (!runs(known)) return true;
    return !runs(known);
  };
  if (!runs(known)) return true;
  tell('SIGTERM');
  if (await gone(patienceMs)) return true;
  if (!kill) return false;
  tell('SIGKILL');
  return gone(5000);
};

const parsed = (text) => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};

/**
 * A folder is worked in by one command at a time. The lock says which folder, which process and who; one that a killed
 * process left behind, or that was copied along with a folder, does not count.
 */
export class Lock {
  constructor(file, folder) {
    this.file = file;
    this.folder = folder;
  }

  /**
   * The command that works here now, if one does; also one of an older version, which wrote its number only.
   * @throws Failure when somebody else's lock cannot even be read
   */
  holder() {
    let text;
    try {
      text = readFileSync(this.file, 'utf8');
    } catch (e) {
      if (e.code === 'ENOENT') return undefined;
      fail(
        `${this.folder} belongs to another user (number ${statSync(this.file, { throwIfNoEntry: false })?.uid ?? 'unknown'}), who uses it with Yunta. Run this as that user, or choose a folder of your own with YUNTA_HOME.`,
      );
    }
    const lock = parsed(text);
    if (lock?.pid && wordsOf(lock.pid).some((word) => word.endsWith('yunta.mjs')))
      return { what: 'start', port: lock.port, process: processOf(lock.pid) };
    return lock?.folder === this.folder && runs(lock.process) ? lock : undefined;
  }

  /**
   * @param what the command, in words: "start", "restore"
   * @returns the command that holds it already; undefined when it is ours now
   */
  take(what) {
    for (;;) {
      const other = this.holder();
      if (other) return other;
      try {
        const file = openSync(this.file, 'wx', 0o600);
        writeSync(file, this.text({ what }));
        closeSync(file);
        this.mine = { what };
        return undefined;
      } catch (e) {
        if (e.code !== 'EEXIST') throw e;
        if (!this.holder()) this.clearAway();
      }
    }
  }

  /** Takes a stale lock away. What was moved is looked at once more: another command may just have taken the place. */
  clearAway() {
    const aside = `${this.file}.${process.pid}`;
    try {
      renameSync(this.file, aside);
      if (runs(parsed(read(aside))?.process)) linkSync(aside, this.file);
    } catch {
      /* another command was faster */
    }
    rmSync(aside, { force: true });
  }

  /** Says more of what runs, such as its port. */
  tell(more) {
    this.mine = { ...this.mine, ...more };
    const next = `${this.file}.next`;
    writeFileSync(next, this.text(this.mine), { mode: 0o600 });
    renameSync(next, this.file);
  }

  text(more) {
    return JSON.stringify({ folder: this.folder, process: processOf(process.pid), user: process.getuid?.(), ...more });
  }

  letGo() {
    if (!this.mine) return;
    this.mine = undefined;
    rmSync(this.file, { force: true });
  }
}
