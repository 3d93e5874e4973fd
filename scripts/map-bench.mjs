// The map of a rig of forty boxes and ninety cables in Chromium: how long its layout takes in the worker, and how evenly it moves. Part of `npm run bench`.
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
await fetch(`${pages.url}/api/rigs`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id: 'giant', change: randomUUID(), file: writeRigFile(rig) }) });
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
      const note = (now) => (times.push(now), times.length > count ? done(times.slice(1).map((t, i) => t - times[i])) : requestAnimationFrame(note));
      requestAnimationFrame(note);
    });
  }, FRAMES);
  let moving = true;
  const hands = (async () => { for (let i = 0; moving; i += 1) await move(i); })();
  const gaps = (await page.evaluate(() => window.frames60)).sort((a, b) => a - b);
  moving = false;
  await hands;
  return { median: gaps[Math.floor(gaps.length / 2)], most: gaps.at(-1), late: gaps.filter((g) => g > 33.4).length };
};
const report = (name, { median, most, late }) => say(`${name.padEnd(46)} median ${ms(median)}, longest ${ms(most)}, ${late} of ${FRAMES} over 33 ms`);

say(`\nMap: ${rig.parts.device.size} boxes, ${rig.parts.cable.size} cables, in Chromium`);
say(`${'layout in the worker, first time'.padEnd(46)} ${ms(layout[0])}`);
report('frames at rest', await frames(() => wait(50)));
const box = await (await page.$('.react-flow__pane')).boundingBox();
const [x, y] = [box.x + box.width / 2, box.y + box.height - 40];
await page.mouse.move(x, y);
await page.mouse.down();
report('frames while the map is dragged', await frames((i) => page.mouse.move(x + Math.sin(i / 8) * 150, y - Math.abs(Math.cos(i / 8)) * 60)));
await page.mouse.up();
report('frames while the map is zoomed', await frames((i) => page.mouse.wheel({ deltaY: i % 20 < 10 ? -40 : 40 })));
await pages.close();
