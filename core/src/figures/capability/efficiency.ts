import type { InverterType } from '../../catalogue/inverterType.ts';

export type EfficiencyFigures = Pick<InverterType, 'efficiency' | 'efficiencyPoints' | 'ratedW'>;

/** Efficiency of a unit at what it gives: straight between the points of its type, flat outside them; one figure where it has no points. */
export function efficiencyAt(
  { efficiency, efficiencyPoints, ratedW }: EfficiencyFigures,
  watts: number,
): number {
  const [first, ...rest] = efficiencyPoints ?? [];
  if (first === undefined) return efficiency;
  const share = watts / ratedW;
  let low = first;
  if (share <= low.share) return low.efficiency;
  for (const high of rest) {
    if (share <= high.share)
      return (
        low.efficiency + ((high.efficiency - low.efficiency) * (share - low.share)) / (high.share - low.share)
      );
    low = high;
  }
  return low.efficiency;
}
