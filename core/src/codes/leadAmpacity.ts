import { codeProfile, type CodeProfileName, type Tabulated } from './profile.ts';
import { ampacityMetric, ampacityNa } from './tables.generated.ts';

/** The largest tabulated size that is not thicker than this one: the cautious side for a size between two rows. */
function notThicker<T extends { readonly areaMm2: number }>(
  rows: readonly T[],
  areaMm2: number,
): T | undefined {
  return rows.reduce<T | undefined>(
    (best, row) =>
      row.areaMm2 <= areaMm2 * 1.02 && (best === undefined || row.areaMm2 > best.areaMm2) ? row : best,
    undefined,
  );
}

const LEAD_ROWS = ampacityMetric.filter(
  (row) => row.insulation === 'PVC70' && row.loadedConductors === 2 && row.method === 'C',
);

/**
 * What a copper lead carries for long: metric, PVC, two loaded conductors clipped direct; North American, its 75 °C column. Of a
 * size between two rows the smaller counts. Corrected for the air around it.
 */
export function leadAmpacityA(name: CodeProfileName, areaMm2: number, ambientC: number): Tabulated {
  const isMetric = name === 'metric';
  const factor = codeProfile(name).ambientFactor(isMetric ? 'PVC70' : '75C', ambientC);
  const table = isMetric
    ? notThicker(LEAD_ROWS, areaMm2)?.ampacityA
    : notThicker(ampacityNa, areaMm2)?.ampacity75CA;
  return table === undefined || factor === 'not tabulated' ? 'not tabulated' : table * factor;
}

/** Short-time factor of copper in PVC, A·√s/mm². */
const K_PVC = 115;
/** How long the short-time formula holds: no heat leaves the copper meanwhile, s. */
const ADIABATIC_S = 5;

/** What it carries for a short time from working temperature: I = k · S / √t; undefined where it lasts too long for that. */
export const leadShortTimeA = (areaMm2: number, timeS: number): number | undefined =>
  timeS > 0 && timeS <= ADIABATIC_S ? (K_PVC * areaMm2) / Math.sqrt(timeS) : undefined;
