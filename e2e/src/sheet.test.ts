import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('sheet');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

describe('who calls a sound', () => {
  test('is said beside its name, and chosen there: two sounds change places', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/sounds`));
    await hands.click('button', 'called by SWI 1A');
    await hands.sees('A sound that stands there changes places with it.');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('combobox', 'Eight-loop switcher, slot');
    await hands.click('option', '1B, Chorus crunch');
    await hands.sees('called by SWI 1B');
    await hands.press('Escape');
    await hands.page.click('[data-at="1,-1"]');
    await hands.sees('called by SWI 1A');
    await hands.page.close();
  });

  test('a controller that comes later is offered to the sounds that were there before', async () => {
    const hands = new Hands(await openPage(browser, server.url));
    await hands.type('textbox', 'What is in it, as you would say it', 'guitar into drive, then a combo');
    await hands.click('button', 'Begin with 3 boxes');
    await hands.click('link', 'Sounds');
    await hands.type('textbox', 'Name', 'Verse');
    await hands.click('button', 'Add a sound');
    await hands.sees('called by nothing');
    await hands.click('button', 'called by nothing');
    await hands.sees('Nothing here can call a sound');
    await hands.press('Escape');
    await hands.click('link', 'Kit');
    await hands.page.waitForSelector('#kit-line');
    await hands.page.focus('#kit-line');
    await hands.write('8-loop switcher');
    await hands.press('Enter');
    await hands.sees('4 boxes');
    await hands.click('link', 'Sounds');
    await hands.sees('“Verse” is called by nothing, and there is a free slot.');
    await hands.click('button', 'Give it the slot');
    await hands.sees('called by');
    expect(await hands.text()).not.toContain('called by nothing');
    await hands.page.close();
  });
});

test('a finger on a chosen cell turns it over, and what a cell does is said below the sheet', async () => {
  const page = await openPage(browser, `${await server.fresh('island-run')}/sounds`, 'light', 820, 1180);
  await page.setViewport({ width: 820, height: 1180, hasTouch: true });
  const hands = new Hands(page);
  const cell = '[data-at="0,2"]';
  await page.waitForSelector(cell);
  const says = () => page.$eval(cell, (e) => e.getAttribute('aria-label') ?? '');
  const before = await says();
  await page.tap(cell);
  await hands.sees('Click it again, or Space, turns it over.');
  expect(await says()).toBe(before);
  await page.tap(cell);
  await page.waitForFunction(
    (at: string, was: string) => document.querySelector(at)?.getAttribute('aria-label') !== was,
    {},
    cell,
    before,
  );
  await page.close();
});

test('a word typed after Enter takes the place of a mark', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/sounds`));
  const text = (at: string) => hands.page.$eval(`[data-at="${at}"]`, (e) => e.textContent);
  await hands.page.waitForSelector('[data-at="0,3"]');
  expect(await text('0,3')).toBe('·');
  await hands.page.click('[data-at="0,3"]');
  await hands.press('Enter');
  await hands.page.waitForSelector('.sheet input');
  await hands.write('x');
  await hands.press('Enter');
  await hands.page.waitForFunction(() => document.querySelector('[data-at="0,3"]')?.textContent?.includes('●'));
  await hands.page.close();
});

test('help speaks of the room that one stands in, and says what the words mean', async () => {
  const hands = new Hands(await openPage(browser, `${server.url}/rig/lighthouse-solo/proof`));
  await hands.click('button', 'Help');
  await hands.sees('Help: Proof');
  await hands.sees('Cures were tried by the prover before they are offered.');
  await hands.sees('One way of wiring the rig.');
  await new Promise((r) => setTimeout(r, 400));
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});
