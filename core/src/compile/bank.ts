import type { BatteryType } from '../catalogue/schema.ts';
import { field, type Known, mapKnown } from '../design/known.ts';
import type { Bank } from '../design/schema.ts';

/** A battery bank as one source. The current of each module is the mean here; its spread is a stated allowance. */
export interface CompiledBank {
  readonly type: BatteryType;
  readonly moduleCount: number;
  readonly parallelCount: number;
  readonly seriesCount: number;
  readonly nominalV: number;
  readonly minV: number;
  readonly maxV: number;
  readonly capacityAh: number;
  /** Sum over the paralleled modules, before any allowance for uneven sharing. */
  readonly continuousDischargeA: number;
  readonly peakDischargeA: number;
  readonly chargeA: number;
}

export type FindType = (id: string | undefined, path: readonly string[]) => Known<BatteryType>;

/** Modules in parallel add amperes and ampere-hours; modules in series add volts. */
export function compileBank(bank: Bank, stackId: string, findType: FindType): Known<CompiledBank> {
  const path = ['stacks', stackId, 'bank', 'batteryTypeId'];
  const type = field(bank.batteryTypeId, ...path);
  if (!type.known) return type;
  return mapKnown(findType(bank.batteryTypeId, path), (found) => {
    const moduleCount = bank.modules.length;
    const seriesCount = found.joining === 'series' ? moduleCount : 1;
    const parallelCount = found.joining === 'series' ? 1 : moduleCount;
    return {
      type: found,
      moduleCount,
      parallelCount,
      seriesCount,
      nominalV: found.nominalV * seriesCount,
      minV: found.minV * seriesCount,
      maxV: found.maxV * seriesCount,
      capacityAh: found.capacityAh * parallelCount,
      continuousDischargeA: found.continuousDischargeA * parallelCount,
      peakDischargeA: found.peakDischargeA * parallelCount,
      chargeA: found.chargeA * parallelCount,
    };
  });
}
