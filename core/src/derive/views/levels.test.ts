import { after } from '../../../testing/after.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { islandRun, BALLROOM_ID, FERRY_ID } from '../../demo/island-run.js';
import { changeCable } from '../../edits/cables.js';
import { setMeasured } from '../../edits/sounds.js';
import { all, partOf } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { tried } from './tried.js';
import { frontsIn } from './front-view.js';
import { levelsOf, matchedByNumbers } from './levels.js';
import { levelsShown } from './levels-shown.js';
import { soundLevels } from './sound-levels.js';
import { soundTrace } from './view.js';

const d = deriveOnce(islandRun(), BALLROOM_ID)!;

describe('all sounds beside each other', () => {
  test('the one lead that lifts by 9 dB is 3 dB too loud; its trim would bring it to 4', () => {
    const { sounds, off, storable } = levelsOf(d);
    expect([off, storable]).toEqual([1, 1]);
    const loud = sounds.find((s) => s.off !== 0)!;
    expect([loud.name, loud.db, loud.off, loud.change]).toEqual([
      'Last boat',
      9,
      3,
      { text: 'SWI trim 9 → 4', stored: true },
    ]);
  });
  test('set by one click, all lie where they are wanted, and the finding is gone', () => {
    const mended = deriveOnce(after(d.rig, matchedByNumbers(d)), BALLROOM_ID)!;
    expect(levelsOf(mended).off).toBe(0);
    expect(mended.judgement.findings.some((f) => f.code === 'level.step')).toBe(false);
  });
  test('a measurement changes what is found: measured 5 dB over the others, the lead is no fault', () => {
    const measured = ['sound:16', 'sound:14', 'sound:13'].reduce(
      (rig, id, i) =>
        after(rig, setMeasured(partOf(rig, id as 'sound:16')!, BALLROOM_ID, { db: i ? 95 : 100, unit: 'dBA' })),
      d.rig,
    );
    const now = deriveOnce(measured, BALLROOM_ID)!;
    expect(now.judgement.findings.some((f) => f.code === 'level.step')).toBe(false);
    expect(levelsOf(now).sounds.find((s) => s.id === 'sound:16')).toMatchObject({ off: 0, measured: { db: 100 } });
    // In the other hook-up nothing was measured.
    expect(levelsOf(deriveOnce(measured, FERRY_ID)!).off).toBe(1);
  });
  test('noise, lateness and what is overloaded stand beside each sound', () => {
    for (const line of levelsOf(d).sounds) {
      expect(line.noise!.under).toBeGreaterThan(0);
      expect(line.ms).toBe(4);
      expect(line.over).toBeUndefined();
    }
  });
});

describe('one sound stage by stage', () => {
  test('from the strings to the outputs, each place with how its number came about', () => {
    const [way] = soundLevels(d, 'sound:04');
    expect(way!.steps[0]).toMatchObject({
      is: 'source',
      average: -20,
      from: [{ what: 'level', counted: '-20 on average, -6 at peaks', source: { from: 'assumed' } }],
    });
    expect(way!.steps.filter((s) => s.is === 'stage').map((s) => s.code)).toEqual(
      expect.arrayContaining(['WLS', 'TUN', 'CMP', 'LOW', 'HIG', 'HED', 'REV', 'DLY', 'CAB', 'MCB']),
    );
    for (const s of way!.steps) expect(s.how).not.toMatch(/undefined|NaN|device:/);
    expect(way!.outputs.map((o) => o.text)).toEqual(['Stage, Closed 2×12 cabinet', 'Front of house, ch1']);
    for (const o of way!.outputs) expect(o.shares.reduce((sum, s) => sum + s.percent, 0)).toBeGreaterThan(90);
  });
  test('a drive that is meant to be driven is not told as overloaded; a box behind it is', () => {
    const rig = smallRig({
      boxes: { g: 'humbucker', b: 'boost', d: 'high-drive', e: 'stereo-delay', w: 'powered-speaker' },
      leads: ['g.out>b.in', 'b.out>d.in', 'd.out>e.in-l', 'e.out-l>w.in'],
      sounds: { One: ['b.boost', 'd.overdrive'] },
      with: (p) =>
        p.kind === 'device' && (p.id === 'device:d' || p.id === 'device:e')
          ? { ...p, jacks: p.jacks.map((j) => (j.id.startsWith('in') ? { ...j, maxDbu: -30 } : j)) }
          : p,
    });
    const small = deriveOnce(rig, SMALL)!;
    expect(levelsOf(small).sounds[0]!.over).toMatchObject({ at: 'Stereo delay' });
    const inputs = soundLevels(small, 'sound:one')[0]!.steps.filter((s) => s.is === 'input');
    expect(inputs.find((s) => s.code === 'D')!.takes).toBeUndefined();
    expect(inputs.find((s) => s.code === 'E')!.takes).toBe(-30);
  });
  test('two stereo legs at the desk are two outputs, neither late against the other', () => {
    const [way] = soundLevels(deriveOnce(d.rig, FERRY_ID)!, 'sound:01');
    expect(way!.outputs.map((o) => o.text)).toEqual(['Front of house, ch2', 'Front of house, ch3']);
    expect(way!.meetings).toEqual([]);
  });
  test('on the run, the map and the bench stand the numbers of the ladder', () => {
    for (const { id } of levelsOf(d).sounds) {
      const ways = soundLevels(d, id);
      const { boxes, ends } = levelsShown(d.rig, soundTrace(d, id));
      expect(ways).toHaveLength(1);
      for (const { end, average } of ways[0]!.outputs) expect(ends[end]).toBe(average);
      const behind = new Map(ways[0]!.steps.filter((s) => s.is !== 'input').map((s) => [s.device, s.average]));
      expect(boxes).toEqual(Object.fromEntries(behind));
    }
  });
  test('a sound that is not there has no levels', () => expect(soundLevels(d, 'sound:99')).toEqual([]));
});

describe('before the first box', () => {
  test('the second guitar hangs on a lead of 160 pF a metre: what a softer lead, a shorter one and a buffer would do', () => {
    const [humbucker, single] = frontsIn(d, 'sound:01');
    expect([single!.instrument, single!.metres]).toEqual(['Single-coil guitar', 0]);
    expect([humbucker!.instrument, humbucker!.metres, humbucker!.pF]).toEqual(['Humbucker guitar', 6.3, 990]);
    const at5k = humbucker!.knobs[0]!.against.find((a) => a.hz === 5000)!.db;
    expect(at5k).toBeLessThan(-8);
    const [strap, , shorter] = humbucker!.otherwise;
    expect([strap!.text, strap!.at5k > 0]).toEqual(['a buffer or a transmitter on the strap', true]);
    expect([shorter!.text, shorter!.at5k > at5k + 3]).toEqual(['3 m instead of 6 m for the longest lead', true]);
    expect(humbucker!.knobs.map((k) => k.curve.length)).toEqual([121, 121]);
  });
  test('the length of a lead is felt at once', () => {
    const lead = all(d.rig, 'cable').find((c) => c.hookup === BALLROOM_ID && c.ends[0] === 'device:ghb.out')!;
    const short = deriveOnce(after(d.rig, changeCable(lead, { m: 3 })), BALLROOM_ID)!;
    expect(frontsIn(short, 'sound:01')[0]!.metres).toBe(3.3);
  });
});

test.each(['load.treble', 'level.step', 'supply.current'])(
  'the demo’s honest fault %s is cured by one click',
  (code) => {
    const finding = d.judgement.findings.find((f) => f.code === code && f.severity !== 'note')!;
    const cures = tried(d, finding).filter(({ remedy }) => remedy.by === 'program' && remedy.promise === 'clears');
    expect([code, cures.length > 0]).toEqual([code, true]);
  },
);

test('a rig with nothing in it has no levels and no loops', () => {
  const empty = deriveOnce(smallRig({ boxes: { g: 'single-coil' }, leads: [] }), SMALL)!;
  expect(levelsOf(empty)).toEqual({
    sounds: [],
    off: 0,
    storable: 0,
    earths: { loops: 0, earthed: [], unsaid: [], throughMains: [], isolate: [] },
  });
});

test('a sound that comes nowhere has no level beside the others: nobody says that it lies where it is wanted', () => {
  const rig = smallRig({
    boxes: { g: 'single-coil', s: 'switcher-8', w: 'powered-speaker' },
    leads: ['g.out>s.in'],
    sounds: { One: ['s.trim=0'], Two: ['s.trim=6'] },
  });
  expect(levelsOf(deriveOnce(rig, SMALL)!).sounds).toEqual([]);
});
