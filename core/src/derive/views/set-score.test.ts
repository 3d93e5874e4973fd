import { after } from '../../../testing/after.js';
import { midiRows, midoWritten } from '../../../testing/outside-midi.js';
import { PRACTICE } from '../../../testing/practice.js';
import { SMALL } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { readScore, TICKS, writeScore } from '../../formats/midi-score.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { BYTE_US } from '../../units/amounts.js';
import { placeSeconds, COMMON_TIME } from '../../units/metre.js';
import { deriveOnce } from '../steps/deriver.js';
import { songsOfScore } from './score-songs.js';
import { setScore } from './set-score.js';
import { stageOf } from './stage.js';
import { withoutLists } from './without-lists.js';

const pit = PRACTICE.find((p) => p.file === 'theatre-pit')!.rig;
const d = deriveOnce(pit, SMALL)!;
const songs = all(pit, 'song');
const show = setScore(d, 'The show', songs);
const bytes = writeScore(show.score);
const newId = (): `song:${string}` => 'song:new';
const back = (of: Uint8Array, rig: Rig = pit) => {
  const read = readScore(of, 'file');
  if (!read.ok) throw new Error(read.error[0]?.wrong);
  return songsOfScore(rig === pit ? d : deriveOnce(rig, SMALL)!, read.value.score, newId);
};

describe('a show that a computer plays', () => {
  test('nothing is left to a foot, nothing has no place, nothing comes too soon', () =>
    expect([show.stomped, show.byHand, show.straightTo, show.placeless, show.tempoless, show.hasty]).toEqual([
      [],
      [],
      [],
      [],
      [],
      [],
    ]));

  /** Reference: midicsv; the wire by the MIDI 1.0 specification, 320 µs a byte; load gaps as the boxes say them. */
  test('read by midicsv: every box has loaded by the downbeat of every cue, and no message goes out needlessly early', () => {
    const rows = midiRows(bytes);
    const tempi = rows.filter((r) => r[2] === 'Tempo').map((r) => [Number(r[1]), Number(r[3])] as const);
    const ms = (tick: number): number => {
      let [at, last, us] = [0, 0, 500_000];
      for (const [t, next] of tempi) {
        if (t > tick) break;
        at += ((t - last) * us) / TICKS / 1000;
        [last, us] = [t, next];
      }
      return at + ((tick - last) * us) / TICKS / 1000;
    };
    const isSong = (text: string) => text.startsWith('"== ');
    const marks = rows.filter((r) => r[2] === 'Marker_t' && r[3] !== '"-- end --"');
    const starts = marks.filter((r) => isSong(r[3]!)).map((r) => ms(Number(r[1])));
    // Where each cue should be, by the songs themselves.
    const due = songs.flatMap((s, i) =>
      s.cues.map((c) => starts[i]! + 1000 * placeSeconds(c.at!, s.bpm, s.metre ?? COMMON_TIME)!),
    );
    const said = marks.filter((r) => !isSong(r[3]!)).map((r) => ms(Number(r[1])));
    said.forEach((at, i) => expect(Math.abs(at - due[i]!)).toBeLessThan(2));
    const gaps: Readonly<Record<string, number>> = {
      '4': partOf(pit, 'device:pre')!.memories[0]!.gapMs,
      '2': partOf(pit, 'device:dly')!.memories[0]!.gapMs,
    };
    const sent = rows.filter((r) => r[2] === 'Program_c' || r[2] === 'Control_c');
    expect(sent.length).toBeGreaterThan(3 * due.length);
    for (const row of sent) {
      const at = ms(Number(row[1]));
      const cue = said.find((c) => c >= at)!;
      const wire = ((row[2] === 'Program_c' ? 2 : 3) * BYTE_US) / 1000;
      const loads = row[2] === 'Program_c' ? gaps[row[3]!]! : 0;
      expect(at + wire + loads).toBeLessThanOrEqual(cue);
      expect(cue - at).toBeLessThan(200);
    }
    // A box that loads hears nothing: what follows for it waits.
    for (const [i, row] of sent.entries()) {
      if (row[2] !== 'Program_c') continue;
      const next = sent.slice(i + 1).find((r) => r[3] === row[3])!;
      if (next?.[2] !== 'Control_c') continue;
      expect(ms(Number(next[1])) - ms(Number(row[1]))).toBeGreaterThanOrEqual(gaps[row[3]!]! - 1e-6);
    }
  });
  test('the file brings back the very same songs, into a rig that lost their cues and into one that has none of them', () => {
    const bare = after(pit, { put: songs.map((s) => ({ ...s, cues: [] })), remove: [] });
    const again = back(bytes, bare);
    expect([again.added, again.changed.length, again.open]).toEqual([[], songs.length, []]);
    const cues = (rig: Rig) => all(rig, 'song').map((s) => [s.title, s.bpm, s.metre, s.cues]);
    expect(cues(after(bare, again.edit))).toEqual(cues(pit));
    let n = 0;
    const none = after(pit, { put: [], remove: ['setList:show', ...songs.map((s) => s.id)] });
    const read = readScore(bytes, 'file');
    const all18 = songsOfScore(
      deriveOnce(none, SMALL)!,
      read.ok ? read.value.score : { name: '', songs: [] },
      () => `song:n${(n += 1)}`,
    );
    expect(all18.added).toEqual(songs.map((s) => s.title));
    expect(cues(after(none, all18.edit))).toEqual(cues(pit));
  });
  test('where marks say nothing, the messages tell which sound is called; words for hands stay', () => {
    const mute = {
      ...show.score,
      songs: show.score.songs.map((s) => ({ ...s, cues: s.cues.map((c, i) => ({ ...c, text: `cue ${i + 1}` })) })),
    };
    const first = songs[0]!;
    const worded: Song = {
      ...first,
      cues: first.cues.map((c, i) => ({ ...c, name: `cue ${i + 1}`, hands: ['breathe'] })),
    };
    const rig = after(pit, { put: [worded], remove: [] });
    const after1 = after(rig, back(writeScore(mute), rig).edit);
    expect(all(after1, 'song').map((s) => s.cues.map((c) => c.call))).toEqual(
      songs.map((s) => s.cues.map((c) => c.call)),
    );
    expect(partOf(after1, first.id)!.cues).toEqual(worded.cues);
  });
  test('what calls no sound of the rig stays as a note and is told', () => {
    const { edit, added, open } = back(midoWritten());
    expect(added).toEqual(['Pier']);
    expect(open).toEqual([
      ['Pier', 'Verse'],
      ['Pier', 'Out'],
    ]);
    expect(edit.put).toMatchObject([
      { bpm: 90, metre: { beats: 3, unit: 4 }, cues: [{ call: { note: 'Verse' } }, {}] },
    ]);
  });
});

test('a set that a foot plays says which sounds are stomped; cues without a place are left out and told', () => {
  const demo = islandRun();
  const [song] = all(demo, 'song');
  const played = deriveOnce(demo, BALLROOM_ID)!;
  const called = song!.cues.flatMap((c) => ('sound' in c.call ? [partOf(demo, c.call.sound)!.name] : []));
  const placed = setScore(played, 'Night', [song!]);
  expect([placed.placeless, placed.stomped]).toEqual([[], called]);
  expect(placed.score.songs[0]!.cues.flatMap((c) => c.sends)).toEqual([]);
  const bare = setScore(played, 'Night', [{ ...song!, cues: song!.cues.map(({ at: _, ...c }) => c) }]);
  expect(bare.placeless.map(([, cue]) => cue)).toEqual(song!.cues.slice(1).map((c) => c.name));
  expect(bare.score.songs[0]!.cues.map((c) => c.quarters)).toEqual([0]);
});
test('program changes that go straight to a box, and moves, are told: no lead of the rig carries them', () => {
  const modeller = PRACTICE.find((p) => p.file === 'modeller-alone')!.rig;
  const sound = all(modeller, 'sound')[0]!;
  const song: Song = {
    kind: 'song',
    id: 'song:x',
    title: 'X',
    bpm: 100,
    cues: [{ name: 'v', at: { bar: 1, beat: 1 }, call: { sound: sound.id } }],
  };
  const score = setScore(deriveOnce(after(modeller, { put: [song], remove: [] }), SMALL)!, 'X', [song]);
  expect([score.straightTo, score.stomped]).toEqual([['M'], []]);
  const demo = islandRun();
  const gangway = all(demo, 'song').find((s) => s.title === 'Gangway')!;
  expect(setScore(deriveOnce(demo, BALLROOM_ID)!, 'X', [gangway]).stomped).toEqual(
    expect.arrayContaining(['+Lift', '−Lift']),
  );
});
test('cues that come before the boxes have loaded the one before are told', () => {
  const [song] = songs;
  const hasty: Song = { ...song!, cues: song!.cues.map((c, i) => ({ ...c, at: { bar: 1, beat: 1 + i * 0.1 } })) };
  expect(setScore(d, 'x', [hasty]).hasty.map(([, cue]) => cue)).toEqual(hasty.cues.slice(1).map((c) => c.name));
});

describe('when the computer stops', () => {
  test('each cue says what to stomp on the boxes themselves; with it, nothing is stomped and the messages are at hand', () => {
    const list = partOf(pit, 'setList:show')!;
    const playing = stageOf(d, list);
    expect(playing.isListed).toBe(true);
    const cues = playing.songs.flatMap((s) => s.cues);
    expect(cues.flatMap((c) => [c.hit, c.bank, ...c.hands].filter(Boolean))).toEqual([]);
    expect(cues[0]!.sends!.map((s) => s.bytes).slice(0, 2)).toEqual([
      [0xc4, 0],
      [0xc2, 0],
    ]);
    const stopped = stageOf(deriveOnce(withoutLists(pit)!, SMALL)!, list);
    expect(stopped.isListed).toBe(false);
    const storm = stopped.songs[6]!;
    expect([storm.title, storm.cues[1]!.hands]).toEqual(['7. Storm', ['DLY on', 'DLY program 3', 'PRE program 2B']]);
  });
  test('a rig that no list calls is the same without one', () => expect(withoutLists(islandRun())).toBeUndefined());
});
