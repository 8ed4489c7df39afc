import type { BatteryType } from '../../catalogue/batteryType.ts';
import { field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Bank } from '../../installation/facts.ts';

/** A battery bank as one source, of the modules that are fitted. The current of each is the mean here; its spread is solved apart. */
export interface CompiledBank {
  /** The type of the bank; a module of another type adds its own figures to the sums. */
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

/** What a module may give for a time: its peak for as long as it holds that, else its continuous current, A. */
export const dischargeLimitA = (type: BatteryType, durationS: number): number =>
  durationS <= type.peakS ? type.peakDischargeA : type.continuousDischargeA;

export type FindBattery = (id: string | undefined, path: readonly string[]) => Known<BatteryType>;

/** Modules that are not taken out. */
export const fittedModules = (bank: Bank): Bank['modules'] =>
  bank.modules.filter((module) => module.fitted !== 'taken-out');

/** The type of each fitted module, in order. */
function moduleTypes(bank: Bank, stackId: string, findType: FindBattery): Known<BatteryType[]> {
  const path = ['stacks', stackId, 'bank'];
  const types: BatteryType[] = [];
  for (const module of fittedModules(bank)) {
    const own = module.batteryTypeId;
    const type = findType(
      own ?? bank.batteryTypeId,
      own === undefined ? [...path, 'batteryTypeId'] : [...path, 'modules', module.id, 'batteryTypeId'],
    );
    if (!type.known) return unknownAt(...type.missing);
    types.push(type.value);
  }
  return known(types);
}

/** The types of the fitted modules, each once. */
export const bankTypes = (bank: Bank, stackId: string, findType: FindBattery): Known<BatteryType[]> =>
  mapKnown(moduleTypes(bank, stackId, findType), (types) => [
    ...new Map(types.map((type) => [type.id, type])).values(),
  ]);

/** Modules in parallel add amperes and ampere-hours; modules in series add volts, and the weakest sets the amperes. */
export function compileBank(bank: Bank, stackId: string, findType: FindBattery): Known<CompiledBank> {
  const path = ['stacks', stackId, 'bank'];
  const given = field(bank.batteryTypeId, ...path, 'batteryTypeId');
  if (!given.known) return given;
  const type = findType(bank.batteryTypeId, [...path, 'batteryTypeId']);
  if (!type.known) return type;
  const found = moduleTypes(bank, stackId, findType);
  if (!found.known) return found;
  const types = found.value;
  const isSeries = type.value.joining === 'series';
  const sum = (of: (one: BatteryType) => number): number => types.reduce((total, one) => total + of(one), 0);
  const least = (of: (one: BatteryType) => number): number =>
    types.length === 0 ? 0 : Math.min(...types.map(of));
  const amperes = isSeries ? least : sum;
  const highest = types.length === 0 ? 0 : Math.max(...types.map((one) => one.minV));
  return known({
    type: type.value,
    moduleCount: types.length,
    seriesCount: isSeries ? types.length : 1,
    parallelCount: isSeries ? 1 : types.length,
    nominalV: isSeries ? sum((one) => one.nominalV) : type.value.nominalV,
    minV: isSeries ? sum((one) => one.minV) : highest,
    maxV: isSeries ? sum((one) => one.maxV) : least((one) => one.maxV),
    capacityAh: amperes((one) => one.capacityAh),
    continuousDischargeA: amperes((one) => one.continuousDischargeA),
    peakDischargeA: amperes((one) => one.peakDischargeA),
    chargeA: amperes((one) => one.chargeA),
  });
}
