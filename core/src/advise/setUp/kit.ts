import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import type { CombinerBarType } from '../../catalogue/partTypes.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import type { Generator, Site, Stack } from '../../design/schema.ts';
import { barFor, dcDeviceFor, type DeviceAndLead } from './conductors.ts';

/** What a person chooses when boards, inverters, battery and generator are set up in one step. */
export interface SetUpChoice {
  readonly inverterTypeId: string;
  readonly units: number;
  /** Undefined: not decided yet. */
  readonly battery: { readonly typeId: string; readonly modules: number } | 'none' | undefined;
  readonly generator: { readonly typeId: string; readonly connection: Generator['connection'] } | undefined;
  /** Where the circuits go that have no board yet. */
  readonly circuitsTo: 'grid' | 'backup' | 'nowhere';
}

/** Makes an id that is in no list yet. */
export type NewId = (prefix: string) => string;

/** A bank as it is planned. */
export interface BankPlan {
  readonly type: BatteryType;
  readonly modules: number;
  readonly isSeries: boolean;
  readonly inSeries: number;
  readonly inParallel: number;
  /** Each inverter has a bank like this one. */
  readonly isOwn: boolean;
  /** What one inverter takes at rated power from a bank that is nearly empty, A. */
  readonly unitA: number;
  /** The bars on which modules and inverters meet; undefined for a series stack, and where the catalogue has none. */
  readonly bar: CombinerBarType | undefined;
  /** The battery device of each inverter with its lead, where the catalogue has one. */
  readonly device: DeviceAndLead | undefined;
}

export interface Kit {
  readonly site: Site;
  readonly catalogue: readonly EquipmentType[];
  readonly inverter: InverterType;
  readonly stack: Stack;
  readonly bank: BankPlan | undefined;
  readonly generator: SetUpChoice['generator'];
}

export function planBank(
  inverter: InverterType,
  type: BatteryType,
  { modules, units }: { readonly modules: number; readonly units: number },
  catalogue: readonly EquipmentType[],
  site: Site,
): BankPlan {
  const isSeries = type.joining === 'series';
  const inSeries = isSeries ? modules : 1;
  const inParallel = isSeries ? 1 : modules;
  const fullA = inverter.ratedW / (inverter.efficiency * type.minV * inSeries);
  const unitA = Math.min(inverter.maxDischargeA, fullA);
  const isOwn = inverter.batteryRule === 'own-only';
  const sharing = isOwn ? 1 : units;
  const bar = isSeries ? undefined : barFor(catalogue, unitA * sharing, inParallel + sharing);
  const landings = [
    ...(inverter.terminals ?? []).filter(({ port }) => port === 'battery'),
    ...(bar?.terminals ?? []).filter(({ port }) => port === 'bar'),
  ].map(({ maxMm2 }) => maxMm2);
  const faultA =
    type.internalMilliohm === undefined
      ? undefined
      : (type.maxV * inParallel) / (type.internalMilliohm / 1000);
  return {
    type,
    modules,
    isSeries,
    inSeries,
    inParallel,
    isOwn,
    bar,
    unitA,
    device: dcDeviceFor(catalogue, unitA, type.maxV * inSeries, faultA, {
      profile: site.codeProfile,
      ambientC: site.equipmentHighestC,
      mostMm2: landings.length === 0 ? undefined : Math.min(...landings),
      carriesA: fullA,
    }),
  };
}

export const roundDown = (value: number, step: number): number => Math.floor(value / step + 1e-9) * step;
