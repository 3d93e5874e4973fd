import { after } from './after.js';
import { Random } from './random.js';
import { smallRig } from './small-rig.js';
import { callersIn, callFrom } from '../src/edits/calls.js';
import { giveSlots } from '../src/edits/sounds.js';
import type { Program } from '../src/rig/program.js';
import { partOf, soundsInOrder, type Rig } from '../src/rig/rig.js';

const STAGES = ['drive', 'delay', 'reverb', 'eq', 'mod'];
const AMOUNTS = ['drive-gain', 'drive-level', 'delay-mix', 'delay-time', 'reverb-mix'];

const amountOf = (id: string, r: Random): number => r.int(1, 4) * (id === 'drive-level' ? 2 : 20);

/**
 * A modeller that calls its own presets and scenes, with a reverb that it sends to and an amp whose channel it closes;
 * a move on its own switch; sounds that want this and that of it.
 */
export const randomModeller = (seed: number): Rig => {
  const r = new Random(seed);
  const sounds = Object.fromEntries(
    Array.from({ length: r.int(2, 5) }, (_, n) => [
      `Sound ${n}`,
      [
        r.chance(50) ? 'm.amp-a' : 'm.amp-b',
        'm.cab-a',
        r.chance(50) ? 'h.clean' : 'h.lead',
        ...STAGES.filter(() => r.chance(40)).map((s) => `m.${s}`),
        ...AMOUNTS.filter(() => r.chance(30)).map((a) => `m.${a}=${amountOf(a, r)}`),
        ...(r.chance(60) ? ['r.reverb', `r.program=${r.int(0, 9)}`] : []),
      ],
    ]),
  );
  const bare = smallRig({
    boxes: { g: 'single-coil', m: 'modeller-two-loops', r: 'stereo-reverb', h: 'valve-head', c: 'cab-212' },
    leads: [
      'g.out>m.in',
      'm.send1>h.in',
      'h.send>m.return1',
      'm.out-l>r.in-l',
      'r.out-l>h.return',
      'h.speaker>c.in',
      'm.midi-out>r.midi-in',
      'm.ctl1>h.channel-switch',
    ],
    sounds,
  });
  const slotted = after(bare, giveSlots(bare));
  const scenes = callersIn(slotted).find((c) => c.isScene)!;
  const placed = soundsInOrder(slotted).reduce(
    (rig, s) => (r.chance(50) ? after(rig, callFrom(rig, partOf(rig, s.id)!, scenes, r.int(0, 7))) : rig),
    slotted,
  );
  return after(placed, {
    put: [
      {
        kind: 'move',
        id: 'move:solo',
        name: 'Solo',
        at: [{ device: 'device:m', switch: 'E' }],
        sounds: 'all',
        latch: r.chance(50),
        on: [
          { control: 'device:m.drive', is: 'on' },
          { control: 'device:m.drive-level', is: 6 },
        ],
        off: [],
      },
    ],
    remove: [],
  });
};

/** A controller calls presets and scenes of a modeller over MIDI; some of them are written down, others nobody knows. */
export const randomCalledModeller = (seed: number): Rig => {
  const r = new Random(seed);
  const sounds = Object.fromEntries(
    Array.from({ length: r.int(2, 5) }, (_, n) => [
      `Sound ${n}`,
      [
        `m.program=${r.int(0, 2)}`,
        ...(r.chance(80) ? [`m.scene=${r.int(0, 2)}`] : []),
        'm.amp-a',
        'm.cab-a',
        ...STAGES.filter(() => r.chance(40)).map((s) => `m.${s}`),
        ...AMOUNTS.filter(() => r.chance(20)).map((a) => `m.${a}=${amountOf(a, r)}`),
      ],
    ]),
  );
  const isInPath = r.chance(50);
  const bare = smallRig({
    boxes: { g: 'single-coil', s: isInPath ? 'switcher-8' : 'midi-controller', m: 'modeller-two-loops', d: 'desk' },
    leads: [
      ...(isInPath ? ['g.out>s.in', 's.out>m.in'] : ['g.out>m.in']),
      'm.out-l>d.ch1',
      'm.out-r>d.ch2',
      's.midi-out>m.midi-in',
    ],
    sounds,
  });
  const modeller = partOf(bare, 'device:m')!;
  const written = modeller.memories.flatMap((memory) =>
    [0, 1, 2].flatMap((number) =>
      (memory.inside === undefined ? [undefined] : [undefined, 0, 1, 2]).flatMap((of): Program[] => {
        if (!r.chance(50)) return [];
        const stored = memory.stores.filter((id) => STAGES.includes(id) || AMOUNTS.includes(id));
        const contents = Object.fromEntries(
          stored.map((id) => [id, STAGES.includes(id) ? (r.chance(50) ? 'on' : 'off') : amountOf(id, r)] as const),
        );
        return [
          {
            kind: 'program',
            id: `program:${memory.id}-${of ?? 'all'}-${number}`,
            device: 'device:m',
            memory: memory.id,
            number,
            ...(of === undefined ? {} : { of }),
            name: `P${number}`,
            contents,
            acts: [],
            assigns: [],
          },
        ];
      }),
    ),
  );
  return after(after(bare, giveSlots(bare)), { put: written, remove: [] });
};
