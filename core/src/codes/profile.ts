import { ampacityMetric, ampacityNa, deviceRatings, factorsMetric, factorsNa } from './tables.generated.ts';

export type CodeProfileName = 'metric' | 'north-american';

/** A value from a table, or the plain fact that the table has none. Never a guess. */
export type Tabulated = number | 'not tabulated';

/** What a code profile decides for the checks of this core. */
export interface CodeProfile {
  readonly name: CodeProfileName;
  /** A device carrying a continuous load must be rated at least this many times the load. */
  readonly continuousFactor: number;
  readonly standardBatteryDeviceA: readonly number[];
  ampacityA(insulation: string, loadedConductors: number, method: string, size: number | string): Tabulated;
  ambientFactor(insulation: string, ambientC: number): Tabulated;
}

const batteryDeviceA = deviceRatings
  .filter((row) => row.kind === 'battery dc breaker or fuse')
  .map((row) => row.ratingA);

const metric: CodeProfile = {
  name: 'metric',
  continuousFactor: 1,
  standardBatteryDeviceA: batteryDeviceA,
  ampacityA: (insulation, loadedConductors, method, size) =>
    ampacityMetric.find(
      (row) =>
        row.insulation === insulation &&
        row.loadedConductors === loadedConductors &&
        row.method === method &&
        row.areaMm2 === size,
    )?.ampacityA ?? 'not tabulated',
  // The next tabulated temperature up: the cautious side of a stepped table.
  ambientFactor: (insulation, ambientC) =>
    factorsMetric.find(
      (row) => row.kind === 'ambientAirC' && row.insulation === insulation && row.key >= ambientC,
    )?.factor ?? 'not tabulated',
};

const NA_COLUMNS: Record<string, 'ampacity60CA' | 'ampacity75CA' | 'ampacity90CA'> = {
  '60C': 'ampacity60CA',
  '75C': 'ampacity75CA',
  '90C': 'ampacity90CA',
};

const northAmerican: CodeProfile = {
  name: 'north-american',
  continuousFactor: 1.25,
  standardBatteryDeviceA: batteryDeviceA,
  ampacityA: (insulation, _loadedConductors, _method, size) => {
    const column = NA_COLUMNS[insulation];
    const row = ampacityNa.find((one) => one.size === size);
    return column === undefined || row === undefined ? 'not tabulated' : row[column];
  },
  ambientFactor: (insulation, ambientC) =>
    factorsNa.find(
      (row) => row.kind === 'ambientAirC' && row.insulation === insulation && row.upTo >= ambientC,
    )?.factor ?? 'not tabulated',
};

const PROFILES: Record<CodeProfileName, CodeProfile> = { metric, 'north-american': northAmerican };

/** The tables and rules of a code profile. */
export function codeProfile(name: CodeProfileName): CodeProfile {
  return PROFILES[name];
}
