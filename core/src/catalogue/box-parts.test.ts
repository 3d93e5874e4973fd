import { after } from '../../testing/after.js';
import type { Device } from '../rig/device.js';
import { all, newRig, partOf } from '../rig/rig.js';
import { CATALOGUE, generic } from './boxes.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { viewOf } from '../derive/views/view.js';
import {
  blankBox,
  JACK_WAYS,
  rangeText,
  readRange,
  setByText,
  wayOf,
  withChannel,
  withOwnSwitches,
  withPrograms,
  withSetBy,
} from './box-parts.js';
import { audioIn, choice, contactIn, midiIn } from './parts.js';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};

test('a blank box can be put into a rig as it is', () => {
  expect(all(after(newRig('R'), { put: [blankBox('device:x')], remove: [] }), 'device')).toHaveLength(1);
});

describe('ranges as text', () => {
  test('every range of the catalogue comes back from its text', () => {
    for (const { box } of CATALOGUE)
      for (const { domain } of box.controls) expect(value(readRange(rangeText(domain)))).toEqual(domain);
  });
  test.each([
    ['on', /is no range/],
    ['a, a', /is no range/],
    ['5..2 dB', /5 is not below 2\. Say the least first/],
    ['', /is no range/],
  ])('"%s" is refused', (text, says) => {
    const r = readRange(text);
    expect(r.ok ? '' : `${r.error[0]!.wrong} ${r.error[0]!.would}`).toMatch(says);
  });
  test('units and steps', () =>
    expect(value(readRange(' -12 .. 12 dB by 0.5 '))).toEqual({ min: -12, max: 12, unit: 'dB', step: 0.5 }));
});

describe('jacks', () => {
  test('every jack of the catalogue has a way that says its poles', () => {
    for (const { box } of CATALOGUE) for (const jack of box.jacks) expect(JACK_WAYS[wayOf(jack)]).toEqual(jack.poles);
  });
});

describe('what sets a control', () => {
  test('a box of the catalogue says it; said again it stays the same', () => {
    const { box } = generic('stereo-delay');
    expect(setByText(box, 'on')).toBe('cc 102, foot');
    expect(value(withSetBy(box, 'on', 'foot, cc 102'))).toEqual(box);
  });
  test('a word more brings an actuator, a word less takes it away', () => {
    const { box } = generic('stereo-delay');
    const less = value(withSetBy(box, 'on', 'cc 102'));
    expect(setByText(less, 'on')).toBe('cc 102');
    expect(setByText(less, 'mix')).toBe('cc 20');
    const more = value(withSetBy(less, 'on', 'CC 102, cc 80 turns'));
    expect(more.actuators.at(-1)).toMatchObject({
      by: { midi: 'cc', number: 80 },
      acts: [{ control: 'on', toggle: ['off', 'on'] }],
    });
  });
  test('values share the range of a controller between them, an amount is scaled', () => {
    const box: Pick<Device, 'actuators' | 'controls' | 'jacks'> = {
      jacks: [],
      actuators: [],
      controls: [choice('mode', ['a', 'b', 'c']), { ...choice('mix', []), domain: { min: 0, max: 10, unit: '' } }],
    };
    expect(value(withSetBy(box, 'mode', 'cc 5')).actuators[0]!.acts).toEqual([
      {
        control: 'mode',
        map: [
          [0, 42, 'a'],
          [43, 85, 'b'],
          [86, 127, 'c'],
        ],
      },
    ]);
    expect(value(withSetBy(box, 'mix', 'cc 5')).actuators[0]!.acts).toEqual([{ control: 'mix', scale: [0, 10] }]);
    expect(value(withSetBy(box, 'mode', 'foot')).actuators[0]!.acts).toEqual([
      { control: 'mode', step: ['a', 'b', 'c'] },
    ]);
  });
  test('contacts and a pedal, by the name of their jack', () => {
    const box: Pick<Device, 'actuators' | 'controls' | 'jacks'> = {
      jacks: [
        contactIn('remote'),
        { id: 'exp', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'in', ring: 'out' } },
      ],
      actuators: [],
      controls: [choice('on', ['off', 'on']), { ...choice('mix', []), domain: { min: 0, max: 10, unit: '' } }],
    };
    const lasting = value(withSetBy(box, 'on', 'contact remote'));
    expect(lasting.actuators.map((a) => [a.by, a.acts])).toEqual([
      [{ contact: 'remote', level: 'open' }, [{ control: 'on', set: 'off' }]],
      [{ contact: 'remote', level: 'closed' }, [{ control: 'on', set: 'on' }]],
    ]);
    expect(setByText(lasting, 'on')).toBe('contact remote');
    expect(value(withSetBy(lasting, 'on', 'contact remote'))).toEqual(lasting);
    expect(value(withSetBy(lasting, 'on', 'pulse remote')).actuators).toMatchObject([
      { by: { contact: 'remote', edge: 'closing' }, acts: [{ toggle: ['off', 'on'] }] },
    ]);
    expect(value(withSetBy(box, 'mix', 'pedal exp')).actuators).toMatchObject([
      { by: { expression: 'exp' }, acts: [{ scale: [0, 10] }] },
    ]);
    const within = value(withSetBy(box, 'mix', 'pedal exp 2..6'));
    expect([
      within.actuators[0]!.acts,
      setByText(within, 'mix'),
      value(withSetBy(within, 'mix', 'pedal exp 2..6')),
    ]).toEqual([[{ control: 'mix', scale: [2, 6] }], 'pedal exp 2..6', within]);
    expect(withSetBy(box, 'mix', 'pedal exp 2..60').ok).toBe(false);
    const nowhere = withSetBy(box, 'on', 'contact exp');
    expect(nowhere.ok ? '' : nowhere.error[0]!.would).toContain('such a jack (remote, exp)');
  });
  test.each(['cc 300', 'telepathy', 'foot on mix', 'pedal exp'])('"%s" is refused with what would do', (word) => {
    const r = withSetBy({ jacks: [], actuators: [], controls: [choice('mode', ['a', 'b'])] }, 'mode', word);
    expect(r.ok ? '' : r.error[0]!.would).toContain('Say foot, cc 20');
  });
});

test('a box given programs holds its controls of sound and can be put into a rig', () => {
  const box = {
    ...blankBox('device:x'),
    jacks: [audioIn('in'), { ...audioIn('out'), poles: { tip: 'out' as const } }, midiIn],
    controls: [choice('on', ['off', 'on']), choice('global', ['a', 'b'], { use: 'setting' })],
  };
  const programmed = withPrograms(box);
  expect(programmed.memories[0]!.stores).toEqual(['on']);
  expect(all(after(newRig('R'), { put: [programmed], remove: [] }), 'device')[0]!.midi?.channel).toBe(1);
  expect(withPrograms(programmed).memories).toHaveLength(1);
});

test('a box that answers to a controller answers on a channel', () => {
  const box = { ...blankBox('device:one'), controls: [choice('on', ['off', 'on'])] };
  expect(withChannel(box)).toBe(box);
  const told = withChannel(value(withSetBy(box, 'on', 'cc 20')));
  expect(told.midi).toEqual({ channel: 1, messages: 'lost' });
  expect(withChannel({ ...told, midi: { channel: 7, messages: 'queued' } }).midi!.channel).toBe(7);
});
test('a box whose own switches call its programs: sounds are called there and come back, bank by bank as it shows them', () => {
  const made = smallRig({
    boxes: { g: 'single-coil', m: 'modeller', p: 'powered-speaker' },
    leads: ['g.out>m.in', 'm.out-l>p.in'],
    sounds: { Clean: [], Echo: ['m.delay'] },
    with: (part) =>
      part.kind === 'device' && part.id === 'device:m'
        ? withOwnSwitches(part)
        : part.kind === 'sound'
          ? { ...part, calls: [{ device: 'device:m', memory: 'presets', slot: part.at + 3 }] }
          : part,
  });
  const d = deriveOnce(made, SMALL)!;
  expect(viewOf(d).sounds.map((s) => [s.slot, s.verdict])).toEqual([
    ['2A', 'proved'],
    ['2B', 'proved'],
  ]);
  const box = partOf(made, 'device:m')!;
  expect(withOwnSwitches(box)).toBe(box);
});
