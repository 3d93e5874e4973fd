import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Solver } from '../src/plan/solver.js';

/** CBC, the integer programming solver of COIN-OR: a second opinion beside the solver that ships. */
export const askCbc: Solver = ({ text, plus }, seconds) => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-cbc-'));
  try {
    writeFileSync(join(folder, 'model.lp'), text);
    execFileSync('cbc', ['model.lp', 'sec', String(seconds), 'solve', 'solution', 'out.txt'], {
      cwd: folder,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    const [head = '', ...lines] = readFileSync(join(folder, 'out.txt'), 'utf8').split('\n');
    const optimum = /^Optimal - objective value (-?[\d.]+)/.exec(head)?.[1];
    if (optimum === undefined) throw new Error(`CBC did not finish: ${head}`);
    const values = new Map(
      lines.map((line) => line.trim().split(/\s+/)).map(([, name, value]) => [name, Number(value)]),
    );
    return { bound: Number(optimum) + plus, value: (variable) => values.get(variable) ?? 0 };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
};
