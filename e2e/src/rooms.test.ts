import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage, takeTheme } from './browser.js';
import { Hands } from './hands.js';
import { findAnything, keys, tabTo, takeChoice } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('rooms');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const ROOMS = [
  ['rigs', '/', 'A new rig'],
  ['kit', '/rig/island-run/kit', '23 boxes'],
  ['routing', '/rig/island-run/routing', '42 cables'],
  ['sounds', '/rig/island-run/sounds', 'Sound sheet'],
  ['proof', '/rig/island-run/proof', 'Does every sound come back'],
  ['bench', '/rig/island-run/bench', 'On the wire'],
  ['build', '/rig/island-run/build', 'Cable on reels'],
  ['packing', '/rig/island-run/road?show=pack', 'Your first case or bag'],
  ['conditions of gigs', '/rig/island-run/kit?show=gig', 'What comes along'],
  ['open points', '/rig/island-run/road?show=open', 'Nothing is open'],
  ['logbook', '/rig/island-run/road?show=log', 'Nothing is written yet'],
  ['houses', '/rig/island-run/road?show=houses', 'No house yet'],
  ['monitors', '/rig/island-run/road?show=mix', 'Nobody has said yet'],
  ['build order', '/rig/island-run/build?show=order', 'Rough wiring'],
  ['board', '/rig/island-run/build?show=board', 'Everything has room'],
  ['labels', '/rig/island-run/build?show=labels', 'your own code'],
  ['road', '/rig/island-run/road', 'The quickest way out'],
  ['line check', '/rig/island-run/road?show=check', 'Lines into the house'],
  ['finding a fault', '/rig/island-run/road?show=find', 'There is sound'],
] as const;

describe('axe finds nothing serious or critical', () => {
  let hands: Hands;
  beforeAll(async () => {
    hands = new Hands(await openPage(browser, server.url));
  });
  afterAll(() => hands?.page.close());

  test.each(ROOMS)('%s, in both themes', async (_, path, says) => {
    await hands.goes(server.url + path, says);
    for (const theme of ['light', 'dark'] as const) {
      await takeTheme(hands.page, theme);
      await new Promise((r) => setTimeout(r, 400));
      expect([theme, await violations(hands.page)]).toEqual([theme, []]);
    }
  });

  test('with a box chosen, the findings open, and a broken sound on the bench', async () => {
    const kit = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await kit.click('button', 'DLY, Stereo delay: show it');
    await kit.sees('Choosing the same program again');
    expect(await violations(kit.page)).toEqual([]);
    await kit.click('button', '8 findings');
    await kit.sees('Accept');
    await new Promise((r) => setTimeout(r, 600));
    expect(await violations(kit.page)).toEqual([]);
    await kit.page.close();
  });
});

describe('every room by keyboard alone', () => {
  test('kit: say a box, Enter adds it, Tab to it, Enter opens it, change its name', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.sees('23 boxes');
    await tabTo(hands.page, /kit-line/);
    await hands.write('wah');
    await keys(hands.page, 'Enter');
    await hands.sees('24 boxes');
    await tabTo(hands.page, /^WAH, Wah/);
    await keys(hands.page, 'Enter');
    await hands.sees('Take it out of the kit');
    await tabTo(hands.page, /Take it out of the kit/);
    await keys(hands.page, 'Enter');
    await hands.sees('23 boxes');
    await hands.page.close();
  });

  test('routing: plug and pull a cable', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/routing?show=cables`));
    await hands.sees('42 cables');
    await tabTo(hands.page, /box and jack/);
    await hands.write('mod out-r');
    await takeChoice(hands.page, 'mod out-r');
    await tabTo(hands.page, /what fits, best first/);
    await hands.press('ArrowDown');
    await takeChoice(hands.page, '');
    await tabTo(hands.page, /Plug it/);
    await keys(hands.page, 'Enter');
    await hands.sees('43 cables');
    await hands.page.keyboard.down('Control');
    await keys(hands.page, 'z');
    await hands.page.keyboard.up('Control');
    await hands.sees('42 cables');
    await hands.page.close();
  });

  test('sounds: arrows move, space takes a stage in and out, typing fills, Escape leaves', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.page.waitForSelector('[data-at]');
    await tabTo(hands.page, /Verse clean.*clean, comes back/s);
    await keys(hands.page, 'ArrowRight', 'ArrowRight', 'ArrowRight');
    const standsAt = (label: string) =>
      hands.page.waitForFunction(
        (l: string) => document.activeElement?.getAttribute('aria-label')?.startsWith(l),
        {},
        label,
      );
    await standsAt('Octave fuzz: out');
    await keys(hands.page, ' ');
    await standsAt('Octave fuzz: in');
    await keys(hands.page, ' ');
    await standsAt('Octave fuzz: out');
    await keys(hands.page, 'End', 'ArrowLeft');
    await hands.write('999');
    await keys(hands.page, 'Enter');
    await hands.sees('"999" is not a number that Stereo delay shows. It shows 0 to 127.');
    await keys(hands.page, 'ArrowDown', 'ArrowDown');
    await standsAt('Stereo delay: program');
    await hands.page.close();
  });

  test('songs: a tempo and cues are typed; what names no sound is said, and nothing is lost', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/set?show=songs`));
    await hands.page.waitForSelector('[data-at]');
    await hands.sees('Rope and tide');
    await hands.type('textbox', 'Title of a new song', 'Slack water');
    await hands.press('Enter');
    await hands.page.waitForFunction(() => document.querySelectorAll('.sheet tbody tr').length === 13);
    const standsAt = (label: string) =>
      hands.page.waitForFunction(
        (l: string) => document.activeElement?.getAttribute('aria-label')?.startsWith(l),
        {},
        label,
      );
    await hands.page.click('[data-at="12,0"]');
    await hands.write('96');
    await keys(hands.page, 'Enter');
    await hands.page.click('[data-at="12,8"]');
    await hands.write('verse: verse clean; Lead');
    await keys(hands.page, 'Enter');
    await standsAt('Cues in order, each with its sound: verse: Verse clean; Lead');
    await hands.write('verse: nobody');
    await keys(hands.page, 'Enter');
    await hands.sees('"verse: nobody" names no sound of this rig.');
    expect(await hands.page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('verse: nobody');
    expect(await violations(hands.page)).toEqual([]);
    await keys(hands.page, 'Escape');
    await standsAt('Cues in order, each with its sound: verse: Verse clean; Lead');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Remove it');
    await hands.page.waitForFunction(() => document.querySelectorAll('.sheet tbody tr').length === 12);
    await hands.page.close();
  });

  test('sounds: the whole sheet copied, cleared and pasted back is proved as before; a block is filled down', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.page.waitForSelector('[data-at="15,0"]');
    const control = async (key: 'a' | 'd' | 'z') => {
      await hands.page.keyboard.down('Control');
      await hands.press(key);
      await hands.page.keyboard.up('Control');
    };
    /** What a copy puts into the clipboard, and a paste takes from it. */
    const clip = (kind: 'copy' | 'paste', text = '') =>
      hands.page.evaluate(
        (k, t) => {
          const data = new DataTransfer();
          data.setData('text/plain', t);
          document.activeElement!.dispatchEvent(
            new ClipboardEvent(k, { clipboardData: data, bubbles: true, cancelable: true }),
          );
          return data.getData('text/plain');
        },
        kind,
        text,
      );
    const shows = () =>
      hands.page.$$eval('.sheet tbody tr', (rows) =>
        rows.map((r) => [...r.querySelectorAll('td')].slice(2).map((c) => c.textContent)),
      );
    const before = await shows();
    await hands.page.focus('[data-at="0,0"]');
    await control('a');
    const block = await clip('copy');
    expect(block.split('\n')).toHaveLength(16);
    await hands.press('Delete');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.sheet tbody td')].every((c) => !c.textContent!.includes('●')),
    );
    await clip('paste', `${block}\n${block}`);
    await hands.sees(
      'Nothing was pasted. 32 rows were pasted; from here on there are 16. Add sounds first, or copy fewer rows.',
    );
    await clip('paste', block);
    await hands.sees('14 of 16 come back');
    expect(await shows()).toEqual(before);
    await hands.page.click('[data-at="2,10"]');
    await hands.page.keyboard.down('Shift');
    await hands.press('ArrowDown');
    await hands.press('ArrowDown');
    await hands.page.keyboard.up('Shift');
    await control('d');
    await hands.page.waitForFunction(() =>
      ['2,10', '3,10', '4,10'].every((at) => document.querySelector(`[data-at="${at}"]`)!.textContent === '3.3'),
    );
    await control('z');
    await hands.page.waitForFunction(() => document.querySelector('[data-at="3,10"]')!.textContent === '2.2');
    await hands.type('textbox', 'Find sounds', 'waltz');
    await hands.page.waitForFunction(() => document.querySelectorAll('.sheet tbody tr').length === 3);
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });

  test('moves: one made by keyboard, its list typed in the columns of the sounds', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.pick('Moves 2');
    await hands.type('textbox', 'Name of a new move', 'Dry it');
    await hands.press('Enter');
    await hands.page.waitForSelector('[aria-label="How Dry it works"]');
    await hands.click('gridcell', 'Stereo reverb: not said');
    await hands.write('-');
    await hands.press('Enter');
    await hands.page.waitForFunction(
      () => [...document.querySelectorAll('[aria-label^="Stereo reverb: out"]')].length === 1,
    );
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });

  test('a sound: its order changed by keyboard, its ends and its level said, and taken back', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.page.waitForSelector('[data-at="3,0"]');
    await hands.page.click('[data-at="3,0"]');
    await hands.click('button', 'Order, ends, hands');
    await hands.sees('What has arrows can change its place.');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.focus('button[aria-label="HIG earlier"]');
    await hands.press('Enter');
    await hands.sees('As this sound says it.');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.order li')]
        .map((li) => li.textContent?.replaceAll(/[◂▸∥]/g, ''))
        .join(' ')
        .includes('CMP HIG LOW'),
    );
    await hands.click('combobox', 'How source 1 is heard');
    await hands.click('option', 'is heard in stereo');
    await hands.sees('arrives at Front of house, FOH with one side only.');
    await hands.click('combobox', 'Louder than which sound');
    await hands.click('option', 'Verse clean');
    await hands.sees('By what is stated and differs it is');
    await hands.page.click('input[aria-label="How much louder, in dB"]', { count: 3 });
    await hands.write('3');
    await hands.press('Enter');
    await hands.sees('wished 3.');
    expect(await violations(hands.page)).toEqual([]);
    for (let i = 0; i < 4; i += 1) await hands.click('button', 'Undo');
    await hands.page.waitForFunction(
      () =>
        !document.body.innerText.includes('with one side only') && document.body.innerText.includes('As it is wired.'),
    );
    await hands.page.close();
  });
  test('proof: arrows walk the board, Enter shows the pair', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/proof`));
    await hands.page.waitForSelector('[data-cell]');
    await tabTo(hands.page, /Verse clean to Chorus crunch/);
    await keys(hands.page, 'ArrowRight', 'ArrowDown', 'Enter');
    await hands.sees('Chorus crunch → Chorus wide');
    await hands.page.evaluate(() =>
      [...document.querySelectorAll('label')].find((l) => l.textContent === 'Level')?.click(),
    );
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.board button')].some((b) => b.textContent === '+3'),
    );
    expect(await violations(hands.page)).toEqual([]);
    await hands.pick('Tails');
    await hands.sees('repeats of a delay or reverb ring on');
    await hands.page.close();
  });

  test('proof: what goes wrong when a stomp comes too early is told with the wait, and the bench shows it', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/proof`));
    await hands.sees('Right if you wait 121 ms between stomps; 16 sounds need it.');
    await hands.sees('Right again at the next stomp, whichever it is.');
    await hands.click('button', 'Show which, if the next stomp comes before the boxes have loaded');
    await hands.click('button', '2C Storm fuzz 121 ms');
    await hands.sees('less than 121 ms later');
    await hands.click('button', 'Play on the bench');
    await hands.sees('On the bench too: DLY program is');
    await hands.page.close();
  });

  test('Ctrl K finds a sound and a view; Alt and a number changes the room', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.sees('23 boxes');
    await hands.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await findAnything(hands.page, 'Quay');
    await hands.sees('called by SWI 3C');
    await findAnything(hands.page, 'check the wire');
    await hands.page.waitForSelector('textarea');
    await hands.page.close();
  });
});

describe('the kit', () => {
  test('one drive for another in at most four actions, its consequences said first', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.sees('23 boxes');
    await hands.click('button', 'LOW, Low-gain drive: show it');
    await hands.type('combobox', 'Swap it for', 'distortion');
    await hands.click('option', 'Distortion');
    await hands.sees('6 cables go over, with what 8 sounds want of it. Every sound comes back as it did before.');
    await hands.click('button', 'Swap');
    await hands.sees('DST Distortion');
    expect(hands.actions).toBeLessThanOrEqual(4);
    await hands.sees('14 of 16 come back');
    await hands.click('button', 'Undo');
    await hands.sees('LOW Low-gain drive');
    await hands.page.close();
  });

  test('from the shelves, found by a word', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.click('button', 'Shelves');
    await hands.sees('Instruments and microphones');
    await hands.type('textbox', 'Find on the shelves', 'frequency');
    await hands.sees('Splits and leads');
    expect(await hands.text()).not.toContain('Instruments and microphones');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Add Frequency splitter');
    await hands.press('Escape');
    await hands.page.waitForSelector('.mantine-Drawer-overlay', { hidden: true });
    await hands.sees('24 boxes');
    await hands.click('button', 'Undo');
    await hands.sees('23 boxes');
    await hands.page.close();
  });
});

describe('bad input on the screens', () => {
  test('a pasted table that is too wide and too long changes nothing and says why', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.page.waitForSelector('[data-at="15,0"]');
    await hands.page.click('[data-at="15,0"]');
    await hands.page.evaluate(() => {
      const data = new DataTransfer();
      data.setData('text/plain', Array(30).fill(Array(40).fill('x').join('\t')).join('\n'));
      document.activeElement!.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
    await hands.sees('Nothing was pasted. 30 rows were pasted; from here on there are 1.');
    await hands.sees('40 columns were pasted');
    await hands.page.close();
  });

  test('a kit line of nonsense is kept, and says what it could be', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.type(
      'textbox',
      'Say what you have, as you would say it. Enter adds it; a pasted list works too.',
      'tunner, qqqqzzzz, 🎸',
    );
    await hands.sees('“qqqqzzzz”');
    await hands.sees('Not known here.');
    await hands.page.close();
  });

  test('a rig that is not there', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/no-such-rig/kit`));
    await hands.sees('This rig is not here');
    await hands.page.close();
  });

  test('a long name, emoji and right-to-left text are shown whole and break nothing', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/`));
    const name = '🎸 שלום Nine-piece orchestra of the outer harbour islands, winter crossing';
    await hands.type('textbox', 'Name', name);
    await hands.click('button', 'Begin');
    await hands.sees(name);
    expect(
      await hands.page.evaluate(() => document.documentElement.scrollWidth <= document.documentElement.clientWidth),
    ).toBe(true);
    await hands.page.close();
  });
});
