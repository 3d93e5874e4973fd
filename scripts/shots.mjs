// Takes the pictures in docs/screenshots from the demo rig, on a database of its own: `npm run shots`, or some of them by
// their names.
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { pagesApart } from './house/page-apart.mjs';
import { root } from './house/say.mjs';

const DEMO = '/rig/island-run';
/** Each main view, where it is, and in which themes it is kept. */
const VIEWS = [
  ['home', '/', 'light'],
  ['kit', `${DEMO}/kit`, 'light'],
  ['box-editor', `${DEMO}/kit`, 'light'],
  ['routing', `${DEMO}/routing`, 'light'],
  ['set', `${DEMO}/set`, 'light'],
  ['song', `${DEMO}/set?show=songs&song=song:01`, 'light'],
  ['stage', `${DEMO}/stage`, 'dark'],
  ['merge', `${DEMO}/merge`, 'light'],
  ['sounds', `${DEMO}/sounds`, 'both'],
  ['program', `${DEMO}/program`, 'light'],
  ['proof', `${DEMO}/proof`, 'both'],
  ['bench', `${DEMO}/bench`, 'both'],
  ['power', `${DEMO}/power`, 'light'],
  ['levels', `${DEMO}/levels`, 'light'],
  ['build', `${DEMO}/build?show=board`, 'light'],
  ['road', `${DEMO}/road`, 'light'],
];
const pages = await pagesApart();
const click = async (page, selector) => (await page.waitForSelector(selector, { visible: true })).click();
const press = async (page, text) => {
  await page.waitForFunction(
    (t) => [...document.querySelectorAll('button')].some((b) => b.textContent.startsWith(t)),
    {},
    text,
  );
  await page.evaluate(
    (t) => [...document.querySelectorAll('button')].find((b) => b.textContent.startsWith(t)).click(),
    text,
  );
};
/** Something worth seeing in each room: a box chosen, a sound with its drives in, a stomp on the bench. */
const BEFORE = {
  merge: async (page) => {
    await page.evaluate(async () => {
      const file = await (await fetch('/api/rigs/island-run/file')).json();
      file.about[0].name = 'Island run, back from the technician';
      file.devices.find((d) => d.code === 'LOW').name = 'Light drive';
      file.sounds[2].name = 'Chorus open';
      file.cables[1].m = 0.5;
      await fetch('/api/rigs', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          id: 'sent-back',
          change: 'sent-back',
          file: JSON.stringify(file),
          label: 'From a rig file',
        }),
      });
    });
    await page.reload();
    await click(page, 'input[aria-label="Another rig of yours"]');
    await click(page, '::-p-aria([name="Island run, back from the technician"][role="option"])');
    await wait(1500);
  },
  kit: (page) => click(page, '::-p-aria([name="DLY, Stereo delay: show it"][role="button"])'),
  sounds: (page) => click(page, '[data-at="3,-1"]'),
  'box-editor': async (page) => {
    await click(page, '::-p-aria([name="HED, Two-channel valve head 50 W: show it"][role="button"])');
    await wait(300);
    await press(page, 'Open the box');
  },
  stage: async (page) => {
    await press(page, 'Words');
    await page.keyboard.press('ArrowRight');
  },
  build: async (page) => {
    await page.$eval('.board-box[aria-label^="High-gain drive"]', (box) => box.focus());
    await wait(500);
  },
  road: async (page) => {
    await press(page, 'Two-channel valve head');
    await wait(1500);
  },
  program: (page) => press(page, 'Tick all lines'),
  proof: (page, theme) =>
    theme === 'dark' &&
    page.evaluate(() => [...document.querySelectorAll('label')].find((l) => l.textContent === 'Level').click()),
  bench: async (page, theme) => {
    for (const key of ['2', '1']) {
      await page.keyboard.press(key);
      await wait(500);
    }
    if (theme === 'light') return;
    await page.focus('input[aria-label="Something happens"]');
    await page.keyboard.type('delay loses its supply');
    await wait(500);
    await page.keyboard.press('Enter');
  },
};
const wanted = process.argv.slice(2);
for (const [name, path, themes] of VIEWS) {
  if (wanted.length && !wanted.includes(name)) continue;
  for (const theme of themes === 'both' ? ['light', 'dark'] : [themes]) {
    const page = await pages.open(path, theme);
    await wait(2000);
    await BEFORE[name]?.(page, theme);
    await wait(1000);
    await page.screenshot({ path: join(root, `docs/screenshots/${name}${theme === 'dark' ? '-blackout' : ''}.png`) });
    await page.close();
  }
}
await pages.close();
