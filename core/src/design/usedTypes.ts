import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from './schema.ts';

/** The ids of every equipment type that a design refers to. */
function usedIds(design: Design): Set<string> {
  const used = new Set<string>();
  const note = (id: string | undefined): void => {
    if (id !== undefined) used.add(id);
  };
  for (const stack of design.stacks) {
    note(stack.inverterTypeId);
    note(stack.autotransformerTypeId);
    if (stack.bank !== undefined && stack.bank !== 'none') note(stack.bank.batteryTypeId);
  }
  for (const generator of design.generators) note(generator.typeId);
  return used;
}

/**
 * Copies each type into the document when it is first used, so that the job stays readable for ever and does not change
 * when the catalogue does. Copies that are there already are left as they are. Returns the same document if nothing is new.
 */
export function copyUsedTypes(design: Design, catalogue: readonly EquipmentType[]): Design {
  const present = new Set(design.types.map((type) => type.id));
  const used = usedIds(design);
  const fresh = catalogue.filter((type) => used.has(type.id) && !present.has(type.id));
  return fresh.length === 0 ? design : { ...design, types: [...design.types, ...fresh] };
}
