import type { Family } from '../checks/check.ts';
import type { RegisteredFinding } from '../checks/registry.ts';
import type { Path } from '../values/problem.ts';

/** A stage of the work: its place in the address, its title, which findings count there, and who may change what is on it. */
export interface Stage {
  readonly key: string;
  readonly title: string;
  /** Families whose findings are mended here, where no missing field says otherwise. */
  readonly families: readonly Family[];
  /** Everybody may look; these may change it. */
  readonly changedBy: readonly ('designer' | 'field' | 'approver')[];
}

/** The stages in the order of the work: the one table that router, rail, job list and links read. */
export const STAGES = [
  { key: 'site', title: 'Site', families: ['place'], changedBy: ['designer', 'field'] },
  { key: 'loads', title: 'Loads', families: [], changedBy: ['designer', 'field'] },
  { key: 'partitions', title: 'Partitions', families: ['load', 'surge', 'balance'], changedBy: ['designer'] },
  {
    key: 'stack',
    title: 'Stack',
    families: ['stack', 'bank', 'generator', 'pv', 'grid'],
    changedBy: ['designer'],
  },
  { key: 'wiring', title: 'Wiring', families: ['bonding', 'wiring'], changedBy: ['designer'] },
  { key: 'limits', title: 'Limits', families: [], changedBy: [] },
  { key: 'rehearse', title: 'Rehearse', families: [], changedBy: [] },
  { key: 'test', title: 'Islanding test', families: [], changedBy: ['designer', 'field'] },
] as const satisfies readonly Stage[];

export type StageKey = (typeof STAGES)[number]['key'];

const SITE_FIELDS_OF_WIRING = new Set<string | number>([
  'bypassNeutral',
  'bypassInterlocked',
  'utilityEarth',
  'localElectrode',
  'electrodeOhm',
  'instruments',
]);
const STACK_FIELDS_OF_WIRING = new Set<string | number>(['neutralEarthRelay', 'relayKit']);

/** The page on which a place of the design is typed: a stage, or a tab of it. */
export function pageOf(path: Path): StageKey | 'site/wall' | 'site/delivery' {
  const [root] = path;
  const field = path.at(-1) ?? '';
  switch (root) {
    case 'site':
      if (field === 'surviveUnitLoss') return 'stack';
      return SITE_FIELDS_OF_WIRING.has(field) ? 'wiring' : 'site';
    case 'defaults':
    case 'name':
      return 'site';
    case 'place':
      return 'site/wall';
    case 'delivery':
      return 'site/delivery';
    case 'meters':
      return 'loads';
    case 'startCases':
    case 'partitions':
      return field === 'neutralEarthLink' ? 'wiring' : 'partitions';
    case 'circuits':
      if (path.includes('device') || path.includes('cable') || field === 'feedsRouter') return 'wiring';
      return field === 'partitionId' ? 'partitions' : 'loads';
    case 'devices':
    case 'instruments':
    case 'earthPoints':
    case 'wiring':
    case 'router':
      return 'wiring';
    case 'stacks':
      return path.length === 3 && STACK_FIELDS_OF_WIRING.has(field) ? 'wiring' : 'stack';
    default:
      return 'stack';
  }
}

const STAGE_OF_FAMILY: ReadonlyMap<Family, StageKey> = new Map(
  STAGES.flatMap(({ key, families }) => families.map((family): [Family, StageKey] => [family, key])),
);

/** Where a finding is mended: where its first missing field is, or by what its check is about. */
export function stageOfFinding(finding: RegisteredFinding, family: Family): StageKey {
  const [first] = finding.missing as readonly (Path | undefined)[];
  if (first !== undefined && first[0] !== 'types') {
    const page = pageOf(first);
    return page === 'site/wall' || page === 'site/delivery' ? 'site' : page;
  }
  return finding.check === 'grid.service' ? 'loads' : (STAGE_OF_FAMILY.get(family) ?? 'stack');
}
