import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('touch');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const TABLET = { width: 820, height: 1180, hasTouch: true };

const opened = async (room: string): Promise<{ readonly page: Page; readonly hands: Hands }> => {
  const page = await openPage(browser, `${await server.fresh('island-run')}/${room}`, 'light', 820, 1180);
  await page.setViewport(TABLET);
  return { page, hands: new Hands(page) };
};

/** A finger on whatever has this role and name. */
const tap = async (page: Page, role: string, name: string): Promise<void> => {
  const found = await page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`);
  await found!.scrollIntoView();
  await found!.tap();
};

/** A finger on a drawn thing that only a picture names. */
const tapText = async (page: Page, within: string, text: string): Promise<void> => {
  await page.waitForSelector(within);
  const found = await page.waitForSelector(`${within} ::-p-text(${text})`);
  await found!.tap();
};

test('sounds: a finger on a tag of the run takes it out and brings it in', async () => {
  const { page } = await opened('sounds');
  const cell = (at: string) => page.$eval(`[data-at="${at}"]`, (e) => e.textContent);
  await page.waitForSelector('[data-at="0,1"]');
  expect(await cell('0,1')).toBe('●');
  await tapText(page, '.run', 'CMP');
  await page.waitForFunction(() => document.querySelector('[data-at="0,1"]')?.textContent === '·');
  await page.waitForFunction(() => document.querySelectorAll('.run .stub').length > 0);
  await page.waitForFunction(() =>
    [...document.querySelectorAll('.run .name')].some((e) => e.textContent?.trim() === 'CMP'),
  );
  await tapText(page, '.run', 'CMP');
  await page.waitForFunction(() => document.querySelector('[data-at="0,1"]')?.textContent === '●');
  await page.close();
});

test('routing: a cable is pulled and plugged by finger in the list', async () => {
  const { page, hands } = await opened('routing?show=cables');
  await hands.sees('42 cables');
  await tap(page, 'button', 'Pull the cable from GSC out to WLS in');
  await hands.sees('41 cables');
  await tap(page, 'button', 'Undo');
  await hands.sees('42 cables');
  await page.close();
});

test('bench: the floor is stomped on by finger', async () => {
  const { page, hands } = await opened('bench');
  await hands.sees('Just switched on.');
  await tapText(page, '.floor', 'Chorus crunch');
  await hands.sees('C2 04');
  await page.close();
});

test('kit: a box is opened, a stage put into it and taken out again by finger', async () => {
  const { page, hands } = await opened('kit');
  await tap(page, 'button', 'DLY, Stereo delay: show it');
  await tap(page, 'button', 'Open the box');
  await tap(page, 'button', 'Put something in before delay');
  await tap(page, 'menuitem', 'boost');
  await hands.sees('Take boost out');
  // The list fades out over what stands below it.
  await page.waitForFunction(() => !document.querySelector('[role="menuitem"]'));
  await tap(page, 'button', 'Later');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('.inside-tag strong')]
      .map((e) => e.textContent)
      .join()
      .includes('delay,boost'),
  );
  await tap(page, 'button', 'Take boost out');
  await page.waitForFunction(() => !document.querySelector('.inside-drawn')?.textContent?.includes('boost'));
  await page.close();
});

test('program: a line is ticked off by finger', async () => {
  const { page, hands } = await opened('program');
  await hands.sees('101 to type');
  await tap(page, 'checkbox', 'name “Verse clean”');
  await hands.sees('100 to type');
  await page.close();
});
