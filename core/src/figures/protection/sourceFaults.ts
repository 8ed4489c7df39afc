import { GENERATOR_FAULT } from '../../codes/magneticTrip.ts';
import type { CompiledGenerator, CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, mapKnown, unknownAt } from '../../values/known.ts';
import { capabilityWithout } from '../capability/capability.ts';

/** What a source of limited current drives into a fault at its terminals, and for how long. */
export interface SourceFault {
  readonly currentA: number;
  readonly lastsMs: number;
}

/** The type of a set where all its units are of that type; of a mixed set it tells nothing. */
export function typeOfAll({ stack, type }: CompiledStack): CompiledStack['type'] {
  const other = stack.units.find(
    ({ inverterTypeId }) => inverterTypeId !== undefined && inverterTypeId !== stack.inverterTypeId,
  );
  return other === undefined ? type : unknownAt(['stacks', stack.id, 'units', other.id, 'inverterTypeId']);
}

/** What all units of a set give into a fault on a line, A: n · S · multiple / ((1 + ε) · V). Heat takes nothing from it. */
export function stackFault(compiled: CompiledStack, line: number, lineVoltageV: number): Known<SourceFault> {
  const given = all({ type: typeOfAll(compiled), capability: capabilityWithout(compiled) });
  if (!given.known) return given;
  const { type, capability } = given.value;
  return mapKnown(field(type.shortCircuit, 'types', type.id, 'shortCircuit'), ({ multiple, lastsMs }) => ({
    currentA: (((capability.perLineVa[line] ?? 0) / capability.derating) * multiple) / lineVoltageV,
    lastsMs,
  }));
}

/** What a generator gives into a fault on one of its lines, A: as its type says, else the planning value times S / (m · V). */
export const generatorFault = ({ type }: CompiledGenerator, lineVoltageV: number): Known<SourceFault> =>
  mapKnown(type, (set) => {
    const { multiple, lastsMs } = set.shortCircuit ?? GENERATOR_FAULT;
    return { currentA: ((set.ratedVa / set.lines) * multiple) / lineVoltageV, lastsMs };
  });
