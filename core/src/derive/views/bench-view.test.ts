import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { LIGHTHOUSE_ID, lighthouseSolo } from '../../demo/lighthouse-solo.js';
import { line } from '../../../testing/run-line.js';
import type { Rig } from '../../rig/rig.js';
import { benchView, clock } from './bench-view.js';
import { deriveOnce } from '../steps/deriver.js';
import { setUpBench, takeStep } from '../play/play.js';

const onBench = (rig: Rig, hookup: `hookup:${string}`) => {
  const d = deriveOnce(rig, hookup)!;
  const bench = setUpBench(d, {});
  return {
    d,
    bench,
    look: () => benchView(d, bench),
    call: (sound: `sound:${string}`) => takeStep(d, bench, { does: 'recall', sound }),
  };
};

describe('the bench as the screen shows it', () => {
  test.each([
    [0, '0.000 000'],
    [320, '0.000 320'],
    [4_180_960, '4.180 960'],
    [61_000_000, '61.000 000'],
  ])('%i µs read %s', (us, text) => expect(clock(us)).toBe(text));

  test('at power-up: slot 1A is loaded, four slots of the bank are on the floor, its moves, and the banks', () => {
    const view = onBench(islandRun(), BALLROOM_ID).look();
    expect(view.sound).toEqual({ id: 'sound:01', name: 'Verse clean', wrong: expect.any(Array), silentAt: [] });
    expect(view.floor.map((s) => s.label)).toEqual([
      'Verse clean',
      'Chorus crunch',
      'Chorus wide',
      'Lead',
      'Lift',
      'nothing here',
      'nothing here',
      'nothing here',
      'Bank down',
      'Bank up',
    ]);
    expect(view.floor.filter((s) => s.state === 'called').map((s) => s.label)).toEqual(['Verse clean']);
    expect(view.wire).toEqual([]);
  });
  test('after a stomp: the sound, the run, the bytes with who reacted', () => {
    const { look, call } = onBench(islandRun(), BALLROOM_ID);
    call('sound:02');
    const view = look();
    expect(view.sound).toEqual({ id: 'sound:02', name: 'Chorus crunch', wrong: [], silentAt: [] });
    expect(line(view.run)).toContain('(cmp) /ofz/ (low) /hig/');
    expect(view.wire.filter((w) => w.kind === 'message').map((w) => [w.bytes, w.who])).toEqual([
      ['C2 04', 'DLY shows 4'],
      ['C3 04', 'REV shows 2.2'],
    ]);
  });
  test('a sound that comes back wrong says what is and what was wanted', () => {
    const { look, call } = onBench(islandRun(), BALLROOM_ID);
    call('sound:06');
    expect(look().sound!.wrong).toEqual(expect.arrayContaining(['MOD program is 14, wanted 13']));
  });
  test('boxes outside the path are marked', () => {
    const { look, call } = onBench(islandRun(), BALLROOM_ID);
    call('sound:01');
    const outside = look()
      .boxes.filter((b) => b.outside)
      .map((b) => b.code);
    expect(outside).toEqual(expect.arrayContaining(['OFZ', 'LOW', 'HIG', 'GAT', 'MOD']));
    expect(outside).not.toContain('CMP');
  });
  test('a song list has no floor; what it called is the sound that stands, and settings are as they were set', () => {
    const { look, call } = onBench(lighthouseSolo(), LIGHTHOUSE_ID);
    expect(look().floor).toEqual([]);
    call('sound:04');
    const view = look();
    expect(view.sound).toEqual({ id: 'sound:04', name: 'Keeper', wrong: [], silentAt: [] });
    expect(view.boxes.find((b) => b.code === 'LOP')!.says.map((s) => s.text)).toEqual([
      'memory 4',
      'second input goes to sub',
      'track 1 stopped',
      'track 2 stopped',
    ]);
    expect(view.wire.map((w) => w.bytes).filter(Boolean)).toEqual(['C7 03']);
  });
});
