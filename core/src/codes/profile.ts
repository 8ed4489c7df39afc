import { deviceRatings } from './tables.generated.ts';

export type CodeProfileName = 'metric' | 'north-american';

/** A value from a table, or the plain fact that the table has none. Never a guess. */
export type Tabulated = number | 'not tabulated';

/** What a code profile decides for the checks of this core, its tables apart. */
export interface CodeProfile {
  readonly name: CodeProfileName;
  /** A device carrying a continuous load must be rated at least this many times the load. */
  readonly continuousFactor: number;
  readonly standardBatteryDeviceA: readonly number[];
}

const standardBatteryDeviceA = deviceRatings
  .filter((row) => row.kind === 'battery dc breaker or fuse')
  .map((row) => row.ratingA);

const PROFILES: Record<CodeProfileName, CodeProfile> = {
  metric: { name: 'metric', continuousFactor: 1, standardBatteryDeviceA },
  'north-american': { name: 'north-american', continuousFactor: 1.25, standardBatteryDeviceA },
};

/** The rules of a code profile. */
export function codeProfile(name: CodeProfileName): CodeProfile {
  return PROFILES[name];
}
