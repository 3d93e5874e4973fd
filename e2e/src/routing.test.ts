import { giantRig } from '@yunta/core/testing/giant-rig';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { keys, tabTo, takeChoice } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('routing');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

describe('the map', () => {
  const mapPage = async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/routing`));
    await hands.page.waitForSelector('.react-flow__node[data-id="device:pre"]');
    return hands;
  };

  test('by key alone: to a box, to its jack, the number of an offer plugs it, undo pulls it; Escape comes back to the box', async () => {
    const hands = await mapPage();
    await tabTo(hands.page, /^PRE Preamp/, 120);
    await keys(hands.page, 'Enter');
    await hands.sees('Not in the signal path in “Verse clean”.');
    await tabTo(hands.page, /^\s*in\s*$/);
    await keys(hands.page, 'Enter');
    await hands.sees('What should come here?');
    await hands.sees('Not offered:');
    await keys(hands.page, '1');
    await hands.sees('43 cables');
    await keys(hands.page, 'Escape');
    expect(await hands.page.evaluate(() => document.activeElement?.getAttribute('data-id'))).toMatch(/^device:/);
    await hands.click('button', 'Undo');
    await hands.sees('42 cables');
    await hands.page.close();
  });

  test('by hand: a jack on the map, what does not fit and why, a cable is pulled', async () => {
    const hands = await mapPage();
    await hands.page.click('.react-flow__handle[data-handleid="device:hed.speaker"]');
    await hands.sees('Where should this go?');
    await hands.click('button', 'Why?');
    await hands.sees('the power of a speaker output would ruin it');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Its box');
    await hands.click('button', 'Pull the plug out of speaker');
    await hands.sees('41 cables');
    await hands.pick('Done');
    await hands.sees('“Verse clean” is silent in this hook-up.');
    await hands.click('button', 'Undo');
    await hands.sees('42 cables');
    await hands.page.close();
  });

  test('the path of another sound lights other boxes; layers come and go', async () => {
    const hands = await mapPage();
    await hands.page.waitForSelector('.map-lead.lit');
    const lit = () =>
      hands.page.$$eval('.map-box', (all) =>
        all.filter((b) => b.querySelector('.map-tag.in')).map((b) => b.querySelector('.map-code')?.textContent),
      );
    expect(await lit()).not.toContain('HIG');
    await tabTo(hands.page, /Sound that the run shows/, 120);
    await hands.write('Waltz lead');
    await takeChoice(hands.page, 'Waltz lead');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.map-box')].some(
        (b) => b.querySelector('.map-tag.in') && b.querySelector('.map-code')?.textContent === 'HIG',
      ),
    );
    await hands.pick('MIDI');
    await hands.page.waitForSelector('.map-lead.MIDI');
    // How loud it is behind each box stands there when it is asked for, and is read out.
    await hands.page.$$eval('[aria-label="What the map shows"] label', (chips) => chips.at(-1)?.click());
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.map-box')].some((b) => /GSC.*−20 dBu/.test(b.textContent)),
    );
    await hands.page.waitForSelector('.react-flow__node[aria-label$="in the path, −20 dBu"]');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });
});

describe('starting points', () => {
  test.each(['light', 'dark'] as const)(
    'every one can be looked at, by key too, and nothing is touched until it is wanted, %s',
    async (theme) => {
      const hands = new Hands(
        await openPage(browser, `${await server.fresh('lighthouse-solo')}/routing?show=start`, theme),
      );
      await hands.sees('Driven by a timeline, no stomps');
      expect(await violations(hands.page)).toEqual([]);
      for (const name of ['Wet and dry', 'Bass split by frequency', 'A modeller as the amp, pedals in its loops']) {
        await tabTo(hands.page, new RegExp(name.slice(0, 12)), 60);
        await keys(hands.page, 'Enter');
        await hands.page.waitForSelector(`section[aria-label="${name}"]`);
        await hands.sees('It can be undone.');
      }
      expect(await violations(hands.page)).toEqual([]);
      await hands.sees('14 cables');
      await hands.page.close();
    },
  );
});

describe('moving and comparing', () => {
  test('a box moves to another place in one step, consequences first; undo brings it back', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/routing`));
    await hands.page.waitForSelector('.react-flow__node[data-id="device:gat"]');
    await hands.page.click('.react-flow__node[data-id="device:gat"]');
    await hands.sees('Outside the path in “Verse clean”.');
    await hands.page.click('input[placeholder="another place"]');
    await hands.write('between SEL');
    await takeChoice(hands.page, 'between SEL');
    await hands.sees('Gate is in the way of the signal');
    await hands.click('button', 'Move it');
    await hands.sees('← SEL out');
    await hands.sees('41 cables');
    await hands.click('button', 'Undo');
    await hands.sees('42 cables');
    await hands.page.close();
  });

  test('two sounds side by side, then one sound in two hook-ups', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/sounds`));
    await hands.click('button', 'Compare');
    await hands.sees('LOW out in');
    expect(await hands.page.$$eval('.run .tag.differs', (all) => all.length)).toBeGreaterThan(0);
    await hands.page.click('input[aria-label="Compare with"]');
    await hands.click('option', 'Ferry deck');
    await hands.sees('HED clean in not wired');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });

  test('the gain ladder says what is used and makes a sound of what is not', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/sounds`));
    await hands.click('button', 'Gain ladder');
    await hands.sees('LOW + HED clean -20 4 6 Chorus crunch');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Make a sound of HIG + HED clean');
    await hands.page.waitForFunction(() => document.querySelector('h1')?.textContent === 'HIG + HED clean');
    await hands.sees('HIG + HED clean -20 4 20 HIG + HED clean');
    await hands.click('button', 'Undo');
    await hands.page.waitForFunction(() => document.querySelector('h1')?.textContent !== 'HIG + HED clean');
    await hands.page.close();
  });

  test('a finding leads to the map, and what it is about is marked there', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('night-market-bass')}/proof`));
    await hands.click('button', '0 findings');
    await hands.sees('Many basses go to the desk like this');
    await hands.pick('To Routing');
    await hands.page.waitForSelector('.map-box.pointed');
    await hands.sees('Nothing to find fault with here');
    await hands.page.close();
  });

  const MOST_TO_SWAP = 4;
  test(`one drive for another in a rig of forty boxes in at most ${MOST_TO_SWAP} actions`, async () => {
    const made = await fetch(`${server.url}/api/rigs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: 'forty', change: 'forty', file: writeRigFile(giantRig(1).rig) }),
    });
    expect(made.status).toBe(201);
    const hands = new Hands(await openPage(browser, `${server.url}/rig/forty/kit`));
    await hands.sees('40 boxes');
    await hands.click('button', 'LOW, Low-gain drive: show it');
    await hands.click('combobox', 'Swap it for');
    await hands.click('option', 'High-gain drive');
    await hands.sees('2 cables go over');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('button')].some((b) => b.textContent === 'Swap' && !b.disabled),
    );
    await hands.click('button', 'Swap');
    await hands.page.waitForFunction(
      () => ![...document.querySelectorAll('button')].some((b) => b.textContent === 'LOW'),
    );
    await hands.sees('40 boxes');
    expect(hands.actions).toBeLessThanOrEqual(MOST_TO_SWAP);
    await hands.page.close();
  });
});

describe('for other programs', () => {
  test('the map leaves as a picture, two kinds of graph and a table; a table of cables is plugged, and a bad one changes nothing', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/routing`));
    await hands.page.evaluate(() => {
      const kept: Blob[] = [];
      Object.assign(window, { kept });
      URL.createObjectURL = (blob: Blob) => {
        kept.push(blob);
        return '#';
      };
    });
    await hands.page.waitForSelector('.map-lead.lit');
    const saved = async (item: string) => {
      await hands.click('button', 'Save as …');
      await hands.click('menuitem', item);
      await hands.page.waitForFunction(() => (window as unknown as { kept: Blob[] }).kept.length > 0);
      return hands.page.evaluate(() => (window as unknown as { kept: Blob[] }).kept.pop()!.text());
    };
    expect(await saved('Picture (SVG)')).toMatch(/<svg [^]*Verse clean[^]*SWI/);
    expect((await saved('Cable list (CSV)')).split('\n')).toHaveLength(44);
    expect((await saved('Graph (GraphML)')).match(/<edge /g)).toHaveLength(42);
    expect(await saved('Graph (DOT)')).toContain('digraph');
    await hands.pick('Cables');
    await hands.click('button', 'Paste a table of cables');
    await hands.type(
      'textbox',
      'Paste a table: from box, from jack, to box, to jack, metres, label',
      'PRE,hole,DI,in-l',
    );
    await hands.click('button', 'Plug these');
    await hands.sees('Nothing was taken. row 1: PRE has no jack "hole"');
    await hands.type(
      'textbox',
      'Paste a table: from box, from jack, to box, to jack, metres, label',
      'PRE,out,DI,in-l,0.3,spare',
    );
    await hands.click('button', 'Plug these');
    await hands.sees('43 cables');
    await hands.click('button', 'Undo');
    await hands.sees('42 cables');
    await hands.page.close();
  });
});

describe('hook-ups', () => {
  test('the other one is compared, a copy is made, named, shown and taken away again', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/routing`));
    await hands.pick('Hook-ups (2)');
    await hands.sees('33 cables stay as they are.');
    await hands.sees('Pull these 9');
    await hands.sees('SWI send6 → PRE in');
    await hands.sees('14 of 16 come back. 2 can come back wrong. 8');
    await hands.click('button', 'Copy Ferry deck');
    await hands.sees('Ferry deck, copy, 42 cables');
    await hands.type('textbox', 'Name of Ferry deck, copy', 'Small ferry');
    await hands.press('Enter');
    await hands.sees('Small ferry, 42 cables');
    await hands.sees('Hook-ups (3)');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Remove Small ferry');
    await hands.sees('Hook-ups (2)');
    await hands.sees('Ballroom, 42 cables');
    await hands.page.close();
  });
});

describe('what holds in a hook-up', () => {
  test('two sides wanted in the house are asked of every sound; the usual comes back', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('lighthouse-solo')}/routing?show=hookups`));
    await hands.sees('What holds in Solo');
    await hands.click('combobox', 'GSC Single-coil guitar at FOH Front of house');
    await hands.click('option', 'must be heard with two sides');
    await hands.sees('≠ heard in every sound');
    await hands.sees('2 findings');
    await hands.click('button', 'Undo');
    await hands.sees('1 finding');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });
  test('a sound wants another program in one hook-up only', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/sounds`));
    await hands.pick('In Ballroom only');
    await hands.page.waitForSelector('[data-at="0,10"]');
    await hands.page.click('[data-at="0,10"]');
    await hands.write('4.1');
    await hands.press('Enter');
    await hands.page.waitForSelector('[data-at="0,10"][data-where="only here"]');
    await hands.page.click('[data-at="0,10"]');
    await hands.sees('It holds in this hook-up only.');
    await hands.click('combobox', 'Hook-up');
    await hands.click('option', 'Ferry deck');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('td[title="not everywhere"]')].some((td) => td.textContent === '2.1'),
    );
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Undo');
    await hands.page.waitForFunction(() => !document.querySelector('td[title="not everywhere"]'));
    await hands.page.close();
  });
});
