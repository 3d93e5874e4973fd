import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('power');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const takes = async (hands: Hands, box: string, text: string): Promise<void> => {
  await hands.type('textbox', `${box}, what it takes`, text);
  await hands.press('Enter');
};

test('a rack from an empty page: counted while boxes are chosen, what does not fit and what to buy, plugged in one go', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Rack');
  await hands.click('button', 'Begin');
  await hands.sees('Say what you have');
  const says = async (text: string) => {
    await hands.type(
      'textbox',
      'Say what you have, as you would say it. Enter adds it; a pasted list works too.',
      text,
    );
    await hands.press('Enter');
  };
  await says('guitar, compressor, low-gain drive, fuzz');
  await hands.sees('3 boxes need 3 outputs; no supply is in the kit yet');
  await says('power supply with 8 outputs');
  await hands.sees('3 boxes need 3 outputs; 8 are there');
  await says('chorus, stereo delay midi ch 3, volume pedal');
  // The delay takes 300 mA: two outputs of 250 mA.
  await hands.sees('5 boxes need 6 outputs; 8 are there');
  await hands.click('link', '5 boxes need 6 outputs; 8 are there');
  await hands.sees('Everything can be fed.');
  await hands.sees('a lead that joins 2 outputs for more current');
  await takes(hands, 'Stereo delay', '9 V, 700 mA, negative');
  await hands.sees('a lead that joins 3 outputs for more current');
  await takes(hands, 'Compressor', '18 V, 20 mA, negative');
  await hands.sees('a lead that joins 2 outputs for more volts');
  await takes(hands, 'Fuzz', '9 V, 5 mA, positive');
  await hands.sees('a lead that turns the polarity');
  await takes(hands, 'Chorus', '12 V, 100 mA, ac');
  await hands.sees('CHO Chorus (12 V AC, 100 mA): no output gives alternating current.');
  await hands.sees('Needed: an output of 12 V AC with 100 mA or more.');
  await takes(hands, 'Low-gain drive', 'nine volts');
  await hands.sees('"nine volts" cannot be read.');
  await takes(hands, 'Low-gain drive', '9 V, 20 mA, negative');
  await hands.sees('Need none: Single-coil guitar, Volume pedal.');
  await hands.click('button', 'Plug it so in Main');
  await hands.sees('All leads are plugged so in Main.');
  expect(await violations(hands.page)).toEqual([]);
  // What the plan says and what the findings say is the same: the chorus, and nothing else.
  await hands.sees('5 boxes want an output, and 8 are there: Chorus finds none that fits and is free.');
  await hands.page.keyboard.down('Control');
  await hands.page.keyboard.press('z');
  await hands.page.keyboard.up('Control');
  await hands.sees('Plug it so in Main');
  await hands.page.close();
});

test('a supply lead goes over a way of the multicore, and all is plugged at its far end', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Long way');
  await hands.type('textbox', 'What is in it, as you would say it', 'compressor, multicore, supply with five outputs');
  await hands.click('button', 'Begin with 3 boxes');
  await hands.click('link', '1 box needs 1 output; 5 are there');
  const field = 'select[aria-label="Compressor, where its supply lead goes"]';
  await hands.page.waitForSelector(field);
  const way = await hands.page.$eval(`${field} option:nth-child(2)`, (o) => (o as HTMLOptionElement).value);
  await hands.page.select(field, way);
  await hands.click('button', 'Plug it so in Main');
  await hands.sees('All leads are plugged so in Main.');
  expect(await hands.page.$eval(field, (f) => (f as HTMLSelectElement).value)).toBe(way);
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test.each(['light', 'dark'] as const)('axe finds nothing serious in a kit that no supply feeds, %s', async (theme) => {
  const hands = new Hands(await openPage(browser, `${server.url}/rig/night-market-bass/power`, theme));
  await hands.sees('no supply is in the kit');
  await new Promise((r) => setTimeout(r, 400));
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});
