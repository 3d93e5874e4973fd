import type { Control } from '../../rig/device.js';
import {
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  is,
  mains,
  midiIn,
  midiThru,
  speakerOut,
  thru,
  type Generic,
} from '../parts.js';
import { amountsOf, byMessage } from '../preset-box.js';

const CHANNELS = ['clean', 'crunch', 'lead'];
const loaded = { powerUp: 'loaded' as const };
const own: readonly Control[] = [
  choice('channel', CHANNELS, loaded),
  choice('boost', ['off', 'on'], loaded),
  choice('loop', ['off', 'on'], loaded),
  choice('reverb', ['off', 'on'], loaded),
  ...['preamp', 'eq', 'reverb'].flatMap((stage) => amountsOf(stage, stage as 'preamp' | 'eq' | 'reverb')),
];

/** An amp that keeps where all its knobs stand, under a program number each. */
export const toneMemoryAmp: Generic = {
  key: 'tone-memory-head',
  says: ['Head with MIDI and tone memories', 'amp with tone memories', 'programmable amp'],
  box: {
    code: 'HTM',
    name: 'Head with MIDI and tone memories',
    zone: 'amp',
    jacks: [
      audioIn('in'),
      audioOut('send', { level: 'line' }),
      audioIn('return', { level: 'line', ohm: 47_000 }),
      { ...speakerOut(), watts: 50 },
      midiIn,
      midiThru,
      mains,
    ],
    chains: [
      chain(
        'path',
        'in',
        [
          block('boost', 'boost', { on: is('boost', 'on') }),
          {
            is: 'fork',
            id: 'channels',
            arms: CHANNELS.map((c) => ({ id: c, when: is('channel', c), slots: [block(c, 'preamp')] })),
          },
          block('eq', 'eq'),
          {
            is: 'insert',
            id: 'loop',
            send: [{ at: 'send' }],
            return: [{ at: 'return' }],
            on: is('loop', 'on'),
            unpatched: 'through',
          },
          block('reverb', 'reverb', { on: is('reverb', 'on'), tails: true }),
          block('power', 'power amp'),
        ],
        'speaker',
      ),
      thru,
    ],
    controls: [{ id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' }, ...own],
    actuators: [
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] },
      ...byMessage(own),
    ],
    memories: [
      {
        id: 'programs',
        control: 'program',
        stores: own.map((c) => c.id),
        size: 128,
        shows: { first: 1 },
        gapMs: 10,
        mutesMs: 20,
        again: 'reloads',
      },
    ],
    midi: { channel: 1, messages: 'queued' },
    figures: { origin: 'assumed', kg: 16, mainsEarth: true, powerStage: 'valve' },
  },
};
