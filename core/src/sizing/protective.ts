import { isAtLeastMm2, leadSizeWords } from '../codes/leadSizes.ts';
import { ampacityNa } from '../codes/tables.generated.ts';
import { ADIABATIC_K } from '../codes/ampacity.ts';
import type { CodeProfileName } from '../codes/profile.ts';
import type { ConductorQuestion } from './question.ts';

/** Equipment grounding conductor of copper by the device ahead (North American practice, table 250.122). */
const GROUNDING_NA: readonly { readonly toA: number; readonly size: string }[] = [
  { toA: 15, size: '14 AWG' },
  { toA: 20, size: '12 AWG' },
  { toA: 60, size: '10 AWG' },
  { toA: 100, size: '8 AWG' },
  { toA: 200, size: '6 AWG' },
  { toA: 300, size: '4 AWG' },
  { toA: 400, size: '3 AWG' },
  { toA: 500, size: '2 AWG' },
  { toA: 600, size: '1 AWG' },
  { toA: 800, size: '1/0 AWG' },
];

/**
 * Least protective conductor by table, mm². Metric, by the line conductor S (IEC 60364-5-54, table 54.2): S to 16 mm², 16 to 35 mm²,
 * S / 2 above. North American, by the device. Undefined where the table does not say.
 */
export function protectiveMm2(
  profile: CodeProfileName,
  lineMm2: number,
  deviceA: number | undefined,
): number | undefined {
  if (profile === 'metric') return lineMm2 <= 16 ? lineMm2 : lineMm2 <= 35 ? 16 : lineMm2 / 2;
  if (deviceA === undefined) return undefined;
  const size = GROUNDING_NA.find(({ toA }) => deviceA <= toA)?.size;
  const found = ampacityNa.find((row) => row.size === size)?.areaMm2;
  // It need not be thicker than the conductors it goes with.
  return found === undefined ? undefined : Math.min(found, lineMm2);
}

/** Conductor to the earth electrode or the earthing bar by that of the service, copper (North American practice, table 250.66). */
const ELECTRODE_NA: readonly { readonly toMm2: number; readonly size: string }[] = [
  { toMm2: 33.6, size: '8 AWG' },
  { toMm2: 53.5, size: '6 AWG' },
  { toMm2: 85, size: '4 AWG' },
  { toMm2: 177, size: '2 AWG' },
  { toMm2: 304, size: '1/0 AWG' },
  { toMm2: 557, size: '2/0 AWG' },
  { toMm2: Infinity, size: '3/0 AWG' },
];
/** An earthing conductor of copper has at least this, mm² (IEC 60364-5-54, 542.3.1). */
const LEAST_EARTHING_MM2 = 6;
/** Least conductor to an earthing bar or an electrode by the conductors of the service, mm². */
export function earthingMm2(profile: CodeProfileName, serviceMm2: number): number {
  if (profile === 'metric')
    return Math.max(LEAST_EARTHING_MM2, protectiveMm2('metric', serviceMm2, undefined) ?? 0);
  const size = ELECTRODE_NA.find(({ toMm2 }) => isAtLeastMm2(toMm2, serviceMm2))?.size;
  return ampacityNa.find((row) => row.size === size)?.areaMm2 ?? 0;
}

/** A protective conductor of stated size against what it has to be. */
export interface ProtectiveAnswer {
  readonly statedMm2: number;
  readonly leastMm2: number;
  readonly state: 'within' | 'over';
  readonly working: string;
}

/**
 * A stated protective conductor by the table; a thinner one, in metric practice, by S ≥ √(I² · t) / k with the fault that asks most, where
 * what every source drives into the end of its cable is known. North American practice has the table alone. Undefined while the table
 * does not say. No let-through of a maker is counted on: an earth that fails both is over.
 */
export function judgeProtective(
  { profile, faults, laid }: ConductorQuestion,
  lineMm2: number,
  statedMm2: number,
  tableMm2: number | undefined,
  isEveryFaultKnown: boolean,
): ProtectiveAnswer | undefined {
  if (tableMm2 === undefined) return undefined;
  const byTable = { statedMm2, leastMm2: tableMm2, working: `${leadSizeWords(tableMm2)} by table` };
  if (isAtLeastMm2(statedMm2, tableMm2)) return { ...byTable, state: 'within' };
  if (profile !== 'metric') return { ...byTable, state: 'over' };
  const k = ADIABATIC_K[laid.insulation];
  const worst = (isEveryFaultKnown ? faults(lineMm2) : [])
    .map(({ label, currentA, earthA = currentA, timeS }) => ({
      fault: { label, earthA, timeS },
      leastMm2: (earthA * Math.sqrt(timeS)) / k,
    }))
    .sort((a, b) => b.leastMm2 - a.leastMm2)[0];
  if (worst === undefined)
    return {
      ...byTable,
      state: 'over',
      working: `${byTable.working}, and what every source drives into a fault at its end is not known`,
    };
  const { fault, leastMm2 } = worst;
  return {
    statedMm2,
    leastMm2,
    state: statedMm2 >= leastMm2 ? 'within' : 'over',
    working: `thinner than the ${leadSizeWords(tableMm2)} by table; ${fault.label}: √(${round(fault.earthA)}² · ${round(fault.timeS)}) / ${k} = ${round(leastMm2)} mm²`,
  };
}

const round = (value: number): string => String(Number(value.toPrecision(4)));
