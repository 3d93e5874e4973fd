import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { takeChoice } from './keys.js';
import { TestServer } from './server.js';

/*
 * A rack with a panel and a multicore, from an empty page, as somebody builds it who does not know the program: a
 * switcher in a loop of a multi-effect, an amp at the end of a multicore, boxes that want more than nine volts, a box
 * put in for tonight and taken off again.
 */

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('rack');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const choose = async (hands: Hands, list: string, text: string): Promise<void> => {
  await hands.type('combobox', list, text);
  await takeChoice(hands.page, text);
};

/** As one has it in a spreadsheet: from box and jack, to box and jack, metres. */
const CABLES = `GHB\tout\tJPN\tin1\t6
JPN\tout1\tCMP\tin\t0.6
CMP\tout\tMX2\tin\t0.3
MX2\tsend1\tSWI\tin\t0.3
SWI\tsend1\tLOW\tin\t0.3
LOW\tout\tSWI\treturn1\t0.3
SWI\tsend2\tDST\tin\t0.3
DST\tout\tSWI\treturn2\t0.3
SWI\tsend3\tCHO\tin\t0.3
CHO\tout\tSWI\treturn3\t0.3
SWI\tout\tMX2\treturn1\t0.3
MX2\tsend2\tMUL\tin1\t0.6
MUL\tout1\tHED\tin\t0.5
HED\tsend\tMUL\tin2\t0.5
MUL\tout2\tMX2\treturn2\t0.6
MX2\tout-l\tMUL\tin3\t0.6
MUL\tout3\tHED\treturn\t0.5
HED\tspeaker\tCAB\tin\t1.5`;

test('a rack, from an empty page: nested loops, what feeds it, a box for tonight', async () => {
  const hands = new Hands(await openPage(browser, server.url));
  await hands.type('textbox', 'Name', 'Rack and panel');
  await hands.click('button', 'Begin');
  await hands.enter(
    'Say what you have, as you would say it. Enter adds it; a pasted list works too.',
    'humbucker guitar into jack panel into compressor into multi-effect with two loops; four-loop switcher, low-gain drive, distortion, chorus, 15 m multicore with 9 V, two-channel head, 2x12; supply with 8 outputs',
  );
  await hands.sees('12 boxes');
  // Outputs are counted while boxes are chosen.
  await hands.sees('6 boxes need');

  await hands.room('power');
  for (const [box, takes] of [
    ['Multi-effect with two loops', '9 V, 700 mA, centre negative'],
    ['Distortion', '18 V DC, 20 mA, negative'],
    ['Low-gain drive', '9 V, 20 mA, positive'],
    ['Chorus', '12 V AC, 200 mA'],
  ] as const)
    await hands.enter(`${box}, what it takes`, takes);
  await hands.sees('an output of 12 V AC with 200 mA or more');

  await hands.room('routing', 'cables');
  await hands.pick('Paste a table of cables');
  await hands.type('textbox', 'Paste a table: from box, from jack, to box, to jack, metres, label', CABLES);
  await hands.click('button', 'Plug these');
  await hands.sees('Main, 19 cables');

  await hands.room('sounds');
  await hands.enter('Name', 'Clean');
  for (const name of ['Crunch', 'Wall']) {
    await hands.enter('Name of a new sound', name);
    await hands.sees(`${name} called by SWI`);
  }
  // Compressor, four stages of the multi-effect and its program, trim, drive, distortion, chorus, channel.
  await hands.page.click('[data-at="0,0"]');
  await hands.pasteCells([
    ['-', '-', '-', '-', '-', '', '', '-', '-', '-', 'clean'],
    ['-', '-', '-', '-', '-', '', '', 'x', '-', '-', 'clean'],
    ['-', '-', '-', '-', '-', '', '', '-', 'x', 'x', 'lead'],
  ]);
  // A loop within a loop: what feeds the drives is the multi-effect's first loop.
  await hands.page.click('[data-at="1,0"]');
  await hands.sees('MX2 loop 1 to on');
  await hands.room('levels', 'treble');
  await hands.sees('6.9 m');

  await hands.room('routing', 'map');
  await hands.click('button', 'Try a box tonight');
  await choose(hands, 'Which box', 'Treble booster');
  await hands.sees('SWI');
  await hands.click('button', 'Put it there');
  await hands.sees('Treble booster is on trial since');
  await hands.click('button', 'Take it off again');
  await hands.page.waitForFunction(() => !document.body.innerText.includes('is on trial'));
  await hands.sees('Main, 19 cables');

  await hands.room('road', 'dies');
  await hands.sees('things that can fail silence every sound.');
  await hands.type('textbox', 'What failed', 'multicore');
  await hands.pick('15 m multicore dies');
  await hands.sees('Every sound is silent.');
  await hands.page.close();
});
