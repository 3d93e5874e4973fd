import { makeDevice } from '../catalogue/make.js';
import type { Message } from '../rig/act.js';
import type { Device } from '../rig/device.js';
import type { Program } from '../rig/program.js';
import { NOT_KNOWN } from '../rig/program.js';
import { Box } from './box.js';

interface World {
  readonly box: Box;
  readonly sent: [string, Message][];
  readonly contacts: [string, boolean][];
}

const program = (number: number, contents: Program['contents'], more: Partial<Program> = {}): Program => ({
  kind: 'program',
  id: `program:${number}`,
  device: 'device:x',
  memory: 'programs',
  number,
  name: `P${number}`,
  contents,
  acts: [],
  assigns: [],
  ...more,
});

const world = (
  device: Device,
  programs: readonly Program[] = [],
  closed: readonly string[] = [],
  chosen: Readonly<Record<string, string | number>> = {},
): World => {
  const sent: [string, Message][] = [];
  const contacts: [string, boolean][] = [];
  let now = 0;
  const box = new Box(device, {
    now: () => (now += 1_000_000),
    plan: () => undefined,
    sendMidi: (jack, message) => sent.push([jack, message]),
    contact: (jack, is) => contacts.push([jack, is]),
    plugged: () => true,
    contactAt: (jack) => closed.includes(jack),
    program: (memory, number) => programs.find((p) => p.memory === memory && p.number === number),
    changed: () => undefined,
    silent: () => undefined,
  });
  for (const c of device.controls) box.values.set(c.id, chosen[c.id] ?? '');
  box.wake((c) => chosen[c]);
  return { box, sent, contacts };
};
const bytes = ({ box }: World, ...list: number[]) =>
  list.map((b) => box.hear('midi-in', b)).filter((r) => r !== undefined);
const delay = (change: (d: Device) => Device = (d) => d) =>
  change(makeDevice('stereo-delay', 'device:x', { channel: 3 }));
const PROGRAMS = [program(4, { on: 'on', mix: 22 }), program(5, { on: 'off', mix: 50 })];

describe('a box with programs', () => {
  test('wakes in its program with its contents', () =>
    expect(world(delay(), PROGRAMS, [], { program: 5 }).box.values.get('mix')).toBe(50));
  test('a program that nobody wrote down brings what is not known', () =>
    expect(world(delay(), PROGRAMS, [], { program: 99 }).box.values.get('on')).toBe(NOT_KNOWN));
  test('a program change on its channel loads, on another it does not', () => {
    const w = world(delay(), PROGRAMS, [], { program: 5 });
    expect(bytes(w, 0xc3, 4).map((r) => r.reacts)).toEqual([false]);
    expect(bytes(w, 0xc2, 4).map((r) => r.reacts)).toEqual([true]);
    expect([w.box.values.get('program'), w.box.values.get('on'), w.box.values.get('mix')]).toEqual([4, 'on', 22]);
  });
  test('omni: it answers to every channel', () =>
    expect(
      bytes(
        world(
          delay((d) => ({ ...d, midi: { ...d.midi!, omni: true } })),
          PROGRAMS,
        ),
        0xcf,
        4,
      )[0]!.reacts,
    ).toBe(true));
  test.each([
    ['reloads', 22],
    ['nothing', 90],
  ] as const)('choosing the same program again: %s', (again, mix) => {
    const w = world(
      delay((d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, again })) })),
      PROGRAMS,
      [],
      { program: 4 },
    );
    bytes(w, 0xb2, 20, 114);
    expect(w.box.values.get('mix')).toBe(90);
    bytes(w, 0xc2, 4);
    expect(w.box.values.get('mix')).toBe(mix);
  });
  test('a number beyond its memory is ignored', () => {
    const w = world(
      delay((d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, size: 5 })) })),
      PROGRAMS,
      [],
      { program: 4 },
    );
    bytes(w, 0xc2, 60);
    expect(w.box.values.get('program')).toBe(4);
  });
  test('bank select before the program change reaches beyond 128, and holds until it is changed', () => {
    const w = world(
      delay((d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, size: 600 })) })),
      [program(200, { on: 'on', mix: 7 })],
    );
    bytes(w, 0xb2, 0, 0, 32, 1, 0xc2, 72);
    expect([w.box.values.get('program'), w.box.values.get('mix')]).toEqual([200, 7]);
    bytes(w, 0xc2, 0);
    expect(w.box.values.get('program')).toBe(128);
  });
  test('a control change below and above the half', () => {
    const w = world(delay(), PROGRAMS, [], { program: 4 });
    bytes(w, 0xb2, 102, 63);
    expect(w.box.values.get('on')).toBe('off');
    bytes(w, 0xb2, 102, 64);
    expect(w.box.values.get('on')).toBe('on');
  });
  test('a controller that it does not know', () =>
    expect(bytes(world(delay(), PROGRAMS), 0xb2, 7, 100)[0]!.reacts).toBe(false));
});

describe('a box with a contact input', () => {
  const head = makeDevice('valve-head', 'device:x');
  test('a latching input follows the level, also when the box wakes', () => {
    expect(world(head, [], ['channel-switch'], { channel: 'clean' }).box.values.get('channel')).toBe('lead');
    const w = world(head, [], [], { channel: 'lead' });
    expect(w.box.values.get('channel')).toBe('clean');
    w.box.contactChanged('channel-switch', true);
    expect(w.box.values.get('channel')).toBe('lead');
  });
  test('a pulse input acts on the edge and does not care what it finds', () => {
    const pulsed: Device = {
      ...head,
      actuators: [
        {
          id: 'pulse',
          by: { contact: 'channel-switch', edge: 'closing' },
          acts: [{ control: 'channel', toggle: ['clean', 'lead'] }],
        },
      ],
    };
    const w = world(pulsed, [], ['channel-switch'], { channel: 'clean' });
    expect(w.box.values.get('channel')).toBe('clean');
    w.box.contactChanged('channel-switch', true);
    w.box.contactChanged('channel-switch', false);
    expect(w.box.values.get('channel')).toBe('lead');
  });
});

describe('a switcher', () => {
  const slots = [
    { ...program(0, { loop1: 'on', ctl1: 'open' }), memory: 'slots' },
    {
      ...program(
        1,
        { loop1: 'off', ctl1: 'closed' },
        { acts: [{ send: { pc: 9, channel: 3 }, at: 'midi-out' }, { pulse: 'ctl2' }] },
      ),
      memory: 'slots',
    },
  ];
  test('a stomp loads the slot of the bank that shows, moves its relays and sends its messages', () => {
    const w = world(makeDevice('switcher-8', 'device:x'), slots);
    w.contacts.length = 0;
    expect(w.box.touch('B')).toBe(true);
    expect([w.box.values.get('slot'), w.box.values.get('loop1'), w.box.isClosed('ctl1')]).toEqual([1, 'off', true]);
    expect(w.sent).toEqual([['midi-out', { pc: 9, channel: 3 }]]);
    expect(w.contacts).toEqual([
      ['ctl1', true],
      ['ctl2', true],
      ['ctl2', false],
    ]);
  });
  test('bank up and down go round', () => {
    const w = world(makeDevice('switcher-8', 'device:x'), slots);
    w.box.touch('down');
    expect(w.box.values.get('bank')).toBe(32);
    w.box.touch('up');
    expect(w.box.values.get('bank')).toBe(1);
  });
  test('a switch that is not there does nothing', () =>
    expect(world(makeDevice('switcher-8', 'device:x'), slots).box.touch('Z')).toBe(false));
});

describe('gestures of one foot', () => {
  const made = makeDevice('low-drive', 'device:x');
  const device = {
    ...made,
    controls: [
      ...made.controls,
      { id: 'mode', domain: { values: ['a', 'b', 'c'] }, powerUp: { at: 'a' }, use: 'sound' as const },
    ],
    actuators: [
      ...made.actuators,
      { id: 'held', by: { foot: 'switch', gesture: 'hold' as const }, acts: [{ control: 'mode', set: 'b' }] },
      { id: 'double', by: { foot: 'switch', gesture: 'twice' as const }, acts: [{ control: 'mode', set: 'c' }] },
    ],
  };
  test.each([
    ['press', 'a', true],
    ['hold', 'b', true],
    ['twice', 'c', true],
    ['release', 'a', false],
  ] as const)('%s does what the box says of it and nothing else', (gesture, mode, does) => {
    const w = world(device, [], [], { on: 'off' });
    expect([w.box.touch('switch', gesture), w.box.values.get('mode'), w.box.hasGesture('switch', gesture)]).toEqual([
      does,
      mode,
      does,
    ]);
    expect(w.box.values.get('on')).toBe(gesture === 'press' ? 'on' : 'off');
  });
  test('an expression input scales what the pedal does, and a dark box does nothing', () => {
    const w = world({
      ...device,
      actuators: [
        {
          id: 'swell',
          by: { expression: 'exp' },
          acts: [
            {
              control: 'mode',
              map: [
                [0, 63, 'a'],
                [64, 127, 'c'],
              ],
            },
          ],
        },
      ],
    });
    w.box.pedal('exp', 100);
    expect(w.box.values.get('mode')).toBe('c');
    w.box.goDark();
    w.box.pedal('exp', 0);
    expect([w.box.values.get('mode'), w.box.touch('switch')]).toEqual(['c', false]);
  });
});
