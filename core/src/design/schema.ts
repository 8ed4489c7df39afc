import { z } from 'zod';
import { equipmentType } from '../catalogue/schema.ts';
import {
  entities,
  fraction,
  id,
  line,
  name,
  nonNegative,
  note,
  positive,
  temperatureC,
} from '../values/quantities.ts';
import { defaultKey } from '../codes/defaults.ts';
import { tableValue } from './tableValue.ts';
import { faultSearches } from './faultSearches.ts';
import { rehearsals } from './rehearsals.ts';
import { startCodeLetter } from '../codes/codeLetters.ts';
import { acceptance } from './acceptance.ts';
import { firstValue } from './firstValueMark.ts';
import { delivery } from './delivery.ts';
import { meterSummary } from './meters.ts';
import { array, controller, generator } from './sourceSchema.ts';
import { stack } from './stackSchema.ts';
import { place } from './place.ts';
import { device, earthPoint, instrument } from './networkSchema.ts';
import { wiring } from './wiringSchema.ts';

/** The format number this code writes. Older documents are migrated on reading; newer ones are refused. */
export const FORMAT = 6;

export const supplyKind = z.enum(['single-phase', 'split-phase', 'three-phase']);
export type SupplyKind = z.infer<typeof supplyKind>;

export const startClass = z.enum([
  'steady',
  'cold-filament',
  'electronic',
  'transformer',
  'soft-drive',
  'universal',
  'split-phase-motor',
  'capacitor-motor',
  'compressor',
  'deep-pump',
  'dol-3ph',
  'star-delta',
  'soft-start',
  'welder',
]);
export type StartClass = z.infer<typeof startClass>;

export const importance = z.enum(['must', 'should', 'could', 'leave-off']);
export type Importance = z.infer<typeof importance>;

const site = z.strictObject({
  supply: supplyKind.optional(),
  lineVoltageV: positive.max(1000).optional().describe('Line to neutral.'),
  frequencyHz: z.union([z.literal(50), z.literal(60)]).optional(),
  serviceRatingA: positive.max(5000).optional().describe('Per line.'),
  earthing: z.enum(['TN-S', 'TN-C-S', 'TT', 'IT']).optional(),
  prospectiveFaultA: positive.max(200000).optional(),
  codeProfile: z.enum(['metric', 'north-american']).optional(),
  lowestC: temperatureC.optional().describe('Record low outdoors.'),
  highestC: temperatureC.optional().describe('Record high outdoors.'),
  equipmentLowestC: temperatureC.optional().describe('Coldest air where the inverters and batteries stand.'),
  equipmentHighestC: temperatureC.optional().describe('Hottest air where the inverters and batteries stand.'),
  altitudeM: z.number().min(-430).max(6000).optional(),
  latitudeDeg: z
    .number()
    .min(-90)
    .max(90)
    .optional()
    .describe('North of the equator is positive: for the sun in a rehearsal.'),
  targetAutonomyH: positive.max(10000).optional().describe('Hours the backed-up load should last.'),
  outageStartH: z
    .number()
    .min(0)
    .lt(24)
    .optional()
    .describe('Hour of the day at which an outage is looked at, beside the worst one.'),
  maintenanceBypass: z.enum(['yes', 'none']).optional(),
  bypassNeutral: z.enum(['solid', 'switched']).optional().describe('Of the bypass switch.'),
  bypassInterlocked: z
    .enum(['yes', 'no'])
    .optional()
    .describe('Whether bypass and inverter output can never be closed together.'),
  grid: z
    .enum(['connected', 'none'])
    .optional()
    .describe('None: the site has no grid. Without it: connected.'),
  instruments: z
    .literal('not-needed')
    .optional()
    .describe('Somebody has decided that nothing of the grid has to be read by a meter or sensor.'),
  utilityEarth: z
    .enum(['kept', 'may-be-lost'])
    .optional()
    .describe('Whether the earth that the utility provides is still there in island.'),
  localElectrode: z.enum(['yes', 'none']).optional(),
  electrodeOhm: nonNegative.max(100000).optional().describe('Measured resistance of the local electrode.'),
  surviveUnitLoss: z
    .enum(['yes', 'no'])
    .optional()
    .describe('Whether the loss of one inverter must be survived. Without it: not decided.'),
});

export const itemSchema = z.strictObject({
  id,
  name,
  quantity: z.number().int().min(1).max(10000).optional(),
  runningW: nonNegative.max(1e7).optional().describe('Each.'),
  powerFactor: z.number().gt(0).max(1).optional().describe('Lagging, unless stated otherwise.'),
  powerFactorKind: z.enum(['lagging', 'leading']).optional().describe('Without it: lagging.'),
  startClass: startClass.optional(),
  startMultiple: z.number().min(1).max(20).optional().describe('Own figure, times running VA.'),
  startDurationS: nonNegative.max(600).optional(),
  startPowerFactor: z.number().gt(0).max(1).optional(),
  lockedRotorA: positive.max(20000).optional().describe('Starting current on the data plate, per line.'),
  codeLetter: startCodeLetter
    .optional()
    .describe('Locked-rotor kVA per horsepower, as a letter on the plate.'),
  horsepower: positive.max(1000).optional(),
  demandFactor: fraction.optional(),
  hoursPerDay: z.number().min(0).max(24).optional(),
  runsFromH: z.number().min(0).lt(24).optional().describe('Hour of the day from which it may run.'),
  runsToH: z
    .number()
    .min(0)
    .max(24)
    .optional()
    .describe('Hour until which it may run; may lie past midnight.'),
  importance: importance.optional(),
  longestInterruptionMs: nonNegative.max(8.64e7).optional(),
});

const clampReading = z.strictObject({
  id,
  line,
  currentA: nonNegative.max(5000),
  takenAt: z.iso.datetime({ offset: true }),
  by: name,
  note: note.optional(),
});

export const circuitSchema = z.strictObject({
  id,
  name,
  lines: z
    .array(line)
    .min(1)
    .max(3)
    .refine((lines) => new Set(lines).size === lines.length, 'names a line twice')
    .optional()
    .describe('One line: line to neutral. Two: line to line. Three: three-phase.'),
  lineFixed: z.enum(['yes', 'no']).optional().describe('Yes: advice must leave its line alone.'),
  partitionId: id.optional(),
  device: z
    .strictObject({
      typeId: id.optional(),
      ratedA: positive.max(1000).optional(),
      curve: z.enum(['B', 'C', 'D', 'gG', 'aR']).optional(),
    })
    .optional()
    .describe('Its protective device.'),
  cable: z
    .strictObject({ lengthM: nonNegative.max(2000).optional(), areaMm2: positive.max(1000).optional() })
    .optional()
    .describe('From the board to what hangs on it.'),
  feedsRouter: z.literal('yes').optional().describe('The router of the building hangs on it.'),
  startDelayS: nonNegative.max(3600).optional().describe('Closed this long after supply returns in island.'),
  items: entities(itemSchema, 200),
  clampReadings: entities(clampReading, 500).optional(),
  note: note.optional(),
});

export const partitionKind = z
  .enum(['grid', 'backup', 'shed', 'locked-out', 'generator-only'])
  .describe(
    'grid: dark in island. backup: carried. shed: carried until its stage is dropped. locked-out: behind the stack, held off in island. generator-only: live on grid and while the generator runs.',
  );
export type PartitionKind = z.infer<typeof partitionKind>;

const partition = z.strictObject({
  id,
  name,
  kind: partitionKind,
  stackId: id.optional().describe('The stack whose backup output feeds it.'),
  outputId: id.optional().describe('Which backup output, where the inverter type has several.'),
  shedStage: z.number().int().min(1).max(9).optional().describe('For a shed stage: 1 goes first.'),
  shedWhen: z.enum(['at-transfer', 'below-soc']).optional(),
  shedBelowSoc: fraction.optional(),
  neutralEarthLink: z
    .enum(['yes', 'none'])
    .optional()
    .describe('Whether neutral and earth are linked in its board. Without it: they are not.'),
});

const startCase = z.strictObject({
  id,
  name,
  stackId: id,
  starts: entities(z.strictObject({ id, circuitId: id, itemId: id }), 50),
});

const override = z.strictObject({
  id: defaultKey,
  value: nonNegative,
  reason: z.string().min(3).max(500),
});

/** More circuits than any building has. */
export const MOST_CIRCUITS = 10_000;

/** The design document: only what a person decided or measured. Absent means not known; "none" is written as such. */
export const designSchema = z.strictObject({
  format: z.literal(FORMAT),
  name,
  site,
  circuits: entities(circuitSchema, MOST_CIRCUITS),
  partitions: entities(partition, 64),
  stacks: entities(stack, 16),
  generators: entities(generator, 8),
  arrays: entities(array, 64),
  controllers: entities(controller, 4).describe('Site controllers over several AC-coupled sets.'),
  startCases: entities(startCase, 64).describe('Starts that somebody wants to see together.'),
  meters: entities(meterSummary, 16).describe('What interval meters have measured, summed up.'),
  delivery: delivery.describe(
    'What has arrived, been prepared and been landed, by the id of the generated list.',
  ),
  devices: entities(device, 2000).describe(
    'Switches, breakers, fuses and isolators, each in its place in a line.',
  ),
  instruments: entities(instrument, 64).describe('Meters and sensors that inverters read by themselves.'),
  earthPoints: entities(earthPoint, 16).describe('Where earths are joined.'),
  place: place.optional(),
  wiring: wiring.optional().describe('How cables are laid, and what is at hand for them.'),
  faultSearches: faultSearches.optional(),
  rehearsals: rehearsals.optional(),
  defaults: entities(override, 64).describe('Limits changed for this job, each with a reason.'),
  tableValues: entities(tableValue, 100)
    .optional()
    .describe('Values of code tables that a licensed person has overridden, each with a reason.'),
  accepted: entities(acceptance, 500).describe(
    'Findings that somebody takes responsibility for, each with a reason.',
  ),
  firstValues: entities(firstValue, 5000)
    .optional()
    .describe('Fields that the program has filled to begin with and nobody has looked at yet.'),
  types: entities(equipmentType, 128).describe('Equipment types copied in when first used.'),
});

export type Design = z.infer<typeof designSchema>;
export type Site = Design['site'];
export type Circuit = Design['circuits'][number];
export type Item = Circuit['items'][number];
export type Partition = Design['partitions'][number];
export type Stack = Design['stacks'][number];
export type Unit = Stack['units'][number];
export type Bank = Exclude<Stack['bank'], 'none' | undefined>;
export type Module = Bank['modules'][number];
export type Generator = Design['generators'][number];
export type PvArray = Design['arrays'][number];
export type SiteController = Design['controllers'][number];
export type Device = Design['devices'][number];
export type EarthPoint = Design['earthPoints'][number];
export type StartCase = Design['startCases'][number];
export type ClampReading = NonNullable<Circuit['clampReadings']>[number];
