import { emptyDesign } from '../../design/read.ts';
import { withFirstValues } from '../../design/firstValues.ts';
import type { Region } from '../../design/regions.ts';
import type { Design } from '../../design/schema.ts';
import type { CodeProfileName } from '../../codes/profile.ts';

/** Prospective fault current to begin with, A: what small devices of the profile commonly stand. */
const FIRST_FAULT_A: Record<CodeProfileName, number> = { metric: 6000, 'north-american': 10000 };

/**
 * A new document for a usual supply. Voltage, frequency, lines and profile are what the region says; the climate of a plant room, a
 * middling altitude and the fault current are first values, marked until somebody looks at them.
 */
export function startDesign(name: string, region: Region | undefined): Design {
  const design = emptyDesign(name);
  if (region === undefined) return design;
  const { supply, lineVoltageV, frequencyHz, codeProfile } = region;
  const first: Record<string, number | string> = {
    lowestC: -10,
    highestC: 35,
    equipmentLowestC: 5,
    equipmentHighestC: 35,
    altitudeM: 500,
    prospectiveFaultA: FIRST_FAULT_A[codeProfile],
    maintenanceBypass: 'none',
  };
  return withFirstValues(
    { ...design, site: { supply, lineVoltageV, frequencyHz, codeProfile } },
    Object.entries(first).map(([key, value]) => ({ path: ['site', key], value })),
  );
}
