import type {
  Actuator,
  Block,
  Chain,
  Control,
  Device,
  End,
  Figures,
  Jack,
  Numbering,
  Stage,
  Zone,
} from '../rig/device.js';
import type { Act } from '../rig/act.js';
import type { When } from '../rig/value.js';
import { theFirst } from '../known/the.js';

/** A box of no particular maker, ready to be given an id. Figures are typical values, marked as assumed. */
export interface Generic {
  readonly key: string;
  /** What people call it; the first is its name in lists. */
  readonly says: readonly string[];
  readonly box: Omit<Device, 'id' | 'kind' | 'made'>;
}

export const ON: When = [{ control: 'on', in: ['on'] }];
export const is = (control: string, ...values: readonly string[]): When => [{ control, in: values }];

export const audioIn = (id: string, more: Partial<Jack> = {}): Jack => ({
  id,
  kind: 'audio',
  connector: '6.35 TS',
  poles: { tip: 'in' },
  level: 'instrument',
  ohm: 1_000_000,
  ...more,
});
export const audioOut = (id: string, more: Partial<Jack> = {}): Jack => ({
  id,
  kind: 'audio',
  connector: '6.35 TS',
  poles: { tip: 'out' },
  level: 'instrument',
  ohm: 1_000,
  ...more,
});
export const power = (milliamps: number): Jack => ({
  id: 'dc',
  kind: 'power',
  connector: 'barrel',
  poles: { tip: 'in' },
  supply: { volts: [9], milliamps, centre: 'negative' },
});
export const midiIn: Jack = { id: 'midi-in', kind: 'midi', connector: 'DIN-5', poles: { tip: 'in' } };
export const midiOut: Jack = { id: 'midi-out', kind: 'midi', connector: 'DIN-5', poles: { tip: 'out' } };
export const midiThru: Jack = { id: 'midi-thru', kind: 'midi', connector: 'DIN-5', poles: { tip: 'out' } };
export const contactIn = (id: string): Jack => ({ id, kind: 'contact', connector: '6.35 TS', poles: { tip: 'in' } });
export const contactOut = (id: string): Jack => ({
  id,
  kind: 'contact',
  connector: '6.35 TS',
  poles: { tip: 'out' },
  closedWhen: is(id, 'closed'),
});

/** Two relays behind one stereo jack, one at its tip and one at its ring. */
export const doubleContactOut = (id: string, [tip, ring]: readonly [string, string]): Jack => ({
  id,
  kind: 'contact',
  connector: '6.35 TRS',
  poles: { tip: 'out', ring: 'out' },
  closedWhen: is(tip, 'closed'),
  ringClosedWhen: is(ring, 'closed'),
});
export const doubleContactIn = (id: string): Jack => ({
  id,
  kind: 'contact',
  connector: '6.35 TRS',
  poles: { tip: 'in', ring: 'in' },
});

export const choice = (id: string, values: readonly (string | number)[], more: Partial<Control> = {}): Control => ({
  id,
  domain: { values },
  powerUp: 'left',
  use: 'sound',
  ...more,
});
export const amount = (id: string, min: number, max: number, unit: string, more: Partial<Control> = {}): Control => ({
  id,
  domain: { min, max, unit },
  powerUp: 'left',
  use: 'sound',
  ...more,
});
export const onOff = (more: Partial<Control> = {}): Control => choice('on', ['off', 'on'], { name: 'on/off', ...more });
export const toggles = (control: string): Act => ({ control, toggle: ['off', 'on'] });
export const foot = (id: string, ...acts: readonly Act[]): Actuator => ({
  id,
  by: { foot: id, gesture: 'press' },
  acts,
});

export const chain = (
  id: string,
  from: string,
  slots: Chain['slots'],
  to: string,
  more: Partial<Chain> = {},
): Chain => ({ id, from: [{ at: from }], slots, to: [{ at: to }], ...more });
export const thru: Chain = chain('thru', 'midi-in', [], 'midi-thru');

export const ASSUMED: Figures = { origin: 'assumed' };
/** A pack on a belt with two cells of its own; assumed. */
export const PACK: Figures = { origin: 'assumed', battery: { mAh: 2000, volts: 3, milliamps: 300 } };

export const xlrOut = (id: string, more: Partial<Jack> = {}): Jack =>
  audioOut(id, { connector: 'XLR', level: 'mic', balanced: true, ohm: 150, ...more });
export const xlrIn = (id: string, more: Partial<Jack> = {}): Jack =>
  audioIn(id, { connector: 'XLR', level: 'mic', balanced: true, ohm: 1_500, phantom: true, ...more });
export const lineIn = (id: string, more: Partial<Jack> = {}): Jack =>
  audioIn(id, { level: 'line', ohm: 22_000, ...more });
export const lineOut = (id: string, more: Partial<Jack> = {}): Jack =>
  audioOut(id, { level: 'line', ohm: 150, ...more });
export const speakerOut = (id = 'speaker', ohm = 8): Jack => ({
  id,
  kind: 'audio',
  connector: 'speaker',
  poles: { tip: 'out' },
  level: 'speaker',
  ohm,
});
/** Where a speaker output finds its load: a loudspeaker, or a dummy load in its place. */
export const speakerIn = (id = 'in', ohm = 8): Jack => ({
  id,
  kind: 'audio',
  connector: 'speaker',
  poles: { tip: 'in' },
  level: 'speaker',
  ohm,
  load: 'speaker',
});
export const airOut = (id = 'air'): Jack => ({ id, kind: 'air', connector: 'air', poles: { tip: 'out' } });
export const airIn = (id = 'air'): Jack => ({ id, kind: 'air', connector: 'air', poles: { tip: 'in' } });
export const mains: Jack = { id: 'mains', kind: 'mains', connector: 'mains', poles: { tip: 'in' } };
export const usb = (id = 'usb'): Jack => ({ id, kind: 'usb', connector: 'USB', poles: { tip: 'in' } });

/**
 * The wiper of the pedal comes on the tip, the ring carries the reference; the other school has them the other way
 * round.
 */
export const expressionOut = (id: string, wiper: 'tip' | 'ring' = 'tip'): Jack => ({
  id,
  kind: 'expression',
  connector: '6.35 TRS',
  poles: wiper === 'tip' ? { tip: 'out', ring: 'in' } : { tip: 'in', ring: 'out' },
});
export const expressionIn = (id = 'exp', wiper: 'tip' | 'ring' = 'tip'): Jack => ({
  id,
  kind: 'expression',
  connector: '6.35 TRS',
  poles: wiper === 'tip' ? { tip: 'in', ring: 'out' } : { tip: 'out', ring: 'in' },
});

export const block = (id: string, stage: Stage, more: Partial<Block> = {}): Block => ({
  is: 'block',
  id,
  stage,
  ...more,
});

/** Left and right inputs; with only the left one plugged it feeds both sides (common practice). */
export const stereoFrom = (left: string, right: string): Chain['from'] => [
  { at: left, leg: 'left', when: [{ jack: right, plugged: true }] },
  { at: right, leg: 'right' },
  { at: left, when: [{ jack: right, plugged: false }] },
];
/** Left and right outputs; with only the left one plugged it carries the sum of both sides (common practice). */
export const stereoTo = (left: string, right: string): Chain['to'] => [
  { at: left, leg: 'left', when: [{ jack: right, plugged: true }] },
  { at: right, leg: 'right' },
  { at: left, when: [{ jack: right, plugged: false }] },
];

interface PedalOf {
  readonly key: string;
  readonly says: readonly string[];
  readonly code: string;
  readonly stage: Stage;
  readonly block?: Partial<Block>;
  readonly milliamps?: number;
  readonly zone?: Zone;
  readonly figures?: Figures;
}

/**
 * An ordinary pedal: one chain in to out with one block and a foot switch that turns it over; it comes back as it was
 * left.
 */
export const pedal = ({
  key,
  says,
  code,
  stage,
  block,
  milliamps = 20,
  zone = 'floor',
  figures,
}: PedalOf): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone,
    jacks: [audioIn('in'), audioOut('out'), power(milliamps)],
    chains: [
      chain(
        'path',
        'in',
        [{ is: 'block', id: stage.replaceAll(' ', '-'), stage, on: ON, bypass: 'true', ...block }],
        'out',
      ),
    ],
    controls: [onOff()],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { ...ASSUMED, mm: [70, 120, 55], kg: 0.4, ...figures },
  },
});

/** A box without anything to switch: straight through one block. */
export const plain = (
  key: string,
  says: readonly string[],
  code: string,
  zone: Zone,
  jacks: readonly Jack[],
  chains: readonly Chain[],
  ends?: readonly End[],
  figures: Figures = ASSUMED,
): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone,
    jacks,
    chains,
    controls: [],
    actuators: [],
    memories: [],
    figures,
    ...(ends ? { ends } : {}),
  },
});

interface MidiBoxOf {
  readonly key: string;
  readonly says: readonly string[];
  readonly code: string;
  readonly stage: Stage;
  readonly shows: Numbering;
  readonly channel: number;
  readonly stereo: boolean;
  readonly gapMs: number;
  /** How long it is silent while it changes programs. */
  readonly mutesMs?: number;
}

/** With its mix at the top nothing direct comes through a delay or reverb. */
const wet = (stage: Stage): Partial<Block> =>
  stage === 'delay' || stage === 'reverb' ? { wetOnly: [{ control: 'mix', from: 100, to: 100 }] } : {};

/** A programmable stereo or mono effect: programs hold on/off and mix; program changes load, control changes set. */
export const midiBox = ({
  key,
  says,
  code,
  stage,
  shows,
  channel,
  stereo,
  gapMs,
  mutesMs = 0,
  // eslint-disable-next-line max-lines-per-function -- a box is said in one piece, from its jacks to its memories
}: MidiBoxOf): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: stereo
      ? [audioIn('in-l'), audioIn('in-r'), audioOut('out-l'), audioOut('out-r'), midiIn, midiThru, power(300)]
      : [audioIn('in'), audioOut('out'), midiIn, midiThru, power(200)],
    chains: [
      stereo
        ? {
            id: 'path',
            from: stereoFrom('in-l', 'in-r'),
            slots: [block(stage, stage, { on: ON, width: 'spread', bypass: 'buffered', tails: true, ...wet(stage) })],
            to: stereoTo('out-l', 'out-r'),
          }
        : chain('path', 'in', [block(stage, stage, { on: ON, bypass: 'buffered', tails: true, ...wet(stage) })], 'out'),
      thru,
    ],
    controls: [
      { id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' },
      onOff({ powerUp: 'loaded' }),
      amount('mix', 0, 100, '%', { powerUp: 'loaded' }),
    ],
    actuators: [
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] },
      {
        id: 'on/off',
        by: { midi: 'cc', number: 102 },
        acts: [
          {
            control: 'on',
            map: [
              [0, 63, 'off'],
              [64, 127, 'on'],
            ],
          },
        ],
      },
      { id: 'mix', by: { midi: 'cc', number: 20 }, acts: [{ control: 'mix', scale: [0, 100] }] },
      foot('switch', toggles('on')),
    ],
    memories: [
      { id: 'programs', control: 'program', stores: ['on', 'mix'], size: 128, shows, gapMs, mutesMs, again: 'reloads' },
    ],
    midi: { channel, messages: 'lost' },
    figures: { ...ASSUMED, mm: [120, 130, 60], kg: 0.8 },
  },
});
