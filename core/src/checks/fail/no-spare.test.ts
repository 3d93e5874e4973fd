import { after } from '../../../testing/after.js';
import { testCheck } from '../../../testing/check-tester.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { addCase, pack } from '../../edits/packing.js';
import { thePart } from '../../rig/rig.js';
import { CHECKS } from '../index.js';

const demo = islandRun();
const bag = after(demo, addCase('packCase:bag', 'Bag'));
const spare = (['hed', 'wls', 'tun', 'vol', 'rev'] as const).reduce(
  (rig, box) =>
    after(rig, pack(thePart(rig, 'packCase:bag'), `Other ${box}`, { device: `device:${box}`, is: 'spare' })),
  bag,
);
const check = CHECKS.find((c) => c.code === 'fail.no-spare')!;

testCheck(check, BALLROOM_ID, [
  { name: 'nothing is packed yet', rig: demo, evidence: [] },
  {
    name: 'one head for every sound',
    rig: bag,
    evidence: ['device:hed'],
    says: 'is in every sound, and no spare of it is packed',
    ways: ['Pack a spare into Bag'],
  },
  { name: 'a spare of each is packed', rig: spare, evidence: [] },
]);
