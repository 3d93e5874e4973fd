import {
  BadRequestException,
  Logger,
  NotFoundException,
  PayloadTooLargeException,
  type ArgumentsHost,
} from '@nestjs/common';
import { clashing, notFound, Problem, refusedFor } from './problem.js';
import { ProblemFilter } from './problem.filter.js';
import { sameOriginOnly } from './same-origin.js';

interface Answer {
  status?: number;
  type?: string;
  body?: Record<string, unknown>;
}

/** What the filter answers to an error, without a server around it. */
const answer = (error: unknown, headersSent = false): Answer => {
  const said: Answer = {};
  const response = {
    headersSent,
    status: (s: number) => {
      said.status = s;
      return response;
    },
    type: (t: string) => {
      said.type = t;
      return response;
    },
    send: (b: string) => {
      said.body = JSON.parse(b) as Record<string, unknown>;
    },
  };
  new ProblemFilter().catch(error, {
    switchToHttp: () => ({ getRequest: () => ({ originalUrl: '/api/x' }), getResponse: () => response }),
  } as unknown as ArgumentsHost);
  return said;
};

describe('every error leaves as problem details', () => {
  beforeAll(() => Logger.overrideLogger(false));
  test.each<[string, unknown, number, string]>([
    ['a problem of our own', notFound('There is no rig "x".'), 404, 'urn:yunta:not-found'],
    ['a refusal', refusedFor([{ code: 'a', wrong: 'Wrong.', would: 'Do so.' }]), 422, 'urn:yunta:refused'],
    [
      'a clash',
      clashing([{ part: 'sound:1', field: 'name', base: 'a', mine: 'b', theirs: 'c' }], 7),
      409,
      'urn:yunta:clash',
    ],
    [
      'a request that is not JSON',
      new BadRequestException('Unexpected token } in JSON at position 3'),
      400,
      'urn:yunta:not-json',
    ],
    [
      'a field that does not fit',
      new BadRequestException({ message: ['base is not a whole number'] }),
      400,
      'urn:yunta:bad-request',
    ],
    ['a body that is too large', new PayloadTooLargeException('request entity too large'), 413, 'urn:yunta:too-large'],
    ['an address that is none', new NotFoundException('Cannot GET /api/x'), 404, 'urn:yunta:not-found'],
    ['a database that is away', Object.assign(new Error('x'), { code: 'ECONNREFUSED' }), 503, 'urn:yunta:database'],
    [
      'one that goes away in the middle',
      Object.assign(new Error('x'), { driverError: { code: 'PROTOCOL_CONNECTION_LOST' } }),
      503,
      'urn:yunta:database',
    ],
    ['a fault of ours', new TypeError('undefined is not a function'), 500, 'urn:yunta:fault'],
  ])('%s', (_, error, status, type) => {
    const said = answer(error);
    expect([said.status, said.type, said.body?.type, said.body?.status, said.body?.instance]).toEqual([
      status,
      'application/problem+json',
      type,
      status,
      '/api/x',
    ]);
    expect(String(said.body?.detail)).toMatch(/\w{3,}/);
  });
  test('a fault says nothing of the inside', () =>
    expect(JSON.stringify(answer(new TypeError('secret')).body)).not.toContain('secret'));
  test('what is under way already is not answered twice', () => expect(answer(new Error('x'), true)).toEqual({}));
  test('a refusal says up to three reasons, a clash both values', () => {
    const many = Array.from({ length: 9 }, (_, i) => ({ code: 'a', wrong: `Wrong ${i}.`, would: 'Do so.' }));
    expect(refusedFor(many).detail).toBe('Wrong 0. Do so. Wrong 1. Do so. Wrong 2. Do so.');
    expect(
      answer(clashing([{ part: 'sound:1', field: 'name', base: 'a', mine: 'b', theirs: 'c' }], 7)).body,
    ).toMatchObject({ revision: 7, clashes: [{ base: 'a', mine: 'b', theirs: 'c' }] });
  });
});

describe('only this machine, only our own pages', () => {
  const letIn = (headers: Record<string, string | undefined>, path = '/api/rigs'): boolean => {
    let refused: unknown;
    sameOriginOnly({ headers, path } as never, {} as never, (e?: unknown) => {
      refused = e;
    });
    if (refused) expect((refused as Problem).status).toBe(403);
    return refused === undefined;
  };
  test.each<[string, Record<string, string | undefined>, boolean]>([
    ['127.0.0.1', { host: '127.0.0.1:4747' }, true],
    ['localhost', { host: 'localhost:4747', origin: 'http://localhost:4747', 'sec-fetch-site': 'same-origin' }, true],
    ['IPv6 loopback', { host: '[::1]:4747' }, true],
    ['a name that was bent to this machine', { host: 'rebound.example:4747' }, false],
    ['no host at all', { host: undefined }, false],
    ['another origin', { host: 'localhost:4747', origin: 'http://localhost:9999' }, false],
    ['a page elsewhere', { host: 'localhost:4747', 'sec-fetch-site': 'cross-site' }, false],
    ['typed into the address bar', { host: 'localhost:4747', 'sec-fetch-site': 'none' }, true],
  ])('%s', (_, headers, is) => expect(letIn(headers)).toBe(is));
  test('a link from elsewhere may open a page, but not ask the API', () => {
    const from = { host: 'localhost:4747', 'sec-fetch-site': 'cross-site' };
    expect([letIn(from, '/rig/x/kit'), letIn(from, '/api/rigs')]).toEqual([true, false]);
  });
});
