import { emptyDesign } from '../../design/read.ts';
import { withFirstValues } from '../../design/firstValues.ts';
import type { Design, SupplyKind } from '../../design/schema.ts';
import type { CodeProfileName } from '../../codes/profile.ts';

/** A usual supply: what it says is chosen with it, by name. */
export interface Region {
  readonly id: string;
  readonly label: string;
  readonly supply: SupplyKind;
  /** Line to neutral. */
  readonly lineVoltageV: number;
  readonly frequencyHz: 50 | 60;
  readonly codeProfile: CodeProfileName;
}

export const REGIONS: readonly Region[] = [
  {
    id: '230-50-single',
    label: '230 V 50 Hz, single-phase, metric sizes',
    supply: 'single-phase',
    lineVoltageV: 230,
    frequencyHz: 50,
    codeProfile: 'metric',
  },
  {
    id: '400-50-three',
    label: '230/400 V 50 Hz, three-phase, metric sizes',
    supply: 'three-phase',
    lineVoltageV: 230,
    frequencyHz: 50,
    codeProfile: 'metric',
  },
  {
    id: '240-60-split',
    label: '120/240 V 60 Hz, split-phase, North American sizes',
    supply: 'split-phase',
    lineVoltageV: 120,
    frequencyHz: 60,
    codeProfile: 'north-american',
  },
  {
    id: '208-60-three',
    label: '120/208 V 60 Hz, three-phase, North American sizes',
    supply: 'three-phase',
    lineVoltageV: 120,
    frequencyHz: 60,
    codeProfile: 'north-american',
  },
  {
    id: '230-60-single',
    label: '230 V 60 Hz, single-phase, metric sizes',
    supply: 'single-phase',
    lineVoltageV: 230,
    frequencyHz: 60,
    codeProfile: 'metric',
  },
  {
    id: '220-60-three',
    label: '127/220 V 60 Hz, three-phase, metric sizes',
    supply: 'three-phase',
    lineVoltageV: 127,
    frequencyHz: 60,
    codeProfile: 'metric',
  },
];

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
