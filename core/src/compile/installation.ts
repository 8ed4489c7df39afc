import type { BatteryType } from '../catalogue/batteryType.ts';
import type { CombinerBarType, ControllerType, ProtectiveDeviceType } from '../catalogue/partTypes.ts';
import type {
  AutotransformerType,
  GeneratorType,
  PvModuleType,
  TransferDeviceType,
} from '../catalogue/sourceTypes.ts';
import type { EquipmentKind, EquipmentType, TypeOf } from '../catalogue/schema.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import { type DefaultKey, type ResolvedDefault, resolveDefaults } from '../codes/defaults.ts';
import { field, type Known, known, mapKnown, unknownAt } from '../design/known.ts';
import type {
  Circuit,
  Design,
  Generator,
  Partition,
  PvArray,
  SiteController,
  Stack,
} from '../design/schema.ts';
import { generatorFactor } from '../network/derating.ts';
import { bankTypes, type CompiledBank, compileBank } from './bank.ts';
import { type BankCircuit, bankCircuit } from './bankCircuit.ts';
import { type Board, compileBoard } from './board.ts';
import { type Capability, capability } from './capability.ts';
import { buildingPeakW, meterPeakW } from './meterPeak.ts';
import { type Mode, modesOf } from './modes.ts';
import { isBehindStack, isCarriedInIsland } from './partitionKinds.ts';
import { type RouteLength, routeLengths } from './routes.ts';
import { compileSupply, type Supply } from './supply.ts';
import { compileWall, type OnWall } from './wall.ts';

/** A set of inverters with what hangs on its backup outputs and its battery bank. */
export interface CompiledStack {
  readonly stack: Stack;
  readonly type: Known<InverterType>;
  readonly supply: Known<Supply>;
  /** The partitions it carries in island, shed stages included until they are dropped. */
  readonly partitions: readonly Partition[];
  /** The load it carries in island until a stage is shed; unknown while the supply is. */
  readonly board: Known<Board>;
  /** The load of one partition by itself; made once, when somebody asks. */
  readonly partitionBoard: (partition: Partition) => Known<Board>;
  /** Everything that draws through it on grid: also what is locked out or shed in island. */
  readonly onGridBoard: Known<Board>;
  /** What is live while the generator runs. */
  readonly generatorBoard: Known<Board>;
  /** 'none' where the design says there is no battery. */
  readonly bank: Known<CompiledBank | 'none'>;
  /** The bank as a network of resistances; made when somebody asks. */
  readonly bankCircuit: () => Known<BankCircuit | 'one string' | 'none'>;
  /** The types of the fitted modules, each once. */
  readonly bankTypes: () => Known<readonly BatteryType[]>;
  readonly autotransformer: Known<AutotransformerType | 'none'>;
  readonly transferDevice: Known<TransferDeviceType | 'none'>;
  /** The device of the battery, where one is named; its rating may be typed without one. */
  readonly breaker: Known<ProtectiveDeviceType>;
  readonly breakerA: Known<number>;
  readonly bar: Known<CombinerBarType | 'none'>;
  /** What it can carry, with all units or with one lost. */
  readonly capabilityWithout: (lostUnitId: string | undefined) => Known<Capability>;
}

export interface CompiledGenerator {
  readonly generator: Generator;
  readonly type: Known<GeneratorType>;
  readonly deratedVa: Known<number>;
}

export interface CompiledArray {
  readonly array: PvArray;
  readonly moduleType: Known<PvModuleType>;
}

export interface CompiledController {
  readonly controller: SiteController;
  readonly type: Known<ControllerType>;
}

/** What follows from a design: explicit, and the only thing that checks, procedures and drawings read. */
export interface Installation {
  readonly design: Design;
  readonly supply: Known<Supply>;
  readonly lineVoltageV: Known<number>;
  readonly defaults: Record<DefaultKey, ResolvedDefault>;
  readonly modes: readonly Mode[];
  readonly stacks: readonly CompiledStack[];
  readonly generators: readonly CompiledGenerator[];
  readonly arrays: readonly CompiledArray[];
  readonly controllers: readonly CompiledController[];
  /** Everything the service feeds on grid. */
  readonly wholeBuilding: Known<Board>;
  readonly undecidedCircuits: readonly Circuit[];
  /** What hangs on the wall, with sizes and clearances. */
  readonly wall: readonly OnWall[];
  readonly routes: readonly RouteLength[];
}

/** Finds a type of one kind: the copy in the document first, so that a job stays as it was, then the catalogue. */
function typeFinder(design: Design, catalogue: readonly EquipmentType[]) {
  const byId = new Map<string, EquipmentType>();
  for (const type of [...catalogue, ...design.types]) byId.set(type.id, type);
  return <K extends EquipmentKind>(
    kind: K,
    id: string | undefined,
    path: readonly string[],
  ): Known<TypeOf<K>> => {
    const found = id === undefined ? undefined : byId.get(id);
    return found?.kind === kind ? known(found as TypeOf<K>) : unknownAt(path);
  };
}

function once<K, T>(make: (key: K) => T): (key: K) => T {
  const made = new Map<K, T>();
  return (key) => {
    const before = made.get(key);
    if (before !== undefined) return before;
    const fresh = make(key);
    made.set(key, fresh);
    return fresh;
  };
}

function lazy<T>(make: () => T): () => T {
  let made: { readonly value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}

/** What stands between the modules and the inverters: device and bar. */
function batteryParts(
  { id, bank }: Stack,
  find: ReturnType<typeof typeFinder>,
): Pick<CompiledStack, 'breaker' | 'breakerA' | 'bar'> {
  const path = ['stacks', id, 'bank'];
  const stated = typeof bank === 'object' ? bank : undefined;
  const breaker = find('protective-device', stated?.breakerTypeId, [...path, 'breakerTypeId']);
  return {
    breaker,
    breakerA:
      stated?.breakerTypeId === undefined
        ? field(stated?.breakerA, ...path, 'breakerA')
        : mapKnown(breaker, (device) => device.ratedA),
    bar:
      stated?.barTypeId === undefined
        ? known('none')
        : find('combiner-bar', stated.barTypeId, [...path, 'barTypeId']),
  };
}

function compileStack(
  design: Design,
  stack: Stack,
  supply: Known<Supply>,
  defaults: Record<DefaultKey, ResolvedDefault>,
  routes: readonly RouteLength[],
  find: ReturnType<typeof typeFinder>,
): CompiledStack {
  const type = find('inverter', stack.inverterTypeId, ['stacks', stack.id, 'inverterTypeId']);
  const autotransformer: CompiledStack['autotransformer'] =
    stack.arrangement === 'split-phase-autotransformer'
      ? find('autotransformer', stack.autotransformerTypeId, ['stacks', stack.id, 'autotransformerTypeId'])
      : known('none');
  const parts = batteryParts(stack, find);
  const own = design.partitions.filter((one) => one.stackId === stack.id);
  const partitions = own.filter(isCarriedInIsland);
  const boardOf = (fed: readonly Partition[]): Known<Board> =>
    mapKnown(supply, (value) => {
      const ids = new Set(fed.map((partition) => partition.id));
      const circuits = design.circuits.filter(
        (circuit) => circuit.partitionId !== undefined && ids.has(circuit.partitionId),
      );
      return compileBoard(circuits, value, {
        electronicThirdHarmonic: defaults.electronicThirdHarmonic.value,
        meterPeakW: meterPeakW(design, ids, defaults.meterCrest.value),
      });
    });
  const board = boardOf(partitions);
  // Most designs have one and the same board in all three places: it is compiled once.
  const sameOr = (fed: readonly Partition[]): Known<Board> =>
    fed.length === partitions.length ? board : boardOf(fed);
  const neutralA = mapKnown(autotransformer, (one) => (one === 'none' ? 0 : one.neutralA));
  const sharingTolerance = defaults.currentSharingTolerance.value;
  return {
    stack,
    type,
    supply,
    partitions,
    board,
    partitionBoard: once((partition: Partition) => boardOf([partition])),
    onGridBoard: sameOr(own.filter(isBehindStack)),
    generatorBoard: sameOr(own.filter((one) => isCarriedInIsland(one) || one.kind === 'generator-only')),
    bank:
      stack.bank === undefined
        ? unknownAt(['stacks', stack.id, 'bank'])
        : stack.bank === 'none'
          ? known('none')
          : compileBank(stack.bank, stack.id, (id, path) => find('battery', id, path)),
    bankCircuit: lazy(() => {
      const { bank } = stack;
      if (bank === undefined) return unknownAt(['stacks', stack.id, 'bank']);
      if (bank === 'none') return known('none');
      return bankCircuit({
        stack,
        bank,
        defaults,
        routes,
        mounted: design.place?.mounted ?? [],
        findType: (id, path) => find('battery', id, path),
        bar: parts.bar,
        breaker: parts.breaker,
      });
    }),
    bankTypes: lazy(() =>
      typeof stack.bank === 'object'
        ? bankTypes(stack.bank, stack.id, (id, path) => find('battery', id, path))
        : known([]),
    ),
    autotransformer,
    ...parts,
    transferDevice:
      stack.transferDeviceTypeId === undefined
        ? known('none')
        : find('transfer-device', stack.transferDeviceTypeId, ['stacks', stack.id, 'transferDeviceTypeId']),
    capabilityWithout: once((lostUnitId: string | undefined) =>
      capability({ site: design.site, supply, stack, type, neutralA, sharingTolerance }, lostUnitId),
    ),
  };
}

function compileGenerator(
  design: Design,
  generator: Generator,
  find: ReturnType<typeof typeFinder>,
): CompiledGenerator {
  const { site } = design;
  const type = find('generator', generator.typeId, ['generators', generator.id, 'typeId']);
  const altitude = field(site.altitudeM, 'site', 'altitudeM');
  const heat = field(site.highestC, 'site', 'highestC');
  const missing = [type, altitude, heat].flatMap((one) => (one.known ? [] : one.missing));
  const deratedVa =
    type.known && altitude.known && heat.known
      ? known(
          type.value.ratedVa *
            generatorFactor(
              type.value.altitudeLossPer100M,
              type.value.temperatureLossPer5K,
              altitude.value,
              heat.value,
            ),
        )
      : unknownAt(...missing);
  return { generator, type, deratedVa };
}

/** Compiles a design. The design must have been read (`readDesign`); nothing here throws for what it leaves unknown. */
export function compile(design: Design, catalogue: readonly EquipmentType[]): Installation {
  const find = typeFinder(design, catalogue);
  const supply = compileSupply(design.site);
  const defaults = resolveDefaults(design.defaults);
  const wall = compileWall(design, catalogue);
  const routes = routeLengths(design, wall, {
    serviceLoopM: defaults.serviceLoopM.value,
    slack: defaults.routeSlack.value,
  });
  const decided = new Set(design.partitions.map((partition) => partition.id));
  return {
    design,
    supply,
    lineVoltageV: field(design.site.lineVoltageV, 'site', 'lineVoltageV'),
    defaults,
    modes: modesOf(design),
    stacks: design.stacks.map((stack) => compileStack(design, stack, supply, defaults, routes, find)),
    generators: design.generators.map((generator) => compileGenerator(design, generator, find)),
    arrays: design.arrays.map((array) => ({
      array,
      moduleType: find('pv-module', array.moduleTypeId, ['arrays', array.id, 'moduleTypeId']),
    })),
    controllers: design.controllers.map((controller) => ({
      controller,
      type: find('controller', controller.typeId, ['controllers', controller.id, 'typeId']),
    })),
    wall,
    routes,
    wholeBuilding: mapKnown(supply, (value) =>
      compileBoard(design.circuits, value, {
        electronicThirdHarmonic: defaults.electronicThirdHarmonic.value,
        meterPeakW: buildingPeakW(design, defaults.meterCrest.value),
      }),
    ),
    undecidedCircuits: design.circuits.filter(
      (circuit) => circuit.partitionId === undefined || !decided.has(circuit.partitionId),
    ),
  };
}
