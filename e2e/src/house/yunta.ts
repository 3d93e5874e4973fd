import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, chownSync, cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { freePort } from '../server.js';

const root = resolve(__dirname, '../../..');

export interface User {
  readonly uid: number;
  readonly gid: number;
}

export const amRoot = process.getuid!() === 0;
export const ME: User = { uid: process.getuid!(), gid: process.getgid!() };
/** Two users of the system that are nobody in particular: numbers that no name stands for. */
export const ORDINARY: User = amRoot ? { uid: 54_321, gid: 54_321 } : ME;
export const STRANGER: User = { uid: 54_322, gid: 54_322 };

/** A checkout that every user can read, and one that a user owns: this one again, with its packages and build. */
export class Checkout {
  private constructor(readonly folder: string) {}

  static for(owner: User): Checkout {
    const folder = mkdtempSync(join(tmpdir(), 'yunta-checkout-'));
    chmodSync(folder, 0o755);
    // Packages and build are many files: they are linked where the disk allows it, and copied where not.
    const linked = spawnSync('cp', ['-al', join(root, 'node_modules'), join(folder, 'node_modules')]).status === 0;
    if (!linked) spawnSync('cp', ['-a', join(root, 'node_modules'), join(folder, 'node_modules')]);
    for (const name of [
      'core',
      'cli',
      'server',
      'web',
      'e2e',
      'scripts',
      'examples',
      'docs',
      'yunta',
      'package.json',
      'package-lock.json',
      'jest.config.js',
      'tsconfig.base.json',
      'eslint.config.js',
      '.npmrc',
    ]) {
      if (existsSync(join(root, name)))
        cpSync(join(root, name), join(folder, name), { recursive: true, preserveTimestamps: true });
    }
    if (owner.uid !== ME.uid) {
      spawnSync('find', [
        folder,
        '-path',
        join(folder, 'node_modules', '*'),
        '-prune',
        '-o',
        '-exec',
        'chown',
        '-h',
        `${owner.uid}:${owner.gid}`,
        '{}',
        '+',
      ]);
      if (!linked) spawnSync('chown', ['-R', `${owner.uid}:${owner.gid}`, join(folder, 'node_modules')]);
    }
    return new Checkout(folder);
  }

  remove(): void {
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A folder for data, owned by a user. */
export const homeOf = (user: User): string => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-home-'));
  chmodSync(folder, 0o755);
  if (amRoot) chownSync(folder, user.uid, user.gid);
  return folder;
};

export interface Answer {
  readonly status: number;
  readonly json: Record<string, unknown>;
}

/** The command, as a user types it in a checkout with a folder for its data. */
export class Yunta {
  private child: ChildProcess | undefined;
  private port = 0;
  said = '';

  constructor(
    readonly checkout: string,
    readonly home: string,
    readonly user: User = ME,
  ) {}

  private get how() {
    // An ordinary user's path: without the folders of system programs.
    const PATH =
      this.user.uid === 0
        ? process.env.PATH
        : [dirname(process.execPath), '/usr/local/bin', '/usr/bin', '/bin'].join(':');
    return {
      env: { ...process.env, PATH, YUNTA_HOME: this.home, YUNTA_CWD: '', HOME: '/nonexistent' },
      ...(amRoot ? this.user : {}),
    };
  }

  /** Runs a command to its end. */
  run(...words: readonly string[]): { readonly status: number | null; readonly text: string } {
    const { status, stdout, stderr } = spawnSync(join(this.checkout, 'yunta'), words, {
      ...this.how,
      encoding: 'utf8',
      timeout: 240_000,
    });
    return { status, text: `${stdout}${stderr}` };
  }

  /**
   * Starts and waits until it says where it is; again at the same address.
   * @throws what it said when it ended before
   */
  async start(): Promise<this> {
    this.port ||= await freePort();
    this.said = '';
    const child = spawn(join(this.checkout, 'yunta'), ['start', '--port', String(this.port)], {
      ...this.how,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child = child;
    await new Promise<void>((ready, ended) => {
      const hear = (piece: Buffer) => {
        this.said += String(piece);
        if (this.said.includes('Yunta is at')) ready();
      };
      child.stdout!.on('data', hear);
      child.stderr!.on('data', hear);
      child.once('exit', (code) => ended(new Error(`start ended with ${code}: ${this.said}`)));
    });
    return this;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** What the lock says runs here. */
  get lock(): { readonly process: { readonly pid: number }; readonly server: number; readonly database: string } {
    return JSON.parse(readFileSync(join(this.home, 'running.json'), 'utf8')) as never;
  }

  databasePid(): number {
    return Number(readFileSync(join(this.home, 'database/m.pid'), 'utf8').trim());
  }

  /** Asks, and asks once more when nothing answers: a connection that was kept from before a start leads nowhere. */
  async ask(path: string, body?: object): Promise<Answer | undefined> {
    return (await this.askOnce(path, body)) ?? this.askOnce(path, body);
  }

  private async askOnce(path: string, body?: object): Promise<Answer | undefined> {
    try {
      const response = await fetch(`${this.url}/api${path}`, {
        signal: AbortSignal.timeout(10_000),
        ...(body
          ? { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }
          : {}),
      });
      return { status: response.status, json: (await response.json()) as Record<string, unknown> };
    } catch {
      return undefined;
    }
  }

  /** Notes something in the demo rig. */
  async note(id: string): Promise<void> {
    const answer = await this.ask('/rigs/island-run/changes', {
      id,
      base: 1,
      label: id,
      put: [{ kind: 'logEntry', id: `logEntry:${id}`, when: '2026-01-01', text: id, about: [] }],
      remove: [],
    });
    if (answer?.status !== 200) throw new Error(`the note was not taken: ${JSON.stringify(answer)}`);
  }

  async notes(): Promise<readonly string[]> {
    const parts = (await this.ask('/rigs/island-run'))!.json.parts as { kind: string; text: string }[];
    return parts
      .filter((p) => p.kind === 'logEntry')
      .map((p) => p.text)
      .sort();
  }

  /** The very process that was started, killed without a word. */
  async kill(): Promise<void> {
    const gone = new Promise((done) => this.child!.once('exit', done));
    this.child!.kill('SIGKILL');
    process.kill(this.lock.process.pid, 'SIGKILL');
    await gone;
  }

  /** Ends whatever of it still runs. */
  async end(): Promise<void> {
    if (this.child && this.child.exitCode === null && this.child.signalCode === null) this.run('stop');
    await wait(100);
    for (const pid of runningWith(this.home)) process.kill(pid, 'SIGKILL');
    rmSync(this.home, { recursive: true, force: true });
  }
}

/** Processes that were started with a path among their words. */
export const runningWith = (path: string): readonly number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        return pid !== process.pid && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(path);
      } catch {
        return false;
      }
    });
