// The map of a rig of forty boxes and ninety cables, and its sheet of 128 sounds, in Chromium: how long the layout
// takes in the worker, how evenly both move, how long a key takes. Part of `npm run bench`.
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { pagesApart } from './house/page-apart.mjs';
import { root, say } from './house/say.mjs';

const { giantRig } = await import(join(root, 'core/dist-testing/giant-rig.js'));
const { writeRigFile } = await import(join(root, 'core/dist/formats/rig-file.js'));

const FRAMES = 150;
const pages = await pagesApart();
const { rig } = giantRig(1);
await fetch(`${pages.url}/api/rigs`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ id: 'giant', change: randomUUID(), file: writeRigFile(rig) }),
});
const page = await pages.open('/rig/giant/routing');
await page.waitForSelector('.map-lead.lit');
await wait(2500);
const layout = await page.evaluate(() => performance.getEntriesByName('map layout').map((m) => m.duration));
const ms = (n) => `${n.toFixed(1)} ms`;

/** Times between frames while something moves. */
const frames = async (move) => {
  await page.evaluate((count) => {
    window.frames60 = new Promise((done) => {
      const times = [];
      const note = (now) => (
        times.push(now),
        times.length > count ? done(times.slice(1).map((t, i) => t - times[i])) : requestAnimationFrame(note)
      );
      requestAnimationFrame(note);
    });
  }, FRAMES);
  let moving = true;
  const hands = (async () => {
    for (let i = 0; moving; i += 1) await move(i);
  })();
  const gaps = (await page.evaluate(() => window.frames60)).sort((a, b) => a - b);
  moving = false;
  await hands;
  return { median: gaps[Math.floor(gaps.length / 2)], most: gaps.at(-1), late: gaps.filter((g) => g > 33.4).length };
};
const report = (name, { median, most, late }) =>
  say(`${name.padEnd(46)} median ${ms(median)}, longest ${ms(most)}, ${late} of ${FRAMES} over 33 ms`);

say(`\nMap: ${rig.parts.device.size} boxes, ${rig.parts.cable.size} cables, in Chromium`);
say(`${'layout in the worker, first time'.padEnd(46)} ${ms(layout[0])}`);
report('frames at rest', await frames(() => wait(50)));
const box = await (await page.$('.react-flow__pane')).boundingBox();
const [x, y] = [box.x + box.width / 2, box.y + box.height - 40];
await page.mouse.move(x, y);
await page.mouse.down();
report(
  'frames while the map is dragged',
  await frames((i) => page.mouse.move(x + Math.sin(i / 8) * 150, y - Math.abs(Math.cos(i / 8)) * 60)),
);
await page.mouse.up();
report('frames while the map is zoomed', await frames((i) => page.mouse.wheel({ deltaY: i % 20 < 10 ? -40 : 40 })));

const wide = giantRig(1, { sounds: 128, pedals: 8, midi: 7, moves: 24 });
await fetch(`${pages.url}/api/rigs`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ id: 'wide', change: randomUUID(), file: writeRigFile(wide.rig) }),
});
await page.goto(`${pages.url}/rig/wide/sounds`);
await page.waitForSelector('[data-at="0,0"]');
await wait(2500);
const [rows, columns] = await page.evaluate(() => [
  Number(document.querySelector('.sheet').getAttribute('aria-rowcount')) - 1,
  document.querySelectorAll('.sheet tbody tr:first-child td').length,
]);
say(`\nSheet: ${rows} sounds, ${columns - 2} columns`);
const sheet = await (await page.$('.sheet-wrap')).boundingBox();
await page.mouse.move(sheet.x + sheet.width / 2, sheet.y + sheet.height / 2);
report(
  'frames while the sheet is scrolled',
  await frames((i) => page.mouse.wheel({ deltaY: i % 60 < 30 ? 90 : -90, deltaX: i % 20 < 10 ? 30 : -30 })),
);
await page.evaluate(() => {
  document.querySelector('.sheet-wrap').scrollTop = 0;
});
await page.focus('[data-at="0,0"]');
report(
  'frames while an arrow key repeats',
  await frames(async (i) => {
    await page.keyboard.press(i % 40 < 20 ? 'ArrowDown' : 'ArrowRight');
    await wait(33);
  }),
);
await pages.close();
