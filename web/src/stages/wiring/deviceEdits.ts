import type { Design, Part } from '@bastion/core';
import { newId } from '../../state/job.ts';

type Device = Design['devices'][number];

/** Which thing a device in a line belongs to, as the design names it. */
function belongsOf(part: Part): Partial<Device> {
  const { role, stackId, unitId, moduleId, partitionId, generatorId, arrayId, controllerId, meterId } = part;
  const of: Partial<Device> = {};
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

/** The entry of a device in the list of the design; undefined while nobody has said anything of it. */
export function deviceOf(design: Design, part: Part): Device | undefined {
  const of = belongsOf(part);
  return design.devices.find((one) => one.role === part.role && KEYS.every((key) => one[key] === of[key]));
}

/** The same in a draft, made when it is first spoken of. */
export function deviceIn(draft: Design, part: Part): Device | undefined {
  const found = deviceOf(draft, part);
  if (found !== undefined || part.role === undefined || part.role === 'circuit') return found;
  draft.devices.push({ id: newId('q'), role: part.role, ...belongsOf(part) });
  return draft.devices.at(-1);
}
