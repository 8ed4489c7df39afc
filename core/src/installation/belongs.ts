import type { Device, DeviceRole } from './facts.ts';
import type { Part } from './network.ts';

/** What may name the thing that a device in a line belongs to. */
const KEYS = [
  'stackId',
  'unitId',
  'moduleId',
  'group',
  'partitionId',
  'generatorId',
  'arrayId',
  'controllerId',
  'meterId',
] as const;

/** To which thing a device belongs. */
export type Belongs = Partial<Pick<Device, (typeof KEYS)[number]>>;

/** Whether an entry of the list of devices is the one of a place. */
export const belongsTo = (device: Device, role: DeviceRole, of: Belongs): boolean =>
  device.role === role && KEYS.every((key) => device[key] === of[key]);

/** To which thing a device that stands in the network belongs, as the list of devices would say it. */
export function belongsOf(part: Part): Belongs {
  const { role, stackId, unitId, moduleId, partitionId, generatorId, arrayId, controllerId, meterId } = part;
  const of: Belongs = {};
  if (stackId !== undefined && role !== 'dc-switch') of.stackId = stackId;
  if (unitId !== undefined && role !== 'dc-switch') of.unitId = unitId;
  if (moduleId !== undefined) of.moduleId = moduleId;
  if (partitionId !== undefined) of.partitionId = partitionId;
  if (generatorId !== undefined) of.generatorId = generatorId;
  if (arrayId !== undefined) of.arrayId = arrayId;
  if (controllerId !== undefined) of.controllerId = controllerId;
  if (meterId !== undefined) of.meterId = meterId;
  return of;
}
