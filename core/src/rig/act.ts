import type { PointName, Value, When } from './value.js';

/** Carried out in order; `when` is read at that moment. `'value'` stands for the number that came with the stimulus. */
export type Act = { readonly when?: When } & (
  | { readonly control: string; readonly set: Value }
  | { readonly control: string; readonly toggle: readonly [Value, Value] }
  | { readonly control: string; readonly step: readonly Value[] }
  | { readonly control: string; readonly map: readonly (readonly [from: number, to: number, set: Value])[] }
  | { readonly control: string; readonly scale: readonly [number, number] }
  /**
   * The number that came with the stimulus, as it is: the tempo of a clock, in beats a minute. A foot that taps may
   * leave any.
   */
  | { readonly control: string; readonly take: 'value' }
  | { readonly load: string; readonly slot: number | 'value' | BankPlace }
  | { readonly send: Message; readonly at: PointName; readonly afterMs?: number }
  /** A momentary closing of a contact; a lasting one is the jack's `closedWhen`. */
  | { readonly pulse: PointName }
  /** What the loaded program assigned to this switch. */
  | { readonly follow: string; readonly gesture: 'press' | 'release' }
);

/** Program number = place of the showing bank × size + plus. */
export interface BankPlace {
  readonly bank: string;
  readonly banks: readonly Value[];
  readonly plus: number;
  readonly size: number;
}

/** Numbers as the wire carries them (0–127); channels 1–16. */
export type Message =
  | { readonly pc: number; readonly channel: number; readonly bank?: number }
  | { readonly cc: number; readonly value: number; readonly channel: number }
  /** MIDI clock at so many beats a minute. */
  | { readonly bpm: number };

/**
 * The value that a control change of 0–127 gives a scaled control, rounded to its step.
 * @example scaledValue(127, [0, 100], 1) // 100
 */
export const scaledValue = (byte: number, [low, high]: readonly [number, number], step: number): number => {
  const exact = low + ((high - low) * byte) / 127;
  return Number((Math.round(exact / step) * step).toFixed(6));
};

/** How an amount follows a pedal: evenly, slowly at the heel, or fast there (assumed: by the square). */
export type Curve = 'line' | 'slow' | 'fast';

/**
 * The value that a pedal gives at a position of 0 (heel) to 127 (toe), rounded to a step.
 * @example swept({ heel: 10, toe: 60 }, 127, 1) // 60
 */
export const swept = (
  { heel, toe, curve = 'line' }: { readonly heel: number; readonly toe: number; readonly curve?: Curve },
  byte: number,
  step: number,
): number => {
  const x = Math.max(0, Math.min(127, byte)) / 127;
  const y = curve === 'line' ? x : curve === 'slow' ? x * x : 1 - (1 - x) * (1 - x);
  return Number((Math.round((heel + (toe - heel) * y) / step) * step).toFixed(6));
};

/** The control change value whose scaled value comes nearest to the wanted one. */
export const byteFor = (value: number, [low, high]: readonly [number, number]): number =>
  high === low ? 0 : Math.max(0, Math.min(127, Math.round(((value - low) / (high - low)) * 127)));
