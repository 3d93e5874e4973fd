import fc from 'fast-check';
import { after } from '../../../testing/after.js';
import { PRACTICE } from '../../../testing/practice.js';
import { SMALL } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import type { Id } from '../../rig/ids.js';
import { readCues } from '../../sheets/cue-words.js';
import { deriveOnce } from '../steps/deriver.js';
import { danceOf, danceOfSet } from './dance.js';
import { drillOf, type Drill } from './drill.js';
import { DAYS_UNTIL_DUE, dueFirst, practisedAfter, scoreDrill, type DrillHit } from './drill-score.js';

const demo = islandRun();
const d = deriveOnce(demo, BALLROOM_ID)!;
const songs = all(demo, 'song');
const titled = (title: string): Song => songs.find((s) => s.title === title)!;
const cuesOf = (rig: Rig, text: string): readonly Cue[] => {
  const read = readCues(rig, text);
  if ('unread' in read) throw new Error(read.unread.wrong);
  return read.cues;
};
const covers = PRACTICE.find((p) => p.file === 'covers-on-plain-pedals')!.rig;
const onPedals = (text: string, bpm = 120) => {
  const song: Song = { kind: 'song', id: 'song:x', title: 'X', bpm, cues: cuesOf(covers, text) };
  const rig = after(covers, { put: [song], remove: [] });
  return danceOf(deriveOnce(rig, SMALL)!, song);
};

describe('what the feet do', () => {
  test('on plain pedals every switch counts; what takes longer than a beat is told with what would ease it', () => {
    const dance = onPedals('@1 Clean; @9 Chorus; @17 Wah solo', 200);
    const [, to] = dance.troubles.map((t) => t.cue);
    expect([dance.bankKeys, dance.plain]).toEqual([0, dance.stomps]);
    // Clean to Chorus is one switch, Chorus to Wah solo six and the channel by hand (see practice.test).
    expect(dance.stomps).toBe(7);
    expect([dance.troubles.length, dance.troubles[0]!.cue, to]).toEqual([1, 'Wah solo', undefined]);
    expect(dance.troubles[0]!.why).toContain('1.8 s, and a beat is 0.3 s');
    expect(dance.troubles[0]!.eases).toContain('into loops of a switcher');
    expect(dance.busiest).toEqual({ bar: 17, stomps: 6 });
  });
  test('the tightest change is the one with least time left; cues of no place are counted', () => {
    // At 120: bar 9 after 16 s, bar 10 after 18 s, bar 17 after 32 s.
    expect(onPedals('@1 Clean; @9 Chorus; @10 Clean; @17 Echo').tightest).toEqual({
      from: 'Chorus',
      to: 'Clean',
      seconds: 2,
      needs: 0.3,
    });
    expect(onPedals('Clean; Chorus; @17 Echo').placeless).toBe(2);
  });
  test('a cue that comes before the feet are there is told; without a tempo several stomps at once are not called well', () => {
    // At 120 a beat is 0.5 s: a tenth of it is 0.05 s, and one switch takes 0.3 s.
    expect(onPedals('@1 Clean; @9 Chorus; @9.1.1 Clean').troubles).toMatchObject([
      { cue: 'Clean', why: expect.stringContaining('after Chorus') },
    ]);
    const song: Song = { kind: 'song', id: 'song:x', title: 'X', cues: cuesOf(covers, 'Clean; Wah solo') };
    const dance = danceOf(deriveOnce(after(covers, { put: [song], remove: [] }), SMALL)!, song);
    expect([dance.troubles, dance.unjudged]).toEqual([[], 1]);
  });
  test('a foot that holds a switch, one on the pedal, and a third that is wanted', () => {
    const base = titled('Gangway');
    const cues = cuesOf(
      demo,
      '@1 Lantern; @9 hold Lift; @13 Nine knots, ride the wah; @17 let go of Lift; @21 Fog fuzz',
    );
    const dance = danceOf(d, { ...base, cues });
    expect(dance.holds).toBe(1);
    expect(dance.troubles).toMatchObject([
      { cue: 'Nine knots', why: expect.stringMatching(/holds .* and a foot is on the pedal.*a third/) },
    ]);
    const free = cuesOf(demo, '@1 Lantern; @9 hold Lift; @13 Nine knots; @17 let go of Lift');
    expect(danceOf(d, { ...base, cues: free }).troubles).toEqual([]);
  });
  test('the set counts what its songs count', () => {
    const list = partOf(demo, 'setList:ferry')!;
    const dance = danceOfSet(d, list);
    expect(dance.stomps).toBe(dance.songs.reduce((n, s) => n + s.stomps, 0));
    expect(dance.songs.map((s) => s.title)).toEqual(list.songs.map((id) => partOf(demo, id)!.title));
  });
});

const perfect = (drill: Drill): readonly DrillHit[] =>
  drill.cues.slice(1).flatMap((c) => c.steps.map((s, k) => ({ key: s.key, seconds: c.seconds + k * 0.01 })));
const END = 10_000;

describe('a drill', () => {
  const drills = songs.flatMap((s) => drillOf(d, s) ?? []);
  const drill = drillOf(d, titled('Rope and tide'))!;
  const hits = perfect(drill);
  test('every song of the demo that wants a foot in time can be drilled; danced as it is, all is on time and nothing wrong', () => {
    expect(drills).toHaveLength(songs.length);
    for (const one of drills) {
      const score = scoreDrill(one, perfect(one), END);
      expect([one.title, score.onTime, score.wrong, score.cues.flatMap((c) => c.wrong)]).toEqual([
        one.title,
        score.wanted,
        [],
        [],
      ]);
      expect(score.wanted).toBeGreaterThan(0);
    }
  });
  test('a stomp that is early or late says by how much; one that is left out is missed', () => {
    fc.assert(
      fc.property(fc.nat(hits.length - 1), fc.integer({ min: -1400, max: 1400 }), (i, ms) => {
        const moved = hits.map((h, k) => (k === i ? { ...h, seconds: h.seconds + ms / 1000 } : h));
        const marks = scoreDrill(drill, moved, END).cues.flatMap((c) => c.steps.map((s) => s.mark));
        expect(marks[i]).toEqual({ is: Math.abs(ms) <= 150 ? 'on time' : ms < 0 ? 'early' : 'late', ms });
        const missed = scoreDrill(
          drill,
          hits.filter((_, k) => k !== i),
          END,
        );
        expect(missed.cues.flatMap((c) => c.steps)[i]!.mark).toEqual({ is: 'missed' });
        expect(missed.onTime).toBe(missed.wanted - 1);
      }),
    );
  });
  test('a wrong switch is told with what it brought, and for how long that sounded', () => {
    // 1C instead of 1B at the chorus, noticed two seconds later.
    const chorus = drill.cues[1]!;
    const planted = [
      { key: 'slot 2', seconds: chorus.seconds },
      { key: 'slot 1', seconds: chorus.seconds + 2 },
      ...hits.slice(1),
    ];
    const score = scoreDrill(drill, planted, END);
    expect(score.wrong).toEqual([{ seconds: chorus.seconds, text: '1C', sound: 'Chorus wide' }]);
    expect(score.cues[0]!.steps[0]!.mark).toEqual({ is: 'late', ms: 2000 });
    expect(score.cues[0]!.wrong).toEqual([{ sound: 'Chorus wide', seconds: 2 }]);
  });
  test('a bank key that is forgotten brings the sound of the same switch in the other bank', () => {
    const cues = cuesOf(demo, '@1 Verse clean; @9 Lantern');
    const other = drillOf(d, { ...titled('Rope and tide'), cues })!;
    const keys = other.cues[1]!.steps.map((s) => s.key);
    expect(keys.filter((k) => k.startsWith('bank')).length).toBeGreaterThan(0);
    const forgot = scoreDrill(other, [{ key: keys.at(-1)!, seconds: other.cues[1]!.seconds }], END);
    expect(forgot.onTime).toBe(0);
    expect(forgot.wrong[0]!.sound).toBe('Verse clean');
  });
  test('nothing behind the end of a round counts as missed', () =>
    expect(scoreDrill(drill, [], drill.cues[1]!.seconds + 1).wanted).toBe(1));
  test('a song without times, or without a foot, is no drill', () => {
    const song = titled('Rope and tide');
    expect(drillOf(d, { ...song, cues: song.cues.map(({ at: _, ...c }) => c) })).toBeUndefined();
    const pit = PRACTICE.find((p) => p.file === 'theatre-pit')!.rig;
    expect(drillOf(deriveOnce(pit, SMALL)!, all(pit, 'song')[0]!)).toBeUndefined();
  });
});

describe('what to practise next', () => {
  const drill = drillOf(d, titled('Rope and tide'))!;
  const clean = scoreDrill(drill, perfect(drill), END);
  const spoilt = scoreDrill(drill, [], END);
  const id: Id<'song'> = 'song:01';
  test('one round more on time is a longer pause; a spoilt one begins anew', () => {
    let now = new Date('2026-01-01T20:00:00Z');
    let known = practisedAfter(undefined, id, clean, now);
    for (let level = 1; level < DAYS_UNTIL_DUE.length; level += 1) {
      expect(known.level).toBe(level);
      expect(dueFirst([{ song: id }], [known], now)[0]!.dueInDays).toBe(DAYS_UNTIL_DUE[level]);
      now = new Date(now.getTime() + 24 * 3600 * 1000);
      known = practisedAfter(known, id, clean, now);
    }
    expect(practisedAfter(known, id, spoilt, now).level).toBe(0);
  });
  test('what is longest overdue comes first, what nobody practised before what is not due', () => {
    const at = (days: number) => new Date(Date.parse('2026-02-01T00:00:00Z') - days * 86_400_000).toISOString();
    const known = [
      { song: 'song:a' as const, level: 1, last: at(5) },
      { song: 'song:b' as const, level: 4, last: at(5) },
      { song: 'song:c' as const, level: 2, last: at(30) },
    ];
    const order = dueFirst(
      (['song:a', 'song:b', 'song:c', 'song:d'] as const).map((song) => ({ song })),
      known,
      new Date('2026-02-01T00:00:00Z'),
    );
    expect(order.map((s) => s.song)).toEqual(['song:c', 'song:a', 'song:d', 'song:b']);
  });
});
