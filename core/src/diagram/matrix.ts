import type { Installation } from '../installation/installation.ts';
import type { Network } from '../installation/network.ts';
import { isCarriedInIsland } from '../installation/partitionKinds.ts';
import { boardPartId } from '../installation/build/boards.ts';
import { type Mode, modesOf } from '../modes/modes.ts';
import { type ModeFacts, pathToBoard, pathToBond, walkOf } from '../modes/walk.ts';
import { type Known, mapKnown } from '../values/known.ts';

export type MatrixColumn = 'grid' | 'boards' | 'generator' | 'neutral' | 'earth';
export const MATRIX_COLUMNS: readonly MatrixColumn[] = ['grid', 'boards', 'generator', 'neutral', 'earth'];

/** One answer of the mode matrix: a few words, whether it is as it should be, and the way that makes it so. */
export interface MatrixCell {
  readonly text: string;
  readonly state: 'within' | 'over' | 'unknown' | 'plain';
  /** Part ids. */
  readonly path: readonly string[];
}

export interface MatrixRow {
  readonly mode: Mode;
  readonly cells: Readonly<Record<MatrixColumn, MatrixCell>>;
}

const plain = (text: string, path: readonly string[] = []): MatrixCell => ({ text, state: 'plain', path });

function gridCell(network: Network, facts: ModeFacts): MatrixCell {
  const grid = network.sources.find(({ kind }) => kind === 'grid');
  if (grid === undefined) return plain('no grid');
  if (facts.running.includes(grid.id)) return plain('live from the utility', [grid.partId]);
  const { backFeed } = facts;
  if (backFeed === undefined) return { text: 'dead', state: 'within', path: [] };
  return backFeed.missing.length > 0
    ? { text: 'not known', state: 'unknown', path: backFeed.path }
    : { text: 'fed from inside', state: 'over', path: backFeed.path };
}

function boardsCell(
  { partitions }: Installation,
  network: Network,
  mode: Mode,
  facts: ModeFacts,
): MatrixCell {
  const meant = partitions.filter((one) => one.stackId !== undefined && isCarriedInIsland(one));
  const live = meant.filter((one) => facts.live.some(({ partId }) => partId === boardPartId(one.id)));
  const [first] = live;
  const path = first === undefined ? [] : pathToBoard(network, mode, boardPartId(first.id));
  if (meant.length === 0) return plain('none');
  if (live.length === meant.length)
    return { text: live.length === 1 ? 'live' : `all ${live.length} live`, state: 'within', path };
  const dark = `${meant.length - live.length} of ${meant.length} dark`;
  return mode.kind === 'unit-lost' ? plain(dark, path) : { text: dark, state: 'over', path };
}

function generatorCell(network: Network, facts: ModeFacts): MatrixCell {
  const running = network.sources.filter(
    ({ id, kind }) => kind === 'generator' && facts.running.includes(id),
  );
  const clash = facts.clashes.find(({ sources }) => running.some(({ id }) => sources.includes(id)));
  if (clash !== undefined)
    return {
      text: 'joined out of step',
      state: clash.missing.length > 0 ? 'unknown' : 'over',
      path: clash.path,
    };
  return running.length === 0
    ? plain(network.sources.some(({ kind }) => kind === 'generator') ? 'off' : 'none')
    : plain(
        'runs',
        running.map(({ partId }) => partId),
      );
}

function neutralCell(network: Network, mode: Mode, { neutrals }: ModeFacts): MatrixCell {
  // The neutral that is worst off speaks for the mode.
  const worst = [...neutrals].sort(
    (a, b) =>
      Number(a.bonds.length === 1 && a.perhaps.length === 0) -
      Number(b.bonds.length === 1 && b.perhaps.length === 0),
  )[0];
  if (worst === undefined) return plain('nothing live');
  const { bonds, perhaps, boards } = worst;
  const ways = [...bonds, ...perhaps].map((id) => pathToBond(network, mode, id, boards[0] ?? ''));
  const path = [...new Set(ways.flat())];
  if (perhaps.length > 0 && bonds.length < 2)
    return { text: `${bonds.length} or ${bonds.length + perhaps.length} bonds`, state: 'unknown', path };
  return {
    text: bonds.length === 0 ? 'floats' : bonds.length === 1 ? 'one bond' : `${bonds.length} bonds`,
    state: bonds.length === 1 ? 'within' : 'over',
    path,
  };
}

function earthCell({ earthPoints, site }: Installation): MatrixCell {
  const points = earthPoints.map(({ id }) => `earth-point ${id}`);
  if (points.length === 0) return { text: 'point not known', state: 'unknown', path: [] };
  const more = site.localElectrode === 'yes' ? ', electrode' : '';
  return points.length === 1
    ? { text: `one point${more}`, state: 'within', path: points }
    : { text: `${points.length} points`, state: 'over', path: points };
}

/** Mode by mode what is live, who bonds it and where it is earthed: readable at a glance, each cell with its way. */
export function modeMatrix(installation: Installation): Known<readonly MatrixRow[]> {
  const { network } = installation;
  const walk = walkOf(installation);
  if (!network.known) return network;
  return mapKnown(walk, (facts) =>
    modesOf(installation).flatMap((mode): MatrixRow[] => {
      const one = facts.get(mode.id);
      if (one === undefined) return [];
      return [
        {
          mode,
          cells: {
            grid: gridCell(network.value, one),
            boards: boardsCell(installation, network.value, mode, one),
            generator: generatorCell(network.value, one),
            neutral: neutralCell(network.value, mode, one),
            earth: earthCell(installation),
          },
        },
      ];
    }),
  );
}
