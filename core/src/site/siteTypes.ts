import type { InverterType } from '../catalogue/inverterType.ts';
import type { Design } from '../design/schema.ts';
import type { CompiledBank } from '../figures/bank/bank.ts';
import type { BankCircuit } from '../figures/bank/bankCircuit.ts';
import type { Capability } from '../figures/capability/capability.ts';
import type { Module, Partition, Unit } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { ModeKind } from '../installation/modeKinds.ts';
import type { Network } from '../installation/network.ts';
import type { Supply } from '../installation/supply.ts';
import type { ModeFacts } from '../modes/walk.ts';
import type { SiteCircuit } from './siteLoads.ts';

/** A unit of the simulated site. */
export interface SiteUnit {
  /** Counted through all sets, from 1. */
  readonly number: number;
  readonly unit: Unit;
  readonly label: string;
  readonly lines: readonly number[];
  /** The source in the network that it is. */
  readonly sourceId: string;
  /** Address on the parallel bus, as it should be. */
  readonly address: number;
  readonly isHost: boolean;
  /** As recorded; where it is not, as that of the others. */
  readonly firmware: string;
  /** Resistance of its AC lead, Ohm; none while the leads of its set are not all stated. */
  readonly acLeadOhm: number;
  /** DC power of the strings on it under a clear sky, W. */
  readonly sunW: number;
}

export interface SiteModule {
  readonly number: number;
  readonly module: Module;
  readonly label: string;
  readonly capacityAh: number;
}

/** A set of inverters with its bank, as the steps of time need them. */
export interface SiteSet {
  readonly compiled: CompiledStack;
  readonly stackId: string;
  readonly name: string;
  readonly type: InverterType;
  readonly capability: Capability;
  readonly units: readonly SiteUnit[];
  readonly modules: readonly SiteModule[];
  readonly bank: CompiledBank | 'none';
  /** The bank as a network; undefined for one string of modules, which all carry the same. */
  readonly circuit: BankCircuit | undefined;
  /** Share of what the set takes at its grid ports that falls on each line. */
  readonly lineShares: readonly number[];
  readonly hasAcLeads: boolean;
  readonly isOwnBank: boolean;
  readonly isClosedLoop: boolean;
  readonly transferMs: number;
  readonly reconnectS: number;
  readonly floorSoc: number;
  /** What the cells bear, whatever is set. */
  readonly leastSoc: number;
  readonly chargeA: number;
  readonly gridChargeW: number;
  /** AC power that each unit draws to charge at its generator port; undefined where nobody has said. */
  readonly generatorChargeW: number | undefined;
  /** Arrays whose strings are plugged into its units. */
  readonly arrays: readonly { readonly id: string; readonly unitIds: readonly string[] }[];
  /** AC power of arrays on its boards under a clear sky, W. */
  readonly sunAcW: number;
  readonly sunStaysWithGenerator: boolean;
}

export interface SiteBoard {
  readonly partId: string;
  readonly name: string;
  readonly partition: Partition;
}

export interface SiteGenerator {
  readonly generatorId: string;
  readonly name: string;
  readonly connection: 'generator-port' | 'transfer-switch' | 'inlet';
  readonly start: 'hand' | 'two-wire' | 'scheduled';
  readonly stackId: string | undefined;
  readonly warmUpS: number;
  /** Engine and alternator, the smaller of both at a power factor of one, W. */
  readonly mostW: number;
  /** Frequency at no load over that at full load, less one; undefined where it is not stated. */
  readonly droop: number | undefined;
  readonly idleLPerH: number;
  readonly lPerKwh: number;
  readonly fuelL: number;
}

/** A meter or sensor of the site with the lines it looks at. */
export interface SiteInstrument {
  readonly id: string;
  readonly label: string;
  readonly lines: readonly number[];
  /** Undefined where nobody has said: it reads nothing then. */
  readonly at: 'service' | 'grid-port' | 'backed-up-board' | 'generator' | 'array' | undefined;
}

/** An installation as it is simulated: figures that do not change while time runs. */
export interface SitePlan {
  readonly design: Design;
  readonly installation: Installation;
  readonly network: Network;
  readonly supply: Supply;
  readonly lineVoltageV: number;
  readonly frequencyHz: number;
  readonly hasGrid: boolean;
  readonly sets: readonly SiteSet[];
  readonly boards: readonly SiteBoard[];
  readonly circuits: readonly SiteCircuit[];
  readonly generators: readonly SiteGenerator[];
  readonly instruments: readonly SiteInstrument[];
  readonly modes: ReadonlyMap<ModeKind, ModeFacts>;
  /** What is left out because it is not known, each a sentence. */
  readonly leftOut: readonly string[];
}
