import type { Nudge } from '../installation/facts.ts';
import type { Diagram } from './graph.ts';
import type { Layout } from './layout.ts';

/** One step of a nudge, px. */
export const NUDGE_PX = 10;

type Point = readonly [number, number];
interface Shift {
  readonly dxPx: number;
  readonly dyPx: number;
}
const NOWHERE: Shift = { dxPx: 0, dyPx: 0 };

/**
 * A line whose ends have moved. It leaves one symbol downwards and enters the next from above: its first and last piece stay upright, the
 * pieces between become longer or shorter, and a straight one gets a step in its middle.
 */
function bent(points: readonly Point[], from: Shift, to: Shift): readonly Point[] {
  const [first] = points;
  const last = points.at(-1);
  if (first === undefined || last === undefined || points.length < 2) return points;
  const start: Point = [first[0] + from.dxPx, first[1] + from.dyPx];
  const end: Point = [last[0] + to.dxPx, last[1] + to.dyPx];
  if (points.length === 2) {
    if (start[0] === end[0]) return [start, end];
    const middle = (start[1] + end[1]) / 2;
    return [start, [start[0], middle], [end[0], middle], end];
  }
  return points.map(([x, y], at): Point => {
    if (at === 0) return start;
    if (at === points.length - 1) return end;
    // The bends next to the ends go along with them sideways.
    const dx = (at === 1 ? from.dxPx : 0) + (at === points.length - 2 ? to.dxPx : 0);
    return [x + dx, y];
  });
}

/** A layout with some of its symbols moved by hand; their lines follow. One of a part that is gone moves nothing. Nothing leaves the drawing at its upper left. */
export function nudged(layout: Layout, { nodes, edges }: Diagram, nudges: readonly Nudge[] = []): Layout {
  const wanted = new Map(nudges.map((one) => [one.nodeId, one]));
  if (!nodes.some(({ id }) => wanted.has(id))) return layout;
  const shifts = new Map(
    nodes.map(({ id }): [string, Shift] => {
      const at = layout.nodes[id] ?? { x: 0, y: 0 };
      const { dxPx, dyPx } = wanted.get(id) ?? NOWHERE;
      return [id, { dxPx: Math.max(dxPx, -at.x), dyPx: Math.max(dyPx, -at.y) }];
    }),
  );
  const shiftOf = (id: string): Shift => shifts.get(id) ?? NOWHERE;
  const placed = nodes.map((node) => {
    const at = layout.nodes[node.id] ?? { x: 0, y: 0 };
    const { dxPx, dyPx } = shiftOf(node.id);
    return { node, x: at.x + dxPx, y: at.y + dyPx };
  });
  return {
    widthPx: Math.max(layout.widthPx, ...placed.map(({ node, x }) => x + node.widthPx)),
    heightPx: Math.max(layout.heightPx, ...placed.map(({ node, y }) => y + node.heightPx)),
    nodes: Object.fromEntries(placed.map(({ node, x, y }) => [node.id, { x, y }])),
    edges: Object.fromEntries(
      edges.map(({ id, from, to }) => [id, bent(layout.edges[id] ?? [], shiftOf(from), shiftOf(to))]),
    ),
  };
}
