import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
const folder = mkdtempSync(join(tmpdir(), 'yunta-pictures-'));
beforeAll(async () => {
  server = await TestServer.start('logbook');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});
const open = async (show: string, isPhone = false): Promise<Hands> => {
  const url = `${await server.fresh('island-run')}/road?show=${show}`;
  return new Hands(await (isPhone ? openPage(browser, url, 'dark', 390, 844) : openPage(browser, url)));
};

/** A picture as a telephone takes it: larger than is kept, and saying where it was taken. */
const taken = async ({ page }: Hands): Promise<string> => {
  const drawn = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [2600, 1300];
    const pen = canvas.getContext('2d')!;
    for (let x = 0; x < 2600; x += 20) {
      pen.fillStyle = `hsl(${x}, 80%, 50%)`;
      pen.fillRect(x, (x * 7) % 1000, 20, 300);
    }
    return canvas.toDataURL('image/jpeg', 0.9).split(',')[1]!;
  });
  const bytes = Buffer.from(drawn, 'base64');
  const place = Buffer.from('Exif\0\0 GPSLatitude 54.1');
  const segment = Buffer.concat([Buffer.from([0xff, 0xe1, 0, place.length + 2]), place]);
  const path = join(folder, 'knobs.jpg');
  writeFileSync(path, Buffer.concat([bytes.subarray(0, 2), segment, bytes.subarray(2)]));
  return path;
};
const choose = async ({ page }: Hands, path: string): Promise<void> => {
  const field = (await page.waitForSelector(
    'section[aria-label="Write down"] input[type=file]',
  )) as ElementHandle<HTMLInputElement>;
  await field.uploadFile(path);
};

test('what failed is written down with who did it; a picture is made small and says no place; others are refused', async () => {
  const hands = await open('log');
  await hands.sees('Nothing is written yet.');
  await hands.type('textbox', 'Your name, for the history', 'Ada');
  await hands.type('textbox', 'What happened, or why it was changed', 'Sticks when it is cold');
  await hands.page.select('section[aria-label="Write down"] select', 'device:dly');
  await hands.type('textbox', 'Which part failed, if one did', 'foot switch');
  await hands.click('button', 'Write down');
  await hands.sees('Failed: foot switch. Sticks when it is cold');
  await hands.sees(', Ada, about Stereo delay');
  const heavy = join(folder, 'heavy.jpg');
  writeFileSync(heavy, Buffer.alloc(40_000_000));
  const other = join(folder, 'plan.pdf');
  writeFileSync(other, '%PDF-1.7');
  const torn = join(folder, 'torn.jpg');
  writeFileSync(torn, Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]));
  await hands.type('textbox', 'What happened, or why it was changed', 'Knobs after the gig');
  for (const [path, says] of [
    [heavy, 'The picture has 40 MB. At most 25 MB are read.'],
    [other, 'This is no picture that can be read here.'],
    [torn, 'The file is damaged, or is another kind than its name says.'],
  ] as const) {
    await choose(hands, path);
    await hands.sees(says);
  }
  await choose(hands, await taken(hands));
  await hands.page.waitForSelector('.logbook-picture img', { timeout: 60_000 });
  const size = await hands.page.$eval('.logbook-picture img', (img) => [img.naturalWidth, img.naturalHeight]);
  expect(size).toEqual([1280, 640]);
  const src = await hands.page.$eval('.logbook-picture img', (img) => img.src);
  const kept = Buffer.from(src.split(',')[1]!, 'base64');
  expect(kept.includes('GPSLatitude')).toBe(false);
  expect(kept.includes('Exif')).toBe(false);
  await hands.sees('Knobs after the gig');
  await hands.page.reload();
  await hands.page.waitForSelector('.logbook-picture img', { timeout: 60_000 });
  await hands.page.goto(`${hands.page.url().split('/road')[0]}/road?show=pack`);
  await hands.type('textbox', 'Your first case or bag', 'Bag');
  await hands.press('Enter');
  await hands.sees('foot switch failed once');
  await hands.page.close();
});

test('two days beside each other: nothing before the rig was there, no day is refused beside its field', async () => {
  const hands = await open('log');
  await hands.type('textbox', 'End of', '2026-02-31');
  await hands.click('button', 'Compare');
  await hands.sees('"2026-02-31" is no day.');
  await hands.type('textbox', 'End of', '2020-01-01');
  await hands.click('button', 'Compare');
  await hands.sees('On 2020-01-01 the rig was not there yet.');
  await hands.page.close();
});

test('a house: what was found, night by night, and the rig held against its sockets', async () => {
  const hands = await open('houses');
  await hands.type('textbox', 'Your first house', 'The old barn');
  await hands.press('Enter');
  await hands.type('textbox', 'Mains sockets on stage', '0');
  await hands.press('Enter');
  await hands.sees('✗ 0 mains sockets');
  await hands.type('textbox', 'Ground lifted where', 'DI of the bass');
  await hands.press('Enter');
  await hands.sees('Never that of the mains');
  await hands.type('textbox', 'Day', 'yesterday');
  await hands.type('textbox', 'What was found', 'Booms at 160 Hz');
  await hands.press('Enter');
  await hands.sees('"yesterday" is no day.');
  await hands.type('textbox', 'Day', '2026-05-02');
  await hands.press('Enter');
  await hands.sees('last 2026-05-02');
  await hands.page.reload();
  await hands.sees('Booms at 160 Hz');
  // On the day on which one plays there, it stands above the line check.
  await hands.enter('Day', new Date().toISOString().slice(0, 10));
  await hands.sees('last 20');
  await hands.room('road', 'check');
  await hands.sees('ground lifted: DI of the bass');
  await hands.page.close();
});

test('monitors on a phone: who hears what, how it gets there, and a wish for a song', async () => {
  const hands = await open('mix', true);
  await hands.sees('Nobody has said yet what they want to hear.');
  await hands.type('textbox', 'Who listens', 'Singer');
  await hands.press('Enter');
  await hands.type('textbox', 'What Singer hears', 'click');
  await hands.press('Enter');
  await hands.sees('sent by the house');
  await hands.pick('Wishes for a song');
  await hands.type('textbox', 'What Singer wants otherwise in it', 'more drums');
  await hands.press('Enter');
  await hands.sees('Wishes for ');
  await hands.page.reload();
  await hands.sees('sent by the house');
  await hands.page.close();
});

test('upkeep that is done is open again, due so many days later', async () => {
  const hands = await open('open');
  await hands.pick('Upkeep that comes again');
  await hands.click('button', 'New strings, every 30 days');
  await hands.sees('1 open');
  await hands.click('checkbox', 'New strings');
  await hands.sees('done by');
  await hands.sees('1 open');
  await hands.page.close();
});
