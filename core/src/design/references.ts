import type { EquipmentKind, EquipmentType } from '../catalogue/schema.ts';
import type { Path, Problem } from '../values/problem.ts';
import { remember } from '../values/remember.ts';
import type { Line } from '../values/quantities.ts';
import type { Bank, Circuit, Design, Stack, SupplyKind } from './schema.ts';

/** The lines each supply has, in order. */
export const SUPPLY_LINES: Record<SupplyKind, readonly Line[]> = {
  'single-phase': ['L1'],
  'split-phase': ['L1', 'L2'],
  'three-phase': ['L1', 'L2', 'L3'],
};

interface Follow {
  readonly refer: (path: Path, value: string | undefined, known: ReadonlySet<string>, what: string) => void;
  readonly ofKind: (path: Path, value: string | undefined, kind: EquipmentKind) => void;
}

function stackReferences(
  stack: Stack,
  path: Path,
  { refer, ofKind }: Follow,
  onLine: (path: Path, value: Line) => void,
): void {
  const units = new Set(stack.units.map((unit) => unit.id));
  ofKind([...path, 'inverterTypeId'], stack.inverterTypeId, 'inverter');
  ofKind([...path, 'autotransformerTypeId'], stack.autotransformerTypeId, 'autotransformer');
  ofKind([...path, 'transferDeviceTypeId'], stack.transferDeviceTypeId, 'transfer-device');
  stack.units.forEach((unit, u) =>
    ofKind([...path, 'units', u, 'inverterTypeId'], unit.inverterTypeId, 'inverter'),
  );
  refer([...path, 'hostUnitId'], stack.hostUnitId, units, 'the unit');
  stack.terminated?.forEach((id, t) => refer([...path, 'terminated', t], id, units, 'the unit'));
  stack.busLinks?.forEach((link, l) => {
    refer([...path, 'busLinks', l, 'fromUnitId'], link.fromUnitId, units, 'the unit');
    refer([...path, 'busLinks', l, 'toUnitId'], link.toUnitId, units, 'the unit');
  });
  stack.units.forEach((unit, u) => {
    if (unit.line !== undefined) onLine([...path, 'units', u, 'line'], unit.line);
  });
  if (stack.bank !== undefined && stack.bank !== 'none')
    bankReferences(stack.bank, [...path, 'bank'], { refer, ofKind });
}

function bankReferences(bank: Bank, path: Path, { refer, ofKind }: Follow): void {
  const modules = new Set(bank.modules.map((module) => module.id));
  ofKind([...path, 'batteryTypeId'], bank.batteryTypeId, 'battery');
  ofKind([...path, 'breakerTypeId'], bank.breakerTypeId, 'protective-device');
  ofKind([...path, 'barTypeId'], bank.barTypeId, 'combiner-bar');
  bank.modules.forEach((module, m) =>
    ofKind([...path, 'modules', m, 'batteryTypeId'], module.batteryTypeId, 'battery'),
  );
  bank.comms?.links.forEach((link, l) => {
    if (link.from !== 'host') refer([...path, 'comms', 'links', l, 'from'], link.from, modules, 'the module');
    refer([...path, 'comms', 'links', l, 'to'], link.to, modules, 'the module');
  });
  bank.comms?.terminated?.forEach((id, t) =>
    refer([...path, 'comms', 'terminated', t], id, modules, 'the module'),
  );
}

/** Devices, meters and sensors name what they belong to. */
function networkReferences(
  design: Design,
  { refer, ofKind }: Follow,
  onLine: (path: Path, value: Line) => void,
  ids: { readonly stackIds: ReadonlySet<string>; readonly partitionIds: ReadonlySet<string> },
): void {
  const unitsOf = (stackId: string | undefined): ReadonlySet<string> =>
    new Set(design.stacks.find((one) => one.id === stackId)?.units.map((unit) => unit.id));
  const modulesOf = (stackId: string | undefined): ReadonlySet<string> => {
    const bank = design.stacks.find((one) => one.id === stackId)?.bank;
    return new Set(typeof bank === 'object' ? bank.modules.map((module) => module.id) : []);
  };
  const generatorIds = new Set(design.generators.map((one) => one.id));
  const arrayIds = new Set(design.arrays.map((one) => one.id));
  const mountedIds = new Set(design.place?.mounted.map((one) => one.id));
  design.devices.forEach((device, d) => {
    const at = ['devices', d];
    ofKind([...at, 'typeId'], device.typeId, 'protective-device');
    refer([...at, 'stackId'], device.stackId, ids.stackIds, 'the stack');
    refer([...at, 'unitId'], device.unitId, unitsOf(device.stackId), 'the unit');
    refer([...at, 'moduleId'], device.moduleId, modulesOf(device.stackId), 'the module');
    refer([...at, 'partitionId'], device.partitionId, ids.partitionIds, 'the partition');
    refer([...at, 'generatorId'], device.generatorId, generatorIds, 'the generator');
    refer([...at, 'arrayId'], device.arrayId, arrayIds, 'the array');
    refer([...at, 'mountedId'], device.mountedId, mountedIds, 'the place on the wall');
  });
  const instrumentMeterIds = new Set(
    design.instruments.filter(({ kind }) => kind === 'meter').map((one) => one.id),
  );
  design.instruments.forEach((one, i) => {
    const at = ['instruments', i];
    ofKind([...at, 'typeId'], one.typeId, one.kind);
    if (one.line !== undefined) onLine([...at, 'line'], one.line);
    refer([...at, 'readBy'], one.readBy, ids.stackIds, 'the stack');
    refer([...at, 'readByUnitId'], one.readByUnitId, unitsOf(one.readBy), 'the unit');
    refer([...at, 'meterId'], one.meterId, instrumentMeterIds, 'the meter');
  });
}

const kindsOfTypes = remember(
  (types: readonly EquipmentType[]) =>
    new Map<string, EquipmentKind>(types.map(({ id, kind }) => [id, kind])),
);

/** The kind of each type, those of the document before those of the catalogue. */
function kindsOf(
  catalogue: readonly EquipmentType[],
  own: readonly EquipmentType[],
): { readonly get: (id: string) => EquipmentKind | undefined } {
  return { get: (id) => kindsOfTypes(own).get(id) ?? kindsOfTypes(catalogue).get(id) };
}

/**
 * What the schema cannot see: references that lead nowhere, and lines that the supply does not have.
 * `catalogue` stands in for types the document has not copied in yet. With `only`, nothing but the circuits at these places has changed,
 * and only they are followed.
 */
export function referenceProblems(
  design: Design,
  catalogue: readonly EquipmentType[],
  only?: readonly number[],
): Problem[] {
  const problems: Problem[] = [];
  const kinds = kindsOf(catalogue, design.types);
  const partitionIds = new Set(design.partitions.map((partition) => partition.id));
  const stackIds = new Set(design.stacks.map((stack) => stack.id));
  const supply = design.site.supply;
  const lines = supply === undefined ? undefined : SUPPLY_LINES[supply];

  const refer = (path: Path, value: string | undefined, known: ReadonlySet<string>, what: string): void => {
    if (value !== undefined && !known.has(value)) {
      problems.push({ path, message: `names ${what} "${value}", which is not in this document` });
    }
  };
  const onLine = (path: Path, value: Line): void => {
    if (lines !== undefined && !lines.includes(value)) {
      problems.push({
        path,
        message: `is ${value}, but a ${String(supply)} supply has only ${lines.join(' and ')}`,
      });
    }
  };
  const ofKind = (path: Path, value: string | undefined, kind: EquipmentKind): void => {
    if (value === undefined) return;
    const found = kinds.get(value);
    if (found === undefined) {
      problems.push({
        path,
        message: `names the type "${value}", which is neither in this document nor in the catalogue`,
      });
    } else if (found !== kind) {
      problems.push({ path, message: `names "${value}", which is a ${found}, where a ${kind} is needed` });
    }
  };

  const follow: Follow = { refer, ofKind };

  const followCircuit = (circuit: Circuit, c: number): void => {
    refer(['circuits', c, 'partitionId'], circuit.partitionId, partitionIds, 'the partition');
    circuit.lines?.forEach((one, l) => onLine(['circuits', c, 'lines', l], one));
    ofKind(['circuits', c, 'device', 'typeId'], circuit.device?.typeId, 'protective-device');
  };
  if (only !== undefined) {
    for (const c of only) {
      const circuit = design.circuits[c];
      if (circuit !== undefined) followCircuit(circuit, c);
    }
    return problems;
  }
  design.circuits.forEach(followCircuit);
  design.partitions.forEach((partition, p) =>
    refer(['partitions', p, 'stackId'], partition.stackId, stackIds, 'the stack'),
  );
  design.meters.forEach((meter, m) => {
    if (meter.scope !== 'building') refer(['meters', m, 'scope'], meter.scope, partitionIds, 'the partition');
  });
  design.stacks.forEach((stack, s) => stackReferences(stack, ['stacks', s], follow, onLine));
  design.generators.forEach((generator, g) => {
    ofKind(['generators', g, 'typeId'], generator.typeId, 'generator');
    ofKind(['generators', g, 'transferDeviceTypeId'], generator.transferDeviceTypeId, 'transfer-device');
    refer(['generators', g, 'stackId'], generator.stackId, stackIds, 'the stack');
    if (generator.line !== undefined) onLine(['generators', g, 'line'], generator.line);
  });
  design.arrays.forEach((array, a) => {
    refer(['arrays', a, 'partitionId'], array.partitionId, partitionIds, 'the partition');
    ofKind(['arrays', a, 'moduleTypeId'], array.moduleTypeId, 'pv-module');
    array.places?.forEach((place, p) => {
      const at = ['arrays', a, 'places', p];
      refer([...at, 'stackId'], place.stackId, stackIds, 'the stack');
      const stack = design.stacks.find((one) => one.id === place.stackId);
      if (stack !== undefined)
        refer([...at, 'unitId'], place.unitId, new Set(stack.units.map((unit) => unit.id)), 'the unit');
    });
  });
  design.controllers.forEach((controller, c) => {
    ofKind(['controllers', c, 'typeId'], controller.typeId, 'controller');
    controller.stackIds.forEach((id, i) =>
      refer(['controllers', c, 'stackIds', i], id, stackIds, 'the stack'),
    );
    controller.meters.forEach((meter, m) =>
      ofKind(['controllers', c, 'meters', m, 'typeId'], meter.typeId, 'meter'),
    );
  });
  networkReferences(design, follow, onLine, { stackIds, partitionIds });
  return problems;
}
