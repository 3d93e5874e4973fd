import type { Device } from '../rig/device.js';
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
  /** At most five. */
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

export const FRONT = ['compressor', 'low-drive'];
export const usual = (box: Device): string => `${box.name}: its usual place in the order`;
export const instrument = (c: Crew, a: StartAnswer): Device =>
  c.cast(a('instrument') === 'bass' ? 'bass' : 'guitar', 'where the sound begins');
export const tuned = (c: Crew, from: Device): Device => {
  const tuner = c.cast('tuner', 'tuned in silence, always in the path');
  return c.chain(from, [tuner], () => 'the tuner mutes all that comes after it');
};
