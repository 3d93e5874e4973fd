import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { PATIENCE } from './patience.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('set');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const TITLES = [
  'Anchor',
  'Beacon',
  'Cable',
  'Dory',
  'Ebb',
  'Fathom',
  'Gale',
  'Harbour',
  'Inlet',
  'Jetty',
  'Keel',
  'Lantern',
];
const clickCell = async (hands: Hands, at: string): Promise<void> => {
  await hands.page.waitForSelector(`[data-at="${at}"]`);
  await hands.page.click(`[data-at="${at}"]`);
};
const cuesColumn = (hands: Hands): Promise<number> =>
  hands.page.$$eval('.sheet thead th', (all) =>
    all.slice(2).findIndex((t) => /^Cues/.test(t.getAttribute('aria-label') ?? '')),
  );

test('times: a tempo to delay times, a delay back to a note, two delays against each other', async () => {
  const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/set?show=times`));
  await hands.type('textbox', 'Tempo in beats a minute', '120');
  await hands.sees('dotted eighth 375 ms');
  await hands.type('textbox', 'Its time', '510');
  await hands.sees(
    '510 ms at 120 is nearest to a quarter, 10 ms too long: after a bar of four its repeats are 40 ms behind.',
  );
  await hands.type('textbox', 'Its time', '500');
  await hands.type('textbox', 'The time of the other', '375');
  await hands.sees('500 ms and 375 ms: quarter and dotted eighth at 120.');
  await hands.type('textbox', 'The time of the other', '430');
  await hands.sees('No clean pattern.');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test('a night from a pasted list: songs, cues, slots for the fewest stomps, the stage without network', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Night');
  await hands.type('textbox', 'What is in it, as you would say it', 'guitar → 4 loop switcher → 2x12 combo');
  await hands.page.waitForFunction(() =>
    [...document.querySelectorAll('button')].some((b) => /^Begin with/.test(b.textContent)),
  );
  await hands.pick('Begin with');
  await hands.click('link', 'Sounds');
  await hands.type('textbox', 'Name', 'Sound 1');
  await hands.press('Enter');
  for (let n = 2; n <= 8; n += 1) {
    await hands.type('textbox', 'Name of a new sound', `Sound ${n}`);
    await hands.press('Enter');
    await hands.sees(`${Math.ceil(n / 4)}${'ABCD'[(n - 1) % 4]}`);
  }

  await hands.click('link', 'Set');
  await hands.click('button', 'Paste a list of songs');
  await hands.type(
    'textbox',
    'One song a line',
    [...TITLES.map((t, i) => `${i + 1}. ${t}, 3:00`), 'anchor'].join('\n'),
  );
  await hands.click('button', 'Take these');
  await hands.sees('line 13: There is a song “anchor” already.');
  await hands.click('button', 'Cancel');
  const column = await cuesColumn(hands);
  for (const [row, cues] of [
    'Sound 1; Sound 5; Sound 1',
    'Sound 2; Sound 6; Sound 2',
    'Sound 3; Sound 7; Sound 3',
  ].entries()) {
    // After Enter the cell below is chosen already.
    if (row === 0) await clickCell(hands, `0,${column}`);
    await hands.page.waitForFunction(
      (at: string) => (document.activeElement as HTMLElement).dataset.at === at,
      { timeout: PATIENCE },
      `${row},${column}`,
    );
    await hands.press('Enter');
    await hands.page.waitForSelector('.sheet input');
    await hands.write(cues);
    await hands.press('Enter');
    await hands.page.waitForFunction(
      (text: string) =>
        [...document.querySelectorAll('.sheet td')].some((td) => (td as HTMLElement).innerText.includes(text)),
      { timeout: PATIENCE },
      cues,
    );
  }

  await hands.pick('Set list');
  await hands.type('textbox', 'Name of a new set', 'Friday');
  await hands.click('button', 'Make a set of all 12 songs');
  await hands.sees('12 songs 41:30');
  await hands.sees('12 stomps, 6 of them bank keys');
  expect(await violations(hands.page)).toEqual([]);
  // By key: the last song comes first.
  await hands.page.focus('.set-list li:last-child .set-place');
  await hands.page.keyboard.down('Alt');
  await hands.press('ArrowUp');
  await hands.page.keyboard.up('Alt');
  await hands.page.waitForFunction(
    () => document.querySelectorAll('.set-title strong')[10]?.textContent === 'Lantern',
    { timeout: PATIENCE },
  );

  await hands.pick('Slots');
  await hands.sees('12 songs from SWI: 12 stomps, 6 of them bank keys.');
  await hands.click('button', 'Find the fewest');
  await hands.sees('6 stomps, no bank key; fewer are not possible in 2 banks.');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.waitForFunction(() =>
    [...document.querySelectorAll('button')].some((b) => /^Move \d/.test(b.textContent)),
  );
  await hands.pick('Move ');
  await hands.sees('6 stomps, no bank key.');
  await hands.sees('this cannot be bettered');

  await hands.click('link', 'On stage');
  await hands.sees('Friday, song 1 of 12');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.waitForFunction(
    async () => (await navigator.serviceWorker.getRegistration())?.active?.state === 'activated',
    { timeout: PATIENCE },
  );
  await hands.sees('as the server has it');
  await server.stop();
  await hands.page.setOfflineMode(true);
  await hands.page.reload();
  await hands.sees('as this browser kept it');
  await hands.sees('Anchor');
  const met: string[] = [];
  const title = () => hands.page.$eval('.stage-now h1', (h) => h.textContent);
  for (let n = 0; n < 18; n += 1) {
    const now = await title();
    if (now && met.at(-1) !== now) met.push(now);
    await hands.press('ArrowRight');
    await hands.page.waitForFunction(
      (place: string) =>
        sessionStorage.getItem(Object.keys(sessionStorage).find((k) => k.startsWith('yunta-stage'))!) !== place,
      { timeout: PATIENCE },
      `${n}`,
    );
  }
  expect(met).toEqual([...TITLES.slice(0, 10), 'Lantern', 'Keel']);
  await hands.sees('The end');
  await hands.page.close();
});
