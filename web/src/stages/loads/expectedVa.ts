import type { Row } from './columns.ts';

/** Running VA of a row at the expected peak; undefined while something is missing. */
export function expectedVa(row: Row): number | undefined {
  const items = row.kind === 'item' ? [row.item] : row.circuit.items;
  if (items.length === 0) return undefined;
  let sum = 0;
  for (const { quantity, runningW, powerFactor, demandFactor } of items) {
    if (
      quantity === undefined ||
      runningW === undefined ||
      powerFactor === undefined ||
      demandFactor === undefined
    ) {
      return undefined;
    }
    sum += (quantity * runningW * demandFactor) / powerFactor;
  }
  return sum;
}
