import type { EquipmentKind, EquipmentType } from '../catalogue/schema.ts';
import type { Path, Problem } from './problem.ts';
import type { Line } from './quantities.ts';
import type { Design, SupplyKind } from './schema.ts';

/** The lines each supply has, in order. */
export const SUPPLY_LINES: Record<SupplyKind, readonly Line[]> = {
  'single-phase': ['L1'],
  'split-phase': ['L1', 'L2'],
  'three-phase': ['L1', 'L2', 'L3'],
};

/**
 * What the schema cannot see: references that lead nowhere, and lines that the supply does not have.
 * `catalogue` stands in for types the document has not copied in yet.
 */
export function referenceProblems(design: Design, catalogue: readonly EquipmentType[]): Problem[] {
  const problems: Problem[] = [];
  const kinds = new Map<string, EquipmentKind>();
  for (const type of [...catalogue, ...design.types]) kinds.set(type.id, type.kind);
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

  design.circuits.forEach((circuit, c) => {
    refer(['circuits', c, 'partitionId'], circuit.partitionId, partitionIds, 'the partition');
    circuit.lines?.forEach((one, l) => onLine(['circuits', c, 'lines', l], one));
  });
  design.partitions.forEach((partition, p) =>
    refer(['partitions', p, 'stackId'], partition.stackId, stackIds, 'the stack'),
  );
  design.meters.forEach((meter, m) => {
    if (meter.scope !== 'building') refer(['meters', m, 'scope'], meter.scope, partitionIds, 'the partition');
  });
  design.stacks.forEach((stack, s) => {
    ofKind(['stacks', s, 'inverterTypeId'], stack.inverterTypeId, 'inverter');
    ofKind(['stacks', s, 'autotransformerTypeId'], stack.autotransformerTypeId, 'autotransformer');
    stack.units.forEach((unit, u) => {
      if (unit.line !== undefined) onLine(['stacks', s, 'units', u, 'line'], unit.line);
    });
    if (stack.bank !== undefined && stack.bank !== 'none') {
      ofKind(['stacks', s, 'bank', 'batteryTypeId'], stack.bank.batteryTypeId, 'battery');
    }
  });
  design.generators.forEach((generator, g) => {
    ofKind(['generators', g, 'typeId'], generator.typeId, 'generator');
    refer(['generators', g, 'stackId'], generator.stackId, stackIds, 'the stack');
  });
  design.arrays.forEach((array, a) =>
    refer(['arrays', a, 'partitionId'], array.partitionId, partitionIds, 'the partition'),
  );
  return problems;
}
