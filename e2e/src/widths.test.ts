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

/** A room or a view of it, what it says, and what is clicked there first. */
const ROOMS: readonly (readonly [path: string, says: string, ...clicked: string[]])[] = [
  ['', 'A new rig'],
  ['/rig/island-run/kit', '23 boxes'],
  ['/rig/island-run/kit', '23 boxes', 'Two-channel valve head', 'Open the box'],
  ['/rig/island-run/power', 'What each box takes'],
  ['/rig/island-run/levels', 'Sounds beside each other'],
  ['/rig/island-run/levels?show=treble', 'What hangs on the coil'],
  ['/rig/island-run/routing?show=cables', '42 cables'],
  ['/rig/island-run/routing?show=hookups', 'Rewire from'],
  ['/rig/island-run/routing?show=start', 'Straight into an amp', 'Amp-less, straight to the desk'],
  ['/rig/island-run/set?show=songs', 'Salt waltz'],
  ['/rig/island-run/set?show=list', 'stomps'],
  ['/rig/island-run/set?show=slots', 'As it stands'],
  ['/rig/island-run/set?show=times', 'dotted eighth'],
  ['/rig/island-run/set?show=songs&song=song:01', 'Cues as you write them'],
  ['/rig/island-run/set?show=dance', 'stomps in all'],
  ['/rig/island-run/set?show=papers', 'Verse clean'],
  ['/rig/island-run/set?show=papers&paper=memory', 'Rope and tide'],
  ['/rig/island-run/drill?song=song:01', 'How fast'],
  ['/rig/island-run/sounds?show=moves', 'called by SWI 1A'],
  ['/rig/island-run/sounds', 'called by SWI 1A', 'Order, ends, hands'],
  ['/rig/island-run/program?show=plan', 'Plan programs'],
  ['/rig/island-run/program?show=write', 'As it stands'],
  ['/rig/island-run/program?show=check', 'Check the wire'],
  ['/rig/island-run/routing', '42 cables'],
  ['/rig/island-run/routing?show=house', 'Input list'],
  ['/rig/island-run/sounds', 'called by SWI 1A'],
  ['/rig/island-run/program', 'Eight-loop switcher'],
  ['/rig/island-run/proof', 'can come back wrong'],
  ['/rig/island-run/bench', 'Just switched on.'],
  ['/rig/island-run/build', 'Cable on reels'],
  ['/rig/island-run/road?show=pack', 'Your first case or bag'],
  ['/rig/island-run/kit?show=gig', 'What comes along'],
  ['/rig/island-run/road?show=open', 'Nothing is open'],
  ['/rig/island-run/road?show=log', 'Nothing is written yet'],
  ['/rig/island-run/road?show=houses', 'No house yet'],
  ['/rig/island-run/road?show=mix', 'Nobody has said yet'],
  ['/rig/island-run/build?show=order', 'Rough wiring'],
  ['/rig/island-run/build?show=board', 'Everything has room'],
  ['/rig/island-run/build?show=labels', 'your own code'],
  ['/rig/island-run/road', 'The quickest way out'],
  ['/rig/island-run/road?show=find', 'There is sound'],
  ['/rig/island-run/road?show=check', 'Lines into the house'],
  ['/rig/island-run/merge', 'Choose a rig file'],
];

const WIDTHS = [
  ['phone', 390, 844],
  ['tablet', 820, 1180],
  ['screen at twice its size', 640, 400],
] as const;

// A page is loaded once and its window changed, as a browser's is: the page itself says when it has settled.
test('no page goes sideways on a phone, a tablet, or a screen at twice its size', async () => {
  const page = await openPage(browser, server.url, 'light', 390, 844);
  const hands = new Hands(page);
  for (const [path, says, ...clicked] of ROOMS) {
    await hands.goes(`${server.url}${path}`, says);
    for (const name of clicked) await hands.page.locator(`button::-p-text(${name})`).click();
    for (const [screen, width, height] of WIDTHS) {
      await page.setViewport({ width, height });
      await page.waitForFunction(() => !/Working out|Drawing what/.test(document.body.innerText));
      const wide = await page.evaluate(async () => {
        for (let frame = 0; frame < 3; frame += 1) await new Promise((r) => requestAnimationFrame(r));
        const room = document.querySelector('.room');
        return [document.documentElement.scrollWidth, room ? room.scrollWidth - room.clientWidth : 0];
      });
      expect([path, ...clicked, screen, ...wide]).toEqual([path, ...clicked, screen, width, 0]);
    }
    await page.setViewport({ width: 390, height: 844 });
  }
  await page.close();
});
