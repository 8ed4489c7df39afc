import { square } from '../values/power.ts';
import type { CodeProfileName } from './profile.ts';

/**
 * Outside area of a single core with its insulation, mm². Metric: from the upper limits of the overall diameter of flexible single
 * cores with PVC insulation (EN 50525-2-31: 3.4, 4.1, 4.8, 5.3, 6.8, 8.1, 10.2, 11.7, 13.9, 16.0, 18.2, 20.2 mm for 1.5 to 120 mm²).
 * North American: thin thermoplastic insulation with nylon jacket, 14 AWG to 4/0 (0.0097 to 0.3237 in²).
 */
const METRIC_DIAMETER_MM: readonly (readonly [number, number])[] = [
  [1.5, 3.4],
  [2.5, 4.1],
  [4, 4.8],
  [6, 5.3],
  [10, 6.8],
  [16, 8.1],
  [25, 10.2],
  [35, 11.7],
  [50, 13.9],
  [70, 16],
  [95, 18.2],
  [120, 20.2],
];
const NA_AREA_IN2: readonly (readonly [number, number])[] = [
  [2.08, 0.0097],
  [3.31, 0.0133],
  [5.26, 0.0211],
  [8.37, 0.0366],
  [13.3, 0.0507],
  [21.2, 0.0824],
  [26.7, 0.0973],
  [33.6, 0.1158],
  [42.4, 0.1562],
  [53.5, 0.1855],
  [67.4, 0.2223],
  [85, 0.2679],
  [107, 0.3237],
];
const MM2_PER_IN2 = 645.16;
/** Sizes that differ by less are one. */
const SAME = 0.03;

/** Outside area of one insulated core; of a size between two rows that of the thicker. Undefined above the last row. */
export function coreAreaMm2(profile: CodeProfileName, areaMm2: number): number | undefined {
  const rows = profile === 'metric' ? METRIC_DIAMETER_MM : NA_AREA_IN2;
  const row = rows.find(([size]) => size * (1 + SAME) >= areaMm2);
  if (row === undefined) return undefined;
  return profile === 'metric' ? (Math.PI / 4) * square(row[1]) : row[1] * MM2_PER_IN2;
}

/** The share of a conduit that so many cables or cores may fill: 45 % in metric; 53, 31 and 40 % for one, two and more in North American practice. */
export function fillLimit(profile: CodeProfileName, count: number): number {
  if (profile === 'metric') return 0.45;
  return count === 1 ? 0.53 : count === 2 ? 0.31 : 0.4;
}
