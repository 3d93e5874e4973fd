import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('build');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const MOST_ACTIONS = 60;

test(`from an empty page to the first proof in at most ${MOST_ACTIONS} actions: a switcher, six boxes, an amp, a cabinet, four sounds`, async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Harbour trio');
  await hands.click('button', 'Begin');
  await hands.sees('Say what you have');
  await hands.type(
    'textbox',
    'Say what you have, as you would say it. Enter adds it; a pasted list works too.',
    'guitar, 8-loop switcher, compressor, low-gain drive, octave fuzz, stereo modulation, stereo delay midi ch 3, stereo reverb, two-channel head, 2x12',
  );
  await hands.press('Enter');
  await hands.sees('10 boxes');
  await hands.click('button', 'Wire it');
  await hands.pick('Cables');
  await hands.click('button', 'Four cables');
  await hands.sees('first of the four cables');
  const plug = await hands.page.$$eval('button', (all) =>
    all.map((b) => b.textContent ?? '').find((t) => t.startsWith('Plug these')),
  );
  await hands.click('button', plug!);
  await hands.sees('SWI send1');
  await hands.click('link', 'Sounds');
  await hands.type('textbox', 'Name', 'Clean');
  await hands.press('Enter');
  await hands.sees('Sound sheet');
  for (const name of ['Crunch', 'Wide', 'Lead']) {
    await hands.type('textbox', 'Name of a new sound', name);
    await hands.press('Enter');
    await hands.sees(name);
  }
  // One block, copied from a spreadsheet: trim, compressor, fuzz, drive, channel, modulation, its program, delay, its
  // program, reverb, its program.
  const header = await hands.page.$$eval('.sheet thead th', (all) => all.map((t) => t.textContent));
  expect(header).toEqual([
    'Slot',
    'Sound',
    'trim dB',
    'CMP',
    'OFZ',
    'LOW',
    'HED ch.',
    'MODon',
    'prog',
    'DLYon',
    'prog',
    'REVon',
    'prog',
  ]);
  const block = [
    ['0', 'x', '-', '-', 'clean', '-', '1', '-', '0', 'x', '1.1'],
    ['0', 'x', '-', 'x', 'clean', '-', '1', '-', '0', 'x', '1.1'],
    ['0', 'x', '-', 'x', 'clean', 'x', '2', 'x', '1', 'x', '1.2'],
    ['3', 'x', '-', 'x', 'lead', '-', '1', 'x', '1', 'x', '1.2'],
  ];
  await hands.press('Home');
  await hands.page.focus('[data-at="0,0"]');
  await hands.click('gridcell', 'Eight-loop switcher: trim: not said');
  await hands.pasteCells(block);
  // Pedals in loops can still be stepped on: left to the foot until that is taken for granted.
  await hands.sees('0 of 4 come back. 4 with your foot');
  expect(hands.actions).toBeLessThanOrEqual(MOST_ACTIONS);
  console.info(`built and proved in ${hands.actions} actions`);

  await hands.page.waitForFunction(() => document.body.innerText.includes(', saved'));
  const id = /rig\/([^/]+)/.exec(hands.page.url())![1]!;
  await server.down('SIGTERM');
  await server.up();
  const again = new Hands(await openPage(browser, `${server.url}/rig/${id}/sounds`));
  await again.sees('0 of 4 come back. 4 with your foot');
  await again.sees('Harbour trio');
});

const MOST_TO_A_SOUND = 15;

test(`from an empty page to a traced sound in at most ${MOST_TO_A_SOUND} actions: the starting point of four cables with a switcher, on an empty kit`, async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Quay sessions');
  await hands.click('button', 'Begin');
  await hands.click('button', 'Starting points');
  await hands.pick('Four cables with a switcher');
  await hands.pick('After the gain');
  await hands.sees('14 boxes to get');
  await hands.sees('SWI send4 → HED in first of the four cables');
  await hands.click('button', 'Wire it so');
  await hands.page.waitForSelector('.map-lead.lit');
  await hands.page.waitForFunction(() =>
    ['GSC', 'SWI', 'HED', 'CAB'].every((code) =>
      [...document.querySelectorAll('.map-box')].some(
        (b) => b.querySelector('.map-tag.in') && b.querySelector('.map-code')?.textContent === code,
      ),
    ),
  );
  await hands.sees('1 of 1 come back.');
  expect(hands.actions).toBeLessThanOrEqual(MOST_TO_A_SOUND);
  await hands.click('link', 'Sounds');
  await hands.sees('First sound');
  await hands.page.close();
});
