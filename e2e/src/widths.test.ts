import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('widths');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const ROOMS: readonly (readonly [path: string, says: string])[] = [
  ['', 'A new rig'],
  ['/rig/island-run/kit', '21 boxes'],
  ['/rig/island-run/routing', '31 cables'],
  ['/rig/island-run/routing?show=house', 'Input list'],
  ['/rig/island-run/sounds', 'called by SWI 1A'],
  ['/rig/island-run/program', 'Eight-loop switcher'],
  ['/rig/island-run/proof', 'can come back wrong'],
  ['/rig/island-run/bench', 'Just switched on.'],
  ['/rig/island-run/merge', 'Choose a rig file'],
];

test.each([
  ['phone', 390, 844],
  ['tablet', 820, 1180],
  ['screen at twice its size', 640, 400],
] as const)('no page goes sideways on a %s', async (_, width, height) => {
  const page = await openPage(browser, server.url, 'light', width, height);
  const hands = new Hands(page);
  for (const [path, says] of ROOMS) {
    await page.goto(`${server.url}${path}`);
    await hands.sees(says);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect([path, wide]).toEqual([path, width]);
  }
  await page.close();
});
