import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('gig');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

test('a kind of gig: what it asks, the kit against it, and with and without a box', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/kit`));
  await hands.click('link', 'The gig');
  await hands.type('textbox', 'Name of a kind of gig', 'Fly dates');
  await hands.press('Enter');
  await hands.sees('Nothing is asked yet.');
  await hands.click('checkbox', 'A silent stage');
  await hands.sees('loudspeakers: Closed 2×12 cabinet');
  await hands.type('textbox', 'Room for a board, cm', '0 x 32');
  await hands.press('Enter');
  await hands.sees('0 × 32 cm is no board: each side is longer than 0.');
  await hands.type('textbox', 'Room for a board, cm', '60 x 32');
  await hands.press('Enter');
  await hands.sees('Floor board has 90 × 42 cm');
  await hands.type('textbox', 'Supply outputs there are', '10');
  await hands.press('Enter');
  await hands.sees('11 are needed');
  await hands.click('checkbox', 'Octave fuzz');
  await hands.sees('10 are needed');
  await hands.sees('10 outputs with all 11');
  await hands.page.reload();
  await hands.sees('At most 10 supply outputs');
  await hands.page.close();
});
