import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { keys } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('boxes');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

describe('a box of the kit rebuilt', () => {
  test('a stage with another name keeps its sounds; a stage is carried by key and by hand', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/kit`));
    await hands.click('button', 'HED, Two-channel valve head 50 W: show it');
    await hands.click('button', 'Open the box');
    await hands.click('button', 'clean preamp, always');
    await hands.type('textbox', 'Name of the stage', 'sparkle');
    await keys(hands.page, 'Enter');
    await hands.click('tab', 'Controls');
    await hands.type('textbox', 'What channel can be', 'sparkle, lead');
    await keys(hands.page, 'Enter');
    const order = () => hands.page.$$eval('.inside-tag strong', (all) => all.map((e) => e.textContent).join(' '));
    await hands.click('button', 'Put something in before power');
    await hands.click('menuitem', 'boost');
    expect(await order()).toBe('channels sparkle lead boost power');
    await hands.click('button', 'boost boost');
    await hands.page.keyboard.down('Alt');
    await keys(hands.page, 'ArrowRight');
    await hands.page.keyboard.up('Alt');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.inside-tag strong')]
        .map((e) => e.textContent)
        .join()
        .endsWith('power,boost'),
    );
    const [from, to] = await Promise.all(
      ['boost boost', 'Put something in before lead'].map(async (name) => {
        const found = await hands.page.waitForSelector(`::-p-aria([name="${name}"][role="button"])`);
        return (await found!.boundingBox())!;
      }),
    );
    await hands.page.mouse.move(from!.x + 20, from!.y + 20);
    await hands.page.mouse.down();
    await hands.page.mouse.move(from!.x + 40, from!.y + 22, { steps: 4 });
    await hands.page.mouse.move(to!.x + to!.width / 2, to!.y + to!.height / 2, { steps: 8 });
    await hands.page.mouse.up();
    await hands.page.waitForFunction(() => document.querySelectorAll('.inside-arm')[1]?.textContent?.includes('boost'));
    expect(await order()).toBe('channels sparkle boost lead power');
    await hands.click('button', 'Take boost out');
    await hands.click('button', 'Keep');
    await hands.click('link', 'Sounds');
    await hands.sees('sparkle');
    await hands.sees('14 of 16 come back.');
    expect(await hands.page.evaluate(() => document.body.innerText)).not.toMatch(/\bnot proved\b/);
    await hands.page.close();
  });
});

describe("a box of one's own", () => {
  test('made from nothing by clicks, refused while it makes no sense, kept, put on the shelf, added to another rig from there', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.click('button', 'New box');
    await hands.sees('A plus puts a stage');
    await hands.click('button', 'Put something in at the end of path');
    await hands.click('menuitem', 'fuzz');
    await hands.click('button', 'Put something in at the end of path');
    await hands.click('menuitem', 'loop with send and return');
    await hands.sees('send1 ▸ return1');
    await hands.type('textbox', 'Name of the stage', 'tone loop');
    await keys(hands.page, 'Enter');
    await hands.click('button', 'Take tone-loop out');
    await hands.click('button', 'Step back');
    await hands.click('tab', 'Controls');
    await hands.click('button', 'Something else sets fuzz');
    await hands.click('menuitem', 'a controller sets it');
    await hands.type('textbox', 'What fuzz can be', 'off, on, on');
    await keys(hands.page, 'Enter');
    await hands.sees('Say two values or more');
    await hands.type('textbox', 'What fuzz can be', 'off, on');
    await keys(hands.page, 'Enter');
    await hands.click('tab', 'Where it is heard');
    await hands.sees('Nowhere in this box: the signal only passes.');
    await hands.click('button', 'Add a place');
    await hands.page.select('select[aria-label="What happens at New box"]', 'player');
    await hands.click('tab', 'Plate and figures');
    await hands.type('textbox', 'Name', 'Home-made fuzz');
    await keys(hands.page, 'Enter');
    expect(await hands.page.$eval('.inside-drawn', (e) => e.textContent)).toContain('tone-loop');
    await hands.pick('Written as lines');
    await hands.type('textbox', 'Chains, one a line', 'path: in > fuzz [gone=on] > out');
    await hands.sees('Not yet a box that can be kept.');
    await hands.sees('"gone" is not a control of this device.');
    await hands.click('button', 'Step back');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Save to my shelf');
    await hands.sees('on your shelf');
    await hands.click('button', 'Keep');
    await hands.sees('24 boxes');
    await hands.page.close();
    const other = new Hands(await openPage(browser, `${server.url}/rig/night-market-bass/kit`));
    await other.click('button', 'Shelves');
    await other.click('button', 'Add Home-made fuzz from my shelf');
    await other.click('button', 'Take Home-made fuzz off my shelf');
    await other.sees('is off the shelf');
    await other.click('button', 'Put it back');
    await other.sees('Save as a shelf file');
    await keys(other.page, 'Escape');
    await other.sees('Home-made fuzz');
    await other.page.close();
  });
});
