import type { GeneratorType } from '../../catalogue/sourceTypes.ts';

/**
 * Voltage that an alternator keeps in the first moments of a load step, as a share: the load as an impedance behind its transient
 * reactance, both in line, which is the worst case: U = 1 / (1 + x' · S_step / S_rated).
 *
 * @param transientReactance x' per unit of the rating.
 * @param stepShare what comes on at once, as a share of the rating of the same line.
 */
export const stepVoltage = (transientReactance: number, stepShare: number): number =>
  1 / (1 + transientReactance * stepShare);

/** How far the frequency falls in a load step, as a share: in proportion to the step for which the type states it. Undefined where it does not. */
export function stepFrequencyFall(
  { stepFrequencyDip, largestStep }: Pick<GeneratorType, 'stepFrequencyDip' | 'largestStep'>,
  engineShare: number,
): number | undefined {
  if (stepFrequencyDip === undefined || largestStep === undefined || largestStep === 0) return undefined;
  return (stepFrequencyDip * engineShare) / largestStep;
}
