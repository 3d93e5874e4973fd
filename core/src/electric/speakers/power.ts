import type { Figures } from '../../rig/device.js';

/** Loads side by side, in ohms: 1/R = 1/R1 + 1/R2 (Ohm’s law). @example sideBySide([8, 8]) // 4 */
export const sideBySide = (ohms: readonly number[]): number => 1 / ohms.reduce((sum, ohm) => sum + 1 / ohm, 0);

/** Resistivity of annealed copper in nΩ·m at 20 °C (IEC 60028). */
const COPPER = 17.241;

/**
 * Resistance of one leg of a copper wire in ohms a metre, from its gauge.
 * d = 0.127·92^((36−n)/39) mm (ASTM B258).
 * @example gaugeOhmPerM(18) // 0.02095
 */
export const gaugeOhmPerM = (awg: number): number => {
  const mm = 0.127 * 92 ** ((36 - awg) / 39);
  const area = (Math.PI * mm ** 2) / 4;
  return (COPPER * 1e-3) / area;
};

/** Gauge of a loudspeaker lead of which nobody said it (common practice: 16 to 14, assumed). */
export const USUAL_AWG = 16;

/** Both legs of a lead, in ohms. */
export const leadOhm = (metres: number, awg = USUAL_AWG): number => 2 * metres * gaugeOhmPerM(awg);

/** What is lost in the lead before a load, in dB. @example leadLossDb(0.4, 8) // -0.42 */
export const leadLossDb = (lead: number, load: number): number => 20 * Math.log10(load / (load + lead));

/**
 * The most that a power stage gives into a load, in watts.
 * A transistor stage holds its voltage: half the load takes twice the power, as long as it stands that. A valve stage is
 * matched by its tap: it gives no more than it is rated for.
 */
export const wattsInto = (
  rated: { readonly watts: number; readonly ohm: number },
  ohm: number,
  stage: Figures['powerStage'],
): number => (stage === 'valve' ? rated.watts : (rated.watts * rated.ohm) / ohm);

/** How power is shared by loads side by side: each by its conductance. @example powerShares([8, 16]) // [0.667, 0.333] */
export const powerShares = (ohms: readonly number[]): readonly number[] => {
  const total = sideBySide(ohms);
  return ohms.map((ohm) => total / ohm);
};
