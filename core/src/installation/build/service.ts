import { field } from '../../values/known.ts';
import type { Port, TerminalName } from '../network.ts';
import type { Given } from './given.ts';
import { ALWAYS, type Laying, NEVER, unknownIn } from './laying.ts';
import { MODE_KINDS } from '../modeKinds.ts';
import { deviceBehind } from './lines.ts';

export const GRID = 'grid';
export const SERVICE_BOARD = 'service-board';

/** The conductors of the building: its lines, neutral and earth. */
export const buildingNames = ({ supply }: Given): TerminalName[] => [...supply.lines, 'N', 'PE'];

/** The conductors that a switching device of so many lines takes: its lines, from the first on, neutral and earth. */
export const deviceNames = ({ supply }: Given, lines: number | undefined): TerminalName[] => [
  ...supply.lines.slice(0, lines),
  'N',
  'PE',
];

/**
 * The utility's supply up to the bar of the service board, from which everything on the grid side leaves. A site without a grid
 * has the board alone. The utility's star point is earthed except in an IT system.
 */
export function layService(laying: Laying, given: Given): Port {
  const { design } = given;
  const { site } = design;
  const names = buildingNames(given);
  const board = laying.part({
    id: SERVICE_BOARD,
    kind: 'board',
    label: 'service board',
    from: ['site', 'serviceRatingA'],
    ratedA: field(site.serviceRatingA, 'site', 'serviceRatingA'),
  });
  const bus = laying.port(board, 'bus', names);
  if (site.grid === 'none') return bus;
  const grid = laying.part({ id: GRID, kind: 'grid', label: 'grid', from: ['site', 'supply'] });
  const supply = laying.port(grid, 'supply', names);
  const neutral = supply.terminals.find(({ name }) => name === 'N');
  if (neutral !== undefined)
    laying.bonds.push({
      id: 'utility-bond',
      partId: grid.id,
      label: 'the earthed neutral of the utility',
      neutral: neutral.id,
      closedIn:
        site.earthing === undefined
          ? unknownIn(MODE_KINDS, ['site', 'earthing'])
          : site.earthing === 'IT'
            ? NEVER
            : ALWAYS,
      from: ['site', 'earthing'],
    });
  laying.sources.push({
    id: GRID,
    partId: grid.id,
    kind: 'grid',
    terminals: supply.terminals.flatMap(({ id, name }) => (name === 'N' || name === 'PE' ? [] : [id])),
    runsIn: ['on-grid', 'maintenance-bypass'],
  });
  const behindMain = deviceBehind(laying, supply, {
    id: 'service-main',
    label: 'service main',
    role: 'service-main',
    of: {},
    devices: design.devices,
    find: given.find,
    more: { ratedA: field(site.serviceRatingA, 'site', 'serviceRatingA') },
  });
  laying.run(behindMain, bus, { use: 'ac', from: ['site', 'serviceRatingA'] });
  return bus;
}
