import { after } from '../../../testing/after.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../../demo/island-run.js';
import { addSetList, markBefore, setReserve } from '../../edits/set-list.js';
import { setDials } from '../../edits/dial-cards.js';
import { readDials } from '../../dials/knob-words.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import type { Sound } from '../../rig/sound.js';
import { makeDevice } from '../../catalogue/make.js';
import { deriveOnce } from '../steps/deriver.js';
import { SECONDS_BETWEEN } from '../../edits/set-list.js';
import { setSheet } from './set-sheet.js';
import { stageOf } from './stage.js';
import { stompsBetween } from './stomps.js';

const demo = islandRun();
const songs = all(demo, 'song');
const guitars = all(demo, 'device').filter((d) => d.ends?.some((e) => e.is === 'source'));
const [first, second, third] = songs as [Song, Song, Song];
const played = (change: (song: Song, i: number) => Partial<Song>): Rig => {
  const put = songs.slice(0, 3).map(({ seconds: _, ...s }, i) => ({ ...s, ...change(s, i) }));
  return after(
    after(demo, { put, remove: [] }),
    addSetList(demo, 'setList:one', 'One', [first.id, second.id, third.id]),
  );
};
const sheetOf = (rig: Rig) => setSheet(deriveOnce(rig, BALLROOM_ID)!, partOf(rig, 'setList:one')!);
const bare = { tuning: undefined, instrument: undefined } as unknown as Partial<Song>;
const without = ({ tuning: _, instrument: __, ...song }: Song): Song => song;

describe('a set as it is played', () => {
  test('each song begins when the one before is over; behind one of unknown length nobody knows when', () => {
    const { songs: rows, seconds, open } = sheetOf(played((_, i) => (i < 2 ? { seconds: 200 + i } : {})));
    const gap = SECONDS_BETWEEN;
    expect(rows.map((r) => r.at)).toEqual([0, 200 + gap, 401 + 2 * gap]);
    expect([seconds, open]).toEqual([401 + 2 * gap, 1]);
    expect(sheetOf(played(() => ({}))).songs.map((r) => r.at)).toEqual([0, undefined, undefined]);
  });
  test('of two instruments of one name each is told by its code as well', () => {
    const [one, two] = guitars;
    const alike = after(demo, { put: [{ ...two!, name: one!.name }], remove: [] });
    const put = songs.slice(0, 2).map((s, i) => ({ ...s, instrument: (i < 1 ? one : two)!.id }));
    const base = after(alike, { put, remove: [] });
    const rig = after(base, addSetList(base, 'setList:one', 'One', [first.id, second.id]));
    expect(sheetOf(rig).songs[1]!.changes.map((c) => c.text)).toContain(`take the ${one!.name} (${two!.code})`);
  });
  test('another instrument hangs there tuned; another tuning of the same one has to be tuned; a capo comes and goes', () => {
    const [one, two] = guitars;
    const rig = played((_, i) => ({
      ...bare,
      instrument: (i < 1 ? one : two)!.id,
      tuning: ['standard', 'drop D', 'open G'][i]!,
      ...(i === 1 ? { capo: 2 } : {}),
    }));
    const { songs: rows, instruments, retunings } = sheetOf(rig);
    expect(rows.map((r) => r.changes.map((c) => c.text))).toEqual([
      [],
      [`take the ${two!.name}`, 'capo 2'],
      ['retune to open G, 2 strings', 'capo off'],
    ]);
    expect([instruments, retunings]).toEqual([1, 1]);
  });
  test('stomps of a song are its changes and its bank keys', () => {
    const rig = played(() => ({}));
    const bySong = sheetOf(rig).songs.map((r) => [r.stomps, r.bankPresses]);
    const changes = [first, second, third].map((s) => {
      const called = s.cues.flatMap((c) => ('sound' in c.call ? [c.call.sound] : []));
      return called.filter((id, i) => i > 0 && id !== called[i - 1]).length;
    });
    expect(bySong.map(([stomps, keys]) => stomps! - keys!)).toEqual(changes);
  });
  test('the worst of its sounds is told with its name', () => {
    const rows = sheetOf(played(() => ({}))).songs;
    const answers = deriveOnce(demo, BALLROOM_ID)!.answers;
    for (const row of rows) {
      const wrong = partOf(demo, row.song)!.cues.flatMap((c) =>
        'sound' in c.call && answers.get(c.call.sound)!.is === 'broken' ? [partOf(demo, c.call.sound)!.name] : [],
      );
      expect([row.title, row.troubles]).toEqual([row.title, [...new Set(wrong)]]);
    }
  });
});

describe('what a player meets on stage', () => {
  const dialled = (rig: Rig): Rig => {
    const sound = second.cues.flatMap((c) => ('sound' in c.call ? [c.call.sound] : [])).at(-1)!;
    const wide = after(rig, setDials(rig, undefined, {}, readDials('volume 10').stands, '2026-05-01'));
    return after(wide, setDials(wide, undefined, { sound }, readDials('volume 7').stands, '2026-05-01'));
  };
  const rig = dialled(
    after(
      played(() => ({ capo: 3 })),
      markBefore(
        partOf(
          played(() => ({})),
          'setList:one',
        )!,
        second.id,
        'break',
      ),
    ),
  );
  const stage = stageOf(deriveOnce(rig, BALLROOM_ID)!, partOf(rig, 'setList:one')!);
  test('songs in their order, with what is in hand and where the break is', () => {
    expect(stage.songs.map((s) => [s.title, s.comes])).toEqual([
      [first.title, undefined],
      [second.title, 'break'],
      [third.title, undefined],
    ]);
    expect(stage.songs[0]!.facts).toContain('capo 3');
  });
  test('a cue says what to hit; one that sounds already says nothing to hit', () => {
    const [cue] = stage.songs[0]!.cues;
    expect(cue).toMatchObject({ name: first.cues[0]!.name, hit: expect.stringMatching(/^\d+[A-D]$/) as string });
    const again = { ...first, cues: [first.cues[0]!, { ...first.cues[0]!, name: 'again' }] };
    const twice = after(rig, { put: [again], remove: [] });
    const cues = stageOf(deriveOnce(twice, BALLROOM_ID)!, partOf(twice, 'setList:one')!).songs[0]!.cues;
    expect(cues[1]).toMatchObject({ name: 'again', sound: cues[0]!.sound, hands: [], rings: [] });
    expect([cues[1]!.hit, cues[1]!.bank]).toEqual([undefined, undefined]);
  });
  test('what the hand turns at a cue is told there', () => {
    expect(stage.songs[1]!.cues.at(-1)!.hands).toContain("the instrument's volume to 7");
  });
  test('bank keys between two sounds: the shorter way, in words', () => {
    const far = [...demo.parts.sound.values()].find((s) => s.calls[0]!.slot === 13)!;
    const near = [...demo.parts.sound.values()].find((s) => s.calls[0]!.slot === 0)!;
    const cues = [near, far].map((s) => ({ name: s.name, call: { sound: s.id } }));
    const put = after(demo, { put: [{ ...without(first), cues }], remove: [] });
    expect(stageOf(deriveOnce(put, BALLROOM_ID)!, undefined).songs[0]!.cues[1]!.bank).toBe('bank up 3 times');
  });
});

describe('whose foot it is', () => {
  const sounds = [...demo.parts.sound.values()];
  const withCues = (calls: readonly Sound['calls'][]): Rig => {
    const [a, b] = sounds.map((s, i) => ({ ...s, calls: calls[i] ?? s.calls })) as [Sound, Sound];
    const tablet = makeDevice('song-list', 'device:tab');
    const cues = [a, b].map((s) => ({ name: s.name, call: { sound: s.id } }));
    const base = after(demo, { put: [{ ...tablet, at: 90 }, a, b, { ...without(first), cues }], remove: [] });
    return after(base, addSetList(base, 'setList:one', 'One', [first.id]));
  };
  test('what a song list calls asks for no stomp, and nothing to hit is shown', () => {
    const tablet = makeDevice('song-list', 'device:tab');
    const memory = tablet.memories.find((m) => m.by === 'song')!.id;
    const rig = withCues([0, 1].map((slot) => [{ device: 'device:tab', memory, slot }]));
    expect(sheetOf(rig).songs[0]!.stomps).toBe(0);
    const [cue] = stageOf(deriveOnce(rig, BALLROOM_ID)!, undefined).songs[0]!.cues;
    expect(cue!.sound).toBe(sounds[0]!.name);
    expect(cue).not.toHaveProperty('hit');
  });
  test('what is called only in another hook-up is not hit in this one', () => {
    const here = sounds[1]!.calls[0]!;
    const rig = withCues([sounds[0]!.calls, [{ ...here, in: { hookup: FERRY_ID } }]]);
    expect(sheetOf(rig).songs[0]!.stomps).toBe(0);
  });
});

describe('spare songs and sounds in reserve', () => {
  const timed = played(() => ({ seconds: 200 }));
  const list = partOf(timed, 'setList:one')!;
  const spared = after(timed, markBefore(list, third.id, 'spare'));
  test('a spare song is not counted as played, and no song is said to stand before it', () => {
    const { songs: rows, seconds, spare, stomps } = sheetOf(spared);
    expect([seconds, spare]).toEqual([400 + SECONDS_BETWEEN, 1]);
    expect(rows.map((r) => [r.isSpare, r.at !== undefined])).toEqual([
      [false, true],
      [false, true],
      [true, false],
    ]);
    expect(rows[2]!.changes).toEqual([]);
    expect(stomps).toBe(rows[0]!.stomps + rows[1]!.stomps);
  });
  test('a sound in reserve says what to hit, and from where most stomps are needed', () => {
    const far = all(timed, 'sound').find((s) => s.name === 'Storm fuzz')!;
    const rig = after(timed, { put: [setReserve(list, far.id, true)], remove: [] });
    const d = deriveOnce(rig, BALLROOM_ID)!;
    const [reserve] = sheetOf(rig).reserve;
    const heard = [first, second, third].flatMap((s) =>
      s.cues.flatMap(({ call }) => ('sound' in call && call.sound !== far.id ? [partOf(rig, call.sound)!] : [])),
    );
    const stomps = heard.map((from) => {
      const { hits, keys } = stompsBetween(rig, BALLROOM_ID, from, partOf(rig, far.id)!);
      return hits.length + keys;
    });
    expect(reserve).toMatchObject({ name: 'Storm fuzz', hit: '2C', most: Math.max(...stomps) });
    expect(stageOf(d, partOf(rig, 'setList:one')!).reserve).toEqual([{ name: 'Storm fuzz', hit: '2C' }]);
  });
});
