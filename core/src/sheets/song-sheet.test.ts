import { notGranted } from '../../testing/after.js';
import { apply } from '../change/apply.js';
import type { Edit } from '../change/edit.js';
import { setWant } from '../edits/sounds.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { setDials } from '../edits/dial-cards.js';
import { readDials } from '../dials/knob-words.js';
import { isUsed } from '../derive/views/without.js';
import { songHands } from '../derive/views/songs.js';
import { tempoOf } from '../recall/intend/beats.js';
import { all, partOf, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Song } from '../rig/show.js';
import { addSong, removeSong, songCell, SONG_COLUMNS, typeSongs } from './song-sheet.js';

const rig = islandRun();
const songs = all(rig, 'song');
const at = (id: string) => SONG_COLUMNS.findIndex((c) => c.id === id);
const after = (before: Rig, edit: Edit): Rig => {
  const applied = apply(before, edit);
  if (!applied.ok) throw new Error(JSON.stringify(applied.error));
  return applied.value.rig;
};
const typed = (of: Rig, column: string, text: string, row = 0): Rig => {
  const done = typeSongs(of, all(of, 'song'), [{ row, column: at(column), text }]);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return after(of, done.value);
};

test('what every cell of cues shows can be typed again: the very same cues, with their seconds', () => {
  const timed: Song = {
    ...songs[0]!,
    cues: [
      ...songs[0]!.cues.map((c, i) => ({ ...c, at: 20 * i })),
      { name: 'lift', call: { move: all(rig, 'move')[0]!.id, to: 'off' } },
      { name: 'hush', at: 90, call: { note: 'let it ring' } },
    ],
  };
  const with90 = after(rig, { put: [timed], remove: [] });
  for (const [row, song] of all(with90, 'song').entries()) {
    const { text } = songCell(with90, song, SONG_COLUMNS[at('cues')]!, '');
    expect(partOf(typed(with90, 'cues', text, row), song.id)!.cues).toEqual(song.cues);
  }
});
test('cues are names of sounds in order; a new one among them leaves the others as they were', () => {
  const [first, second] = soundsInOrder(rig);
  const later = typed(
    rig,
    'cues',
    `@1 verse: ${first!.name.toUpperCase()}; break: ${second!.name}; ${first!.name}; + ${all(rig, 'move')[0]!.name}; "breathe"`,
  );
  expect(partOf(later, songs[0]!.id)!.cues).toEqual([
    songs[0]!.cues[0],
    { name: 'break', call: { sound: second!.id } },
    { name: first!.name, call: { sound: first!.id } },
    { name: `+${all(rig, 'move')[0]!.name}`, call: { move: all(rig, 'move')[0]!.id, to: 'on' } },
    { name: 'note', call: { note: 'breathe' } },
  ]);
});
test.each([
  'Verse clean; Lead; Waltz lead',
  'Verse clean, Lead, Waltz lead',
  'Verse clean\nLead\n\nWaltz lead',
  'Verse clean / Lead / Waltz lead',
  ' verse clean ,lead;waltz lead, ',
])('cues are parted as people part them: %j', (text) => {
  const cues = partOf(typed(rig, 'cues', text), songs[0]!.id)!.cues;
  expect(cues.map((c) => 'sound' in c.call && partOf(rig, c.call.sound)!.name)).toEqual([
    'Verse clean',
    'Lead',
    'Waltz lead',
  ]);
});
test('a name with a comma in it counts before the comma does; so does a note in quotes; the last words may name the sound', () => {
  const [first] = soundsInOrder(rig);
  const named = after(rig, { put: [{ ...first!, name: 'Clean, wide' }], remove: [] });
  const cues = (text: string) =>
    partOf(typed(named, 'cues', text), songs[0]!.id)!.cues.map((c) => [c.name, c.call, ...(c.hands ?? [])]);
  expect(cues('Lead, Clean, wide, V lead, "hold; breathe, then go"')).toEqual([
    ['Lead', { sound: soundsInOrder(rig).find((s) => s.name === 'Lead')!.id }],
    ['Clean, wide', { sound: first!.id }],
    ['V', { sound: soundsInOrder(rig).find((s) => s.name === 'Lead')!.id }, 'hold; breathe, then go'],
  ]);
});
test.each([
  ['cues', 'verse: Nobody knows', 'names no sound'],
  ['bpm', 'fast', 'is no tempo'],
  ['bpm', '900', 'is no tempo'],
  ['by hand', 'x', 'follows from the rig'],
])('%s: %s is refused, and all is as before', (column, text, wrong) => {
  expect(
    typeSongs(rig, songs, [
      { row: 0, column: at('tuning'), text: 'drop D' },
      { row: 1, column: at(column), text },
    ]),
  ).toMatchObject({
    ok: false,
    error: [{ wrong: expect.stringContaining(wrong), where: expect.stringContaining(songs[1]!.title) }],
  });
});
test('an instrument is typed by its name or code, and shown by its name', () => {
  const [guitar] = all(rig, 'device').filter((d) => d.ends?.some((e) => e.is === 'source'));
  for (const word of [guitar!.name, guitar!.code.toLowerCase()]) {
    const later = typed(rig, 'instrument', word);
    expect(partOf(later, songs[0]!.id)!.instrument).toBe(guitar!.id);
    expect(songCell(later, partOf(later, songs[0]!.id)!, SONG_COLUMNS[at('instrument')]!, '').text).toBe(guitar!.name);
  }
  expect(
    partOf(typed(typed(rig, 'instrument', guitar!.name), 'instrument', ''), songs[0]!.id)!.instrument,
  ).toBeUndefined();
  expect(typeSongs(rig, songs, [{ row: 0, column: at('instrument'), text: 'triangle' }])).toMatchObject({
    ok: false,
    error: [{ wrong: '"triangle" is no instrument of this rig.' }],
  });
});
test('a tempo that is typed is the tempo of times in beats; taken back, there is none', () => {
  const sound = songs
    .flatMap((s) => s.cues)
    .map((c) => ('sound' in c.call ? c.call.sound : undefined))
    .find((id, _, ids) => ids.filter((x) => x === id).length === 1)!;
  const row = songs.findIndex((s) => s.cues.some((c) => 'sound' in c.call && c.call.sound === sound));
  const later = typed(rig, 'bpm', '120 bpm', row);
  expect(partOf(later, songs[row]!.id)!.bpm).toBe(120);
  expect(tempoOf(later, sound)).toBe(120);
  expect(partOf(typed(later, 'bpm', '', row), songs[row]!.id)!.bpm).toBeUndefined();
});
test('a song is added and taken away; a set list lets go of it', () => {
  const added = after(after(rig, addSong(rig, 'song:new', 'Slack water')), {
    put: [{ kind: 'setList', id: 'setList:one', name: 'Friday', songs: ['song:new', songs[0]!.id] }],
    remove: [],
  });
  expect(partOf(added, 'song:new')).toMatchObject({ title: 'Slack water', cues: [] });
  const gone = after(added, removeSong(added, 'song:new'));
  expect([partOf(gone, 'song:new'), partOf(gone, 'setList:one')!.songs]).toEqual([undefined, [songs[0]!.id]]);
});
test('by hand: at a cue only what stands otherwise from the cue before; the finding counts it song by song', () => {
  expect(songHands(deriveOnce(rig, BALLROOM_ID)!).every((h) => h.text === 'nothing' && h.between === 0)).toBe(true);
  const fuzz = all(rig, 'device').find((d) => d.code === 'OFZ')!;
  const cues = songs[0]!.cues.map((c) => ('sound' in c.call ? c.call.sound : undefined)!);
  const wanting = ['off', 'on', 'on', 'off'].reduce(
    (r, is, i) => after(r, setWant(partOf(r, cues[i]!)!, { control: `${fuzz.id}.on`, is })),
    notGranted(rig, `${fuzz.id}.on`),
  );
  const derived = deriveOnce(wanting, BALLROOM_ID)!;
  const hands = songHands(derived).find((h) => h.song === songs[0]!.id)!;
  expect(hands.between).toBe(2);
  expect(hands.text).toMatch(
    new RegExp(`^at ${songs[0]!.cues[1]!.name}: .*; at ${songs[0]!.cues[3]!.name}: .*; before: `),
  );
  const finding = derived.judgement.findings.find(
    (f) => f.code === 'recall.hand-move' && f.evidence.includes(fuzz.id),
  )!;
  expect(finding.why).toContain(`2 times in “${songs[0]!.title}”`);
});
test('by hand: a knob that a cue has elsewhere is turned there', () => {
  const song = songs[0]!;
  const cues = song.cues.map((c) => ('sound' in c.call ? c.call.sound : undefined)!);
  const low = all(rig, 'device').find((d) => d.code === 'LOW')!.id;
  const heardIn = cues.findIndex((c, i) => i > 0 && c !== cues[0] && isUsed(deriveOnce(rig, BALLROOM_ID)!, c, low));
  const dialled = [
    [{}, 'gain noon'],
    [{ sound: cues[heardIn]! }, "gain 3 o'clock"],
    [{ song: songs[1]!.id }, 'gain 9'],
  ] as const;
  const turned = dialled.reduce(
    (r, [where, line]) => after(r, setDials(r, low, where, readDials(line).stands, '2026-05-01')),
    rig,
  );
  const hands = songHands(deriveOnce(turned, BALLROOM_ID)!).find((h) => h.song === song.id)!;
  expect(hands.text).toContain(`at ${song.cues[heardIn]!.name}: LOW gain to 3 o'clock`);
  expect(hands.between).toBeGreaterThan(0);
});
