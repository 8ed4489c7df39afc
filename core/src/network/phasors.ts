import { hypot } from '../values/elementary.ts';
import {
  add,
  type Complex,
  complex,
  conjugate,
  divide,
  magnitude,
  multiply,
  polar,
  subtract,
  ZERO,
} from './complex.ts';

/** Angle of each line's voltage, in degrees, by the number of lines: one at 0; two 180 apart; three 120 apart. */
const ANGLES: Record<1 | 2 | 3, readonly number[]> = { 1: [0], 2: [0, 180], 3: [0, -120, 120] };

/** The line-to-neutral voltages of a supply as phasors, in the order L1, L2, L3. */
export function lineVoltages(lineCount: 1 | 2 | 3, lineToNeutralV: number): Complex[] {
  return ANGLES[lineCount].map((angle) => polar(lineToNeutralV, angle));
}

/** Apparent power S = P/pf at angle acos(pf), lagging, in W + j·var. */
export function lagging(apparentVa: number, powerFactor: number): Complex {
  return complex(
    apparentVa * powerFactor,
    apparentVa * Math.sqrt(Math.max(0, 1 - powerFactor * powerFactor)),
  );
}

/**
 * Shares the apparent power of a load among the lines it hangs on: S_line = V_line · conj(I_line).
 * One line: all of it. Two: I = conj(S / V_ab) leaves by one and returns by the other, so each line sees its own share of
 * watts and vars although the sum is S. Three: thirds.
 */
export function shareOnLines(power: Complex, on: readonly number[], voltages: readonly Complex[]): Complex[] {
  const shares = voltages.map(() => ZERO);
  const [a, b] = on;
  if (a === undefined) return shares;
  if (on.length === 1) {
    shares[a] = power;
  } else if (on.length === 2 && b !== undefined) {
    const va = voltages[a] ?? ZERO;
    const vb = voltages[b] ?? ZERO;
    const current = conjugate(divide(power, subtract(va, vb)));
    shares[a] = multiply(va, conjugate(current));
    shares[b] = multiply(vb, conjugate(complex(-current.re, -current.im)));
  } else {
    for (const line of on) shares[line] = complex(power.re / on.length, power.im / on.length);
  }
  return shares;
}

/** Line currents I = conj(S/V) of the apparent power on each line. */
export function lineCurrents(power: readonly Complex[], voltages: readonly Complex[]): Complex[] {
  return power.map((one, index) => conjugate(divide(one, voltages[index] ?? ZERO)));
}

/**
 * Neutral current: I_N = sqrt(I_fund² + I_3²). The fundamental is the phasor sum of the line currents (line-to-line
 * and three-phase loads cancel in it). Third harmonics of lines 120° apart add arithmetically; of lines 180° apart they
 * oppose each other (3 × 180° = 540°); of a single line they return by the neutral whole.
 *
 * @param harmonicA third-harmonic amperes on each line
 */
export function neutralCurrentA(currents: readonly Complex[], harmonicA: readonly number[]): number {
  const fundamental = magnitude(currents.reduce(add, ZERO));
  const third =
    currents.length === 2
      ? Math.abs((harmonicA[0] ?? 0) - (harmonicA[1] ?? 0))
      : harmonicA.reduce((sum, one) => sum + one, 0);
  return hypot(fundamental, third);
}

/** Imbalance (max − min) / mean of the line loads; 0 where nothing flows. */
export function imbalance(loadsVa: readonly number[]): number {
  const mean = loadsVa.reduce((sum, one) => sum + one, 0) / Math.max(1, loadsVa.length);
  return mean === 0 ? 0 : (Math.max(...loadsVa) - Math.min(...loadsVa)) / mean;
}
