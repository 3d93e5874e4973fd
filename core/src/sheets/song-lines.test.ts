import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { Random } from '../../testing/random.js';
import { islandRun } from '../demo/island-run.js';
import { addSetList } from '../edits/set-list.js';
import type { Id } from '../rig/ids.js';
import { all, emptyRig, everyPart, newRig, rigOf } from '../rig/rig.js';
import { minutesText } from '../units/minutes.js';
import { readSongLines } from './song-lines.js';
import { addSong } from './song-sheet.js';

const numbered = () => {
  let n = 0;
  return (): `song:${string}` => `song:new-${(n += 1)}`;
};
const read = (text: string, rig = newRig('Songs')) => readSongLines(rig, text, numbered());

test.each([
  ['Salt waltz', { title: 'Salt waltz' }],
  ['3. Salt waltz', { title: 'Salt waltz' }],
  ['12) Salt waltz 132 bpm', { title: 'Salt waltz', bpm: 132 }],
  ['Salt waltz, 132 bpm, 3:32, capo 2, Em', { title: 'Salt waltz', bpm: 132, seconds: 212, capo: 2, key: 'Em' }],
  ['Salt waltz\t4:05\tF# minor', { title: 'Salt waltz', seconds: 245, key: 'F# minor' }],
  ['Salt waltz – 96,5 bpm', { title: 'Salt waltz', bpm: 96.5 }],
  ['Salt waltz 3:32 132 bpm', { title: 'Salt waltz', seconds: 212, bpm: 132 }],
  ['Come in, stay late', { title: 'Come in, stay late' }],
  ['99 lanterns', { title: '99 lanterns' }],
  ['Tide 500 bpm', { title: 'Tide 500 bpm' }],
])('%s', (line, song) =>
  expect(read(line).songs).toEqual([{ kind: 'song', id: 'song:new-1', at: 1, cues: [], ...song }]),
);

test('blank lines are passed over; what cannot be taken is told by its line, the others are kept', () => {
  const demo = islandRun();
  const title = all(demo, 'song')[0]!.title;
  const { songs, refused, edit } = read(`New one\n\n${title}\nAnother\nnew ONE\n\n${'x'.repeat(200)}`, demo);
  expect(songs.map((s) => s.title)).toEqual(['New one', 'Another']);
  expect(refused.map((r) => [r.where, r.wrong])).toEqual([
    ['line 3', `There is a song “${title}” already.`],
    ['line 5', 'There is a song “new ONE” already.'],
    ['line 7', 'The title is too long.'],
  ]);
  expect(all(after(demo, edit), 'song')).toHaveLength(all(demo, 'song').length + 2);
});
test('whatever is written comes back from a line of it', () => {
  const facts = fc.record(
    {
      bpm: fc.integer({ min: 20, max: 400 }),
      seconds: fc.integer({ min: 1, max: 9000 }),
      capo: fc.integer({ min: 1, max: 12 }),
    },
    { requiredKeys: [] },
  );
  fc.assert(
    fc.property(facts, (said) => {
      const line = [
        'Two ferries',
        ...(said.bpm === undefined ? [] : [`${said.bpm} bpm`]),
        ...(said.seconds === undefined ? [] : [minutesText(said.seconds)]),
        ...(said.capo === undefined ? [] : [`capo ${said.capo}`]),
      ].join(', ');
      expect(read(line).songs[0]).toEqual({
        kind: 'song',
        id: 'song:new-1',
        title: 'Two ferries',
        at: 1,
        cues: [],
        ...said,
      });
    }),
  );
});

test('songs and sets stand as they were entered, in whatever order the rig is read again', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9 }), fc.integer(), (count, seed) => {
      const titles = Array.from({ length: count }, (_, i) => `Song ${i}`);
      let rig = emptyRig();
      let n = 0;
      const newId = (): Id<'song'> => `song:${new Random(seed + (n += 1)).int(0, 1e6)}-${n}`;
      rig = after(rig, readSongLines(rig, titles.slice(0, -1).join('\n'), newId).edit);
      rig = after(rig, addSong(rig, newId(), titles.at(-1)!));
      for (const name of ['One', 'Two'])
        rig = after(rig, addSetList(rig, `setList:${name === 'One' ? 'z' : 'a'}`, name));
      const shuffled = [...everyPart(rig)].sort((a, b) => (a.id < b.id ? -1 : 1));
      expect(all(rigOf(shuffled), 'song').map((s) => s.title)).toEqual(titles);
      expect(all(rigOf(shuffled), 'setList').map((s) => s.name)).toEqual(['One', 'Two']);
    }),
    { numRuns: 60 },
  );
});
