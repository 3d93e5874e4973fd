/** A linear programme in the CPLEX LP format, of which the least value is asked; variables under `Binary` are 0 or 1. */
export interface Programme {
  readonly text: string;
  /** What is to be added to its value. */
  readonly plus: number;
}

export interface Solved {
  /** No solution is cheaper than this; −∞ where nothing was proved. */
  readonly bound: number;
  /** The best solution that was found, by variable. */
  readonly value?: (variable: string) => number;
}

/** Whatever solves integer programmes. It stops after so many seconds and says what is proved by then. */
export type Solver = (programme: Programme, seconds: number) => Solved;

/** As much of HiGHS as is asked here; the package is loaded by whoever runs the program. */
interface Highs {
  createModel(source: { readonly format: 'lp'; readonly data: string }): {
    readonly options: { set(options: Readonly<Record<string, boolean | number | string>>): unknown };
    readonly info: { get(name: 'mip_dual_bound' | 'primal_solution_status'): number | bigint };
    run(): unknown;
    getSolution(): { readonly colValue: ArrayLike<number> };
    getColByName(name: string): number;
    dispose(): void;
  };
}

/** HiGHS tells by this that it has a solution. */
const HAS_SOLUTION = 2;

/** HiGHS as a solver. @throws when a programme cannot be read */
export const highsSolver =
  (highs: Highs): Solver =>
  ({ text, plus }, seconds) => {
    const model = highs.createModel({ format: 'lp', data: text });
    try {
      model.options.set({ output_flag: false, time_limit: seconds, random_seed: 1 });
      model.run();
      const bound = Number(model.info.get('mip_dual_bound')) + plus;
      if (Number(model.info.get('primal_solution_status')) !== HAS_SOLUTION) return { bound };
      const values = Float64Array.from(model.getSolution().colValue);
      const places = new Map<string, number>();
      const names = text.slice(text.indexOf('Binary\n') + 'Binary\n'.length, text.lastIndexOf('\nEnd')).split(' ');
      for (const name of names) places.set(name, values[model.getColByName(name)] ?? 0);
      return { bound, value: (variable) => places.get(variable) ?? 0 };
    } finally {
      model.dispose();
    }
  };
