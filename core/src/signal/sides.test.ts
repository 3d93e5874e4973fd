import { SMALL, smallRig, type SmallRig } from '../../testing/small-rig.js';
import { line } from '../../testing/run-line.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import { splitRef, type Ref } from '../rig/ids.js';
import { partOf } from '../rig/rig.js';
import { stereoOf } from './graph/stereo.js';

const derived = (rig: SmallRig): Derived => deriveOnce(smallRig(rig), SMALL)!;
const only = (d: Derived) => [...d.compilation.sounds.values()][0]!;
const found = (d: Derived): readonly string[] => d.judgement.findings.map((f) => f.code);
const names = (d: Derived, parts: Iterable<string>): readonly string[] =>
  [...parts].map((p) => partOf(d.rig, p.includes('.') ? splitRef(p as Ref).device : (p as 'device:x'))!.name);
const runs = (d: Derived) => line(soundRun(d, only(d).sound));

describe('through the left side of a stereo box, a compressor, and back through its right side', () => {
  test.each(['stereo-delay', 'stereo-reverb'])('%s: no ring, one line, everything heard', (key) => {
    const stage = key.slice(7);
    const d = derived({
      boxes: { g: 'single-coil', x: key, c: 'compressor', i: 'di', foh: 'desk' },
      leads: ['g.out>x.in-l', 'x.out-l>c.in', 'c.out>x.in-r', 'x.out-r>i.in', 'i.out>foh.ch1'],
      sounds: { Verse: [`x.${stage}`, 'c.compressor'] },
    });
    expect(found(d)).not.toContain('wire.ring');
    expect(only(d).problems).toEqual([]);
    expect(runs(d)).toBe('g x c x i →Front of house:right');
  });
  test('a side that does come back to itself is still a ring', () => {
    const d = derived({
      boxes: { g: 'single-coil', x: 'stereo-delay', y: 'splitter', c: 'compressor', i: 'di', foh: 'desk' },
      leads: ['g.out>x.in-l', 'x.out-l>i.in', 'i.out>foh.ch1', 'x.out-r>c.in', 'c.out>x.in-r'],
      sounds: { Verse: ['x.delay', 'c.compressor'] },
    });
    expect(found(d)).toContain('wire.ring');
  });
});

test('two instruments on the two sides of one box have nothing to do with each other: no order between their stages', () => {
  const d = derived({
    boxes: {
      g: 'single-coil',
      b: 'bass',
      w: 'distortion',
      x: 'stereo-reverb',
      c: 'compressor',
      i: 'di-stereo',
      foh: 'desk',
    },
    leads: [
      'g.out>w.in',
      'w.out>x.in-l',
      'b.out>x.in-r',
      'x.out-l>i.in-l',
      'x.out-r>c.in',
      'c.out>i.in-r',
      'i.out-l>foh.ch1',
      'i.out-r>foh.ch2',
    ],
    sounds: { Both: ['w.distortion', 'x.reverb', 'c.compressor'] },
    hears: [
      { from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' },
      { from: 'device:b.out', at: 'device:foh.#house', as: 'sounds' },
    ],
  });
  expect(
    found(d).filter(
      (code) =>
        code.startsWith('order.') && !['order.no-cab-sim', 'order.tuner-mute', 'order.no-amp-stage'].includes(code),
    ),
  ).toEqual([]);
  expect(only(d).problems).toEqual([]);
  expect(runs(d)).toBe('{g w x i →Front of house:left+right | b x c i →Front of house:left+right}…');
});

describe('where two sides begin, and where they are added', () => {
  const boxes = { g: 'single-coil', d: 'stereo-delay', r: 'stereo-reverb', i: 'di-stereo', k: 'boost', foh: 'desk' };
  const wide = ['g.out>d.in-l', 'd.out-l>r.in-l', 'd.out-r>r.in-r'];
  test('from the first box that makes two, to the desk', () => {
    const d = derived({
      boxes,
      leads: [...wide, 'r.out-l>i.in-l', 'r.out-r>i.in-r', 'i.out-l>foh.ch1', 'i.out-r>foh.ch2'],
      sounds: { Wide: ['d.delay', 'r.reverb'] },
    });
    const { begins, summed } = stereoOf(only(d).trace);
    expect([names(d, begins), names(d, summed)]).toEqual([['Stereo delay'], []]);
    expect(runs(d)).toBe('g d< ═r ═i ═→Front of house:left+right');
  });
  test('with the first one off, the second begins them', () => {
    const d = derived({
      boxes,
      leads: [...wide, 'r.out-l>i.in-l', 'r.out-r>i.in-r', 'i.out-l>foh.ch1', 'i.out-r>foh.ch2'],
      sounds: { Wide: ['r.reverb'] },
    });
    expect(names(d, stereoOf(only(d).trace).begins)).toEqual(['Stereo reverb']);
  });
  test('the left output alone adds them before they leave: nothing is said', () => {
    const d = derived({
      boxes,
      leads: ['g.out>d.in-l', 'd.out-l>k.in', 'k.out>i.in-l', 'i.out-l>foh.ch1'],
      sounds: { Wide: ['d.delay', 'k.boost'] },
    });
    const { begins, summed } = stereoOf(only(d).trace);
    expect([names(d, begins), names(d, summed)]).toEqual([[], []]);
    expect(only(d).trace.reaches.map((x) => x.sides)).toEqual([['mono']]);
  });
  test('a mixer that takes both into one output adds them', () => {
    const d = derived({
      boxes: { ...boxes, y: 'y-join' },
      leads: ['g.out>d.in-l', 'd.out-l>y.in1', 'd.out-r>y.in2', 'y.out>i.in-l', 'i.out-l>foh.ch1'],
      sounds: { Wide: ['d.delay'] },
    });
    expect(names(d, stereoOf(only(d).trace).summed)).toEqual(['Y lead that joins two outputs']);
    expect(only(d).trace.reaches.map((x) => x.sides)).toEqual([['mono']]);
  });
  test('in-ears with both sides plugged are heard with both', () => {
    const d = derived({
      boxes: { ...boxes, e: 'in-ears' },
      leads: ['g.out>d.in-l', 'd.out-l>e.in-l', 'd.out-r>e.in-r'],
      sounds: { Wide: ['d.delay'] },
      hears: [{ from: 'device:g.out', at: 'device:e.#ears', as: 'stereo' }],
    });
    expect(only(d).problems).toEqual([]);
    expect(only(d).trace.reaches.map((x) => x.sides)).toEqual([['left', 'right']]);
  });
});
