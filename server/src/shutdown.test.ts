import { connect } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { testApp } from './test-app.js';

/** Browsers open connections ahead of need and keep them: silent ones, on which nothing was asked yet, too. */
test.each([
  ['on which nothing was asked yet', ''],
  ['on which something was asked', 'GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n'],
])(
  'ends at once, also while a browser holds a connection %s',
  async (_, asked) => {
    const started = await testApp('shutdown');
    const server = await started.app.listen(0, '127.0.0.1');
    const { port } = server.address() as { port: number };
    const socket = connect({ port, host: '127.0.0.1' });
    socket.on('error', () => undefined);
    await new Promise((done) => socket.once('connect', done));
    if (asked) {
      socket.write(asked);
      await new Promise((done) => socket.once('data', done));
    }
    await wait(50);
    const closed = started.close().then(() => 'closed');
    expect(await Promise.race([closed, wait(4000).then(() => 'still open')])).toBe('closed');
    socket.destroy();
    await closed;
  },
  20_000,
);
