import { connect } from 'node:net';
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
    // No time limit of the server itself may end the connection: only the end of the program.
    Object.assign(server, { headersTimeout: 0, requestTimeout: 0, keepAliveTimeout: 0, timeout: 0 });
    const socket = connect({ port, host: '127.0.0.1' });
    socket.on('error', () => undefined);
    await new Promise((done) => socket.once('connect', done));
    if (asked) {
      socket.write(asked);
      await new Promise((done) => socket.once('data', done));
    }
    const gone = new Promise((done) => socket.once('close', () => done('closed by the server')));
    await started.close();
    expect(await gone).toBe('closed by the server');
  },
  120_000,
);
