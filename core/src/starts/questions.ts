import { isTunerOut } from '../rig/box.js';
import type { Device } from '../rig/device.js';
import { inOf, insertsOf, outOf, stagesOf } from '../edits/wire.js';
import { all, type Rig } from '../rig/rig.js';
import type { Crew } from './crew.js';

export interface StartChoice {
  readonly value: string;
  readonly label: string;
  /** Why one would; for a question of taste, whose school it is. */
  readonly because: string;
}

export interface StartQuestion {
  readonly id: string;
  readonly ask: string;
  /** The usual answer first. */
  readonly choices: readonly [StartChoice, ...StartChoice[]];
  /** What the kit answers by itself. */
  readonly byKit?: (rig: Rig) => string | undefined;
}

export type StartAnswer = (question: string) => string;

/**
 * A way to begin: a few questions, and how the boxes are wired then. Common practice throughout; practitioners differ
 * where a question says so.
 */
export interface StartingPoint {
  readonly key: string;
  readonly name: string;
  readonly says: string;
  /** At most six. */
  readonly questions: readonly StartQuestion[];
  readonly wire: (crew: Crew, answer: StartAnswer) => void;
}

export const question = (
  id: string,
  ask: string,
  ...choices: readonly [StartChoice, ...StartChoice[]]
): StartQuestion => ({
  id,
  ask,
  choices,
});
export const choice = (value: string, label: string, because: string): StartChoice => ({ value, label, because });

export const hasSource = (rig: Rig, what: string): boolean =>
  all(rig, 'device').some((d) => d.ends?.some((e) => e.is === 'source' && e.what === what));
/** Whether something in the kit takes a guitar's sound through the air. */
export const hasWireless = (rig: Rig): boolean =>
  all(rig, 'device').some((d) => stagesOf(d).includes('wireless') && inOf(d) !== undefined && outOf(d) !== undefined);
export const hasSwitcher = (rig: Rig): boolean =>
  all(rig, 'device').some((d) => d.zone === 'floor' && insertsOf(d).length >= 4);
export const INSTRUMENT: StartQuestion = {
  ...question(
    'instrument',
    'What is in the hands?',
    choice('guitar', 'Guitar', 'a guitar starts the chain'),
    choice('bass', 'Bass', 'a bass starts the chain'),
  ),
  byKit: (rig) => (hasSource(rig, 'bass') && !hasSource(rig, 'guitar') ? 'bass' : undefined),
};
export const HEARD = question(
  'heard',
  'Who hears the cabinet?',
  choice('house', 'The house, by a microphone', 'with a microphone the desk carries it'),
  choice('room', 'The room', 'in a small room the cabinet is loud enough'),
);
export const VOLUME = (first: 'loop' | 'front') => {
  const loop = choice(
    'loop',
    'After the gain',
    'school of the master: it turns the level down and leaves the gain as it is',
  );
  const front = choice(
    'front',
    'Before the gain',
    "school of the guitar's knob: it cleans the sound up as it turns down",
  );
  const none = choice('none', 'No volume pedal', 'the hand on the guitar will do');
  return question(
    'volume',
    'Where does the volume pedal act?',
    ...(first === 'loop' ? ([loop, front, none] as const) : ([front, loop, none] as const)),
  );
};

export const TUNER = question(
  'tuner',
  'Where does the tuner stand?',
  choice('first', 'First', 'it hears the instrument alone, and mutes all that comes after it'),
  choice('last', 'Last', 'behind the pedals, before the amp: it mutes their hiss and tails too, and it hears them'),
  choice('tap', 'Own output', 'on a tuner output: nothing of it is in the path, and it mutes nothing by itself'),
  choice('none', 'None', 'somebody else tunes, or the box that makes the tone does'),
);

export const FRONT = ['compressor', 'low-drive'];
export const usual = (box: Device): string => `${box.name}: its usual place in the order`;
export const instrument = (c: Crew, a: StartAnswer): Device =>
  c.cast(a('instrument') === 'bass' ? 'bass' : 'guitar', 'where the sound begins');
const TUNING = 'tuned in silence';
const tunerOut = (d: Device): boolean => d.jacks.some(isTunerOut);

/** The volume pedal where one is wanted: in front, with an own output for the tuner where that is wanted too. */
export const volumePedal = (c: Crew, a: StartAnswer): Device | undefined => {
  if (a('volume') === 'none') return undefined;
  const isTapped = a('volume') === 'front' && a('tuner') === 'tap';
  return c.cast(isTapped ? 'volume with a tuner output' : 'volume', 'level under the foot');
};

/** The volume pedal as what still has to be plugged in front: nothing, where it stands elsewhere or is plugged already. */
export const stillInFront = (c: Crew, a: StartAnswer, volume: Device | undefined): readonly Device[] =>
  volume && a('volume') === 'front' && !c.isPlugged(volume) ? [volume] : [];

interface Beginning {
  readonly air?: 'as the kit has it' | 'asked for' | 'none';
  /** Cast already, where the starting point asks for one. */
  readonly volume?: Device | undefined;
}

/**
 * The instrument, the wireless that the kit has, and the tuner where it is wanted at the front.
 * @returns what the rest is plugged into
 */
export const begun = (c: Crew, a: StartAnswer, { air = 'as the kit has it', volume }: Beginning = {}) => {
  const source = instrument(c, a);
  const wireless =
    air === 'asked for'
      ? c.cast('wireless', 'no cable to the floor')
      : air === 'as the kit has it'
        ? c.maybe('wireless', 'your wireless; its receiver is also a buffer')
        : undefined;
  return tuned(c, wireless ? c.chain(source, [wireless], usual) : source, a, volume);
};

export const tuned = (c: Crew, from: Device, a: StartAnswer, volume?: Device): Device => {
  const isTapped = a('tuner') === 'tap';
  // One volume pedal is enough: behind the gain its tuner output would give the tuner what the preamp makes of it.
  const isBehind = isTapped && volume !== undefined && a('volume') !== 'front' && !tunerOut(from);
  if (isBehind)
    c.notes.push(
      'The volume pedal stands after the gain, so its tuner output would not hear the instrument alone: the tuner stands first.',
    );
  if (a('tuner') === 'first' || isBehind) {
    const tuner = c.cast('tuner', `${TUNING}, always in the path`);
    return c.chain(from, [tuner], () => 'the tuner mutes all that comes after it');
  }
  if (!isTapped) return from;
  const tapped = tunerOut(from)
    ? from
    : (volume ?? c.cast('volume with a tuner output', 'its tuner output takes the tuner'));
  const last = tapped === from ? from : c.chain(from, [tapped], usual);
  c.notes.push('A tuner beside the path mutes nothing: tune with the volume down, or where something else mutes.');
  c.lead(tapped, 'tuner', c.cast('tuner', 'reads beside the path'), 'in', 'nothing of the tuner is in the path');
  return last;
};

/** The tuner as the last before the gain of the amp, where it is wanted there. */
export const tunedLast = (c: Crew, from: Device, a: StartAnswer): Device =>
  a('tuner') === 'last'
    ? c.chain(from, [c.cast('tuner', `${TUNING}, hiss and tails too`)], () => 'the tuner comes last before the gain')
    : from;
