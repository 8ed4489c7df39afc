import { ampacityNa } from '../codes/tables.generated.ts';
import type { CodeProfileName } from '../codes/profile.ts';

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
