import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('papers');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const MM = 96 / 25.4;
const MARGIN = '12mm';
/** Sides of the sheet in points, as a PDF says them, and what is left of its shorter side between the margins. */
const FORMATS = {
  a4: { points: [595, 841], width: 210 - 24 },
  letter: { points: [612, 792], width: 216 - 24 },
} as const;

const pdfOf = async (page: Page, format: keyof typeof FORMATS) => {
  const text = Buffer.from(
    await page.pdf({ format, margin: { top: MARGIN, bottom: MARGIN, left: MARGIN, right: MARGIN } }),
  ).toString('latin1');
  const boxes = [...text.matchAll(/MediaBox\s*\[0 0 (\d+)[\d.]* (\d+)[\d.]*\]/g)].map((m) => [
    Number(m[1]),
    Number(m[2]),
  ]);
  return { pages: text.match(/\/Type\s*\/Page\b/g)?.length ?? 0, box: boxes[0] };
};

/** What stands on paper, and what of it sticks out or has no business there. */
const onPaper = (page: Page) =>
  page.evaluate(() => {
    const seen = [...document.querySelectorAll<HTMLElement>('body *')].filter((e) => e.getClientRects().length > 0);
    const wide = document.documentElement.clientWidth + 1;
    return {
      text: document.body.innerText.replaceAll(/\s+/g, ' '),
      outside: seen.filter((e) => e.getBoundingClientRect().right > wide).map((e) => e.outerHTML.slice(0, 80)),
      controls: seen
        .filter((e) => e.matches('button, select, input:not([type="checkbox"]), textarea'))
        .map((e) => e.textContent ?? ''),
    };
  });

const PAPERS = [
  ['the sound sheet', 'sounds', 'wide', 1, 'Sound sheet Island run, Ballroom, revision'],
  ['the map', 'routing?show=map', 'wide', 1, 'Map: Verse clean'],
  ['the list of cables', 'routing?show=cables', 'upright', 2, '42 cables'],
  ['what to pull and to plug', 'routing?show=hookups', 'upright', 1, 'Rewire from Ballroom to Ferry deck'],
  ['the list for the house', 'routing?show=house', 'upright', 1, 'Input list'],
  ['the set and its cues', 'set?show=list', 'upright', 3, 'Ferry season Island run, Ballroom, revision'],
  ['the floor card', 'set?show=papers', 'upright', 1, 'Floor card, Ferry season Island run, Ballroom, revision'],
  ['labels for the switches', 'set?show=papers&paper=labels', 'upright', 1, 'Cut along the lines'],
  ['song to memory', 'set?show=papers&paper=memory', 'wide', 2, 'Song to memory, Ferry season'],
  ['the words of the songs', 'set?show=papers&paper=words', 'upright', 2, 'Song words, Ferry season'],
  ['the rig told', 'set?show=papers&paper=telling', 'upright', 3, 'From the strings to the outputs'],
  ['what to type in', 'program', 'upright', 8, 'loops on 1 6 8, the others off'],
  ['who is fed by what', 'power', 'upright', 1, '11 boxes need 11 outputs; 14 are there'],
  ['what is proved', 'proof', 'upright', 3, 'Does every sound come back? Island run'],
] as const;

test.each(PAPERS)(
  '%s fits A4 and Letter, and nothing but content is printed',
  async (_, path, lies, mostPages, says) => {
    const page = await openPage(browser, `${server.url}/rig/island-run/${path}`);
    const hands = new Hands(page);
    await hands.sees('14 of 16 come back');
    if (path === 'power') await hands.sees('Everything can be fed');
    if (path.endsWith('map')) await hands.sees('Save as …');
    // A paper is laid out at once: what it says has to be there before it is printed.
    if (path.includes('papers')) await hands.page.waitForSelector('.paper-seen :is(li, td, h2)');
    for (const format of ['a4', 'letter'] as const) {
      const { points, width } = FORMATS[format];
      const { pages, box } = await pdfOf(page, format);
      expect([format, pages > 0 && pages <= mostPages, box]).toEqual([
        format,
        true,
        lies === 'wide' ? [points[1], points[0]] : points,
      ]);
      await page.emulateMediaType('print');
      await page.setViewport({
        width: Math.floor((lies === 'wide' ? (points[1] / 72) * 25.4 - 24 : width) * MM),
        height: 900,
      });
      // The page hears a moment later that it is shown as printed.
      await page.waitForFunction((words) => document.body.innerText.replaceAll(/\s+/g, ' ').includes(words), {}, says);
      const { text, outside, controls } = await onPaper(page);
      expect(text).toContain(says);
      expect({ outside, controls }).toEqual({ outside: [], controls: [] });
      await page.emulateMediaType();
      await page.setViewport({ width: 1280, height: 800 });
    }
    await page.close();
  },
);

test('labels on label paper: each lies where the wrapper says, used labels stay free, and paper that cannot be is refused', async () => {
  const page = await openPage(browser, `${server.url}/rig/island-run/build?show=labels`);
  const hands = new Hands(page);
  await hands.sees('82 flags for leads');
  await hands.enter('Label paper', '3 x 8 of 80 x 36 mm');
  await hands.sees('The labels need 240 mm, and A4 is 210 mm wide.');
  await hands.enter('Label paper', '3 x 8 of 70 x 36 mm on A4');
  await hands.sees('185 labels on 8 sheets');
  await hands.pick('82 tapes for jacks');
  await hands.sees('103 labels on 5 sheets');
  await hands.enter('First free label', '23');
  await hands.sees('103 labels on 6 sheets');
  const text = Buffer.from(await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(text.match(/\/Type\s*\/Page\b/g)).toHaveLength(6);
  expect(/MediaBox\s*\[0 0 (\d+)[\d.]* (\d+)/.exec(text)?.slice(1)).toEqual(['594', '841']);
  await page.emulateMediaType('print');
  await page.waitForSelector('.label-sheets .label-edge');
  // Reference: measured on the page, 70 by 36 mm in the middle of A4.
  const places = await page.$$eval('.label-sheets svg:first-child .label-edge', (edges) =>
    edges.map((e) => {
      const [own, sheet] = [e.getBoundingClientRect(), e.closest('svg')!.getBoundingClientRect()];
      const mm = (px: number): number => Math.round((px * 25.4) / 9.6) / 10;
      return [mm(own.left - sheet.left), mm(own.top - sheet.top), mm(own.width), mm(own.height)];
    }),
  );
  expect(places).toEqual([
    [70, 256.5, 70, 36],
    [140, 256.5, 70, 36],
  ]);
  expect(await page.$eval('.label-sheets svg', (s) => [s.clientWidth, s.clientHeight])).toEqual([794, 1123]);
  await page.close();
});
