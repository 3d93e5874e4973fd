import fc from 'fast-check';
import { midiRows, midoRead, midoWritten } from '../../testing/outside-midi.js';
import { readScore, TICKS, writeScore, type Score, type ScoreCue, type ScoreSong } from './midi-score.js';

const message = fc.oneof(
  fc.record({ pc: fc.nat(127), channel: fc.integer({ min: 1, max: 16 }) }),
  fc.record({ pc: fc.nat(127), channel: fc.integer({ min: 1, max: 16 }), bank: fc.nat(16_383) }),
  fc.record({
    cc: fc.integer({ min: 1, max: 119 }).filter((n) => n !== 32),
    value: fc.nat(127),
    channel: fc.integer({ min: 1, max: 16 }),
  }),
);
/** Cues a bar or more apart, so that what goes out before one is behind the one before. */
const cues = (bpm: number): fc.Arbitrary<readonly ScoreCue[]> =>
  fc
    .array(
      fc.record({
        text: fc.constantFrom('verse', 'Chorus: Wide', 'solo – länger', '“breathe”', '@'),
        gap: fc.integer({ min: 4 * TICKS, max: 40 * TICKS }),
        messages: fc.array(message, { maxLength: 4 }),
        pauses: fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 4, maxLength: 4 }),
      }),
      { maxLength: 6 },
    )
    .map((list) => {
      let at = 0;
      return list.map(({ text, gap, messages, pauses }, i) => {
        at += i === 0 ? 0 : gap;
        let before = 0;
        const lead = messages.map((_, k) => (before += pauses[k]!)).reverse();
        return {
          text,
          quarters: at / TICKS,
          sends: messages.map((m, k) => ({ msBefore: lead[k]!, port: 'TML midi-out', message: m })),
        };
      });
    })
    .filter((list) => list.every((c) => c.sends.every((s) => (s.msBefore * bpm) / 60_000 < 3.9)));
const song: fc.Arbitrary<ScoreSong> = fc
  .record({
    title: fc.constantFrom('Salt waltz', 'Über den Pier', 'Song: again == x', '3'),
    bpm: fc.integer({ min: 40, max: 240 }),
    metre: fc.constantFrom(
      { beats: 4, unit: 4 } as const,
      { beats: 3, unit: 4 } as const,
      { beats: 6, unit: 8 } as const,
    ),
    seconds: fc.option(fc.integer({ min: 100, max: 600 }), { nil: undefined }),
  })
  .chain(({ seconds, ...s }) => cues(s.bpm).map((c) => ({ ...s, ...(seconds ? { seconds } : {}), cues: c })));
const score: fc.Arbitrary<Score> = fc.record({
  name: fc.constantFrom('The show', 'Été'),
  songs: fc.array(song, { minLength: 1, maxLength: 5 }),
});
const back = (bytes: Uint8Array) => {
  const read = readScore(bytes, 'file');
  if (!read.ok) throw new Error(read.error[0]?.wrong);
  return read.value;
};
const nearly = (s: Score) => ({
  ...s,
  songs: s.songs.map(({ seconds, ...one }) => {
    const last = Math.max(0, ...one.cues.map((c) => c.quarters)) * (60 / one.bpm);
    return {
      ...one,
      ...(seconds !== undefined && seconds >= last ? { seconds } : {}),
      cues: one.cues.map((c) => ({ ...c, sends: c.sends.map(({ message: m, port }) => ({ message: m, port })) })),
    };
  }),
});

test('what is written is read again: songs, tempi, metres, marks, and each message at its cue in its order', () => {
  fc.assert(
    fc.property(score, (s) => expect(nearly(back(writeScore(s)).score)).toEqual(nearly(s))),
    { numRuns: 200 },
  );
});

/** Reference: midicsv, a general-purpose reader of Standard MIDI Files. */
test('midicsv reads a file of type 1, tempo by tempo and message by message at the very tick', () => {
  const one: Score = {
    name: 'Night',
    songs: [
      {
        title: 'Salt waltz',
        bpm: 132,
        metre: { beats: 3, unit: 4 },
        seconds: 60,
        cues: [
          { text: 'verse', quarters: 0, sends: [{ msBefore: 100, port: 'A', message: { pc: 5, channel: 3 } }] },
          { text: 'Ch', quarters: 12, sends: [{ msBefore: 0, port: 'B', message: { pc: 7, channel: 4, bank: 130 } }] },
        ],
      },
    ],
  };
  const rows = midiRows(writeScore(one)).map((r) => r.slice(1));
  const kinds = (what: string) => rows.filter((r) => r[1] === what);
  expect(midiRows(writeScore(one))[0]).toEqual(['0', '0', 'Header', '1', '3', '480']);
  // Two bars of three quarters come first: 2880 ticks. 100 ms at 132 are 105.6 ticks.
  expect(kinds('Tempo')).toEqual([['0', 'Tempo', String(Math.round(60_000_000 / 132))]]);
  expect(kinds('Time_signature')).toEqual([['0', 'Time_signature', '3', '2', '24', '8']]);
  expect(kinds('Marker_t')).toEqual([
    ['2880', 'Marker_t', '"== Salt waltz =="'],
    ['2880', 'Marker_t', '"verse"'],
    [String(2880 + 12 * 480), 'Marker_t', '"Ch"'],
    [String(2880 + 60 * 132 * 8), 'Marker_t', '"-- end --"'],
  ]);
  expect(kinds('Program_c')).toEqual([
    [String(2880 - 106), 'Program_c', '2', '5'],
    [String(2880 + 12 * 480), 'Program_c', '3', '7'],
  ]);
  expect(kinds('Control_c').map((r) => r.slice(1))).toEqual([
    ['Control_c', '3', '0', '1'],
    ['Control_c', '3', '32', '2'],
  ]);
});

/** Reference: mido, a general-purpose MIDI library for Python. */
test('mido hears every message of random sets before its cue, by no less than it says and by at most a few ticks more', () => {
  for (const s of fc.sample(score, { numRuns: 8, seed: 11 })) {
    const { type, events } = midoRead(writeScore(s));
    expect(type).toBe(1);
    const sent = events.filter(
      (e) => e.type === 'program_change' || (e.type === 'control_change' && e.control !== 0 && e.control !== 32),
    );
    const wanted = s.songs.flatMap((one) => one.cues.flatMap((c) => c.sends.map((send) => ({ send, one, c }))));
    expect(sent).toHaveLength(wanted.length);
    const starts = events.filter((e) => e.type === 'marker' && e.text?.startsWith('== '));
    wanted.forEach(({ send, one, c }, i) => {
      const start = starts[s.songs.indexOf(one)]!.seconds;
      const due = start + (c.quarters * 60) / one.bpm - send.msBefore / 1000;
      const early = (due - sent[i]!.seconds) * 1000;
      const tickMs = 60_000 / one.bpm / TICKS;
      // The tempo is kept in whole microseconds: over a thousand quarters that is at most half a millisecond.
      expect(early).toBeGreaterThan(-0.6);
      expect(early).toBeLessThan(c.sends.length * tickMs + 0.6);
    });
  }
});
test('a file that mido wrote is one song: its first tempo, its metre, its marks with what goes out at them', () => {
  const { score: read, notes } = back(midoWritten());
  expect(notes).toEqual(['Pier: its tempo changes on the way; the one at its beginning is taken.']);
  expect(read.songs).toMatchObject([
    {
      title: 'Pier',
      bpm: 90,
      metre: { beats: 3, unit: 4 },
      cues: [
        { text: 'Verse', quarters: 0, sends: [{ message: { pc: 5, channel: 3, bank: 131 } }] },
        { text: 'Out', quarters: 12, sends: [{ message: { cc: 80, value: 127, channel: 5 } }] },
      ],
    },
  ]);
});
test.each([
  ['a text', new TextEncoder().encode('hello'), 'no Standard MIDI File'],
  ['nothing', new Uint8Array(), 'no Standard MIDI File'],
  ['a file that is cut off', Uint8Array.from([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1]), 'cut off'],
  [
    'one that counts frames',
    Uint8Array.from([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 0, 0xe7, 0x28]),
    'counts frames',
  ],
  ['one that is far too large', new Uint8Array(16_000_001), 'At most'],
])('%s is refused in words', (_, bytes, says) => {
  const read = readScore(bytes, 'x');
  expect(read.ok ? 'read' : `${read.error[0]!.wrong} ${read.error[0]!.would}`).toContain(says);
});
