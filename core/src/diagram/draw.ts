import type { Installation } from '../installation/installation.ts';
import type { Network } from '../installation/network.ts';
import type { Mode } from '../modes/modes.ts';
import { bondPosition, energisedPorts, positionOf } from '../modes/walk.ts';
import type { Diagram, DiagramNode } from './graph.ts';
import type { Layout } from './layout.ts';
import type { Drawing, Ink, Shape } from './shapes.ts';
import { bondShapes, type Position, symbolShapes, type SymbolStandard } from './symbols.ts';

/** What stands on the drawing beside the installation itself. */
export interface DrawOptions {
  readonly mode: Mode;
  /** Part ids of a way that is to stand out. */
  readonly path?: readonly string[];
  /** The worst that is found about a part. */
  readonly stateOf?: (partId: string) => 'over' | 'unknown' | undefined;
}

type SourceKind = 'grid' | 'inverter' | 'generator';

/** Sources differ by pattern and letter, so that no colour is needed to tell them. */
const SOURCE_LOOK: Readonly<Record<SourceKind, { letter: string; dash?: readonly number[] }>> = {
  grid: { letter: 'G' },
  generator: { letter: 'E', dash: [10, 3, 2, 3] },
  inverter: { letter: 'I', dash: [7, 3] },
};
export const SOURCE_WORDS = 'G grid · I inverter · E engine generator · B battery · S sun';

const RANK: readonly SourceKind[] = ['grid', 'generator', 'inverter'];

export const standardOf = ({ site }: Installation): SymbolStandard =>
  site.codeProfile === 'north-american' ? 'IEEE 315' : 'IEC 60617';

/** How the contacts of a part stand in a mode: those of its lines. */
function positionsOf(network: Network, mode: Mode): ReadonlyMap<string, Position> {
  const roleOf = new Map(
    network.ports.flatMap(({ role, terminals }) => terminals.map(({ id }) => [id, role] as const)),
  );
  const positions = new Map<string, Position>();
  for (const contact of network.contacts) {
    if (contact.pole !== 'line' || contact.a.endsWith(' PE')) continue;
    const stands = positionOf(contact, mode);
    const role = roleOf.get(contact.a);
    if (role === 'normal' || role === 'alternate') {
      if (stands === 'closed') positions.set(contact.partId, role);
    } else if (!positions.has(contact.partId)) positions.set(contact.partId, stands);
  }
  return positions;
}

/** From which kind of source the ports of a part are live; undefined where they are dead. */
function liveBy(network: Network, mode: Mode): ReadonlyMap<string, SourceKind> {
  const kindOf = new Map(network.sources.map(({ id, kind }) => [id, kind]));
  const live = new Map<string, SourceKind>();
  for (const { portId, lines } of energisedPorts(network, mode)) {
    const kinds = new Set(lines.flatMap(({ sources }) => sources.map((id) => kindOf.get(id))));
    const first = RANK.find((kind) => kinds.has(kind));
    if (first !== undefined) live.set(portId, first);
  }
  return live;
}

const TEXT_PX = 11;
const LINE_PX = 13;

function words(node: DiagramNode, x: number, y: number): Shape[] {
  const isBar = node.symbol === 'board' || node.symbol === 'bus' || node.symbol === 'bar';
  const left = isBar ? x + 3 : x + 2 * node.axisPx + 2;
  const top = isBar ? y + 12 : y + node.heightPx / 2 - ((node.lines.length - 1) * LINE_PX) / 2 + 4;
  return node.lines.map((text, at) => ({
    kind: 'text',
    x: left,
    y: top + at * LINE_PX,
    text,
    sizePx: TEXT_PX,
    anchor: 'start',
    bold: at === 0,
    ink: at === 0 ? 'word' : 'quiet',
    nodeId: node.id,
  }));
}

/** A mark at the corner of a symbol: a filled triangle for over, an open circle for not known. */
function findingMark(node: DiagramNode, x: number, y: number, state: 'over' | 'unknown'): Shape[] {
  const [cx, cy] = [x + 2 * node.axisPx - 2, y + 6];
  return state === 'over'
    ? [
        {
          kind: 'line',
          points: [
            [cx - 6, cy + 5],
            [cx + 6, cy + 5],
            [cx, cy - 6],
            [cx - 6, cy + 5],
          ],
          widthPx: 2.4,
          ink: 'over',
          nodeId: node.id,
        },
      ]
    : [{ kind: 'circle', x: cx, y: cy, r: 5, widthPx: 1.6, ink: 'unknown', nodeId: node.id }];
}

/** Draws a laid-out single line as a mode has it: what is live inked by source, switches as they stand, bonds beside their parts. */
export function drawDiagram(
  installation: Installation,
  network: Network,
  diagram: Diagram,
  layout: Layout,
  { mode, path = [], stateOf = () => undefined }: DrawOptions,
): Drawing {
  const standard = standardOf(installation);
  const positions = positionsOf(network, mode);
  const live = liveBy(network, mode);
  const onPath = new Set(path);
  const nodeOnPath = (id: string): boolean =>
    diagram.nodes.some((node) => node.id === id && node.partIds.some((part) => onPath.has(part)));
  const runs = new Map(network.runs.map((run) => [run.id, run]));
  const shapes: Shape[] = [];
  for (const edge of diagram.edges) {
    const points = layout.edges[edge.id] ?? [];
    if (points.length < 2) continue;
    const run = runs.get(edge.runIds[0] ?? '');
    const source = run === undefined ? undefined : (live.get(run.a) ?? live.get(run.b));
    const isBothLive = run !== undefined && live.has(run.a) && live.has(run.b);
    // A battery and the sun cannot be switched off: their side is always drawn live.
    const letter =
      edge.use === 'battery'
        ? 'B'
        : edge.use === 'pv'
          ? 'S'
          : source && isBothLive
            ? SOURCE_LOOK[source].letter
            : '';
    const dash =
      edge.use === 'comms'
        ? [2, 3]
        : edge.use === 'earth'
          ? [12, 3, 3, 3]
          : edge.use === 'battery' || edge.use === 'pv'
            ? [14, 3]
            : source !== undefined && isBothLive
              ? SOURCE_LOOK[source].dash
              : undefined;
    const isPath = nodeOnPath(edge.from) && nodeOnPath(edge.to);
    const ink: Ink = isPath ? 'path' : letter === '' ? 'dead' : 'live';
    shapes.push({
      kind: 'line',
      points,
      widthPx: isPath ? 4 : letter === '' ? 1.2 : 2.2,
      ink,
      edgeId: edge.id,
      ...(dash === undefined ? {} : { dash }),
    });
    const [start, next] = points;
    if (letter !== '' && start !== undefined && next !== undefined)
      shapes.push({
        kind: 'text',
        x: start[0] + 4,
        y: start[1] + Math.min(11, Math.max(8, (next[1] - start[1]) / 2)),
        text: letter,
        sizePx: 9,
        anchor: 'start',
        ink: 'quiet',
        edgeId: edge.id,
      });
  }
  for (const node of diagram.nodes) {
    const { x, y } = layout.nodes[node.id] ?? { x: 0, y: 0 };
    const position = node.partIds.map((id) => positions.get(id)).find((one) => one !== undefined) ?? 'closed';
    const ink: Ink = node.partIds.some((id) => onPath.has(id)) ? 'path' : 'symbol';
    for (const shape of symbolShapes(node.symbol, node, position, standard))
      shapes.push({ ...move(shape, x, y), ink, nodeId: node.id });
    shapes.push(...words(node, x, y));
    network.bonds
      .filter(({ partId }) => node.partIds.includes(partId))
      .forEach((bond, at) => {
        const where = bondPosition(network, bond, mode);
        for (const shape of bondShapes(x - 10 - at * 22, y + node.heightPx / 2, where))
          shapes.push({ ...shape, ink: onPath.has(bond.partId) ? 'path' : 'symbol', nodeId: node.id });
      });
    const state = node.partIds.map(stateOf).sort((a, b) => rankOf(a) - rankOf(b))[0];
    if (state !== undefined) shapes.push(...findingMark(node, x, y, state));
  }
  return { widthPx: layout.widthPx, heightPx: layout.heightPx, shapes };
}

const rankOf = (state: 'over' | 'unknown' | undefined): number =>
  state === 'over' ? 0 : state === 'unknown' ? 1 : 2;

type Placeable = ReturnType<typeof symbolShapes>[number];

/** A shape moved from the corner of its node to its place. */
function move(shape: Placeable, x: number, y: number): Placeable {
  return shape.kind === 'line'
    ? { ...shape, points: shape.points.map(([px, py]) => [px + x, py + y] as const) }
    : { ...shape, x: shape.x + x, y: shape.y + y };
}
