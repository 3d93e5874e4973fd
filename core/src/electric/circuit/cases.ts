import { z } from 'zod';
import { readJson } from '../../rig/read-json.js';
import { ok, refuse, type Refusal, type Result } from '../../rig/result.js';
import type { Element } from './circuit.js';
import { comb } from './delays.js';
import { responseOf } from './response.js';

// Circuits as a file holds them, and their results in the same form: docs/formats.md.

const element = z.object({
  name: z.string().regex(/^[RCLVEZ]/i, 'A name begins with R, C, L, V, E or Z'),
  n1: z.string(),
  n2: z.string(),
  value: z.union([z.number(), z.string()]).optional(),
  ctrl_p: z.string().optional(),
  ctrl_n: z.string().optional(),
  gain: z.number().optional(),
});
const circuit = z.object({
  id: z.string(),
  topology: z.string().optional(),
  components: z.record(z.string(), z.unknown()).optional(),
  elements: z.array(element).nullish(),
  output_node: z.string().optional(),
});
const comparison = z.object({ id: z.string(), minuend: z.string(), subtrahend: z.string() });
const file = z.object({ cases: z.array(circuit).min(1), comparisons: z.array(comparison).optional() });

type CircuitCase = z.infer<typeof circuit>;

const DEFINITE = 'Mend that circuit in the file.';
const wrongWith = (where: string, wrong: string): Refusal => ({ code: 'circuit', where, wrong, would: DEFINITE });

const KINDS = { R: 'resistor', Z: 'resistor', C: 'capacitor', L: 'inductor' } as const;
const UNITS = { resistor: 'ohm', capacitor: 'F', inductor: 'H' } as const;

/** A part as the file says it. */
const readElement = (said: z.infer<typeof element>): Element | string => {
  const { name, n1, n2 } = said;
  const letter = name.slice(0, 1).toUpperCase();
  if (letter === 'V') return { is: 'source', name, n1, n2 };
  if (letter === 'E') {
    const { ctrl_p: ctrlP, ctrl_n: ctrlN, gain } = said;
    if (ctrlP === undefined || ctrlN === undefined || gain === undefined)
      return `${name} does not say what controls it.`;
    return { is: 'amplifier', name, n1, n2, ctrlP, ctrlN, gain };
  }
  const is = KINDS[letter as keyof typeof KINDS];
  const value = Number(said.value);
  if (!Number.isFinite(value)) return `${name} has no number for its value.`;
  if (value < 0) return `${name} is ${value} ${UNITS[is]}: no such part can be bought.`;
  if (value === 0 && is === 'inductor') return { is: 'resistor', name, n1, n2, value: 0 };
  return { is, name, n1, n2, value };
};

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;
const db = (value: number): number => round(value, 4);
const FREQUENCIES = [1000, 2000, 3000, 5000] as const;
const byFrequency = (of: (hz: number) => number): Readonly<Record<string, number>> =>
  Object.fromEntries(FREQUENCIES.map((hz) => [String(hz), db(of(hz))]));

interface Solved {
  readonly results: object;
  /** Level at a frequency in dB, where the circuit has one. */
  readonly level?: (hz: number) => number;
}

const solveDelay = ({ id, components = {} }: CircuitCase): Result<Solved> => {
  const [t, g] = [Number(components.t_s), Number(components.g)];
  if (!(t > 0) || !Number.isFinite(g)) return refuse(wrongWith(id, 'It needs a time t_s above 0 and a gain g.'));
  const { f0, peaks, notches, peakDb, notchDb } = comb(t, g);
  const isInfinite = notchDb === -Infinity;
  return ok({
    results: {
      f0_is: f0,
      peak_hz: peaks.map((hz) => round(hz, 4)),
      peak_dB: db(peakDb),
      notch_hz: notches.map((hz) => round(hz, 4)),
      notch_dB: isInfinite ? null : db(notchDb),
      notch_is_infinite: isInfinite,
    },
  });
};

const solveCircuit = (one: CircuitCase): Result<Solved> => {
  const { id, elements, output_node: output } = one;
  if (!elements || output === undefined) return refuse(wrongWith(id, 'It needs elements and an output_node.'));
  const read = elements.map(readElement);
  const wrong = read.find((e) => typeof e === 'string');
  if (typeof wrong === 'string') return refuse(wrongWith(id, wrong));
  const parts = read.filter((e) => typeof e !== 'string');
  if (!parts.some((e) => e.is === 'source')) return refuse(wrongWith(id, 'It has no source V.'));
  if (!parts.some((e) => e.n1 === output || e.n2 === output))
    return refuse(wrongWith(id, `No part hangs on its output node ${output}.`));
  try {
    const { at100, at, peak, minus3 } = responseOf(parts, output);
    const level = (hz: number): number => at100 + at(hz);
    if (one.topology === 'divider') return ok({ level, results: { gain_dB: db(at100) } });
    return ok({
      level,
      results: {
        gain_100Hz_dB: db(at100),
        has_peak: peak !== undefined,
        peak_hz: peak ? round(peak.hz, 1) : null,
        peak_rel_dB: peak ? db(peak.db) : null,
        peak_prominence_dB: peak ? db(peak.prominence) : null,
        f_minus3dB_hz: minus3 === undefined ? null : round(minus3, 1),
        rel_dB: byFrequency(at),
      },
    });
  } catch (e) {
    return refuse(wrongWith(id, e instanceof Error ? e.message : String(e)));
  }
};

export interface CircuitAnswers {
  readonly cases: readonly { readonly id: string; readonly results: object }[];
  readonly comparisons?: readonly object[];
}

/** One circuit, or a list of them, as a file with cases. */
const asFile = (read: unknown): unknown => {
  if (Array.isArray(read)) return { cases: read };
  return read && typeof read === 'object' && 'cases' in read ? read : { cases: [read] };
};

/** Works out circuits that a file holds: one, a list, or cases with what is compared of them. */
export const solveCircuits = (text: string): Result<CircuitAnswers> => {
  const read = readJson('circuit', file, text, asFile);
  if (!read.ok) return read;
  const levels = new Map<string, (hz: number) => number>();
  const cases: CircuitAnswers['cases'][number][] = [];
  for (const one of read.value.cases) {
    const solved = one.topology === 'parallel_delay' ? solveDelay(one) : solveCircuit(one);
    if (!solved.ok) return solved;
    cases.push({ id: one.id, results: solved.value.results });
    if (solved.value.level) levels.set(one.id, solved.value.level);
  }
  const comparisons: object[] = [];
  for (const { id, minuend, subtrahend } of read.value.comparisons ?? []) {
    const [a, b] = [levels.get(minuend), levels.get(subtrahend)];
    if (!a || !b)
      return refuse(wrongWith(id, `It compares ${minuend} with ${subtrahend}, and one of them has no level.`));
    const by = a(100) - b(100);
    comparisons.push({
      id,
      minuend,
      subtrahend,
      diff_100Hz_dB: db(by),
      diff_absolute_dB: byFrequency((hz) => a(hz) - b(hz)),
      diff_rel_100Hz_dB: byFrequency((hz) => a(hz) - b(hz) - by),
    });
  }
  return ok({ cases, ...(read.value.comparisons ? { comparisons } : {}) });
};
