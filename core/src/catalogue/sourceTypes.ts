import { z } from 'zod';
import { fraction, nonNegative, positive, temperatureC } from '../values/quantities.ts';
import { common, commsPins, placing, shortCircuit, terminals, yesNo } from './common.ts';

export const lineCount = z.union([z.literal(1), z.literal(2), z.literal(3)]);

export const generatorType = z.strictObject({
  ...common,
  kind: z.literal('generator'),
  lines: lineCount,
  ratedVa: positive.max(1e7),
  powerFactor: fraction
    .gt(0)
    .optional()
    .describe('Rated power factor: its engine gives no more W than this.'),
  outputV: positive.max(1000).optional().describe('Line to neutral; half of 240 V for a split-phase set.'),
  frequencyHz: z.union([z.literal(50), z.literal(60)]).optional(),
  regulation: fraction.optional().describe('Voltage band in steady running, as a share either way.'),
  droop: fraction.optional().describe('Fall of frequency from no load to full load, as a share.'),
  altitudeLossPer100M: fraction.describe('Share of rating lost per 100 m above where the loss begins.'),
  deratesAboveM: z
    .number()
    .min(-430)
    .max(6000)
    .optional()
    .describe('Altitude from which the loss counts. Without it: the planning default.'),
  temperatureLossPer5K: fraction.describe('Share of rating lost per 5 degrees above where the loss begins.'),
  deratesAboveC: temperatureC
    .optional()
    .describe('Air temperature from which the loss counts. Without it: the planning default.'),
  largestStep: fraction
    .optional()
    .describe('Largest load it takes at once, as a share of its rating in VA and in W.'),
  transientReactance: positive
    .max(2)
    .optional()
    .describe(
      'Transient reactance of the alternator, per unit of its rating: how far its voltage falls in a step.',
    ),
  stepFrequencyDip: fraction.optional().describe('Fall of frequency in the largest load step, as a share.'),
  recoveryS: positive
    .max(60)
    .optional()
    .describe('Time until voltage and frequency are back in their bands.'),
  neutral: z.enum(['bonded', 'floating']).optional(),
  fuelIdleLPerH: nonNegative.max(100).optional().describe('Fuel while it runs without load.'),
  fuelLPerKwh: positive.max(5).optional().describe('Fuel on top of that for what it gives.'),
  start: z.enum(['hand', 'two-wire', 'scheduled']),
  warmUpS: nonNegative,
  shortCircuit: shortCircuit.optional(),
  terminals,
  massKg: placing.massKg,
});
export type GeneratorType = z.infer<typeof generatorType>;

export const autotransformerType = z.strictObject({
  ...common,
  kind: z.literal('autotransformer'),
  ratedVa: positive.max(1e6).optional(),
  neutralA: positive.describe('Largest continuous neutral current.'),
  thermalSensor: yesNo,
  terminals,
  ...placing,
});
export type AutotransformerType = z.infer<typeof autotransformerType>;

export const pvModuleType = z
  .strictObject({
    ...common,
    kind: z.literal('pv-module'),
    ratedW: positive.max(2000).describe('At 1000 W/m² and 25 °C.'),
    vocV: positive.max(400),
    vmpV: positive.max(400),
    iscA: positive.max(50),
    impA: positive.max(50),
    vocPerK: z.number().gt(-0.02).lt(0).describe('Change of open-circuit voltage per kelvin, as a share.'),
    vmpPerK: z.number().gt(-0.02).lt(0).describe('Change of operating voltage per kelvin, as a share.'),
    hotCellRiseK: positive
      .max(60)
      .optional()
      .describe('How much hotter than the air its cells run in full sun.'),
    massKg: placing.massKg,
  })
  .refine((type) => type.vmpV < type.vocV, {
    path: ['vmpV'],
    message: 'must be below the open-circuit voltage',
  })
  .refine((type) => type.impA < type.iscA, {
    path: ['impA'],
    message: 'must be below the short-circuit current',
  });
export type PvModuleType = z.infer<typeof pvModuleType>;

export const transferDeviceType = z.strictObject({
  ...common,
  kind: z.literal('transfer-device'),
  lines: lineCount,
  ratedA: positive.max(5000).describe('Per line.'),
  poles: z.number().int().min(1).max(4),
  neutral: z.enum(['solid', 'switched']),
  control: z.enum(['automatic', 'hand']),
  interlocked: yesNo.describe('Break before make, held mechanically.'),
  transferMs: nonNegative.max(60000).optional(),
  controlSupply: z
    .enum(['own', 'from-inverter', 'from-board', 'none'])
    .optional()
    .describe(
      'Where its controls are fed from: inside itself, a control output of the inverter, or the backed-up board.',
    ),
  controlCurrent: z.enum(['ac', 'dc']).optional().describe('Of a control supply from the inverter.'),
  controlV: positive.max(1000).optional().describe('Voltage of a control supply from the inverter.'),
  controlVa: positive.max(5000).optional().describe('What its controls take through a cable of their own.'),
  controlDeviceA: positive.max(200).optional().describe('Largest device ahead of that cable.'),
  sensesGrid: yesNo.optional().describe('Whether it watches the grid by itself.'),
  commsPins,
  terminals,
  ...placing,
});
export type TransferDeviceType = z.infer<typeof transferDeviceType>;
