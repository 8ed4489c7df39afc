import { ADIABATIC_K, ampacityOf } from './ampacity.ts';
import type { CodeProfileName, Tabulated } from './profile.ts';
import type { TableValue } from './tableValues.ts';

/**
 * What a copper lead carries for long: metric, PVC, two loaded conductors clipped direct; North American, its 75 °C column. Of a
 * size between two rows the smaller counts. Corrected for the air around it.
 */
export const leadAmpacityA = (
  name: CodeProfileName,
  areaMm2: number,
  ambientC: number,
  tables?: readonly TableValue[],
): Tabulated =>
  ampacityOf(
    name,
    {
      insulation: name === 'metric' ? 'PVC70' : '75C',
      method: 'C',
      ambientC,
      grouped: 1,
      loadedConductors: 2,
      neutralCounts: false,
      ...(tables === undefined ? {} : { tables }),
    },
    areaMm2,
  );

/** How long the short-time formula holds: no heat leaves the copper meanwhile, s. */
export const ADIABATIC_S = 5;

/** What it carries for a short time from working temperature: I = k · S / √t; undefined where it lasts too long for that. */
export const leadShortTimeA = (areaMm2: number, timeS: number): number | undefined =>
  timeS > 0 && timeS <= ADIABATIC_S ? (ADIABATIC_K.PVC70 * areaMm2) / Math.sqrt(timeS) : undefined;
