import request from 'supertest';
import { testApp } from '../test-app.js';
import { showPage } from './show-page.js';
import type { ShowRequest } from './requests.js';

let started: Awaited<ReturnType<typeof testApp>>;
const http = () => request(started.app.getHttpServer() as never);
const night = (more: Partial<ShowRequest> = {}): ShowRequest => ({
  rig: 'island-run',
  name: 'Ferry season',
  songs: [
    {
      title: 'Rope & tide <loud>',
      facts: '96 bpm',
      cues: [
        { name: 'verse', sound: 'Verse clean', hit: '1A', hands: [] },
        { name: 'chorus', sound: 'Chorus crunch', hit: '1B', bank: 'bank up', hands: ['heel down'] },
      ],
    },
    { title: 'Salt waltz', facts: '', cues: [] },
  ],
  song: 0,
  cue: 0,
  ...more,
});
const share = async (show: object = night()) => http().post('/api/shows').set('host', '127.0.0.1').send(show);

beforeAll(async () => {
  process.env.YUNTA_SHOW_PORT = '0';
  started = await testApp('shows', false);
});
afterAll(() => started.close());

const pageAt = async (url: string) => {
  const { port, pathname } = new URL(url);
  const answer = await fetch(`http://127.0.0.1:${port}${pathname}`);
  return { status: answer.status, text: await answer.text(), policy: answer.headers.get('content-security-policy') };
};
/** A machine that is on no network says so, and has nothing to look at. */
const shared = async () => {
  const { token, urls } = (await share()).body as { token: string; urls: string[] };
  return { token, url: urls[0] };
};

test('before anybody shares nothing is shown; a shared night is seen by its link, goes on, and is gone when withdrawn', async () => {
  expect((await http().get('/api/shows?rig=island-run').set('host', '127.0.0.1')).body).toEqual({ show: null });
  const { token, url } = await shared();
  if (url === undefined) return;
  expect((await http().get('/api/shows?rig=island-run').set('host', '127.0.0.1')).body).toMatchObject({
    show: { token },
  });
  const first = await pageAt(url);
  expect(first.status).toBe(200);
  expect(first.policy).toContain("default-src 'none'");
  expect(first.text).toContain('Rope &amp; tide &lt;loud&gt;');
  expect(first.text).not.toContain('<loud>');
  await http()
    .put(`/api/shows/${token}`)
    .set('host', '127.0.0.1')
    .send(night({ cue: 1 }))
    .expect(200);
  expect((await pageAt(url)).text).toContain('bank up, 1B');
  await http().delete(`/api/shows/${token}`).set('host', '127.0.0.1').expect(200);
  const gone = await pageAt(url);
  expect([gone.status, gone.text.includes('no longer shown')]).toEqual([404, true]);
  await http().put(`/api/shows/${token}`).set('host', '127.0.0.1').send(night()).expect(404);
  await http().delete(`/api/shows/${token}`).set('host', '127.0.0.1').expect(200);
});
test('the door to the network knows nothing but shared nights', async () => {
  const { url } = await shared();
  if (url === undefined) return;
  const { port } = new URL(url);
  for (const path of ['/', '/api/rigs', '/api/health', '/show/', '/show/../api/rigs', '/show/wrong-token-000'])
    expect((await fetch(`http://127.0.0.1:${port}${path}`)).status).toBe(404);
  expect((await fetch(`http://127.0.0.1:${port}${new URL(url).pathname}`, { method: 'POST' })).status).toBe(404);
});
test('a rig has one link: sharing again keeps it', async () => {
  const [a, b] = [await shared(), await shared()];
  expect(b.token).toBe(a.token);
});
test.each([
  ['a rig that is none', { rig: 'Island Run!' }],
  ['a song beyond all', { song: 100_000 }],
  ['songs that are none', { songs: [{ title: 3 }] }],
  ['too many songs', { songs: Array.from({ length: 501 }, () => ({ title: 'x', facts: '', cues: [] })) }],
  ['what nobody asked for', { secret: 'x' }],
])('%s is refused', async (_, more) => expect((await share({ ...night(), ...more })).status).toBe(400));
test('a place beyond the end, and an empty night, are pages too', () => {
  expect(showPage(night({ song: 7, cue: 3 }))).toContain('No song');
  expect(showPage(night({ songs: [] }))).toContain('song 0 of 0');
  expect(showPage(night({ song: 1 }))).toContain('The end');
});
