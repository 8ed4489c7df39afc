import { codeProfile, type CodeProfileName, type Tabulated } from './profile.ts';
import { ampacityNa } from './tables.generated.ts';

/**
 * What a battery lead carries for long: metric, PVC, two loaded conductors clipped direct; North American, the largest tabulated
 * size that is not thicker than it, in its 75 °C column. Corrected for the air around it.
 */
export function leadAmpacityA(name: CodeProfileName, areaMm2: number, ambientC: number): Tabulated {
  const profile = codeProfile(name);
  const isMetric = name === 'metric';
  const factor = profile.ambientFactor(isMetric ? 'PVC70' : '75C', ambientC);
  const size = isMetric
    ? areaMm2
    : ampacityNa.reduce<(typeof ampacityNa)[number] | undefined>(
        (best, row) =>
          row.areaMm2 <= areaMm2 * 1.02 && (best === undefined || row.areaMm2 > best.areaMm2) ? row : best,
        undefined,
      )?.size;
  if (size === undefined) return 'not tabulated';
  const table = profile.ampacityA(isMetric ? 'PVC70' : '75C', 2, 'C', size);
  return table === 'not tabulated' || factor === 'not tabulated' ? 'not tabulated' : table * factor;
}

/** Short-time factor of copper in PVC, A·√s/mm². */
const K_PVC = 115;
/** How long the short-time formula holds: no heat leaves the copper meanwhile, s. */
const ADIABATIC_S = 5;

/** What it carries for a short time from working temperature: I = k · S / √t; undefined where it lasts too long for that. */
export const leadShortTimeA = (areaMm2: number, timeS: number): number | undefined =>
  timeS > 0 && timeS <= ADIABATIC_S ? (K_PVC * areaMm2) / Math.sqrt(timeS) : undefined;
