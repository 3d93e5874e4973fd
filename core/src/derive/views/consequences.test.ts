import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { replaceDevice } from '../../edits/replace.js';
import { partOf } from '../../rig/rig.js';
import { consequences } from './consequences.js';
import { deriveOnce } from '../steps/deriver.js';

const now = deriveOnce(islandRun(), BALLROOM_ID)!;
const swap = (id: `device:${string}`, key: string) => consequences(now, replaceDevice(now.rig, id, key)!.edit);

describe('what an edit would bring', () => {
  test('a drive of the same kind: nothing', () =>
    expect(swap('device:low', 'high-drive')).toEqual({ verdicts: [], brings: [], clears: [] }));
  test('another delay, which is set by its message: the sound with the toggle is proved', () => {
    const { verdicts, clears } = swap('device:dly', 'delay-reverb');
    expect(verdicts).toEqual([{ sound: 'sound:03', name: 'Chorus wide', before: 'broken', after: 'proved' }]);
    expect(clears.join(' ')).toContain('answers only to a message that turns it over');
  });
  test('a cabinet in the place of the amp: every sound loses its way, and says so', () => {
    const { brings } = swap('device:hed', 'cab-112');
    expect(brings.join(' ')).toContain('is not heard at Front of house');
  });
  test('the rig itself stays as it is', () => {
    const before = partOf(now.rig, 'device:low');
    swap('device:low', 'fuzz');
    expect(partOf(now.rig, 'device:low')).toBe(before);
  });
  test('an edit that cannot be made says why', () => {
    expect(consequences(now, { put: [], remove: ['device:low'] }).refused).toMatch(/needs device:low/);
  });
});
