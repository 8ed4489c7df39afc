import type { CompiledBank } from '../../figures/bank/bank.ts';
import type { StackCase } from './eachLine.ts';

/** Lowest voltage at which a set still runs: constant power draws the most current there. */
export const lowestV = ({ type }: StackCase, bank: CompiledBank): number =>
  Math.max(bank.minV, type.batteryWindowV.min, type.lowVoltageTripV);
