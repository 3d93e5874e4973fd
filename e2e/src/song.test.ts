import { midiRows } from '@yunta/core/testing/outside-midi';
import { PRACTICE } from '@yunta/core/testing/practice';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { PATIENCE } from './patience.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'yunta-songs-'));
  server = await TestServer.start('song');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
  rmSync(folder, { recursive: true, force: true });
});

interface Watched {
  saved?: number[];
}
/** Keeps the bytes of what the page saves as a file. */
const watchSaving = (page: Page): Promise<unknown> =>
  page.evaluate(() => {
    const made = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (blob: Blob) => {
      void blob.arrayBuffer().then((b) => ((window as Watched).saved = [...new Uint8Array(b)]));
      return made(blob);
    };
  });
const saved = async (page: Page): Promise<Uint8Array> => {
  const bytes = await page.waitForFunction(() => (window as Watched).saved, { timeout: PATIENCE });
  return Uint8Array.from((await bytes.jsonValue()) ?? []);
};

test('a song as one writes it: cues with bars and hands, words with marks, out as a MIDI file, in from ChordPro', async () => {
  const rooms = await server.fresh('island-run');
  const hands = new Hands(await openPage(browser, `${rooms}/set?show=songs`));
  await hands.type('textbox', 'Title of a new song', 'Harbour bell');
  await hands.press('Enter');
  await hands.sees('Harbour bell Open it');
  await hands.click('button', 'Open it');
  const line = 'Cues as you write them';
  await hands.type('textbox', line, '@1 V clean / @17 Ch: Chorus crunch, heel down / @33.3 nonsense');
  await hands.press('Enter');
  await hands.sees('names no sound of this rig');
  await hands.type('textbox', line, '@1 V clean / @17 Ch: Chorus crunch, heel down / @33.3 Solo: Lead');
  await hands.press('Enter');
  await hands.sees('33.3');
  await hands.sees('heel down');
  await hands.sees('1D');
  await hands.click('button', 'Type or paste the words');
  await hands.type('textbox', 'Words', 'Ch:\n[F]Pull away\n> Solo\nsixteen bars');
  await hands.click('button', 'Keep the words');
  await hands.page.waitForFunction(
    () => [...document.querySelectorAll('.song-mark')].map((m) => m.textContent).join() === 'Ch,Solo',
    { timeout: PATIENCE },
  );
  expect(await violations(hands.page)).toEqual([]);

  await hands.click('button', 'All songs');
  await hands.click('button', 'Save songs as');
  await hands.click('menuitem', 'A MIDI file for a sequencer');
  await hands.sees('Called by the foot, so only a mark');
  await hands.page.waitForFunction(() => !document.querySelector('[role=menu]'), { timeout: PATIENCE });
  expect(await violations(hands.page)).toEqual([]);
  await watchSaving(hands.page);
  await hands.click('button', 'Save the MIDI file');
  const rows = midiRows(await saved(hands.page));
  const marks = rows.filter((r) => r[2] === 'Marker_t').map((r) => r[3]);
  expect(marks.filter((m) => m?.startsWith('"== '))).toHaveLength(13);
  expect(marks).toEqual(expect.arrayContaining(['"== Harbour bell =="', '"Ch: Chorus crunch"', '"Solo: Lead"']));

  const file = join(folder, 'tide.cho');
  writeFileSync(file, '{title: Tide table}\n{tempo: 999}\n{key: G}\n[G]High at noon\n');
  const input = await hands.page.$('input[type=file]');
  await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(file);
  await hands.sees('1 song added.');
  await hands.sees('line 2: “999” cannot be taken as tempo. Write 20 to 400.');
  await hands.page.close();
});

interface Clocked {
  at?: number;
}
/** The page's clock stands still and goes on when it is told: a drill does not depend on how fast the machine is. */
const holdClock = (page: Page): Promise<unknown> =>
  page.evaluate(() => {
    const clock = window as Clocked;
    clock.at = performance.now();
    performance.now = () => clock.at ?? 0;
  });
const goOn = (page: Page, ms: number): Promise<unknown> =>
  page.evaluate((by) => {
    const clock = window as Clocked;
    clock.at = (clock.at ?? 0) + by;
  }, ms);

test('a drill with planted errors: late, missed, a wrong switch with what would have sounded, and a clean one', async () => {
  const rooms = await server.fresh('island-run');
  const hands = new Hands(await openPage(browser, `${rooms}/set?show=dance`));
  await hands.sees('24 stomps in all');
  expect(await violations(hands.page)).toEqual([]);
  // Rope and tide, 96 a minute: chorus at bar 25 (60 s), bridge at 49 (120 s), solo at bar 64, beat 4 (159.375 s).
  await hands.page.goto(`${rooms}/drill?song=song:01`);
  await hands.sees('Rope and tide, 96 bpm');
  await hands.click('button', '100 %');
  await holdClock(hands.page);
  await hands.click('button', 'Start');
  await hands.sees('count-in 1');
  expect(await violations(hands.page)).toEqual([]);
  const countIn = 2500;
  await goOn(hands.page, countIn + 60_000 + 400);
  await hands.press('2');
  await goOn(hands.page, 60_000 - 400);
  await hands.sees('bar 49, beat 1');
  await hands.press('4');
  await goOn(hands.page, 39_375);
  await hands.press('4');
  await goOn(hands.page, 4000);
  await hands.sees('1 of 3 on time, 1 wrong');
  await hands.sees('chorus 1B ▸ 400 ms late');
  await hands.sees('bridge 1C × missed “Lead” for 39.4 s instead');
  await hands.sees('solo 1D ● on time');
  await hands.sees('At 2:00 1D was hit, and nothing wanted it: “Lead” would have sounded.');
  expect(await violations(hands.page)).toEqual([]);

  await hands.click('button', 'Once more');
  await hands.sees('count-in 1');
  await goOn(hands.page, countIn + 60_000);
  await hands.press('2');
  await goOn(hands.page, 60_000);
  await hands.click('button', 'C 3');
  await goOn(hands.page, 39_375);
  await hands.press('4');
  await goOn(hands.page, 4000);
  await hands.sees('3 of 3 on time');
  await hands.sees('All of Rope and tide is in your feet.');
  await hands.page.goto(`${rooms}/drill`);
  await hands.sees('Rope and tide due in 1 days');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test('a show that the computer plays: nothing to stomp, until it stops', async () => {
  const pit = PRACTICE.find((p) => p.file === 'theatre-pit')!;
  const rooms = await server.opened('pit', writeRigFile(pit.rig));
  const hands = new Hands(await openPage(browser, `${rooms}/stage`));
  await hands.sees('The show, song 1 of 18');
  for (let n = 0; n < 6; n += 1) await hands.press('ArrowDown');
  await hands.sees('7. Storm');
  expect(await hands.text()).not.toContain('PRE program');
  await hands.click('button', 'Computer stopped');
  await hands.sees('PRE program 3A');
  await hands.press('ArrowRight');
  await hands.sees('PRE program 2B');
  expect(await violations(hands.page)).toEqual([]);
  await hands.click('button', 'It plays again');
  await hands.page.waitForFunction(() => !document.body.innerText.includes('PRE program'), { timeout: PATIENCE });
  await hands.page.close();
});

test('a night shown to others on the network: off until it is switched on, goes along, is withdrawn with one click', async () => {
  const rooms = await server.fresh('island-run');
  const hands = new Hands(await openPage(browser, `${rooms}/stage`));
  await hands.click('button', 'Show to others');
  const link = await hands.page.waitForSelector('.stage-link', { timeout: PATIENCE });
  const said = (await link!.evaluate((e) => e.textContent)) ?? '';
  if (said.startsWith('http')) {
    const { port, pathname } = new URL(said);
    const seen = await openPage(browser, `http://127.0.0.1:${port}${pathname}`);
    const onlooker = new Hands(seen);
    await onlooker.sees('Rope and tide');
    expect(await violations(seen)).toEqual([]);
    // A page behind another one is drawn by no browser, and a click waits until it is.
    await hands.page.bringToFront();
    await hands.press('ArrowRight');
    await seen.bringToFront();
    await onlooker.sees('chorus 1B Chorus crunch');
    await hands.page.bringToFront();
    await hands.click('button', 'Withdraw the link');
    await seen.bringToFront();
    await onlooker.sees('This is no longer shown');
    await seen.close();
    await hands.page.bringToFront();
  }
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test('loops: how many the sounds need, and what a smaller switcher would keep and lose', async () => {
  const rooms = await server.fresh('island-run');
  const hands = new Hands(await openPage(browser, `${rooms}/set?show=slots`));
  await hands.sees(
    'Switched by loops alone, 16 sounds need 7 loops: CMP, OFZ, LOW, HIG, GAT, MOD, DLY. Always on, without a loop: REV.',
  );
  await hands.click('combobox', 'A smaller switcher');
  await hands.click('option', 'a switcher of 4 loops');
  await hands.sees('It keeps 10 of 16 sounds; more are not possible.');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});
