import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';

/** One line of a parts list. */
export interface PartLine {
  readonly what: string;
  readonly count: number;
}

/** The equipment that a design calls for, alike things on one line. What has no type yet says so. */
export function partsOf(design: Design, catalogue: readonly EquipmentType[]): PartLine[] {
  const counts = new Map<string, number>();
  const add = (typeId: string | undefined, otherwise: string, count: number): void => {
    const type =
      typeId === undefined
        ? undefined
        : (design.types.find((one) => one.id === typeId) ?? catalogue.find((one) => one.id === typeId));
    const what = type?.name ?? `${otherwise}, type not known`;
    counts.set(what, (counts.get(what) ?? 0) + count);
  };
  for (const stack of design.stacks) {
    add(stack.inverterTypeId, 'Inverter', stack.units.length);
    if (typeof stack.bank === 'object')
      add(stack.bank.batteryTypeId, 'Battery module', stack.bank.modules.length);
    if (stack.arrangement === 'split-phase-autotransformer')
      add(stack.autotransformerTypeId, 'Autotransformer', 1);
  }
  for (const generator of design.generators) add(generator.typeId, 'Generator', 1);
  return [...counts].map(([what, count]) => ({ what, count }));
}
