import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { makeDevice } from '../catalogue/make.js';
import { islandRun } from '../demo/island-run.js';
import { removeDevice } from '../edits/devices.js';
import { all, partOf, soundsInOrder } from '../rig/rig.js';
import { LOOPER_ACTS, type Cue, type Song } from '../rig/show.js';
import { addCues, carryCue, CUE_COLUMNS, cueCell, nameCue, removeCue, typeCues } from './cue-sheet.js';
import { cueText, readCues, tracksOf } from './cue-words.js';

const rig = after(islandRun(), { put: [makeDevice('looper-station', 'device:loop')], remove: [] });
const sounds = soundsInOrder(rig);
const [move] = all(rig, 'move');
const tracks = tracksOf(rig);
const read = (text: string): readonly Cue[] => {
  const found = readCues(rig, text);
  if ('unread' in found) throw new Error(found.unread.wrong);
  return found.cues;
};
const wrong = (text: string): string => {
  const found = readCues(rig, text);
  return 'unread' in found ? found.unread.wrong : 'read';
};
const idOf = (name: string) => sounds.find((s) => s.name === name)!.id;

describe('cues as people write them', () => {
  test('whatever a cue says, its text says the very same cue', () => {
    const words = fc.constantFrom('verse', 'Chorus 2', 'out', 'last time', 'heel down', 'volume to 7, then up');
    const place = fc.oneof(
      fc.integer({ min: 0, max: 900 }),
      fc.record({ bar: fc.integer({ min: 1, max: 200 }), beat: fc.constantFrom(1, 2, 3.5, 4) }),
    );
    const call = fc.oneof(
      fc.constantFrom(...sounds.map((s) => ({ sound: s.id }))),
      fc.constantFrom({ move: move!.id, to: 'on' as const }, { move: move!.id, to: 'off' as const }),
      fc.record({ track: fc.constantFrom(...tracks), act: fc.constantFrom(...LOOPER_ACTS) }),
      words.map((note) => ({ note })),
    );
    const cue = fc.record(
      {
        name: fc.constantFrom('verse', 'Chorus 2', 'out'),
        at: place,
        call,
        hands: fc.array(words, { minLength: 1, maxLength: 3 }),
      },
      { requiredKeys: ['name', 'call'] },
    );
    fc.assert(
      fc.property(fc.array(cue, { maxLength: 8 }), (cues) =>
        expect(read(cues.map((c) => cueText(rig, c)).join('; '))).toEqual(cues),
      ),
    );
  });
  test('letters for the parts, sounds by a word of their name, bars, and what the hands do', () => {
    expect(read('@1 V clean / @17 Ch: Chorus crunch, heel down / Solo: Lead, hold Lift, let it ring')).toEqual([
      { name: 'Verse clean', at: { bar: 1, beat: 1 }, call: { sound: idOf('Verse clean') } },
      { name: 'Ch', at: { bar: 17, beat: 1 }, call: { sound: idOf('Chorus crunch') }, hands: ['heel down'] },
      { name: 'Solo', call: { sound: idOf('Lead') } },
      { name: `+${move!.name}`, call: { move: move!.id, to: 'on' }, hands: ['let it ring'] },
    ]);
  });
  test('a looper by what is done with which track', () => {
    const [one, two] = tracks;
    expect(read('record 1; overdub LST track 2; loop: play track 1; stop loop 2').map((c) => c.call)).toEqual([
      { track: one, act: 'record' },
      { track: two, act: 'overdub' },
      { track: one, act: 'play' },
      { track: two, act: 'stop' },
    ]);
    expect(wrong('record')).toContain('does not say which track');
    expect(read('record 2; overdub; stop').map((c) => c.call)).toEqual([
      { track: two, act: 'record' },
      { track: two, act: 'overdub' },
      { track: two, act: 'stop' },
    ]);
  });
  test('what fits several sounds is not guessed, and these are named; a place that is none is said to be none', () => {
    expect(wrong('lead')).toBe('read');
    expect(wrong('V: clean')).toMatch(/It could be .*Verse clean.* or /);
    expect(wrong('@12.7 Lead')).toContain('no place in the song');
    expect(wrong('Lead, nonsense')).toContain('"nonsense" names no sound');
    expect(wrong('Lead, chorsu brigth')).toContain('names no sound');
    expect(wrong('Lead, ++Lift now')).toContain('names no sound');
    expect(read('Lead, watch the conductor; Swell').map((c) => c.hands)).toEqual([['watch the conductor'], undefined]);
    expect(wrong('heel down')).toContain('names no sound');
  });
});

describe('the sheet of cues', () => {
  const song: Song = { ...all(rig, 'song')[0]!, cues: read('verse: Verse clean; Lead') };
  const column = (id: string) => CUE_COLUMNS.findIndex((c) => c.id === id);
  const typed = (id: string, text: string, row = 0): Song => {
    const done = typeCues(rig, song, [{ row, column: column(id), text }]);
    if (!done.ok) throw new Error(done.error[0]?.wrong);
    return partOf(after(rig, done.value), song.id)!;
  };
  test('what a cell shows is what was typed', () => {
    for (const [id, text] of [
      ['at', '12.3'],
      ['at', '1:04'],
      ['call', 'Chorus crunch'],
      ['hands', 'heel down; volume to 7'],
    ] as const)
      expect(cueCell(rig, typed(id, text).cues[0]!, CUE_COLUMNS[column(id)]!, '').text).toBe(text);
  });
  test('a cue that was called by its sound is called by the new one; a name of its own stays', () => {
    expect(typed('call', 'Swell', 1).cues[1]!.name).toBe('Quay swell');
    expect(typed('call', 'Swell', 0).cues[0]!.name).toBe('verse');
  });
  test.each([
    ['at', 'soon', 'no place'],
    ['at', '3.9', 'no place'],
    ['call', 'Lead; Swell', 'calls one thing'],
    ['call', 'xyzzy', 'names no sound'],
    ['feet', '2B', 'follows from the rig'],
  ])('%s: %s is refused', (id, text, says) =>
    expect(typeCues(rig, song, [{ row: 0, column: column(id), text }])).toMatchObject({
      ok: false,
      error: [{ wrong: expect.stringContaining(says), where: expect.stringContaining('verse') }],
    }),
  );
  test('cues are added where one is, carried, named and taken away', () => {
    const more = addCues(rig, song, 0, 'Swell; record 1');
    const names = (put: { readonly put: readonly unknown[] }) => (put.put[0] as Song).cues.map((c) => c.name);
    expect(more.ok && names(more.value)).toEqual(['verse', 'Quay swell', 'record LST track 1', 'Lead']);
    expect(names(carryCue(song, 1, -5))).toEqual(['Lead', 'verse']);
    expect(names(nameCue(song, 1, 'solo'))).toEqual(['verse', 'solo']);
    expect(names(removeCue(song, 0))).toEqual(['Lead']);
    expect(addCues(rig, song, 0, 'xyzzy')).toMatchObject({ ok: false });
    const timed = { ...song, cues: [] };
    const added = (to: typeof song, text: string) => {
      const done = addCues(rig, to, to.cues.length - 1, text);
      return done.ok ? (done.value.put[0] as typeof song) : to;
    };
    const late = added(added(timed, '@17 Ch Swell / @33 Solo Swell'), '@1 V Swell / @25 Br Swell / Out Swell');
    expect(late.cues.map((c) => c.name)).toEqual(['V', 'Ch', 'Br', 'Out', 'Solo']);
  });
  test('a looper that is taken away takes its cues along, and a track that is none is refused', () => {
    const looped = { ...song, cues: read('Lead; record 1') };
    const both = after(rig, { put: [looped], remove: [] });
    expect(partOf(after(both, removeDevice(both, 'device:loop')), song.id)!.cues.map((c) => c.name)).toEqual(['Lead']);
    const lost: Song = { ...song, cues: [{ name: 'x', call: { track: 'device:loop.track9', act: 'play' } }] };
    expect(() => after(rig, { put: [lost], remove: [] })).toThrow(/does not have/);
  });
});
