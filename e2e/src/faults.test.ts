import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('faults');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

describe("the demo's two honest faults", () => {
  test.each([
    ['Chorus wide', 'Apply: Chorus wide: call Stereo delay program 4 “Slap”', 'DLY on/off'],
    ['Waltz grit', 'Apply: Let Yunta write this slot', 'MOD program'],
  ])(
    '%s: found, its footsteps replay on the bench, one click proves it, undo brings it back',
    async (name, cure, control) => {
      const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/proof`));
      await hands.sees('14 of 16 come back');
      await hands.click('button', `can come back wrong: ${name}`);
      await hands.sees(`${name} can come back wrong`);
      await hands.sees(`Stomp ${name}`);
      await hands.click('button', 'Play on the bench');
      await hands.sees(`How ${name} comes back wrong`);
      await hands.sees(`On the bench too: ${control}`);
      await hands.click('link', 'Proof 4 findings');
      await hands.click('button', `can come back wrong: ${name}`);
      await hands.click('button', cure);
      await hands.sees('15 of 16 come back');
      await hands.click('button', 'Undo');
      await hands.sees('14 of 16 come back');
      await hands.sees(`can come back wrong: ${name}`);
      await hands.page.close();
    },
  );

  test('an accepted finding stays quiet with its reason, and can be taken back', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/proof`));
    await hands.click('button', '8 findings');
    await hands.type('textbox', 'Why Only a toggle reaches it is accepted', 'the singer likes the surprise');
    await hands.press('Enter');
    await hands.sees('7 findings');
    await hands.pick('Accepted (1)');
    await hands.sees('Accepted: the singer likes the surprise');
    await hands.click('button', 'Take back');
    await hands.sees('8 findings');
    await hands.page.close();
  });

  test('findings are filtered by kind and by word, and walked by arrow keys', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.click('button', '8 findings');
    await hands.pick('Notes (5)');
    await hands.sees('What the volume pedal does where it stands');
    await hands.pick('To look at (8)');
    await hands.type('textbox', 'Find a finding', 'waltz');
    await hands.sees('A program number that is one off');
    expect(await hands.text()).not.toContain('Only a toggle reaches it');
    const focused = () => hands.page.evaluate(() => document.activeElement?.textContent ?? '');
    await hands.press('ArrowDown');
    expect(await focused()).toContain('A sound that can come back wrong');
    await hands.press('ArrowDown');
    expect(await focused()).toContain('A program number that is one off');
    await hands.page.close();
  });
});

describe('the bench by keyboard', () => {
  test('keys stomp, a held key holds, the bytes say who reacted', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/bench`));
    await hands.sees('keys 1–9');
    await hands.press('2');
    await hands.sees('Chorus crunch stands as wanted');
    await hands.sees('C2 04');
    await hands.sees('DLY shows 4');
    await hands.page.keyboard.down('5');
    await hands.sees('held down');
    await hands.page.keyboard.up('5');
    await hands.press('0');
    await hands.sees('bank 2');
    await hands.press('2');
    await hands.sees('Waltz grit is not as wanted: MOD program is 14, wanted 13');
    await hands.page.close();
  });
  test('a supply that fails is found by typing, seen on the boxes and in the monitor, and put right', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/bench`));
    await hands.sees('keys 1–9');
    await hands.click('combobox', 'Something happens');
    await hands.write('delay loses its supply');
    await hands.press('Enter');
    await hands.sees('Stereo delay is dark');
    await hands.sees('Nothing is heard at Front of house.');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await hands.press('2');
    await hands.sees('nobody');
    await hands.click('combobox', 'What the monitor shows');
    await hands.click('option', 'What goes wrong');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.wire-log tbody tr')].every((tr) => tr.className === 'nobody'),
    );
    await hands.click('button', 'Put right: Stereo delay is dark');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('Stereo delay is dark'));
    await hands.page.close();
  });
  test('a box under a foot, and a pedal moved by arrow keys as fast as they repeat', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/bench`));
    await hands.sees('keys 1–9');
    await hands.page.focus('.pedal input');
    const standsAt = (says: string) =>
      hands.page.waitForFunction((text) => document.querySelector('.pedal .soft')?.textContent === text, {}, says);
    await standsAt('100 %');
    await hands.press('Home');
    for (let i = 0; i < 12; i += 1) await hands.press('ArrowRight');
    await standsAt('12 %');
    await hands.press('End');
    await hands.press('ArrowLeft');
    await standsAt('99 %');
    await hands.page.focus('button[aria-label="switch, on Compressor itself"]');
    await hands.press('Enter');
    await hands.sees('CMP: switch');
    await hands.page.close();
  });
});
