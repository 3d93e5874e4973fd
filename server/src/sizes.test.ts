import { apply } from '@yunta/core/change/apply';
import { islandRun } from '@yunta/core/demo/island-run';
import { readRigFile, writeRigFile } from '@yunta/core/formats/rig-file';
import { HEAVIEST_RIG, LARGEST_FILE, LONGEST } from '@yunta/core/rig/limits';
import { everyPart, type Part, type Rig } from '@yunta/core/rig/rig';
import request from 'supertest';
import { testApp } from './test-app.js';

let started: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  started = await testApp('sizes');
});
afterAll(() => started.close());
const http = () => request(started.app.getHttpServer() as never);
const get = (url: string) => http().get(url).set('host', '127.0.0.1');
const post = (url: string, body: object) => http().post(url).set('host', '127.0.0.1').send(body);

const note = (id: string, text: string): Part => ({
  kind: 'logEntry',
  id: `logEntry:${id}`,
  when: '2026',
  text,
  about: [],
});
/** As heavy as a rig may be, in letters that take three bytes each. */
const heavyRig = (): Rig => {
  const rig = islandRun();
  const count = Math.floor((HEAVIEST_RIG - 700_000) / (LONGEST.text + 100));
  const heavy = apply(rig, {
    put: Array.from({ length: count }, (_, i) => note(`n${i}`, '音'.repeat(LONGEST.text))),
    remove: [],
  });
  if (!heavy.ok) throw new Error(JSON.stringify(heavy.error));
  return heavy.value.rig;
};

test('the heaviest rig goes out as a file and comes in again; one note more is refused in words', async () => {
  const file = writeRigFile(heavyRig());
  expect(file.length).toBeLessThanOrEqual(LARGEST_FILE);
  expect(readRigFile(file).ok).toBe(true);
  const made = await post('/api/rigs', { id: 'heavy', change: 'h1', file });
  expect([made.status, made.body]).toEqual([201, { revision: 1, again: false }]);
  const out = await get('/api/rigs/heavy/file')
    .buffer(true)
    .parse((response, done) => {
      const pieces: Buffer[] = [];
      response.on('data', (d: Buffer) => pieces.push(d));
      response.on('end', () => done(null, Buffer.concat(pieces).toString('utf8')));
    });
  const [again, once] = [out.body as string, file]
    .map((text) => readRigFile(text))
    .map((read) =>
      read.ok
        ? everyPart(read.value)
            .map((p) => (p.kind === 'about' ? { ...p, origins: [] } : p))
            .map((p) => JSON.stringify(p))
            .sort()
        : read.error,
    );
  expect(again).toEqual(once);
  const more = await post('/api/rigs/heavy/changes', {
    id: 'h2',
    base: 1,
    label: 'more',
    put: Array.from({ length: 60 }, (_, i) => note(`more${i}`, 'x'.repeat(LONGEST.text))),
    remove: [],
  });
  expect([more.status, (more.body as { detail: string }).detail]).toEqual([
    422,
    expect.stringMatching(/The rig would be 1\d,\d{3},\d{3} characters large\. At most 12,000,000 are kept/),
  ]);
}, 120_000);

test('a long journal is told in pages of a bounded size, whole and in order; the history does not grow with what was changed', async () => {
  const rig = '/api/rigs/island-run';
  for (let i = 0; i < 10; i += 1)
    expect(
      (
        await post(`${rig}/changes`, {
          id: `b${i}`,
          base: 1 + i,
          label: `big ${i}`,
          put: Array.from({ length: 50 }, (_, k) => note(`b${i}-${k}`, `${i}`.padEnd(LONGEST.text, '.'))),
          remove: [],
        })
      ).status,
    ).toBe(200);
  const seen: number[] = [];
  let pages = 0;
  for (let more = true; more;) {
    const { body, text } = await get(`${rig}/journal?after=${seen.at(-1) ?? 0}&most=500`);
    const page = body as { entries: { revision: number }[]; more: boolean };
    expect(text.length).toBeLessThan(6_000_000);
    seen.push(...page.entries.map((e) => e.revision));
    more = page.more;
    pages += 1;
  }
  expect(seen).toEqual(Array.from({ length: 11 }, (_, i) => i + 1));
  expect(pages).toBeGreaterThan(2);
  const { text, body } = await get(`${rig}/history?most=100`);
  expect(text.length).toBeLessThan(4000);
  expect((body as { parts: number }[]).slice(0, 2).map((h) => h.parts)).toEqual([50, 50]);
  expect(
    ((await get(`${rig}/history?before=5&most=100`)).body as { revision: number }[]).map((h) => h.revision),
  ).toEqual([4, 3, 2, 1]);
}, 120_000);

test('the same new rig asked for ten times at once is made once', async () => {
  const answers = await Promise.all(
    Array.from({ length: 10 }, () => post('/api/rigs', { id: 'once', change: 'o1', name: 'Once' })),
  );
  expect(answers.map((a) => a.status)).toEqual(Array(10).fill(201));
  expect(answers.map((a) => (a.body as { revision: number }).revision)).toEqual(Array(10).fill(1));
  expect(answers.filter((a) => !(a.body as { again: boolean }).again)).toHaveLength(1);
  expect(((await get('/api/rigs')).body as { id: string }[]).filter((r) => r.id === 'once')).toHaveLength(1);
});

describe('the door', () => {
  test.each([
    ['/API/rigs', 200],
    ['/Api/Health', 200],
    ['/api/rigs/NO', 400],
    ['/api/rigs/island-run/revisions/x', 400],
    ['/api/nothing', 404],
    ['/api/rigs/%ZZ', 400],
  ])('%s is answered %i, with the headers that keep strangers out', async (url, status) => {
    const answer = await get(url);
    expect([
      answer.status,
      answer.headers['x-content-type-options'],
      answer.headers['content-security-policy'],
    ]).toEqual([status, 'nosniff', expect.stringContaining("default-src 'self'")]);
  });
  test('a foreign page is turned away from the API in whatever case it is written, and told so with the same headers', async () => {
    for (const url of ['/api/rigs', '/API/rigs', '/Api/rigs']) {
      const answer = await get(url).set('sec-fetch-site', 'cross-site');
      expect([answer.status, answer.headers['x-content-type-options']]).toEqual([403, 'nosniff']);
    }
  });
  test.each([
    ['null', 'null'],
    ['a list', '[]'],
    ['nothing', ''],
    ['a number', '3'],
    ['a hundred thousand lists', '['.repeat(100_000) + ']'.repeat(100_000)],
    ['records too deep', `{"id":${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}}`],
  ])('a body that is %s is a 400 with a reason', async (_, body) => {
    const answer = await http()
      .post('/api/rigs')
      .set('host', '127.0.0.1')
      .set('content-type', 'application/json')
      .send(body);
    expect([answer.status, typeof (answer.body as { detail?: unknown }).detail]).toEqual([400, 'string']);
  });
});
