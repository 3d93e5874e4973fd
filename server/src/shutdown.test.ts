import { Agent, get } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { testApp } from './test-app.js';

test('ends at once, also while a page keeps asking on a connection that stays open', async () => {
  const started = await testApp('shutdown');
  const server = await started.app.listen(0, '127.0.0.1');
  const { port } = server.address() as { port: number };
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  let asking = true;
  let answered = 0;
  /** As a page does: the next question goes out as soon as the last one is answered. */
  const ask = (): void => {
    if (!asking) return;
    get({ port, host: '127.0.0.1', path: '/api/health', agent }, (response) => {
      response.resume().on('end', () => { answered += 1; ask(); });
    }).on('error', () => undefined);
  };
  ask();
  while (answered < 5) await wait(20);
  const closed = started.close().then(() => 'closed');
  expect(await Promise.race([closed, wait(4000).then(() => 'still open')])).toBe('closed');
  asking = false;
  agent.destroy();
  await closed;
});
