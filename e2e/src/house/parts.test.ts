import { spawnSync } from 'node:child_process';
import { resolve } from 'node:path';

const house = resolve(__dirname, '../../../scripts/house');

/** What a part of the house says, asked in a process of its own: the commands run before anything is built. */
const ask = (file: string, expression: string): unknown => {
  const { stdout, stderr, status } = spawnSync(
    process.execPath,
    [
      '--input-type=module',
      '--eval',
      `const m = await import('${house}/${file}.mjs'); console.log(JSON.stringify(await (async () => (${expression}))()));`,
    ],
    { encoding: 'utf8' },
  );
  if (status !== 0) throw new Error(stderr);
  return JSON.parse(stdout);
};

describe('which backups are kept', () => {
  const names = (...days: readonly string[]) => JSON.stringify(days.map((d) => `${d}.yunta-backup.gz`));
  test('seven, the oldest go', () => {
    const days = Array.from({ length: 9 }, (_, i) => `2026-01-0${i + 1}T10-00-00`);
    expect(ask('backup', `m.superfluous(${names(...days)})`)).toEqual([
      '2026-01-01T10-00-00.yunta-backup.gz',
      '2026-01-02T10-00-00.yunta-backup.gz',
    ]);
  });
  test('seven starts in one evening do not push out last week', () => {
    const evening = Array.from({ length: 7 }, (_, i) => `2026-01-09T2${Math.floor(i / 6)}-0${i % 6}-00`);
    const gone = ask(
      'backup',
      `m.superfluous(${names('2026-01-02T10-00-00', '2026-01-05T10-00-00', ...evening)})`,
    ) as string[];
    expect(gone).toEqual(evening.slice(0, 2).map((n) => `${n}.yunta-backup.gz`));
  });
  test('a clock that was set back makes the newest look old: it counts as long ago, so that one is made', () => {
    expect(ask('backup', 'm.backupAge(0) > m.A_DAY')).toBe(true);
  });
});

describe('what a database’s log means', () => {
  test.each([
    ['[ERROR] InnoDB: preallocating 98304 bytes for file ./x.ibd failed with error 28', 'full'],
    ['mariadbd: Disk is full writing', 'full'],
    ['[ERROR] InnoDB: Unable to lock ./ibdata1 error: 11', 'in use'],
    ['[ERROR] InnoDB: File ./ib_logfile0 was not found', 'log lost'],
    ['InnoDB: Database page corruption on disk or a failed read', 'damaged'],
    ['Can\'t create test file (Errcode: 13 "Permission denied")', 'not allowed'],
    ['InnoDB: Unsupported redo log format.', 'newer'],
  ])('%s', (line, matter) => expect(ask('damage', `m.matterOf(${JSON.stringify(line)})`)).toBe(matter));
  test('each has words that say what to do', () => {
    const texts = ask(
      'damage',
      "['full', 'in use', 'newer', 'log lost', 'damaged', 'not allowed', undefined].map((x) => m.matterInWords(x, { folder: '/f', log: '/f/l', backup: '/b/1' }))",
    ) as string[];
    for (const text of texts) expect(text).toMatch(/start|restore|[Ss]top|Install/);
  });
});

describe('what goes in a circle', () => {
  test('five ends within a minute are mended, with longer and longer pauses; the sixth is said', () => {
    expect(
      ask(
        'again',
        '(() => { let t = 0; const e = new m.Endings(5, 60000, () => t); return Array.from({ length: 6 }, () => { t += 5000; return e.next() ?? "no"; }); })()',
      ),
    ).toEqual([0, 250, 500, 750, 1000, 'no']);
  });
  test('five ends an hour apart are nothing to speak of', () => {
    expect(
      ask(
        'again',
        '(() => { let t = 0; const e = new m.Endings(5, 60000, () => t); return Array.from({ length: 9 }, () => { t += 3600000; return e.next() ?? "no"; }); })()',
      ),
    ).toEqual(Array(9).fill(0));
  });
});

test('a process is told from a later one with its number', () => {
  expect(
    ask(
      'processes',
      '[m.runs(m.processOf(process.pid)), m.runs({ ...m.processOf(process.pid), start: "1" }), m.runs({ ...m.processOf(process.pid), boot: "another" }), m.runs({ pid: 999999999, start: "1", boot: "" }), m.runs(undefined)]',
    ),
  ).toEqual([true, false, false, false, false]);
});
