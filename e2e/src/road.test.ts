import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('road');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

test('an amp dies: looked up by name, what to heed, which plugs, what is left; a string: no plug at all', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/road`));
  await hands.sees('things that can fail silence every sound.');
  await hands.sees('Turn SEL select to b, and take the other instrument.');
  await hands.type('textbox', 'What failed', 'valve head');
  await hands.pick('Two-channel valve head 50 W dies');
  await hands.sees('Switch the amp off before you touch its speaker lead');
  await hands.sees('Take a lead from PRE out to FOH ch2.');
  await hands.sees('Feed Preamp with cabinet simulation: it wants 9 V, 200 mA.');
  await hands.sees('Then: 16 of 16 heard with something missing.');
  await hands.click('button', 'Sound by sound');
  await hands.sees('without Two-channel valve head 50 W');
  await hands.type('textbox', 'What failed', 'zither');
  await hands.sees('Nothing of that name can fail here.');
  await hands.page.close();
});

test('a silent sound: nothing broken first, then each answer halves what it can be, and leads to the way out', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/road?show=find`));
  await hands.sees('Tuner: is it muted?');
  for (let test = 1; test <= 8; test += 1) {
    await hands.sees(`Test ${test}`);
    await hands.click('button', 'Nothing');
    const text = await hands.text();
    if (text.includes('It is ')) break;
  }
  await hands.sees('It is Single-coil guitar');
  await hands.click('button', 'Back');
  await hands.click('button', 'There is sound');
  await hands.sees('It is the lead from GSC out to WLS in');
  await hands.click('button', 'The way out');
  await hands.sees('Take a lead from GSC out to WLS in.');
  await hands.page.close();
});

test('a line check on a phone: ticked, kept over a reload, opened again, and counted', async () => {
  const hands = new Hands(
    await openPage(browser, `${await server.fresh('island-run')}/road?show=check`, 'dark', 390, 844),
  );
  await hands.sees('0 of 25 ticked');
  await hands.type('textbox', 'Your name, for the history', 'Ada');
  await hands.click('checkbox', 'Mixing desk ch1: Cabinet microphone at Closed 2×12 cabinet');
  await hands.sees('1 of 25 ticked');
  await hands.sees('Ticked by Ada');
  await hands.page.reload();
  await hands.sees('1 of 25 ticked');
  await hands.click('checkbox', 'Mixing desk ch1: Cabinet microphone at Closed 2×12 cabinet');
  await hands.sees('0 of 25 ticked');
  await hands.page.close();
});

test('leads: written down as there, to make, to buy; cut of reels with a proof; a reel of −3 m is refused', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/build`));
  await hands.sees('41 leads: 0 there, 0 to make, 41 to buy');
  const make = async (lead: string, m: string) => {
    await hands.type('textbox', `${lead}, metres`, m);
    await hands.press('Enter');
    await hands.page.select(`select[aria-label="${lead}, is"]`, 'to make');
  };
  await make('SWI send1 → CMP in', '0.3');
  await make('CMP out → SWI return1', '0.6');
  await hands.sees('2 to make');
  await hands.sees('No cable for SWI send1 → CMP in, 0.34 m; CMP out → SWI return1, 0.64 m.');
  for (const reel of ['-3', '5', '1']) {
    await hands.type('textbox', 'Metres on a new reel', reel);
    await hands.press('Enter');
    if (reel === '-3') await hands.sees('"-3" is no length of a reel.');
    else await hands.sees(`${reel} m of instrument cable`);
  }
  await hands.sees('0.02 m are left over. No way to cut opens less cable.');
  await hands.sees('4 × angled 6.35 TS plug for instrument cable');
  await hands.page.select('select[aria-label="GSC out → WLS in, is"]', 'there');
  await hands.sees('41 leads: 1 there, 2 to make, 38 to buy');
  await hands.page.reload();
  await hands.sees('41 leads: 1 there, 2 to make, 38 to buy');
  await hands.page.close();
});
