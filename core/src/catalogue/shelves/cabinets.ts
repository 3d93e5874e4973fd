import { theFirst } from '../../known/the.js';
import {
  airOut,
  block,
  chain,
  choice,
  foot,
  is,
  lineOut,
  mains,
  plain,
  speakerIn,
  speakerOut,
  xlrOut,
  type Generic,
} from '../parts.js';

export const cabinet = (key: string, says: readonly string[], kg: number, watts: number, ohm = 8): Generic =>
  plain(
    key,
    says,
    'CAB',
    'outputs',
    [{ ...speakerIn('in', ohm), watts }, airOut()],
    [chain('speaker', 'in', [block('cabinet', 'cabinet')], 'air')],
    [{ at: 'air', is: 'stage', name: 'Stage' }],
    { origin: 'assumed', kg },
  );

/** One amp into one of two cabinets; the other way hangs in the air, so both need a load. */
const cabinetSelector = (key: string, says: readonly string[], code: string): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'amp',
    jacks: [{ ...speakerIn(), load: 'none' }, speakerOut('a'), speakerOut('b')],
    chains: ['a', 'b'].map((o) => chain(`to-${o}`, 'in', [], o, { passive: true, when: is('select', o) })),
    controls: [choice('select', ['a', 'b'])],
    actuators: [foot('switch', { control: 'select', step: ['a', 'b'] })],
    memories: [],
    figures: { origin: 'assumed', kg: 1 },
  },
});

/** From a loudspeaker line to a line, and to a microphone input, in dB; assumed. */
const SPEAKER_TO_LINE = -26;
const SPEAKER_TO_MIC = -50;

/** Cabinets, and what stands between them and an amp. */
export const CABINETS: readonly Generic[] = [
  cabinet('cab-112', ['1×12 cabinet', '1x12 cabinet', '1x12', 'small cabinet'], 14, 75),
  cabinet('cab-212', ['Closed 2×12 cabinet', '2x12 cabinet', '2x12', 'cabinet', 'cab', 'speaker cabinet'], 22, 130),
  cabinet('cab-212-open', ['Open 2×12 cabinet', 'open back cabinet'], 18, 130),
  cabinet('cab-412', ['4×12 cabinet', '4x12 cabinet', '4x12'], 38, 280, 16),
  cabinet('cab-410', ['4×10 bass cabinet', 'bass cabinet', '4x10', '4x10 cabinet'], 28, 500),
  cabinet('cab-115', ['1×15 bass cabinet', '1x15', '1x15 cabinet'], 25, 400),
  plain(
    'cab-stereo',
    ['Stereo 2×12 cabinet', 'stereo cabinet'],
    'CBS',
    'outputs',
    [
      { ...speakerIn('in-l', 16), watts: 65 },
      { ...speakerIn('in-r', 16), watts: 65 },
      airOut('air-l'),
      airOut('air-r'),
    ],
    [
      chain('left', 'in-l', [block('left', 'cabinet')], 'air-l'),
      chain('right', 'in-r', [block('right', 'cabinet')], 'air-r'),
    ],
    [
      { at: 'air-l', is: 'stage', name: 'Stage left' },
      { at: 'air-r', is: 'stage', name: 'Stage right' },
    ],
    { origin: 'assumed', kg: 24 },
  ),
  plain(
    'line-out',
    ['Line-out box', 'speaker tap', 'line out box'],
    'LOB',
    'amp',
    [{ ...speakerIn(), load: 'none' }, speakerOut('through'), lineOut('line')],
    [
      chain('through', 'in', [], 'through', { passive: true }),
      chain('tap', 'in', [block('tap', 'isolator', { gain: SPEAKER_TO_LINE })], 'line'),
    ],
  ),
  cabinetSelector('cab-selector', ['Cabinet selector', 'speaker selector', 'cabinet switch'], 'CBX'),
  plain(
    'load-box',
    ['Load box', 'dummy load', 'reactive load'],
    'LOD',
    'amp',
    [{ ...speakerIn(), watts: 100 }, lineOut('line'), speakerOut('cabinet'), mains],
    [
      chain('tap', 'in', [block('tap', 'isolator', { gain: SPEAKER_TO_LINE })], 'line'),
      chain('to-cabinet', 'in', [block('soak', 'isolator')], 'cabinet'),
    ],
    undefined,
    { origin: 'assumed', kg: 3, mainsEarth: true },
  ),
  plain(
    'load-sim',
    ['Load box with cabinet simulation', 'load box and cab sim'],
    'LDS',
    'amp',
    [{ ...speakerIn(), watts: 100 }, xlrOut('xlr'), mains],
    [chain('tap', 'in', [block('cabinet', 'cabinet simulation', { gain: SPEAKER_TO_MIC })], 'xlr')],
    undefined,
    { origin: 'assumed', kg: 3, mainsEarth: true },
  ),
  plain(
    'attenuator',
    ['Attenuator', 'power attenuator', 'power soak'],
    'ATT',
    'amp',
    [{ ...speakerIn(), watts: 100 }, speakerOut('out')],
    [chain('path', 'in', [block('soak', 'volume')], 'out')],
  ),
];
