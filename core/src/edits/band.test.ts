import { after } from '../../testing/after.js';
import { islandRun } from '../demo/island-run.js';
import { nightMarketBass } from '../demo/night-market-bass.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import { songsOfBand } from './band.js';

const guitar = islandRun();
const bass = nightMarketBass();
const list = all(guitar, 'setList')[0]!;
let made = 0;
const ids = { song: () => `song:b${(made += 1)}` as const, setList: () => `setList:b${(made += 1)}` as const };
const brought = (rig: Rig, from: Rig = guitar) => songsOfBand(rig, from, all(from, 'setList')[0], ids);
const titles = (rig: Rig, set: string) =>
  all(rig, 'setList')
    .find((l) => l.name === set)!
    .songs.map((id) => partOf(rig, id)!.title);

describe('songs of the band, in the rig of another player', () => {
  const first = brought(bass);
  const rig = after(bass, first.edit);
  test('all songs of the set come in its order, with tempo, bars, breaks; each cue asks for a sound of this rig', () => {
    expect(titles(rig, list.name)).toEqual(titles(guitar, list.name));
    const [song] = all(guitar, 'song');
    const mine = all(rig, 'song').find((s) => s.title === song!.title)!;
    expect([mine.bpm, mine.seconds]).toEqual([song!.bpm, song!.seconds]);
    const parts = song!.cues.filter((c) => 'sound' in c.call);
    expect(mine.cues.map((c) => [c.name, c.at])).toEqual(parts.map((c) => [c.name, c.at]));
    expect(first.open.length).toBeGreaterThan(0);
    const set = all(rig, 'setList').find((l) => l.name === list.name)!;
    expect(set.before!.map((b) => [partOf(rig, b.song)!.title, b.comes])).toEqual(
      list.before!.map((b) => [partOf(guitar, b.song)!.title, b.comes]),
    );
  });

  test('taken over once more, what this player calls stays, and what the band changed comes along', () => {
    const song = all(rig, 'song').find((s) => s.title === all(guitar, 'song')[0]!.title)!;
    const round = all(rig, 'sound')[0]!.id;
    const called = after(rig, {
      put: [{ ...song, tuning: 'drop D', cues: song.cues.map((c) => ({ ...c, call: { sound: round } })) }],
      remove: [],
    });
    const theirs = all(guitar, 'song')[0]!;
    const faster = after(guitar, {
      put: [
        { ...theirs, bpm: 101, cues: theirs.cues.map((c, i) => (i === 1 ? { ...c, at: { bar: 15, beat: 1 } } : c)) },
      ],
      remove: [],
    });
    const again = brought(called, faster);
    const now = partOf(after(called, again.edit), song.id)!;
    expect([now.bpm, now.tuning]).toEqual([101, 'drop D']);
    expect(now.cues.every((c) => 'sound' in c.call && c.call.sound === round)).toBe(true);
    expect(now.cues.some((c) => typeof c.at === 'object' && c.at.bar === 15)).toBe(true);
    expect(again.added).toEqual([]);
    expect(titles(after(called, again.edit), list.name)).toEqual(titles(guitar, list.name));
  });
});
