import { z } from 'zod';
import { id, line, name, positive, nonNegative } from '../values/quantities.ts';

/** Where in a line a switch, breaker, fuse or isolator stands. */
export const deviceRole = z.enum([
  'service-main',
  'grid-isolator',
  'unit-grid',
  'unit-output',
  'board-main',
  'generator-device',
  'battery-unit',
  'battery-group',
  'battery-module',
  'dc-switch',
  'enable-switch',
  'meter-device',
  'control-device',
]);
export type DeviceRole = z.infer<typeof deviceRole>;

/** A device in a line, with the thing it belongs to. What is not listed here is there as "not known". */
export const device = z.strictObject({
  id,
  role: deviceRole,
  stackId: id.optional(),
  unitId: id.optional(),
  moduleId: id.optional(),
  group: z.number().int().min(1).max(64).optional().describe('Group of battery modules, counted from 1.'),
  partitionId: id.optional(),
  generatorId: id.optional(),
  arrayId: id.optional(),
  controllerId: id.optional(),
  meterId: id.optional().describe('A meter of that controller, else one that a set reads by itself.'),
  fitted: z.enum(['yes', 'none']).optional(),
  typeId: id.optional(),
  ratedA: positive.max(5000).optional(),
  neutral: z.enum(['solid', 'switched']).optional(),
  stands: name.optional().describe('Where it stands, in words.'),
  fromBatteryM: nonNegative
    .max(100)
    .optional()
    .describe('Of a battery device: lead between the battery and it, one pole.'),
  mountedId: id.optional().describe('Its place on the wall plan.'),
});

/** How a device is joined to the network of the building. */
export const networkWay = z.enum(['cable', 'radio', 'none']);

/** Where a meter or sensor looks. */
export const instrumentPlace = z.enum(['service', 'grid-port', 'backed-up-board', 'generator', 'array']);

/** A meter or sensor that an inverter or a set reads by itself, without a site controller. */
export const instrument = z.strictObject({
  id,
  name: name.optional(),
  kind: z.enum(['meter', 'sensor']),
  typeId: id.optional(),
  at: instrumentPlace.optional(),
  line: line.optional().describe('For a sensor: the line it is clipped on.'),
  arrow: z
    .enum(['to-building', 'to-source'])
    .optional()
    .describe('Which way its arrow points as it is fitted.'),
  ratio: z.string().min(1).max(30).optional().describe('As it is set in the settings.'),
  readBy: id.optional().describe('The set that reads it.'),
  readByUnitId: id.optional(),
  meterId: id
    .optional()
    .describe('For a sensor: the meter of this list that its leads go to. Without it: what reads it.'),
});

/** A point where earths are joined. */
export const earthPoint = z.strictObject({
  id,
  name,
  joins: z
    .array(z.enum(['grid-earth', 'backed-up-earth', 'chassis', 'electrode', 'generator-frame']))
    .min(1)
    .max(5),
  areaMm2: positive.max(1000).optional().describe('Of the earthing conductor between them.'),
});
