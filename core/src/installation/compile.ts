import type { EquipmentType } from '../catalogue/schema.ts';
import type { ProtectiveDeviceType } from '../catalogue/partTypes.ts';
import { resolveDefaults } from '../codes/defaults.ts';
import { openFirstValues } from '../design/firstValues.ts';
import type { Design } from '../design/schema.ts';
import { field, type Known, mapKnown } from '../values/known.ts';
import { remember } from '../values/remember.ts';
import { deliveryTrouble } from './delivery.ts';
import { layNetwork } from './build/network.ts';
import { laySet } from './build/sets.ts';
import { type FindType, typeFinder } from './build/types.ts';
import type { Installation } from './installation.ts';
import type { Network } from './network.ts';
import { unplacedCircuits } from './openPlaces.ts';
import { routeLengths } from './place/routes.ts';
import { compileWall } from './place/wall.ts';
import { compileSupply } from './supply.ts';

type DeviceTypes = Installation['circuitDeviceTypes'];

function isSameTypes(a: DeviceTypes, b: DeviceTypes): boolean {
  const others = Object.entries(b);
  return (
    others.length === Object.keys(a).length &&
    Object.entries(a).every(([id, type], at) => others[at]?.[0] === id && others[at][1] === type)
  );
}

const devicesLast = new WeakMap<Design['types'], DeviceTypes>();

/** The types of the devices that circuits name, each once; the same object for as long as they are the same. */
function circuitDeviceTypes(design: Design, find: FindType): DeviceTypes {
  const types = namedDeviceTypes(design, find);
  const before = devicesLast.get(design.types);
  if (before !== undefined && isSameTypes(before, types)) return before;
  devicesLast.set(design.types, types);
  return types;
}

function namedDeviceTypes(design: Design, find: FindType): DeviceTypes {
  const types: Record<string, ProtectiveDeviceType> = {};
  for (const { id, device } of design.circuits) {
    if (device?.typeId === undefined || Object.hasOwn(types, device.typeId)) continue;
    const type = find('protective-device', device.typeId, ['circuits', id, 'device', 'typeId']);
    if (type.known) types[device.typeId] = type.value;
  }
  return types;
}

/** Parts of a design that the network is not laid from. */
const NOT_LAID: ReadonlySet<string> = new Set([
  'name',
  'circuits',
  'startCases',
  'delivery',
  'accepted',
  'firstValues',
  'wiring',
  'tableValues',
  'faultSearches',
  'rehearsals',
]);

interface Laid {
  readonly design: Design;
  readonly catalogue: readonly EquipmentType[];
  readonly network: Known<Network>;
}

const laid = new WeakMap<Design['stacks'], Laid>();

const isLaidAlike = (a: Design, b: Design): boolean =>
  a.wiring?.terminals === b.wiring?.terminals &&
  [...new Set([...Object.keys(a), ...Object.keys(b)])].every(
    (key) => NOT_LAID.has(key) || a[key as keyof Design] === b[key as keyof Design],
  );

/** Most edits are of circuits, and the network is not laid from those: it stays the same one, with all that follows from it. */
function laidOnce(
  design: Design,
  catalogue: readonly EquipmentType[],
  lay: () => Known<Network>,
): Known<Network> {
  const before = laid.get(design.stacks);
  if (before?.catalogue === catalogue && isLaidAlike(before.design, design)) return before.network;
  const network = lay();
  laid.set(design.stacks, { design, catalogue, network });
  return network;
}

/** The planning values of a job stay the same object while nobody changes them: what is kept beside them is found again. */
const defaultsOf = remember((overrides: Design['defaults']) => resolveDefaults(overrides));

/** Compiles a design. The design must have been read (`readDesign`); nothing here throws for what it leaves unknown. */
export function compile(design: Design, catalogue: readonly EquipmentType[]): Installation {
  const find = typeFinder(design, catalogue);
  const supply = compileSupply(design.site);
  const defaults = defaultsOf(design.defaults);
  const wall = compileWall(design, catalogue);
  const routes = routeLengths(design, wall, {
    serviceLoopM: defaults.serviceLoopM.value,
    slack: defaults.routeSlack.value,
  });
  const stacks = design.stacks.map((stack) => laySet(design, stack, { supply, defaults, routes, find }));
  const generators = design.generators.map((generator) => ({
    generator,
    site: design.site,
    defaults,
    type: find('generator', generator.typeId, ['generators', generator.id, 'typeId']),
  }));
  const arrays = design.arrays.map((array) => ({
    array,
    moduleType: find('pv-module', array.moduleTypeId, ['arrays', array.id, 'moduleTypeId']),
  }));
  const controllers = design.controllers.map((controller) => ({
    controller,
    type: find('controller', controller.typeId, ['controllers', controller.id, 'typeId']),
    meterTypes: Object.fromEntries(
      controller.meters.map((meter) => [
        meter.id,
        find('meter', meter.typeId, ['controllers', controller.id, 'meters', meter.id, 'typeId']),
      ]),
    ),
  }));
  return {
    site: design.site,
    place: design.place,
    wiring: design.wiring,
    circuits: design.circuits,
    partitions: design.partitions,
    startCases: design.startCases,
    types: design.types,
    meters: design.meters,
    earthPoints: design.earthPoints,
    instruments: design.instruments.map((instrument) => ({
      instrument,
      type: find(instrument.kind, instrument.typeId, ['instruments', instrument.id, 'typeId']),
    })),
    supply,
    lineVoltageV: field(design.site.lineVoltageV, 'site', 'lineVoltageV'),
    defaults,
    stacks,
    generators,
    arrays,
    controllers,
    network: laidOnce(design, catalogue, () =>
      mapKnown(supply, (lines) =>
        layNetwork({ design, supply: lines, stacks, generators, routes, find }, arrays, controllers),
      ),
    ),
    delivered: deliveryTrouble(design, catalogue),
    tableValues: design.tableValues,
    accepted: design.accepted,
    firstValues: openFirstValues(design),
    wall,
    routes,
    circuitDeviceTypes: circuitDeviceTypes(design, find),
    undecidedCircuits: unplacedCircuits(design),
  };
}
