import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { amRoot, Checkout, homeOf, ME, ORDINARY, runningWith, STRANGER, Yunta, type User } from './yunta.js';

/** What only root can try: being somebody else. */
const asRoot = amRoot ? describe : describe.skip;
const USERS: readonly (readonly [string, User])[] = amRoot
  ? [
      ['root', ME],
      ['an ordinary user', ORDINARY],
    ]
  : [['an ordinary user', ME]];

let checkout: Checkout;
const open: Yunta[] = [];
const yunta = (home: string, user: User, from = checkout): Yunta => {
  const made = new Yunta(from.folder, home, user);
  open.push(made);
  return made;
};
beforeAll(() => {
  checkout = Checkout.for(ME);
}, 120_000);
afterEach(async () => {
  for (const one of open.splice(0)) await one.end();
}, 120_000);
afterAll(() => checkout.remove());

describe.each(USERS)('the whole life of a folder of %s', (_, user) => {
  test('start, change, stop, start, kill, start, backup, reset-demo, restore', async () => {
    const y = yunta(homeOf(user), user);
    await y.start();
    await y.note('first');
    expect(y.run('stop').text).toContain('Yunta has stopped.');
    expect(runningWith(join(y.home, 'database'))).toEqual([]);
    await y.start();
    expect(await y.notes()).toEqual(['first']);
    await y.note('second');
    await y.kill();
    await y.start();
    expect(y.said).toContain('that an earlier Yunta left running');
    expect(await y.notes()).toEqual(['first', 'second']);
    expect(y.run('start').text).toContain('Yunta runs already in this folder');
    const file = join(y.home, 'mine.gz');
    expect(y.run('backup', file).text).toMatch(/mine\.gz holds 3 rigs \(Island run, .*\), 5 changes/);
    expect(y.run('reset-demo').text).toContain('island-run is as it was shipped');
    expect(await y.notes()).toEqual([]);
    expect(y.run('restore', file, '--yes').text).toContain('Yunta runs already');
    y.run('stop');
    const restored = y.run('restore', file, '--yes');
    expect(restored.text).toMatch(
      /Here now: 3 rigs .*\nThe backup of .* holds 3 rigs .*, 5 changes.*takes its place\.\nRestored/,
    );
    await y.start();
    expect(await y.notes()).toEqual(['first', 'second']);
    expect(readdirSync(join(y.home, 'database')).filter((n) => n.startsWith('data.before-restore'))).toHaveLength(1);
  }, 240_000);

  test('the database is closed to everybody else', async () => {
    const y = yunta(homeOf(user), user);
    await y.start();
    const database = join(y.home, 'database');
    const mode = (path: string) => (statSync(path).mode & 0o777).toString(8);
    expect([
      mode(database),
      mode(join(database, 'data')),
      mode(join(database, 'secret.json')),
      mode(join(y.home, 'backups')),
    ]).toEqual(['700', '700', '600', '700']);
    const words = readFileSync(`/proc/${y.databasePid()}/cmdline`, 'utf8').split('\0');
    expect(words).toEqual(
      expect.arrayContaining([
        '--skip-networking',
        '--local-infile=0',
        `--secure-file-priv=${join(database, 'closed')}`,
      ]),
    );
    expect(statSync(`/proc/${y.databasePid()}`).uid).not.toBe(0);
    const { password, socket } = JSON.parse(readFileSync(join(database, 'secret.json'), 'utf8')) as {
      password: string;
      socket: string;
    };
    const sql = (name: string, text: string, as: Partial<User> = {}) =>
      spawnSync(
        'mariadb',
        ['--no-defaults', `--socket=${socket}`, `--user=${name}`, '--batch', '--skip-column-names', '--execute', text],
        { encoding: 'utf8', env: { ...process.env, MYSQL_PWD: name === 'yunta' ? password : '' }, ...as },
      );
    expect(sql('yunta', 'SHOW DATABASES').stdout.trim().split('\n').sort()).toEqual(['information_schema', 'yunta']);
    expect(sql('yunta', 'SHOW GRANTS').stdout.match(/GRANT .*? ON/g)).toEqual([
      'GRANT USAGE ON',
      'GRANT SELECT, INSERT, UPDATE, DELETE, CREATE, DROP, REFERENCES, INDEX, ALTER ON',
    ]);
    for (const text of [
      "SELECT 1 INTO OUTFILE '/tmp/yunta-written'",
      "SELECT LOAD_FILE('/etc/passwd')",
      'SELECT * FROM mysql.global_priv',
      "CREATE USER 'x'@'localhost'",
    ])
      expect([text, sql('yunta', text).status === 0 && sql('yunta', text).stdout.trim() !== 'NULL']).toEqual([
        text,
        false,
      ]);
    for (const name of ['root', 'mysql', '', 'mariadb.sys'])
      expect([name, sql(name, 'SELECT 1').status]).not.toEqual([name, 0]);
    if (!amRoot) return;
    for (const name of ['root', 'yunta', 'mysql'])
      expect(sql(name, 'SELECT 1', STRANGER).stderr).toContain("Can't connect");
    expect(spawnSync('ls', [database], { ...STRANGER, encoding: 'utf8' }).stderr).toContain('Permission denied');
  }, 120_000);
});

asRoot('a folder that is used by several', () => {
  test('what root starts in an ordinary user’s folder that user starts again', async () => {
    const home = homeOf(ORDINARY);
    const root = yunta(home, ME);
    await root.start();
    await root.note('by-root');
    expect(statSync(`/proc/${root.databasePid()}`).uid).toBe(ORDINARY.uid);
    root.run('stop');
    const theirs = yunta(home, ORDINARY);
    await theirs.start();
    expect(await theirs.notes()).toEqual(['by-root']);
    await theirs.note('by-them');
    await theirs.kill();
    await root.start();
    expect(await root.notes()).toEqual(['by-root', 'by-them']);
  }, 240_000);

  test('the program’s own folder belongs to an ordinary user: root runs it for them, and they go on', async () => {
    const own = Checkout.for(ORDINARY);
    try {
      const home = join(own.folder, '.yunta');
      const root = yunta(home, ME, own);
      await root.start();
      await root.note('by-root');
      expect([
        statSync(`/proc/${root.lock.process.pid}`).uid,
        statSync(home).uid,
        statSync(join(home, 'backups')).uid,
      ]).toEqual([ORDINARY.uid, ORDINARY.uid, ORDINARY.uid]);
      root.run('stop');
      const theirs = yunta(home, ORDINARY, own);
      await theirs.start();
      expect(await theirs.notes()).toEqual(['by-root']);
      theirs.run('stop');
      expect(theirs.run('test', 'core/src/units').text).toMatch(/\d+ passed, 0 failed/);
    } finally {
      for (const one of open.splice(0)) await one.end();
      own.remove();
    }
  }, 300_000);

  test('a folder of root’s is not an ordinary user’s to start: said in words, with what to do', async () => {
    const home = homeOf(ME);
    const root = yunta(home, ME);
    await root.start();
    const { status, text } = yunta(home, ORDINARY).run('start');
    expect([status, text]).toEqual([1, expect.stringMatching(/belongs to another user.*YUNTA_HOME/)]);
    expect(yunta(home, ORDINARY).run('stop').text).toContain('belongs to another user');
    root.run('stop');
    expect(yunta(home, ORDINARY).run('start').text).toMatch(/may not do that there|belongs to/);
    expect(runningWith(join(home, 'database'))).toEqual([]);
  }, 120_000);

  test('a folder of root’s that no other user may enter: the database lies where its own user can, and all commands find it', async () => {
    const home = homeOf(ME);
    chmodSync(home, 0o700);
    const y = yunta(home, ME);
    await y.start();
    const { database } = y.lock;
    try {
      expect(y.said).toContain(`its data lies in ${database}`);
      expect([dirname(database), statSync(database).uid === 0, (statSync(database).mode & 0o777).toString(8)]).toEqual([
        '/var/lib/yunta',
        false,
        '700',
      ]);
      await y.note('there');
      expect(y.run('backup', join(home, 'b.gz')).text).toContain('4 changes');
      y.run('stop');
      expect(y.run('restore', join(home, 'b.gz'), '--yes').text).toContain('Here now: 3 rigs');
      await y.start();
      expect(await y.notes()).toEqual(['there']);
      y.run('stop');
    } finally {
      rmSync(database, { recursive: true, force: true });
    }
  }, 120_000);

  test('two users, one folder: the second is told who is at work', async () => {
    const home = homeOf(ORDINARY);
    await yunta(home, ORDINARY).start();
    expect(yunta(home, ME).run('start').text).toMatch(/Yunta runs already in this folder at http:\/\/127.0.0.1:\d+/);
    expect(yunta(home, STRANGER).run('start').text).toContain('belongs to another user');
    expect(yunta(home, ME).run('stop').text).toContain('Yunta has stopped.');
  }, 120_000);
});

describe('data folders of older versions', () => {
  test('one whose only login was closed by its first start opens again, with its rigs; the open logins are gone', async () => {
    const y = yunta(homeOf(ORDINARY), ORDINARY);
    await y.start();
    await y.note('kept');
    y.run('stop');
    const database = join(y.home, 'database');
    const log = join(database, 'old.sql');
    // As it was left: root on the socket, root with an empty password on loopback and under the host's name, the
    // application with everything.
    writeFileSync(
      log,
      [
        "CREATE USER 'root'@'localhost' IDENTIFIED VIA unix_socket;",
        "CREATE USER 'root'@'127.0.0.1';",
        "CREATE USER 'root'@'somehost';",
        "GRANT ALL ON *.* TO 'root'@'127.0.0.1' WITH GRANT OPTION;",
        "GRANT ALL ON *.* TO 'yunta'@'localhost';",
        "ALTER USER 'yunta'@'localhost' IDENTIFIED BY 'lost';",
        'SHUTDOWN;',
        '',
      ].join('\n'),
    );
    const run = spawnSync(
      'mariadbd',
      [
        '--no-defaults',
        `--datadir=${join(database, 'data')}`,
        `--socket=${join(database, 'old.sock')}`,
        '--skip-networking',
        `--init-file=${log}`,
      ],
      { ...(amRoot ? ORDINARY : {}), cwd: '/', encoding: 'utf8', timeout: 60_000 },
    );
    expect(run.status).toBe(0);
    rmSync(log);
    await y.start();
    expect(await y.notes()).toEqual(['kept']);
    const { password, socket } = JSON.parse(readFileSync(join(database, 'secret.json'), 'utf8')) as {
      password: string;
      socket: string;
    };
    const logins = spawnSync(
      'mariadb',
      ['--no-defaults', `--socket=${socket}`, '--user=root', '--execute', 'SELECT 1'],
      { encoding: 'utf8' },
    );
    expect(logins.stderr).toContain('Access denied');
    expect(
      spawnSync(
        'mariadb',
        ['--no-defaults', `--socket=${socket}`, '--user=yunta', '--execute', 'SELECT * FROM mysql.global_priv'],
        { encoding: 'utf8', env: { ...process.env, MYSQL_PWD: password } },
      ).stderr,
    ).toContain('denied');
  }, 120_000);

  test('one that was half made is set aside and made anew', async () => {
    const y = yunta(homeOf(ORDINARY), ORDINARY);
    await y.start();
    y.run('stop');
    rmSync(join(y.home, 'database/made'));
    await y.start();
    expect(y.said).toContain('The data folder was half made');
    expect(readdirSync(join(y.home, 'database')).some((n) => n.startsWith('data.half-made'))).toBe(true);
  }, 120_000);
});

describe('what a lock says', () => {
  test('a number that another process got since, and a lock that came with a copied folder, are not taken for a Yunta that runs', async () => {
    const y = yunta(homeOf(ORDINARY), ORDINARY);
    await y.start();
    const lock = y.lock;
    y.run('stop');
    const mine = { ...lock, process: { ...lock.process, pid: process.pid } };
    writeFileSync(join(y.home, 'running.json'), JSON.stringify(mine));
    expect(y.run('stop').text).toContain('Yunta does not run here.');
    const other = yunta(homeOf(ORDINARY), ORDINARY);
    await other.start();
    writeFileSync(join(y.home, 'running.json'), readFileSync(join(other.home, 'running.json')));
    expect(y.run('stop').text).toContain('Yunta does not run here.');
    expect((await other.ask('/health'))?.status).toBe(200);
    await y.start();
    expect([await y.ask('/health'), await other.ask('/health')].map((a) => a?.status)).toEqual([200, 200]);
  }, 120_000);
});

describe('what stands in the way is said once, in words', () => {
  test('an application that ends again and again is given up', async () => {
    const y = yunta(homeOf(ORDINARY), ORDINARY);
    await y.start();
    const isOf = (pid: number): boolean => readFileSync(`/proc/${pid}/environ`, 'utf8').includes(y.home);
    for (let ends = 0; ends < 6; ends += 1) {
      let server: number | undefined;
      while (server === undefined) {
        server = runningWith('server/dist/main.js').find(isOf);
        if (server === undefined) await wait(50);
      }
      process.kill(server, 'SIGKILL');
      while (runningWith('server/dist/main.js').includes(server)) await wait(20);
    }
    for (let i = 0; i < 100 && existsSync(join(y.home, 'running.json')); i += 1) await wait(200);
    expect(y.said).toContain('ends again and again and is not started any more');
    expect(runningWith(join(y.home, 'database'))).toEqual([]);
  }, 120_000);
});
