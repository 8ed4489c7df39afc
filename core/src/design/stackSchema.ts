import { z } from 'zod';
import { portName } from '../catalogue/common.ts';
import { networkWay } from './networkSchema.ts';
import { arrangement } from '../catalogue/inverterType.ts';
import {
  entities,
  fraction,
  id,
  line,
  name,
  nonNegative,
  positive,
  temperatureC,
} from '../values/quantities.ts';

/** A conductor as it is laid: length of one pole, copper, flexible. */
const conductor = z.strictObject({
  lengthM: nonNegative.max(100).optional().describe('One pole, lug to lug.'),
  areaMm2: positive.max(1000).optional(),
});
export type Conductor = z.infer<typeof conductor>;

const unit = z.strictObject({
  id,
  line: line
    .optional()
    .describe('For sets that make several lines from single-phase units; in a ring, its first terminal.'),
  firmware: z.string().min(1).max(40).optional(),
  firmwareParts: entities(z.strictObject({ id: portName, version: z.string().min(1).max(40) }), 6)
    .optional()
    .describe('Firmware by part, where the type has parts.'),
  serial: z.string().min(1).max(60).optional(),
  batteryProfile: z.string().min(1).max(60).optional().describe('Battery settings loaded, by name.'),
  batteryLead: conductor.optional().describe('Where its battery lead differs from the others.'),
  acLead: conductor.optional().describe('From its AC output to the point where the units are paralleled.'),
  ownAcDevice: z.enum(['yes', 'none']).optional().describe('Whether its AC output has a device of its own.'),
  inverterTypeId: id.optional().describe('Where this unit is of another type than the set.'),
  busAddress: z.number().int().min(0).max(255).optional().describe('On the parallel bus.'),
  frequencyHz: z
    .union([z.literal(50), z.literal(60)])
    .optional()
    .describe('As it is set.'),
  outputV: positive.max(1000).optional().describe('Line-to-neutral voltage, as it is set.'),
  neutralEarthRelay: z
    .enum(['on', 'off'])
    .optional()
    .describe('Where the relays are set unit by unit. Without it: the set closes one, as it is set.'),
  network: networkWay
    .optional()
    .describe('How it is joined to the network of the building. none: on purpose not.'),
  barPlace: z.number().int().min(1).max(512).optional().describe('At which place of the bars it taps them.'),
});

const module = z.strictObject({
  id,
  serial: z.string().min(1).max(60).optional(),
  batteryTypeId: id.optional().describe('Where this module is of another type than the bank.'),
  lead: conductor.optional().describe('Where its lead differs from the others.'),
  stateOfCharge: fraction.optional().describe('Where it is known one by one.'),
  resistanceFactor: z
    .number()
    .min(0.1)
    .max(20)
    .optional()
    .describe('Inner resistance over that of the type.'),
  fitted: z.enum(['yes', 'taken-out']).optional(),
  address: z.number().int().min(0).max(255).optional().describe('Set on its switches.'),
  pile: z
    .number()
    .int()
    .min(1)
    .max(32)
    .optional()
    .describe('In which pile it stands, counted from the inverters.'),
  level: z.number().int().min(1).max(32).optional().describe('How high in its pile, counted from below.'),
});

/** How modules and inverters are joined. */
export const joining = z.enum([
  'chain-same-end',
  'chain-diagonal',
  'bars-equal',
  'bars-given',
  'groups-on-bar',
]);
export type Joining = z.infer<typeof joining>;

/** A comms lead of the bank. `host` is the inverter that holds the battery bus. */
const commsLink = z.strictObject({
  id,
  from: z.union([id, z.literal('host')]),
  fromPort: portName,
  to: id,
  toPort: portName,
});

const bankComms = z.strictObject({
  loop: z.enum(['closed', 'open']),
  protocol: portName.optional().describe('For a closed loop.'),
  links: entities(commsLink, 600),
  terminated: z.array(id).max(600).optional().describe('Modules whose terminator is set or plugged.'),
  offBus: z
    .array(id)
    .max(600)
    .optional()
    .describe('Modules that are left off the bus on purpose and work by voltages (another make).'),
  setPoints: z
    .strictObject({
      chargeV: positive.max(2000).optional(),
      floatV: positive.max(2000).optional(),
      cutoffV: positive.max(2000).optional(),
    })
    .optional()
    .describe('For an open loop, or modules off the bus: voltages the inverters work to.'),
});
export type BankComms = z.infer<typeof bankComms>;

const bank = z.strictObject({
  batteryTypeId: id.optional(),
  serves: z
    .enum(['all-units', 'one-unit'])
    .optional()
    .describe('One bank for all inverters, or each has a bank like this one. Without it: one for all.'),
  modules: entities(module, 512).min(1),
  reserveSoc: fraction.optional().describe('State of charge kept for an outage.'),
  cutoffSoc: fraction.optional().describe('State of charge at which discharge stops.'),
  breakerA: positive.max(5000).optional(),
  breakerTypeId: id.optional().describe('The device, for its time-current curve.'),
  joining: joining
    .optional()
    .describe(
      'chain: module to module, inverters at one end or at opposite ends. bars: each module on both bars. groups: short chains on a combiner bar.',
    ),
  groupSize: z.number().int().min(2).max(32).optional().describe('Modules in each group on the bar.'),
  lead: conductor.optional().describe('From module to module in a chain, or from each module to its bar.'),
  groups: entities(
    z.strictObject({
      id,
      number: z.number().int().min(1).max(64),
      lead: conductor.optional(),
    }),
    64,
  )
    .optional()
    .describe('Groups whose leads to the bar differ from the others.'),
  groupTakeOff: z
    .enum(['same-end', 'diagonal'])
    .optional()
    .describe('From which modules of a group its leads leave. Without it: diagonal.'),
  leadC: temperatureC.optional().describe('Temperature of the leads. Without it: the planning default.'),
  barC: temperatureC.optional().describe('Temperature of the bars. Without it: as the leads.'),
  groupLead: conductor.optional().describe('From each end of a group to the bar.'),
  barTypeId: id.optional().describe('The combiner bar, for its cross-section, spacing and rating.'),
  barSegment: conductor
    .optional()
    .describe('Bar between two neighbouring places; area is its cross-section.'),
  inverterLead: conductor.optional().describe('From each inverter to the bank.'),
  lengthsFrom: z
    .enum(['typed', 'wall'])
    .optional()
    .describe('wall: a lead whose ends have a route on the wall plan is as long as that route is cut.'),
  comms: bankComms.optional(),
});

/** An hour of the day as a display shows it. */
const clock = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/u, 'needs an hour of the day, as 07:30');

/** What a person decides of the settings of a set, and no figure of the design tells. */
const setSettings = z.strictObject({
  workMode: z
    .enum(['own-use', 'backup-first', 'by-time'])
    .optional()
    .describe('own-use: stores what the sun leaves. backup-first: keeps the bank full. by-time: by windows.'),
  windows: entities(
    z.strictObject({ id, from: clock, to: clock, does: z.enum(['charge', 'discharge', 'hold']) }),
    12,
  )
    .optional()
    .describe('For by-time; one may pass midnight.'),
  generatorFromSoc: fraction.optional().describe('State of charge at which a generator is called.'),
  generatorToSoc: fraction.optional().describe('State of charge at which it is let go.'),
});
export type SetSettings = z.infer<typeof setSettings>;

/** The parallel bus as it is plugged. */
const busLink = z.strictObject({
  id,
  fromUnitId: id,
  fromPort: portName,
  toUnitId: id,
  toPort: portName,
});

export const stack = z.strictObject({
  id,
  name,
  inverterTypeId: id.optional(),
  arrangement: arrangement.optional(),
  units: entities(unit, 64).min(1),
  busLinks: entities(busLink, 64).optional(),
  terminated: z.array(id).max(64).optional().describe('Units whose bus terminator is set or plugged.'),
  hostUnitId: id.optional().describe('Holds the battery bus and the meter.'),
  chargeCurrentA: nonNegative.max(5000).optional().describe('Battery charge setting of each unit.'),
  dischargeCurrentA: positive
    .max(5000)
    .optional()
    .describe('Battery discharge setting of each unit. Without it: as much as its type takes.'),
  gridChargeW: nonNegative
    .max(1e6)
    .optional()
    .describe('Power each unit may draw at its grid port to charge.'),
  generatorChargeW: nonNegative
    .max(1e6)
    .optional()
    .describe('Power each unit may draw at its generator port to charge.'),
  settings: setSettings.optional(),
  neutralEarthRelay: z
    .enum(['on', 'off'])
    .optional()
    .describe('Whether the neutral–earth relay works in island. Without it: as the type does.'),
  relayKit: z.enum(['fitted', 'none']).optional().describe('For types that want an external relay kit.'),
  autotransformerTypeId: id.optional(),
  transferDeviceTypeId: id
    .optional()
    .describe('A transfer device or backup interface between service and backed-up board.'),
  bank: z.union([bank, z.literal('none')]).optional(),
});
