import type { Connector } from '../rig/device.js';

/**
 * How far a plug with the bend of its lead stands out of a jack, straight and bent by a right angle, and how wide it
 * is, in mm. Assumed, of usual sizes: measure yours before you cut.
 */
const PLUGS: Readonly<Partial<Record<Connector, readonly [straight: number, angled: number, wide: number]>>> = {
  '6.35 TS': [55, 18, 18],
  '6.35 TRS': [55, 18, 18],
  XLR: [70, 35, 19],
  combo: [70, 35, 19],
  'DIN-5': [50, 25, 18],
  '3.5 TRS A': [35, 14, 10],
  '3.5 TRS B': [35, 14, 10],
  '3.5 TRS': [35, 14, 10],
  barrel: [35, 14, 11],
  USB: [40, 18, 14],
  mains: [60, 30, 25],
  speaker: [70, 35, 25],
  multicore: [90, 60, 40],
};
const UNKNOWN_PLUG = [55, 18, 18] as const;

/** Connectors that are bought bent by a right angle as a matter of course (common practice). */
const OFTEN_ANGLED: readonly Connector[] = ['6.35 TS', '6.35 TRS', 'barrel', '3.5 TRS A', '3.5 TRS B', '3.5 TRS'];
export const isOftenAngled = (connector: Connector): boolean => OFTEN_ANGLED.includes(connector);

/** In mm. */
export const plugSize = (connector: Connector, isAngled: boolean): { readonly out: number; readonly wide: number } => {
  const [straight, angled, wide] = PLUGS[connector] ?? UNKNOWN_PLUG;
  return { out: isAngled ? angled : straight, wide };
};
