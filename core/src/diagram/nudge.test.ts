import { describe, expect, it } from 'vitest';
import type { Diagram, DiagramNode } from './graph.ts';
import type { Layout } from './layout.ts';
import { nudged } from './nudge.ts';

const node = (id: string): DiagramNode => ({
  id,
  symbol: 'board',
  partIds: [id],
  lines: [id],
  widthPx: 40,
  heightPx: 20,
  axisPx: 20,
});
const edge = (from: string, to: string): Diagram['edges'][number] => ({
  id: `${from}-${to}`,
  from,
  to,
  side: 'axis',
  use: 'ac',
  runIds: [],
  mark: '',
});
/** b straight below a, c beside b: 20 px high, 20 px between the rows. */
const DIAGRAM: Diagram = { nodes: ['a', 'b', 'c'].map(node), edges: [edge('a', 'b'), edge('a', 'c')] };
const LAYOUT: Layout = {
  widthPx: 140,
  heightPx: 60,
  nodes: { a: { x: 0, y: 0 }, b: { x: 0, y: 40 }, c: { x: 100, y: 40 } },
  edges: {
    'a-b': [
      [20, 20],
      [20, 40],
    ],
    'a-c': [
      [20, 20],
      [20, 30],
      [120, 30],
      [120, 40],
    ],
  },
};
const move = (nodeId: string, dxPx: number, dyPx: number) =>
  nudged(LAYOUT, DIAGRAM, [{ id: 'n', nodeId, dxPx, dyPx }]);

describe('a nudge', () => {
  it('of nothing leaves the very layout', () => {
    expect(nudged(LAYOUT, DIAGRAM)).toBe(LAYOUT);
    expect(move('gone', 10, 10)).toBe(LAYOUT);
  });

  it('gives a straight line a step in its middle: from 20 to 50 across at (20 + 40) / 2', () => {
    const { nodes, edges } = move('b', 30, 0);
    expect(nodes).toEqual({ ...LAYOUT.nodes, b: { x: 30, y: 40 } });
    expect(edges['a-b']).toEqual([
      [20, 20],
      [20, 30],
      [50, 30],
      [50, 40],
    ]);
    expect(edges['a-c']).toEqual(LAYOUT.edges['a-c']);
  });

  it('keeps a straight line straight where it goes down, and makes the drawing higher', () => {
    const { edges, heightPx } = move('b', 0, 50);
    expect(edges['a-b']).toEqual([
      [20, 20],
      [20, 90],
    ]);
    expect(heightPx).toBe(110);
  });

  it('takes the bend beside its end along', () => {
    expect(move('c', 10, 20).edges['a-c']).toEqual([
      [20, 20],
      [20, 30],
      [130, 30],
      [130, 60],
    ]);
    expect(move('a', 10, 0).edges['a-c']).toEqual([
      [30, 20],
      [30, 30],
      [120, 30],
      [120, 40],
    ]);
  });

  it('ends at the upper left edge, and every piece of every line stays upright or level', () => {
    expect(move('c', -500, -500).nodes.c).toEqual({ x: 0, y: 0 });
    for (const points of Object.values(move('c', -30, 10).edges))
      points.slice(1).forEach(([x, y], at) => {
        const before = points[at] ?? [NaN, NaN];
        expect(x === before[0] || y === before[1]).toBe(true);
      });
  });
});
