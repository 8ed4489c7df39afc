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
 * Share of a generator's rating left at a site: a loss per 100 m above 150 m, and one per 5 degrees above 25 °C, both
 * as attributes of the set. Never below 0.
 */
export function generatorFactor(
  altitudeLossPer100M: number,
  temperatureLossPer5K: number,
  altitudeM: number,
  ambientC: number,
): number {
  const altitude = 1 - (altitudeLossPer100M * Math.max(0, altitudeM - 150)) / 100;
  const heat = 1 - (temperatureLossPer5K * Math.max(0, ambientC - 25)) / 5;
  return Math.max(0, altitude) * Math.max(0, heat);
}
