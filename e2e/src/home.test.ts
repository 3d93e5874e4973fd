import { readdirSync, readFileSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { openFind } from './keys.js';
import { PATIENCE } from './patience.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('home');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const SAYS = 'What is in it, as you would say it';
const until = async (is: () => boolean): Promise<void> => {
  for (const end = Date.now() + PATIENCE; !is(); await new Promise((r) => setTimeout(r, 50)))
    if (Date.now() > end) throw new Error('it never came about');
};

test('each rig is a card that says how its sounds stand, and nothing serious is wrong for those who do not see it', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.sees('14 of 16 come back. 2 can come back wrong.');
  await hands.sees('7 of 7 come back.');
  expect(await violations(hands.page)).toEqual([]);
});

test('a rig that is said is there, wired in the order in which it was said', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Quick four');
  await hands.type('textbox', SAYS, 'guitar into wah, then a preamp, then a combo, guitar stand');
  await hands.sees('“a preamp” The word means several boxes. Which one?');
  await hands.sees('“guitar stand” Not a box of the rig.');
  await hands.pick('Valve preamp pedal');
  await hands.sees('It will be added as Valve preamp pedal.');
  await hands.click('button', 'Begin with 4 boxes');
  await hands.sees('Main, 3 cables');
  await hands.click('button', 'Quick four: the whole rig');
  await hands.click('menuitem', 'All rigs');
  await hands.sees('4 boxes · 0 sounds Begun, just now');
  expect(hands.actions).toBeLessThanOrEqual(6);
});

test('a rig is renamed, copied, put away and brought back from its card', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  // Every card has been drawn, in whatever order they come: nothing moves any more.
  for (const says of ['14 of 16 come back.', '6 of 6 come back.', '7 of 7 come back.']) await hands.sees(says);
  await hands.click('button', 'What to do with Night market bass');
  await hands.click('menuitem', 'Make a copy');
  await hands.sees('A copy of “Night market bass” was made.');
  await hands.page.waitForFunction(() => document.body.innerText.split('7 of 7 come back.').length === 3);
  await hands.click('button', 'What to do with Night market bass, copy');
  await hands.click('menuitem', 'Rename');
  await hands.type('textbox', 'New name of Night market bass, copy', 'Fly date');
  await hands.press('Enter');
  await hands.sees('It is called “Fly date” now.');
  await hands.click('button', 'What to do with Fly date');
  await hands.click('menuitem', 'Put away');
  await hands.sees('“Fly date” was put away.');
  await hands.pick('1 put away');
  await hands.click('button', 'Bring it back');
  await hands.sees('“Fly date” is back.');
  await hands.click('link', 'Fly date');
  await hands.sees('7 of 7 come back.');
});

test('from any room: the rig is saved as a file and renamed; several files are opened at once, what is no rig is named', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-files-'));
  const hands = new Hands(await openPage(browser, `${server.url}/rig/lighthouse-solo/proof`));
  const session = await hands.page.createCDPSession();
  await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
  await hands.sees('6 of 6 come back.');
  await hands.click('button', 'Lighthouse solo set: the whole rig');
  await hands.click('menuitem', 'Save as a rig file');
  await until(() => readdirSync(folder).includes('lighthouse-solo-set.yunta.json'));
  const file = join(folder, 'lighthouse-solo-set.yunta.json');
  await until(() => readFileSync(file, 'utf8').endsWith('\n') || readFileSync(file, 'utf8').length > 1000);
  await hands.click('button', 'Lighthouse solo set: the whole rig');
  await hands.click('menuitem', 'Rename');
  await hands.type('textbox', 'Name of the rig', 'Lighthouse two');
  await hands.press('Enter');
  await hands.sees('Lighthouse two');
  writeFileSync(
    join(folder, 'other.json'),
    readFileSync(file, 'utf8').replace('Lighthouse solo set', 'From elsewhere'),
  );
  writeFileSync(join(folder, 'notes.json'), '{"a": 1}');
  await hands.page.goto(server.url);
  await hands.sees('From rig files');
  const field = await hands.page.waitForSelector('input[type=file]');
  await (field as never as { uploadFile: (...f: string[]) => Promise<void> }).uploadFile(
    file,
    join(folder, 'other.json'),
    join(folder, 'notes.json'),
  );
  await hands.sees('notes.json: ');
  await hands.sees('From elsewhere');
  expect((await hands.text()).split('Lighthouse solo set').length).toBeGreaterThan(1);
});

test('a rig to learn from opens where its trouble is', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.click('button', 'Show them');
  await hands.pick('A bypass that only toggles');
  await hands.page.waitForFunction(() => location.pathname.endsWith('/proof'));
  await hands.sees('can come back wrong');
});

test('the hook-up is in the address: it stays from room to room, and on a reload', async () => {
  const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
  await hands.sees('14 of 16 come back.');
  await hands.click('combobox', 'Hook-up');
  await hands.click('option', 'Ferry deck');
  const shown = () => hands.page.$eval('input[aria-label="Hook-up"]', (e) => (e as HTMLInputElement).value);
  await hands.click('link', 'Kit');
  await hands.page.waitForFunction(() => location.search.includes('in='));
  expect(await shown()).toBe('Ferry deck');
  await hands.page.reload();
  await hands.sees('23 boxes');
  expect(await shown()).toBe('Ferry deck');
});

test('anything is found from everywhere, also while one writes: a song, a hook-up, a finding, something to do', async () => {
  const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
  await hands.page.waitForSelector('#kit-line');
  await hands.page.focus('#kit-line');
  await openFind(hands.page);
  await hands.write('Ferry deck');
  await hands.sees('Hook-up: look at the rig as it is wired there');
  await hands.press('Enter');
  await hands.page.waitForFunction(() => location.search.includes('in='));
});

test('who is at the keyboard is asked once; a mark tells afterwards what changed since, in words', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Your name, for the history', 'Ines');
  const rooms = await server.fresh('night-market-bass');
  await hands.page.goto(`${rooms}/kit`);
  await hands.click('button', 'Night market bass: the whole rig');
  await hands.click('menuitem', 'History');
  await hands.type('textbox', 'Name of a mark', 'before the ferry tour');
  await hands.click('button', 'Set a mark');
  await hands.sees('Mark: before the ferry tour, by Ines');
  await hands.click('button', 'Played a gig');
  await hands.sees('Mark: gig, by Ines');
  await hands.press('Escape');
  await hands.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await hands.click('button', 'CMP, Bass compressor: show it');
  await hands.type('textbox', 'Name', 'Squeezer');
  await hands.press('Enter');
  await hands.click('button', 'Night market bass: the whole rig');
  await hands.click('menuitem', 'History');
  await hands.click('button', 'Mark: before the ferry tour: what changed since');
  await hands.sees('Bass compressor: name: Squeezer (was: Bass compressor)');
  await hands.click('button', 'Mark: before the ferry tour: what changed since');
  await hands.click('button', 'What changed since the last gig');
  await hands.sees('Bass compressor: name: Squeezer (was: Bass compressor)');
  await hands.page.close();
});
