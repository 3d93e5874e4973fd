import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  server = await TestServer.start('levels');
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await server?.stop();
});

const room = async (show: string, theme: 'light' | 'dark' = 'light'): Promise<Hands> =>
  new Hands(await openPage(browser, `${await server.fresh('island-run')}/levels?show=${show}`, theme));

describe('how loud sounds are', () => {
  test('a lead that lifts by 9 dB is shown, set by one click, and taken back', async () => {
    const hands = await room('steps');
    await hands.sees('1 of 16 sounds lie elsewhere than wanted');
    await hands.sees('3 dB too loud: SWI trim 9 → 4');
    await hands.sees('Last boat, stage by stage');
    await hands.click('button', 'Set the number');
    await hands.sees('16 sounds lie where they are wanted');
    await hands.click('button', 'Undo');
    await hands.sees('1 of 16 sounds lie elsewhere than wanted');
    await hands.page.close();
  });

  test('what a meter said counts instead, with what it was and when; what cannot be is refused beside the field', async () => {
    const hands = await room('steps');
    for (const [name, level] of [
      ['Nine knots', '95 dBA'],
      ['Lantern', '95 dBA'],
      ['Last boat', '100 dBA'],
    ] as const) {
      await hands.pick(name);
      await hands.sees(`${name}, stage by stage`);
      await hands.type('textbox', `${name}, measured level`, '240 dBA');
      await hands.press('Enter');
      await hands.sees('Above 194 dB there is no sound in air.');
      await hands.type('textbox', `${name}, measured level`, level);
      await hands.press('Enter');
      await hands.sees('Take it away');
    }
    await hands.sees('16 sounds lie where they are wanted');
    await hands.type('textbox', 'Last boat, measured with what', 'meter at 1 m');
    await hands.press('Enter');
    await hands.page.reload();
    await hands.sees('16 sounds lie where they are wanted');
    await hands.page.close();
  });
});

test('treble: a shorter lead is tried where its effect is seen, a length that is none is refused, undo brings it back', async () => {
  const hands = await room('treble');
  await hands.sees('Humbucker guitar: 6.3 m, 990 pF');
  await hands.type('textbox', 'lead from Humbucker guitar to Instrument selector, metres', '-1');
  await hands.press('Enter');
  await hands.sees('"-1" is no length of a lead.');
  await hands.type('textbox', 'lead from Humbucker guitar to Instrument selector, metres', '3');
  await hands.press('Enter');
  await hands.sees('Humbucker guitar: 3.3 m, 510 pF');
  await hands.click('button', 'Undo');
  await hands.sees('Humbucker guitar: 6.3 m, 990 pF');
  await hands.pick('Knobs rolled down');
  await hands.page.close();
});

test('every view in both themes, for everybody', async () => {
  for (const [show, sees] of [
    ['steps', 'Sounds beside each other'],
    ['treble', 'What hangs on the coil'],
    ['noise', 'dB under the sound'],
    ['meet', 'No loop goes through the earth of the mains.'],
    ['speakers', 'of the power'],
  ] as const)
    for (const theme of ['light', 'dark'] as const) {
      const hands = await room(show, theme);
      await hands.sees(sees);
      expect([show, theme, await violations(hands.page)]).toEqual([show, theme, []]);
      await hands.page.close();
    }
});

/** A tone in dB under full scale, and how long it is torn in its middle. */
interface Tone {
  readonly db: number;
  readonly hz?: number;
  readonly holeMs?: number;
}

/** A WAV file of 16 bits with one tone after another, silence between. */
const tones = (...those: readonly Tone[]): Buffer => {
  const rate = 22_050;
  const samples = those.flatMap(({ db, hz = 440, holeMs = 0 }) =>
    Array.from({ length: rate * 3 }, (_, n) =>
      n < rate * 1.5 && !(n > rate * 0.75 && n < rate * (0.75 + holeMs / 1000))
        ? Math.round(32_767 * 10 ** (db / 20) * Math.sin((2 * Math.PI * hz * n) / rate))
        : 0,
    ),
  );
  const data = Buffer.alloc(samples.length * 2);
  samples.forEach((s, i) => data.writeInt16LE(s, i * 2));
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + data.length, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE(rate * 2, 28);
  head.writeUInt16LE(2, 32);
  head.writeUInt16LE(16, 34);
  head.write('data', 36);
  head.writeUInt32LE(data.length, 40);
  return Buffer.concat([head, data]);
};

test('a recording is cut apart, each take measured, and what it says changes what is found; what is none is refused', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-e2e-'));
  const hands = await room('steps');
  try {
    await hands.sees('From a recording');
    const open = async (name: string, bytes: Uint8Array) => {
      writeFileSync(join(folder, name), bytes);
      const field = await hands.page.waitForSelector('input[type="file"][accept*="wav"]');
      await (field as ElementHandle<HTMLInputElement>).uploadFile(join(folder, name));
    };
    await open('words.wav', Buffer.from('this is no recording'));
    await hands.sees('It is no WAV file, or a damaged one.');
    await open('silent.wav', tones({ db: -200 }));
    await hands.sees('silent.wav is silent');
    // The second sound is recorded 9 dB louder than the others.
    await open('check.wav', tones({ db: -20 }, { db: -11, hz: 150, holeMs: 60 }, { db: -20 }));
    await hands.sees('0 to 1.5 s');
    await hands.sees('6 to 7.5 s');
    await hands.page.select('select[aria-label="Sound before the hole of the take 3 to 4.5 s"]', 'sound:01');
    await hands.click('button', 'Write these down');
    await hands.sees('6.2 dB too loud');
    await hands.sees('2 of 16 sounds lie elsewhere than wanted');
    await hands.page.reload();
    await hands.sees('2 of 16 sounds lie elsewhere than wanted');
    // The octave of the second sound against the first, and the hole of the change from one to the other.
    await hands.page.evaluate(() => history.replaceState(null, '', '?show=steps&sound=sound:02'));
    await hands.page.reload();
    await hands.sees('Chorus crunch, stage by stage');
    await hands.sees('By octaves, as recorded');
    await hands.click('combobox', 'Lay another sound over it');
    await hands.click('option', 'Lantern');
    await hands.sees('Lantern was not recorded here.');
    await hands.click('combobox', 'Lay another sound over it');
    await hands.click('option', 'Verse clean');
    await hands.sees('Chorus crunch has');
    await hands.sees('dB more from 63 Hz');
    await hands.sees('makes the next sound seem small');
  } finally {
    rmSync(folder, { recursive: true, force: true });
    await hands.page.close();
  }
});

test('a lead is dragged to another length, the curve follows, and it is kept; by key too', async () => {
  const hands = await room('treble');
  await hands.sees('Humbucker guitar: 6.3 m');
  await hands.page.focus('.try-drag input');
  for (let k = 0; k < 5; k += 1) await hands.press('ArrowLeft');
  await hands.sees('as tried');
  await hands.sees('5.5 m');
  await hands.click('button', 'Keep these lengths');
  await hands.sees('Humbucker guitar: 5.8 m');
  await hands.click('button', 'Undo');
  await hands.sees('Humbucker guitar: 6.3 m');
  expect(await violations(hands.page)).toEqual([]);
  await hands.page.close();
});

test('a number tells its figures; one is written over where it is read, with what it was measured with', async () => {
  const hands = await room('noise');
  await hands.sees('dB under the sound');
  await hands.click('button', 'LOW, overdrive, its own noise: -84 dBu, assumed. Write it over');
  await hands.type('textbox', 'overdrive, its own noise', 'loud');
  await hands.press('Enter');
  await hands.sees('"loud" cannot be read. Write -95 dBu.');
  await hands.type('textbox', 'overdrive, its own noise', '-70');
  await hands.press('Enter');
  await hands.page.waitForSelector('select[aria-label="overdrive, its own noise: where it comes from"]');
  await hands.page.select('select[aria-label="overdrive, its own noise: where it comes from"]', 'measured');
  await hands.type('textbox', 'overdrive, its own noise: measured with what', 'an interface');
  await hands.press('Enter');
  await hands.press('Escape');
  await hands.sees(`-70 dBu measured on ${new Date().toISOString().slice(0, 10)} with an interface`);
  await hands.page.close();
});

test('a noise is found at the bench in a few tries, by a meter, and kept in the log', async () => {
  const hands = await room('noise');
  await hands.sees('Find it at the bench');
  await hands.type('textbox', 'With everything on, in dB', 'loud');
  await hands.press('Enter');
  await hands.sees('"loud" is no level.');
  await hands.type('textbox', 'With everything on, in dB', '−50');
  await hands.press('Enter');
  for (let tries = 0; tries < 9; tries += 1) {
    await hands.sees('Take out');
    const asked = await hands.page.$eval('.noise-tries li:last-child strong', (e) => e.textContent ?? '');
    // The compressor makes four fifths of it.
    await hands.type(
      'textbox',
      `${asked.replace(/^Take out (.*)\.$/, 'Without $1')}, in dB`,
      /Compressor/.test(asked) ? '-57 dB' : '-50.2',
    );
    await hands.press('Enter');
    if ((await hands.text()).includes('of it: without it')) break;
  }
  await hands.sees('Compressor makes 80 % of it: without it 7 dB less.');
  await hands.click('button', 'Keep it in the log');
  await hands.sees('It is in the log');
  await hands.page.close();
});

test('what hangs on an amp: a longer lead costs more, a gauge that is none is refused, the run tells the level at its ends', async () => {
  const hands = await room('speakers');
  await hands.sees('50 W');
  await hands.type('textbox', 'Lead 1 to Closed 2×12 cabinet, gauge', 'thick');
  await hands.press('Enter');
  await hands.sees('"thick" is no gauge of a wire.');
  await hands.type('textbox', 'Lead 1 to Closed 2×12 cabinet, gauge', '18');
  await hands.press('Enter');
  await hands.type('textbox', 'Lead 1 to Closed 2×12 cabinet, metres', '10');
  await hands.press('Enter');
  await hands.sees('−0.44 dB');
  await hands.page.goto(hands.page.url().replace(/levels.*$/, 'sounds'));
  await hands.page.waitForFunction(() => /−?\d+(\.\d)? dBu/.test(document.querySelector('.run')?.textContent ?? ''));
  await hands.page.close();
});
