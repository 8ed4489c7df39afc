import type { Tabulated } from './profile.ts';
import { resistanceMetric } from './tables.generated.ts';

/** Temperature coefficient of copper at 20 °C, per kelvin. */
const ALPHA_20 = 0.00393;
/** Resistivity of annealed copper at 20 °C, Ω·mm²/m. */
const RHO_20 = 0.017241;

const atTemperature = (ohm20: number, conductorC: number): number =>
  ohm20 * (1 + ALPHA_20 * (conductorC - 20));

/**
 * Resistance of one pole of a flexible copper lead: class 5 of IEC 60228 at 20 °C, corrected to the conductor's temperature by
 * R = R20 · (1 + 0.00393 · (T − 20)). A size that is not tabulated is said to be so.
 */
export function leadOhm(lengthM: number, areaMm2: number, conductorC: number): Tabulated {
  const row = resistanceMetric.find((one) => one.areaMm2 === areaMm2);
  return row === undefined
    ? 'not tabulated'
    : atTemperature((row.class5OhmPerKm20C * lengthM) / 1000, conductorC);
}

/** Resistance of a solid copper bar from its cross-section: R = ρ20 · l / A, corrected likewise. */
export const barOhm = (lengthM: number, areaMm2: number, conductorC: number): number =>
  atTemperature((RHO_20 * lengthM) / areaMm2, conductorC);

/** Tabulated sizes of flexible copper, mm², rising. */
export const LEAD_SIZES_MM2: readonly number[] = resistanceMetric.map((row) => row.areaMm2);
