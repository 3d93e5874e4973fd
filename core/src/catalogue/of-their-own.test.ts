import { after } from '../../testing/after.js';
import { Random } from '../../testing/random.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { proveRig, replayAll, walk } from '../../testing/walk.js';
import { giveSlots } from '../edits/sounds.js';
import type { Control, Device } from '../rig/device.js';
import { splitRef, type Ref } from '../rig/ids.js';
import { partOf, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { restingState } from '../signal/graph/state.js';
import { trace } from '../signal/graph/trace.js';
import { wire } from '../signal/graph/wiring.js';
import { makeDevice } from './make.js';
import { understand } from './kit-line/kit-line.js';

/** Boxes with programs, channels or ways of their own, each with ways in which people say that they have one. */
const SAID: Readonly<Record<string, readonly string[]>> = {
  modeller: ['modeller on the floor', 'small floor modeller', 'digital modeller with one loop'],
  'modeller-two-loops': ['modeller with two loops', 'large modeller', 'two-loop modeller'],
  'modeller-rack': ['rack modeller', 'modeller in a rack', 'rackmount modeller'],
  'amp-sim-loop': ['amp simulation with a loop and presets', 'amp sim with loop', 'amp simulator with a loop'],
  'multi-two-loops': ['multi-effect with two loops', 'two-loop multi-effect', 'multi fx with 2 loops'],
  'preset-delay': [
    'delay with presets and its own switches',
    'preset delay with three footswitches',
    'stereo delay, own preset switches',
  ],
  'preset-reverb': [
    'reverb with presets and its own switches',
    'stereo reverb with its own preset switches',
    'digital reverb with presets on its own footswitches',
  ],
  'preset-modulation': [
    'modulation with presets on its own switches',
    'mod with presets and its own switches',
    'modulation with own switches',
  ],
  'preset-delay-reverb': [
    'delay and reverb with presets and footswitches',
    'delay and reverb in one with its own switches',
    'ambience box with own preset switches',
  ],
  'preamp-two-channel': [
    'preamp pedal with two channels and a loop',
    'two channel preamp with fx loop',
    'valve preamp pedal, two channels, loop',
  ],
  'tone-memory-head': ['head with midi and tone memories', 'amp with four tone memories', 'programmable amp'],
  'looper-station': ['looper station with tracks and outputs', 'looper with three tracks', 'loop station, two outputs'],
  'dual-compressor': ['dual compressor', 'two compressors in one box', 'dual comp'],
  'small-controller': [
    'small MIDI controller with four switches',
    'compact MIDI foot controller',
    'small programmable controller',
  ],
  'ab-midi': ['ABY with midi', 'midi a/b box', 'A/B selector with MIDI'],
  'abc-any': ['any two of three amps', 'three-amp selector, any two', 'abc box, any combination'],
  'abc-midi': [
    'amp selector for three amps, any two, midi',
    'MIDI amp selector for three amps',
    'three-amp selector with midi',
  ],
  'switcher-8-two-ins': [
    'eight-loop switcher with two inputs, two outputs, mute with tuner out and six contacts',
    '8 loop switcher, 2 in, 2 out, orderable, carry-over',
    'loop switcher with two inputs and two outputs',
  ],
  'switcher-8-parallel': [
    '8-loop switcher with parallel loops',
    'parallel loop switcher',
    'eight-loop parallel switcher',
  ],
  'loop-rack-8': ['loop rack with midi', 'rack loop switcher', 'eight-loop rack switcher'],
  'loop-rack-4': ['four-loop rack switcher, midi', 'four loops in a rack with midi', '4-loop rack switcher'],
  'mute-tuner-out': ['mute switch with tuner out', 'mute pedal with tuner output', 'mute box, tuner out'],
};
const boxes = Object.keys(SAID).map((key) => [key, makeDevice(key, 'device:b')] as const);

test.each(Object.entries(SAID))('%s is understood as people say it', (key, sayings) => {
  expect(sayings.length).toBeGreaterThanOrEqual(3);
  expect(
    sayings.map((say) =>
      understand(say).heard.map((h) => (h.is === 'taken' ? `${h.count} ${h.box.key}` : `${h.is}: ${h.said}`)),
    ),
  ).toEqual(sayings.map(() => [`1 ${key}`]));
});

const ends = ({ domain }: Control): readonly [Value, Value] =>
  'values' in domain
    ? [domain.values[0]!, domain.values.at(-1)!]
    : 'min' in domain
      ? [domain.min, domain.max]
      : [domain.arrange.join(' '), [...domain.arrange].reverse().join(' ')];

/** The programs of a box whose stored controls stand at one end each in one sound, at the other in the next. */
const programmed = boxes.filter(([, box]) => box.memories.some((m) => m.stores.length && !m.inside));
const rigOfPrograms = (key: string, box: Device): Rig => {
  const [memory] = box.memories;
  const stored = memory!.stores.map((id) => box.controls.find((c) => c.id === id)!);
  const sound = (pick: (c: Control, i: number) => Value) => stored.map((c, i) => `b.${c.id}=${pick(c, i)}`);
  const rig = smallRig({
    boxes: { g: 'single-coil', b: key, ...(memory!.by ? {} : { c: 'midi-controller' }) },
    leads: memory!.by ? [] : ['c.midi-out>b.midi-in'],
    sounds: {
      One: sound((c) => ends(c)[0]),
      Other: sound((c) => ends(c)[1]),
      Mixed: sound((c, i) => ends(c)[i % 2]!),
    },
  });
  return after(rig, giveSlots(rig));
};

describe.each(programmed)('%s, preset to preset', (key, box) => {
  const rig = rigOfPrograms(key, box);
  const proved = proveRig(rig, partOf(rig, SMALL)!);
  test('everything that a preset holds comes back, from whatever was stomped before', () =>
    expect([...proved.verdicts.values()].map((v) => v.is)).toEqual(['proved', 'proved', 'proved']));
  test('and comes back on the bench too, stomp after stomp', () => {
    const walked = walk(proved, new Random(1), 300);
    expect(walked.contradictions).toEqual([]);
    expect(walked.recalls).toBeGreaterThan(50);
    expect(replayAll(proved).contradictions).toEqual([]);
  });
});

const isPlugged = ({ kind, id }: { kind: string; id: string }): boolean => kind === 'audio' && !/send|return/.test(id);

/** By output, the inputs that reach it: a guitar in each input, a tuner or a cabinet at each output. */
const reachedIn = (
  key: string,
  values: Readonly<Record<string, Value>>,
): Readonly<Record<string, readonly string[]>> => {
  const jacks = makeDevice(key, 'device:b').jacks.filter(isPlugged);
  const ins = jacks.filter((j) => j.poles.tip === 'in').map((j) => j.id);
  const outs = jacks.filter((j) => j.poles.tip === 'out').map((j) => j.id);
  const isSpeaker = (id: string): boolean => id === 'speaker';
  const heard = outs.filter((id) => !isSpeaker(id));
  const rig = smallRig({
    boxes: {
      b: key,
      ...Object.fromEntries(ins.map((_, i) => [`g${i}`, 'single-coil'])),
      ...Object.fromEntries(heard.map((_, i) => [`t${i}`, 'tuner-tap'])),
      ...(heard.length < outs.length ? { c: 'cab-212' } : {}),
    },
    leads: [
      ...ins.map((id, i) => `g${i}.out>b.${id}`),
      ...heard.map((id, i) => `b.${id}>t${i}.in`),
      ...(heard.length < outs.length ? ['b.speaker>c.in'] : []),
    ],
  });
  const hookup = partOf(rig, SMALL)!;
  const t = trace(
    wire(rig, hookup),
    new Map<Ref, Value>([
      ...restingState(rig, hookup),
      ...Object.entries(values).map(([id, v]): [Ref, Value] => [`device:b.${id}`, v]),
    ]),
  );
  const from = (end: string): readonly string[] => [
    ...new Set(
      t.reaches
        .filter((r) => r.end.ref.startsWith(end))
        .map((r) => ins[Number(splitRef(r.source.ref).device.slice('device:g'.length))]!),
    ),
  ];
  return Object.fromEntries(
    outs.map((id) => [id, from(isSpeaker(id) ? 'device:c.' : `device:t${heard.indexOf(id)}.`)]),
  );
};
describe('jack to jack', () => {
  test.each([
    ['abc-midi', { a: 'on', b: 'off', c: 'on' }, { a: ['in'], b: [], c: ['in'] }],
    ['abc-any', { a: 'off', b: 'on', c: 'on' }, { a: [], b: ['in'], c: ['in'] }],
    ['ab-midi', { a: 'on', b: 'on' }, { a: ['in'], b: ['in'] }],
    ['mute-tuner-out', { mute: 'on' }, { out: [], tuner: ['in'] }],
    ['mute-tuner-out', { mute: 'off' }, { out: ['in'], tuner: ['in'] }],
    [
      'switcher-8-two-ins',
      { input: 'B', output: 'A', mute: 'off' },
      { 'out-a': ['in-b'], 'out-b': [], tuner: ['in-b'] },
    ],
    [
      'switcher-8-two-ins',
      { input: 'both', output: 'both', mute: 'on' },
      { 'out-a': [], 'out-b': [], tuner: ['in-a', 'in-b'] },
    ],
    ['preamp-two-channel', { on: 'on', channel: 'lead' }, { out: ['in'] }],
    ['dual-compressor', { first: 'off', second: 'on' }, { out: ['in'] }],
    ['tone-memory-head', { channel: 'crunch', loop: 'off' }, { speaker: ['in'] }],
    [
      'modeller-rack',
      { amp: 'both', cab: 'A' },
      { 'out-l': ['in'], 'out-r': ['in'], 'xlr-l': ['in'], 'xlr-r': ['in'] },
    ],
    ['modeller-rack', { mute: 'on' }, { 'out-l': [], 'out-r': [], 'xlr-l': [], 'xlr-r': [] }],
    ['loop-rack-8', {}, { out: ['in'] }],
    ['looper-station', { out2: 'sub' }, { 'main-l': ['in1'], 'main-r': ['in1'], sub: ['in2'] }],
    ['preset-delay', { delay: 'on' }, { 'out-l': ['in-l'], 'out-r': ['in-r'] }],
  ] as const)('%s %j', (key, values, reached) => {
    expect(reachedIn(key, values)).toEqual(reached);
  });
});
