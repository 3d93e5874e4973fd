import { after } from '../../testing/after.js';
import { apply } from '../change/apply.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { all, partOf } from '../rig/rig.js';
import {
  addEngagement,
  keepBanks,
  listsOf,
  playFor,
  removeEngagement,
  songsOfEngagement,
  soundsOfEngagement,
  wireBy,
} from './engagements.js';
import { removeDevice } from './devices.js';
import { removeHookup } from './hookups.js';
import { setReserve } from './set-list.js';
import { removeSound } from './sounds.js';

const demo = islandRun();
const list = all(demo, 'setList')[0]!;
const ACT = 'engagement:deck';
const SLOTS = { device: 'device:swi', memory: 'slots' } as const;
const made = [
  addEngagement(ACT, 'Ferry deck'),
  wireBy(addEngagement(ACT, 'Ferry deck').put[0], BALLROOM_ID),
  playFor(list, ACT),
].reduce(after, demo);
const act = partOf(made, ACT)!;
const banked = after(made, keepBanks(act, SLOTS, { from: 0, to: 3 }));

describe('an act', () => {
  test('has the songs and sounds of its sets, and what they have in reserve', () => {
    const songs = songsOfEngagement(made, ACT);
    expect(songs.map((s) => s.id)).toEqual([...list.songs]);
    const fuzz = all(made, 'sound').find((s) => s.name === 'Storm fuzz')!;
    const [ofSongs, withReserve] = [
      soundsOfEngagement(made, ACT),
      soundsOfEngagement(after(made, { put: [setReserve(partOf(made, list.id)!, fuzz.id, true)], remove: [] }), ACT),
    ];
    expect(withReserve.size - ofSongs.size).toBe(ofSongs.has(fuzz.id) ? 0 : 1);
    expect(withReserve.has(fuzz.id)).toBe(true);
  });

  test('keeps banks that the box has, and gives them back', () => {
    expect(partOf(banked, ACT)!.banks).toEqual([{ ...SLOTS, from: 0, to: 3 }]);
    expect(partOf(after(banked, keepBanks(partOf(banked, ACT)!, SLOTS, undefined)), ACT)).not.toHaveProperty('banks');
    const tooFar = apply(made, keepBanks(act, SLOTS, { from: 0, to: 32 }));
    expect(tooFar.ok).toBe(false);
    expect(apply(made, keepBanks(act, SLOTS, { from: 3, to: 2 })).ok).toBe(false);
  });

  test('goes on without a hook-up, a box or a sound that is taken away', () => {
    expect(partOf(after(banked, removeHookup(banked, BALLROOM_ID)), ACT)).not.toHaveProperty('hookup');
    expect(partOf(after(banked, removeDevice(banked, 'device:swi')), ACT)!.banks).toEqual([]);
    const sound = all(banked, 'sound')[0]!.id;
    const kept = after(banked, { put: [setReserve(partOf(banked, list.id)!, sound, true)], remove: [] });
    expect(partOf(after(kept, removeSound(kept, sound)), list.id)).not.toHaveProperty('reserve');
  });

  test('taken away, it leaves its sets and songs', () => {
    const gone = after(banked, removeEngagement(banked, ACT));
    expect(listsOf(gone, ACT)).toEqual([]);
    expect(partOf(gone, list.id)).toEqual(list);
    expect(all(gone, 'song')).toEqual(all(demo, 'song'));
  });
});
