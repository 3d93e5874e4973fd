import fc from 'fast-check';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  LARGEST_CAPTURE,
  readCapture,
  readHexText,
  readingCapture,
  type Captured,
  writeHexText,
  writeMidiFile,
} from './capture.js';

const folder = mkdtempSync(join(tmpdir(), 'yunta-midi-'));
const message = fc.oneof(
  fc.record({
    status: fc.constant(0xc),
    channel: fc.integer({ min: 1, max: 16 }),
    data: fc.tuple(fc.integer({ min: 0, max: 127 })),
  }),
  fc.record({
    status: fc.constantFrom(0xb, 0x9),
    channel: fc.integer({ min: 1, max: 16 }),
    data: fc.tuple(fc.integer({ min: 0, max: 127 }), fc.integer({ min: 1, max: 127 })),
  }),
);
const inTime = (
  list: readonly { readonly status: number; readonly channel: number; readonly data: readonly number[] }[],
): readonly Captured[] => list.map((m, i) => ({ ...m, ms: i * 12.5 }));
const messages = fc.array(message, { minLength: 1, maxLength: 60 }).map(inTime);
const plain = (m: Captured) => [m.status, m.channel, ...m.data];

describe('captures', () => {
  test('what is written as a MIDI file or as text is read as the same', () => {
    fc.assert(
      fc.property(messages, (list) => {
        for (const read of [readCapture(writeMidiFile(list)), readHexText(writeHexText(list))]) {
          expect(read.ok && read.value.messages.map(plain)).toEqual(list.map(plain));
          if (read.ok) read.value.messages.forEach((m, i) => expect(m.ms).toBeCloseTo(list[i]!.ms!, 3));
        }
      }),
      { numRuns: 100 },
    );
  });
});

/** Reference: midicsv, a general-purpose reader of Standard MIDI Files. */
const csvOf = (bytes: Uint8Array) => {
  const file = join(folder, 'm.mid');
  writeFileSync(file, bytes);
  return spawnSync('midicsv', [file], { encoding: 'utf8' });
};
/** Debian's own, which has Debian's packages. */
const PYTHON = '/usr/bin/python3';
const isThere = (program: string, args: readonly string[]) =>
  spawnSync(program, args, { encoding: 'utf8' }).status === 0;

(spawnSync('midicsv', ['-u']).error ? test.skip : test)(
  'midicsv reads the very same messages at the same moments',
  () => {
    fc.assert(
      fc.property(messages, (list) => {
        const { stdout, status } = csvOf(writeMidiFile(list));
        expect(status).toBe(0);
        const names: Readonly<Record<number, string>> = { 0xc: 'Program_c', 0xb: 'Control_c', 0x9: 'Note_on_c' };
        const rows = stdout
          .split('\n')
          .map((l) => l.split(', '))
          .filter((r) => Object.values(names).includes(r[2]!));
        expect(rows.map((r) => [Number(r[1]), r[2], ...r.slice(3).map(Number)])).toEqual(
          list.map((m) => [Math.round(m.ms! * 10), names[m.status], m.channel - 1, ...m.data]),
        );
      }),
      { numRuns: 25 },
    );
  },
);

/** Reference: mido, a general-purpose MIDI library for Python; it reads the bytes on its own. */
(isThere(PYTHON, ['-c', 'import mido']) ? test : test.skip)(
  'ten thousand messages as bytes are read by mido as they were meant',
  () => {
    const random = fc.sample(message, { numRuns: 10_000, seed: 7 });
    const bytes = random.flatMap((m) => [(m.status << 4) | (m.channel - 1), ...m.data]);
    const script =
      'import sys,json,mido\np=mido.Parser()\np.feed(json.load(sys.stdin))\nprint(json.dumps([[m.type,m.channel]+([m.program] if m.type=="program_change" else [m.control,m.value] if m.type=="control_change" else [m.note,m.velocity]) for m in p]))';
    const read = JSON.parse(
      spawnSync(PYTHON, ['-c', script], { input: JSON.stringify(bytes), encoding: 'utf8', maxBuffer: 1e9 }).stdout,
    ) as unknown[];
    const names: Readonly<Record<number, string>> = { 0xc: 'program_change', 0xb: 'control_change', 0x9: 'note_on' };
    expect(read).toEqual(random.map((m) => [names[m.status], m.channel - 1, ...m.data]));
  },
);

test('a long capture is read in pieces that tell how far they are, and comes to the same', () => {
  const bytes = new TextEncoder().encode(
    Array.from(
      { length: 35_000 },
      (_, i) => `${(i / 1000).toFixed(3)}  C2 ${(i % 128).toString(16).padStart(2, '0')}`,
    ).join('\n'),
  );
  const told: number[] = [];
  const pieces = readingCapture(bytes);
  let piece = pieces.next();
  for (; !piece.done; piece = pieces.next()) told.push(piece.value);
  expect(told).toHaveLength(3);
  for (const [i, share] of told.entries()) expect([share > (told[i - 1] ?? 0), share < 1]).toEqual([true, true]);
  expect(piece.value).toEqual(readCapture(bytes));
  expect(piece.value.ok && piece.value.value.messages.length).toBe(35_000);
});

test('a capture that is too large is refused with its size, unread', () => {
  const read = readCapture(new Uint8Array(LARGEST_CAPTURE + 1));
  expect(read.ok ? '' : read.error[0]!.wrong).toContain('16,000,001 bytes');
});
