import { line } from '../../testing/run-line.js';
import { apply } from '../change/apply.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import { danceOfSet } from '../derive/views/dance.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { setUpBench, takeStep } from '../derive/play/play.js';
import { stepText } from '../recall/words/words.js';
import { all, emptyRig, everyPart, partOf } from '../rig/rig.js';
import { setScore } from '../derive/views/set-score.js';
import { songsOfEngagement } from '../edits/engagements.js';
import { CLICK_ID, LIGHTHOUSE_ID, lighthouseSolo } from './lighthouse-solo.js';
import { FLY_DATE_ID, nightMarketBass } from './night-market-bass.js';
import { DEMO_RIGS } from './rigs.js';

describe.each(DEMO_RIGS.map(({ id, make }) => [id, make] as const))('%s', (_, make) => {
  const rig = make();
  test('can be saved part by part, and as a file', () => {
    const applied = apply(emptyRig(), { put: everyPart(rig), remove: [] });
    expect(applied.ok ? [] : applied.error).toEqual([]);
    const read = readRigFile(writeRigFile(rig));
    expect(read.ok && writeRigFile(read.value)).toBe(writeRigFile(rig));
  });
  test('nothing in it is dangerous, no check fails, every sound finds its way', () => {
    for (const hookup of rig.parts.hookup.keys()) {
      const d = deriveOnce(rig, hookup)!;
      expect(d.judgement.faults).toEqual([]);
      expect(d.judgement.findings.filter((f) => f.severity === 'danger').map((f) => f.why)).toEqual([]);
      expect([...d.compilation.sounds.values()].flatMap((c) => c.problems)).toEqual([]);
    }
  });
});

describe('the night market bass', () => {
  const d = deriveOnce(nightMarketBass(), FLY_DATE_ID)!;
  test('is proved as it stands', () => expect([...d.verdicts.values()].every((v) => v.is === 'proved')).toBe(true));
  test.each([
    ['sound:01', 'bas wlt spl {xov {(cmp) | (/fuz/ /pre/ // //)} did | spl dic} →Front of house:mono'],
    ['sound:03', 'bas wlt spl {xov {(cmp) | ((fuz) (pre) // //)} did | spl dic} →Front of house:mono'],
    ['sound:04', 'bas wlt spl {xov {(cmp) | ((fuz) /pre/ // //)} did | spl dic} →Front of house:mono'],
  ] as const)('%s: %s', (sound, path) => expect(line(soundRun(d, sound))).toBe(path));
  test('nothing above a note; that its fuzz comes to the desk without a cabinet is one, for a bass', () => {
    expect(d.judgement.findings.filter((f) => f.severity !== 'note').map((f) => f.code)).toEqual([]);
    expect(d.judgement.findings.find((f) => f.code === 'order.no-cab-sim')?.evidence).toEqual([
      'device:fuz',
      'sound:04',
    ]);
  });
});

describe('the lighthouse solo set', () => {
  const d = deriveOnce(lighthouseSolo(), LIGHTHOUSE_ID)!;
  test('is proved as it stands; the song list sends the number of the looper memory', () => {
    expect([...d.verdicts.values()].every((v) => v.is === 'proved')).toBe(true);
    expect(d.compilation.sounds.get('sound:03')!.stored.map((s) => s.program.acts)).toEqual([
      [{ send: { pc: 2, channel: 8 }, at: 'midi-out' }],
    ]);
  });
  test('guitar through the looper in the loop of the amp, percussion and voice on ways of their own', () => {
    expect(line(soundRun(d, 'sound:01'))).toBe(
      '{gsc sel tun amp lop amp cab →Stage:mono mcb →Front of house:mono | prc lop dip →Front of house:mono | mic →Front of house:mono}…',
    );
  });
});

describe('the sets of the demo rigs', () => {
  test('the solo set is called by the list: what the foot does is the looper, and nothing plays on behind a song', () => {
    const rig = lighthouseSolo();
    const dance = danceOfSet(deriveOnce(rig, LIGHTHOUSE_ID)!, partOf(rig, 'setList:lighthouse'));
    expect(dance.songs.map((s) => [s.plain, s.bankKeys])).toEqual(dance.songs.map((s) => [s.stomps, 0]));
    expect(dance.stomps).toBe(20);
    const d = deriveOnce(rig, LIGHTHOUSE_ID)!;
    expect(d.judgement.findings.filter((f) => f.code.startsWith('set.'))).toEqual([]);
  });
  test('with the click a timeline calls everything: proved, no stomp, and the night is one MIDI file', () => {
    const rig = lighthouseSolo();
    const d = deriveOnce(rig, CLICK_ID)!;
    const list = partOf(rig, 'setList:matinee')!;
    expect([...d.verdicts.values()].every((v) => v.is === 'proved')).toBe(true);
    expect(danceOfSet(d, list).stomps).toBe(0);
    expect(d.judgement.findings.filter((f) => f.code.startsWith('set.'))).toEqual([]);
    const { stomped, byHand } = setScore(d, list.name, songsOfEngagement(rig, 'engagement:matinee'));
    expect([stomped, byHand]).toEqual([[], []]);
  });
  test('a sound that another controller calls in each hook-up is told, played and laid out by the one that counts', () => {
    const rig = lighthouseSolo();
    for (const [hookup, code] of [
      [LIGHTHOUSE_ID, 'LIST'],
      [CLICK_ID, 'TML'],
    ] as const) {
      const d = deriveOnce(rig, hookup)!;
      const { steps } = d.modelled;
      expect(stepText(rig, steps.get('recall:sound:03')!)).toBe('Stomp Fog horn, 3');
      const bench = setUpBench(d, {});
      takeStep(d, bench, steps.get('recall:sound:03')!);
      const entries = ['LIST', 'TML'].map((c) => {
        const device = all(rig, 'device').find((x) => x.code === c)!;
        return [c, String(bench.value(`${device.id}.entry`))];
      });
      expect(entries).toContainEqual([code, '2']);
      expect(entries).toContainEqual([code === 'LIST' ? 'TML' : 'LIST', '0']);
    }
  });
  test.each(DEMO_RIGS.map(({ id, make }) => [id, make] as const))('%s: every cue has its place', (_, make) => {
    const rig = make();
    const [hookup] = rig.parts.hookup.keys();
    for (const list of rig.parts.setList.values()) {
      const act = list.engagement && partOf(rig, list.engagement);
      const d = deriveOnce(rig, act?.hookup ?? hookup!)!;
      expect(danceOfSet(d, list).songs.filter((s) => s.placeless > 0)).toEqual([]);
    }
    expect(rig.parts.setList.size).toBeGreaterThan(0);
  });
});
