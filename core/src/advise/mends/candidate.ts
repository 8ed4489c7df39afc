import type { Analysis } from '../../checks/analyse.ts';
import type { Cause } from '../../checks/causes.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import type { Design, Stack } from '../../design/schema.ts';
import type { CompiledStack } from '../../installation/installation.ts';

/** One way that may clear a cause, in steps that grow: one module more, two modules more. Undefined where a step cannot be made. */
export interface Candidate {
  readonly id: string;
  readonly title: (step: number) => string;
  readonly make: (design: Design, step: number) => Design | undefined;
  /** How many steps are tried. */
  readonly most: number;
  /** Each step does more of the same good: where the last one does not clear the cause, none before it does. */
  readonly isRising?: boolean;
  /** Where what just clears the cause leaves something that followed from it, more of the same is tried. */
  readonly goesOn?: boolean;
}

/** What a mend is looked for in. */
export interface Trouble {
  readonly cause: Cause;
  readonly analysis: Analysis;
  readonly design: Design;
  readonly catalogue: readonly EquipmentType[];
  /** The set it is about, where it is about one. */
  readonly compiled: CompiledStack | undefined;
}

/** A candidate of one step. */
export const once = (id: string, title: string, make: (design: Design) => Design | undefined): Candidate => ({
  id,
  title: () => title,
  make,
  most: 1,
});

export const inStack =
  (stackId: string, change: (stack: Stack) => Stack) =>
  (design: Design): Design => ({
    ...design,
    stacks: design.stacks.map((stack) => (stack.id === stackId ? change(stack) : stack)),
  });

type Bank = Exclude<Stack['bank'], 'none' | undefined>;

export const inBank = (stackId: string, change: (bank: Bank) => Bank): ((design: Design) => Design) =>
  inStack(stackId, (stack) =>
    typeof stack.bank === 'object' ? { ...stack, bank: change(stack.bank) } : stack,
  );

/** Every type at hand, those of the document first. */
export function typesAtHand({ design, catalogue }: Trouble): readonly EquipmentType[] {
  const own = new Set(design.types.map(({ id }) => id));
  return [...design.types, ...catalogue.filter(({ id }) => !own.has(id))];
}

/** An id that a list does not have yet. */
export function freeId(prefix: string, taken: readonly { readonly id: string }[]): string {
  const ids = new Set(taken.map(({ id }) => id));
  let number = taken.length + 1;
  while (ids.has(`${prefix}${number}`)) number += 1;
  return `${prefix}${number}`;
}

/** The design with a place for what is not backed up, and the id of that place: the grid side, or the generator's where there is no grid. */
export function withUnbacked(
  design: Design,
  stackId: string,
): { readonly design: Design; readonly id: string } {
  const kind = design.site.grid === 'none' ? 'generator-only' : 'grid';
  const there = design.partitions.find((one) => one.kind === kind);
  if (there !== undefined) return { design, id: there.id };
  const id = freeId('p', design.partitions);
  const made: Design['partitions'][number] =
    kind === 'grid' ? { id, name: 'Grid side', kind } : { id, name: 'With generator only', kind, stackId };
  return { design: { ...design, partitions: [...design.partitions, made] }, id };
}
