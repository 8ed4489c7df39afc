import type { Insulation, Method } from '../codes/cableKinds.ts';
import type { Laid } from '../codes/ampacity.ts';
import type { CodeProfileName } from '../codes/profile.ts';
import { isLine } from '../figures/wiring/carried.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import { inConduits } from '../figures/wiring/conduits.ts';
import type { Installation } from '../installation/installation.ts';
import { field, type Known, known } from '../values/known.ts';

/** Air along a circuit where nobody has said how hot it gets: what the tables are made for, °C. */
const PLANNED_CIRCUIT_C = 30;
/** Current-carrying conductors in a raceway that the North American table is made for. */
const PLANNED_IN_RACEWAY = 3;

const PLANNED_INSULATION: Readonly<Record<CodeProfileName, Insulation>> = {
  metric: 'PVC70',
  'north-american': '75C',
};

/** How a cable is laid, as far as somebody has said it; the rest as planned, and named. */
export interface LaidAs {
  readonly laid: Laid;
  readonly terminalColumn: '60C' | '75C';
  readonly parallel: number;
  /** The conduit whose contents make it lie among so many; undefined where somebody has said how many, or it lies in none. */
  readonly conduit: string | undefined;
  /** What stands as planned, in words. */
  readonly planned: readonly string[];
}

/** Conductors of a cable that carry: two of one line, of two without a neutral and of direct current, else three. */
export function loadedConductorsOf({ names }: CableLine): 2 | 3 {
  const lines = names.filter(isLine).length;
  return lines === 3 || (lines === 2 && names.includes('N')) ? 3 : 2;
}

/** How a cable is laid: as it says itself, else as the conduit that it lies in and the job have it, else as planned. */
export function laidAsOf(
  installation: Installation,
  line: CableLine,
  profile: CodeProfileName,
): Known<LaidAs> {
  const { wiring, site, tableValues } = installation;
  const { cable, circuit } = line;
  const job = wiring?.laying;
  const planned: string[] = [];
  const said = <T>(own: T | undefined, ofJob: T | undefined, otherwise: T, words: string): T => {
    if (own === undefined && ofJob === undefined) planned.push(words);
    return own ?? ofJob ?? otherwise;
  };
  const isMetric = profile === 'metric';
  const plannedInsulation = PLANNED_INSULATION[profile];
  const insulation = said(cable?.insulation, job?.insulation, plannedInsulation, plannedInsulation);
  const inside = inConduits(installation).get(line.id);
  const inConduit: Method = line.use === 'ac' ? 'B2' : 'B1';
  const method: Method = !isMetric
    ? 'C'
    : inside === undefined
      ? said(cable?.method, job?.method, 'C', 'clipped direct')
      : // What the job says of all cables as clipped direct does not hold of one that lies in a conduit.
        said(cable?.method, job?.method === 'C' ? undefined : job?.method, inConduit, `in ${inside.name}`);
  const conduit = cable?.grouped === undefined ? inside : undefined;
  const plannedGrouped = isMetric ? 1 : PLANNED_IN_RACEWAY;
  const isByConduit = conduit !== undefined && conduit.carrying > (job?.grouped ?? plannedGrouped);
  const grouped = isByConduit
    ? conduit.carrying
    : said(
        cable?.grouped,
        job?.grouped,
        plannedGrouped,
        isMetric ? 'by itself' : 'three conductors in the raceway',
      );
  const terminalColumn = isMetric
    ? '75C'
    : said(cable?.terminalColumn, job?.terminalColumn, '75C', 'terminals for 75 °C');
  const ownC = cable?.ambientC ?? job?.ambientC;
  if (ownC === undefined)
    planned.push(circuit === undefined ? 'air as at the equipment' : `air of ${PLANNED_CIRCUIT_C} °C`);
  const ambient =
    ownC !== undefined
      ? known(ownC)
      : circuit !== undefined
        ? known(PLANNED_CIRCUIT_C)
        : field(site.equipmentHighestC, 'site', 'equipmentHighestC');
  if (!ambient.known) return ambient;
  return known({
    laid: {
      insulation,
      method,
      ambientC: ambient.value,
      grouped,
      loadedConductors: loadedConductorsOf(line),
      neutralCounts: cable?.neutralCounts === 'yes',
      ...(tableValues === undefined ? {} : { tables: tableValues }),
    },
    terminalColumn,
    parallel: cable?.parallel ?? 1,
    conduit: isByConduit ? conduit.name : undefined,
    planned,
  });
}
