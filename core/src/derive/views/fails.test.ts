import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { CLICK_ID, lighthouseSolo } from '../../demo/lighthouse-solo.js';
import { failuresSheet } from './failures-sheet.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { PRACTICE } from '../../../testing/practice.js';
import { all } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { failsOf, failureLines, failureOf } from './fails.js';

const practice = (file: string) => {
  const { rig } = PRACTICE.find((p) => p.file === file)!;
  return deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
};

describe('three amps, any two', () => {
  const d = practice('three-amps-any-two');
  const named = (text: string) => failureOf(d, failureLines(d).find((l) => l.text === text)!.key)!;
  test('an amp dies: which sounds are lost, and what to stomp instead', () => {
    const { sounds, says } = named('One-channel amp (AMPA) dies');
    expect(says).toBe('1 of 4 silent, 2 of 4 heard with something missing, 1 of 4 as they are.');
    expect(sounds.filter((s) => s.is === 'silent')).toHaveLength(1);
  });
  test('the lines and the paper say the same, failure by failure', () =>
    expect(failsOf(d).map(({ key, text, says }) => ({ key, text, says }))).toEqual(
      failureLines(d).map(({ key, text, says }) => ({ key, text, says })),
    ));
});

test('where a way out touches a loudspeaker lead it says what to heed; a pedal is pulled without a word', () => {
  const d = practice('rack-panel-multicore');
  const fails = failsOf(d);
  const head = fails.find((f) => f.text.includes('valve head') && f.group === 'Boxes')!;
  const lead = fails.find((f) => f.text.includes('speaker'))!;
  expect([head.way ?? lead.way].map((w) => w?.caution)).toEqual([expect.stringContaining('Switch the amp off')]);
  expect(fails.find((f) => f.text === 'Distortion dies')?.way?.caution).toBeUndefined();
});

test('a rig with nothing wired has nothing to fail, and one without sounds says so', () => {
  expect(failureLines(deriveOnce(smallRig({ boxes: { a: 'fuzz' }, leads: [] }), SMALL)!)).toEqual([]);
  const bare = deriveOnce(smallRig({ boxes: { g: 'single-coil', a: 'combo' }, leads: ['g.out>a.in'] }), SMALL)!;
  expect(failureLines(bare).map((l) => l.says)).toEqual(['No sounds yet.', 'No sounds yet.', 'No sounds yet.']);
  expect(failureOf(bare, 'device:gone')).toBeUndefined();
});

describe('what calls the sounds dies', () => {
  const d = deriveOnce(lighthouseSolo(), CLICK_ID)!;
  const dead = failureOf(d, 'device:tml')!;
  test('they are heard and not called, whoever calls them in another hook-up; each says what to set at the box itself', () => {
    expect(dead.says).toBe('6 of 6 heard, but not called.');
    expect(dead.byHand?.slice(0, 2)).toEqual([
      { name: 'Lamp room', hands: ['LOP memory 1'] },
      { name: 'Spiral stair', hands: ['LOP memory 2'] },
    ]);
    expect(failuresSheet([dead]).rows[0]!.byHand).toEqual(dead.byHand);
  });
  test('nothing is set at a box that is dead itself, and nothing where all is called', () => {
    const island = deriveOnce(islandRun(), BALLROOM_ID)!;
    const hands = failureOf(island, 'device:swi')!.byHand!.flatMap((h) => h.hands);
    expect(hands.length).toBeGreaterThan(10);
    expect(hands.filter((h) => h.startsWith('SWI'))).toEqual([]);
    // Its loops are passed by: what hangs in them is not on the way, and nobody has to set it.
    expect(hands.filter((h) => h.startsWith('MOD'))).toEqual([]);
    expect(hands.filter((h) => h.startsWith('DLY')).length).toBeGreaterThan(10);
    expect(failureOf(island, 'device:dly')!.byHand).toBeUndefined();
  });
});
