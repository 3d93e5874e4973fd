import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('levels');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const room = async (show: string, theme: 'light' | 'dark' = 'light'): Promise<Hands> =>
  new Hands(await openPage(browser, `${await server.fresh('island-run')}/levels?show=${show}`, theme));

describe('how loud sounds are', () => {
  test('a lead that lifts by 9 dB is shown, set by one click, and taken back', async () => {
    const hands = await room('steps');
    await hands.sees('1 of 16 sounds lie elsewhere than wanted');
    await hands.sees('3 dB too loud: SWI trim 9 → 4');
    await hands.sees('Last boat, stage by stage');
    await hands.click('button', 'Set the number');
    await hands.sees('16 sounds lie where they are wanted');
    await hands.click('button', 'Undo');
    await hands.sees('1 of 16 sounds lie elsewhere than wanted');
    await hands.page.close();
  });

  test('what a meter said counts instead, with what it was and when; what cannot be is refused beside the field', async () => {
    const hands = await room('steps');
    for (const [name, level] of [
      ['Nine knots', '95 dBA'],
      ['Lantern', '95 dBA'],
      ['Last boat', '100 dBA'],
    ] as const) {
      await hands.pick(name);
      await hands.sees(`${name}, stage by stage`);
      await hands.type('textbox', `${name}, measured level`, '240 dBA');
      await hands.press('Enter');
      await hands.sees('Above 194 dB there is no sound in air.');
      await hands.type('textbox', `${name}, measured level`, level);
      await hands.press('Enter');
      await hands.sees('Take it away');
    }
    await hands.sees('16 sounds lie where they are wanted');
    await hands.type('textbox', 'Last boat, measured with what', 'meter at 1 m');
    await hands.press('Enter');
    await hands.page.reload();
    await hands.sees('16 sounds lie where they are wanted');
    await hands.page.close();
  });
});

test('treble: a shorter lead is tried where its effect is seen, a length that is none is refused, undo brings it back', async () => {
  const hands = await room('treble');
  await hands.sees('Humbucker guitar: 6.3 m, 990 pF');
  await hands.type('textbox', 'lead from Humbucker guitar to Instrument selector, metres', '-1');
  await hands.press('Enter');
  await hands.sees('"-1" is no length of a lead.');
  await hands.type('textbox', 'lead from Humbucker guitar to Instrument selector, metres', '3');
  await hands.press('Enter');
  await hands.sees('Humbucker guitar: 3.3 m, 510 pF');
  await hands.click('button', 'Undo');
  await hands.sees('Humbucker guitar: 6.3 m, 990 pF');
  await hands.pick('Knobs rolled down');
  await hands.page.close();
});

test('every view in both themes, for everybody', async () => {
  for (const [show, sees] of [
    ['steps', 'Sounds beside each other'],
    ['treble', 'What hangs on the coil'],
    ['noise', 'dB under the sound'],
    ['meet', 'No loop goes through the earth of the mains.'],
  ] as const)
    for (const theme of ['light', 'dark'] as const) {
      const hands = await room(show, theme);
      await hands.sees(sees);
      expect([show, theme, await violations(hands.page)]).toEqual([show, theme, []]);
      await hands.page.close();
    }
});
