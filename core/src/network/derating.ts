/** A point of a derating curve: the share of rating left at an ambient temperature. */
export interface DeratingPoint {
  readonly ambientC: number;
  readonly factor: number;
}

/** Share of rating at a temperature: straight between points, flat outside them. An empty curve derates nothing. */
export function deratingFactor(points: readonly DeratingPoint[], ambientC: number): number {
  let low = points[0];
  if (low === undefined) return 1;
  if (ambientC <= low.ambientC) return low.factor;
  for (const high of points) {
    if (ambientC <= high.ambientC && high.ambientC > low.ambientC) {
      return (
        low.factor + ((high.factor - low.factor) * (ambientC - low.ambientC)) / (high.ambientC - low.ambientC)
      );
    }
    low = high;
  }
  return low.factor;
}

/**
 * Share of a generator's rating left at a site: a loss per 100 m above an altitude, and one per 5 degrees above a temperature, all four as
 * attributes of the set. Never below 0.
 */
export function generatorFactor(
  loss: {
    readonly per100M: number;
    readonly aboveM: number;
    readonly per5K: number;
    readonly aboveC: number;
  },
  altitudeM: number,
  ambientC: number,
): number {
  const altitude = 1 - (loss.per100M * Math.max(0, altitudeM - loss.aboveM)) / 100;
  const heat = 1 - (loss.per5K * Math.max(0, ambientC - loss.aboveC)) / 5;
  return Math.max(0, altitude) * Math.max(0, heat);
}
