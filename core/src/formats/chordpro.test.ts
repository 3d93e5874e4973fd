import ChordSheetJS from 'chordsheetjs';
import fc from 'fast-check';
import { readChordPro, writeChordPro, type SongText } from './chordpro.js';

const line = fc.constantFrom(
  '[Em]Salt on the [C]tide',
  'nobody waits',
  '▸ solo',
  'Chorus:',
  '',
  '   indented words',
  '{define: Em7 base-fret 1 frets 0 2 0 0 0 0}',
  '# a remark',
);
const song: fc.Arbitrary<SongText> = fc
  .record(
    {
      title: fc.constantFrom('Salt waltz', 'Über den Pier', '3. Tin roof'),
      bpm: fc.integer({ min: 20, max: 400 }),
      metre: fc.constantFrom({ beats: 3, unit: 4 } as const, { beats: 6, unit: 8 } as const),
      key: fc.constantFrom('Em', 'C#', 'B♭'),
      capo: fc.integer({ min: 1, max: 12 }),
      seconds: fc.integer({ min: 1, max: 3600 }),
      words: fc
        .array(line, { minLength: 1, maxLength: 12 })
        .map((l) =>
          l
            .join('\n')
            .replace(/\n{3,}/g, '\n\n')
            .replace(/^\n+|\s+$/g, ''),
        )
        .filter(Boolean),
    },
    { requiredKeys: ['title'] },
  )
  .map((s) => s as SongText);

test('what is written is read again, several songs in one file too', () => {
  fc.assert(
    fc.property(fc.array(song, { minLength: 1, maxLength: 4 }), (songs) => {
      const read = readChordPro(songs.map(writeChordPro).join('{new_song}\n'), 'file');
      expect(read).toEqual({ songs, refused: [] });
    }),
  );
});

/** Reference: chordsheetjs, a general-purpose reader and writer of ChordPro. */
describe('beside another reader and writer', () => {
  const words = 'Verse:\n[Em]Salt on the [C]tide\nnobody waits\n\nChorus:\n[G]Rope and [D]bell\n▸ solo';
  const one: SongText = {
    title: 'Salt waltz',
    key: 'Em',
    bpm: 132,
    metre: { beats: 3, unit: 4 },
    seconds: 212,
    capo: 2,
    words,
  };
  test('it reads what is written here', () => {
    const theirs = new ChordSheetJS.ChordProParser().parse(writeChordPro(one));
    expect([
      theirs.title,
      theirs.key?.toString(),
      theirs.tempo,
      theirs.time,
      theirs.duration,
      String(theirs.capo),
    ]).toEqual(['Salt waltz', 'Em', '132', '3/4', '3:32', '2']);
    const text = new ChordSheetJS.TextFormatter().format(theirs);
    for (const part of ['Verse', 'Salt on the tide', 'nobody waits', 'Chorus', 'Rope and bell'])
      expect(text.replace(/ +/g, ' ')).toContain(part);
    const chords = theirs.lines.flatMap((l) =>
      l.items.flatMap((i) => (i instanceof ChordSheetJS.ChordLyricsPair && i.chords ? [i.chords] : [])),
    );
    expect(chords).toEqual(['Em', 'C', 'G', 'D']);
  });
  test('what it writes is read here, facts, words, chords, parts and marks', () => {
    const theirs = new ChordSheetJS.ChordProParser().parse(writeChordPro(one));
    const { songs, refused } = readChordPro(new ChordSheetJS.ChordProFormatter().format(theirs), 'file');
    expect(refused).toEqual([]);
    expect(songs).toEqual([one]);
  });
});

test('parts of a song become labels; a file without a title is called by its name', () => {
  const { songs } = readChordPro('{soc}\nOh\n{eoc}\n{sov: label="Last verse"}\nWell\n{ns}\n{t: Two}\nx', 'Old ballast');
  expect(songs).toEqual([
    { title: 'Old ballast', words: 'Chorus:\nOh\n\nLast verse:\nWell' },
    { title: 'Two', words: 'x' },
  ]);
});
test.each([
  ['{title: Tide', 'line 1', 'does not end'],
  ['{t: A}\n{tempo: 0}', 'line 2', 'cannot be taken as tempo'],
  ['{t: A}\n{tempo: 999}', 'line 2', 'cannot be taken as tempo'],
  ['{t: A}\nx\n{meta: time five}', 'line 3', 'cannot be taken as time'],
  ['{capo: 99}', 'line 1', 'cannot be taken as capo'],
  ['{duration: soon}', 'line 1', 'cannot be taken as duration'],
  ['{title:}', 'line 1', 'says nothing'],
])('%j: told by its line, and all else is kept', (text, where, wrong) => {
  const { songs, refused } = readChordPro(`${text}\n[G]Words`, 'file');
  expect(refused).toMatchObject([{ where, wrong: expect.stringContaining(wrong) }]);
  expect(songs[0]!.words).toContain('[G]Words');
});
test('any text whatever is read without failing, and its words are there', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 300 }), (text) => {
      const { songs } = readChordPro(text, 'file');
      expect(songs.every((s) => s.title.length > 0)).toBe(true);
    }),
  );
});
