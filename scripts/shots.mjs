// Takes the pictures in docs/screenshots from the demo rig, on a database of its own: `npm run shots`.
import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { Database, freePort } from './house/database.mjs';

const root = resolve(import.meta.dirname, '..');
const { openBrowser, openPage } = await import(join(root, 'e2e/dist/browser.js'));

const ROOMS = [['kit', 'kit'], ['routing', 'routing'], ['sounds', 'sounds'], ['proof', 'proof'], ['bench', 'bench']];
const folder = mkdtempSync(join(tmpdir(), 'yunta-shots-'));
const database = await new Database(folder, { durable: false }).start();
const port = await freePort();
const server = fork(join(root, 'server/dist/main.js'), [], { env: { ...process.env, ...database.environment, YUNTA_PORT: String(port) }, stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
await new Promise((ready) => server.once('message', ready));
const browser = await openBrowser();
/** Something worth seeing in each room: a box chosen, a sound with its drives in, a stomp on the bench. */
const BEFORE = {
  kit: (page) => page.click('::-p-aria([name="DLY, Stereo delay: show it"][role="button"])'),
  sounds: (page) => page.click('[data-at="3,-1"]'),
  bench: async (page) => { for (const key of ['1', '4']) { await page.keyboard.press(key); await wait(400); } },
};
for (const theme of ['light', 'dark']) {
  for (const [name, path] of ROOMS) {
    const page = await openPage(browser, `http://127.0.0.1:${port}/rig/island-run/${path}`, theme);
    await wait(1200);
    await BEFORE[name]?.(page);
    await wait(900);
    await page.screenshot({ path: join(root, `docs/screenshots/${name}${theme === 'dark' ? '-blackout' : ''}.png`) });
    await page.close();
  }
}
await browser.close();
server.kill('SIGTERM');
await database.stop();
rmSync(folder, { recursive: true, force: true });
