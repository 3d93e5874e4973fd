import { after } from '../../../testing/after.js';
import { PRACTICE } from '../../../testing/practice.js';
import { SMALL } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { writeScore } from '../../formats/midi-score.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { deriveOnce } from '../steps/deriver.js';
import { setScore } from './set-score.js';
import { readSongFile, songsChordPro, songTable } from './song-files.js';
import { wordsLines } from './song-words.js';

const demo = islandRun();
const d = deriveOnce(demo, BALLROOM_ID)!;
const [first, second] = all(demo, 'song') as [Song, Song];
let n = 0;
const newId = (): `song:${string}` => `song:n${(n += 1)}`;
const read = (name: string, content: string | Uint8Array, of = d) =>
  readSongFile(of, name, typeof content === 'string' ? new TextEncoder().encode(content) : content, newId);
const taken = (name: string, content: string | Uint8Array, of = d) => {
  const found = read(name, content, of);
  if (!found.ok) throw new Error(found.error[0]?.wrong);
  return found.value;
};
const without = (rig: Rig): Rig =>
  after(rig, { put: [], remove: [...all(rig, 'setList'), ...all(rig, 'song')].map((p) => p.id) });

test('songs as a table come back as they were but for their words, with their cues, into a rig that has none', () => {
  const guitar = all(demo, 'device').find((x) => x.ends?.some((e) => e.is === 'source'))!;
  const rich = after(demo, {
    put: [
      { ...first, metre: { beats: 6, unit: 8 }, key: 'Em', capo: 2, instrument: guitar.id, notes: 'watch the drummer' },
      { ...second, cues: second.cues.map((c, i) => ({ ...c, at: { bar: 1 + 8 * i, beat: 1 }, hands: ['heel down'] })) },
    ],
    remove: [],
  });
  const text = songTable(rich, all(rich, 'song'));
  const bare = without(rich);
  const { edit, added, refused } = taken('songs.csv', text, deriveOnce(bare, BALLROOM_ID)!);
  expect(refused).toEqual([]);
  expect(added).toEqual(all(rich, 'song').map((s) => s.title));
  const plain = (rig: Rig) => all(rig, 'song').map(({ id: _, words: __, ...rest }) => rest);
  expect(plain(after(bare, edit))).toEqual(plain(rich));
});
test('what a cell cannot say is told by its row, and the rest of the row is taken', () => {
  const { edit, refused, added, changed } = taken(
    'songs.csv',
    `title,bpm,capo,cues\nNew one,999,2,Lead\n,120,,\n${first.title},77,,nobody`,
  );
  expect([added, changed]).toEqual([['New one'], [first.title]]);
  expect(refused.map((r) => r.where)).toEqual([
    expect.stringMatching(/^row 2.*bpm$/),
    'row 3',
    expect.stringMatching(/^row 4.*cues$/),
  ]);
  expect(edit.put).toMatchObject([
    { title: 'New one', capo: 2, cues: [{ name: 'Lead' }] },
    { bpm: 77, cues: first.cues },
  ]);
});
test('ChordPro brings facts and words and leaves cues alone; its own text is what was brought', () => {
  const text = `{title: ${first.title}}\n{tempo: 90}\n\n[G]Rope and\n{x_cue: solo}\ntide\n`;
  const { edit, changed } = taken('rope.cho', text);
  const song = partOf(after(demo, edit), first.id)!;
  expect([changed, song.bpm, song.cues, song.words]).toEqual([
    [first.title],
    90,
    first.cues,
    '[G]Rope and\n▸ solo\ntide',
  ]);
  expect(songsChordPro([song])).toContain('{x_cue: solo}');
});
test('a MIDI file of a show brings its cues', () => {
  const pit = PRACTICE.find((p) => p.file === 'theatre-pit')!.rig;
  const played = deriveOnce(pit, SMALL)!;
  const bytes = writeScore(setScore(played, 'x', all(pit, 'song')).score);
  expect(taken('show.mid', bytes, played)).toMatchObject({ added: [], notes: [], refused: [] });
});
test.each([
  ['songs.csv', 'name,bpm\nx,1', 'No column is called title'],
  ['a.mid', 'hello', 'no Standard MIDI File'],
  ['a.txt', '\u0000\u0001', 'neither a MIDI file nor text'],
  ['a.txt', '  \n', 'nothing in it'],
  ['a.cho', 'x'.repeat(2_000_001), 'too large'],
])('%s %j is refused in words', (name, content, says) => {
  const found = read(name, content.slice(0));
  expect(found.ok ? 'read' : found.error[0]!.wrong).toContain(says);
});

describe('cues beside the words', () => {
  const cues = ['verse', 'chorus', 'verse', 'solo'].map((name) => ({ name }));
  test('a mark belongs to the next line that says something, the second of a name to the second cue of it', () =>
    expect(wordsLines('▸ verse\n\nSalt\n> chorus\nRope\n▸ verse\nTide\n▸ end', cues)).toEqual([
      { text: '', isLabel: false },
      { text: 'Salt', isLabel: false, cue: 0 },
      { text: 'Rope', isLabel: false, cue: 1 },
      { text: 'Tide', isLabel: false, cue: 2 },
      { text: 'end', isLabel: true },
    ]));
  test('a part that is called like a cue marks it, unless a mark does; lines for readers of the file are not shown', () =>
    expect(wordsLines('Chorus:\nOh\nSolo:\n# quiet\n{define: x}\n▸ solo', cues)).toEqual([
      { text: 'Chorus', isLabel: true, cue: 1 },
      { text: 'Oh', isLabel: false },
      { text: 'Solo', isLabel: true },
      { text: '', isLabel: false, cue: 3 },
    ]));
});
