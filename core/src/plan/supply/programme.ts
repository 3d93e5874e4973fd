import { theFirst } from '../../known/the.js';
import type { Programme } from '../solver.js';
import { adaptersOf, bridgeGives, voltsThatFit, type SupplyBox, type SupplyProblem } from './problem.js';

/** One way to feed a box: from an output at a voltage, or from a bridge. */
export interface Feeding {
  readonly name: string;
  readonly box: SupplyBox;
  readonly outputs: readonly string[];
  readonly volts: number;
  readonly isBridge: boolean;
  /** What its lead needs besides an ordinary one. */
  readonly adapters: ReturnType<typeof adaptersOf>;
}

/** All ways in which each box could be fed by itself. */
export const feedings = ({ outputs, bridges, boxes, daisy }: SupplyProblem): readonly Feeding[] =>
  boxes.flatMap((box, b) => [
    ...outputs.flatMap((output, o) => {
      if (output.ac !== box.ac || output.mA < box.mA) return [];
      // By itself it takes the lowest voltage; in a chain the others may want another.
      const fits = voltsThatFit(output.volts, box.volts);
      return (daisy ? fits : fits.slice(0, 1)).map((volts, v) => ({
        name: `x_${b}_${o}_${v}`,
        box,
        outputs: [output.id],
        volts,
        isBridge: false,
        adapters: adaptersOf(box, output),
      }));
    }),
    ...bridges.flatMap((bridge, k) => {
      const joined = bridge.outputs.flatMap((id) => outputs.find((o) => o.id === id) ?? []);
      const gives = bridgeGives(bridge, joined);
      const [volts] = gives ? voltsThatFit(gives.volts, box.volts) : [];
      if (!gives || gives.ac !== box.ac || gives.mA < box.mA || volts === undefined) return [];
      return [
        {
          name: `y_${b}_${k}`,
          box,
          outputs: bridge.outputs,
          volts,
          isBridge: true,
          adapters: adaptersOf(box, theFirst(joined)),
        },
      ];
    }),
  ]);

interface Term {
  readonly times: number;
  readonly name: string;
}
const sum = (terms: readonly Term[]): string =>
  terms.map(({ times, name }) => `${times < 0 ? '-' : '+'} ${Math.abs(times)} ${name}`).join(' ');
const each = (ways: readonly Feeding[], times: (way: Feeding) => number = () => 1): readonly Term[] =>
  ways.map((way) => ({ times: times(way), name: way.name })).filter((t) => t.times !== 0);

/** What is to be as small as can be, one after the other. */
export const AIMS = ['unpowered', 'adapters', 'mixed', 'shared', 'moved'] as const;
export type Aim = (typeof AIMS)[number];

/**
 * Who feeds whom as an integer programme for one aim, with the aims before it held at what they came to.
 * The rules are those of {@link judged}.
 */
export const supplyProgramme = (
  problem: SupplyProblem,
  ways: readonly Feeding[],
  aim: Aim,
  held: ReadonlyMap<Aim, number>,
): Programme => {
  const noise = mixing(problem, ways);
  const used = usedOutputs(problem, ways);
  const rows = [...feedRows(problem, ways), ...noise.rows, ...used.rows];
  const sums: Readonly<Record<Aim, readonly Term[]>> = {
    unpowered: each(ways, () => -1),
    adapters: each(
      ways,
      ({ adapters, isBridge }) => Number(adapters.polarity) + Number(adapters.plug) + Number(isBridge),
    ),
    mixed: noise.mixed.map((name) => ({ times: 1, name })),
    // Boxes beside others: with as many boxes fed, the more outputs feed one, the fewer share.
    shared: used.names.map((name) => ({ times: -1, name })),
    moved: each(ways, ({ box, outputs }) => Number(problem.now?.get(box.id)?.join() !== outputs.join())),
  };
  for (const [one, value] of held) if (sums[one].length) rows.push(`${sum(sums[one])} <= ${value}`);
  const names = [...ways.map((w) => w.name), ...noise.names, ...(problem.daisy ? settingsOf(ways) : []), ...used.names];
  const lines = rows.map((row, i) => `r${i}: ${row}`).join('\n');
  const goal = sums[aim].length ? sum(sums[aim]) : '0 none';
  return {
    text: `Minimize\nobj: ${goal}\nSubject To\n${lines}\nBinary\n${[...names, ...(goal === '0 none' ? ['none'] : [])].join(' ')}\nEnd\n`,
    plus: 0,
  };
};

/** An output stands at one voltage. */
const setting = (output: string, volts: number, all: readonly string[]): string =>
  `v_${all.indexOf(output)}_${String(volts).replace('.', 'p')}`;
const outputsOf = (ways: readonly Feeding[]): readonly string[] => [...new Set(ways.flatMap((w) => w.outputs))];
const settingsOf = (ways: readonly Feeding[]): readonly string[] => {
  const all = outputsOf(ways);
  return [...new Set(ways.filter((w) => !w.isBridge).map((w) => setting(w.outputs.join(), w.volts, all)))];
};

const feedRows = (problem: SupplyProblem, ways: readonly Feeding[]): string[] => {
  const { boxes, outputs, daisy, adapters, totals = [] } = problem;
  const rows: string[] = [];
  const most = (terms: readonly Term[], value: number): void => {
    if (terms.length) rows.push(`${sum(terms)} <= ${value}`);
  };
  for (const box of boxes) most(each(ways.filter((w) => w.box.id === box.id)), 1);
  if (adapters.polarity !== null)
    most(
      each(ways, (w) => Number(w.adapters.polarity)),
      adapters.polarity,
    );
  if (adapters.plug !== null)
    most(
      each(ways, (w) => Number(w.adapters.plug)),
      adapters.plug,
    );
  for (const { outputs: some, W } of totals)
    most(
      each(ways, (w) => (w.outputs.some((o) => some.includes(o)) ? w.volts * w.box.mA : 0)),
      W * 1000,
    );
  const all = outputsOf(ways);
  for (const output of outputs) {
    const here = ways.filter((w) => w.outputs.includes(output.id));
    const single = here.filter((w) => !w.isBridge);
    const bridged = each(here.filter((w) => w.isBridge));
    if (!daisy) {
      most([...each(single), ...bridged], 1);
      continue;
    }
    const volts = [...new Set(single.map((w) => w.volts))];
    const settings = volts.map((v) => ({ times: 1, name: setting(output.id, v, all) }));
    most([...settings, ...bridged], 1);
    for (const way of single)
      most(
        [
          { times: 1, name: way.name },
          { times: -1, name: setting(output.id, way.volts, all) },
        ],
        0,
      );
    most(
      each(single, (w) => w.box.mA),
      output.mA,
    );
    for (const alone of boxes) {
      const own = each(single.filter((w) => w.box.id === alone.id && w.adapters.polarity));
      for (const other of boxes)
        if (other.id !== alone.id && own.length)
          most([...own, ...each(single.filter((w) => w.box.id === other.id))], 1);
    }
  }
  return rows;
};

/** Which outputs feed a box by themselves, where they may feed several. */
const usedOutputs = ({ outputs, daisy }: SupplyProblem, ways: readonly Feeding[]) => {
  if (!daisy) return { rows: [], names: [] };
  const rows: string[] = [];
  const names: string[] = [];
  outputs.forEach((output, o) => {
    const here = ways.filter((w) => !w.isBridge && w.outputs.includes(output.id));
    if (here.length === 0) return;
    rows.push(`u_${o} ${sum(here.map((w) => ({ times: -1, name: w.name })))} <= 0`);
    names.push(`u_${o}`);
  });
  return { rows, names };
};

/** Which groups hold a digital box and one of high gain. */
const mixing = ({ outputs }: SupplyProblem, ways: readonly Feeding[]) => {
  const rows: string[] = [];
  const names: string[] = [];
  const mixed: string[] = [];
  const groups = [...new Set(outputs.map((o) => o.group))];
  groups.forEach((group, g) => {
    const inside = new Set(outputs.filter((o) => o.group === group).map((o) => o.id));
    const here = ways.filter((w) => w.outputs.some((o) => inside.has(o)));
    const digital = here.filter((w) => w.box.noise === 'digital');
    const gain = here.filter((w) => w.box.noise === 'gain');
    if (digital.length === 0 || gain.length === 0) return;
    for (const way of digital) rows.push(`${way.name} - d_${g} <= 0`);
    for (const way of gain) rows.push(`${way.name} - g_${g} <= 0`);
    rows.push(`d_${g} + g_${g} - m_${g} <= 1`);
    names.push(`d_${g}`, `g_${g}`, `m_${g}`);
    mixed.push(`m_${g}`);
  });
  return { rows, names, mixed };
};
