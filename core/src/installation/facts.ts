/** What a person stated of each thing, as the installation carries it on to its parts. Whoever reads the installation names these. */
export { DURATION_POINTS, type MeterSummary, seasonOf, SEASONS as METER_SEASONS } from '../design/meters.ts';
export type { KeptRehearsal } from '../design/rehearsals.ts';
export type { Mounted, Place } from '../design/place.ts';
export type {
  Bank,
  Circuit,
  Device,
  EarthPoint,
  Generator,
  Importance,
  Item,
  Module,
  Partition,
  PvArray,
  Site,
  Stack,
  StartCase,
  SupplyKind,
  Unit,
} from '../design/schema.ts';
export type { DeviceRole } from '../design/networkSchema.ts';
export type { BankComms, Conductor, Joining, SetSettings } from '../design/stackSchema.ts';
export type { Acceptance } from '../design/acceptance.ts';
export type {
  Cable,
  Laying,
  LinkAsWired,
  Nudge,
  Passage,
  ReadTerminal,
  Remnant,
  Splice,
} from '../design/wiringSchema.ts';
