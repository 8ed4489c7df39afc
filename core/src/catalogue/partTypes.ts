import { z } from 'zod';
import { nonNegative, positive } from '../values/quantities.ts';
import { common, commsPins, networkJoin, placing, portName, terminals, timeCurve } from './common.ts';
import { lineCount } from './sourceTypes.ts';

export const combinerBarType = z.strictObject({
  ...common,
  kind: z.literal('combiner-bar'),
  ratedA: positive.max(10000),
  areaMm2: positive.max(2000).describe('Cross-section of each pole.'),
  spacingM: positive.max(1).describe('Between two neighbouring places.'),
  places: z.number().int().min(2).max(64),
  commsPins: commsPins.describe('Of a box that reports on its fuses or devices.'),
  terminals,
  ...placing,
});
export type CombinerBarType = z.infer<typeof combinerBarType>;

export const meterRole = z.enum(['grid', 'generation', 'load']);

export const meterType = z.strictObject({
  ...common,
  kind: z.literal('meter'),
  lines: lineCount,
  roles: z.array(meterRole).min(1).max(3),
  directA: positive.max(200).optional().describe('Through the meter itself; absent where it wants sensors.'),
  supplyVa: z
    .union([positive.max(500), z.literal('none')])
    .optional()
    .describe('What it takes through a supply cable of its own.'),
  supplyDeviceA: positive.max(200).optional().describe('Largest device ahead of that cable.'),
  protocol: portName,
  addressRule: z.enum(['fixed', 'unique-per-role']),
  commsPins,
  marks: z
    .array(
      z.strictObject({
        takes: z.enum([
          'L1',
          'L2',
          'L3',
          'N',
          'PE',
          'L1-out',
          'L2-out',
          'L3-out',
          'sensor-L1',
          'sensor-L2',
          'sensor-L3',
        ]),
        mark: z.string().min(1).max(20),
      }),
    )
    .max(16)
    .optional()
    .describe('What its terminals are marked with, by what they take.'),
  terminals,
});

export type MeterType = z.infer<typeof meterType>;

export const sensorType = z.strictObject({
  ...common,
  kind: z.literal('sensor'),
  ratedA: positive.max(5000),
  ratio: z.string().min(1).max(30).describe('As printed on its label.'),
  openingMm: positive.max(300).optional(),
  arrow: z.enum(['to-building', 'to-source']),
  longestLeadM: positive.max(500).optional().describe('How far its leads may be lengthened.'),
});

export const protectiveDeviceType = z
  .strictObject({
    ...common,
    kind: z.literal('protective-device'),
    device: z
      .enum([
        'circuit-breaker',
        'fuse',
        'residual-current',
        'isolator',
        'dc-breaker',
        'dc-fuse',
        'dc-isolator',
      ])
      .describe('An isolator opens its load by hand, and no fault.'),
    ratedA: positive.max(5000),
    ratedV: positive.max(2000),
    poles: z.number().int().min(1).max(4),
    curve: z.enum(['B', 'C', 'D', 'gG', 'aR']).optional(),
    breakingA: positive.max(500000).optional(),
    timeCurrent: timeCurve
      .optional()
      .describe('Time it holds each multiple of its rating for certain, without opening.'),
    milliohm: nonNegative.max(50).optional(),
    residualMa: positive.max(1000).optional(),
    residualType: z.enum(['AC', 'A', 'F', 'B']).optional(),
    terminals,
  })
  .refine((type) => type.device !== 'residual-current' || type.residualMa !== undefined, {
    path: ['residualMa'],
    message: 'must be stated for a residual-current device',
  });
export type ProtectiveDeviceType = z.infer<typeof protectiveDeviceType>;

export const controllerType = z.strictObject({
  ...common,
  kind: z.literal('controller'),
  mostSets: z.number().int().min(1).max(64),
  meterRoles: z.array(meterRole).max(3).describe('Meters it needs.'),
  meterProtocol: portName,
  commsPins,
  ...networkJoin,
  commissioned: z.enum(['last', 'first']).describe('Before or after the inverters.'),
});
export type ControllerType = z.infer<typeof controllerType>;
