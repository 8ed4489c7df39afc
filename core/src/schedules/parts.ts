import type { EquipmentType } from '../catalogue/schema.ts';
import { fittedModules } from '../figures/bank/bank.ts';
import { bankCount } from '../installation/ownBank.ts';
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
    const { bank } = stack;
    for (const unit of stack.units) add(unit.inverterTypeId ?? stack.inverterTypeId, 'Inverter', 1);
    if (typeof bank === 'object') {
      const banks = bankCount(stack);
      for (const module of fittedModules(bank))
        add(module.batteryTypeId ?? bank.batteryTypeId, 'Battery module', banks);
      if (bank.breakerTypeId !== undefined) add(bank.breakerTypeId, 'Battery breaker or fuse', banks);
      if (bank.barTypeId !== undefined) add(bank.barTypeId, 'Combiner bar', banks);
    }
    if (stack.arrangement === 'split-phase-autotransformer')
      add(stack.autotransformerTypeId, 'Autotransformer', 1);
    if (stack.transferDeviceTypeId !== undefined) add(stack.transferDeviceTypeId, 'Transfer device', 1);
  }
  for (const generator of design.generators) {
    add(generator.typeId, 'Generator', 1);
    if (generator.transferDeviceTypeId !== undefined)
      add(generator.transferDeviceTypeId, 'Transfer switch', 1);
  }
  for (const device of design.devices) if (device.typeId !== undefined) add(device.typeId, 'Device', 1);
  for (const one of design.instruments) add(one.typeId, one.kind === 'meter' ? 'Meter' : 'Sensor', 1);
  for (const controller of design.controllers) add(controller.typeId, 'Site controller', 1);
  for (const { moduleTypeId, modulesPerString, places = [] } of design.arrays) {
    const strings = places.reduce((sum, place) => sum + place.strings, 0);
    const count = strings * (modulesPerString ?? 0);
    if (count > 0) add(moduleTypeId, 'PV module', count);
  }
  return [...counts].map(([what, count]) => ({ what, count }));
}
