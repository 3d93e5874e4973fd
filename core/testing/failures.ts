import type { Act } from '../src/rig/act.js';
import type { Actuator, Control, Device } from '../src/rig/device.js';
import type { Id, Ref } from '../src/rig/ids.js';
import type { Program } from '../src/rig/program.js';
import { apply } from '../src/change/apply.js';
import type { Part, Rig } from '../src/rig/rig.js';
import type { Move } from '../src/rig/sound.js';
import { smallRig, type SmallRig } from './small-rig.js';

/** A way in which recall breaks in real life, as a rig that anybody can open. */
export interface Failure {
  readonly file: string;
  readonly title: string;
  readonly rig: Rig;
  /** The finding that tells it, and the sound that it spoils. */
  readonly code: string;
  readonly sound: Id<'sound'>;
  readonly control: Ref;
  /** The way out that cures it. */
  readonly cure: string;
}

type Change = (part: Part) => Part;

const device =
  (id: string, change: (d: Device) => Device): Change =>
  (part) =>
    part.kind === 'device' && part.id === `device:${id}` ? change(part) : part;
const calledBy =
  (...controllers: readonly string[]): Change =>
  (part) =>
    part.kind === 'sound'
      ? {
          ...part,
          calls: controllers.map((c) => ({ device: `device:${c}` as const, memory: 'slots', slot: part.at - 1 })),
        }
      : part;

const build = (
  title: string,
  notes: string,
  rig: SmallRig,
  changes: readonly Change[],
  more: readonly Part[] = [],
): Rig => {
  const made = smallRig({
    ...rig,
    with: (part) =>
      changes.reduce((p, change) => change(p), part.kind === 'about' ? { ...part, name: title, notes } : part),
  });
  const full = apply(made, { put: more, remove: [] });
  if (!full.ok) throw new Error(`${title}: ${JSON.stringify(full.error[0])}`);
  return { ...full.value.rig, revision: 1 };
};

const BOXES = { gtr: 'single-coil', ctl: 'midi-controller', dly: 'stereo-delay', amp: 'powered-speaker' };
const LEADS = ['gtr.out>dly.in-l', 'dly.out-l>amp.in', 'ctl.midi-out>dly.midi-in'];
const WITH_REVERB = {
  boxes: { ...BOXES, rev: 'stereo-reverb' },
  leads: [
    'gtr.out>dly.in-l',
    'dly.out-l>rev.in-l',
    'rev.out-l>amp.in',
    'ctl.midi-out>dly.midi-in',
    'dly.midi-thru>rev.midi-in',
  ],
};
const [DLY, REV] = [3, 4];
const pc = (program: number, channel = DLY): Act => ({ send: { pc: program, channel }, at: 'midi-out' });
const cc = (number: number, value: number, afterMs?: number, channel = DLY): Act => ({
  send: { cc: number, value, channel },
  at: 'midi-out',
  ...(afterMs ? { afterMs } : {}),
});
const [MIX, ON] = [20, 102];

/** A slot as somebody typed it into a controller. */
const typed = (
  controller: string,
  number: number,
  name: string,
  acts: readonly Act[],
  contents: Program['contents'] = {},
): Program => ({
  kind: 'program',
  id: `program:${controller}-slot-${number}`,
  device: `device:${controller}`,
  memory: 'slots',
  number,
  name,
  contents,
  acts,
  assigns: [],
});
const held = (box: string, number: number, name: string, contents: Program['contents']): Program => ({
  kind: 'program',
  id: `program:${box}-${number}`,
  device: `device:${box}`,
  memory: 'programs',
  number,
  name,
  contents,
  acts: [],
  assigns: [],
});
const ECHOES = [held('dly', 3, 'Slap', { on: 'on', mix: 30 }), held('dly', 7, 'Long', { on: 'on', mix: 45 })];
const move = (more: Partial<Move>): Move => ({
  kind: 'move',
  id: 'move:lift',
  name: 'Lift',
  sounds: 'all',
  latch: true,
  at: [{ device: 'device:ctl', switch: 'E' }],
  on: [],
  off: [],
  ...more,
});

const onlyToggles = device('dly', (d) => ({
  ...d,
  actuators: d.actuators.map((a): Actuator =>
    a.id === 'on/off' ? { ...a, acts: [{ control: 'on', toggle: ['off', 'on'] }] } : a,
  ),
}));
const asLeft = device('dly', (d) => ({
  ...d,
  memories: d.memories.map((m) => ({ ...m, stores: m.stores.filter((s) => s !== 'on') })),
  controls: d.controls.map((c): Control => (c.id === 'on' ? { ...c, powerUp: 'left' } : c)),
}));
const withTempo = device('dly', (d) => ({
  ...d,
  controls: [
    ...d.controls,
    { id: 'tempo', name: 'tempo', domain: { min: 40, max: 240, unit: 'bpm' }, powerUp: 'loaded', use: 'sound' },
  ],
  memories: d.memories.map((m) => ({ ...m, stores: [...m.stores, 'tempo'] })),
  actuators: [
    ...d.actuators,
    { id: 'tap', by: { foot: 'tap', gesture: 'press' }, acts: [{ control: 'tempo', take: 'value' }] },
  ],
}));

/** Twelve ways in which recall breaks in real life. */
export const FAILURES: readonly Failure[] = [
  {
    file: '01-toggle-only-bypass',
    title: 'A bypass that only toggles',
    code: 'recall.unpinned',
    sound: 'sound:chorus',
    control: 'device:dly.on',
    cure: 'Chorus: call Stereo delay program 3 “Slap”',
    rig: build(
      'A bypass that only toggles',
      'The delay answers to its on/off message by turning itself over. Whether it ends on depends on how it stood.',
      { boxes: BOXES, leads: LEADS, sounds: { Verse: ['dly.program=7', 'dly.delay'], Chorus: ['dly.delay'] } },
      [calledBy('ctl'), onlyToggles],
      ECHOES,
    ),
  },
  {
    file: '02-program-one-off',
    title: 'A program number that is one off',
    code: 'midi.number-shift',
    sound: 'sound:verse',
    control: 'device:dly.program',
    cure: 'Send 3 instead, shown 3',
    rig: build(
      'A program number that is one off',
      'The slot was typed in as the display counts, the wire counts from 0.',
      { boxes: BOXES, leads: LEADS, sounds: { Verse: ['dly.delay', 'dly.program=3'] } },
      [calledBy('ctl')],
      [...ECHOES, typed('ctl', 0, 'Verse', [pc(4)])],
    ),
  },
  {
    file: '03-move-left-on',
    title: 'A move left on',
    code: 'recall.move-left-on',
    sound: 'sound:chorus',
    control: 'device:dly.mix',
    cure: 'Let Yunta write this slot',
    rig: build(
      'A move left on',
      'Lift raises the mix. Chorus was typed in without the mix, so it keeps what Lift left behind.',
      {
        boxes: BOXES,
        leads: LEADS,
        sounds: { Verse: ['dly.delay', 'dly.mix=30'], Chorus: ['dly.delay', 'dly.mix=30'] },
      },
      [
        calledBy('ctl'),
        device('dly', (d) => ({
          ...d,
          memories: [],
          controls: d.controls
            .filter((c) => c.id !== 'program')
            .map((c): Control => ({ ...c, powerUp: { at: c.id === 'mix' ? 30 : 'on' } })),
          actuators: d.actuators.filter((a) => !('midi' in a.by && a.by.midi === 'pc')),
        })),
      ],
      [
        typed('ctl', 1, 'Chorus', [cc(ON, 127)]),
        move({ sounds: ['sound:verse'], on: [{ control: 'device:dly.mix', is: 80 }] }),
      ],
    ),
  },
  {
    file: '04-let-go-late',
    title: 'A momentary switch let go late',
    code: 'recall.move-left-on',
    sound: 'sound:chorus',
    control: 'device:dly.mix',
    cure: 'Letting go of Lift gives back what each sound wants',
    rig: build(
      'A momentary switch let go late',
      'Lift is held in Verse and let go when Chorus has been called already: its off list is that of Verse.',
      {
        boxes: BOXES,
        leads: LEADS,
        sounds: {
          Verse: ['dly.delay', 'dly.program=3', 'dly.mix=30'],
          Chorus: ['dly.delay', 'dly.program=7', 'dly.mix=45'],
        },
      },
      [calledBy('ctl')],
      [
        ...ECHOES,
        move({
          latch: false,
          on: [{ control: 'device:dly.mix', is: 80 }],
          off: [{ control: 'device:dly.mix', is: 30 }],
        }),
      ],
    ),
  },
  {
    file: '05-lost-while-loading',
    title: 'A message lost while its box loads',
    code: 'midi.load-gap',
    sound: 'sound:verse',
    control: 'device:dly.mix',
    cure: 'Pause 120 ms before what would be missed',
    rig: build(
      'A message lost while its box loads',
      'The mix is sent right behind the program change; the delay loads for 120 ms and hears nothing.',
      { boxes: BOXES, leads: LEADS, sounds: { Verse: ['dly.delay', 'dly.program=3', 'dly.mix=60'] } },
      [calledBy('ctl')],
      [...ECHOES, typed('ctl', 0, 'Verse', [pc(3), cc(MIX, 76)])],
    ),
  },
  {
    file: '06-omni',
    title: 'A box that answers on every channel',
    code: 'midi.crosstalk',
    sound: 'sound:verse',
    control: 'device:dly.program',
    cure: 'Turn omni off on Stereo delay: it answers on channel 3 only',
    rig: build(
      'A box that answers on every channel',
      "The delay was left in omni mode and takes the reverb's program change for its own.",
      { ...WITH_REVERB, sounds: { Verse: ['dly.delay', 'dly.program=3', 'rev.reverb', 'rev.program=5'] } },
      [calledBy('ctl'), device('dly', (d) => ({ ...d, midi: { ...d.midi!, omni: true, messages: 'queued' } }))],
      [...ECHOES, held('rev', 5, 'Hall', { on: 'on', mix: 40 }), typed('ctl', 0, 'Verse', [pc(3), pc(5, REV)])],
    ),
  },
  {
    file: '07-thru-does-not-merge',
    title: 'An output that passes nothing on',
    code: 'midi.unreached',
    sound: 'sound:verse',
    control: 'device:rev.program',
    cure: 'Plug a cable from Stereo delay (midi-thru) to Stereo reverb (midi-in)',
    rig: build(
      'An output that passes nothing on',
      "The reverb hangs on the delay's MIDI out, which sends only what the delay has to say.",
      {
        ...WITH_REVERB,
        leads: [...WITH_REVERB.leads.slice(0, -1), 'dly.midi-out>rev.midi-in'],
        sounds: {
          Verse: ['dly.delay', 'dly.program=3', 'rev.reverb', 'rev.program=5'],
          Dry: ['dly.delay', 'dly.program=7', 'rev.program=0'],
        },
      },
      [
        calledBy('ctl'),
        device('dly', (d) => ({
          ...d,
          jacks: [...d.jacks, { ...d.jacks.find((j) => j.id === 'midi-thru')!, id: 'midi-out' }],
        })),
      ],
      [...ECHOES, held('rev', 5, 'Hall', { on: 'on', mix: 40 }), held('rev', 0, 'Off', { on: 'off', mix: 40 })],
    ),
  },
  {
    file: '08-wakes-as-left',
    title: 'A box that wakes as it was left',
    code: 'recall.unpinned',
    sound: 'sound:verse',
    control: 'device:dly.on',
    cure: 'Let Yunta write this slot',
    rig: build(
      'A box that wakes as it was left',
      'The delay keeps its bypass over power-off, and the slot was typed in without saying it.',
      { boxes: BOXES, leads: LEADS, sounds: { Verse: ['dly.delay', 'dly.program=3'], Dry: ['dly.program=7'] } },
      [calledBy('ctl'), asLeft],
      [held('dly', 3, 'Slap', { mix: 30 }), held('dly', 7, 'Long', { mix: 45 }), typed('ctl', 0, 'Verse', [pc(3)])],
    ),
  },
  {
    file: '09-program-resets-block',
    title: 'A program change that resets what was set before it',
    code: 'recall.unpinned',
    sound: 'sound:verse',
    control: 'device:dly.mix',
    cure: 'Let Yunta write this slot',
    rig: build(
      'A program change that resets what was set before it',
      'The mix is sent first and the program after it: the program brings its own mix.',
      { boxes: BOXES, leads: LEADS, sounds: { Verse: ['dly.delay', 'dly.program=3', 'dly.mix=60'] } },
      [calledBy('ctl')],
      [...ECHOES, typed('ctl', 0, 'Verse', [cc(MIX, 76), pc(3)])],
    ),
  },
  {
    file: '10-pulse-for-latching',
    title: 'A contact that pulses where latching was meant',
    code: 'recall.unpinned',
    sound: 'sound:lead',
    control: 'device:hed.channel',
    cure: 'Let Yunta write this slot',
    rig: build(
      'A contact that pulses where latching was meant',
      'The amp follows the contact as long as it is closed; the slot only pulses it.',
      {
        boxes: { gtr: 'single-coil', swi: 'switcher-4', hed: 'valve-head', cab: 'cab-212' },
        leads: ['gtr.out>swi.in', 'swi.out>hed.in', 'hed.speaker>cab.in', 'swi.ctl1>hed.channel-switch'],
        sounds: { Clean: ['hed.clean'], Lead: ['hed.lead'] },
      },
      [calledBy('swi')],
      [
        typed('swi', 1, 'Lead', [{ pulse: 'ctl1' }], {
          loop1: 'off',
          loop2: 'off',
          loop3: 'off',
          loop4: 'off',
          ctl1: 'open',
        }),
      ],
    ),
  },
  {
    file: '11-two-controllers',
    title: 'Two controllers that fight',
    code: 'recall.unpinned',
    sound: 'sound:verse',
    control: 'device:dly.program',
    cure: 'Let Yunta write this slot',
    rig: build(
      'Two controllers that fight',
      'A small second controller still sends the delay the program of an older set.',
      {
        boxes: { ...BOXES, ct2: 'midi-controller', mrg: 'midi-merge' },
        leads: [
          'gtr.out>dly.in-l',
          'dly.out-l>amp.in',
          'ctl.midi-out>mrg.in1',
          'ct2.midi-out>mrg.in2',
          'mrg.midi-out>dly.midi-in',
        ],
        sounds: { Verse: ['dly.delay', 'dly.program=3'] },
      },
      [calledBy('ctl', 'ct2')],
      [...ECHOES, typed('ct2', 0, 'Verse', [pc(7)])],
    ),
  },
  {
    file: '12-tempo-by-tap',
    title: 'A tempo that only follows tap',
    code: 'recall.hand-move',
    sound: 'sound:slow',
    control: 'device:dly.tempo',
    cure: 'Call a program of its own in 2 sounds',
    rig: build(
      'A tempo that only follows tap',
      'Nothing but a foot on tap sets the tempo of the delay while a song is played without calling one of its programs.',
      {
        boxes: BOXES,
        leads: LEADS,
        sounds: { Slow: ['dly.delay', 'dly.tempo=84'], Fast: ['dly.delay', 'dly.tempo=132'] },
      },
      [calledBy('ctl'), withTempo],
      [
        held('dly', 3, 'Slap', { on: 'on', mix: 30, tempo: 84 }),
        held('dly', 7, 'Long', { on: 'on', mix: 45, tempo: 132 }),
      ],
    ),
  },
];
