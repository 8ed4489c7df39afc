import { z } from 'zod';
import { portName } from '../catalogue/common.ts';
import { meterRole } from '../catalogue/partTypes.ts';
import { networkWay } from './networkSchema.ts';
import { entities, id, line, name, nonNegative, positive } from '../values/quantities.ts';

export const generator = z.strictObject({
  id,
  name,
  typeId: id.optional(),
  connection: z
    .enum(['generator-port', 'transfer-switch', 'inlet'])
    .optional()
    .describe('inlet: onto a board by an inlet, without a transfer switch.'),
  transferDeviceTypeId: id
    .optional()
    .describe('The transfer switch ahead of the grid port. Without it: the one the stack names.'),
  inletAt: z.enum(['service-board', 'backed-up-board']).optional(),
  neutralBond: z
    .enum(['bonded', 'floating'])
    .optional()
    .describe('Where its neutral is bonded or floats otherwise than its type says.'),
  stackId: id.optional(),
  line: line.optional().describe('For a single-phase set on several lines: the one it supplies.'),
  fuelL: nonNegative.optional(),
});

/** Where strings of an array are plugged. An array belongs on one input; each further place is a fault that is shown. */
const stringPlace = z.strictObject({
  id,
  stackId: id,
  unitId: id,
  input: z.number().int().min(1).max(12),
  strings: z.number().int().min(1).max(20),
});

/** One roof or field of one module type, direction and tilt. DC-coupled strings go to inverter inputs, AC-coupled power to a board. */
export const array = z.strictObject({
  id,
  name,
  coupling: z.enum(['dc', 'ac']).optional(),
  moduleTypeId: id.optional(),
  modulesPerString: z.number().int().min(1).max(60).optional(),
  directionDeg: z.number().min(0).lt(360).optional().describe('Clockwise from north.'),
  tiltDeg: z.number().min(0).max(90).optional(),
  places: entities(stringPlace, 24).optional(),
  rapidShutdown: z.enum(['fitted', 'none']).optional(),
  ratedAcW: positive.max(1e7).optional(),
  partitionId: id.optional(),
  curtailedBy: z
    .enum(['frequency', 'shedding', 'none'])
    .optional()
    .describe('How AC-coupled power that cannot be stored is held back in island.'),
  withGenerator: z
    .enum(['disconnected', 'proven-curtailed', 'stays'])
    .optional()
    .describe('What becomes of AC-coupled power while a generator runs.'),
});

/** A site controller over several sets, with the meters it reads. */
export const controller = z.strictObject({
  id,
  name,
  typeId: id.optional(),
  stackIds: z.array(id).max(64),
  network: networkWay
    .optional()
    .describe('How it is joined to the network of the building. none: on purpose not.'),
  meters: entities(
    z.strictObject({
      id,
      role: meterRole,
      typeId: id.optional(),
      address: z.number().int().min(0).max(255).optional(),
      after: z
        .union([id, z.literal('controller')])
        .optional()
        .describe(
          'What its cable comes from: the controller, or another of its meters. Without it: one after the other.',
        ),
      port: portName.optional().describe('Which port of the controller it hangs on. Without it: all on one.'),
    }),
    12,
  ),
});
