import { expectedVa as vaOf } from '@bastion/core';
import type { Row } from './columns.ts';

/** Running VA of a row at the expected peak, by the core's own sum; undefined while something is missing. */
export const expectedVa = (row: Row): number | undefined =>
  vaOf(row.kind === 'item' ? [row.item] : row.circuit.items);
