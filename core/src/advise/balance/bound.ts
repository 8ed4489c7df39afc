import type { Table } from './table.ts';

/** How many of the largest loads are placed one by one; the rest is spread like water. 3⁹ placements take milliseconds. */
const PLACED = 9;

/** The level at which `water` fills vessels of these heights (already weighted): max weight · height afterwards. */
function level(heights: Float64Array, weights: Float64Array, water: number): number {
  const order = [...heights.keys()].sort(
    (a, b) => (weights[a] ?? 1) * (heights[a] ?? 0) - (weights[b] ?? 1) * (heights[b] ?? 0),
  );
  let sumHeight = 0;
  let sumArea = 0;
  let reached = 0;
  for (let index = 0; index < order.length; index += 1) {
    const line = order[index] ?? 0;
    sumHeight += heights[line] ?? 0;
    sumArea += 1 / (weights[line] ?? 1);
    reached = (sumHeight + water) / sumArea;
    const next = order[index + 1];
    if (next === undefined || reached <= (weights[next] ?? 1) * (heights[next] ?? 0)) break;
  }
  const top = order.at(-1) ?? 0;
  return Math.max(reached, (weights[top] ?? 1) * (heights[top] ?? 0));
}

/**
 * A figure that no assignment can go below: the largest loads are tried on every line, and what is left is spread without
 * regard to its pieces. Works on the parts along the direction of the whole load, since |S| ≥ Re(S · ū) for every line.
 */
export function lowerBound(table: Table): number {
  const placed = Math.min(PLACED, table.count);
  let water = 0;
  for (let index = placed; index < table.count; index += 1) water += table.along[index] ?? 0;
  const heights = Float64Array.from(table.baseAlong);
  let least = Infinity;
  const place = (index: number): void => {
    if (index === placed) {
      const reached = level(heights, table.weights, water);
      if (reached < least) least = reached;
      return;
    }
    const along = table.along[index] ?? 0;
    for (let line = 0; line < table.lineCount; line += 1) {
      const before = heights[line] ?? 0;
      heights[line] = before + along;
      if ((table.weights[line] ?? 1) * (before + along) < least) place(index + 1);
      heights[line] = before;
    }
  };
  place(0);
  return least;
}
