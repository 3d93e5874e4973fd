import { fork, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { freePort } from './server.js';

const root = resolve(__dirname, '../..');
/** Kills of the database and of the server, each; `npm run verify` makes it fifty. */
const KILLS = Number(process.env.YUNTA_KILLS ?? 3);

const folder = mkdtempSync(join(tmpdir(), 'yunta-kill-'));
let keeper: ChildProcess;
let server: ChildProcess | undefined;
let database: { pidFile: string } & Record<string, string>;
let port: number;
let ending = false;

const startServer = async (): Promise<void> => {
  server = fork(join(root, 'server/dist/main.js'), [], { env: { ...process.env, ...database, YUNTA_PORT: String(port), YUNTA_DB_NAME: 'yunta' }, stdio: ['ignore', 'ignore', 'ignore', 'ipc'], execArgv: ['--no-warnings'] });
  const mine = server;
  mine.once('exit', () => { if (!ending) void wait(50).then(startServer); });
  await new Promise<void>((ready) => { mine.once('message', () => ready()); mine.once('exit', () => ready()); });
};

beforeAll(async () => {
  keeper = spawn(process.execPath, [join(root, 'scripts/house/database-apart.mjs'), folder], { stdio: ['pipe', 'pipe', 'ignore'] });
  database = JSON.parse(await new Promise<string>((line) => keeper.stdout!.once('data', (d: Buffer) => line(String(d)))));
  port = await freePort();
  await startServer();
}, 90_000);
afterAll(async () => {
  ending = true;
  server?.kill('SIGKILL');
  const gone = new Promise((done) => keeper.once('exit', done));
  keeper.kill('SIGTERM');
  await gone;
  rmSync(folder, { recursive: true, force: true });
}, 60_000);

const call = async (path: string, body?: unknown): Promise<{ status: number; json: unknown } | undefined> => {
  try {
    const response = await fetch(`http://127.0.0.1:${port}/api/rigs/island-run${path}`, { signal: AbortSignal.timeout(4000), ...(body ? { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}) });
    return { status: response.status, json: await response.json() };
  } catch {
    return undefined;
  }
};
const whenBack = async (path: string): Promise<unknown> => {
  for (let i = 0; i < 600; i += 1) {
    const answer = await call(path);
    if (answer?.status === 200) return answer.json;
    await wait(100);
  }
  throw new Error('the server did not come back within a minute');
};

test(`kill -9 of database and server, ${KILLS} times each, while changes stream in`, async () => {
  const acknowledged: string[] = [];
  const sent: string[] = [];
  let streaming = true;
  /** Sends changes of two parts each, repeating the same one until it is answered, as the browser does. */
  const stream = async (name: string): Promise<void> => {
    for (let n = 0; streaming; n += 1) {
      const id = `${name}-${n}`;
      sent.push(id);
      const half = (h: string) => ({ kind: 'logEntry', id: `logEntry:${id}-${h}`, when: '2026-01-01', text: id, about: [] });
      for (;;) {
        const answer = await call('/changes', { id, base: 1, label: id, put: [half('a'), half('b')], remove: [] });
        if (answer?.status === 200) {
          acknowledged.push(id);
          break;
        }
        if (answer && answer.status < 500) throw new Error(JSON.stringify(answer.json));
        if (!streaming) return;
        await wait(20);
      }
    }
  };
  const streams = ['x', 'y', 'z'].map(stream);
  let seed = 12_345;
  const random = (most: number) => { seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648; return seed % most; };
  for (let i = 0; i < KILLS * 2; i += 1) {
    await whenBack('/journal?after=0&most=1');
    await wait(50 + random(700));
    if (i % 2) server!.kill('SIGKILL');
    else process.kill(Number(readFileSync(database.pidFile, 'utf8').trim()), 'SIGKILL');
    await wait(random(200));
  }
  await whenBack('/journal?after=0&most=1');
  await wait(500);
  streaming = false;
  await Promise.all(streams);

  const { revision, parts } = await whenBack('') as { revision: number; parts: { id: string }[] };
  const journaled: { id: string; revision: number; delta: { id: string }[] }[] = [];
  for (;;) {
    const { entries, more } = await whenBack(`/journal?after=${journaled.at(-1)?.revision ?? 0}&most=500`) as { entries: typeof journaled; more: boolean };
    journaled.push(...entries);
    if (!more) break;
  }
  const ids = journaled.map((j) => j.id).filter((id) => /^[xyz]-/.test(id));
  const there = new Set(parts.map((p) => p.id));
  expect(acknowledged.filter((id) => !ids.includes(id))).toEqual([]);
  expect(new Set(ids).size).toBe(ids.length);
  expect(ids.filter((id) => !sent.includes(id))).toEqual([]);
  expect(journaled.map((j) => j.revision)).toEqual(Array.from({ length: revision }, (_, i) => i + 1));
  for (const { id, delta } of journaled.filter((j) => /^[xyz]-/.test(j.id))) {
    expect(delta.map((d) => d.id)).toEqual([`logEntry:${id}-a`, `logEntry:${id}-b`]);
    expect([there.has(`logEntry:${id}-a`), there.has(`logEntry:${id}-b`)]).toEqual([true, true]);
  }
  expect([...there].filter((id) => id.startsWith('logEntry:')).length).toBe(ids.length * 2);
  console.info(`${acknowledged.length} changes acknowledged over ${KILLS} kills of the database and ${KILLS} of the server`);
  expect(acknowledged.length).toBeGreaterThan(KILLS);
}, KILLS * 20_000 + 120_000);
