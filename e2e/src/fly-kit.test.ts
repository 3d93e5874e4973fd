import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

/*
 * A fly kit against the clock, from an empty page, as somebody builds it who does not know the program: what comes
 * along, what is fed by what, what to buy before build day, the layout, the labels, the cases, the line check, and
 * what to do when a box dies.
 */

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('fly-kit');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const SOUNDS = ['Clean', 'Crunch', 'Lead', 'Waves', 'Fuzz once'];
/** Wah, fuzz, compressor, both drives, chorus, tremolo, delay, reverb. */
const STAGES = ['--x-----x', '---x----x', '---xx--xx', '--x---x-x', '-x------x'];
const SONGS = ['Harbour bell: Clean / Lead', 'Salt waltz: Crunch / Waves', 'Last ferry: Crunch / Fuzz once'];

test('a fly kit, from an empty page to the line check', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Fly kit');
  await hands.click('button', 'Begin');
  await hands.enter(
    'Say what you have, as you would say it. Enter adds it; a pasted list works too.',
    'guitar into tuner into wah into fuzz into compressor into low-gain drive into high-gain drive into volume pedal into chorus into tremolo into analog delay into hall reverb into combo; five-output supply, daisy chain lead',
  );
  await hands.sees('15 boxes');
  await hands.click('button', 'Wire it');
  await hands.sees('12 cables');

  await hands.room('sounds');
  await hands.enter('Name', SOUNDS[0]!);
  for (const name of SOUNDS.slice(1)) {
    await hands.enter('Name of a new sound', name);
    await hands.sees(`${name} called by nothing`);
  }
  await hands.page.click('[data-at="0,0"]');
  await hands.pasteCells(STAGES.map((row) => [...row]));
  await hands.sees('0 of 5 come back. 5 with your foot or hand.');

  await hands.room('set', 'songs');
  for (const song of SONGS) {
    const [title, cues] = song.split(': ') as [string, string];
    await hands.enter('Title of a new song', title);
    await hands.sees(`${title} Open it`);
    await hands.click('button', 'Open it');
    await hands.enter('Cues as you write them', cues);
    await hands.click('button', 'All songs');
  }

  await hands.room('kit', 'gig');
  await hands.enter('Name of a kind of gig', 'Fly dates');
  await hands.enter('Room for a board, cm', '60 x 32');
  await hands.enter('Everything at most, kg', '23');
  await hands.sees('✗ At most 23 kg');
  // What stays: in no sound, or in one song only; the house has an amp.
  await hands.sees('1 of 5 sounds, in one song only');
  await hands.sees('no sound: may stay at home');
  await hands.click('checkbox', 'Combo amp');
  await hands.sees('✓ At most 23 kg');

  await hands.room('power');
  await hands.sees('10 boxes need 10 outputs; 11 are there');
  await hands.sees('Everything can be fed.');
  await hands.click('button', 'Plug it so in Main');
  await hands.sees('All leads are plugged so in Main.');

  await hands.room('build', 'board');
  await hands.enter('Your board', 'Fly board 60 x 32 cm');
  await hands.click('button', 'Hang the supplies beneath');
  await hands.sees('0 boxes');
  await hands.click('button', 'All 11 boxes');
  await hands.sees('Looked for');
  expect(await hands.text()).not.toContain('no room');
  await hands.click('button', 'Stand them so');
  await hands.sees('Everything has room');

  // Two leads of the right length are missing: they are bought before build day.
  await hands.room('build', 'leads');
  await hands.pick('Take their lengths');
  await hands.click('button', 'All 22 to buy are there');
  await hands.sees('22 there, 0 to make, 0 to buy');
  for (const lead of ['FUZ out → CMP in, is', 'GSC out → TUN in, is'])
    await hands.page.select(`select[aria-label="${lead}"]`, 'to buy');
  await hands.sees('20 there, 0 to make, 2 to buy');
  await hands.sees('To buy before build day');
  await hands.room('build', 'labels');
  await hands.sees('TUN');

  await hands.room('road', 'pack');
  await hands.enter('Your first case or bag', 'Board case');
  await hands.sees('Nothing belongs in it yet.');
  await hands.click('button', 'Fly board');
  await hands.enter('Anything else', '12 spare strings, 5 g');
  await hands.enter('Anything else', 'Microphone, 0.3 kg');
  await hands.page.$eval('section[aria-label="Board case"] summary', (s) => (s as HTMLElement).click());
  await hands.page.select('section[aria-label="Board case"] select', 'hold');
  await hands.enter('Owner', 'Ada');
  await hands.sees('of 23 kg');
  await hands.type('textbox', 'Your name, for the history', 'Ada');
  await hands.click('checkbox', 'Microphone');
  await hands.sees('1 of 3 in');

  await hands.room('road', 'check');
  await hands.click('checkbox', 'Clean, by hand and foot');
  await hands.sees('Ticked by Ada');
  await hands.room('road', 'dies');
  await hands.type('textbox', 'What failed', 'fuzz');
  await hands.pick('Fuzz dies');
  await hands.sees('Stomp Fuzz off: its bypass is a switch');
  await hands.page.close();
});
