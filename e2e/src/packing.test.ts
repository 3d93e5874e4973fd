import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('packing');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

test('packed from nothing: a case, the board, other things, out and back on a phone; the missing thing shouts', async () => {
  const hands = new Hands(
    await openPage(browser, `${await server.fresh('island-run')}/road?show=pack`, 'dark', 390, 844),
  );
  const put = async (line: string) => {
    await hands.type('textbox', 'Anything else', line);
    await hands.press('Enter');
  };
  await hands.type('textbox', 'Your first case or bag', 'Board case');
  await hands.press('Enter');
  await hands.sees('Nothing belongs in it yet.');
  await hands.click('button', 'Floor board');
  await hands.sees('14.5 kg');
  await put('3 picks, 2 g');
  await hands.sees('picks × 3');
  await put('Capo');
  await hands.sees('weight not known');
  await put('capo');
  await hands.sees('capo is packed in Board case already.');
  await put('Amp -3 kg');
  await hands.sees('-3 kg is no weight.');
  await hands.type('textbox', 'Your name, for the history', 'Ada');
  for (const thing of ['Floor board', 'picks × 3', 'Capo']) await hands.click('checkbox', thing);
  await hands.sees('3 of 3 in');
  await hands.pick('Coming back');
  await hands.click('checkbox', 'Floor board');
  await hands.sees('Missing: picks (Ada packed it), Capo (Ada packed it)');
  await hands.page.reload();
  await hands.pick('Coming back');
  await hands.sees('1 of 3 back');
  await hands.page.close();
});

test('a checked bag over 23 kg is told, found, and a thing put elsewhere; two people lift it', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/road?show=pack`));
  for (const [first, name] of [
    ['Your first case or bag', 'Van case'],
    ['Another case or bag', 'Flight bag'],
  ] as const) {
    await hands.type('textbox', first, name);
    await hands.press('Enter');
    await hands.sees(name);
  }
  await hands.type('textbox', 'Anything else', 'Merchandise, 26 kg');
  await hands.press('Enter');
  await hands.sees('26 kg: two people lift it.');
  await hands.page.$eval('section[aria-label="Flight bag"] summary', (s) => (s as HTMLElement).click());
  await hands.page.select('section[aria-label="Flight bag"] select', 'hold');
  await hands.sees('26 kg of 23 kg: 3 kg too much');
  await hands.click('button', '9 findings');
  await hands.pick('A case that is heavier than it may be');
  await hands.sees('Flight bag weighs 26 kg and may weigh 23 kg');
  await hands.click('button', 'Apply: Put Merchandise into Van case');
  await hands.page.waitForFunction(() => !document.body.innerText.includes('too much'), { timeout: 60_000 });
  await hands.page.close();
});

test('open points: written with a day, a day that is none is refused, overdue is told, ticked off with who did it', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/road?show=open`));
  await hands.sees('Nothing is open.');
  await hands.type('textbox', 'Your name, for the history', 'Ada');
  await hands.type('textbox', 'What must not be forgotten', 'Tubes of the head');
  await hands.type('textbox', 'By which day', '2026-02-31');
  await hands.press('Enter');
  await hands.sees('"2026-02-31" is no day.');
  await hands.type('textbox', 'By which day', '2020-02-28');
  await hands.press('Enter');
  await hands.sees('1 open, 1 overdue');
  await hands.click('checkbox', 'Overdue: Tubes of the head');
  await hands.sees('0 open');
  await hands.sees('done by Ada');
  await hands.page.reload();
  await hands.sees('done by Ada');
  await hands.page.close();
});
