import type { Rig } from '../rig/rig.js';
import { islandRun } from './island-run.js';
import { lighthouseSolo } from './lighthouse-solo.js';
import { nightMarketBass } from './night-market-bass.js';

/** The rigs that ship with Yunta, each under its id; all of them made up. */
export const DEMO_RIGS: readonly { readonly id: string; readonly make: () => Rig }[] = [
  { id: 'island-run', make: islandRun },
  { id: 'night-market-bass', make: nightMarketBass },
  { id: 'lighthouse-solo', make: lighthouseSolo },
];
