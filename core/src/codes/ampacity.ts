import { codeProfile, type CodeProfileName, type Tabulated } from './profile.ts';
import { ampacityMetric, ampacityNa, factorsMetric, factorsNa } from './tables.generated.ts';

/** Insulation by what the tables call it: highest temperature of the copper inside. */
export const INSULATIONS = ['PVC70', 'XLPE90', '60C', '75C', '90C'] as const;
export type Insulation = (typeof INSULATIONS)[number];

/** How a cable is laid: A in an insulating wall, B in conduit, C clipped direct; 1 single cores, 2 one cable. */
export const METHODS = ['A1', 'A2', 'B1', 'B2', 'C'] as const;
export type Method = (typeof METHODS)[number];

/** Hottest the copper may run in that insulation, °C. */
export const INSULATION_C: Readonly<Record<Insulation, number>> = {
  PVC70: 70,
  XLPE90: 90,
  '60C': 60,
  '75C': 75,
  '90C': 90,
};

/** Short-time factor k of copper in that insulation, A·√s/mm² (IEC 60364-4-43, table 43A). */
export const ADIABATIC_K: Readonly<Record<Insulation, number>> = {
  PVC70: 115,
  XLPE90: 143,
  '60C': 115,
  '75C': 115,
  '90C': 143,
};

/** Four loaded conductors in a cable tabulated for three (IEC 60364-5-52, 523.6.3). */
const NEUTRAL_COUNTS = 0.86;

const isMetricInsulation = (insulation: Insulation): boolean =>
  insulation === 'PVC70' || insulation === 'XLPE90';

/** The insulations that a profile's tables have. */
export const insulationsOf = (profile: CodeProfileName): readonly Insulation[] =>
  INSULATIONS.filter((one) => isMetricInsulation(one) === (profile === 'metric'));

/** How one cable is laid. */
export interface Laid {
  readonly insulation: Insulation;
  readonly method: Method;
  readonly ambientC: number;
  /** Metric: circuits bunched together, this one counted. North American: current-carrying conductors in the raceway. */
  readonly grouped: number;
  readonly loadedConductors: 2 | 3;
  readonly neutralCounts: boolean;
}

/** The factors on a tabulated capacity: of the air around the cable, of its neighbours, of a neutral that carries. */
export interface Factors {
  readonly ambient: Tabulated;
  readonly grouping: Tabulated;
  readonly neutral: number;
}

const stepUp = (row: { readonly factor: number | null } | undefined): Tabulated =>
  row?.factor ?? 'not tabulated';

/** What the tables make of a way of laying. Between two rows the more cautious one counts. */
export function factorsOf(profile: CodeProfileName, laid: Laid): Factors {
  const ambient = codeProfile(profile).ambientFactor(laid.insulation, laid.ambientC);
  if (profile === 'metric')
    return {
      ambient,
      grouping: stepUp(
        factorsMetric.find(({ kind, key }) => kind === 'groupedCircuitsBunched' && key >= laid.grouped),
      ),
      neutral: laid.neutralCounts && laid.loadedConductors === 3 ? NEUTRAL_COUNTS : 1,
    };
  const conductors = laid.grouped + (laid.neutralCounts ? 1 : 0);
  return {
    ambient,
    grouping: stepUp(
      factorsNa.find(({ kind, upTo }) => kind === 'currentCarryingConductors' && upTo >= conductors),
    ),
    neutral: 1,
  };
}

/** A table row is for sizes up to a little above it: 33.6 mm² and a typed 33.63 are one size. */
const SAME_SIZE = 1.02;

/** The last tabulated size that is not thicker: the cautious side for a size between two rows. */
const notThicker = <T extends { readonly areaMm2: number }>(
  rows: readonly T[],
  areaMm2: number,
): T | undefined =>
  rows.reduce<T | undefined>(
    (best, row) =>
      row.areaMm2 <= areaMm2 * SAME_SIZE && (best === undefined || row.areaMm2 > best.areaMm2) ? row : best,
    undefined,
  );

/** The row of the table that a size goes by: its own, else that of the next thinner; of one thicker than the table the last. */
function rowFor(
  profile: CodeProfileName,
  { insulation, method, loadedConductors }: Pick<Laid, 'insulation' | 'method' | 'loadedConductors'>,
  areaMm2: number,
): { readonly areaMm2: number } | undefined {
  if (profile !== 'metric') return notThicker(ampacityNa, areaMm2);
  const rows = ampacityMetric.filter(
    (row) =>
      row.insulation === insulation && row.loadedConductors === loadedConductors && row.method === method,
  );
  return notThicker(rows, areaMm2);
}

/** Size of that row, mm²; undefined where there is none. */
export const tabulatedMm2 = (
  profile: CodeProfileName,
  laid: Pick<Laid, 'insulation' | 'method' | 'loadedConductors'>,
  areaMm2: number,
): number | undefined => rowFor(profile, laid, areaMm2)?.areaMm2;

/** Tabulated capacity of one conductor before any factor, A; of one thicker than the table that of its last row. */
export function tabulatedA(
  profile: CodeProfileName,
  { insulation, method, loadedConductors }: Pick<Laid, 'insulation' | 'method' | 'loadedConductors'>,
  areaMm2: number,
): Tabulated {
  if (profile !== 'metric') return columnA(insulation, areaMm2);
  const rows = ampacityMetric.filter(
    (row) =>
      row.insulation === insulation && row.loadedConductors === loadedConductors && row.method === method,
  );
  return notThicker(rows, areaMm2)?.ampacityA ?? 'not tabulated';
}

/** A column of the North American table, uncorrected, A. */
export function columnA(column: Insulation, areaMm2: number): Tabulated {
  const row = notThicker(ampacityNa, areaMm2);
  if (row === undefined) return 'not tabulated';
  switch (column) {
    case '60C':
      return row.ampacity60CA;
    case '75C':
      return row.ampacity75CA;
    case '90C':
      return row.ampacity90CA;
    default:
      return 'not tabulated';
  }
}

/** I_z = I_table · C_a · C_g, with the factor of a loaded neutral; not tabulated while one of them is not. */
export function ampacityOf(profile: CodeProfileName, laid: Laid, areaMm2: number): Tabulated {
  const table = tabulatedA(profile, laid, areaMm2);
  const { ambient, grouping, neutral } = factorsOf(profile, laid);
  return table === 'not tabulated' || ambient === 'not tabulated' || grouping === 'not tabulated'
    ? 'not tabulated'
    : table * ambient * grouping * neutral;
}

/** Sizes that the ampacity tables of a profile know, rising, mm². */
export const tabulatedSizes = (profile: CodeProfileName): readonly number[] =>
  profile === 'metric'
    ? [...new Set(ampacityMetric.map(({ areaMm2 }) => areaMm2))].sort((a, b) => a - b)
    : ampacityNa.map(({ areaMm2 }) => areaMm2);
