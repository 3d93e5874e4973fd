import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WaveFile } from 'wavefile';
import { readWav } from '../../formats/wav.js';
import { kWeighting, loudnessOf } from './loudness.js';
import { takesOf, type Recording } from './takes.js';

const sine = (rate: number, seconds: number, hz: number, dbfs: number): Float64Array =>
  Float64Array.from(
    { length: Math.round(rate * seconds) },
    (_, n) => 10 ** (dbfs / 20) * Math.sin((2 * Math.PI * hz * n) / rate),
  );
const joined = (...parts: readonly Float64Array[]): Float64Array => {
  const all = new Float64Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return all;
};
const silence = (rate: number, seconds: number): Float64Array => new Float64Array(Math.round(rate * seconds));
const wavOf = ({ rate, channels }: Recording, depth: string): Uint8Array => {
  const file = new WaveFile();
  const full = depth === '32f' ? 1 : 2 ** (Number(depth) - 1) - 1;
  const samples = channels.map((c) => c.map((x) => (depth === '32f' ? x : Math.round(x * full))));
  file.fromScratch(channels.length, rate, depth, samples as never);
  return file.toBuffer();
};

// Coefficients for 48 kHz as ITU-R BS.1770-4, annex 1, tables 1 and 2, gives them (from memory).
test('the filters at 48 kHz are those of the recommendation', () => {
  const [head, low] = kWeighting(48_000);
  const near = (mine: readonly number[], theirs: readonly number[]) =>
    theirs.forEach((value, i) => expect(mine[i]).toBeCloseTo(value, 9));
  near(head.b, [1.53512485958697, -2.69169618940638, 1.19839281085285]);
  near(head.a, [-1.69065929318241, 0.73248077421585]);
  near(low.b, [1, -2, 1]);
  near(low.a, [-1.99004745483398, 0.99007225036621]);
});

// Test tones of EBU Tech 3341: a stereo sine of 1 kHz at −23 and −33 dBFS reads −23 and −33 LUFS, within 0.1 LU.
test.each([
  [-23, 48_000],
  [-33, 48_000],
  [-23, 44_100],
  [-23, 96_000],
])('a stereo tone of %d dBFS at %d Hz reads as many LUFS', (dbfs, rate) => {
  const tone = sine(rate, 20, 1000, dbfs);
  expect(Math.abs(loudnessOf([tone, tone], rate) - dbfs)).toBeLessThan(0.1);
});
// EBU Tech 3341, case 3: −36 dBFS for 10 s, −23 for 60 s, −36 for 10 s reads −23 LUFS.
test('what is 10 LU softer is not listened to', () => {
  const rate = 48_000;
  const tone = joined(sine(rate, 10, 1000, -36), sine(rate, 60, 1000, -23), sine(rate, 10, 1000, -36));
  expect(Math.abs(loudnessOf([tone, tone], rate) + 23)).toBeLessThan(0.1);
});

// Reference: the ebur128 filter of ffmpeg.
test('random noise and tones: within 0.1 LU of ffmpeg', () => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-wav-'));
  try {
    let seed = 1;
    const random = () => ((seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647) * 2 - 1;
    for (const [rate, hz, level] of [
      [48_000, 82, 0.5],
      [44_100, 330, 0.1],
      [96_000, 2500, 0.3],
    ] as const) {
      const one = Float64Array.from(
        { length: rate * 4 },
        (_, n) =>
          level * (0.5 * Math.sin((2 * Math.PI * hz * n) / rate) + 0.3 * random()) * (n % (rate * 2) < rate ? 1 : 0.4),
      );
      const other = one.map((x) => 0.7 * x);
      const file = join(folder, `${hz}.wav`);
      writeFileSync(file, wavOf({ rate, channels: [one, other] }, '24'));
      const said = spawnSync('ffmpeg', ['-hide_banner', '-nostats', '-i', file, '-af', 'ebur128', '-f', 'null', '-'], {
        encoding: 'utf8',
      }).stderr;
      const theirs = Number(/Integrated loudness:\s+I:\s+(-?[\d.]+) LUFS/.exec(said)?.[1]);
      expect(Math.abs(loudnessOf([one, other], rate) - theirs)).toBeLessThan(0.1);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

describe('sounds of a recording', () => {
  const rate = 48_000;
  test('recorded one after another they are cut apart, each with its loudness, peak, bands', () => {
    const channel = joined(
      silence(rate, 1),
      sine(rate, 3, 250, -20),
      silence(rate, 1.2),
      sine(rate, 2, 2000, -26),
      silence(rate, 0.5),
    );
    const takes = takesOf({ rate, channels: [channel] });
    expect(takes.map((t) => [Math.round(t.from * 10) / 10, Math.round(t.to * 10) / 10])).toEqual([
      [1, 4],
      [5.2, 7.2],
    ]);
    expect(takes[0]!.peak).toBeCloseTo(-20, 1);
    expect(takes[0]!.rms).toBeCloseTo(-23.01, 1);
    for (const [take, hz] of [
      [takes[0]!, 250],
      [takes[1]!, 2000],
    ] as const) {
      const loudest = take.bands.reduce((a, b) => (b.db > a.db ? b : a));
      expect(loudest.hz).toBe(hz);
      expect(loudest.db).toBeCloseTo(take.rms, 0);
    }
  });
  test('a hole of 60 ms that a change tears is told, a pause between notes of the same length at −20 dB is none', () => {
    const [tone, soft] = [sine(rate, 1, 440, -12), sine(rate, 0.06, 440, -32)];
    expect(takesOf({ rate, channels: [joined(tone, silence(rate, 0.06), tone)] })[0]!.holeMs).toBeCloseTo(60, -1);
    expect(takesOf({ rate, channels: [joined(tone, soft, tone)] })[0]!.holeMs).toBe(0);
  });
  test('what is clipped says so, silence has no takes, a click is none', () => {
    const loud = sine(rate, 1, 440, 6).map((x) => Math.max(-1, Math.min(1, x)));
    expect(takesOf({ rate, channels: [loud] })[0]!.atFull).toBeGreaterThan(3);
    expect(takesOf({ rate, channels: [sine(rate, 1, 440, -1)] })[0]!.atFull).toBe(0);
    expect(takesOf({ rate, channels: [silence(rate, 3)] })).toEqual([]);
    expect(takesOf({ rate, channels: [joined(silence(rate, 1), sine(rate, 0.1, 440, -3), silence(rate, 1))] })).toEqual(
      [],
    );
    expect(takesOf({ rate, channels: [] })).toEqual([]);
  });
});

describe('WAV files', () => {
  const voice = sine(48_000, 1, 440, -6);
  test.each(['8', '16', '24', '32', '32f'])('%s bits come back as they went in', (depth) => {
    const read = readWav(
      depth === '8'
        ? (() => {
            const file = new WaveFile();
            file.fromScratch(1, 48_000, '8', [Uint8Array.from(voice, (x) => Math.round(128 + x * 127))] as never);
            return file.toBuffer();
          })()
        : wavOf({ rate: 48_000, channels: [voice, voice] }, depth),
      'a.wav',
    );
    if (!read.ok) throw new Error(read.error[0]!.wrong);
    const [first] = read.value.channels;
    expect([read.value.rate, first!.length]).toEqual([48_000, voice.length]);
    const off = first!.reduce((most, x, i) => Math.max(most, Math.abs(x - voice[i]!)), 0);
    expect(off).toBeLessThan(depth === '8' ? 0.02 : 0.0002);
  });
  test('96 kHz, 24 bit', () => {
    const read = readWav(wavOf({ rate: 96_000, channels: [sine(96_000, 1, 440, -6)] }, '24'), 'a.wav');
    expect(read.ok && read.value.rate).toBe(96_000);
  });
  test.each([
    ['text', new TextEncoder().encode('this is no recording at all, but words')],
    ['nothing', new Uint8Array(0)],
    ['cut off', wavOf({ rate: 48_000, channels: [voice] }, '16').slice(0, 30)],
  ])('%s is refused by name, with what to do', (_, bytes) => {
    const read = readWav(bytes, 'soundcheck.wav');
    expect(read.ok ? '' : read.error[0]).toMatchObject({
      where: 'soundcheck.wav',
      would: expect.stringContaining('WAV'),
    });
  });
  test('midi is no recording either', () =>
    expect(readWav(Uint8Array.from([0x4d, 0x54, 0x68, 0x64]), 'x').ok).toBe(false));
});
