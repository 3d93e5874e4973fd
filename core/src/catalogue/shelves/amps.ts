import { theFirst, theItem } from '../../known/the.js';
import type { Actuator, Chain, Slot } from '../../rig/device.js';
import {
  airOut,
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  contactIn,
  doubleContactIn,
  is,
  lineIn,
  mains,
  midiIn,
  midiThru,
  plain,
  power,
  speakerOut,
  stereoFrom,
  thru,
  xlrOut,
  type Generic,
} from '../parts.js';
import { toneMemoryAmp } from './tone-memories.js';

interface HeadOf {
  readonly key: string;
  readonly says: readonly string[];
  readonly code: string;
  readonly channels: readonly string[];
  /** Loop: as usual, beside the direct sound, or none. */
  readonly loop?: 'series' | 'parallel' | 'none';
  readonly midi?: number;
  readonly di?: boolean;
  /** Carries its own loudspeaker. */
  readonly combo?: boolean;
  /** What it gives into 8 ohms. */
  readonly watts?: number;
  readonly kg?: number;
  readonly powerStage?: 'valve' | 'solid state';
}

const preampSlots = (channels: readonly string[]): readonly Slot[] =>
  channels.length > 1
    ? [
        {
          is: 'fork',
          id: 'channels',
          arms: channels.map((c) => ({ id: c, when: is('channel', c), slots: [block(c, 'preamp')] })),
        },
      ]
    : [block('preamp', 'preamp')];

const contactActuators = (channels: readonly string[]): readonly Actuator[] =>
  channels.length < 2
    ? []
    : [
        {
          id: 'contact open',
          by: { contact: 'channel-switch', level: 'open' },
          acts: [{ control: 'channel', set: theFirst(channels) }],
        },
        {
          id: 'contact closed',
          by: { contact: 'channel-switch', level: 'closed' },
          acts: [{ control: 'channel', set: theItem(channels, 1) }],
        },
        {
          id: 'front panel',
          by: { hand: 'channel button' },
          when: [{ jack: 'channel-switch', plugged: false }],
          acts: [{ control: 'channel', step: channels }],
        },
      ];

/** Preamp to send, send normalled to return, return to power amp. */
const head = ({
  key,
  says,
  code,
  channels,
  loop = 'series',
  midi,
  di,
  combo,
  kg = 18,
  watts = 50,
  powerStage = 'valve',
  // eslint-disable-next-line max-lines-per-function -- a box is said in one piece, from its jacks to its memories
}: HeadOf): Generic => {
  const parallel: Chain[] = [
    chain(
      'preamp',
      'in',
      [
        ...preampSlots(channels),
        {
          is: 'insert',
          id: 'loop',
          send: [{ at: 'send' }],
          return: [{ at: 'return' }],
          direct: true,
          unpatched: 'through',
        },
      ],
      '#pre',
    ),
  ];
  const series: Chain[] = [
    chain('preamp', 'in', preampSlots(channels), 'send'),
    chain('normal', 'send', [], 'return', { when: [{ jack: 'return', plugged: false }] }),
  ];
  const front =
    loop === 'series'
      ? series
      : loop === 'parallel'
        ? parallel
        : [chain('preamp', 'in', preampSlots(channels), '#pre')];
  const powerIn = loop === 'series' ? 'return' : '#pre';
  const contact = channels.length > 1 && midi === undefined;
  return {
    key,
    says,
    box: {
      code,
      name: theFirst(says),
      zone: 'amp',
      jacks: [
        audioIn('in'),
        ...(loop === 'none'
          ? []
          : [audioOut('send', { level: 'line' }), audioIn('return', { level: 'line', ohm: 47_000 })]),
        { ...speakerOut(), watts },
        ...(contact ? [contactIn('channel-switch')] : []),
        ...(midi === undefined ? [] : [midiIn, midiThru]),
        ...(di ? [xlrOut('di')] : []),
        ...(combo ? [airOut()] : []),
        mains,
      ],
      chains: [
        ...front,
        ...(combo
          ? [
              chain('power', powerIn, [block('power', 'power amp')], '#power'),
              chain('inside', '#power', [block('cabinet', 'cabinet')], 'air', {
                when: [{ jack: 'speaker', plugged: false }],
              }),
              chain('outside', '#power', [], 'speaker', { when: [{ jack: 'speaker', plugged: true }] }),
            ]
          : [chain('power', powerIn, [block('power', 'power amp')], 'speaker')]),
        ...(di ? [chain('direct', loop === 'series' ? 'send' : '#pre', [], 'di')] : []),
        ...(midi === undefined ? [] : [thru]),
      ],
      controls: [
        ...(channels.length > 1 ? [choice('channel', channels, midi === undefined ? {} : { powerUp: 'loaded' })] : []),
        ...(midi === undefined
          ? []
          : [
              {
                id: 'program',
                domain: { min: 0, max: 127, unit: '' },
                powerUp: 'left' as const,
                use: 'sound' as const,
              },
            ]),
      ],
      actuators: contact
        ? contactActuators(channels)
        : midi === undefined
          ? []
          : [{ id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] }],
      memories:
        midi === undefined
          ? []
          : [
              {
                id: 'programs',
                control: 'program',
                stores: ['channel'],
                size: 128,
                shows: { first: 1 },
                gapMs: 5,
                mutesMs: 20,
                again: 'reloads',
              },
            ],
      ...(midi === undefined ? {} : { midi: { channel: midi, messages: 'queued' as const } }),
      ...(combo ? { ends: [{ at: 'air', is: 'stage' as const, name: 'Stage' }] } : {}),
      figures: { origin: 'assumed', kg, mainsEarth: true, powerStage },
    },
  };
};

/** One stereo jack for a foot switch with two buttons: the tip chooses the channel, the ring takes the boost in. */
const withDoubleSwitch = (key: string, says: readonly string[], code: string): Generic => {
  const made = head({ key, says, code, channels: ['clean', 'lead'] });
  const at = (contact: string, control: string, [open, closed]: readonly [string, string]): readonly Actuator[] => [
    { id: `${control} open`, by: { contact, level: 'open' }, acts: [{ control, set: open }] },
    { id: `${control} closed`, by: { contact, level: 'closed' }, acts: [{ control, set: closed }] },
  ];
  return {
    key,
    says,
    box: {
      ...made.box,
      jacks: made.box.jacks.map((j) => (j.kind === 'contact' ? doubleContactIn('foot-switch') : j)),
      chains: made.box.chains.map((c) =>
        c.id === 'preamp' ? { ...c, slots: [block('boost', 'boost', { on: is('boost', 'on') }), ...c.slots] } : c,
      ),
      controls: [...made.box.controls, choice('boost', ['off', 'on'])],
      actuators: [
        ...at('foot-switch', 'channel', ['clean', 'lead']),
        ...at('foot-switch:ring', 'boost', ['off', 'on']),
      ],
    },
  };
};

/** Amps, and loudspeakers that carry one. */
export const AMPS: readonly Generic[] = [
  head({
    key: 'valve-head',
    says: ['Two-channel valve head 50 W', 'two-channel head', 'amp head', 'amp', 'valve head'],
    code: 'HED',
    channels: ['clean', 'lead'],
  }),
  head({
    key: 'three-channel-head',
    says: ['Three-channel valve head', 'three-channel head', '3-channel head'],
    code: 'HD3',
    channels: ['clean', 'crunch', 'lead'],
    midi: 1,
    kg: 20,
    watts: 100,
  }),
  head({
    key: 'midi-head',
    says: ['Two-channel head with MIDI', 'midi head', 'head with midi'],
    code: 'HDM',
    channels: ['clean', 'lead'],
    midi: 1,
  }),
  toneMemoryAmp,
  withDoubleSwitch('double-switch-head', ['Two-channel head with boost', 'head with boost', 'amp with boost'], 'HDB'),
  head({
    key: 'parallel-loop-head',
    says: ['Head with a parallel effects loop', 'head with parallel loop'],
    code: 'HDP',
    channels: ['clean', 'lead'],
    loop: 'parallel',
  }),
  head({
    key: 'one-channel-amp',
    says: ['One-channel amp', 'small amp', 'simple amp', 'single-channel amp'],
    code: 'AMP',
    channels: ['preamp'],
    watts: 20,
  }),
  head({
    key: 'plain-amp',
    says: ['Amp without an effects loop', 'vintage amp', 'amp without loop'],
    code: 'AMV',
    channels: ['preamp'],
    loop: 'none',
    kg: 14,
    watts: 20,
  }),
  head({
    key: 'combo',
    says: ['Combo amp', 'combo', 'one-channel combo'],
    code: 'CMB',
    channels: ['preamp'],
    combo: true,
    kg: 17,
    watts: 30,
  }),
  head({
    key: 'combo-two-channel',
    says: ['Two-channel combo', '2-channel combo'],
    code: 'CM2',
    channels: ['clean', 'lead'],
    combo: true,
    kg: 20,
    watts: 40,
  }),
  head({
    key: 'bass-head',
    says: ['Bass head', 'bass amp', 'bass amp head'],
    code: 'BHD',
    channels: ['preamp'],
    di: true,
    kg: 4,
    powerStage: 'solid state',
    watts: 300,
  }),
  head({
    key: 'bass-combo',
    says: ['Bass combo'],
    code: 'BCM',
    channels: ['preamp'],
    di: true,
    combo: true,
    kg: 16,
    powerStage: 'solid state',
    watts: 150,
  }),
  head({
    key: 'acoustic-amp',
    says: ['Acoustic amp', 'amp for acoustic'],
    code: 'ACA',
    channels: ['preamp'],
    combo: true,
    di: true,
    kg: 11,
    powerStage: 'solid state',
    watts: 60,
  }),
  plain(
    'power-amp',
    ['Power amp', 'solid-state power amp'],
    'PWR',
    'amp',
    [audioIn('in', { level: 'line' }), { ...speakerOut(), watts: 100 }],
    [chain('power', 'in', [block('power', 'power amp')], 'speaker')],
    undefined,
    { origin: 'assumed', kg: 3, powerStage: 'solid state' },
  ),
  plain(
    'stereo-power-amp',
    ['Stereo power amp'],
    'SPW',
    'amp',
    [
      lineIn('in-l'),
      lineIn('in-r'),
      { ...speakerOut('speaker-l'), watts: 100 },
      { ...speakerOut('speaker-r'), watts: 100 },
      mains,
    ],
    [
      chain('left', 'in-l', [block('left', 'power amp')], 'speaker-l'),
      chain('right', 'in-r', [block('right', 'power amp')], 'speaker-r'),
      chain('mono', 'in-l', [], 'in-r', { when: [{ jack: 'in-r', plugged: false }] }),
    ],
    undefined,
    { origin: 'assumed', kg: 4, mainsEarth: true, powerStage: 'solid state' },
  ),
  plain(
    'powered-speaker',
    ['Powered full-range speaker', 'full-range speaker', 'powered monitor'],
    'PFR',
    'outputs',
    [lineIn('in', { balanced: true, connector: 'combo' }), mains],
    [chain('path', 'in', [block('power', 'power amp')], '#stage')],
    [{ at: '#stage', is: 'stage', name: 'Full-range speaker' }],
    { origin: 'assumed', kg: 13, mainsEarth: true },
  ),
  plain(
    'stereo-return-amp',
    ['Stereo power amp with two speakers for effects', 'wet amp'],
    'WET',
    'amp',
    [lineIn('in-l'), lineIn('in-r'), airOut('air-l'), airOut('air-r'), power(3000)],
    [
      {
        id: 'path',
        from: stereoFrom('in-l', 'in-r'),
        slots: [block('power', 'power amp', { width: 'each' }), block('cabinet', 'cabinet', { width: 'each' })],
        to: [
          { at: 'air-l', leg: 'left' },
          { at: 'air-r', leg: 'right' },
        ],
      },
    ],
    [
      { at: 'air-l', is: 'stage', name: 'Wet left' },
      { at: 'air-r', is: 'stage', name: 'Wet right' },
    ],
  ),
];
