import { PRACTICE } from '../../../testing/practice.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { feeds } from '../../electric/supply.js';
import { all, cablesOf, thePart } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { BUILD_LAYERS, buildOrder } from './build-order.js';

const demo = deriveOnce(islandRun(), BALLROOM_ID)!;
const steps = buildOrder(demo);
const of = (group: (typeof BUILD_LAYERS)[number]) => steps.filter((s) => s.group === group);

test('the layers stand in their order, and no step says the same as another', () => {
  const places = steps.map((s) => BUILD_LAYERS.indexOf(s.group));
  expect(places).toEqual([...places].sort((a, b) => a - b));
  expect(new Set(places).size).toBe(BUILD_LAYERS.length);
  expect(new Set(steps.map((s) => s.text)).size).toBe(steps.length);
});

test('every box that is fed is listened to once, along the signal; the valve amp has its load first', () => {
  const fed = new Set(feeds(demo.rig, demo.hookup).flatMap((f) => (f.given ? [f.need.device] : [])));
  const [amp, ...boxes] = of('Power on, one box at a time, and listen').map((s) => s.text);
  expect(amp).toBe('Two-channel valve head 50 W: loudspeaker or load plugged, still on standby');
  expect(boxes).toHaveLength(fed.size);
  const names = ['Compressor', 'Gate', 'Stereo modulation', 'Stereo reverb', 'Stereo delay'].filter((n) =>
    boxes.includes(n),
  );
  expect(boxes.filter((b) => names.includes(b))).toEqual(names);
});

test('law: every lead of every rig is on the list, mains with a caution', () => {
  for (const rig of [...DEMO_RIGS.map((d) => d.make()), ...PRACTICE.map((p) => p.rig)])
    for (const { id } of all(rig, 'hookup')) {
      const d = deriveOnce(rig, id)!;
      const wiring = buildOrder(d).filter((s) => s.group === 'Rough wiring');
      const cables = cablesOf(rig, thePart(rig, id).id);
      expect(wiring.length).toBeLessThanOrEqual(cables.length);
      for (const { text, should } of wiring) expect(`${text} ${should}`).not.toMatch(/undefined|device:|NaN/);
    }
});
