import { all, field, type Known, known } from '../values/known.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import type { CompiledStack } from './installation.ts';
import { followLinks, type Plugged } from './plugged.ts';

export type BusRule = NonNullable<InverterType['parallelBus']>;

/** The parallel bus of a stack with the rule it is held against. */
export interface CompiledBus {
  readonly rule: BusRule;
  readonly plugged: Plugged;
}

/** A unit as it is labelled: by its place in the list. */
export const unitName = ({ stack }: CompiledStack, id: string): string =>
  `unit ${stack.units.findIndex((unit) => unit.id === id) + 1}`;

/** Undefined for a stack of one unit: nothing is joined. */
export function parallelBus(compiled: CompiledStack): Known<CompiledBus> | undefined {
  const { stack, type } = compiled;
  if (stack.units.length < 2) return undefined;
  const given = all({
    rule: type.known ? field(type.value.parallelBus, 'types', type.value.id, 'parallelBus') : type,
    links: field(stack.busLinks, 'stacks', stack.id, 'busLinks'),
  });
  if (!given.known) return given;
  const { rule, links } = given.value;
  const plugged = followLinks(
    stack.units.map((unit) => unit.id),
    links.map(({ fromUnitId, fromPort, toUnitId, toPort }) => ({
      fromId: fromUnitId,
      fromPort,
      toId: toUnitId,
      toPort,
    })),
    rule,
    (id) => unitName(compiled, id),
  );
  return known({ rule, plugged });
}
