import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import type { Generator, Site, Stack } from '../../design/schema.ts';
import { dcDeviceFor, type DeviceAndLead } from './conductors.ts';

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
  modules: number,
  catalogue: readonly EquipmentType[],
  site: Site,
): BankPlan {
  const isSeries = type.joining === 'series';
  const inSeries = isSeries ? modules : 1;
  const inParallel = isSeries ? 1 : modules;
  const unitA = Math.min(
    inverter.maxDischargeA,
    inverter.ratedW / (inverter.efficiency * type.minV * inSeries),
  );
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
    isOwn: inverter.batteryRule === 'own-only',
    unitA,
    device: dcDeviceFor(catalogue, unitA, type.maxV * inSeries, faultA, {
      profile: site.codeProfile,
      ambientC: site.equipmentHighestC,
      mostMm2: inverter.terminals?.find(({ port }) => port === 'battery')?.maxMm2,
    }),
  };
}

export const roundDown = (value: number, step: number): number => Math.floor(value / step + 1e-9) * step;
