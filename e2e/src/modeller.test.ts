import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { takeChoice } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('modeller');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const BOX = 'Modeller with two loops';

/** Types into a cell of the sheet that is shown, found by its row and what its column says. */
const type = async (hands: Hands, row: number, column: string, text: string): Promise<void> => {
  const heads = await hands.page.$$eval('.sheet thead th', (all) =>
    all.slice(2).map((t) => t.getAttribute('aria-label') ?? ''),
  );
  const at = heads.indexOf(`${BOX}: ${column}`);
  if (at < 0) throw new Error(`no column says "${column}": ${heads.join(', ')}`);
  const cell = await hands.page.waitForSelector(`[data-at="${row},${at}"]`);
  await cell!.evaluate((e) => e.scrollIntoView({ inline: 'center', block: 'center' }));
  hands.actions += 1;
  await cell!.click();
  await hands.write(text);
  await hands.press('Enter');
};

/** At most so many actions from an empty page to a proved rig of one modeller. */
const MOST = 60;

test(`a modeller alone, from an empty page to proved: presets, a scene, a move, dialling in; in under ${MOST} actions`, async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'One box');
  await hands.type('textbox', 'What is in it, as you would say it', 'guitar → large modeller → desk');
  await hands.click('button', 'Begin with 3 boxes');
  await hands.sees('One box');
  await hands.click('link', 'Sounds');
  for (const name of ['Clean', 'Crunch', 'Lead', 'Wide']) {
    await hands.type('textbox', name === 'Clean' ? 'Name' : 'Name of a new sound', name);
    await hands.press('Enter');
    await hands.sees(`called by MD2 1${'ABCD'['Clean Crunch Lead Wide'.split(' ').indexOf(name)]}`);
  }
  await hands.click('button', 'Rows and columns');
  await hands.click('combobox', 'Show a control as a column');
  await hands.pick(`All amounts of MD2, ${BOX}`);
  await hands.sees('delay mix %');
  await hands.press('Escape');
  await type(hands, 1, 'drive', 'x');
  await type(hands, 1, 'drive gain', '40');
  await type(hands, 2, 'drive', 'x');
  await type(hands, 2, 'drive gain', '60');
  await type(hands, 2, 'which amp', 'amp-b');
  await type(hands, 3, 'reverb', 'x');
  await hands.sees('4 of 4 come back.');

  // The wide sound is a scene of the first preset: it changes without a hole.
  await hands.click('button', 'called by MD2 1D');
  await hands.click('combobox', `${BOX}, scene in a preset`);
  await hands.write('1A scene 2');
  await takeChoice(hands.page, '1A scene 2');
  await hands.sees('called by MD2 1A scene 2');
  await hands.sees('1A scene 1');
  await hands.press('Escape');

  await hands.pick('Moves');
  await hands.type('textbox', 'Name of a new move', 'Solo');
  await hands.press('Enter');
  await hands.sees('MD2 E');
  await type(hands, 0, 'drive gain', '75');
  await type(hands, 0, 'drive level', '3');
  expect(hands.actions).toBeLessThan(MOST);

  await hands.click('link', 'Proof');
  await hands.sees('4 of 4 come back.');
  await hands.click('link', 'Program');
  await hands.sees('Dial in at the boxes');
  await hands.sees('1A scene 2');
  await hands.sees('on: drive; the others off');
  await hands.sees('drive gain 60 %');
  expect(await violations(hands.page)).toEqual([]);

  await hands.click('link', 'Bench');
  await hands.sees('Just switched on.');
  await hands.press('3');
  await hands.sees('Lead stands as wanted.');
  await hands.press('5');
  await hands.sees('drive gain is 75 %, wanted 60 %.');
  await hands.page.close();
});
