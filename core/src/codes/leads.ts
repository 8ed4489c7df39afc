import { ampacityNa, resistanceMetric } from './tables.generated.ts';

/** Temperature coefficient of copper at 20 °C, per kelvin. */
const ALPHA_20 = 0.00393;
/** Resistivity of annealed copper at 20 °C, Ω·mm²/m. */
const RHO_20 = 0.017241;
const M_PER_KFT = 304.8;

const factorAt = (conductorC: number): number => 1 + ALPHA_20 * (conductorC - 20);

/**
 * Resistance of one metre of flexible copper at 20 °C, Ω: class 5 of IEC 60228 for a metric size, the tabulated direct-current
 * resistance for a North American one, and ρ20 / A for a size that no table has.
 */
function ohmPerM20(areaMm2: number): number {
  const metric = resistanceMetric.find((one) => one.areaMm2 === areaMm2);
  if (metric !== undefined) return metric.class5OhmPerKm20C / 1000;
  const american = ampacityNa.find((one) => one.areaMm2 === areaMm2);
  if (american !== undefined) return american.dcResistanceOhmPerKft75C / M_PER_KFT / factorAt(75);
  return RHO_20 / areaMm2;
}

/** Resistance of one pole of a copper lead at its temperature: R = R20 · (1 + 0.00393 · (T − 20)). */
export const leadOhm = (lengthM: number, areaMm2: number, conductorC: number): number =>
  ohmPerM20(areaMm2) * lengthM * factorAt(conductorC);

/**
 * Resistance of one conductor of fixed wiring, Ω: class 2 of IEC 60228 for a metric size, as a lead for any other. R = R20 · (1 +
 * 0.00393 · (T − 20)).
 */
export function fixedWiringOhm(lengthM: number, areaMm2: number, conductorC: number): number {
  const metric = resistanceMetric.find((one) => one.areaMm2 === areaMm2);
  if (metric === undefined) return leadOhm(lengthM, areaMm2, conductorC);
  return (metric.class2OhmPerKm20C / 1000) * lengthM * factorAt(conductorC);
}

/** Resistance of a solid copper bar from its cross-section: R = ρ20 · l / A, corrected likewise. */
export const barOhm = (lengthM: number, areaMm2: number, conductorC: number): number =>
  ((RHO_20 * lengthM) / areaMm2) * factorAt(conductorC);

/** Tabulated sizes of flexible copper, mm², rising. */
export const LEAD_SIZES_MM2: readonly number[] = resistanceMetric.map((row) => row.areaMm2);
