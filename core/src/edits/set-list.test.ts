import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { islandRun } from '../demo/island-run.js';
import type { Id } from '../rig/ids.js';
import { all, partOf } from '../rig/rig.js';
import type { SetList } from '../rig/show.js';
import { removeSong } from '../sheets/song-sheet.js';
import { addSetList, carrySong, markBefore, setSongs } from './set-list.js';

const demo = islandRun();
const songs = all(demo, 'song').map((s) => s.id);
const rig = after(demo, addSetList(demo, 'setList:friday', 'Friday', songs));
const list = partOf(rig, 'setList:friday')!;
const put = ({ put: [part] }: ReturnType<typeof carrySong>): SetList => part as SetList;

describe('a set list', () => {
  test('a song carried anywhere and back is the same list; no song is lost on the way', () => {
    const place = fc.integer({ min: -3, max: songs.length + 3 });
    fc.assert(
      fc.property(fc.nat(songs.length - 1), place, (from, to) => {
        const carried = put(carrySong(list, from, to));
        expect([...carried.songs].sort()).toEqual([...songs].sort());
        expect(put(carrySong(carried, carried.songs.indexOf(songs[from]!), from)).songs).toEqual(songs);
      }),
    );
    expect(put(carrySong(list, 99, 0))).toEqual(list);
  });
  test('a break goes with its song, is taken away again, and does not outlive it', () => {
    const marked = put(markBefore(list, songs[3]!, 'break'));
    expect(marked.before).toEqual([{ song: songs[3], comes: 'break' }]);
    expect(put(carrySong(marked, 3, 0)).before).toEqual(marked.before);
    expect(put(markBefore(marked, songs[3]!, 'encore')).before).toEqual([{ song: songs[3], comes: 'encore' }]);
    expect(put(markBefore(marked, songs[3]!, undefined))).not.toHaveProperty('before');
    expect(put(setSongs(marked, songs.slice(0, 2)))).not.toHaveProperty('before');
  });
  test('a song that is removed leaves the list and its mark', () => {
    const marked = after(rig, markBefore(list, songs[1]!, 'encore'));
    const gone = after(marked, removeSong(marked, songs[1]!));
    expect(partOf(gone, 'setList:friday')).toEqual({
      kind: 'setList',
      id: 'setList:friday',
      name: 'Friday',
      at: list.at,
      songs: songs.filter((s: Id<'song'>) => s !== songs[1]),
    });
  });
});
