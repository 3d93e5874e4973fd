import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { askNgspice } from '../../../testing/ngspice.js';
import { often } from '../../../testing/often.js';
import { solveCircuits } from './cases.js';
import { network, type Element } from './circuit.js';
import { comb, combAt } from './delays.js';
import { responseOf } from './response.js';

const R = (name: string, n1: string, n2: string, value: number): Element => ({ is: 'resistor', name, n1, n2, value });
const C = (name: string, n1: string, n2: string, value: number): Element => ({ is: 'capacitor', name, n1, n2, value });
const L = (name: string, n1: string, n2: string, value: number): Element => ({ is: 'inductor', name, n1, n2, value });
const SOURCE: Element = { is: 'source', name: 'V1', n1: 'src', n2: '0' };
const solved = (content: unknown) => {
  const found = solveCircuits(JSON.stringify(content));
  if (!found.ok) throw new Error(JSON.stringify(found.error));
  return found.value;
};

interface Reference {
  readonly cases: readonly { readonly id: string; readonly results: Readonly<Record<string, unknown>> }[];
  readonly comparisons: readonly object[];
}
const text = readFileSync(join(__dirname, '../../../testing/reference/loading.json'), 'utf8');
const reference = JSON.parse(text) as Reference;
const ours = solved(JSON.parse(text));

/** Every number of a result with the name under which it stands. */
const numbers = (value: unknown, name = ''): readonly (readonly [string, number])[] => {
  if (typeof value === 'number') return [[name, value]];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([key, inner]) => numbers(inner, `${name} ${key}`));
};
const others = (value: unknown): string => JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' ? 0 : v));

// Reference: 43 circuits worked out by ngspice 39 (or, where it says so, by formula).
test.each(reference.cases.map((c, i) => [c.id, c.results, ours.cases[i]!] as const))(
  '%s: within 0.05 dB and 0.5 % in frequency of the simulator',
  (id, results, mine) => {
    expect(mine.id).toBe(id);
    expect(others(mine.results)).toBe(others(results));
    const found = new Map(numbers(mine.results));
    for (const [name, value] of numbers(results)) {
      const off = Math.abs(found.get(name)! - value);
      expect([name, off <= (name.includes('_hz') ? Math.abs(value) * 0.005 : 0.05)]).toEqual([name, true]);
    }
  },
);
test('two loads against one, compared', () => {
  const [mine, theirs] = [numbers(ours.comparisons), numbers(reference.comparisons)];
  expect(mine.map(([name]) => name)).toEqual(theirs.map(([name]) => name));
  theirs.forEach(([, value], i) => expect(Math.abs(mine[i]![1] - value)).toBeLessThanOrEqual(0.05));
});

const parts = fc.record({
  henry: fc.double({ min: 1, max: 8, noNaN: true }),
  coil: fc.double({ min: 50e-12, max: 300e-12, noNaN: true }),
  cable: fc.double({ min: 1e-11, max: 3e-9, noNaN: true }),
  volume: fc.constantFrom(250_000, 500_000),
  wiper: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
  load: fc.double({ min: 10_000, max: 2e6, noNaN: true }),
  gain: fc.double({ min: 0.5, max: 4, noNaN: true }),
});
/** A pickup behind a volume control, an amplifier, and a load behind a cable. */
const front = ({
  henry,
  coil,
  cable,
  volume,
  wiper,
  load,
  gain,
}: ReturnType<typeof parts.generate>['value']): Element[] => [
  SOURCE,
  R('Rs', 'src', 'n1', 7000),
  L('L1', 'n1', 'a', henry),
  C('Cp', 'a', '0', coil),
  R('Rt', 'a', 'w', volume * (1 - wiper)),
  R('Rb', 'w', '0', volume * wiper),
  C('C1', 'w', '0', cable),
  { is: 'amplifier', name: 'E1', n1: 'x', n2: '0', ctrlP: 'w', ctrlN: '0', gain },
  R('Ro', 'x', 'y', 1000),
  C('C2', 'y', '0', cable),
  R('Rin', 'y', '0', load),
];

test('ngspice itself says the same of 12 circuits made at random, at every frequency from 1 Hz to 1 MHz', () => {
  for (const some of fc.sample(parts, { numRuns: 12, seed: 31 })) {
    const circuit = network(front(some));
    const theirs = askNgspice(front(some), 'y');
    expect(theirs.length).toBeGreaterThan(100);
    // It prints seven digits of the frequency, and far down in the stop band its own rounding shows.
    for (const [hz, db] of theirs) if (db > -150) expect(Math.abs(circuit.decibels('y', hz) - db)).toBeLessThan(0.001);
  }
}, 60_000);

test('laws: the order of the parts does not matter, nor a scale of all impedances', () => {
  fc.assert(
    fc.property(
      parts,
      fc.double({ min: 0.1, max: 10, noNaN: true }),
      fc.double({ min: 20, max: 20_000, noNaN: true }),
      (some, k, hz) => {
        const elements = front(some);
        const db = network(elements).decibels('y', hz);
        expect(network([...elements].reverse()).decibels('y', hz)).toBeCloseTo(db, 6);
        const scaled = elements.map((e): Element => {
          if (e.is === 'source' || e.is === 'amplifier') return e;
          return { ...e, value: e.is === 'capacitor' ? e.value / k : e.value * k };
        });
        expect(network(scaled).decibels('y', hz)).toBeCloseTo(db, 6);
      },
    ),
    { numRuns: often(100), seed: 32 },
  );
});

// Reference: 20·log10(Zin / (Zin + Zout)), worked by hand.
test.each([
  [10_000, 1e6, -0.086],
  [600, 600, -6.021],
  [10_000, 47_000, -1.676],
])('%d ohm into %d ohm loses %d dB', (out, into, db) => {
  const circuit = network([SOURCE, R('Ro', 'src', 'a', out), R('Ri', 'a', '0', into)]);
  expect(circuit.decibels('a', 1000)).toBeCloseTo(db, 3);
});

// Reference: f = 1 / (2π√(LC)), worked by hand.
test.each([
  [2.5, 610e-12, 4076],
  [4.4, 1130e-12, 2257],
])('%d H with %d F rings at %d Hz', (henry, farad, hz) => {
  const { peak } = responseOf([SOURCE, R('Rs', 'src', 'n', 10), L('L', 'n', 'a', henry), C('C', 'a', '0', farad)], 'a');
  expect(peak?.hz).toBeCloseTo(hz, -1);
});

test('amplifiers one behind the other, one that hears itself, and each node between them', () => {
  const E = (name: string, n1: string, ctrlP: string, gain: number, ctrlN = '0'): Element => ({
    is: 'amplifier',
    name,
    n1,
    n2: '0',
    ctrlP,
    ctrlN,
    gain,
  });
  const chain = network([
    SOURCE,
    R('R1', 'src', 'a', 1000),
    R('R2', 'a', '0', 1000),
    E('E1', 'b', 'a', 10),
    E('E2', 'c', 'b', -2),
    // v = 3·(c − v), so 3/4 of c.
    E('E3', 'd', 'c', 3, 'd'),
    R('R3', 'd', '0', 50),
  ]);
  const volts = (node: string): number => 10 ** (chain.decibels(node, 1000) / 20);
  ['src', 'a', 'b', 'c', 'd'].forEach((node, i) => expect(volts(node)).toBeCloseTo([1, 0.5, 5, 10, 7.5][i]!, 9));
});

test('a wire joins nodes, and a node that nothing fixes is told', () => {
  expect(network([SOURCE, R('w', 'src', 'a', 0), R('Ri', 'a', '0', 1000)]).decibels('a', 100)).toBeCloseTo(0, 9);
  expect(network([SOURCE, R('w', 'src', '0', 1000), R('x', 'a', '0', 0)]).decibels('a', 100)).toBe(-Infinity);
  expect(() => network([SOURCE, R('x', 'a', 'b', 1000)]).decibels('a', 100)).toThrow('hangs in the air');
});

test('two arms: phasors against a sum in time, over 100 random delays, gains and frequencies', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1e-4, max: 0.02, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }).filter((g) => Math.abs(1 - Math.abs(g)) > 0.05),
      fc.double({ min: 50, max: 5000, noNaN: true }),
      (seconds, gain, hz) => {
        // One period in 2048 steps: the sum over a whole period of a sine has no error but rounding.
        const steps = 2048;
        let power = 0;
        for (let n = 0; n < steps; n += 1) {
          const at = (2 * Math.PI * n) / steps;
          power += (Math.sin(at) + gain * Math.sin(at - 2 * Math.PI * hz * seconds)) ** 2;
        }
        expect(combAt(seconds, gain, hz)).toBeCloseTo(10 * Math.log10((2 * power) / steps), 6);
      },
    ),
    { numRuns: often(100), seed: 33 },
  );
});
test('two arms a millisecond apart cancel at 500, 1500 and 2500 Hz; inverted at 0, 1000 and 2000', () => {
  expect(comb(0.001, 1)).toMatchObject({ f0: 'peak', notches: [500, 1500, 2500], notchDb: -Infinity });
  expect(comb(0.001, -1)).toMatchObject({ f0: 'notch', notches: [1000, 2000, 3000] });
  expect(comb(0.002, 0.5).peakDb).toBeCloseTo(3.522, 3);
});

const one = (elements: readonly object[], more: object = {}) => ({ id: 'c', elements, output_node: 'a', ...more });
const source = { name: 'V1', n1: 'src', n2: '0', value: 'AC 1' };
test.each([
  ['no JSON', 'x', '', 'This is no JSON.'],
  ['nothing', {}, 'cases.0.id', 'expected string'],
  ['a resistor of −5 ohm', one([source, { name: 'R1', n1: 'src', n2: 'a', value: -5 }]), 'c', 'R1 is -5 ohm'],
  ['no value', one([source, { name: 'R1', n1: 'src', n2: 'a' }]), 'c', 'R1 has no number'],
  ['no source', one([{ name: 'R1', n1: 'b', n2: 'a', value: 5 }]), 'c', 'It has no source V.'],
  [
    'an output in the air',
    one([source, { name: 'R1', n1: 'src', n2: '0', value: 5 }]),
    'c',
    'No part hangs on its output node a.',
  ],
  [
    'an amplifier without control',
    one([source, { name: 'E1', n1: 'a', n2: '0' }]),
    'c',
    'does not say what controls it',
  ],
  [
    'a delay of no time',
    { id: 'd', topology: 'parallel_delay', components: { t_s: 0, g: 1 } },
    'd',
    'a time t_s above 0',
  ],
  [
    'a comparison with nothing',
    {
      cases: [one([source, { name: 'R1', n1: 'src', n2: 'a', value: 5 }, { name: 'R2', n1: 'a', n2: '0', value: 5 }])],
      comparisons: [{ id: 'x', minuend: 'c', subtrahend: 'e' }],
    },
    'x',
    'compares c with e',
  ],
] as const)('%s is refused: where, and what', (_, content, where, wrong) => {
  const found = solveCircuits(typeof content === 'string' ? content : JSON.stringify(content));
  expect(found.ok ? {} : { where: found.error.where ?? '', wrong: found.error.wrong }).toEqual({
    where,
    wrong: expect.stringContaining(wrong) as unknown,
  });
});
