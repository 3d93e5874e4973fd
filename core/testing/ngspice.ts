import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Element } from '../src/electric/circuit/circuit.js';
import { netlist } from '../src/electric/circuit/netlist.js';

/** What ngspice, a general-purpose circuit simulator, says of a circuit: levels in dB by frequency in Hz. */
export const askNgspice = (
  elements: readonly Element[],
  output: string,
  perDecade = 20,
): readonly (readonly [hz: number, db: number])[] => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-ngspice-'));
  try {
    const file = join(folder, 'circuit.cir');
    writeFileSync(file, netlist('a circuit', elements, output, perDecade));
    const said = execFileSync('ngspice', ['-b', file], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
    return said
      .split('\n')
      .map((line) => /^\d+\s+(\S+)\s+(\S+)\s*$/.exec(line.trim()))
      .flatMap((found) => (found ? [[Number(found[1]), Number(found[2])] as const] : []));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
};
