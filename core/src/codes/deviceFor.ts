import type { CodeProfileName, Tabulated } from './profile.ts';
import { ampacityMetric, ampacityNa, deviceRatings } from './tables.generated.ts';

/** Small North American conductors have a largest device of their own, A by mm². */
const SMALL_NA: readonly { readonly areaMm2: number; readonly mostA: number }[] = [
  { areaMm2: 2.08, mostA: 15 },
  { areaMm2: 3.31, mostA: 20 },
  { areaMm2: 5.26, mostA: 30 },
];
/** Above this the next size up is no longer allowed, A. */
const NEXT_SIZE_TO_A = 800;

const NA_RATINGS = deviceRatings.filter((row) => row.profile !== 'metric').map((row) => row.ratingA);

/**
 * The largest device that may protect a conductor of an ampacity. Metric: I_n ≤ I_z. North American: the next standard rating at or
 * above the ampacity, to 800 A; 14, 12 and 10 AWG never above 15, 20 and 30 A.
 */
export function largestDeviceA(name: CodeProfileName, ampacityA: number, areaMm2: number): number {
  if (name === 'metric') return ampacityA;
  const small = SMALL_NA.find((one) => areaMm2 <= one.areaMm2 * 1.02);
  if (small !== undefined) return Math.min(small.mostA, ampacityA);
  const next = Math.min(...NA_RATINGS.filter((rating) => rating >= ampacityA - 1e-9));
  return next <= NEXT_SIZE_TO_A ? next : ampacityA;
}

/**
 * What the cable of a circuit carries at 30 °C and by itself: metric, PVC clipped direct, two or three loaded conductors; North
 * American, the 60 °C column to 100 A and the 75 °C column above. Of a size between two rows the smaller counts.
 */
export function circuitAmpacityA(name: CodeProfileName, areaMm2: number, loadedConductors: 2 | 3): Tabulated {
  const fits = (row: { readonly areaMm2: number }): boolean => row.areaMm2 <= areaMm2 * 1.02;
  if (name === 'metric')
    return (
      ampacityMetric
        .filter(
          (row) =>
            row.insulation === 'PVC70' &&
            row.method === 'C' &&
            row.loadedConductors === loadedConductors &&
            fits(row),
        )
        .at(-1)?.ampacityA ?? 'not tabulated'
    );
  const row = ampacityNa.filter(fits).at(-1);
  if (row === undefined) return 'not tabulated';
  return row.ampacity60CA <= 100 ? row.ampacity60CA : row.ampacity75CA;
}
