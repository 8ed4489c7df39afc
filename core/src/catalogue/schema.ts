import { z } from 'zod';
import {
  count,
  entities,
  fraction,
  id,
  name,
  nonNegative,
  note,
  positive,
  temperatureC,
} from '../design/quantities.ts';

/** The ways inverters can be joined that the compiler knows. */
export const arrangement = z.enum([
  'one-unit',
  'parallel-single-phase',
  'split-phase-native',
  'split-phase-autotransformer',
  'three-phase-native',
  'three-phase-from-single',
  'split-phase-from-single',
]);
export type Arrangement = z.infer<typeof arrangement>;

/** Whether an arrangement makes several lines from units that each make one: then each unit belongs to a line. */
export const isUnitPerLine = (one: Arrangement | undefined): boolean =>
  one === 'three-phase-from-single' || one === 'split-phase-from-single';

const common = {
  id,
  version: z.number().int().min(1),
  name,
  note: note.optional(),
  inTheBox: z.array(z.string().min(1).max(120)).max(20).optional().describe('What comes with one of them.'),
};

const clearM = nonNegative.max(5);

/** What a type is as a thing on a wall or a floor. */
export const bodySchema = z.strictObject({
  widthM: positive.max(5),
  heightM: positive.max(5),
  depthM: positive.max(3),
  mount: z.enum(['wall', 'floor']),
  clearSidesM: clearM,
  clearAboveM: clearM,
  clearBelowM: clearM,
  clearFrontM: clearM,
  heightAboveFloorM: z.strictObject({ min: nonNegative.max(10), max: nonNegative.max(10) }).optional(),
  wetRated: z.enum(['indoors', 'sheltered', 'outdoors']),
  drilling: z
    .array(z.strictObject({ xM: nonNegative.max(5), yM: nonNegative.max(5), diameterMm: positive.max(50) }))
    .max(24)
    .describe('Hole centres from the lower left corner.'),
});
export type Body = z.infer<typeof bodySchema>;

const body = { massKg: positive.optional(), body: bodySchema.optional() };

/** Points must rise along their first column, or interpolation has no meaning. */
function rising<T>(points: readonly T[], key: (point: T) => number): boolean {
  return points.every((point, index) => index === 0 || key(point) > key(points[index - 1] as T));
}

const deratingPoints = z
  .array(z.strictObject({ ambientC: temperatureC, factor: fraction }))
  .min(1)
  .max(12)
  .refine((points) => rising(points, (point) => point.ambientC), 'must list temperatures in rising order');

const overloadCurve = z
  .array(z.strictObject({ multiple: z.number().gt(1).max(20), maxS: positive.max(86400) }))
  .min(1)
  .max(12)
  .refine((points) => rising(points, (point) => point.multiple), 'must list multiples in rising order')
  .refine((points) => rising(points, (point) => -point.maxS), 'must allow less time at each higher multiple')
  .describe('Longest time at each multiple of rated VA. Unlimited up to 1.0; none above the last point.');

export const inverterType = z.strictObject({
  ...common,
  kind: z.literal('inverter'),
  nativeLines: z
    .union([z.literal(1), z.literal(2), z.literal(3)])
    .describe('Output lines one unit makes by itself.'),
  outputV: positive
    .max(1000)
    .describe('Line-to-neutral for one- and three-line units; line-to-line for a split-phase unit.'),
  arrangements: z.array(arrangement).min(1),
  ratedVa: positive.max(1e6),
  ratedW: positive.max(1e6),
  derating: deratingPoints.describe(
    'Share of the rating left at each ambient temperature; flat outside the points.',
  ),
  overloadCurve,
  imbalanceLimit: nonNegative.max(3).optional().describe('Largest (max - min) / mean of the line loads.'),
  passThroughA: positive.optional().describe('Per unit and line.'),
  gridPortA: positive.optional().describe('Per unit and line.'),
  backupPortA: positive.optional().describe('Per unit and line.'),
  outputs: entities(
    z.strictObject({
      id,
      name,
      limitA: positive.describe('Per unit and line.'),
    }),
    4,
  )
    .optional()
    .describe('Backup outputs of one unit, where it has several or a small one beside the main one.'),
  generatorPortA: z
    .union([positive, z.literal('none')])
    .optional()
    .describe('Per unit and line.'),
  transferMs: nonNegative.max(60000).optional(),
  batteryWindowV: z
    .strictObject({ min: positive, max: positive })
    .refine((w) => w.min < w.max, 'needs min below max'),
  lowVoltageTripV: positive,
  maxDischargeA: positive,
  maxChargeA: positive,
  efficiency: fraction.gt(0),
  idleW: nonNegative,
  maxPerLine: count,
  maxTotal: count,
  lostUnit: z.enum(['rest-continue', 'set-stops']),
  ...body,
  powerUpOrder: z.enum(['battery-inverter-grid', 'grid-then-battery']).optional(),
  reconnectDelayS: nonNegative
    .max(3600)
    .optional()
    .describe('Time the unit watches the returned grid before it reconnects.'),
});
export type InverterType = z.infer<typeof inverterType>;

export const batteryType = z
  .strictObject({
    ...common,
    kind: z.literal('battery'),
    chemistry: z.enum(['lithium-iron-phosphate', 'lithium-nickel', 'lead-acid']),
    nominalV: positive,
    capacityAh: positive,
    internalMilliohm: positive.optional(),
    openCircuit: z
      .array(z.strictObject({ soc: fraction, voltageV: positive }))
      .min(2)
      .max(24)
      .refine((points) => rising(points, (point) => point.soc), 'must list states of charge in rising order')
      .refine((points) => rising(points, (point) => point.voltageV), 'must rise with the state of charge')
      .optional()
      .describe('Resting voltage of a module by state of charge.'),
    continuousDischargeA: positive,
    peakDischargeA: positive,
    peakS: positive,
    chargeA: positive,
    minV: positive,
    maxV: positive,
    usableFraction: fraction.gt(0),
    joining: z.enum(['parallel', 'series']).describe('How modules of this type make a bank.'),
    maxModules: count.describe('Largest parallel count per comms group, or series count in a stack.'),
    chargeMinC: temperatureC.describe('No charging below this cell temperature.'),
    ...body,
  })
  .refine(
    (type) => type.minV < type.nominalV && type.nominalV < type.maxV,
    'needs minV below nominalV below maxV',
  );
export type BatteryType = z.infer<typeof batteryType>;

export const generatorType = z.strictObject({
  ...common,
  kind: z.literal('generator'),
  lines: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  ratedVa: positive.max(1e7),
  altitudeLossPer100M: fraction.describe('Share of rating lost per 100 m above 150 m.'),
  temperatureLossPer5K: fraction.describe('Share of rating lost per 5 degrees above 25 °C.'),
  largestStep: fraction.optional().describe('Largest load it takes at once, as a share of its rating.'),
  fuelIdleLPerH: nonNegative.max(100).optional().describe('Fuel while it runs without load.'),
  fuelLPerKwh: positive.max(5).optional().describe('Fuel on top of that for what it gives.'),
  start: z.enum(['hand', 'two-wire', 'scheduled']),
  warmUpS: nonNegative,
});
export type GeneratorType = z.infer<typeof generatorType>;

export const autotransformerType = z.strictObject({
  ...common,
  kind: z.literal('autotransformer'),
  neutralA: positive.describe('Largest continuous neutral current.'),
  thermalSensor: z.enum(['yes', 'no']),
});
export type AutotransformerType = z.infer<typeof autotransformerType>;

export const equipmentType = z.discriminatedUnion('kind', [
  inverterType,
  batteryType,
  generatorType,
  autotransformerType,
]);
export type EquipmentType = z.infer<typeof equipmentType>;
export type EquipmentKind = EquipmentType['kind'];
