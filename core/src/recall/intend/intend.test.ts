import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { makeDevice } from '../../catalogue/make.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import type { Ref } from '../../rig/ids.js';
import { all, partOf, rigOf, type Rig } from '../../rig/rig.js';
import type { Sound, Want } from '../../rig/sound.js';
import { bearings } from '../actuate/bearings.js';
import { compileSound } from '../actuate/compile.js';

const hookup = (more: Partial<Hookup> = {}): Hookup => ({
  kind: 'hookup',
  id: 'hookup:h',
  name: 'h',
  settings: {},
  hears: [],
  assumes: [],
  ...more,
});
const rigWith = (
  boxes: Readonly<Record<string, string>>,
  leads: readonly (readonly [string, string])[],
  h = hookup(),
): Rig =>
  rigOf([
    ...Object.entries(boxes).map(([id, key], i) => ({ ...makeDevice(key, `device:${id}`), at: i })),
    h,
    ...leads.map(([a, b], i): Cable => ({
      kind: 'cable',
      id: `cable:${i}`,
      hookup: h.id,
      ends: [`device:${a}` as Ref, `device:${b}` as Ref],
    })),
  ]);
const stage = (r: string, is: 'in' | 'out' | 'any' = 'in'): Want => ({ stage: `device:${r}` as Ref, is });
const soundOf = (...wants: Want[]): Sound => ({
  kind: 'sound',
  id: 'sound:s',
  name: 's',
  role: 'other',
  at: 1,
  wants,
  calls: [{ device: 'device:swi', memory: 'slots', slot: 0 }],
});
const compiled = (rig: Rig, ...wants: Want[]) =>
  compileSound(bearings(rig, [...rig.parts.hookup.values()][0]!), soundOf(...wants));
const values = (rig: Rig, ...wants: Want[]) =>
  Object.fromEntries(compiled(rig, ...wants).wants.map((w) => [w.control.slice(7), w.value]));

const LOOPS = [
  ['g.out', 'swi.in'],
  ['swi.send1', 'a.in'],
  ['a.out', 'b.in'],
  ['b.out', 'swi.return1'],
  ['swi.send2', 'c.in'],
  ['c.out', 'swi.return2'],
  ['swi.out', 'amp.in'],
  ['amp.speaker', 'cab.in'],
] as const;
const shared = rigWith(
  { g: 'single-coil', swi: 'switcher-4', a: 'fuzz', b: 'boost', c: 'chorus', amp: 'one-channel-amp', cab: 'cab-112' },
  LOOPS,
);

describe('stages become loops and switches', () => {
  test('a loop that holds nothing wanted leaves the path, and its boxes need not be touched', () => {
    expect(values(shared, stage('c.modulation'))).toMatchObject({
      'swi.loop1': 'off',
      'swi.loop2': 'on',
      'c.on': 'on',
    });
    expect(values(shared, stage('c.modulation'))).not.toHaveProperty('a.on');
  });
  test('a box that shares its loop with a wanted one has to be off itself', () => {
    expect(values(shared, stage('a.fuzz'))).toMatchObject({ 'swi.loop1': 'on', 'a.on': 'on', 'b.on': 'off' });
  });
  test('one that may be either is left alone', () => {
    expect(values(shared, stage('a.fuzz'), stage('b.boost', 'any'))).not.toHaveProperty('b.on');
  });
  test('nothing named: everything that can leave is out, and the rig still sounds', () => {
    const c = compiled(shared);
    expect(Object.fromEntries(c.wants.map((w) => [w.control.slice(7), w.value]))).toMatchObject({
      'swi.loop1': 'off',
      'swi.loop2': 'off',
      'swi.output': 'open',
    });
    expect(c.trace.reaches).toHaveLength(1);
    expect(c.problems).toEqual([]);
  });
  test('a want that contradicts what is taken for granted is a problem, not a silent change', () => {
    const taped = rigWith(
      {
        g: 'single-coil',
        swi: 'switcher-4',
        a: 'fuzz',
        b: 'boost',
        c: 'chorus',
        amp: 'one-channel-amp',
        cab: 'cab-112',
      },
      LOOPS,
      hookup({ assumes: [{ control: 'device:c.on', value: 'on', why: 'taped' }] }),
    );
    expect(compiled(taped, { control: 'device:c.on', is: 'off' }).problems).toContainEqual({
      is: 'forbidden',
      control: 'device:c.on',
      value: 'off',
      held: 'on',
    });
    expect(compiled(taped, stage('c.modulation')).hand.map((h) => h.control)).not.toContain('device:c.on');
  });
});

describe('every gate on the way is wanted open', () => {
  const split = rigWith(
    {
      g: 'single-coil',
      swi: 'switcher-4',
      ab: 'ab-out',
      amp: 'one-channel-amp',
      cab: 'cab-112',
      two: 'one-channel-amp',
      box: 'cab-212',
    },
    [
      ['g.out', 'swi.in'],
      ['swi.out', 'ab.in'],
      ['ab.a', 'amp.in'],
      ['amp.speaker', 'cab.in'],
      ['ab.b', 'two.in'],
      ['two.speaker', 'box.in'],
    ],
    hookup({ hears: [{ from: 'the instrument in hand', at: 'device:box.air' as Ref, as: 'sounds' }] }),
  );
  test('the selector points at the amp that is to be heard', () => {
    const c = compiled(split);
    expect(c.wants).toContainEqual({ control: 'device:ab.select', value: 'b', why: { by: 'gate' } });
    expect(c.trace.reaches.map((r) => r.end.ref)).toEqual(['device:box.air']);
  });
  test('what the sound says itself is kept; then the other amp is silent, and that is said', () => {
    const c = compiled(split, { control: 'device:ab.select', is: 'a' });
    expect(c.problems).toContainEqual({ is: 'silent', from: 'device:g.out', at: 'device:box.air' });
  });
  test('no message reaches the selector: somebody has to step on it', () =>
    expect(compiled(split).hand).toEqual([{ control: 'device:ab.select', value: 'b', by: 'foot' }]));
  test('wanted silence is no fault; what is heard all the same is one', () => {
    const silent = (leads: readonly (readonly [string, string])[]) =>
      compiled(
        rigWith(
          { g: 'single-coil', swi: 'switcher-4', amp: 'one-channel-amp', cab: 'cab-112' },
          leads,
          hookup({ hears: [{ from: 'the instrument in hand', at: 'device:cab.air' as Ref, as: 'silent' }] }),
        ),
      ).problems;
    expect(
      silent([
        ['g.out', 'swi.in'],
        ['amp.speaker', 'cab.in'],
      ]),
    ).toEqual([]);
    expect(
      silent([
        ['g.out', 'swi.in'],
        ['swi.out', 'amp.in'],
        ['amp.speaker', 'cab.in'],
      ]),
    ).toEqual([{ is: 'not silent', from: 'device:g.out', at: 'device:cab.air' }]);
  });
});

describe('who is to be heard where, when nobody says', () => {
  const leads = [
    ['g.out', 'swi.in'],
    ['swi.out', 'amp.in'],
    ['amp.speaker', 'cab.in'],
  ] as const;
  const boxes = { g: 'single-coil', swi: 'switcher-4', amp: 'one-channel-amp', cab: 'cab-112' };
  test('without a house the loudspeaker on stage', () =>
    expect(compiled(rigWith(boxes, leads)).heard).toEqual([
      { from: 'device:g.out', at: 'device:cab.air', as: 'sounds' },
    ]));
  test('with a house the house', () => {
    const rig = rigWith({ ...boxes, mic: 'cab-mic', foh: 'desk' }, [
      ...leads,
      ['cab.air', 'mic.air'],
      ['mic.out', 'foh.ch1'],
    ]);
    expect(compiled(rig).heard).toEqual([{ from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' }]);
  });
  test('an instrument that is not wired does not count', () => {
    const rig = rigWith({ spare: 'humbucker', ...boxes }, leads);
    expect(compiled(rig).heard[0]!.from).toBe('device:g.out');
  });
  test('nothing wired, nothing heard, and no fault is thrown', () =>
    expect(compiled(rigWith({ g: 'single-coil', swi: 'switcher-4' }, [])).heard).toEqual([]));
});

describe('two instruments, each in an input of its own', () => {
  const rig = smallRig({
    boxes: { one: 'bass', two: 'bass', s: 'switcher-8-two-ins', c: 'bass-combo' },
    leads: ['one.out>s.in-a', 'two.out>s.in-b', 's.out-a>c.in'],
    sounds: {
      First: ['s.input=A', 's.output=A'],
      Second: ['s.input=B', 's.output=A'],
      Unsaid: ['s.output=A'],
      Nothing: ['s.input=B', 's.output=B'],
    },
  });
  const heardFrom = (name: string) => {
    const b = bearings(rig, partOf(rig, SMALL)!);
    const sound = all(rig, 'sound').find((s) => s.name === name)!;
    const { heard, problems } = compileSound(b, sound);
    return [heard.map((h) => h.from.split('.')[0]), problems.map((p) => p.is)];
  };
  test('a sound that says the input is played with the one plugged in there', () => {
    expect(heardFrom('First')).toEqual([['device:one'], []]);
    expect(heardFrom('Second')).toEqual([['device:two'], []]);
    expect(heardFrom('Unsaid')).toEqual([['device:one'], []]);
  });
  test('a lead that is missing is not hidden by an instrument that still comes through', () => {
    const pulled = smallRig({
      boxes: { one: 'bass', two: 'bass', s: 'switcher-8', e: 'bass-combo' },
      leads: ['one.out>s.in', 'two.out>e.in'],
      sounds: { Any: [] },
    });
    const b = bearings(pulled, partOf(pulled, SMALL)!);
    const { heard, problems } = compileSound(b, all(pulled, 'sound')[0]!);
    expect([heard.every((h) => h.from.startsWith('device:one')), problems.map((p) => p.is)]).toEqual([
      true,
      heard.map(() => 'silent'),
    ]);
  });
  test('where none comes through it is silent, as with the usual one', () =>
    expect(heardFrom('Nothing')).toEqual([['device:one'], ['silent']]));
});
