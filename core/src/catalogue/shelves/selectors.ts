import { theFirst } from '../../known/the.js';
import type { Actuator, Chain, Control, Jack } from '../../rig/device.js';
import {
  ASSUMED,
  audioIn,
  audioOut,
  chain,
  choice,
  contactIn,
  foot,
  is,
  midiIn,
  midiThru,
  power,
  thru,
  toggles,
  type Generic,
} from '../parts.js';

const select = (
  key: string,
  says: readonly string[],
  code: string,
  jacks: readonly Jack[],
  chains: readonly Chain[],
  values: readonly string[],
): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks,
    chains,
    controls: [choice('select', values)],
    actuators: [foot('switch', { control: 'select', step: values })],
    memories: [],
    figures: { origin: 'assumed', mm: [110, 60, 50], kg: 0.4 },
  },
});

const letterOf = (i: number): string => 'abc'.charAt(i);

/** Ways out that sound each by itself: one, any two, or all. */
const eachWay = (ways: number): Pick<Generic['box'], 'jacks' | 'chains' | 'controls' | 'actuators'> => {
  const outs = Array.from({ length: ways }, (_, i) => letterOf(i));
  return {
    jacks: [audioIn('in'), ...outs.map((o) => audioOut(o))],
    chains: outs.map((o) => chain(`to-${o}`, 'in', [], o, { when: is(o, 'on') })),
    controls: outs.map((o): Control => choice(o, ['off', 'on'], { name: `output ${o.toUpperCase()}` })),
    actuators: outs.map((o) => foot(o.toUpperCase(), toggles(o))),
  };
};

/** A selector that a foot, a contact and a program can turn, each way by itself. */
const onMidi = (key: string, says: readonly string[], code: string, ways: number): Generic => {
  const own = eachWay(ways);
  const outs = own.controls.map((c) => c.id);
  const byContact = outs.flatMap((o): readonly Actuator[] => [
    { id: `contact ${o} closed`, by: { contact: `remote-${o}`, level: 'closed' }, acts: [{ control: o, set: 'on' }] },
    { id: `contact ${o} open`, by: { contact: `remote-${o}`, level: 'open' }, acts: [{ control: o, set: 'off' }] },
  ]);
  return {
    key,
    says,
    box: {
      code,
      name: theFirst(says),
      zone: 'floor',
      jacks: [...own.jacks, ...outs.map((o) => contactIn(`remote-${o}`)), midiIn, midiThru, power(100)],
      chains: [...own.chains, thru],
      controls: [
        { id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' },
        ...own.controls.map((c) => ({ ...c, powerUp: 'loaded' as const })),
      ],
      actuators: [
        { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] },
        ...outs.map((o, i): Actuator => ({
          id: `${o} on/off`,
          by: { midi: 'cc', number: 80 + i },
          acts: [
            {
              control: o,
              map: [
                [0, 63, 'off'],
                [64, 127, 'on'],
              ],
            },
          ],
        })),
        ...own.actuators,
        ...byContact,
      ],
      memories: [
        {
          id: 'programs',
          control: 'program',
          stores: outs,
          size: 128,
          shows: { first: 1 },
          gapMs: 5,
          mutesMs: 2,
          again: 'reloads',
        },
      ],
      midi: { channel: 16, messages: 'queued' },
      figures: { ...ASSUMED, mm: [60 + 50 * ways, 90, 50], kg: 0.6 },
    },
  };
};

const byFoot = (key: string, says: readonly string[], code: string, ways: number): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    ...eachWay(ways),
    memories: [],
    figures: { ...ASSUMED, mm: [60 + 50 * ways, 70, 50], kg: 0.5 },
  },
});

const killSwitch: Generic = {
  key: 'kill-switch',
  says: ['Kill switch', 'mute switch', 'mute pedal'],
  box: {
    code: 'KIL',
    name: 'Kill switch',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out')],
    chains: [chain('path', 'in', [], 'out', { when: is('mute', 'off') })],
    controls: [choice('mute', ['off', 'on'], { use: 'play' })],
    actuators: [foot('switch', toggles('mute'))],
    memories: [],
    figures: { origin: 'assumed', kg: 0.2 },
  },
};

/** Silences what goes on; the tuner still hears. */
const muteSwitch: Generic = {
  key: 'mute-tuner-out',
  says: ['Mute switch with a tuner out', 'mute switch with tuner out', 'mute box with tuner output'],
  box: {
    code: 'MUT',
    name: 'Mute switch with a tuner out',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out'), audioOut('tuner')],
    chains: [
      chain('path', 'in', [], 'out', { when: is('mute', 'off'), passive: true }),
      chain('tap', 'in', [], 'tuner', { passive: true }),
    ],
    controls: [choice('mute', ['off', 'on'], { use: 'play' })],
    actuators: [foot('switch', toggles('mute'))],
    memories: [],
    figures: { ...ASSUMED, mm: [90, 60, 50], kg: 0.3 },
  },
};

const abOut = (key: string, says: readonly string[], code: string, second: Partial<Jack>): Generic =>
  select(
    key,
    says,
    code,
    [audioIn('in'), audioOut('a'), audioOut('b', second)],
    [
      chain('to-a', 'in', [], 'a', { when: is('select', 'a', 'both') }),
      chain('to-b', 'in', [], 'b', { when: is('select', 'b', 'both') }),
    ],
    ['a', 'b', 'both'],
  );

/** What sends the signal to one amp or another, takes it from one guitar or another, or cuts it off. */
export const SELECTORS: readonly Generic[] = [
  abOut('ab-out', ['A/B box', 'amp selector', 'ab box', 'aby'], 'AB', {}),
  abOut('ab-out-isolated', ['A/B box with an isolated output', 'isolated a/b box'], 'ABI', { shield: 'isolated' }),
  select(
    'abc-out',
    ['Three-amp selector', 'abc box', 'three way amp selector'],
    'ABC',
    ['in', 'a', 'b', 'c'].map((j) => (j === 'in' ? audioIn(j) : audioOut(j))),
    ['a', 'b', 'c'].map((o) => chain(`to-${o}`, 'in', [], o, { when: is('select', o, 'all') })),
    ['a', 'b', 'c', 'all'],
  ),
  select(
    'ab-in',
    ['Instrument selector', 'guitar selector', 'a/b selector', 'two guitar input'],
    'SEL',
    [audioIn('a'), audioIn('b'), audioOut('out')],
    [
      chain('from-a', 'a', [], 'out', { when: is('select', 'a') }),
      chain('from-b', 'b', [], 'out', { when: is('select', 'b') }),
    ],
    ['a', 'b'],
  ),
  select(
    'ab-in-both',
    ['Instrument selector that can mix both', 'two-input mixer pedal', 'aby for two guitars'],
    'SLM',
    [audioIn('a'), audioIn('b'), audioOut('out'), power(20)],
    [
      chain('from-a', 'a', [], 'out', { when: is('select', 'a', 'both') }),
      chain('from-b', 'b', [], 'out', { when: is('select', 'b', 'both') }),
    ],
    ['a', 'b', 'both'],
  ),
  byFoot('abc-any', ['Selector for any of three amps', 'any two of three amps'], 'ANY', 3),
  onMidi('ab-midi', ['A/B selector with MIDI', 'midi a/b box', 'midi aby', 'midi amp selector'], 'ABM', 2),
  onMidi(
    'abc-midi',
    ['Three-amp selector with MIDI', 'midi three-amp selector', 'midi amp selector for three amps'],
    'ACM',
    3,
  ),
  killSwitch,
  muteSwitch,
];
