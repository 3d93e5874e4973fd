import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { network, type Element } from '@yunta/core/electric/circuit/circuit';
import { netlist } from '@yunta/core/electric/circuit/netlist';
import { responseOf } from '@yunta/core/electric/circuit/response';
import { alongs } from '@yunta/core/electric/levels/along';
import { noiseAt } from '@yunta/core/electric/levels/noise';
import { frontEnds } from '@yunta/core/electric/front/front-end';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import { giantRig } from '@yunta/core/testing/giant-rig';
import { print } from '../say.js';

const part = (
  is: 'resistor' | 'capacitor' | 'inductor',
  name: string,
  n1: string,
  n2: string,
  value: number,
): Element => ({
  is,
  name,
  n1,
  n2,
  value,
});
/** A pickup, its controls half down, a buffer and a volume pedal between two cables. */
const FRONT: readonly Element[] = [
  { is: 'source', name: 'V1', n1: 'src', n2: '0' },
  part('resistor', 'Rs', 'src', 'n1', 6000),
  part('inductor', 'L1', 'n1', 'a', 2.5),
  part('capacitor', 'Cp', 'a', '0', 110e-12),
  part('resistor', 'Rtone', 'a', 't', 250_000),
  part('capacitor', 'Ctone', 't', '0', 22e-9),
  part('resistor', 'Rtop', 'a', 'w', 125_000),
  part('resistor', 'Rbot', 'w', '0', 125_000),
  part('capacitor', 'C1', 'w', '0', 300e-12),
  { is: 'amplifier', name: 'E1', n1: 'x', n2: '0', ctrlP: 'w', ctrlN: '0', gain: 1 },
  part('resistor', 'Rout', 'x', 'y', 1000),
  part('resistor', 'Rpt', 'y', 'z', 12_500),
  part('resistor', 'Rpb', 'z', '0', 12_500),
  part('capacitor', 'C2', 'z', '0', 600e-12),
  part('resistor', 'Rin', 'z', '0', 1e6),
];
const FREQUENCIES = Array.from({ length: 400 }, (_, i) => 20 * 1000 ** (i / 399));
const TIMES = 50;

const milliseconds = (what: () => void, times: number): number => {
  what();
  const since = performance.now();
  for (let i = 0; i < times; i += 1) what();
  return (performance.now() - since) / times;
};

/** How fast the passive front end is worked out, beside a circuit simulator on the same netlist. */
export const measureLoading = (): void => {
  print('\nPassive front end, 15 parts');
  const sweep = milliseconds(() => {
    const circuit = network(FRONT);
    for (const hz of FREQUENCIES) circuit.decibels('z', hz);
  }, TIMES);
  print(`400 frequencies: ${sweep.toFixed(2)} ms`);
  print(`peak, -3 dB and curve: ${milliseconds(() => responseOf(FRONT, 'z'), TIMES).toFixed(2)} ms`);
  const folder = mkdtempSync(join(tmpdir(), 'yunta-bench-'));
  try {
    const file = join(folder, 'front.cir');
    writeFileSync(file, netlist('front end', FRONT, 'z', 67));
    const run = () => execFileSync('ngspice', ['-b', file], { stdio: ['ignore', 'pipe', 'pipe'] });
    print(`the same by ngspice, with its start, 400 frequencies: ${milliseconds(run, 5).toFixed(0)} ms`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
};

/**
 * Levels, noise and passive front ends of every sound of the giant rig, worked out anew: a rig that is traced again
 * each time, so that nothing is remembered.
 */
export const measureLevels = (): void => {
  const { rig, hookup } = giantRig();
  const d = deriveOnce(rig, hookup.id);
  if (!d) return;
  const sounds = [...d.compilation.sounds.values()];
  print(`\nLevels of the giant rig, ${sounds.length} sounds`);
  const anew = () => sounds.map(({ trace }) => ({ ...trace }));
  const times = (what: (t: (typeof sounds)[number]['trace']) => void): number => {
    for (const t of anew()) what(t);
    const sets = Array.from({ length: 3 }, anew);
    const since = performance.now();
    for (const traces of sets) for (const t of traces) what(t);
    return (performance.now() - since) / sets.length;
  };
  const levels = times((t) => alongs(t, rig));
  const noise = times((t) => {
    for (const along of alongs(t, rig)) for (const o of along.outputs) noiseAt(rig, t, along, o.point);
  });
  const fronts = times((t) => frontEnds(rig, t));
  print(`levels: ${levels.toFixed(0)} ms; with noise at every output: ${noise.toFixed(0)} ms`);
  print(`what hangs on the coils: ${fronts.toFixed(0)} ms`);
};
