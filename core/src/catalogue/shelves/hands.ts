import { theFirst } from '../../known/the.js';
import type { End, Pickup } from '../../rig/device.js';
import {
  airIn,
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  foot,
  is,
  lineOut,
  midiIn,
  plain,
  power,
  xlrOut,
  type Generic,
  PACK,
} from '../parts.js';

const OUT_OHM = 10_000;

const instrument = (
  key: string,
  says: readonly string[],
  code: string,
  what: NonNullable<End['what']>,
  average: number,
  peak: number,
  /** Its coil, or where it has none the ohms of its output. */
  gives: Pickup | number,
): Generic =>
  plain(
    key,
    says,
    code,
    'hands',
    [audioOut('out', { ohm: typeof gives === 'number' ? gives : OUT_OHM })],
    [],
    [
      {
        at: 'out',
        is: 'source',
        name: theFirst(says),
        what,
        dbu: { average, peak },
        ...(typeof gives === 'number' ? {} : { pickup: gives }),
      },
    ],
    { origin: 'assumed', kg: 3.6 },
  );

/**
 * Coils as they usually are (assumed; single coils about 2.5 H, humbuckers about 4.4 H), each with its knobs at 250 or
 * 500 kilohm and 22 nF at the tone knob (common practice).
 */
const coil = (henry: number, ohm: number, pF: number, knobs: number): Pickup => ({
  henry,
  ohm,
  pF,
  volumeOhm: knobs,
  tone: { ohm: knobs, nF: 22 },
});
const SINGLE = coil(2.5, 6_000, 110, 250_000);
const HUMBUCKER = coil(4.4, 8_000, 130, 500_000);

/** A passive instrument loads its cable with coils; an active one does not. */
const ACTIVE_OHM = 600;

const twoSources = (
  key: string,
  says: readonly string[],
  code: string,
  first: readonly [string, End['what']],
  second: readonly [string, End['what']],
): Generic =>
  plain(
    key,
    says,
    code,
    'hands',
    [audioOut(first[0], { ohm: OUT_OHM }), audioOut(second[0], { ohm: ACTIVE_OHM })],
    [],
    [first, second].map(([at, what], i): End => ({
      at,
      is: 'source',
      name: `${theFirst(says)}, ${at}`,
      ...(what ? { what } : {}),
      dbu: i ? { average: -18, peak: -4 } : { average: -20, peak: -6 },
    })),
    { origin: 'assumed', kg: 3.6 },
  );

/** What the player plays or sings into, and how it leaves the hands. */
export const HANDS: readonly Generic[] = [
  instrument(
    'single-coil',
    ['Single-coil guitar', 'single coil', 'electric guitar', 'guitar'],
    'GSC',
    'guitar',
    -20,
    -6,
    SINGLE,
  ),
  instrument('humbucker', ['Humbucker guitar', 'humbucker'], 'GHB', 'guitar', -14, 0, HUMBUCKER),
  instrument(
    'active-guitar',
    ['Guitar with active pickups', 'active guitar', 'active humbucker'],
    'GAC',
    'guitar',
    -10,
    4,
    ACTIVE_OHM,
  ),
  instrument(
    'fat-single-coil',
    ['Guitar with fat single coils', 'fat single coil'],
    'GFS',
    'guitar',
    -17,
    -3,
    coil(3.2, 7_000, 120, 250_000),
  ),
  instrument('baritone', ['Baritone guitar', 'baritone'], 'GBT', 'guitar', -15, -1, HUMBUCKER),
  instrument(
    'twelve-string',
    ['Twelve-string guitar', '12-string guitar', '12 string'],
    'G12',
    'guitar',
    -19,
    -5,
    SINGLE,
  ),
  instrument('bass', ['Bass guitar', 'bass', 'passive bass'], 'BAS', 'bass', -16, -2, coil(3.6, 8_000, 120, 250_000)),
  instrument(
    'active-bass',
    ['Active bass', 'active bass guitar', 'five-string bass'],
    'BAC',
    'bass',
    -10,
    4,
    ACTIVE_OHM,
  ),
  instrument(
    'acoustic',
    ['Acoustic guitar with pickup', 'acoustic', 'electro-acoustic'],
    'ACO',
    'acoustic',
    -18,
    -4,
    OUT_OHM,
  ),
  twoSources(
    'acoustic-two',
    ['Acoustic guitar with pickup and microphone', 'acoustic with two outputs'],
    'AC2',
    ['pickup', 'acoustic'],
    ['microphone', 'acoustic'],
  ),
  twoSources(
    'piezo-guitar',
    ['Electric guitar with a piezo output', 'piezo guitar'],
    'GPZ',
    ['magnetic', 'guitar'],
    ['piezo', 'acoustic'],
  ),
  instrument(
    'upright-bass',
    ['Double bass with pickup', 'double bass', 'upright bass'],
    'DBS',
    'bass',
    -22,
    -6,
    1_000_000,
  ),
  instrument(
    'percussion',
    ['Pickup percussion', 'percussion pickup', 'stomp box', 'stompbox'],
    'PRC',
    'percussion',
    -14,
    4,
    OUT_OHM,
  ),
  instrument('violin', ['Violin with pickup', 'violin', 'fiddle'], 'VLN', 'acoustic', -20, -6, 1_000_000),
  plain(
    'keyboard',
    ['Keyboard', "second player's keyboard", 'stage piano', 'synthesizer'],
    'KEY',
    'hands',
    [lineOut('out-l'), lineOut('out-r'), midiIn],
    [
      {
        id: 'left',
        from: [{ at: '#keys' }],
        slots: [],
        to: [
          { at: 'out-l', leg: 'left', when: [{ jack: 'out-r', plugged: true }] },
          { at: 'out-r', leg: 'right' },
          { at: 'out-l', when: [{ jack: 'out-r', plugged: false }] },
        ],
      },
    ],
    [{ at: '#keys', is: 'source', name: 'Keyboard', what: 'keys', dbu: { average: -8, peak: 6 } }],
    { origin: 'assumed', kg: 12 },
  ),
  plain(
    'player',
    ['Backing track player', 'track player', 'playback'],
    'TRK',
    'hands',
    [lineOut('out-l'), lineOut('out-r'), lineOut('click')],
    [
      {
        id: 'tracks',
        from: [{ at: '#tracks' }],
        slots: [],
        to: [
          { at: 'out-l', leg: 'left' },
          { at: 'out-r', leg: 'right' },
        ],
      },
    ],
    [
      { at: '#tracks', is: 'source', name: 'Tracks', what: 'band', dbu: { average: -10, peak: 4 } },
      { at: 'click', is: 'source', name: 'Click', dbu: { average: -10, peak: 0 } },
    ],
  ),
  plain(
    'microphone',
    ['Microphone', 'mic', 'vocal mic'],
    'MIC',
    'hands',
    [xlrOut('out')],
    [],
    [{ at: 'out', is: 'source', name: 'Microphone', what: 'voice', dbu: { average: -50, peak: -30 } }],
  ),
  plain(
    'cab-mic',
    ['Cabinet microphone', 'cab mic', 'mic on the cabinet'],
    'MCB',
    'outputs',
    [airIn(), xlrOut('out')],
    [chain('capsule', 'air', [block('microphone', 'microphone')], 'out')],
  ),
  plain(
    'wireless',
    ['Wireless', 'wireless receiver', 'wireless system'],
    'WLS',
    'hands',
    [audioIn('in'), audioOut('out'), power(150)],
    [chain('path', 'in', [block('wireless', 'wireless', { ms: 4, bypass: 'buffered' })], 'out')],
    undefined,
    PACK,
  ),
  plain(
    'wireless-tuner',
    ['Wireless receiver with a tuner', 'wireless with tuner'],
    'WLT',
    'hands',
    [audioIn('in'), audioOut('out'), audioOut('tuner'), power(200)],
    [
      {
        id: 'path',
        from: [{ at: 'in' }],
        slots: [block('wireless', 'wireless', { ms: 4, bypass: 'buffered' })],
        to: [{ at: '#air' }],
      },
      {
        id: 'main',
        from: [{ at: '#air' }],
        slots: [block('tuner', 'tuner', { mutes: is('mute', 'on') })],
        to: [{ at: 'out' }],
      },
      chain('tap', '#air', [], 'tuner'),
    ],
    [{ at: '#air', is: 'tuner', name: 'Tuner of the receiver' }],
    PACK,
  ),
].map((g) =>
  g.key === 'wireless-tuner'
    ? {
        ...g,
        box: {
          ...g.box,
          controls: [choice('mute', ['off', 'on'], { powerUp: { at: 'off' }, use: 'play' })],
          actuators: [foot('mute', { control: 'mute', toggle: ['off', 'on'] })],
        },
      }
    : g,
);
