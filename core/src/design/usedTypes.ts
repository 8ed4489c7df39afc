import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from './schema.ts';

/** The ids of every equipment type that a design refers to. */
export function usedTypeIds(design: Design): Set<string> {
  const used = new Set<string>();
  const note = (id: string | undefined): void => {
    if (id !== undefined) used.add(id);
  };
  for (const stack of design.stacks) {
    note(stack.inverterTypeId);
    note(stack.autotransformerTypeId);
    note(stack.transferDeviceTypeId);
    for (const unit of stack.units) note(unit.inverterTypeId);
    if (stack.bank === undefined || stack.bank === 'none') continue;
    note(stack.bank.batteryTypeId);
    note(stack.bank.breakerTypeId);
    note(stack.bank.barTypeId);
    for (const module of stack.bank.modules) note(module.batteryTypeId);
  }
  for (const array of design.arrays) note(array.moduleTypeId);
  for (const controller of design.controllers) {
    note(controller.typeId);
    for (const meter of controller.meters) note(meter.typeId);
  }
  for (const generator of design.generators) {
    note(generator.typeId);
    note(generator.transferDeviceTypeId);
  }
  for (const device of design.devices) note(device.typeId);
  for (const instrument of design.instruments) note(instrument.typeId);
  for (const circuit of design.circuits) note(circuit.device?.typeId);
  return used;
}

/**
 * Copies each type into the document when it is first used, so that the job stays readable for ever and does not change
 * when the catalogue does. Copies that are there already are left as they are. Returns the same document if nothing is new.
 */
export function copyUsedTypes(design: Design, catalogue: readonly EquipmentType[]): Design {
  const present = new Set(design.types.map((type) => type.id));
  const used = usedTypeIds(design);
  const fresh = catalogue.filter((type) => used.has(type.id) && !present.has(type.id));
  return fresh.length === 0 ? design : { ...design, types: [...design.types, ...fresh] };
}
