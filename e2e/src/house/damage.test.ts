import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  closeSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { amRoot, Checkout, homeOf, ME, ORDINARY, runningWith, Yunta } from './yunta.js';

let checkout: Checkout;
const open: Yunta[] = [];
const yunta = (home = homeOf(ORDINARY)): Yunta => {
  const made = new Yunta(checkout.folder, home, ORDINARY);
  open.push(made);
  return made;
};
afterEach(async () => {
  for (const one of open.splice(0)) await one.end();
}, 60_000);
afterAll(() => checkout.remove());

let history: Yunta;
beforeAll(async () => {
  checkout = Checkout.for(ME);
  history = new Yunta(checkout.folder, homeOf(ORDINARY), ORDINARY);
  await history.start();
  await history.note('backed-up');
  history.run('stop');
  await history.start();
  await history.note('later');
  history.run('stop');
}, 240_000);
afterAll(() => history.end());

/** A Yunta with a note that its backup has and a later one that it has not, stopped. */
const withHistory = async (): Promise<Yunta> => {
  const y = yunta();
  spawnSync('cp', ['-a', `${history.home}/.`, y.home]);
  return y;
};
/** Writes nonsense over the middle of a file. */
const damage = (file: string, from = 0.3, length = 48_000): void => {
  const handle = openSync(file, 'r+');
  writeSync(handle, Buffer.alloc(length, 0xa5), 0, length, Math.floor((statSync(file).size * from) / 16_384) * 16_384);
  closeSync(handle);
};
/** What is printed must be words, with what to do. */
const inWords = (text: string): void => {
  expect(text).not.toMatch(/\n\s+at |node:internal|Error:|errno|\bundefined\b/);
};
const newestBackup = (y: Yunta): string => join(y.home, 'backups', readdirSync(join(y.home, 'backups')).sort().at(-1)!);

describe('a database that cannot be read', () => {
  test.each<[string, RegExp, (data: string) => void]>([
    ['its own log is lost', /own log .* is lost|cannot be read/, (data) => rmSync(join(data, 'ib_logfile0'))],
    ['its own log is nonsense', /own log|damaged/, (data) => damage(join(data, 'ib_logfile0'), 0, 16_384)],
    ['its heart is nonsense', /damaged/, (data) => damage(join(data, 'ibdata1'), 0, 96_000)],
  ])(
    '%s: said in words with the newest backup to go back to, which then works',
    async (_, says, harm) => {
      const y = await withHistory();
      harm(join(y.home, 'database/data'));
      const before = readdirSync(join(y.home, 'database/data')).length;
      const failed = y.run('start');
      expect(failed.status).toBe(1);
      expect(failed.text).toMatch(says);
      expect(failed.text).toContain(`./yunta restore ${newestBackup(y)}`);
      inWords(failed.text);
      expect(runningWith(join(y.home, 'database'))).toEqual([]);
      expect(readdirSync(join(y.home, 'database/data')).length).toBeGreaterThanOrEqual(before - 1);
      const restored = y.run('restore', newestBackup(y), '--yes');
      expect(restored.text).toMatch(/Here now: data that cannot be read[\s\S]*Restored: 3 rigs[\s\S]*set aside in /);
      inWords(restored.text);
      await y.start();
      expect(await y.notes()).toEqual(['backed-up']);
    },
    180_000,
  );

  test('a table is nonsense: it starts as far as it can, says so, and its health is the truth', async () => {
    const y = await withHistory();
    const backup = newestBackup(y);
    damage(join(y.home, 'database/data/yunta/log_entry.ibd'), 0, 200_000);
    const started = await y.start().catch((e: Error) => e.message);
    const said = typeof started === 'string' ? started : y.said;
    expect(said).toMatch(/No backup could be made|damaged|cannot be read/);
    if (typeof started !== 'string') {
      const answer = (await y.ask('/rigs/island-run'))!;
      expect([answer.status, answer.json.type]).toEqual([503, 'urn:yunta:damaged']);
      expect(String(answer.json.detail)).toContain('./yunta restore');
      y.run('stop');
    }
    expect(y.run('restore', backup, '--yes').text).toContain('Restored');
    await y.start();
    expect(await y.notes()).toEqual(['backed-up']);
    expect((await y.ask('/health'))?.status).toBe(200);
  }, 180_000);

  test('a backup that was cut off or is none replaces nothing', async () => {
    const y = await withHistory();
    const cut = join(y.home, 'cut.gz');
    const whole = readFileSync(newestBackup(y));
    writeFileSync(cut, whole.subarray(0, whole.length / 2));
    expect(y.run('restore', cut, '--yes')).toEqual({ status: 2, text: expect.stringContaining('it was cut off') });
    writeFileSync(cut, 'no backup');
    expect(y.run('restore', cut, '--yes').text).toContain('cannot be read as a backup');
    expect(y.run('restore', join(y.home, 'nowhere'), '--yes').text).toContain('There is no file');
    expect(y.run('restore').text).toContain(`./yunta restore ${newestBackup(y)}`);
    await y.start();
    expect(await y.notes()).toEqual(['backed-up', 'later']);
  }, 120_000);
});

describe('a database that hangs', () => {
  test('for twenty seconds: its health says so, nothing is lost, and what was asked is answered afterwards', async () => {
    const y = await yunta().start();
    process.kill(y.databasePid(), 'SIGSTOP');
    const waiting = y.note('meanwhile').then(
      () => 'taken',
      () => 'not answered',
    );
    const health = await y.ask('/health');
    expect([health?.status, health?.json.type]).toEqual([503, 'urn:yunta:database']);
    await wait(15_000);
    process.kill(y.databasePid(), 'SIGCONT');
    if ((await waiting) !== 'taken') await y.note('meanwhile');
    expect(await y.notes()).toEqual(['meanwhile']);
    expect((await y.ask('/health'))?.status).toBe(200);
  }, 120_000);
});

/** A small disk of memory, where root may make one. */
const smallDisk = (megabytes: number): string | undefined => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-disk-'));
  if (!amRoot || spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', folder]).status !== 0)
    return undefined;
  chmodSync(folder, 0o755);
  chownSync(folder, ORDINARY.uid, ORDINARY.gid);
  return folder;
};
const fill = (disk: string): string => {
  const file = join(disk, 'fill');
  spawnSync('dd', ['if=/dev/zero', `of=${file}`, 'bs=1M'], { stdio: 'ignore' });
  return file;
};

describe('a full disk', () => {
  let disk: string | undefined;
  beforeEach(() => {
    disk = smallDisk(280);
  });
  afterEach(() => {
    if (disk) spawnSync('umount', ['-l', disk]);
  });

  test('at the start: said with the place, and nothing is left running or half made', () => {
    if (!disk) return console.warn('no disk of its own could be made: left out');
    const home = join(disk, 'home');
    mkdirSync(home);
    chownSync(home, ORDINARY.uid, ORDINARY.gid);
    const file = fill(disk);
    const full = yunta(home).run('start');
    expect(full.status).toBe(1);
    expect(full.text).toMatch(/full[\s\S]*Free some space/i);
    inWords(full.text);
    expect(runningWith(home)).toEqual([]);
    rmSync(file);
    expect(existsSync(join(home, 'database/data'))).toBe(false);
  }, 60_000);

  test('while it runs: changes wait and are not lost, health says so, no circle of starts; with room again all goes on by itself', async () => {
    if (!disk) return console.warn('no disk of its own could be made: left out');
    const home = join(disk, 'home');
    mkdirSync(home);
    chownSync(home, ORDINARY.uid, ORDINARY.gid);
    const y = await yunta(home).start();
    await y.note('before');
    const file = fill(disk);
    const big = (id: string) =>
      y.ask('/rigs/island-run/changes', {
        id,
        base: 1,
        label: id,
        put: Array.from({ length: 60 }, (_, k) => ({
          kind: 'logEntry',
          id: `logEntry:${id}-${k}`,
          when: '2026',
          text: id.padEnd(19_000, '.'),
          about: [],
        })),
        remove: [],
      });
    const acknowledged: string[] = [];
    let said: Record<string, unknown> | undefined;
    for (let i = 0; i < 40 && !said; i += 1) {
      const answer = await big(`big-${i}`);
      if (answer?.status === 200) acknowledged.push(`big-${i}`);
      else if (answer) said = { status: answer.status, ...answer.json };
    }
    expect(said).toMatchObject({ status: 503, type: 'urn:yunta:disk-full', detail: expect.stringContaining(home) });
    expect((await y.ask('/health'))?.json).toMatchObject({ type: 'urn:yunta:disk-full' });
    await wait(3000);
    expect(y.said.match(/started again by itself/g)?.length ?? 0).toBeLessThanOrEqual(1);
    rmSync(file);
    for (let i = 0; i < 100 && (await y.ask('/health'))?.status !== 200; i += 1) await wait(200);
    await y.note('after');
    const notes = await y.notes();
    for (const id of acknowledged) expect(notes.filter((n) => n.startsWith(`${id}.`))).toHaveLength(60);
    expect(notes).toEqual(expect.arrayContaining(['before', 'after']));
    inWords(y.said);
  }, 180_000);
});
