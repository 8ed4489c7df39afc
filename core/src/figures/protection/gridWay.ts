import { fixedWiringOhm } from '../../codes/leads.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Network } from '../../installation/network.ts';
import { energisers } from '../../modes/energisers.ts';
import { uniquePaths } from '../../values/known.ts';
import { groupBy } from '../../values/groupBy.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import type { CableLine } from '../wiring/cableLine.ts';
import { spineLines } from '../wiring/cableLines.ts';

/** Copper as cold as its resistance is tabulated, °C: the coldest cable lets the most through. */
const COLD_C = 20;
/** Insulation runs no hotter than this, °C: hot copper gives the least fault current. */
export const HOTTEST_CONDUCTOR_C = 90;

/** Resistance of the way from the grid, one conductor, Ω, and what of it is not known. */
export interface Way {
  readonly ohm: number;
  readonly missing: readonly Path[];
}

const NO_WAY: Way = { ohm: 0, missing: [] };

/** The leads of one unit lie in parallel with those of its fellows: they are not counted. */
const isOfUnit = (network: Network): ((partId: string) => boolean) => {
  const inverters = new Set(network.parts.flatMap(({ id, kind }) => (kind === 'inverter' ? [id] : [])));
  return (partId) => inverters.has(partId);
};

function lineOhm(line: CableLine, isUnit: (partId: string) => boolean, conductorC: number): Way {
  if (line.use !== 'ac' || line.ends.some(({ partId }) => isUnit(partId))) return NO_WAY;
  const { lengthM, areaMm2 } = line;
  if (lengthM.known && areaMm2.known)
    return {
      ohm: fixedWiringOhm(lengthM.value, areaMm2.value, conductorC) / (line.cable?.parallel ?? 1),
      missing: [],
    };
  return {
    ohm: 0,
    missing: [...(lengthM.known ? [] : lengthM.missing), ...(areaMm2.known ? [] : areaMm2.missing)],
  };
}

/** Dijkstra over the few ports that a building has. */
function findWays(installation: Installation, conductorC: number): ReadonlyMap<string, Way> {
  const ways = new Map<string, Way>();
  const { network } = installation;
  const live = energisers(installation);
  const lines = spineLines(installation);
  if (!network.known || !live.known || !lines.known) return ways;
  const grid = network.value.parts.find(({ kind }) => kind === 'grid');
  if (grid === undefined) return ways;
  const isUnit = isOfUnit(network.value);
  const isFed = (portId: string): boolean => live.value.get(portId)?.includes(grid.id) === true;
  const portsOf = groupBy(network.value.ports, ({ partId }) => partId);
  const partOf = new Map(network.value.ports.map(({ id, partId }) => [id, partId]));
  const ends = lines.value.flatMap((line) => {
    const [a, b] = [line.ends[0].port?.id, line.ends[1].port?.id];
    if (a === undefined || b === undefined || line.use !== 'ac') return [];
    const way = lineOhm(line, isUnit, conductorC);
    return [
      { from: a, to: b, way },
      { from: b, to: a, way },
    ];
  });
  const linesAt = groupBy(ends, ({ from }) => from);
  const open = new Map<string, Way>((portsOf.get(grid.id) ?? []).map(({ id }) => [id, NO_WAY]));
  while (open.size > 0) {
    const [at, way] = [...open].reduce((least, one) => (one[1].ohm < least[1].ohm ? one : least));
    open.delete(at);
    ways.set(at, way);
    const through = (portsOf.get(partOf.get(at) ?? '') ?? []).map(({ id }) => ({ to: id, way: NO_WAY }));
    for (const next of [...through, ...(linesAt.get(at) ?? [])]) {
      if (ways.has(next.to) || !isFed(next.to)) continue;
      const ohm = way.ohm + next.way.ohm;
      const known_ = open.get(next.to);
      if (known_ === undefined || ohm < known_.ohm)
        open.set(next.to, { ohm, missing: uniquePaths([...way.missing, ...next.way.missing]) });
    }
  }
  return ways;
}

/** The way of least resistance from the grid to each port that it can reach in any mode, cables cold: they count, contacts do not. */
export const gridWays = remember((installation: Installation): ReadonlyMap<string, Way> =>
  findWays(installation, COLD_C),
);

/** The ways to boards, by partition, with cables as hot as any insulation allows. */
const boardWays = remember((installation: Installation): ReadonlyMap<string, number> => {
  const ohms = new Map<string, number>();
  const { network } = installation;
  if (!network.known) return ohms;
  const ways = findWays(installation, HOTTEST_CONDUCTOR_C);
  const boards = new Map(
    network.value.parts.flatMap(({ id, kind, partitionId }) =>
      kind === 'board' && partitionId !== undefined ? [[id, partitionId]] : [],
    ),
  );
  for (const { id, partId } of network.value.ports) {
    const partitionId = boards.get(partId);
    const way = ways.get(id);
    if (partitionId !== undefined && way !== undefined)
      ohms.set(partitionId, Math.min(way.ohm, ohms.get(partitionId) ?? Infinity));
  }
  return ohms;
});

/** Resistance of the cables between the grid and a board, one conductor, Ω: hot, and what nobody has stated of them counts as nothing. */
export const boardWayOhm = (installation: Installation, partitionId: string): number =>
  boardWays(installation).get(partitionId) ?? 0;
