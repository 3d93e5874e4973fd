import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { addDevice, changeDevice } from '@yunta/core/edits/devices';
import { asNote } from '@yunta/core/change/mend';
import type { Edit } from '@yunta/core/change/edit';
import { partOf, type Rig } from '@yunta/core/rig/rig';
import { Away, Failing } from './api.js';
import { MemoryServer } from './memory-server.js';
import { Outbox } from './outbox.js';
import { SessionStore } from './store.js';
import { Sender, waitingRigs } from './waiting-rigs.js';

let ids = 0;
const newId = () => `id-${(ids += 1)}`;
const open: { close: () => void }[] = [];
const page = async (server: MemoryServer, outbox = new Outbox(), rig = 'r'): Promise<SessionStore> => {
  const store = new SessionStore(rig, newId(), server.api, outbox, newId, undefined);
  open.push(store);
  await store.open();
  return store;
};
const rename = (rig: Rig, id: 'sound:01' | 'sound:02' | 'sound:03', name: string): Edit => ({
  put: [{ ...partOf(rig, id)!, name }],
  remove: [],
});
const rigOfPage = (store: SessionStore): Rig => store.snapshot().session!.rig;
const until = async (is: () => boolean): Promise<void> => {
  for (let i = 0; i < 1000 && !is(); i += 1) await new Promise((r) => setTimeout(r, 20));
  expect(is()).toBe(true);
};
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});
afterEach(() => open.splice(0).forEach((s) => s.close()));

/** The server fails at every change whose label says so. */
const failingAt = (
  server: MemoryServer,
  label: string,
  error: () => Error = () => new Failing(500, { title: 'A fault', detail: 'A fault in Yunta.' }),
) => {
  const { send } = server.api;
  const tries = { count: 0 };
  server.api.send = async (rig, set) => {
    if (set.label !== label) return send(rig, set);
    tries.count += 1;
    throw error();
  };
  return tries;
};

test('a change at which the server fails three times is set aside with its values; the rest goes on', async () => {
  const server = new MemoryServer();
  const tries = failingAt(server, 'bad');
  const store = await page(server);
  store.perform(rename(rigOfPage(store), 'sound:01', 'Bad'), 'bad');
  store.perform(rename(rigOfPage(store), 'sound:02', 'Good'), 'good');
  await until(() => partOf(server.rig, 'sound:02')!.name === 'Good');
  const { session } = store.snapshot();
  expect(tries.count).toBe(3);
  expect(session!.troubles).toMatchObject([
    { set: { label: 'bad' }, refusals: [{ wrong: expect.stringContaining('The server tried three times') }] },
  ]);
  expect(session!.troubles[0]!.delta.get('sound:01')!.after).toMatchObject({ name: 'Bad' });
  expect(partOf(rigOfPage(store), 'sound:01')!.name).toBe('Verse clean');
  await until(() => store.snapshot().online);
  store.perform(rename(rigOfPage(store), 'sound:03', 'Later'), 'later');
  await until(() => partOf(server.rig, 'sound:03')!.name === 'Later');
});

test('what cannot stand without it is set aside too, and says what it was built on', async () => {
  const server = new MemoryServer();
  failingAt(server, 'Add a drive');
  const store = await page(server);
  store.perform(addDevice(rigOfPage(store), 'low-drive', 'device:new'), 'Add a drive');
  store.perform(changeDevice(partOf(rigOfPage(store), 'device:new')!, { name: 'Mine' }), 'Name the drive');
  store.perform(
    {
      put: [{ kind: 'cable', id: 'cable:new', hookup: 'hookup:ballroom', ends: ['device:new.in', 'device:new.out'] }],
      remove: [],
    },
    'Plug the drive',
  );
  store.perform(rename(rigOfPage(store), 'sound:02', 'Apart'), 'apart');
  await until(() => store.snapshot().session!.troubles.length === 3);
  const after = store.snapshot().session!.troubles.map((t) => [t.set.label, t.after]);
  expect(after).toEqual([
    ['Add a drive', undefined],
    ['Name the drive', 'Add a drive'],
    ['Plug the drive', 'Add a drive'],
  ]);
  for (const { refusals, clashes } of store.snapshot().session!.troubles.slice(1))
    expect([clashes, refusals[0]!.wrong]).toEqual([[], expect.stringMatching(/“Add a drive”|device:new/)]);
  await until(() => partOf(server.rig, 'sound:02')!.name === 'Apart');
});

test('what comes after it of the same part goes on without what failed', async () => {
  const server = new MemoryServer();
  failingAt(server, 'bad');
  const store = await page(server);
  store.perform(rename(rigOfPage(store), 'sound:01', 'Bad'), 'bad');
  store.perform({ put: [{ ...partOf(rigOfPage(store), 'sound:01')!, role: 'lead' }], remove: [] }, 'role');
  await until(() => partOf(server.rig, 'sound:01')!.role === 'lead');
  expect(partOf(server.rig, 'sound:01')!.name).toBe('Verse clean');
  expect(store.snapshot().session!.troubles.map((t) => t.set.label)).toEqual(['bad']);
  expect(partOf(rigOfPage(store), 'sound:01')).toMatchObject({ name: 'Verse clean', role: 'lead' });
});

test('away is only who does not answer, or says so of itself: a change then waits and is sent when it is back', async () => {
  const server = new MemoryServer();
  let full = true;
  const tries = failingAt(
    server,
    'wait',
    () => new Away('the server answered 503', { title: 'The disk is full', detail: 'Free some space.' }),
  );
  const { send } = server.api;
  server.api.send = async (rig, set) => (full ? send(rig, set) : send(rig, { ...set, label: 'now' }));
  const store = await page(server);
  store.perform(rename(rigOfPage(store), 'sound:01', 'Kept'), 'wait');
  await until(() => tries.count > 3);
  expect(store.snapshot()).toMatchObject({ online: false, why: { title: 'The disk is full' } });
  expect(store.snapshot().session!.troubles).toEqual([]);
  full = false;
  await until(() => partOf(server.rig, 'sound:01')!.name === 'Kept');
  await until(() => store.snapshot().online && store.snapshot().why === undefined);
});

test('what was refused: kept as a note, typed otherwise, undone, each time nothing else is touched', async () => {
  const server = new MemoryServer();
  failingAt(server, 'bad');
  const store = await page(server);
  const fail = async () => {
    store.perform(rename(rigOfPage(store), 'sound:01', 'Bad'), 'bad');
    await until(() => store.snapshot().session!.troubles.length === 1);
    return store.snapshot().session!.troubles[0]!;
  };
  const first = await fail();
  expect(
    store.settleBy(
      first,
      { put: [asNote('logEntry:n', '2026-01-01', 'Sound 1 was to be called Bad')], remove: [] },
      'note',
    ),
  ).toEqual([]);
  await until(() => server.rig.parts.logEntry.size === 1);
  const second = await fail();
  store.settleBy(second, rename(rigOfPage(store), 'sound:01', 'Better'), 'mended');
  await until(() => partOf(server.rig, 'sound:01')!.name === 'Better');
  await fail();
  store.undo();
  expect(store.snapshot().session!.troubles).toEqual([]);
  expect(partOf(rigOfPage(store), 'sound:01')!.name).toBe('Better');
  store.undo();
  await until(() => partOf(server.rig, 'sound:01')!.name === 'Verse clean');
});

test('thirty rounds of undo and redo: every label stays one that the server takes', async () => {
  const server = new MemoryServer();
  const store = await page(server);
  store.perform(rename(rigOfPage(store), 'sound:01', 'x'), 'A long label '.repeat(20) + '\ud83d');
  for (let i = 0; i < 30; i += 1) {
    store.undo();
    store.redo();
  }
  await until(() => server.journal.length === 61);
  for (const { label } of server.journal)
    expect([label.length <= 200, label.isWellFormed(), /^((Undo|Redo): )?A long/.test(label)]).toEqual([
      true,
      true,
      true,
    ]);
});

describe('a browser that cannot keep', () => {
  const broken = (say: () => never): Outbox => {
    const outbox = new Outbox();
    for (const name of ['keep', 'kept', 'all', 'drop'] as const) outbox[name] = async () => say();
    return outbox;
  };
  test.each([
    [
      'refuses its store',
      () => {
        throw new DOMException('denied', 'SecurityError');
      },
    ],
    [
      'is full',
      () => {
        throw new DOMException('full', 'QuotaExceededError');
      },
    ],
    [
      'has none',
      () => {
        throw new TypeError('indexedDB is not defined');
      },
    ],
  ])('it %s: the rig opens, what waits is only in the page, and closing it is asked about', async (_, say) => {
    const server = new MemoryServer();
    const store = await page(server, broken(say as () => never));
    expect(store.snapshot()).toMatchObject({ status: 'ready', keeps: false });
    expect(store.wouldLose()).toBe(false);
    server.away = true;
    store.perform(rename(rigOfPage(store), 'sound:01', 'Only here'), 'rename');
    expect(store.wouldLose()).toBe(true);
    server.away = false;
    await until(() => partOf(server.rig, 'sound:01')!.name === 'Only here');
    await until(() => !store.wouldLose());
  });
  test('once it can again, it keeps again', async () => {
    const server = new MemoryServer();
    const outbox = new Outbox();
    const { keep } = outbox;
    outbox.keep = async () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    const store = await page(server, outbox);
    expect(store.snapshot().keeps).toBe(false);
    outbox.keep = keep;
    store.perform(rename(rigOfPage(store), 'sound:01', 'Kept'), 'rename');
    await until(() => store.snapshot().keeps);
  });
});

describe('what waits in this browser', () => {
  const leave = async (server: MemoryServer, rig: string, names: readonly string[]) => {
    const store = await page(server, new Outbox(), rig);
    server.away = true;
    for (const name of names) store.perform(rename(rigOfPage(store), 'sound:01', name), 'rename');
    await store.atRest();
    store.close();
  };
  test('is told rig by rig, and sent without opening the rig', async () => {
    const server = new MemoryServer();
    await leave(server, 'r', ['One', 'Two']);
    const outbox = new Outbox();
    expect(await waitingRigs(outbox, undefined)).toEqual([
      { rig: 'r', name: 'Island run', changes: 2, left: 2, toSettle: 0 },
    ]);
    server.away = false;
    let changed = 0;
    const sender = new Sender(server.api, outbox, newId, () => {
      changed += 1;
    });
    open.push(sender);
    await sender.send();
    await until(() => partOf(server.rig, 'sound:01')!.name === 'Two' && changed === 1);
    expect(await waitingRigs(outbox, undefined)).toEqual([]);
  });
  test('what an open page holds is told and left to it', async () => {
    const server = new MemoryServer();
    await leave(server, 'r', ['One']);
    const outbox = new Outbox();
    const [kept] = await outbox.all();
    const locks = { query: async () => ({ held: [{ name: `yunta-page-${kept!.page}` }] }) };
    expect(await waitingRigs(outbox, locks as never)).toMatchObject([{ changes: 1, left: 0 }]);
  });
  test('what is being sent from here is not taken for another page’s', async () => {
    const server = new MemoryServer();
    await leave(server, 'r', ['One']);
    const outbox = new Outbox();
    const sender = new Sender(server.api, outbox, newId, () => undefined);
    open.push(sender);
    await sender.send();
    const [kept] = await outbox.all();
    const locks = { query: async () => ({ held: [{ name: `yunta-page-${kept!.page}` }] }) };
    expect(await waitingRigs(outbox, locks as never, sender.pages)).toMatchObject([{ changes: 1, left: 1 }]);
  });
  test('while the server is away it stays, and goes when it is back', async () => {
    const server = new MemoryServer();
    await leave(server, 'r', ['One']);
    const outbox = new Outbox();
    const sender = new Sender(server.api, outbox, newId, () => undefined);
    open.push(sender);
    await sender.send();
    expect((await waitingRigs(outbox, undefined))[0]!.changes).toBe(1);
    server.away = false;
    await until(() => partOf(server.rig, 'sound:01')!.name === 'One');
  });
});
