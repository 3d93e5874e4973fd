import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { downloads, savedText } from './files.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('board');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const open = async (): Promise<Hands> =>
  new Hands(await openPage(browser, `${await server.fresh('island-run')}/build?show=board`));
/** Where a box stands, as it is read out. */
const label = (hands: Hands, box: string): Promise<string> =>
  hands.page.$eval(`.board-box[aria-label^="${box}"]`, (g) => g.getAttribute('aria-label') ?? '');
const take = (hands: Hands, box: string): Promise<void> =>
  hands.page.$eval(`.board-box[aria-label^="${box}"]`, (g) => (g as SVGGElement).focus());
const stands = async (hands: Hands, box: string, at: string): Promise<void> => {
  await hands.page.waitForFunction(
    (b: string, t: string) => document.querySelector(`.board-box[aria-label^="${b}"]`)?.ariaLabel?.includes(t),
    { timeout: 60_000, polling: 50 },
    box,
    at,
  );
};

test('from nothing: a board of 0 is refused beside its field, the next is laid out, and every plug has room', async () => {
  const hands = await open();
  await hands.sees('Everything has room');
  for (const board of ['Floor board', 'Shelf beneath']) {
    await hands.sees(`Lay it out for me`);
    await hands.page.$eval('details.board-card summary', (s) => (s as HTMLElement).click());
    await hands.click('button', 'Take the board away');
    await hands.page.waitForFunction(
      (name: string) => !document.querySelector('details.board-card summary')?.textContent?.includes(name),
      { timeout: 60_000 },
      board,
    );
  }
  await hands.type('textbox', 'Your board', 'Deck board 0 x 42 cm');
  await hands.press('Enter');
  await hands.sees('0 × 42 cm is no board: each side is longer than 0.');
  await hands.type('textbox', 'Your board', 'Deck board 90 x 42 cm');
  await hands.press('Enter');
  await hands.sees('Stand nowhere yet');
  await hands.click('button', 'All 14 boxes');
  await hands.sees('is needed on any board');
  await hands.sees('Looked for');
  await hands.click('button', 'Stand them so');
  await hands.sees('14 boxes, at least');
  expect(await hands.page.$$eval('.board-box.wrong', (all) => all.length)).toBe(0);
  await hands.click('button', 'Undo');
  await hands.sees('Stand nowhere yet');
  await hands.page.close();
});

test('a search can be stopped, and what it has by then be taken', async () => {
  const hands = await open();
  // A search is over in seconds, however long a hand needs: Stop is pressed as soon as it stands there.
  const stopped = hands.page.evaluate(
    () =>
      new Promise<void>((done) => {
        const look = (): void => {
          const stop = [...document.querySelectorAll('button')].find((b) => b.textContent === 'Stop');
          if (!stop) return void requestAnimationFrame(look);
          stop.click();
          done();
        };
        look();
      }),
  );
  await hands.click('button', 'The 12 on it');
  await stopped;
  await hands.sees('Stopped.');
  await hands.click('button', 'Leave it');
  await hands.sees('Nothing moves before you say so.');
  await hands.page.close();
});

test('by hand: dragged on another box, told, moved away by one press; pushed and turned by keys', async () => {
  const hands = await open();
  await stands(hands, 'Compressor', '580 mm from the left, 290 mm from the front');
  const middle = async (box: string) => {
    const at = await (await hands.page.$(`.board-box[aria-label^="${box}"] > rect`))!.boundingBox();
    return { x: at!.x + at!.width / 2, y: at!.y + at!.height / 2 };
  };
  const [from, to] = [await middle('Compressor'), await middle('Low-gain drive')];
  await hands.page.mouse.move(from.x, from.y);
  await hands.page.mouse.down();
  await hands.page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
  await hands.page.mouse.move(to.x, to.y);
  await hands.sees('stand on the same place');
  await hands.page.mouse.up();
  await hands.click('button', 'Undo');
  await stands(hands, 'Compressor', '580 mm from the left, 290 mm from the front');
  await take(hands, 'Compressor');
  await hands.press('ArrowRight');
  await stands(hands, 'Compressor', '585 mm from the left');
  await hands.page.keyboard.down('Shift');
  await hands.press('ArrowRight');
  await hands.page.keyboard.up('Shift');
  await stands(hands, 'Compressor', '635 mm from the left');
  await hands.press('r');
  await stands(hands, 'Compressor', 'turned by 90 degrees');
  await hands.page.reload();
  await stands(hands, 'Compressor', 'turned by 90 degrees');
  await take(hands, 'Compressor');
  await hands.press('Delete');
  await hands.sees('Stand nowhere yet');
  await hands.click('button', 'Compressor');
  expect(await label(hands, 'Compressor')).toContain('from the left');
  await hands.page.close();
});

test('the drawing is to scale: measured, a millimetre is a millimetre; from below left and right change places', async () => {
  const hands = await open();
  const folder = await downloads(hands);
  await hands.click('button', 'Save the drawing');
  const text = await savedText(folder, ['.svg', '</svg>\n']);
  const [, width, height] = /width="(\d+)mm" height="(\d+)mm"/.exec(text) ?? [];
  const [, x, y, w, h] = /viewBox="(-?\d+) (-?\d+) (\d+) (\d+)"/.exec(text) ?? [];
  expect([x, y, width, height]).toEqual(['-70', '-70', w, h]);
  expect([Number(width), Number(height)]).toEqual([900 + 140, 420 + 140]);
  expect(text).toContain('x="185" y="270" width="430" height="120"');
  await hands.click('button', 'From below');
  await hands.sees('front, seen from below');
  const box = await hands.page.$eval('.board-box[aria-label^="Eight-loop switcher"] > rect', (r) =>
    r.getAttribute('x'),
  );
  expect(Number(box)).toBe(900 - 185 - 430);
  await hands.page.close();
});

test('from an empty page: boxes and leads without lengths, laid out on a board, and the leads take their lengths', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Harbour rig');
  await hands.click('button', 'From a table');
  const list = ['guitar', 'tuner', 'low gain drive', 'stereo delay', 'combo'].map((box) => `1\t${box}\t0.4`);
  await hands.type('textbox', 'Paste your list of gear as it is', ['No.\tItem\tWeight (kg)', ...list].join('\n'));
  await hands.click('button', 'Add 5 boxes');
  await hands.sees('5 boxes');
  const codes = await hands.page.$$eval('.box-tile .tag-sign text', (all) => all.map((t) => t.textContent));
  const [gtr, tun, low, dly, amp] = codes;
  await hands.click('link', 'Routing');
  await hands.pick('Cables');
  await hands.click('button', 'Paste a table of cables');
  await hands.type(
    'textbox',
    'Paste a table: from box, from jack, to box, to jack, metres, label',
    [`${gtr},out,${tun},in,,`, `${tun},out,${low},in,,`, `${low},out,${dly},in-l,,`, `${dly},out-l,${amp},in,,`].join(
      '\n',
    ),
  );
  await hands.click('button', 'Plug these');
  await hands.sees('4 cables');
  await hands.click('link', 'Build');
  await hands.pick('Board');
  await hands.type('textbox', 'Your board', '60 x 32');
  await hands.press('Enter');
  await hands.click('button', 'All 3 boxes');
  await hands.sees('Looked for');
  await hands.click('button', 'Stand them so');
  await hands.sees('Everything has room');
  await hands.pick('Leads');
  await hands.sees('The board knows how long 2 leads must be.');
  await hands.click('button', 'Take their lengths');
  await hands.page.waitForFunction(() => !document.body.innerText.includes('The board knows how long'), {
    timeout: 60_000,
  });
  const metres = await hands.page.$$eval('input[aria-label$="metres"]', (all) => all.map((f) => f.value));
  expect(metres.filter((m) => Number(m) > 0 && Number(m) < 0.6)).toHaveLength(2);
  await hands.page.close();
});
