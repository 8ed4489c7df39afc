import type { InverterType } from '../catalogue/inverterType.ts';
import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { autonomy } from '../figures/bank/autonomy.ts';
import type { CompiledBank } from '../figures/bank/bank.ts';
import type { BankCircuit } from '../figures/bank/bankCircuit.ts';
import { bankCircuitOf, bankOfSet } from '../figures/bank/ofSet.ts';
import { type Capability, capabilityWithout } from '../figures/capability/capability.ts';
import { transferTime } from '../figures/capability/transferTime.ts';
import { generatorRating } from '../figures/generator/rating.ts';
import type { Module, Partition, Unit } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { ModeKind } from '../installation/modeKinds.ts';
import type { Network } from '../installation/network.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import type { Supply } from '../installation/supply.ts';
import { statedOf } from '../installation/stated.ts';
import { unitLines } from '../installation/unitLines.ts';
import { modesOf } from '../modes/modes.ts';
import { type ModeFacts, walkOf } from '../modes/walk.ts';
import { all, field, type Known, known, mapKnown } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { describePlace } from '../words/places.ts';
import { type SiteCircuit, siteCircuits } from './siteLoads.ts';

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
  readonly firmware: string | undefined;
  /** DC power of the strings on it under a clear sky, W. */
  readonly sunW: number;
}

export interface SiteModule {
  readonly number: number;
  readonly module: Module;
  readonly label: string;
  readonly capacityAh: number;
  readonly address: number;
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
  readonly isOwnBank: boolean;
  readonly isClosedLoop: boolean;
  readonly transferMs: number;
  readonly reconnectS: number;
  readonly floorSoc: number;
  readonly reserveSoc: number;
  readonly chargeA: number;
  readonly gridChargeW: number;
  readonly generatorChargeW: number;
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
  readonly wholeVa: number;
  readonly engineW: number;
  readonly droop: number;
  readonly idleLPerH: number;
  readonly lPerKwh: number;
  readonly fuelL: number;
}

/** A meter or sensor of the site with the lines it looks at. */
export interface SiteInstrument {
  readonly id: string;
  readonly label: string;
  readonly lines: readonly number[];
  readonly at: 'service' | 'grid-port' | 'backed-up-board' | 'generator' | 'array';
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

/** What modules give of their rating in use: heat, dirt, wiring, conversion. */
const PV_PERFORMANCE = 0.85;

function sunOn({ arrays }: Installation, stackId: string, unitId: string): number {
  return arrays.reduce((sum, { array, moduleType }) => {
    if (array.coupling === 'ac' || !moduleType.known) return sum;
    const strings = (array.places ?? [])
      .filter((place) => place.stackId === stackId && place.unitId === unitId)
      .reduce((total, place) => total + place.strings, 0);
    return sum + strings * (array.modulesPerString ?? 0) * moduleType.value.ratedW * PV_PERFORMANCE;
  }, 0);
}

function unitsOf(
  installation: Installation,
  { stack }: CompiledStack,
  lines: ReadonlyMap<string, readonly number[]>,
  from: number,
): SiteUnit[] {
  const host = stack.hostUnitId ?? stack.units[0]?.id;
  return stack.units.map((unit, index): SiteUnit => ({
    number: from + index,
    unit,
    label: `unit ${from + index}`,
    lines: lines.get(unit.id) ?? [],
    sourceId: `unit ${stack.id}/${unit.id}`,
    address: unit.busAddress ?? index + 1,
    isHost: unit.id === host,
    firmware: unit.firmware,
    sunW: sunOn(installation, stack.id, unit.id),
  }));
}

function modulesOf({ stack, batteryTypes }: CompiledStack, from: number): SiteModule[] {
  if (typeof stack.bank !== 'object') return [];
  const { bank } = stack;
  return bank.modules
    .filter(({ fitted }) => fitted !== 'taken-out')
    .map((module, index): SiteModule => ({
      number: from + index,
      module,
      label: `module ${from + index}`,
      capacityAh: batteryTypes[module.batteryTypeId ?? bank.batteryTypeId ?? '']?.capacityAh ?? 0,
      address: module.address ?? index + 1,
    }));
}

function setOf(
  installation: Installation,
  compiled: CompiledStack,
  supply: Supply,
  counts: { units: number; modules: number },
): Known<SiteSet> {
  const { stack } = compiled;
  const given = all({
    type: compiled.type,
    capability: capabilityWithout(compiled),
    bank: bankOfSet(compiled),
    circuit: bankCircuitOf(compiled),
    transfer: transferTime(compiled),
    lines: unitLines(stack, stack.arrangement ?? 'one-unit', supply),
  });
  return mapKnown(given, ({ type, capability, bank, circuit, transfer, lines }): SiteSet => {
    const floor = autonomy(compiled, 'reserve', 'average');
    const cutoff = typeof stack.bank === 'object' ? (stack.bank.cutoffSoc ?? 0) : 0;
    const own = installation.arrays.filter(
      ({ array }) =>
        array.coupling === 'ac' && compiled.partitions.some(({ id }) => id === array.partitionId),
    );
    return {
      compiled,
      stackId: stack.id,
      name: stack.name,
      type,
      capability,
      units: unitsOf(installation, compiled, lines, counts.units),
      modules: modulesOf(compiled, counts.modules),
      bank,
      circuit: typeof circuit === 'string' ? undefined : circuit,
      lineShares: lineShares(
        supply,
        stack.units.map(({ id }) => lines.get(id) ?? []),
      ),
      isOwnBank: isOwnBank(stack),
      isClosedLoop: typeof stack.bank === 'object' && stack.bank.comms?.loop === 'closed',
      transferMs: transfer.ms,
      reconnectS: type.reconnectDelayS ?? DEFAULT_RECONNECT_S,
      floorSoc: floor?.known === true ? floor.value.floorSoc : cutoff,
      reserveSoc: typeof stack.bank === 'object' ? (stack.bank.reserveSoc ?? 0) : 0,
      chargeA: stack.chargeCurrentA ?? type.maxChargeA,
      gridChargeW: stack.gridChargeW ?? 0,
      generatorChargeW: stack.generatorChargeW ?? 0,
      arrays: installation.arrays.flatMap(({ array }) => {
        const unitIds = (array.places ?? []).flatMap((place) =>
          place.stackId === stack.id ? [place.unitId] : [],
        );
        return array.coupling === 'ac' || unitIds.length === 0 ? [] : [{ id: array.id, unitIds }];
      }),
      sunAcW: own.reduce((sum, { array }) => sum + (array.ratedAcW ?? 0) * PV_PERFORMANCE, 0),
      sunStaysWithGenerator: own.some(({ array }) => array.withGenerator === 'stays'),
    };
  });
}

/** Units draw alike, each from its own lines in equal parts. */
function lineShares(supply: Supply, unitsOn: readonly (readonly number[])[]): number[] {
  const count = Math.max(1, unitsOn.length);
  return supply.lines.map((_, line) =>
    unitsOn.reduce((sum, on) => sum + (on.includes(line) ? 1 / on.length / count : 0), 0),
  );
}

/** How long the simulated units watch a grid that comes, where their type does not say, s. */
const DEFAULT_RECONNECT_S = 60;

function generatorsOf(installation: Installation, leftOut: string[]): SiteGenerator[] {
  return installation.generators.flatMap((compiled): SiteGenerator[] => {
    const { generator } = compiled;
    const given = all({ type: compiled.type, rating: generatorRating(compiled) });
    if (!given.known || generator.connection === undefined) {
      leftOut.push(`${generator.name} is left out: its type, rating or connection is not known.`);
      return [];
    }
    const { type, rating } = given.value;
    return [
      {
        generatorId: generator.id,
        name: generator.name,
        connection: generator.connection,
        start: type.start,
        stackId: generator.stackId,
        warmUpS: type.warmUpS,
        wholeVa: rating.wholeVa,
        engineW: rating.engineW.known ? rating.engineW.value : rating.wholeVa,
        droop: type.droop ?? 0,
        idleLPerH: type.fuelIdleLPerH ?? 0,
        lPerKwh: type.fuelLPerKwh ?? 0,
        fuelL: generator.fuelL ?? Infinity,
      },
    ];
  });
}

function instrumentsOf({ instruments, controllers }: Installation, supply: Supply): SiteInstrument[] {
  const every = supply.lines.map((_, index) => index);
  return [
    ...instruments.map(({ instrument }, index): SiteInstrument => {
      const at = instrument.line === undefined ? -1 : supply.lines.indexOf(instrument.line);
      return {
        id: instrument.id,
        label: instrument.name ?? `${instrument.kind} ${index + 1}`,
        lines: at < 0 ? every : [at],
        at: instrument.at ?? 'service',
      };
    }),
    ...controllers.flatMap(({ controller }) =>
      controller.meters.map((meter): SiteInstrument => ({
        id: meter.id,
        label: `${meter.role} meter`,
        lines: every,
        at: meter.role === 'grid' ? 'service' : 'array',
      })),
    ),
  ];
}

function boardsOf({ partitions }: Installation, { parts }: Network): SiteBoard[] {
  return parts.flatMap((part): SiteBoard[] => {
    const partition =
      part.kind === 'board' ? partitions.find(({ id }) => id === part.partitionId) : undefined;
    return partition === undefined ? [] : [{ partId: part.id, name: part.label, partition }];
  });
}

/** What a site cannot be played without, as a sentence. */
export interface SiteRefusal {
  readonly ok: false;
  readonly sentence: string;
}

/** A design as a site that can run in time; or what is missing for that, in a sentence. */
export function sitePlan(
  design: Design,
  catalogue: readonly EquipmentType[],
): { readonly ok: true; readonly plan: SitePlan } | SiteRefusal {
  const { installation } = analyse(design, catalogue);
  const base = all({
    supply: installation.supply,
    lineVoltageV: installation.lineVoltageV,
    frequencyHz: field(installation.site.frequencyHz, 'site', 'frequencyHz'),
    network: installation.network,
    walk: walkOf(installation),
    sets:
      installation.stacks.length === 0
        ? ({ known: false, missing: [['stacks']] } as const)
        : known(installation.stacks),
  });
  if (!base.known) return refusal(installation, base.missing);
  const { supply, network, walk, lineVoltageV, frequencyHz } = base.value;
  const missing: Path[] = [];
  const sets: SiteSet[] = [];
  const counts = { units: 1, modules: 1 };
  for (const compiled of installation.stacks) {
    const set = setOf(installation, compiled, supply, counts);
    if (!set.known) return refusal(installation, set.missing);
    sets.push(set.value);
    counts.units += set.value.units.length;
    counts.modules += set.value.modules.length;
  }
  const circuits = siteCircuits(installation.circuits, supply, missing);
  const leftOut: string[] = [];
  const generators = generatorsOf(installation, leftOut);
  if (missing.length > 0)
    leftOut.push(`What is not stated of some loads is left out: ${places(installation, missing)}.`);
  for (const set of sets)
    if (set.isOwnBank)
      leftOut.push(
        `Each unit of ${set.name} has a bank of its own: the one of its hardest-working unit is played.`,
      );
  return {
    ok: true,
    plan: {
      design,
      installation,
      network,
      supply,
      lineVoltageV,
      frequencyHz,
      hasGrid: installation.site.grid !== 'none',
      sets,
      boards: boardsOf(installation, network),
      circuits,
      generators,
      instruments: instrumentsOf(installation, supply),
      modes: new Map(
        modesOf(installation).flatMap(({ id, kind }) => {
          const facts = walk.get(id);
          return kind === 'unit-lost' || facts === undefined ? [] : [[kind, facts] as const];
        }),
      ),
      leftOut,
    },
  };
}

const MOST_PLACES = 5;

function places(installation: Installation, missing: readonly Path[]): string {
  const words = missing.slice(0, MOST_PLACES).map((path) => describePlace(statedOf(installation), path));
  return missing.length > MOST_PLACES
    ? `${words.join('; ')} and ${missing.length - MOST_PLACES} more`
    : words.join('; ');
}

const refusal = (installation: Installation, missing: readonly Path[]): SiteRefusal => ({
  ok: false,
  sentence: `This site cannot be simulated yet. Not known: ${places(installation, missing)}.`,
});
