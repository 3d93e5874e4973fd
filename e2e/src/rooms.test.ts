import { readFileSync } from 'node:fs';
import type { Browser, KeyInput, Page } from 'puppeteer-core';
import { openBrowser, openPage } from './browser.js';
import { giantRig } from '@yunta/core/testing/giant-rig';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { Hands } from './hands.js';
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

const ROOMS = [['rigs', '/', 'A new rig'], ['kit', '/rig/island-run/kit', '21 boxes'], ['routing', '/rig/island-run/routing', '31 cables'], ['sounds', '/rig/island-run/sounds', 'Sound sheet'], ['proof', '/rig/island-run/proof', 'Does every sound come back'], ['bench', '/rig/island-run/bench', 'On the wire']] as const;

/** Reference: axe-core, the accessibility checker. */
const source = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');
const violations = async (page: Page) => {
  await page.evaluate(source);
  const found = await page.evaluate(async () => (await (window as unknown as { axe: { run: () => Promise<{ violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[] }> } }).axe.run()).violations);
  return found.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 200)} ${v.nodes[0]?.failureSummary.slice(0, 200)}`);
};

const keys = async (page: Page, ...list: KeyInput[]) => {
  for (const key of list) await page.keyboard.press(key);
};
const tabTo = async (page: Page, name: RegExp, most = 80) => {
  for (let i = 0; i < most; i += 1) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => { const e = document.activeElement as HTMLElement; return `${e.getAttribute('aria-label') ?? ''} ${e.innerText ?? ''} ${(e as HTMLInputElement).placeholder ?? ''} ${e.id}`; });
    if (name.test(at)) return;
  }
  throw new Error(`Tab never reached ${String(name)}`);
};

describe('axe finds nothing serious or critical', () => {
  test.each(ROOMS.flatMap(([name, path, says]) => (['light', 'dark'] as const).map((theme) => [name, theme, path, says] as const)))('%s, %s', async (_, theme, path, says) => {
    const hands = new Hands(await openPage(browser, server.url + path, theme));
    await hands.sees(says);
    await new Promise((r) => setTimeout(r, 400));
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });

  test('with a box chosen, the findings open, and a broken sound on the bench', async () => {
    const kit = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await kit.click('button', 'DLY, Stereo delay: show it');
    await kit.sees('Choosing the same program again');
    expect(await violations(kit.page)).toEqual([]);
    await kit.click('button', '4 findings');
    await kit.sees('Accept');
    await new Promise((r) => setTimeout(r, 600));
    expect(await violations(kit.page)).toEqual([]);
    await kit.page.close();
  });
});

describe('every room by keyboard alone', () => {
  test('kit: say a box, Enter adds it, Tab to it, Enter opens it, change its name', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.sees('21 boxes');
    await tabTo(hands.page, /kit-line/);
    await hands.write('wah');
    await keys(hands.page, 'Enter');
    await hands.sees('22 boxes');
    await tabTo(hands.page, /^WAH, Wah/);
    await keys(hands.page, 'Enter');
    await hands.sees('Take it out of the kit');
    await tabTo(hands.page, /Take it out of the kit/);
    await keys(hands.page, 'Enter');
    await hands.sees('21 boxes');
    await hands.page.close();
  });

  test('routing: plug and pull a cable', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/routing?show=cables`));
    await hands.sees('31 cables');
    await tabTo(hands.page, /box and jack/);
    await hands.write('mod out-r');
    await keys(hands.page, 'ArrowDown', 'Enter');
    await tabTo(hands.page, /what fits, best first/);
    await keys(hands.page, 'ArrowDown', 'ArrowDown', 'Enter');
    await tabTo(hands.page, /Plug it/);
    await keys(hands.page, 'Enter');
    await hands.sees('32 cables');
    await hands.page.keyboard.down('Control');
    await keys(hands.page, 'z');
    await hands.page.keyboard.up('Control');
    await hands.sees('31 cables');
    await hands.page.close();
  });

  test('sounds: arrows move, space takes a stage in and out, typing fills, Escape leaves', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.sees('Sound sheet');
    await tabTo(hands.page, /Verse clean.*clean, proved/s);
    await keys(hands.page, 'ArrowRight', 'ArrowRight', 'ArrowRight');
    const standsAt = (label: string) => hands.page.waitForFunction((l: string) => document.activeElement?.getAttribute('aria-label')?.startsWith(l), {}, label);
    await standsAt('Octave fuzz: out');
    await keys(hands.page, ' ');
    await standsAt('Octave fuzz: in');
    await keys(hands.page, ' ');
    await standsAt('Octave fuzz: out');
    await keys(hands.page, 'End');
    await hands.write('999');
    await keys(hands.page, 'Enter');
    await hands.sees('"999" is not a number that Stereo delay shows. It shows 0 to 127.');
    await keys(hands.page, 'ArrowDown', 'ArrowDown');
    await standsAt('Stereo delay: program');
    await hands.page.close();
  });

  test('proof: arrows walk the board, Enter shows the pair', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/proof`));
    await hands.page.waitForSelector('[data-cell]');
    await tabTo(hands.page, /Verse clean to Chorus crunch/);
    await keys(hands.page, 'ArrowRight', 'ArrowDown', 'Enter');
    await hands.sees('Chorus crunch → Chorus wide');
    await hands.page.close();
  });

  test('Ctrl K finds a sound; Alt and a number changes the room', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.sees('21 boxes');
    await hands.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await hands.page.keyboard.down('Control');
    await keys(hands.page, 'k');
    await hands.page.keyboard.up('Control');
    await hands.page.waitForSelector('[aria-label="Find anything"]');
    await hands.write('Quay');
    await keys(hands.page, 'Enter');
    await hands.sees('slot 3C');
    await hands.page.close();
  });
});

describe('the kit', () => {
  test('one drive for another in at most four actions, its consequences said first', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.sees('21 boxes');
    await hands.click('button', 'LOW, Low-gain drive: show it');
    await hands.click('combobox', 'Swap it for');
    await hands.click('option', 'Distortion');
    await hands.sees('4 cables go over, with what 8 sounds want of it. No sound comes back otherwise than before.');
    await hands.click('button', 'Swap');
    await hands.sees('DST Distortion');
    expect(hands.actions).toBeLessThanOrEqual(4);
    await hands.sees('14 of 16 sounds proved');
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
    await hands.sees('22 boxes');
    await hands.click('button', 'Undo');
    await hands.sees('21 boxes');
    await hands.page.close();
  });
});

describe('the map', () => {
  const mapPage = async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/routing`));
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
    await hands.sees('32 cables');
    await keys(hands.page, 'Escape');
    expect(await hands.page.evaluate(() => document.activeElement?.getAttribute('data-id'))).toMatch(/^device:/);
    await hands.click('button', 'Undo');
    await hands.sees('31 cables');
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
    await hands.sees('30 cables');
    await hands.click('button', 'Done');
    await hands.sees('“Verse clean” is silent in this hook-up.');
    await hands.click('button', 'Undo');
    await hands.sees('31 cables');
    await hands.page.close();
  });

  test('the path of another sound lights other boxes; layers come and go', async () => {
    const hands = await mapPage();
    await hands.page.waitForSelector('.map-lead.lit');
    const lit = () => hands.page.$$eval('.map-box', (all) => all.filter((b) => b.querySelector('.map-tag.in')).map((b) => b.querySelector('.map-code')?.textContent));
    expect(await lit()).not.toContain('HIG');
    await tabTo(hands.page, /Sound that the run shows/, 120);
    await hands.write('Waltz lead');
    await keys(hands.page, 'ArrowDown', 'Enter');
    await hands.page.waitForFunction(() => [...document.querySelectorAll('.map-box')].some((b) => b.querySelector('.map-tag.in') && b.querySelector('.map-code')?.textContent === 'HIG'));
    await hands.pick('MIDI');
    await hands.page.waitForSelector('.map-lead.MIDI');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });
});

describe('starting points', () => {
  test.each(['light', 'dark'] as const)('every one can be looked at, by key too, and nothing is touched until it is wanted, %s', async (theme) => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/lighthouse-solo/routing?show=start`, theme));
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
  });
});

describe('moving and comparing', () => {
  test('a box moves to another place in one step, consequences first; undo brings it back', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/routing`));
    await hands.page.waitForSelector('.react-flow__node[data-id="device:gat"]');
    await hands.page.click('.react-flow__node[data-id="device:gat"]');
    await hands.sees('Outside the path in “Verse clean”.');
    await hands.page.click('input[placeholder="another place"]');
    await hands.write('between SEL');
    await keys(hands.page, 'ArrowDown', 'Enter');
    await hands.sees('GAT on/off is reached only by foot');
    await hands.click('button', 'Move it');
    await hands.sees('← SEL out');
    await hands.sees('30 cables');
    await hands.click('button', 'Undo');
    await hands.sees('31 cables');
    await hands.page.close();
  });

  test('two sounds side by side, then one sound in two hook-ups', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
    await hands.click('button', 'Compare');
    await hands.sees('LOW out in');
    expect(await hands.page.$$eval('.run .tag.pointed', (all) => all.length)).toBeGreaterThan(0);
    await hands.page.click('input[aria-label="Compare with"]');
    await hands.click('option', 'Ferry deck');
    await hands.sees('HED clean in not wired');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.close();
  });

  test('the gain ladder says what is used and makes a sound of what is not', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/sounds`));
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
    const hands = new Hands(await openPage(browser, `${server.url}/rig/night-market-bass/proof`));
    await hands.click('button', '1 finding');
    await hands.sees('it will fizz');
    await hands.pick('To Routing');
    await hands.page.waitForSelector('.map-box.pointed');
    await hands.sees('To see to here');
    await hands.page.close();
  });

  const MOST_TO_SWAP = 4;
  test(`one drive for another in a rig of forty boxes in at most ${MOST_TO_SWAP} actions`, async () => {
    const made = await fetch(`${server.url}/api/rigs`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id: 'forty', change: 'forty', file: writeRigFile(giantRig(1).rig) }) });
    expect(made.status).toBe(201);
    const hands = new Hands(await openPage(browser, `${server.url}/rig/forty/kit`));
    await hands.sees('40 boxes');
    await hands.click('button', 'LOW, Low-gain drive: show it');
    await hands.click('combobox', 'Swap it for');
    await hands.click('option', 'High-gain drive');
    await hands.sees('2 cables go over');
    await hands.page.waitForFunction(() => [...document.querySelectorAll('button')].some((b) => b.textContent === 'Swap' && !b.disabled));
    await hands.click('button', 'Swap');
    await hands.page.waitForFunction(() => ![...document.querySelectorAll('button')].some((b) => b.textContent === 'LOW'));
    await hands.sees('40 boxes');
    expect(hands.actions).toBeLessThanOrEqual(MOST_TO_SWAP);
    await hands.page.close();
  });
});

describe('a box of one\'s own', () => {
  test('made from nothing: refused while it makes no sense, drawn as it is typed, kept, put on the shelf, added to another rig from there', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.click('button', 'New box');
    await hands.sees('How to write it');
    await hands.type('textbox', 'Chains, one a line', 'path: in > fuzz [on=on] > fx:<send / return> > out');
    await hands.sees('Not yet a box that can be kept.');
    await hands.sees('chains.path.fx: "send" is not a jack of this device.');
    for (const [n, name, way] of [[3, 'send', 'gives'], [4, 'return', 'takes']] as const) {
      await hands.click('button', 'Add a jack');
      await hands.type('textbox', `Name of jack ${n}`, name);
      await hands.page.select(`select[aria-label="What ${name} does"]`, way);
    }
    await hands.sees('"on" is not a control of this device.');
    await hands.click('button', 'Add a control');
    await hands.type('textbox', 'Chains, one a line', 'path: in > fuzz [control1=on] > fx:<send / return> > out');
    await hands.type('textbox', 'What sets control1', 'foot, cc 80');
    await keys(hands.page, 'Enter');
    await hands.type('textbox', 'Name', 'Home-made fuzz');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('Not yet a box'));
    expect(await hands.page.$eval('.inside-drawn', (e) => e.textContent)).toContain('FUZZ');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Save to my shelf');
    await hands.sees('on your shelf');
    await hands.click('button', 'Keep');
    await hands.sees('22 boxes');
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

describe('for other programs', () => {
  test('the map leaves as a picture, two kinds of graph and a table; a table of cables is plugged, and a bad one changes nothing', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/routing`));
    await hands.page.evaluate(() => {
      const kept: Blob[] = [];
      Object.assign(window, { kept });
      URL.createObjectURL = (blob: Blob) => { kept.push(blob); return '#'; };
    });
    await hands.page.waitForSelector('.map-lead.lit');
    const saved = async (item: string) => {
      await hands.click('button', 'Save as …');
      await hands.click('menuitem', item);
      await hands.page.waitForFunction(() => (window as unknown as { kept: Blob[] }).kept.length > 0);
      return hands.page.evaluate(() => (window as unknown as { kept: Blob[] }).kept.pop()!.text());
    };
    expect(await saved('Picture (SVG)')).toMatch(/<svg [^]*Verse clean[^]*SWI/);
    expect((await saved('Cable list (CSV)')).split('\n')).toHaveLength(33);
    expect((await saved('Graph (GraphML)')).match(/<edge /g)).toHaveLength(31);
    expect(await saved('Graph (DOT)')).toContain('digraph');
    await hands.pick('Cables');
    await hands.click('button', 'Paste a table of cables');
    await hands.type('textbox', 'Paste a table: from box, from jack, to box, to jack, metres, label', 'PRE,hole,DI,in-l');
    await hands.click('button', 'Plug these');
    await hands.sees('Nothing was taken. row 1: PRE has no jack "hole"');
    await hands.type('textbox', 'Paste a table: from box, from jack, to box, to jack, metres, label', 'PRE,out,DI,in-l,0.3,spare');
    await hands.click('button', 'Plug these');
    await hands.sees('32 cables');
    await hands.click('button', 'Undo');
    await hands.sees('31 cables');
    await hands.page.close();
  });
});

describe('hook-ups', () => {
  test('the other one is compared, a copy is made, named, shown and taken away again', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/routing`));
    await hands.pick('Hook-ups (2)');
    await hands.sees('22 cables stay as they are.');
    await hands.sees('Pull these 9');
    await hands.sees('SWI send6 → PRE in');
    await hands.sees('14 of 16 4');
    await hands.click('button', 'Copy Ferry deck');
    await hands.sees('Ferry deck, copy, 30 cables');
    await hands.type('textbox', 'Name of Ferry deck, copy', 'Small ferry');
    await hands.press('Enter');
    await hands.sees('Small ferry, 30 cables');
    await hands.sees('Hook-ups (3)');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Take away Small ferry');
    await hands.sees('Hook-ups (2)');
    await hands.sees('Ballroom, 31 cables');
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
      document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    });
    await hands.sees('Nothing was pasted. 30 rows were pasted; from here on there are 1.');
    await hands.sees('40 columns were pasted');
    await hands.page.close();
  });

  test('a kit line of nonsense is kept, and says what it could be', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/kit`));
    await hands.type('textbox', 'Say what you have, as you would say it. Enter adds it; a pasted list works too.', 'tunner, qqqqzzzz, 🎸');
    await hands.sees('“qqqqzzzz”');
    await hands.sees('not known; say it more generally');
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
    expect(await hands.page.evaluate(() => document.documentElement.scrollWidth <= document.documentElement.clientWidth)).toBe(true);
    await hands.page.close();
  });
});
