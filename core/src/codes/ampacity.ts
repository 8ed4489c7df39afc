import { type Insulation, INSULATIONS, type Method } from './cableKinds.ts';
import type { CodeProfileName, Tabulated } from './profile.ts';
import { type StepRow, stepUp, type TableValue } from './tableValues.ts';
import { ampacityMetric, ampacityNa, factorsMetric, factorsNa } from './tables.generated.ts';

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

const NA_COLUMNS: Partial<Record<Insulation, 'ampacity60CA' | 'ampacity75CA' | 'ampacity90CA'>> = {
  '60C': 'ampacity60CA',
  '75C': 'ampacity75CA',
  '90C': 'ampacity90CA',
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
  /** Values that stand in place of those of the tables. */
  readonly tables?: readonly TableValue[];
}

/** The factors on a tabulated capacity: of the air around the cable, of its neighbours, of a neutral that carries. */
export interface Factors {
  readonly ambient: Tabulated;
  readonly grouping: Tabulated;
  readonly neutral: number;
  /** Those of them that a licensed person has put in place of the table's. */
  readonly own: readonly TableValue[];
}

/** Stepped tables of a profile: of the air, by insulation, and of neighbours. Rows rise. */
interface Steps {
  readonly air: ReadonlyMap<string, readonly StepRow[]>;
  readonly grouped: readonly StepRow[];
}

const rising = (rows: readonly StepRow[]): readonly StepRow[] => [...rows].sort((a, b) => a.upTo - b.upTo);

const airOf = (rows: readonly (StepRow & { readonly insulation: string })[]): Steps['air'] =>
  new Map(
    INSULATIONS.map((one) => [one, rising(rows.filter(({ insulation }) => insulation === one))] as const),
  );

const STEPS: Readonly<Record<CodeProfileName, Steps>> = {
  metric: {
    air: airOf(
      factorsMetric.flatMap(({ kind, key, factor, insulation }) =>
        kind === 'ambientAirC' ? [{ upTo: key, factor, insulation }] : [],
      ),
    ),
    grouped: rising(
      factorsMetric.flatMap(({ kind, key, factor }) =>
        kind === 'groupedCircuitsBunched' ? [{ upTo: key, factor }] : [],
      ),
    ),
  },
  'north-american': {
    air: airOf(
      factorsNa.flatMap(({ kind, upTo, factor, insulation }) =>
        kind === 'ambientAirC' ? [{ upTo, factor, insulation }] : [],
      ),
    ),
    grouped: rising(
      factorsNa.flatMap(({ kind, upTo, factor }) =>
        kind === 'currentCarryingConductors' ? [{ upTo, factor }] : [],
      ),
    ),
  },
};

/** What the tables make of a way of laying. Between two rows the more cautious one counts. */
export function factorsOf(profile: CodeProfileName, laid: Laid): Factors {
  const steps = STEPS[profile];
  const { insulation, tables = NO_VALUES } = laid;
  const air = stepUp(
    steps.air.get(insulation) ?? [],
    tables.flatMap((one) => (one.table === 'ambient' && one.insulation === insulation ? [one] : [])),
    laid.ambientC,
  );
  const isCounted = laid.neutralCounts && profile !== 'metric';
  const grouped = stepUp(
    steps.grouped,
    tables.filter((one) => one.table === 'grouping'),
    laid.grouped + (isCounted ? 1 : 0),
  );
  return {
    ambient: air?.factor ?? 'not tabulated',
    grouping: grouped?.factor ?? 'not tabulated',
    neutral: profile === 'metric' && laid.neutralCounts && laid.loadedConductors === 3 ? NEUTRAL_COUNTS : 1,
    own: tables.length === 0 ? NO_VALUES : [air?.own, grouped?.own].filter((one) => one !== undefined),
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

/** What decides which column of an ampacity table a conductor goes by. */
type Column = Pick<Laid, 'insulation' | 'method' | 'loadedConductors' | 'tables'>;

/** A row of an ampacity table. */
interface AmpacityRow {
  readonly areaMm2: number;
  readonly ampacityA: Tabulated;
  /** Who has put it in place of the table's. */
  readonly own?: TableValue;
}

const NO_VALUES: readonly TableValue[] = [];

const isSame = (a: number, b: number): boolean => a <= b * SAME_SIZE && b <= a * SAME_SIZE;

function rowsOf(profile: CodeProfileName, { insulation, method, loadedConductors }: Column): AmpacityRow[] {
  if (profile === 'metric')
    return ampacityMetric.filter(
      (row) =>
        row.insulation === insulation && row.loadedConductors === loadedConductors && row.method === method,
    );
  const key = NA_COLUMNS[insulation];
  return key === undefined ? [] : ampacityNa.map((row) => ({ areaMm2: row.areaMm2, ampacityA: row[key] }));
}

/** Rows that were looked for before: there are few columns, and thousands of cables. */
const known = new Map<string, readonly AmpacityRow[]>();

function tableRows(profile: CodeProfileName, column: Column): readonly AmpacityRow[] {
  const { insulation, method, loadedConductors, tables = NO_VALUES } = column;
  const key = `${profile} ${insulation} ${method} ${loadedConductors}`;
  const rows = known.get(key) ?? rowsOf(profile, column);
  known.set(key, rows);
  if (tables.length === 0) return rows;
  const own = tables.flatMap((one): AmpacityRow[] =>
    one.table === 'ampacity' &&
    one.insulation === insulation &&
    (profile !== 'metric' || (one.method === method && one.loadedConductors === loadedConductors))
      ? [{ areaMm2: one.areaMm2, ampacityA: one.value, own: one }]
      : [],
  );
  if (own.length === 0) return rows;
  return [...rows.filter(({ areaMm2 }) => !own.some((one) => isSame(one.areaMm2, areaMm2))), ...own];
}

/** The row of the table that a size goes by: its own, else that of the next thinner; of one thicker than the table the last. */
export const tabulatedRow = (
  profile: CodeProfileName,
  column: Column,
  areaMm2: number,
): AmpacityRow | undefined => notThicker(tableRows(profile, column), areaMm2);

/** Tabulated capacity of one conductor before any factor, A; of one thicker than the table that of its last row. */
export const tabulatedA = (profile: CodeProfileName, column: Column, areaMm2: number): Tabulated =>
  tabulatedRow(profile, column, areaMm2)?.ampacityA ?? 'not tabulated';

/** A column of the North American table, uncorrected, A. */
export const columnA = (column: Insulation, areaMm2: number, tables?: readonly TableValue[]): Tabulated =>
  tabulatedA(
    'north-american',
    { insulation: column, method: 'C', loadedConductors: 3, ...(tables === undefined ? {} : { tables }) },
    areaMm2,
  );

/** I_z = I_table · C_a · C_g, with the factor of a loaded neutral; not tabulated while one of them is not. */
export function ampacityOf(profile: CodeProfileName, laid: Laid, areaMm2: number): Tabulated {
  const table = tabulatedA(profile, laid, areaMm2);
  const { ambient, grouping, neutral } = factorsOf(profile, laid);
  return table === 'not tabulated' || ambient === 'not tabulated' || grouping === 'not tabulated'
    ? 'not tabulated'
    : table * ambient * grouping * neutral;
}

const SIZES: Readonly<Record<CodeProfileName, readonly number[]>> = {
  metric: [...new Set(ampacityMetric.map(({ areaMm2 }) => areaMm2))].sort((a, b) => a - b),
  'north-american': ampacityNa.map(({ areaMm2 }) => areaMm2),
};

/** Sizes that the ampacity tables of a profile know, and those that somebody has added, rising, mm². */
export function tabulatedSizes(
  profile: CodeProfileName,
  tables: readonly TableValue[] = [],
): readonly number[] {
  const own = tables.flatMap((one) =>
    one.table === 'ampacity' && !SIZES[profile].some((size) => isSame(size, one.areaMm2))
      ? [one.areaMm2]
      : [],
  );
  return own.length === 0 ? SIZES[profile] : [...SIZES[profile], ...own].sort((a, b) => a - b);
}
