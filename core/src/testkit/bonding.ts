import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { EquipmentType, TypeOf } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { stack1 } from './designs.ts';

/** A sample type with some figures of its own, under an id of its own. */
export function variantOf<K extends EquipmentType['kind']>(
  kind: K,
  id: string,
  over: Partial<TypeOf<K>>,
): TypeOf<K> {
  const found = SAMPLE_TYPES.find((one): one is TypeOf<K> => one.kind === kind && one.id === id);
  if (found === undefined) throw new Error(`There is a sample ${id}.`);
  return { ...found, id: `${id}-own`, ...over };
}

/** The base on an earthed grid, everything about its bonds said: one relay, four-pole in the inverter, no bypass. */
export function bonded(design: Design): void {
  Object.assign(design.site, {
    earthing: 'TN-S',
    utilityEarth: 'kept',
    maintenanceBypass: 'none',
    surviveUnitLoss: 'no',
  });
  design.earthPoints = [
    {
      id: 'e1',
      name: 'main earthing bar',
      joins: ['chassis', 'backed-up-earth', 'grid-earth', 'generator-frame'],
    },
  ];
}

/** The inverter of the base with a neutral that is joined for good. */
export function withSolidInverter(design: Design): void {
  const type = variantOf('inverter', 'hybrid-5k-1ph', { transferNeutral: 'solid' });
  design.types.push(type);
  stack1(design).inverterTypeId = type.id;
}

/** A single-phase set behind a transfer switch of its own. */
export function withSwitchedSet(design: Design, neutral: 'solid' | 'switched'): void {
  const type = variantOf('transfer-device', 'changeover-40a-2p', { neutral });
  design.types.push(type);
  design.generators.push({
    id: 'g1',
    name: 'Set',
    typeId: 'petrol-4k-1ph',
    connection: 'transfer-switch',
    stackId: 's',
    transferDeviceTypeId: type.id,
  });
}
