import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { removeDevice } from '@yunta/core/edits/devices';
import { everyPart, partOf, type Rig } from '@yunta/core/rig/rig';
import { Random } from '@yunta/core/testing/random';
import { randomEdit } from '@yunta/core/testing/random-edit';
import { randomRig } from '@yunta/core/testing/random-rig';
import { MemoryServer } from './memory-server.js';
import { Outbox } from './outbox.js';
import { SessionStore } from './store.js';

let count = 0;
let ids = 0;
const open: SessionStore[] = [];
const page = async (server: MemoryServer, name = `page-${(count += 1)}`, rig = 'r'): Promise<SessionStore> => {
  const store = new SessionStore(rig, name, server.api, new Outbox(), () => `id-${(ids += 1)}`, undefined);
  open.push(store);
  await store.open();
  return store;
};
const rename = (store: SessionStore, id: 'sound:01' | 'sound:02', name: string) =>
  store.perform({ put: [{ ...partOf(store.snapshot().session!.rig, id)!, name }], remove: [] }, 'rename');
const name = (rig: Rig, id: 'sound:01' | 'sound:02' = 'sound:01') => partOf(rig, id)!.name;
const until = async (is: () => boolean): Promise<void> => {
  for (let i = 0; i < 400 && !is(); i += 1) await new Promise((r) => setTimeout(r, 20));
  expect(is()).toBe(true);
};
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});
afterEach(() => open.splice(0).forEach((s) => s.close()));

test('an edit is seen at once and reaches the server', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  rename(store, 'sound:01', 'Opening');
  expect(name(store.snapshot().session!.rig)).toBe('Opening');
  await until(() => name(server.rig) === 'Opening' && store.snapshot().session!.waiting.length === 0);
});

test('what is handed on while a change waits is what the server has; a server that is away is not waited for', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  rename(store, 'sound:01', 'Opening');
  const { rig, confirmed, waiting } = await store.toHandOn();
  expect([name(rig), name(confirmed), waiting]).toEqual(['Opening', 'Opening', []]);
  server.away = true;
  rename(store, 'sound:01', 'In the dark');
  const offline = await store.toHandOn();
  expect([name(offline.rig), name(offline.confirmed)]).toEqual(['In the dark', 'Opening']);
});

test('a lost answer: the change is sent again and applied once', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  server.losesAnswers = 2;
  rename(store, 'sound:01', 'Once');
  await until(() => store.snapshot().session!.waiting.length === 0);
  expect(server.journal).toHaveLength(1);
});

test('while the server is away edits wait in the browser; the next page takes them up and sends them', async () => {
  const server = new MemoryServer();
  const store = await page(server, 'first');
  server.away = true;
  rename(store, 'sound:01', 'In the dark');
  await until(() => !store.snapshot().online);
  store.close();
  const again = await page(server, 'second');
  expect(name(again.snapshot().session!.rig)).toBe('In the dark');
  expect(again.snapshot().session!.waiting).toHaveLength(1);
  server.away = false;
  await until(() => name(server.rig) === 'In the dark');
});

test('a rig that any page of this browser kept opens without the server, as new as one of them had it', async () => {
  const server = new MemoryServer();
  const [older, newer] = [await page(server, 'older'), await page(server, 'newer')];
  older.close();
  rename(newer, 'sound:01', 'Kept');
  await until(() => name(server.rig) === 'Kept' && newer.snapshot().session!.waiting.length === 0);
  await newer.atRest();
  newer.close();
  server.away = true;
  for (const next of ['third', 'fourth']) {
    const alone = await page(server, next);
    expect(alone.snapshot()).toMatchObject({ status: 'ready', online: false });
    expect(name(alone.snapshot().session!.rig)).toBe('Kept');
    expect(alone.snapshot().session!.waiting).toEqual([]);
    alone.close();
  }
});

test('two pages: different parts merge, the same field asks, and the choice is kept', async () => {
  const server = new MemoryServer();
  const [one, two] = [await page(server), await page(server)];
  rename(one, 'sound:01', 'One');
  rename(two, 'sound:02', 'Two');
  await until(
    () => name(one.snapshot().session!.rig, 'sound:02') === 'Two' && name(two.snapshot().session!.rig) === 'One',
  );
  server.away = true;
  rename(one, 'sound:01', 'Mine');
  rename(two, 'sound:01', 'Theirs');
  server.away = false;
  await until(() => [one, two].some((s) => s.snapshot().session!.troubles.length === 1));
  const asked = [one, two].find((s) => s.snapshot().session!.troubles.length === 1)!;
  const [trouble] = asked.snapshot().session!.troubles;
  expect(trouble!.clashes[0]).toMatchObject({ part: 'sound:01', field: 'name', base: 'One' });
  expect(new Set([trouble!.clashes[0]!.mine, trouble!.clashes[0]!.theirs])).toEqual(new Set(['Mine', 'Theirs']));
  asked.settle(trouble!, true);
  await until(() => name(server.rig) === trouble!.clashes[0]!.mine);
});

test('who is asked to choose is asked once, however slowly the news comes', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  await until(() => store.snapshot().status === 'ready');
  const { journal } = server.api;
  server.api.journal = async (...asked) => {
    const news = await journal(...asked);
    await new Promise((r) => setTimeout(r, 100));
    return news;
  };
  server.submit({
    id: 'theirs',
    base: 0,
    label: 'rename',
    put: [{ ...partOf(server.rig, 'sound:01')!, name: 'Theirs' }],
    remove: [],
  });
  rename(store, 'sound:01', 'Mine');
  let asked = 0;
  store.subscribe(() => {
    const { session } = store.snapshot();
    const [trouble] = session!.troubles;
    if (!trouble) return;
    asked += 1;
    expect(name(session!.rig)).toBe('Theirs');
    store.settle(trouble, true);
  });
  await until(() => name(server.rig) === 'Mine' && store.snapshot().session!.waiting.length === 0);
  expect([asked, store.snapshot().session!.troubles]).toEqual([1, []]);
});

test('what was asked is asked again after a reload, and mine keeps what they changed besides', async () => {
  const server = new MemoryServer();
  const store = await page(server, 'first');
  server.away = true;
  rename(store, 'sound:01', 'Mine');
  server.submit({
    id: 'theirs',
    base: 0,
    label: 'rename',
    put: [{ ...partOf(server.rig, 'sound:01')!, name: 'Theirs', role: 'lead' }],
    remove: [],
  });
  server.away = false;
  await until(() => store.snapshot().session!.troubles.length === 1);
  await new Promise((r) => setTimeout(r, 50));
  store.close();
  const again = await page(server, 'second');
  const [trouble] = again.snapshot().session!.troubles;
  expect(trouble!.clashes).toEqual([
    { part: 'sound:01', field: 'name', base: 'Verse clean', mine: 'Mine', theirs: 'Theirs' },
  ]);
  again.settle(trouble!, true);
  expect(again.snapshot().session!.troubles).toEqual([]);
  await until(() => name(server.rig) === 'Mine');
  expect(partOf(server.rig, 'sound:01')!.role).toBe('lead');
  again.close();
  await new Promise((r) => setTimeout(r, 50));
  expect((await page(server, 'third')).snapshot().session!.troubles).toEqual([]);
});

test('mine is not let go when it cannot be any more: it says why, and stays to be settled', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  server.away = true;
  store.perform({ put: [{ ...partOf(server.rig, 'program:dly-4')!, name: 'Mine' }], remove: [] }, 'rename');
  server.submit({ id: 'theirs', base: 0, label: 'take away', ...removeDevice(server.rig, 'device:dly') });
  server.away = false;
  await until(() => store.snapshot().session!.troubles.length === 1);
  const [trouble] = store.snapshot().session!.troubles;
  store.settle(trouble!, true);
  expect(store.snapshot().complaint).toContain('device:dly, which is not in the rig');
  expect(store.snapshot().session!.troubles).toEqual([trouble]);
  store.settle(trouble!, false);
  expect(store.snapshot().session!.troubles).toEqual([]);
});

test('what cannot be is said at once and sent nowhere', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  const wrong = store.perform({ put: [], remove: ['device:cmp'] }, 'take away');
  expect(wrong[0]!.code).toBe('reference');
  expect(store.snapshot().complaint).toContain('device:cmp');
  expect(store.snapshot().session!.waiting).toEqual([]);
});

test('undo and redo travel to the server like any change', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  rename(store, 'sound:01', 'New');
  store.undo();
  await until(() => server.journal.length === 2);
  expect(name(server.rig)).toBe('Verse clean');
  store.redo();
  await until(() => server.journal.length === 3);
  expect(name(server.rig)).toBe('New');
});

test('whatever two or three pages do while the server comes and goes, in the end all say the same, each change once', async () => {
  const evening = async (seed: number): Promise<number> => {
    const server = new MemoryServer();
    server.rig = { ...randomRig(seed).rig, revision: 0 };
    server.revisions[0] = server.rig;
    const r = new Random(seed);
    const pages = await Promise.all(
      ['a', 'b', 'c'].slice(0, 2 + (seed % 2)).map((p) => page(server, `${p}${seed}`, `rig-${seed}`)),
    );
    let settled = 0;
    const settle = () =>
      pages.forEach((p) => {
        const [trouble] = p.snapshot().session!.troubles;
        if (!trouble) return;
        settled += 1;
        p.settle(trouble, r.chance(50) && trouble.clashes.length > 0);
      });
    const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
    for (let i = 0; i < 14; i += 1) {
      const one = r.pick(pages);
      if (r.chance(70)) one.perform(randomEdit(r, one.snapshot().session!.rig, `s${seed}e${i}`), 'edit');
      else if (r.chance(30)) one.undo();
      else if (r.chance(50)) server.away = !server.away;
      else server.losesAnswers = 1;
      if (r.chance(30)) settle();
      if (r.chance(40)) await wait(r.int(0, 400));
    }
    server.away = false;
    const isQuiet = () =>
      pages.every(
        ({ snapshot }) =>
          snapshot().session!.waiting.length === 0 &&
          snapshot().session!.troubles.length === 0 &&
          snapshot().session!.confirmed.revision === server.rig.revision,
      );
    for (let i = 0; i < 120 && !isQuiet(); i += 1) {
      settle();
      await wait(100);
    }
    const parts = (rig: Rig) => Object.fromEntries(everyPart(rig).map((p) => [p.id, p]));
    for (const { snapshot } of pages) expect(parts(snapshot().session!.rig)).toEqual(parts(server.rig));
    expect(isQuiet()).toBe(true);
    expect(new Set(server.journal.map((j) => j.id)).size).toBe(server.journal.length);
    return settled;
  };
  const settled = await Promise.all(Array.from({ length: 24 }, (_, i) => evening(i + 1)));
  expect(settled.reduce((sum, n) => sum + n, 0)).toBeGreaterThan(0);
}, 60_000);
