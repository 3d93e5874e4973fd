import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { takeChoice } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('by-hand');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

/** Takes what a list offers for a text that is typed into it. */
const choose = async (hands: Hands, list: string, text: string): Promise<void> => {
  await hands.type('combobox', list, text);
  await takeChoice(hands.page, text);
};

const demo = async (room: string): Promise<Hands> => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.page.goto(`${server.url}/rig/island-run/${room}`);
  await hands.sees('Island run');
  return hands;
};

test('knobs: a line is understood, drawn and kept; a sound of its own is the hand’s in the proof; what nobody understands is said', async () => {
  const hands = await demo('program?show=knobs');
  await hands.type('textbox', 'Where the knobs stand: LOW', "gain 2 o'clock tone noon level sparkly");
  await hands.press('Enter');
  await hands.sees('“sparkly” is kept as it is');
  await hands.sees("gain 2 o'clock");
  await hands.type('textbox', 'Where the knobs stand: LOW', "gain 2 o'clock, tone noon");
  await hands.press('Enter');
  await choose(hands, 'Where LOW stands otherwise', 'Chorus crunch');
  await hands.type('textbox', 'Where the knobs stand: LOW in Chorus crunch', 'gain full');
  await hands.press('Enter');
  await hands.sees('gain full');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.goto(`${server.url}/rig/island-run/proof`);
  await hands.sees('1 with your hand.');
  await hands.sees("LOW gain at 2 o'clock, but in Chorus crunch");
});

test('a sound without a box; only through it; who uses it; a reason beside a cell', async () => {
  const hands = await demo('sounds');
  await hands.sees('Front of house');
  await hands.click('button', 'Without a box');
  await choose(hands, 'Which box', 'CMP Compressor');
  await hands.sees('without CMP');
  await hands.sees('CMP is used in 11 of 16 sounds');
  await hands.sees('Every sound comes back as it did before.');
  await hands.pick('Only through it');
  await hands.sees('only through CMP');
  await hands.sees('The direct sound:');
  const cell = await hands.page.waitForSelector('[data-at="1,2"]');
  await cell!.click();
  await hands.type('textbox', await reasonField(hands), 'too thick in this key');
  await hands.press('Enter');
  await hands.sees('saved');
  expect(await violations(hands.page)).toEqual([]);
});

/** The field for the reason of the cell that is chosen. */
const reasonField = async (hands: Hands): Promise<string> =>
  (await hands.page.waitForSelector('.cell-why input'))!.evaluate((e) => e.getAttribute('aria-label') ?? '');

test('a box on trial: put between two boxes, what it needs, and taken off again', async () => {
  const hands = await demo('routing?show=map');
  await hands.click('button', 'Try a box tonight');
  await choose(hands, 'Which box', 'Treble booster');
  await hands.sees('one more output of the supply');
  await hands.click('button', 'Put it there');
  await hands.sees('Treble booster is on trial since');
  expect(await violations(hands.page)).toEqual([]);
  await hands.click('button', 'Take it off again');
  await hands.page.waitForFunction(() => !document.body.innerText.includes('is on trial'));
  await hands.sees('42 cables');
});

test('songs on cards for the floor', async () => {
  const hands = await demo('set?show=songs');
  await hands.click('button', 'Cards for the floor');
  await hands.sees('Begin with');
  expect(await hands.page.$$eval('.song-cards.no-print .song-card', (all) => all.length)).toBe(12);
  expect(await violations(hands.page)).toEqual([]);
});
