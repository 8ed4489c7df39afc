import type { InverterType } from '../../catalogue/inverterType.ts';
import type { CompiledBank } from './bank.ts';

/** Lowest voltage at which a set still runs: constant power draws the most current there. */
export const lowestV = (
  { type }: { readonly type: Pick<InverterType, 'batteryWindowV' | 'lowVoltageTripV'> },
  bank: Pick<CompiledBank, 'minV'>,
): number => Math.max(bank.minV, type.batteryWindowV.min, type.lowVoltageTripV);
