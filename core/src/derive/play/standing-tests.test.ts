import { after } from '../../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { removeSound, setWant } from '../../edits/sounds.js';
import { dropTest, keepTest } from '../../edits/standing.js';
import { removeDevice } from '../../edits/devices.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { setUpBench } from './play.js';
import { expectable, pedalStep, playedText, playStep, standingTests, stompStep, turnStep } from './standing-tests.js';

const demo = islandRun();
const steps = [
  'recall:sound:01',
  'recall:sound:04',
  stompStep('device:swi', 'E', 'press'),
  stompStep('device:swi', 'E', 'release'),
];
const kept = (rig: Rig, expects: readonly { control: string; value: string }[]) =>
  after(rig, keepTest('standingTest:one', BALLROOM_ID, 'The lead after a lift', steps, expects));
const result = (rig: Rig) => standingTests(deriveOnce(rig, BALLROOM_ID)!)[0];
const LEAD = { control: 'device:hed.channel', value: 'lead' };

describe('standing tests', () => {
  const rig = kept(demo, [LEAD, { control: 'device:swi.trim', value: '3' }]);
  test('played from power-up, it holds; its steps and what it expects are said in words', () => {
    expect(result(rig)).toMatchObject({
      is: 'holds',
      text: 'holds after 4 steps',
      steps: [
        'Stomp Verse clean, 1A',
        'Stomp Lead, 1D',
        expect.stringMatching(/^Press /),
        expect.stringMatching(/^Let go of /),
      ],
      expects: ['HED channel lead', 'SWI trim 3 dB'],
    });
  });
  test('broken by an edit it fails and says what stands instead; mended it holds again', () => {
    const broken = after(rig, setWant(partOf(rig, 'sound:04')!, { control: 'device:swi.trim', is: 1 }));
    expect(result(broken)).toMatchObject({ is: 'fails', text: 'SWI trim is 1 dB, 3 dB was expected' });
    expect(result(after(broken, setWant(partOf(broken, 'sound:04')!, { control: 'device:swi.trim', is: 3 })))?.is).toBe(
      'holds',
    );
  });
  test('a sound or a box that it names is gone: said, and the test is kept', () => {
    const without = after(rig, removeSound(rig, 'sound:04'));
    expect(result(without)).toMatchObject({ is: 'cannot', text: expect.stringContaining('recall:sound:04') });
    expect(all(without, 'standingTest')).toHaveLength(1);
    const expectsGone = kept(demo, [{ control: 'device:dly.program', value: '4' }]);
    expect(result(after(expectsGone, removeDevice(expectsGone, 'device:dly')))).toMatchObject({ is: 'cannot' });
  });
  test('taken away it is gone; one of another hook-up is not played here', () => {
    expect(result(after(rig, dropTest('standingTest:one')))).toBeUndefined();
    expect(
      standingTests(
        deriveOnce(rig, 'hookup:ferry' as never) ??
          deriveOnce(rig, all(rig, 'hookup').find((h) => h.id !== BALLROOM_ID)!.id)!,
      ),
    ).toEqual([]);
  });
  test('what can be expected: the controls of wired boxes, those that the sound wants marked', () => {
    const d = deriveOnce(demo, BALLROOM_ID)!;
    const bench = setUpBench(d, {});
    for (const s of steps) expect(playStep(d, bench, s)).toBe(true);
    expect(playStep(d, bench, 'recall:sound:none')).toBe(false);
    const list = expectable(d, bench, 'sound:04');
    expect(list.find((e) => e.control === LEAD.control)).toEqual({ ...LEAD, text: 'HED channel lead', wanted: true });
    expect(list.some((e) => e.control.includes('held-'))).toBe(false);
  });
  test('every kind of step is said in words and done; one that speaks of what is not there is neither', () => {
    const d = deriveOnce(demo, BALLROOM_ID)!;
    const bench = setUpBench(d, {});
    const said = [
      stompStep('device:swi', 'B', 'hold'),
      stompStep('device:swi', 'B', 'twice'),
      pedalStep('device:rev', 'midi-in', 127),
      turnStep('device:vol.amount', 30),
    ];
    expect(said.map((s) => playedText(d, s))).toEqual([
      'Hold SWI B',
      'Press twice SWI B',
      'Move the pedal at REV midi-in to its toe',
      'Move VOL amount to 30 %',
    ]);
    expect(said.map((s) => playStep(d, bench, s))).toEqual([true, true, true, true]);
    expect(bench.value('device:vol.amount')).toBe(30);
    for (const gone of [
      pedalStep('device:rev', 'exp9', 1),
      turnStep('device:vol.nothing', 1),
      stompStep('device:none', 'A', 'press'),
      'pedal of nothing',
      'turn',
    ])
      expect([gone, playedText(d, gone)]).toEqual([gone, undefined]);
  });
});
