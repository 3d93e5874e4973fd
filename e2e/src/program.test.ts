import type { Browser } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { takeChoice } from './keys.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('program');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

describe('in front of the boxes', () => {
  test('a slot is ticked off; after one sound has changed only what differs comes back', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/program`));
    await hands.type('textbox', 'Your name, for the history', 'Technician');
    await hands.click('button', 'Tick all lines, SWI 1A');
    await hands.sees('Technician, revision 1');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('checkbox', 'Only what is still to type');
    const firstSlot = () => hands.page.$eval('.type-slot', (e) => e.getAttribute('aria-label'));
    expect(await firstSlot()).toBe('SWI 1B');
    await hands.page.goto(`${server.url}/rig/island-run/sounds`);
    await hands.page.waitForSelector('[data-at="0,10"]');
    await hands.page.click('[data-at="0,10"]');
    await hands.write('2.2');
    await hands.press('Enter');
    await hands.page.goto(`${server.url}/rig/island-run/program`);
    await hands.sees('was typed: channel 4, program 3 on the wire, REV shows 2.1');
    await hands.click('checkbox', 'Only what is still to type');
    expect(
      await hands.page.$eval('.type-slot', (e) =>
        [...e.querySelectorAll('li:not(.type-gone)')].map((li) => li.textContent),
      ),
    ).toEqual(['channel 4, program 4 on the wire, REV shows 2.2C3 04Stereo reverb: program 2.2']);
    await hands.page.close();
  });

  test('a whole box is ticked off at once; another delay in its place is dialled in, and the controller stays typed', async () => {
    const hands = new Hands(await openPage(browser, `${await server.fresh('island-run')}/program`));
    await hands.click('button', 'All of SWI is typed in');
    await hands.sees('all typed');
    await hands.pick('Stereo delay');
    await hands.click('button', 'All of DLY is typed in');
    await hands.sees('all dialled in');
    await hands.click('link', 'Kit');
    await hands.click('button', 'DLY, Stereo delay: show it');
    await hands.click('combobox', 'Swap it for');
    await hands.write('stereo reverb');
    await takeChoice(hands.page, 'stereo reverb');
    await hands.sees('to be dialled in again');
    await hands.click('button', 'Swap');
    await hands.click('link', 'What to dial in here');
    await hands.page.waitForFunction(() => /\d+ to dial in/.test(document.body.innerText));
    const controller = await hands.page.$eval('.type-group', (e) => (e as HTMLElement).innerText);
    expect(controller).toContain('SWI');
    await hands.page.close();
  });

  test('a capture with three planted faults: those three, in words; as it should be, nothing', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/night-market-bass/program?show=check`));
    await hands.sees('No controller of this hook-up sends MIDI');
    await hands.page.goto(`${server.url}/rig/island-run/program?show=check`);
    await hands.page.evaluate(() => {
      const kept: Blob[] = [];
      Object.assign(window, { kept });
      URL.createObjectURL = (blob: Blob) => {
        kept.push(blob);
        return '#';
      };
    });
    await hands.click('button', 'Save what should be sent, as text');
    await hands.page.waitForFunction(() => (window as unknown as { kept: Blob[] }).kept.length > 0);
    const right = (await hands.page.evaluate(() => (window as unknown as { kept: Blob[] }).kept.pop()!.text())).split(
      '\n',
    );
    await hands.type('textbox', 'Bytes in hex, a message a line', right.join('\n'));
    await hands.click('button', 'Compare');
    await hands.sees(`All ${right.length} messages are as they should be.`);
    const planted = right
      .filter((_, i) => i !== right.findIndex((l) => l.endsWith('B2 66 7F')))
      .map((l, i, all) =>
        i === all.findIndex((x) => x.endsWith('C2 0B'))
          ? l.replace('C2 0B', 'C2 0C')
          : i === all.findIndex((x) => x.endsWith('C1 0B'))
            ? l.replace('C1 0B', 'C7 0B')
            : l,
      );
    await hands.type('textbox', 'Bytes in hex, a message a line', planted.join('\n'));
    await hands.click('button', 'Compare');
    await hands.sees('3 things differ');
    await hands.sees('controller 102 = 127 on channel 3 is not sent.');
    await hands.sees('12, shown 12, went out; 11, shown 11, was meant.');
    await hands.sees('went out on channel 8, channel 2 was meant.');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Write 3 slots down as it came');
    await hands.sees(`All ${right.length - 1} messages are as they should be.`);
    await hands.click('button', 'Undo');
    await hands.sees('3 things differ');
    await hands.type('textbox', 'Bytes in hex, a message a line', 'dear diary');
    await hands.click('button', 'Compare');
    await hands.sees('Nothing was compared. line 1: No MIDI message stands in this text.');
    await hands.page.close();
  });
});

describe('planning programs', () => {
  test('what would be left to a toggle gets a program, seen before it is done; undone it is as before', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/program?show=plan`));
    await hands.sees('15 of 16');
    await hands.sees('Slap');
    expect(await violations(hands.page)).toEqual([]);
    await hands.pick('For every sound, to send less');
    await hands.sees('messages sent, all sounds');
    await hands.pick('For what cannot come back surely without');
    await hands.sees('15 of 16');
    await hands.click('button', 'Carry it out');
    await hands.sees('15 of 16 come back');
    await hands.sees('No sound needs a program');
    await hands.click('button', 'Undo');
    await hands.sees('14 of 16 come back');
    await hands.page.close();
  });
});

describe('what stands in a box', () => {
  test('a slot that was dialled in otherwise is written down, the proof tells what that breaks, and Yunta plans it again', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/program`));
    await hands.click('link', 'It holds something else, SWI 1A');
    await hands.page.waitForSelector('[data-at="0,0"]');
    await hands.sees('ch 3 pc 0; ch 4 pc');
    await hands.page.click('[data-at="0,0"]');
    await hands.press(' ');
    await hands.sees('13 of 16 come back');
    await hands.sees('2 written down');
    expect(await violations(hands.page)).toEqual([]);
    await hands.page.click('[data-at="0,13"]');
    await hands.write('ch 3 pc 200');
    await hands.press('Enter');
    await hands.sees('numbers on the wire are 0 to 127');
    await hands.click('button', 'Let Yunta plan it');
    await hands.sees('14 of 16 come back');
    await hands.pick('DLY');
    await hands.type('textbox', 'Number as the box shows it', '40');
    await hands.type('textbox', 'Name of the program', 'Long echo');
    await hands.click('button', 'Add a program');
    await hands.sees('Long echo');
    await hands.sees('not written down, no sound calls it');
    await hands.click('button', 'Undo');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('Long echo'));
    await hands.page.close();
  });
});

describe('a standing test', () => {
  test('made from what was played, broken by an edit, cured, taken away', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/island-run/bench`));
    await hands.sees('Keep as a test');
    await hands.page.waitForFunction(() =>
      [...document.querySelectorAll('.floor button')].some((b) => b.textContent?.includes('Lead')),
    );
    await hands.press('2');
    await hands.sees('DLY shows 4');
    await hands.sees('Chorus crunch stands as wanted.');
    await new Promise((r) => setTimeout(r, 400));
    await hands.press('4');
    await hands.sees('Lead stands as wanted.');
    await hands.sees('3 dB louder; what nobody stated counts as set by ear.');
    await hands.click('button', 'Keep as a test');
    await hands.sees('Power up, then Stomp Chorus crunch, 1B, Stomp Lead, 1D.');
    await hands.type('textbox', 'Name of the test', 'The lead is loud');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Keep it');
    await hands.sees('holds after 2 steps');
    await hands.page.goto(`${server.url}/rig/island-run/sounds`);
    await hands.page.waitForSelector('[data-at="3,0"]');
    await hands.page.click('[data-at="3,0"]');
    await hands.write('1');
    await hands.press('Enter');
    await hands.sees('Test “The lead is loud” fails: SWI trim is 1 dB, 3 dB was expected.');
    await hands.click('button', 'Undo');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('“The lead is loud” fails'));
    await hands.page.goto(`${server.url}/rig/island-run/bench`);
    await hands.sees('Tests that are kept');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Remove test The lead is loud');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('Tests that are kept'));
    await hands.page.close();
  });
});

describe('what is taken for granted', () => {
  test('a mute that nobody touches is said, seen in the proof, and taken back', async () => {
    const hands = new Hands(await openPage(browser, `${server.url}/rig/lighthouse-solo/proof`));
    await hands.click('combobox', 'Take something for granted');
    await hands.write('tuner');
    await hands.click('option', 'TUN mute, Tuner');
    await hands.type('textbox', 'Why', 'nobody tunes in a song');
    await hands.click('button', 'Take it for granted');
    await hands.sees('nobody tunes in a song');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Not any more: TUN mute');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('nobody tunes in a song'));
    await hands.page.close();
  });
});
