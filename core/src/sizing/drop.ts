import { INSULATION_C } from '../codes/ampacity.ts';
import { fixedWiringOhm, leadOhm } from '../codes/leads.ts';
import type { System } from '../figures/wiring/carried.ts';
import type { ConductorQuestion } from './question.ts';

/** Reactance of a conductor beside its return, Ω/m (IEC 60364-5-52, annex G, where nothing better is known). */
export const REACTANCE_OHM_PER_M = 0.00008;

/** Conductors in series that the voltage is lost over: out and back, or √3 of one where three balance each other. */
export const dropFactor = (system: System): number => (system === 'three-line' ? Math.sqrt(3) : 2);

/** Resistance of one conductor per metre at the highest temperature of its insulation, Ω: class 5 for flexible leads, else class 2. */
export const ohmPerMetre = (
  { laid, isFlexible, parallel }: Pick<ConductorQuestion, 'laid' | 'isFlexible' | 'parallel'>,
  areaMm2: number,
): number => {
  const hottestC = INSULATION_C[laid.insulation];
  const ohm = isFlexible ? leadOhm(1, areaMm2, hottestC) : fixedWiringOhm(1, areaMm2, hottestC);
  return ohm / parallel;
};

/** Voltage lost, V: ΔU = b · L · I · (R · cosφ + X · sinφ), b of 2 or √3, without X in direct current. */
export function dropV(
  question: ConductorQuestion,
  areaMm2: number,
  lengthM: number,
  currentA: number,
  powerFactor: number,
): number {
  const { system, parallel } = question;
  const ohm = ohmPerMetre(question, areaMm2);
  const sine = Math.sqrt(Math.max(0, 1 - powerFactor * powerFactor));
  const perMetre = system === 'dc' ? ohm : ohm * powerFactor + (REACTANCE_OHM_PER_M / parallel) * sine;
  return dropFactor(system) * lengthM * currentA * perMetre;
}
