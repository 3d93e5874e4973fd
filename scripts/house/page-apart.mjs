import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Database, freePort } from './database.mjs';
import { root } from './say.mjs';

/** A server on a database of its own and a browser before it, for what is done once with the built pages. */
export const pagesApart = async () => {
  const { openBrowser, openPage } = await import(join(root, 'e2e/dist/browser.js'));
  const folder = mkdtempSync(join(tmpdir(), 'yunta-apart-'));
  const database = await new Database(folder, { durable: false }).start();
  const port = await freePort();
  const server = fork(join(root, 'server/dist/main.js'), [], {
    env: { ...process.env, ...database.environment, YUNTA_PORT: String(port) },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise((ready) => server.once('message', ready));
  const browser = await openBrowser();
  const url = `http://127.0.0.1:${port}`;
  return {
    url,
    open: (path, ...how) => openPage(browser, url + path, ...how),
    close: async () => {
      await browser.close();
      server.kill('SIGTERM');
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
};
