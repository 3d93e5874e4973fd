import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { chooseFile, downloads, savedRig } from './files.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('merge');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

interface SavedFile {
  readonly about: { name: string; origins: unknown[] }[];
  readonly devices: { code: string; name: string }[];
}

test('a file is handed over, changed by two, and merged back: theirs comes, mine stays, both are asked about', async () => {
  const rooms = await server.fresh('night-market-bass');
  const hands = new Hands(await openPage(browser, `${rooms}/kit`));
  const folder = await downloads(hands);
  await hands.click('button', 'Night market bass: the whole rig');
  await hands.click('menuitem', 'Save as a rig file');
  const file = JSON.parse(await savedRig(folder)) as SavedFile;
  const [first, second] = file.devices;
  const { name: firstName } = first!;
  const { name: secondName } = second!;
  first!.name = 'Spare from the van';
  second!.name = 'Theirs now';
  file.about[0]!.name = 'Sent copy';
  const back = join(folder, 'back.yunta.json');
  writeFileSync(back, JSON.stringify(file));

  await hands.page.goto(`${rooms}/kit`);
  await hands.click('button', `${second!.code}, ${secondName}: show it`);
  await hands.type('textbox', 'Name', 'Mine now');
  await hands.press('Enter');
  await hands.sees('Mine now');
  await hands.page.goto(`${rooms}/merge`);
  await chooseFile(hands, back);
  await hands.sees('come from the same one. Since they parted 2 things changed there, 0 things here, 1 thing in both.');
  await hands.sees(`${firstName}: name: Spare from the van (here: ${firstName})`);
  await hands.sees('1 to decide first');
  expect(await violations(hands.page)).toEqual([]);
  await hands.click('button', 'Mine: Mine now');
  await hands.click('button', 'Take 1 change');
  await hands.page.goto(`${rooms}/kit`);
  await hands.sees('Spare from the van');
  await hands.sees('Mine now');
  await hands.sees('Night market bass');
  await hands.page.goto(`${rooms}/merge`);
  await chooseFile(hands, back);
  await hands.sees('1 thing changed there, 0 things here, 1 thing in both.');
  await hands.page.close();
});

test('with another rig: what differs is said, also without a common beginning, and what is no rig is named', async () => {
  const rooms = await server.fresh('lighthouse-solo');
  const hands = new Hands(await openPage(browser, `${rooms}/merge`));
  const folder = await downloads(hands);
  await hands.click('combobox', 'Another rig of yours');
  await hands.click('option', 'Night market bass');
  await hands.sees('They know of no common beginning here');
  await hands.sees('Take 0 changes');
  await hands.click('button', 'Leave it');
  await hands.click('combobox', 'Another rig of yours');
  await hands.click('option', 'Lighthouse solo set');
  await hands.sees('holds the very same as this rig');
  const notes = join(folder, 'notes.json');
  writeFileSync(notes, '{"a": 1}');
  await chooseFile(hands, notes);
  await hands.sees('notes.json: ');
  await hands.sees('Nothing was changed.');
  await hands.page.close();
});
