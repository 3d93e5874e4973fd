import type { End } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { lazily } from '../../kept/kept.js';
import { downstream, upstream } from '../../signal/graph/trace.js';
import { isDirt, type Audible } from './audible.js';
import { theItem } from '../../known/the.js';

const CABINETS = new Set(['cabinet', 'cabinet simulation', 'microphone']);
export const isElectric = ({ sources }: Audible): boolean => sources.has('guitar') || sources.has('bass');

/** A drive or a preamp that comes to the house or a recorder with no cabinet behind it. */
export interface Bare {
  readonly device: Id<'device'>;
  readonly why: 'guitar' | 'bass' | 'acoustic' | 'behind a cabinet';
}

/**
 * Drives and preamps whose sound comes to the house or a recorder with no cabinet, real or simulated, behind them;
 * each with what it is that they carry.
 */
export const bareDirt = ({ stages, trace }: Audible): readonly Bare[] => {
  const { wiring, onPath } = trace;
  const gains = stages.filter((s) => isDirt(s) || s.block.stage === 'preamp');
  if (gains.length === 0) return [];
  const cabinets = new Set(
    wiring.blocks.filter((b) => CABINETS.has(b.block.stage) && trace.stages.get(b.stage) === 'in').map((b) => b.edge),
  );
  const ends = wiring.ends.filter((e) => e.end.is === 'house' || e.end.is === 'recorder').map((e) => e.point);
  const comesBare = upstream(trace, ends, (e) => cabinets.has(e));
  const meets = (sources: readonly End['what'][], isInTheWay?: (edge: number) => boolean) => {
    const seen = lazily(() =>
      downstream(
        trace,
        wiring.sources.filter((s) => onPath[s.point] && sources.includes(s.end.what)).map((s) => s.point),
        isInTheWay,
      ),
    );
    return (edge: number): boolean => seen()[theItem(wiring.from, edge)] === 1;
  };
  const [byGuitar, byBass, byAcoustic] = [meets(['guitar']), meets(['bass']), meets(['acoustic'])];
  const beforeCabinet = meets(['guitar', 'bass', 'acoustic'], (e) => cabinets.has(e));
  return gains.flatMap((s): readonly Bare[] => {
    const ways = wiring.blocks
      .filter((b) => b.stage === s.stage && comesBare[theItem(wiring.to, b.edge)] === 1)
      .map((b) => b.edge);
    const is = (met: (edge: number) => boolean): boolean => ways.some(met);
    const isGain = isDirt(s) || s.isDriven;
    if (ways.length === 0) return [];
    if (is(byGuitar)) return [{ device: s.device, why: is(beforeCabinet) ? 'guitar' : 'behind a cabinet' }];
    if (is(byBass)) return isGain ? [{ device: s.device, why: 'bass' }] : [];
    return is(byAcoustic) && isGain ? [{ device: s.device, why: 'acoustic' }] : [];
  });
};
