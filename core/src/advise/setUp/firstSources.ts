import type { EquipmentType } from '../../catalogue/schema.ts';
import type { FirstValue } from '../../design/firstValues.ts';
import { SUPPLY_LINES } from '../../design/references.ts';
import type { Generator } from '../../design/schema.ts';
import { smallestAutotransformer, transferDeviceFor } from './conductors.ts';
import type { Kit } from './kit.ts';

/** The autotransformer that an arrangement wants, where the catalogue has one. */
export function autotransformerValues({ stack, catalogue }: Kit): FirstValue[] {
  if (stack.arrangement !== 'split-phase-autotransformer') return [];
  const type = smallestAutotransformer(catalogue);
  return type === undefined ? [] : [{ path: ['stacks', stack.id, 'autotransformerTypeId'], value: type.id }];
}

/** Transfer switch and line of a generator, where its connection and its type leave them to be chosen. */
export function generatorValues(
  { site, catalogue }: Kit,
  generator: Generator | undefined,
  type: EquipmentType | undefined,
): FirstValue[] {
  if (generator === undefined || type?.kind !== 'generator' || site.supply === undefined) return [];
  const path = ['generators', generator.id];
  const lines = SUPPLY_LINES[site.supply];
  const outputA = type.ratedVa / type.lines / (type.outputV ?? site.lineVoltageV ?? Infinity);
  const device =
    generator.connection === 'transfer-switch'
      ? transferDeviceFor(catalogue, lines.length, outputA)
      : undefined;
  return [
    ...(device === undefined ? [] : [{ path: [...path, 'transferDeviceTypeId'], value: device.id }]),
    ...(type.lines < lines.length && lines[0] !== undefined
      ? [{ path: [...path, 'line'], value: lines[0] }]
      : []),
  ];
}
