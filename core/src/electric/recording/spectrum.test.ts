import { removeSound, setMeasured } from '../../edits/sounds.js';
import { islandRun, BALLROOM_ID } from '../../demo/island-run.js';
import { apply } from '../../change/apply.js';
import { all, partOf } from '../../rig/rig.js';
import { bandsApart } from './spectrum.js';

const flat = [-30, -30, -30, -30, -30, -30, -30, -30];

test('a fat sound and a bright one as loud as each other differ by octaves, and say where', () => {
  const fat = [-40, -22, -24, -30, -30, -36, -44, -44];
  expect(bandsApart(fat, flat)).toEqual([
    { fromHz: 63, toHz: 63, db: -10 },
    { fromHz: 125, toHz: 250, db: 7 },
    { fromHz: 2000, toHz: 8000, db: -11.3 },
  ]);
});

test('of two sounds one has more where the other has less, and none against itself', () => {
  const other = [-20, -33, -31, -20, -30, -36, -30, -50];
  const turned = bandsApart(flat, other).map((b) => ({ ...b, db: -b.db }));
  expect(bandsApart(other, flat)).toEqual(turned);
  expect(bandsApart(flat, flat)).toEqual([]);
});

test('a hole measured behind a sound goes with that sound, and the level stays', () => {
  const rig = islandRun();
  const [one, other] = all(rig, 'sound');
  const level = { db: -20, unit: 'LUFS' as const, bands: flat, hole: { after: one!.id, ms: 40 } };
  const measured = apply(rig, setMeasured(other!, BALLROOM_ID, level));
  if (!measured.ok) throw new Error(JSON.stringify(measured.error));
  const without = apply(measured.value.rig, removeSound(measured.value.rig, one!.id));
  if (!without.ok) throw new Error(JSON.stringify(without.error));
  expect(partOf(without.value.rig, other!.id)?.measured).toEqual([
    { hookup: BALLROOM_ID, db: -20, unit: 'LUFS', bands: flat },
  ]);
});
