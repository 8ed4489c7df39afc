import { codeProfile, type CodeProfileName } from './profile.ts';
import { deviceRatings } from './tables.generated.ts';

/** Small North American conductors have a largest device of their own, A by mm². */
const SMALL_NA: readonly { readonly areaMm2: number; readonly mostA: number }[] = [
  { areaMm2: 2.08, mostA: 15 },
  { areaMm2: 3.31, mostA: 20 },
  { areaMm2: 5.26, mostA: 30 },
];
/** Above this the next size up is no longer allowed, A. */
const NEXT_SIZE_TO_A = 800;

/**
 * The largest device that may protect a conductor of an ampacity. Metric: I_n ≤ I_z. North American: the next standard rating at or
 * above the ampacity, to 800 A; 14, 12 and 10 AWG never above 15, 20 and 30 A.
 */
export function largestDeviceA(name: CodeProfileName, ampacityA: number, areaMm2: number): number {
  if (name === 'metric') return ampacityA;
  const next = nextDeviceA(name, ampacityA) ?? Infinity;
  return Math.min(smallConductorA(name, areaMm2) ?? Infinity, next <= NEXT_SIZE_TO_A ? next : ampacityA);
}

/** Standard ratings of a profile, rising, A: of its miniature breakers first where both make one. */
const STANDARD_A: Readonly<Record<CodeProfileName, readonly number[]>> = {
  metric: standard('metric'),
  'north-american': standard('na'),
};

function standard(profile: 'metric' | 'na'): readonly number[] {
  const own = deviceRatings.filter((row) => row.profile === profile).map((row) => row.ratingA);
  return [...new Set(own)].sort((a, b) => a - b);
}

/** The standard ratings of a profile, rising, A. */
export const standardDevicesA = (name: CodeProfileName): readonly number[] => STANDARD_A[name];

/** The next standard rating at or above a current; undefined above the largest. */
export function nextDeviceA(
  name: CodeProfileName,
  amperes: number,
  place: 'ac' | 'battery' = 'ac',
): number | undefined {
  const ratings = place === 'battery' ? codeProfile(name).standardBatteryDeviceA : STANDARD_A[name];
  return ratings.find((rating) => rating >= amperes - 1e-9);
}

/** The largest device of 14, 12 and 10 AWG whatever they carry, A; undefined for any other conductor. */
export function smallConductorA(name: CodeProfileName, areaMm2: number): number | undefined {
  if (name === 'metric') return undefined;
  return SMALL_NA.find((one) => areaMm2 <= one.areaMm2 * 1.02)?.mostA;
}
