import { islandRun } from '@yunta/core/demo/island-run';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { everyPart, partOf, type Part } from '@yunta/core/rig/rig';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { testApp } from './test-app.js';

let started: Awaited<ReturnType<typeof testApp>>;
const http = () => request(started.app.getHttpServer() as never);
const get = (url: string) => http().get(url).set('host', '127.0.0.1');
const post = (url: string, body: object) => http().post(url).set('host', '127.0.0.1').send(body);
const RIG = '/api/rigs/island-run';
let count = 0;
const change = (base: number, put: readonly object[], remove: readonly string[] = [], id = `c-${(count += 1)}`) => ({
  id,
  base,
  label: 'Test',
  put,
  remove,
});
const revision = async () => ((await get(RIG)).body as { revision: number }).revision;
const sound = async (id: string) =>
  ((await get(RIG)).body as { parts: Part[] }).parts.find((p) => p.id === id) as Extract<Part, { kind: 'sound' }>;

beforeAll(async () => {
  started = await testApp('api');
});
afterAll(() => started.close());

describe('rigs in a list', () => {
  const listed = async (id: string) =>
    ((await get('/api/rigs')).body as { id: string; removed: boolean; last?: object }[]).find((r) => r.id === id);
  test('each says what changed last, by whom and when', async () => {
    expect(await listed('lighthouse-solo')).toMatchObject({
      removed: false,
      last: { label: 'A rig that ships with Yunta', who: 'local', when: expect.any(String) },
    });
  });
  test('whoever sits at the keyboard is named as they called themselves, in any letters; what is no name is left out', async () => {
    const rename = async (person: string, name: string) => {
      const { parts, revision: base } = (await get('/api/rigs/lighthouse-solo')).body as {
        parts: Part[];
        revision: number;
      };
      const about = parts.find((p) => p.kind === 'about')!;
      const change = { id: `by-${base}`, base, label: name, put: [{ ...about, name }], remove: [] };
      const sent = http()
        .post('/api/rigs/lighthouse-solo/changes')
        .set('host', '127.0.0.1')
        .set('x-yunta-person', person);
      expect((await sent.send(change)).status).toBe(200);
      return ((await listed('lighthouse-solo')) as { last: { who: string } }).last.who;
    };
    expect(await rename(encodeURIComponent('Zoë 渡辺'), 'One')).toBe('Zoë 渡辺');
    expect(await rename('x'.repeat(300), 'Two')).toHaveLength(64);
    expect(await rename('%E0%A4%A', 'Three')).toBe('local');
    expect(await rename('', 'Lighthouse solo set')).toBe('local');
  });
  test('the history up to a moment: none before the rig was there, all of it by now; what is no moment is refused', async () => {
    const until = async (moment: string) => get(`${RIG}/history?most=1&until=${encodeURIComponent(moment)}`);
    expect((await until('2020-01-01T00:00:00Z')).body).toEqual([]);
    expect((await until(new Date(Date.now() + 60_000).toISOString())).body).toEqual([
      expect.objectContaining({ revision: await revision() }),
    ]);
    expect((await until('yesterday')).status).toBe(400);
  });
  test('one that is put away keeps its parts and history, twice is harmless, and it comes back as it was', async () => {
    const rig = '/api/rigs/night-market-bass';
    const before = (await get(rig)).body as object;
    for (let twice = 0; twice < 2; twice += 1)
      expect((await http().delete(rig).set('host', '127.0.0.1')).body).toEqual({ removed: true });
    expect(await listed('night-market-bass')).toMatchObject({ removed: true });
    expect((await get(rig)).body).toEqual(before);
    for (let twice = 0; twice < 2; twice += 1) expect((await post(`${rig}/back`, {})).status).toBe(200);
    expect(await listed('night-market-bass')).toMatchObject({ removed: false });
    expect((await get(rig)).body).toEqual(before);
  });
  test('none that is there: said in words', async () => {
    const { status, body } = await http().delete('/api/rigs/nowhere').set('host', '127.0.0.1');
    expect([status, (body as { detail: string }).detail]).toEqual([404, expect.stringContaining('no rig "nowhere"')]);
  });
});

describe('a rig through the door', () => {
  test('three rigs ship with Yunta', async () => {
    expect(((await get('/api/rigs')).body as { id: string }[]).map((r) => r.id).sort()).toEqual([
      'island-run',
      'lighthouse-solo',
      'night-market-bass',
    ]);
  });
  test('the demo rig is there, whole and unchanged', async () => {
    const { body } = await get(RIG);
    const parts = new Map((body as { parts: Part[] }).parts.map((p) => [p.id, p]));
    expect(body).toMatchObject({ revision: 1 });
    for (const part of everyPart(islandRun())) expect(parts.get(part.id)).toEqual(part);
    expect(parts.size).toBe(everyPart(islandRun()).length);
  });

  test('a change is applied, counted and journaled with who and when', async () => {
    const base = await revision();
    const verse = await sound('sound:01');
    const { status, body } = await post(`${RIG}/changes`, change(base, [{ ...verse, name: 'Opening' }]));
    expect([status, body]).toEqual([200, { revision: base + 1, again: false }]);
    expect((await sound('sound:01')).name).toBe('Opening');
    const { body: history } = await get(`${RIG}/history?most=1`);
    expect(history).toEqual([
      { revision: base + 1, id: expect.any(String), label: 'Test', who: 'local', when: expect.any(String), parts: 1 },
    ]);
  });

  test('the same change set twice is applied once', async () => {
    const base = await revision();
    const set = change(base, [{ ...(await sound('sound:02')), name: 'Twice' }], [], 'same-id');
    await post(`${RIG}/changes`, set);
    const { body } = await post(`${RIG}/changes`, set);
    expect(body).toEqual({ revision: base + 1, again: true });
    expect(await revision()).toBe(base + 1);
  });

  test('a stale change of another thing is rebased; of the same thing it is refused with both values', async () => {
    const base = await revision();
    const [one, two] = [await sound('sound:07'), await sound('sound:08')];
    await post(`${RIG}/changes`, change(base, [{ ...one, name: 'Theirs' }]));
    expect((await post(`${RIG}/changes`, change(base, [{ ...two, name: 'Mine' }]))).body).toEqual({
      revision: base + 2,
      again: false,
    });
    const { status, body } = await post(`${RIG}/changes`, change(base, [{ ...one, name: 'Mine too' }]));
    expect(status).toBe(409);
    expect(body).toMatchObject({
      type: 'urn:yunta:clash',
      clashes: [{ part: 'sound:07', field: 'name', base: one.name, mine: 'Mine too', theirs: 'Theirs' }],
      revision: base + 2,
    });
    expect([(await sound('sound:07')).name, (await sound('sound:08')).name]).toEqual(['Theirs', 'Mine']);
  });

  test('rows and foreign keys: a box leaves only with everything that hangs on it', async () => {
    const { status, body } = await post(`${RIG}/changes`, change(await revision(), [], ['device:cmp']));
    expect(status).toBe(422);
    expect(body).toMatchObject({
      refusals: expect.arrayContaining([expect.objectContaining({ code: 'reference', would: expect.any(String) })]),
    });
  });

  test('history, and a look at an older revision', async () => {
    const before = await revision();
    const { body: first } = await get(`${RIG}/revisions/1`);
    expect((first as { parts: Part[] }).parts.find((p) => p.id === 'sound:01')).toEqual(
      partOf(islandRun(), 'sound:01'),
    );
    const { body: history } = await get(`${RIG}/history`);
    expect((history as { revision: number }[]).map((h) => h.revision)).toEqual(
      Array.from({ length: before }, (_, i) => before - i),
    );
    expect((await get(`${RIG}/revisions/${before + 1}`)).status).toBe(404);
  });

  test('the journal replayed from nothing gives the rig', async () => {
    const { body } = await get(`${RIG}/journal?after=0`);
    expect((body as { more: boolean }).more).toBe(false);
    const parts = new Map<string, Part>();
    for (const { delta } of (body as { entries: unknown }).entries as {
      delta: { id: string; before: Part | null; after: Part | null }[];
    }[]) {
      for (const { id, before, after } of delta) {
        expect(parts.get(id) ?? null).toEqual(before);
        if (after) parts.set(id, after);
        else parts.delete(id);
      }
    }
    const { body: rig } = await get(RIG);
    expect([...parts.values()].sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual(
      [...(rig as { parts: Part[] }).parts].sort((a, b) => (a.id < b.id ? -1 : 1)),
    );
  });

  test('a new rig, empty and from a file; emoji, right-to-left text and a name of 120 characters come back as they were', async () => {
    expect((await post('/api/rigs', { id: 'mine', change: 'm1', name: 'Mine' })).body).toEqual({
      revision: 1,
      again: false,
    });
    expect((await post('/api/rigs', { id: 'mine', change: 'm1', name: 'Mine' })).body).toEqual({
      revision: 1,
      again: true,
    });
    for (const [i, name] of ['🎸 loud 🔊', 'שלום "עולם" \\', 'x'.repeat(120)].entries()) {
      const file = writeRigFile(islandRun()).replace('"Island run"', JSON.stringify(name));
      expect((await post('/api/rigs', { id: `file-${i}`, change: 'f1', file })).status).toBe(201);
      expect(
        ((await get('/api/rigs')).body as { id: string; name: string }[]).find((r) => r.id === `file-${i}`)!.name,
      ).toBe(name);
    }
  });

  test('a hundred changes at once, from two sides, all land, one after the other', async () => {
    const base = await revision();
    const sounds = await Promise.all(
      Array.from({ length: 10 }, (_, i) => sound(`sound:${String(i + 1).padStart(2, '0')}`)),
    );
    const answers = await Promise.all(
      Array.from({ length: 100 }, (_, i) =>
        post(
          `${RIG}/changes`,
          change(base, [
            { kind: 'logEntry', id: `logEntry:n${i}`, when: '2026-01-01', text: sounds[i % 10]!.name, about: [] },
          ]),
        ),
      ),
    );
    expect(answers.map((a) => a.status)).toEqual(Array(100).fill(200));
    expect(new Set(answers.map((a) => (a.body as { revision: number }).revision)).size).toBe(100);
    expect(await revision()).toBe(base + 100);
  });
});

describe('what is turned away, and how', () => {
  const problem = (body: unknown) =>
    body as { type: string; title: string; status: number; detail: string; instance: string };
  test('problem details for a rig that is not there', async () => {
    const { status, body, headers } = await get('/api/rigs/nowhere');
    expect([status, headers['content-type']]).toEqual([404, expect.stringContaining('application/problem+json')]);
    expect(problem(body)).toMatchObject({
      type: 'urn:yunta:not-found',
      status: 404,
      instance: '/api/rigs/nowhere',
      detail: expect.stringContaining('There is no rig "nowhere"'),
    });
  });
  test('a request that is not JSON', async () => {
    const { status, body } = await http()
      .post(`${RIG}/changes`)
      .set('host', '127.0.0.1')
      .set('content-type', 'application/json')
      .send('{ "id": ');
    expect([status, problem(body).type]).toEqual([400, 'urn:yunta:not-json']);
  });
  test('a revision that never was', async () => {
    const { status, body } = await post(`${RIG}/changes`, change(99_999, []));
    expect([status, problem(body).type]).toEqual([409, 'urn:yunta:unknown-revision']);
  });
  test.each<[string, object, string]>([
    ['an id that is none', { id: 'NO', base: 1, label: 'x', put: [], remove: [] }, 'id is not an id'],
    ['no base', { id: 'a', label: 'x', put: [], remove: [] }, 'base is not a whole number'],
    ['a label of 1,000 characters', { id: 'a', base: 1, label: 'x'.repeat(1000), put: [], remove: [] }, 'label'],
    ['a field that nobody knows', { id: 'a', base: 1, label: 'x', put: [], remove: [], force: true }, 'force'],
    ['a part of no kind', { id: 'a', base: 1, label: 'x', put: [{ id: 'x' }], remove: [] }, 'put[0].kind'],
    [
      'a name of 10,000 characters',
      {
        id: 'a',
        base: 1,
        label: 'x',
        put: [{ kind: 'about', id: 'about:rig', name: 'x'.repeat(10_000), notes: '' }],
        remove: [],
      },
      'over the limit of 120 characters',
    ],
    [
      'a cable that cannot exist',
      {
        id: 'a',
        base: 1,
        label: 'x',
        put: [{ kind: 'cable', id: 'cable:z', hookup: 'hookup:ballroom', ends: ['device:cmp.in', 'device:none.out'] }],
        remove: [],
      },
      'device:none',
    ],
  ])('%s', async (_, body, says) => {
    const before = await revision();
    const answer = await post(`${RIG}/changes`, body);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(problem(answer.body).detail).toContain(says);
    expect(await revision()).toBe(before);
  });
  test('a body of seventy megabytes', async () => {
    const { status, body } = await post(`${RIG}/changes`, {
      id: 'big',
      base: 1,
      label: 'x',
      put: ['x'.repeat(70_000_000)],
      remove: [],
    });
    expect([status, problem(body).type]).toEqual([413, 'urn:yunta:too-large']);
  });
  test.each([
    ['host', 'evil.example'],
    ['origin', 'http://evil.example'],
    ['sec-fetch-site', 'cross-site'],
  ])('a foreign %s', async (header, value) => {
    const { status } = await http().get('/api/rigs').set('host', '127.0.0.1').set(header, value);
    expect(status).toBe(403);
  });
  test('a file that is no rig', async () => {
    const { status, body } = await post('/api/rigs', { id: 'bad', change: 'b', file: '{}' });
    expect([status, problem(body).detail]).toEqual([422, expect.stringContaining('not a rig of Yunta')]);
  });
});

describe('what stands around it', () => {
  test('a shelf: boxes are put on it, replaced, refused with reasons, taken off', async () => {
    const box = { ...partOf(islandRun(), 'device:cmp')!, name: 'My compressor' };
    expect((await post('/api/shelf', { key: 'b1', box })).status).toBe(200);
    expect((await post('/api/shelf', { key: 'b1', box: { ...box, name: 'Squeezer' } })).status).toBe(200);
    expect((await get('/api/shelf')).body).toEqual([{ key: 'b1', box: { ...box, name: 'Squeezer' } }]);
    const bad = await post('/api/shelf', { key: 'b2', box: { ...box, zone: 'moon' } });
    expect([bad.status, (bad.body as { detail: string }).detail]).toEqual([
      422,
      expect.stringContaining('"moon" is not one of hands'),
    ]);
    expect((await post('/api/shelf', { key: 'b2', box: partOf(islandRun(), 'sound:01') })).status).toBe(422);
    expect((await http().delete('/api/shelf/b1').set('host', '127.0.0.1')).status).toBe(200);
    expect((await http().delete('/api/shelf/b1').set('host', '127.0.0.1')).status).toBe(404);
    expect((await get('/api/shelf')).body).toEqual([]);
  });
  test('OpenAPI is made from the controllers', async () => {
    const { body } = await get('/api/openapi.json');
    expect(Object.keys((body as { paths: object }).paths)).toEqual(
      expect.arrayContaining([
        '/api/rigs',
        '/api/rigs/{rig}/changes',
        '/api/rigs/{rig}/revisions/{revision}',
        '/api/health',
      ]),
    );
    expect(body).toMatchObject({
      openapi: expect.stringMatching(/^3\./),
      components: { schemas: { ChangeRequest: { properties: { id: {}, base: {}, put: {} } } } },
    });
  });
  test('headers keep strangers out', async () => {
    const { headers } = await get('/api/health');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
  });
  test('the tables are those of the entities: nothing is left to migrate', async () => {
    const { upQueries } = await started.app.get(DataSource).driver.createSchemaBuilder().log();
    expect(upQueries.map((q) => q.query)).toEqual([]);
  });
  test('another person sees nothing of it', async () => {
    const { RigStore } = await import('./rigs/rig-store.js');
    await expect(
      started.app.get(RigStore).load({ id: 'somebody', name: 'Somebody' }, 'island-run'),
    ).rejects.toMatchObject({ status: 404 });
    expect(await started.app.get(RigStore).list({ id: 'somebody', name: 'Somebody' })).toEqual([]);
  });
});
