import { z } from 'zod';
import { exerciseAct, exerciseAsk } from '../site/apprentice.ts';
import { INSTRUMENT_KINDS, type InstrumentKind } from '../site/instruments.ts';
import { siteCommand } from '../site/siteCommands.ts';
import { siteFault } from '../site/siteFaults.ts';
import { SET_PHASES } from '../site/siteState.ts';

const figure = z.number();

/** What is asked of the simulated site: what a hand does, a bring-up of everything, or how fast its time runs. */
export const siteAction = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('command'), command: siteCommand }),
  z.strictObject({ kind: z.literal('bring-up') }),
  z.strictObject({ kind: z.literal('speed'), speed: z.number().int().min(0).max(100) }),
  z.strictObject({ kind: z.literal('exercise'), ask: exerciseAsk }),
  z.strictObject({ kind: z.literal('act'), act: exerciseAct }),
]);
export type SiteAction = z.infer<typeof siteAction>;

const line = z.object({
  line: z.string(),
  voltageV: figure,
  loadA: figure,
  loadW: figure,
  gridW: figure,
  testLoadW: figure,
});

const set = z.object({
  stackId: z.string(),
  name: z.string(),
  phase: z.enum(SET_PHASES),
  reason: z.string(),
  isBatteryClosed: z.boolean(),
  hasBattery: z.boolean(),
  soc: figure,
  batteryV: figure,
  batteryA: figure,
  loadW: figure,
  chargeW: figure,
  sunW: figure,
  settings: z.object({
    backup: z.boolean(),
    chargeA: figure,
    count: figure,
    isClockSet: z.boolean(),
    gridChargeW: figure,
    generatorChargeW: figure,
    floorSoc: figure,
  }),
  messages: z.array(z.string()),
  units: z.array(
    z.object({
      unitId: z.string(),
      label: z.string(),
      lines: z.array(z.string()),
      isOn: z.boolean(),
      watts: figure,
      currentA: figure,
      firmware: z.string(),
      address: figure,
    }),
  ),
  modules: z.array(
    z.object({
      moduleId: z.string(),
      label: z.string(),
      soc: figure,
      currentA: figure,
      voltageV: figure,
      isJoined: z.boolean(),
    }),
  ),
});

const exerciseLine = z.object({
  atS: figure,
  words: z.string(),
  worth: z.enum(['needed', 'extra', 'dangerous', 'wrong', 'noted']),
});

const view = z.object({
  timeS: figure,
  mode: z.string(),
  hasGrid: z.boolean(),
  isGridPresent: z.boolean(),
  isGridClosed: z.boolean(),
  position: z.enum(['grid', 'generator', 'bypass']),
  sun: figure,
  lines: z.array(line),
  boards: z.array(z.object({ name: z.string(), isLive: z.boolean() })),
  sets: z.array(set),
  circuits: z.array(z.object({ circuitId: z.string(), name: z.string(), isOn: z.boolean(), watts: figure })),
  generators: z.array(
    z.object({
      generatorId: z.string(),
      name: z.string(),
      connection: z.string(),
      phase: z.enum(['off', 'warming', 'running']),
      isCalled: z.boolean(),
      watts: figure,
      litres: figure,
    }),
  ),
  faults: z.array(siteFault),
  events: z.array(z.object({ atS: figure, sentence: z.string() })),
  exercise: z
    .object({
      lines: z.array(exerciseLine),
      isTesterProven: z.boolean(),
      provenDead: figure,
      result: z
        .object({ isFound: z.boolean(), score: figure, verdict: z.string(), why: z.array(z.string()) })
        .optional(),
    })
    .optional(),
});

/** A simulated site as it stands, and where it answers. */
export const openSite = z.object({
  /** Modbus TCP: address, port and unit identifier. */
  host: z.string(),
  port: z.number().int(),
  unitId: z.number().int(),
  /** The revision of the design that it was made from. */
  revision: z.number().int(),
  /** How many times faster than the clock its time runs; 0 stands still. */
  speed: figure,
  view,
  /** What an instrument shows, or why something could not be done: the answer to what was asked last. */
  shown: z.string().optional(),
  problem: z.string().optional(),
});
export type OpenSite = z.infer<typeof openSite>;

export const siteMenu = z.object({
  faults: z.array(siteFault.extend({ place: z.string(), words: z.string(), difficulty: figure })),
  places: z.array(
    z.object({
      id: z.string(),
      words: z.string(),
      takes: z.array(z.enum(INSTRUMENT_KINDS as [InstrumentKind, ...InstrumentKind[]])),
      isBare: z.boolean(),
    }),
  ),
  instruments: z.array(
    z.object({
      kind: z.enum(INSTRUMENT_KINDS as [InstrumentKind, ...InstrumentKind[]]),
      words: z.string(),
      unit: z.string(),
      ranges: z.array(figure),
    }),
  ),
  leftOut: z.array(z.string()),
});
export type SiteMenu = z.infer<typeof siteMenu>;
