import { makeDevice } from '../../catalogue/make.js';
import { islandRun, BALLROOM_ID } from '../../demo/island-run.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import type { Id, Ref } from '../../rig/ids.js';
import { rigOf, type Rig } from '../../rig/rig.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import { line } from '../../../testing/run-line.js';
import { picture } from './picture.js';
import { restingState } from '../graph/state.js';
import { trace } from '../graph/trace.js';
import { wire } from '../graph/wiring.js';

const run = (rig: Rig, sound: Id<'sound'>): string => {
  const d = deriveOnce(rig, BALLROOM_ID)!;
  const c = d.compilation.sounds.get(sound)!;
  return line(
    picture(c.trace, (insert, device) => [
      ...new Set(
        d.anatomy.loops
          .find((l) => l.device === device && l.insert === insert)
          ?.holds.map((r) => r.split('.')[0] as Id<'device'>),
      ),
    ]),
  );
};

describe('the run of a sound', () => {
  test('Verse clean: loops hang where they leave and come back, the amp sits in the sixth, what is off stands outside', () => {
    expect(run(islandRun(), 'sound:01')).toBe(
      'gsc wls sel tun vol (cmp) /ofz/ /low/ /hig/ /gat/ (hed) /mod/ (rev) [dly] hed cab →Stage:mono mcb →Front of house:mono',
    );
  });
  test('Lead reorders nothing and takes its two drives in', () => {
    expect(run(islandRun(), 'sound:04')).toContain('(cmp) /ofz/ (low) (hig) /gat/ (hed) /mod/ (rev) dly hed cab');
  });
});

describe('arms', () => {
  const hookup: Hookup = { kind: 'hookup', id: 'hookup:h', name: 'h', settings: {}, hears: [], assumes: [] };
  const drawn = (
    devices: readonly (readonly [string, string])[],
    leads: readonly (readonly [string, string])[],
    values: Readonly<Record<string, string>> = {},
  ): string => {
    const cables = leads.map(([a, b], i): Cable => ({
      kind: 'cable',
      id: `cable:${i}`,
      hookup: hookup.id,
      ends: [`device:${a}` as Ref, `device:${b}` as Ref],
    }));
    const rig = rigOf([...devices.map(([id, key]) => makeDevice(key, `device:${id}`)), hookup, ...cables]);
    const state = restingState(rig, hookup);
    for (const [k, v] of Object.entries(values)) state.set(`device:${k}` as Ref, v);
    return line(picture(trace(wire(rig, hookup), state), () => []));
  };
  test('a splitter to two channels of a desk parts and joins', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['s', 'splitter'],
          ['a', 'boost'],
          ['b', 'fuzz'],
          ['foh', 'desk'],
        ],
        [
          ['g.out', 's.in'],
          ['s.out1', 'a.in'],
          ['s.out2', 'b.in'],
          ['a.out', 'foh.ch1'],
          ['b.out', 'foh.ch2'],
        ],
        { 'a.on': 'on', 'b.on': 'on' },
      ),
    ).toBe('g s {a | b} →Front of house:mono');
  });
  test('two amps that never meet again', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['s', 'splitter'],
          ['x', 'one-channel-amp'],
          ['y', 'one-channel-amp'],
          ['c', 'cab-112'],
          ['d', 'cab-212'],
        ],
        [
          ['g.out', 's.in'],
          ['s.out1', 'x.in'],
          ['s.out2', 'y.in'],
          ['x.speaker', 'c.in'],
          ['y.speaker', 'd.in'],
        ],
      ),
    ).toBe('g s {x c →Stage:mono | y d →Stage:mono}…');
  });
  test('a loop that is on is entered once and left once', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['foh', 'desk'],
          ['s', 'splitter'],
          ['swi', 'switcher-4'],
        ],
        [
          ['g.out', 'swi.in'],
          ['swi.send1', 's.in'],
          ['s.out1', 'swi.return1'],
          ['swi.out', 'foh.ch1'],
        ],
        { 'swi.loop1': 'on' },
      ),
    ).toBe('g (s) // // // →Front of house:mono');
  });
  test('a ring is cut where it would close', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['y', 'y-join'],
          ['s', 'splitter'],
          ['b', 'boost'],
          ['foh', 'desk'],
        ],
        [
          ['g.out', 'y.in1'],
          ['y.out', 's.in'],
          ['s.out1', 'foh.ch1'],
          ['s.out2', 'b.in'],
          ['b.out', 'y.in2'],
        ],
        { 'b.on': 'on' },
      ),
    ).toBe('g y s {→Front of house:mono | b y}…');
  });
  test('one side of a stereo box, a pedal, and back through its other side is one line, and no ring', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['d', 'stereo-delay'],
          ['c', 'compressor'],
          ['foh', 'desk'],
        ],
        [
          ['g.out', 'd.in-l'],
          ['d.out-l', 'c.in'],
          ['c.out', 'd.in-r'],
          ['d.out-r', 'foh.ch1'],
        ],
        { 'd.on': 'on', 'c.on': 'on' },
      ),
    ).toBe('g d c d →Front of house:right');
  });
  test('two instruments, each on its side of one box, are two lines', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['k', 'bass'],
          ['d', 'stereo-delay'],
          ['foh', 'desk'],
        ],
        [
          ['g.out', 'd.in-l'],
          ['k.out', 'd.in-r'],
          ['d.out-l', 'foh.ch1'],
          ['d.out-r', 'foh.ch2'],
        ],
        { 'd.on': 'on' },
      ),
    ).toBe('{g d →Front of house:left+right | k d →Front of house:left+right}…');
  });
  test('both sides go on side by side over two cables, from the box that makes them to where they are heard', () => {
    expect(
      drawn(
        [
          ['g', 'single-coil'],
          ['d', 'stereo-delay'],
          ['r', 'stereo-reverb'],
          ['foh', 'desk'],
        ],
        [
          ['g.out', 'd.in-l'],
          ['d.out-l', 'r.in-l'],
          ['d.out-r', 'r.in-r'],
          ['r.out-l', 'foh.ch1'],
          ['r.out-r', 'foh.ch2'],
        ],
        { 'd.on': 'on', 'r.on': 'on' },
      ),
    ).toBe('g d< ═r ═→Front of house:left+right');
  });
});
