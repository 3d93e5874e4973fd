import { often } from '@yunta/core/testing/often';
import { islandRun } from '@yunta/core/demo/island-run';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { HOSTILE, mutated, type Json } from '@yunta/core/testing/mutations';
import { Random } from '@yunta/core/testing/random';
import request from 'supertest';
import { testApp } from './test-app.js';

const REQUESTS = often(300);

let started: Awaited<ReturnType<typeof testApp>>;
beforeAll(async () => {
  started = await testApp('hostile');
});
afterAll(() => started.close());
const http = () => request(started.app.getHttpServer() as never);

interface Schema {
  readonly $ref?: string;
  readonly type?: string;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly items?: Schema;
  readonly example?: Json;
}
interface Question {
  readonly method: 'get' | 'post' | 'delete';
  readonly path: string;
  readonly parameters: readonly { readonly name: string; readonly in: string }[];
  readonly body?: Schema;
}
interface OpenApi {
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          { parameters?: Question['parameters']; requestBody?: { content: Record<string, { schema: Schema }> } }
        >
      >
    >
  >;
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
}

/** Every question that the API says it answers. */
const questionsIn = (api: OpenApi): readonly Question[] =>
  Object.entries(api.paths).flatMap(([path, verbs]) =>
    Object.entries(verbs).map(([method, asked]): Question => {
      const body = asked.requestBody && Object.values(asked.requestBody.content)[0]!.schema;
      return {
        method: method as Question['method'],
        path,
        parameters: asked.parameters ?? [],
        ...(body ? { body } : {}),
      };
    }),
  );

const ADDRESSES = [
  'island-run',
  'lighthouse-solo',
  'none',
  'NO',
  '1',
  '0',
  '-1',
  '1e3',
  '99999999999999999999',
  '%',
  '%ZZ',
  '..',
  '%2e%2e',
  "'; DROP TABLE rig;--",
  'x'.repeat(3000),
  '🎸',
  '%00',
  'constructor',
  '__proto__',
  '[]',
  '{}',
  'undefined',
];
const rig = JSON.parse(writeRigFile(islandRun())) as { sounds: Json[]; devices: Json[]; hookups: Json[] };

/** A body as its schema says, or nearly. */
const bodyFor = (r: Random, schema: Schema, api: OpenApi): Json => {
  const named = schema.$ref ? api.components.schemas[schema.$ref.split('/').at(-1)!]! : schema;
  const filled: { [key: string]: Json } = {};
  for (const [name, field] of Object.entries(named.properties ?? {})) {
    const fitting: Readonly<Record<string, () => Json>> = {
      id: () => `r-${r.int(0, 1e6)}`,
      change: () => `c-${r.int(0, 1e6)}`,
      key: () => `k-${r.int(0, 9)}`,
      base: () => r.int(0, 3),
      label: () => 'Test',
      name: () => 'Rig',
      put: () => r.some([...rig.sounds, ...rig.devices, ...rig.hookups], 8),
      remove: () => r.some(['sound:01', 'device:cmp', 'nothing'], 30),
      file: () => JSON.stringify(rig),
      box: () => r.pick(rig.devices),
    };
    filled[name] = r.chance(85) && fitting[name] ? fitting[name]() : r.pick([...HOSTILE, field.example ?? null]);
  }
  return r.chance(70) ? mutated(r, filled, 3) : filled;
};

/** Bodies that are no body. */
const ODD_BODIES = [
  '',
  'null',
  '[]',
  '1',
  '"x"',
  '{',
  `${'['.repeat(50_000)}${']'.repeat(50_000)}`,
  `{"id":${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}}`,
  '{"__proto__":{"x":1}}',
  '{"constructor":{"prototype":{}}}',
  '\ud83d',
  '\u0000',
];

const send = async (r: Random, { method, path, parameters, body }: Question, api: OpenApi) => {
  const address = parameters
    .filter((p) => p.in === 'path')
    .reduce(
      (url, p) =>
        url.replace(`{${p.name}}`, r.chance(60) ? r.pick(ADDRESSES.slice(0, 2)) : encodeOddly(r, r.pick(ADDRESSES))),
      path,
    );
  const query = parameters
    .filter((p) => p.in === 'query' && r.chance(50))
    .map((p) => `${p.name}=${encodeOddly(r, r.pick([...ADDRESSES, '1', '100']))}`)
    .join('&');
  const url = `${address}${query ? `?${query}` : ''}`;
  const client = http();
  const asked = client[method](r.chance(90) ? url : url.replace('/api', '/API')).set('host', '127.0.0.1');
  if (!body) return { url: `${method} ${url}`, answer: await asked };
  const text = r.chance(85) ? JSON.stringify(bodyFor(r, body, api)) : r.pick(ODD_BODIES);
  return {
    url: `${method} ${url} ${text.slice(0, 200)}`,
    answer: await asked.set('content-type', 'application/json').send(text),
  };
};
const encodeOddly = (r: Random, text: string): string =>
  r.chance(30) && /^[%.\w-]*$/.test(text) ? text : encodeURIComponent(text.toWellFormed());

/** What an answer must never give away. */
const INSIDE =
  /node_modules|\.(?:js|ts):\d|\bat \w+ \(|SELECT |INSERT |FOREIGN KEY|sqlMessage|ER_[A-Z]+|\/(?:home|root|usr|tmp|var|work)\//;

test(
  `${REQUESTS} requests made from the API's own description, most of them odd: each is answered, none with a fault`,
  async () => {
    const api = (await http().get('/api/openapi.json').set('host', '127.0.0.1')).body as OpenApi;
    const questions = questionsIn(api);
    const wrong: string[] = [];
    const counts = new Map<number, number>();
    for (let seed = 0; seed < REQUESTS; seed += 1) {
      const r = new Random(seed);
      const { url, answer } = await send(r, r.pick(questions), api);
      counts.set(answer.status, (counts.get(answer.status) ?? 0) + 1);
      const text = answer.text ?? '';
      const isProblem =
        answer.status < 400 ||
        (String(answer.headers['content-type']).startsWith('application/problem+json') &&
          typeof (answer.body as { detail?: unknown }).detail === 'string');
      const isOurs =
        answer.headers['x-content-type-options'] === 'nosniff' && 'content-security-policy' in answer.headers;
      if (answer.status >= 500 || !isProblem || !isOurs || (answer.status >= 400 && INSIDE.test(text)))
        wrong.push(`${seed}: ${url} -> ${answer.status} ${text.slice(0, 300)}`);
    }
    expect(wrong).toEqual([]);
    expect(counts.get(200)! + (counts.get(201) ?? 0)).toBeGreaterThan(REQUESTS / 10);
    expect(counts.get(400)).toBeGreaterThan(REQUESTS / 10);
    console.info(
      [...counts]
        .sort(([a], [b]) => a - b)
        .map(([status, n]) => `${n} × ${status}`)
        .join(', '),
    );
  },
  REQUESTS * 200,
);
