import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { takeChoice } from './keys.js';
import { PATIENCE } from './patience.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('acts');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

/** A list of choices that is still going away is half seen, and would be judged so. */
const closed = (hands: Hands): Promise<unknown> =>
  hands.page.waitForFunction(
    () => [...document.querySelectorAll<HTMLElement>('[role=listbox]')].every((list) => list.offsetParent === null),
    { timeout: PATIENCE },
  );

test('an act with its hook-up and banks, a sound in reserve that the stage keeps at hand, a spare song', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/set?show=list`));
  await hands.type('textbox', 'Name of a new act', 'Deck nights');
  await hands.press('Enter');
  await hands.sees('Deck nights: 1 set, 12 songs');
  await hands.click('combobox', 'Wired as');
  await hands.click('option', 'Ferry deck');
  await hands.sees('is wired as Ferry deck');
  await hands.click('button', 'Show Ferry deck');
  await hands.page.waitForFunction(() => !document.body.innerText.includes('is wired as'), { timeout: PATIENCE });
  await hands.type('textbox', 'SWI: from bank', '6');
  await hands.type('textbox', 'to bank', '9');
  await hands.press('Tab');
  await hands.click('combobox', 'A sound to have in reserve');
  await hands.click('option', 'Storm fuzz');
  await hands.sees('at most 3 stomps');
  await hands.click('combobox', 'What comes before Late crossing');
  await hands.click('option', 'the spare songs');
  await hands.sees('10 songs and 2 spare');
  await closed(hands);
  expect(await violations(hands.page)).toEqual([]);
  await hands.click('link', 'On stage');
  await hands.click('button', 'Reserve');
  await hands.sees('2C Storm fuzz');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test('slots with wishes: the banks of an act, roles on one switch, two slots; what each wish costs; a mirrored bank', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/set?show=slots`));
  await hands.sees('23 stomps, no bank key');
  await hands.click('combobox', 'Each bank is for');
  await hands.click('option', 'a bank is for one role');
  await hands.sees('That needs at least 5 banks');
  await hands.click('button', 'Use 5 banks');
  await hands.click('button', 'Find the fewest');
  await hands.sees('It took');
  await hands.sees('of them bank keys');
  await hands.click('combobox', 'Each bank is for');
  await hands.click('option', 'a bank is for one song');
  await hands.click('button', 'Find the fewest');
  await hands.sees('with a bank for every song');
  await hands.sees('once more');
  expect(await violations(hands.page)).toEqual([]);
  await hands.click('button', 'Reckon it');
  await hands.page.waitForFunction(() => document.body.innerText.includes('a bank for one song'), {
    timeout: PATIENCE,
  });
  await hands.sees('a bank for one song 23 0');
  await hands.click('button', 'Mirror the bank');
  await hands.sees('bank 5 mirrors bank 1 in step');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test('two sounds that want two boxes each the other way round: what contradicts, who gives way', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/set?show=slots`));
  await hands.sees('No sound asks for an order of its own');
  const say = async (...choices: readonly [sound: string, first: string, second: string]): Promise<void> => {
    for (const [i, field] of ['a sound', 'this box', 'that box'].entries()) {
      await hands.type('combobox', field, choices[i] ?? '');
      await takeChoice(hands.page, choices[i] ?? '');
    }
    await hands.click('button', 'Say so');
  };
  await say('Verse clean', 'CMP Compressor', 'LOW Low-gain drive');
  await hands.sees('One order gives every sound what it asks for: CMP, LOW');
  await say('Lead', 'LOW Low-gain drive', 'CMP Compressor');
  await hands.sees('No one order gives every sound what it asks for.');
  await hands.sees('“Lead” wants LOW before CMP');
  await closed(hands);
  expect(await violations(hands.page)).toEqual([]);
  await hands.click('button', 'Let “Lead” give way');
  await hands.sees('One order gives every sound what it asks for: CMP, LOW');
  await hands.page.close();
});

test('the songs of the band come from the rig of another player, in their order, with its breaks', async () => {
  const hands = new Hands(await openPage(browser, `${await server.fresh('night-market-bass')}/set?show=songs`));
  await hands.click('button', 'Songs of another rig');
  await hands.click('combobox', 'Which rig of the band');
  await hands.click('option', 'Island run');
  await hands.click('combobox', 'Which set of theirs');
  await hands.click('option', 'the set Ferry season');
  await hands.click('button', 'Take 12 new, update 0');
  await hands.sees('12 added, 0 brought up to date.');
  await closed(hands);
  expect(await violations(hands.page)).toEqual([]);
  await hands.pick('Set list');
  await hands.click('combobox', 'Set list');
  await hands.click('option', 'Ferry season');
  await hands.sees('Rope and tide');
  await hands.sees('Encore');
  await hands.page.close();
});
