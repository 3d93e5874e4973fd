import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { chooseFile, downloads, savedRig } from './files.js';
import { Hands } from './hands.js';
import { takeChoice } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('journeys');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const clickCell = async (hands: Hands, at: string) => {
  hands.actions += 1;
  await hands.page.waitForSelector(`[data-at="${at}"]`);
  await hands.page.click(`[data-at="${at}"]`);
};

/** What stands over the columns of the sheet, each with the code of its box. */
const columns = (hands: Hands) =>
  hands.page.$$eval('.sheet thead th', (all) => all.slice(2).map((t) => t.getAttribute('aria-label') ?? ''));

const MOST_OF_A_GUITARIST = 160;
test(`a guitarist, from an empty page: four cables, twelve sounds, four songs, proof, bench, another delay, a fly date, the house, in at most ${MOST_OF_A_GUITARIST} actions`, async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Harbour trio');
  await hands.type(
    'textbox',
    'What is in it, as you would say it',
    'guitar, 8-loop switcher, compressor, low-gain drive, octave fuzz, stereo modulation, stereo delay midi ch 3, stereo reverb, two-channel head, 2x12, cab mic, desk',
  );
  await hands.click('button', 'Begin with 12 boxes');
  await hands.sees('12 boxes');
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
  const names = 'Clean,Crunch,Wide,Lead,Verse two,Bridge,Swell,Solo,Fuzz,Slap,Ballad,End'.split(',');
  await hands.type('textbox', 'Name', names[0]!);
  await hands.press('Enter');
  for (const name of names.slice(1)) {
    await hands.type('textbox', 'Name of a new sound', name);
    await hands.press('Enter');
    await hands.sees(name);
  }
  const heads = await columns(hands);
  const row = (drive: boolean, fuzz: boolean, lead: boolean) =>
    heads.map((says) => {
      if (/trim/.test(says)) return lead ? '3' : '0';
      if (/Compressor/.test(says)) return 'x';
      if (/drive/.test(says)) return drive ? 'x' : '-';
      if (/fuzz/.test(says)) return fuzz ? 'x' : '-';
      if (/channel/.test(says)) return lead ? 'lead' : 'clean';
      if (/: program/.test(says)) return /reverb/.test(says) ? '1.1' : '1';
      return /reverb/.test(says) ? 'x' : '-';
    });
  await clickCell(hands, '0,0');
  await hands.pasteCells(names.map((_, i) => row(i % 3 === 1, i === 8, i % 4 === 3)));
  await hands.sees('0 of 12 come back.');

  await hands.click('link', 'Set');
  for (const [i, [title, cues]] of [
    ['Harbour', 'verse: Clean, chorus: Wide, solo: Lead'],
    ['Tide', 'Crunch, Solo'],
    ['Lamp', 'Ballad, Swell'],
    ['Rope', 'Fuzz; End'],
  ].entries()) {
    await hands.type('textbox', 'Title of a new song', title!);
    await hands.press('Enter');
    await hands.sees(title!);
    const cells = await columns(hands);
    await clickCell(hands, `${i},${cells.findIndex((c) => /cues/i.test(c))}`);
    await hands.press('Enter');
    await hands.page.waitForSelector('.sheet input');
    await hands.write(cues!);
    await hands.press('Enter');
  }
  await hands.sees('verse: Clean');

  hands.actions += 1;
  await hands.page.click('nav a[href$="/proof"]');
  await hands.sees('with your foot');
  await hands.click('link', 'Bench');
  await hands.sees('Just switched on.');
  await hands.press('2');
  await hands.sees('On the wire');
  await hands.press('4');

  await hands.click('link', 'Kit');
  await hands.click('button', 'DLY, Stereo delay: show it');
  await hands.click('combobox', 'Swap it for');
  await hands.write('Analogue delay');
  hands.actions += 1;
  await takeChoice(hands.page, 'Analogue delay');
  await hands.page.waitForFunction(() =>
    [...document.querySelectorAll('button')].some((b) => b.textContent === 'Swap' && !b.disabled),
  );
  await hands.click('button', 'Swap');
  await hands.sees('Analogue delay');

  await hands.click('link', 'Routing');
  await hands.pick('Hook-ups (1)');
  await hands.click('button', 'Copy Main');
  await hands.type('textbox', 'Name of Main, copy', 'Fly date');
  await hands.press('Enter');
  await hands.sees('Hook-ups (2)');
  await hands.click('combobox', 'Hook-up');
  await hands.click('option', 'Fly date');
  await hands.pick('Starting points');
  await hands.pick('Amp-less, straight to the desk');
  await hands.sees('One stomp calls a sound, as with the amp');
  await hands.click('button', 'Wire it so');
  await hands.sees('PCB');
  await hands.pick('For the house');
  await hands.sees('Input list');
  await hands.sees('DI');
  console.info(`a guitarist's journey: ${hands.actions} actions`);
  expect(hands.actions).toBeLessThanOrEqual(MOST_OF_A_GUITARIST);
  await hands.page.close();
});

const MOST_OF_A_TECHNICIAN = 40;
test(`a technician with lists: kit and cables pasted, sounds, a file handed over and merged back, in at most ${MOST_OF_A_TECHNICIAN} actions`, async () => {
  const hands = new Hands(await openPage(browser, server.url));
  const folder = await downloads(hands);
  await hands.type('textbox', 'Name', 'Quay rack');
  await hands.click('button', 'From a table');
  await hands.type(
    'textbox',
    'Paste your list of gear as it is',
    [
      'No.\tItem\tMaker\tMIDI\tWeight (kg)',
      '1\tguitar\tlocal\t\t3.9',
      '1\t4-loop switcher\tx\t\t2',
      '1\tlow gain drive\tx\t\t0.4',
      '1\tstereo delay\ty\tch 3\t0.9',
      '1\tcombo\tz\t\t18',
      '1\tpreamp\tz\t\t0.6',
      '1\tsmoke machine\tz\t\t9',
    ].join('\n'),
  );
  await hands.sees('2 rows stay out');
  await hands.click('button', 'preamp is a Preamp pedal');
  await hands.sees('1 row stays out');
  await hands.click('button', 'Add 6 boxes');
  await hands.sees('6 boxes');
  const codes = await hands.page.$$eval('.box-tile .tag-sign text', (all) => all.map((t) => t.textContent));
  const [gtr, swi, low, dly, amp] = codes;
  await hands.click('link', 'Routing');
  await hands.pick('Cables');
  await hands.click('button', 'Paste a table of cables');
  await hands.type(
    'textbox',
    'Paste a table: from box, from jack, to box, to jack, metres, label',
    [
      `${gtr},out,${swi},in,6,guitar`,
      `${swi},send1,${low},in,0.3,`,
      `${low},out,${swi},return1,0.3,`,
      `${swi},send2,${dly},in-l,0.3,`,
      `${dly},out-l,${swi},return2,0.3,`,
      `${swi},midi-out,${dly},midi-in,0.5,`,
      `${swi},out,${amp},in,6,amp`,
    ].join('\n'),
  );
  await hands.click('button', 'Plug these');
  await hands.sees('7 cables');
  await hands.click('link', 'Sounds');
  await hands.type('textbox', 'Name', 'Rhythm');
  await hands.press('Enter');
  for (const name of ['Lead', 'Wide']) {
    await hands.type('textbox', 'Name of a new sound', name);
    await hands.press('Enter');
    await hands.sees(name);
  }
  await hands.click('button', 'Quay rack: the whole rig');
  await hands.click('menuitem', 'Save as a rig file');
  const file = JSON.parse(await savedRig(folder)) as { sounds: { name: string }[] };
  file.sounds[1]!.name = 'Solo';
  const back = join(folder, 'from-colleague.json');
  writeFileSync(back, JSON.stringify(file));
  await hands.click('button', 'Quay rack: the whole rig');
  await hands.click('menuitem', 'Compare or merge');
  await chooseFile(hands, back);
  await hands.sees('Since they parted 1 thing changed there');
  await hands.click('button', 'Take 1 change');
  await hands.click('link', 'Sounds');
  await hands.sees('Solo');
  console.info(`a technician's journey: ${hands.actions} actions`);
  expect(hands.actions).toBeLessThanOrEqual(MOST_OF_A_TECHNICIAN);
  await hands.page.close();
});
