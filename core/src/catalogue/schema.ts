import { z } from 'zod';
import { batteryType } from './batteryType.ts';
import { inverterType } from './inverterType.ts';
import { combinerBarType, controllerType, meterType, protectiveDeviceType, sensorType } from './partTypes.ts';
import { autotransformerType, generatorType, pvModuleType, transferDeviceType } from './sourceTypes.ts';

/** Everything a job can be built of. */
export const equipmentType = z.discriminatedUnion('kind', [
  inverterType,
  batteryType,
  generatorType,
  autotransformerType,
  pvModuleType,
  transferDeviceType,
  combinerBarType,
  meterType,
  sensorType,
  protectiveDeviceType,
  controllerType,
]);
export type EquipmentType = z.infer<typeof equipmentType>;
export type EquipmentKind = EquipmentType['kind'];
export type TypeOf<K extends EquipmentKind> = Extract<EquipmentType, { kind: K }>;
