import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
const page = async (room = 'sounds') =>
  new Hands(
    await openPage(
      await browser.createBrowserContext().then((c) => c as unknown as Browser),
      `${server.url}/rig/island-run/${room}`,
    ),
  );
beforeAll(async () => {
  server = await TestServer.start('pages');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

/** Types a new name into the row of the sheet. */
const rename = async (hands: Hands, row: number, name: string) => {
  await hands.page.waitForSelector(`[data-at="${row},-1"]`);
  await hands.page.click(`[data-at="${row},-1"]`);
  await hands.press('Enter');
  await hands.page.waitForSelector('.sheet input');
  await hands.page.keyboard.down('Control');
  await hands.page.keyboard.press('a');
  await hands.page.keyboard.up('Control');
  await hands.write(name);
  await hands.press('Enter');
};

test('two pages: different parts merge; the same part asks with both values; nothing vanishes', async () => {
  const [one, two] = [await page(), await page()];
  await one.sees('14 of 16');
  await two.sees('14 of 16');
  await rename(one, 0, 'Opening');
  await rename(two, 1, 'Refrain');
  await one.sees('Refrain');
  await two.sees('Opening');

  await server.down('SIGKILL');
  await rename(one, 4, 'Mine');
  await rename(two, 4, 'Theirs');
  await one.sees('1 change waits');
  await two.sees('1 change waits');
  await server.up();
  const asked = await Promise.race([
    one.sees('Somebody else changed the same thing').then(() => one),
    two.sees('Somebody else changed the same thing').then(() => two),
  ]);
  const said = await asked.text();
  expect(said).toContain('Mine');
  expect(said).toContain('Theirs');
  expect(said).toContain('Waltz clean: name');
  await asked.click('button', 'Keep mine');
  const kept = asked === one ? 'Mine' : 'Theirs';
  await one.sees(kept);
  await two.sees(kept);
});

test('what is edited while the server is away waits in the browser, also over a reload, and is sent later', async () => {
  const hands = await page();
  await hands.sees('come back');
  await server.down('SIGKILL');
  await rename(hands, 9, 'Written in the dark');
  await rename(hands, 10, 'And this too');
  await hands.sees('2 changes wait');
  await hands.page.reload().catch(() => undefined);
  await server.up();
  await hands.page.goto(`${server.url}/rig/island-run/sounds`);
  await hands.sees('Written in the dark');
  await hands.page.waitForFunction(() => document.body.innerText.includes(', saved'));
  const other = await page();
  await other.sees('Written in the dark');
  await other.sees('And this too');
});

test('an earlier revision is brought back and taken back again; what was ticked stays ticked; without the server it says why not', async () => {
  const hands = await page('program');
  await hands.type('textbox', 'Your name, for the history', 'Technician');
  await hands.click('button', 'Tick all lines, SWI 1B');
  await hands.sees('Technician, revision');
  await hands.click('link', 'Sounds');
  await rename(hands, 11, 'Last one');
  await hands.sees('Last one');
  await hands.page.click('.saved');
  await hands.click('button', 'Back to revision 1');
  await hands.sees('Revision 1 is back. Undo takes that back.');
  await hands.page.waitForFunction(() =>
    document.querySelector('[data-at="11,-1"]')?.textContent?.includes('Pilot lead'),
  );
  await hands.sees('Back to revision 1');
  await server.down('SIGKILL');
  await hands.click('button', 'Back to revision 2');
  await hands.sees('Nothing was brought back: the server, which keeps revision 2, does not answer.');
  await server.up();
  await hands.press('Escape');
  await hands.page.waitForSelector('.mantine-Drawer-overlay', { hidden: true });
  await hands.click('button', 'Undo');
  await hands.page.waitForFunction(() =>
    document.querySelector('[data-at="11,-1"]')?.textContent?.includes('Last one'),
  );
  await hands.click('link', 'Program');
  await hands.sees('Technician, revision');
});

test('who plays on the bench goes on while somebody else ticks off what is typed in; a change of the sounds sets the bench up anew', async () => {
  const [player, technician] = [await page('bench'), await page('program')];
  await player.sees('keys 1–9');
  await player.press('4');
  await player.sees('Lead stands as wanted');
  await technician.type('textbox', 'Your name, for the history', 'Technician');
  await technician.click('button', 'Tick all lines, SWI 1A');
  await technician.sees('Technician, revision');
  await technician.sees(', saved');
  const [revision] = /revision \d+, saved/.exec(await technician.text())!;
  await player.sees(revision);
  await player.press('2');
  await player.sees('DLY shows 4');
  await player.click('button', 'Keep as a test');
  await player.sees('Power up, then Stomp Lead, 1D, Stomp');
  await technician.click('link', 'Sounds');
  await rename(technician, 0, 'Overture');
  await player.sees('Quiet. Stomp on something.');
  expect(await player.text()).toContain('Overture');
});
