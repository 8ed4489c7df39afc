import { figuresOf } from '../deviceFigures.ts';
import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { Design, Stack } from '../../design/schema.ts';
import { field, type Known, known, mapKnown } from '../../values/known.ts';
import type { BatteryDevice, CompiledStack, Defaults } from '../installation.ts';
import { isBehindStack, isCarriedInIsland } from '../partitionKinds.ts';
import type { RouteLength } from '../place/routes.ts';
import type { Supply } from '../supply.ts';
import type { FindType } from './types.ts';

/** What stands between the modules and the inverters: device and bar. */
function batteryParts(
  { id, bank }: Stack,
  find: FindType,
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

/** The battery types that a bank names, each once. */
function batteryTypes({ id, bank }: Stack, find: FindType): Record<string, BatteryType> {
  const types: Record<string, BatteryType> = {};
  if (typeof bank !== 'object') return types;
  for (const typeId of [bank.batteryTypeId, ...bank.modules.map((module) => module.batteryTypeId)]) {
    if (typeId === undefined || Object.hasOwn(types, typeId)) continue;
    const type = find('battery', typeId, ['stacks', id, 'bank', 'batteryTypeId']);
    if (type.known) types[typeId] = type.value;
  }
  return types;
}

/** Devices that the design lists on the DC side of a set. */
const batteryDevices = (design: Design, { id }: Stack, find: FindType): BatteryDevice[] =>
  design.devices
    .filter(({ role, stackId }) => stackId === id && role.startsWith('battery-'))
    .map((device) => {
      const path = ['devices', device.id];
      const type = find('protective-device', device.typeId, [...path, 'typeId']);
      return {
        role: device.role,
        unitId: device.unitId,
        moduleId: device.moduleId,
        group: device.group,
        fitted: device.fitted,
        ratedA:
          device.ratedA === undefined && type.known
            ? known(type.value.ratedA)
            : field(device.ratedA, ...path, 'ratedA'),
        milliohm: type.known ? type.value.milliohm : undefined,
        timeCurrent: type.known ? field(type.value.timeCurrent, 'types', type.value.id, 'timeCurrent') : type,
        ...figuresOf(type),
        path,
      };
    });

/** Lays one set of inverters with its partitions and the types of its parts. */
export function laySet(
  design: Design,
  stack: Stack,
  given: {
    readonly supply: Known<Supply>;
    readonly defaults: Defaults;
    readonly routes: readonly RouteLength[];
    readonly find: FindType;
  },
): CompiledStack {
  const { supply, defaults, routes, find } = given;
  const path = ['stacks', stack.id];
  const own = design.partitions.filter((one) => one.stackId === stack.id);
  const ids = new Set(own.map((partition) => partition.id));
  return {
    stack,
    site: design.site,
    tableValues: design.tableValues,
    defaults,
    type: find('inverter', stack.inverterTypeId, [...path, 'inverterTypeId']),
    supply,
    partitions: own.filter(isCarriedInIsland),
    behind: own.filter(isBehindStack),
    withGenerator: own.filter((one) => isCarriedInIsland(one) || one.kind === 'generator-only'),
    circuits: design.circuits.filter(
      (circuit) => circuit.partitionId !== undefined && ids.has(circuit.partitionId),
    ),
    meters: design.meters,
    batteryTypes: batteryTypes(stack, find),
    batteryDevices: batteryDevices(design, stack, find),
    autotransformer:
      stack.arrangement === 'split-phase-autotransformer'
        ? find('autotransformer', stack.autotransformerTypeId, [...path, 'autotransformerTypeId'])
        : known('none'),
    transferDevice:
      stack.transferDeviceTypeId === undefined
        ? known('none')
        : find('transfer-device', stack.transferDeviceTypeId, [...path, 'transferDeviceTypeId']),
    ...batteryParts(stack, find),
    mounted: design.place?.mounted ?? [],
    routes,
  };
}
