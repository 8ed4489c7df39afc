import type { Installation } from '../installation/installation.ts';
import type { Procedure } from './schema.ts';

type EquipmentLine = NonNullable<Procedure['equipment']>[number];

const NOT_RECORDED = 'not recorded';

/** Units and modules with serial number and firmware, as far as the design records them. */
export function equipmentLines({ stacks, network }: Installation): EquipmentLine[] {
  const typeOf = (stackId: string, unitId: string): string | undefined =>
    network.known
      ? network.value.parts.find(
          (part) => part.kind === 'inverter' && part.stackId === stackId && part.unitId === unitId,
        )?.typeName
      : undefined;
  return stacks.flatMap(({ stack, type, batteryTypes }) => [
    ...stack.units.map((unit, index): EquipmentLine => ({
      what: `unit ${index + 1} of ${stack.name}`,
      type: typeOf(stack.id, unit.id) ?? (type.known ? type.value.name : 'type not known'),
      serial: unit.serial ?? NOT_RECORDED,
      firmware:
        unit.firmwareParts?.map(({ id, version }) => `${id} ${version}`).join(', ') ??
        unit.firmware ??
        NOT_RECORDED,
    })),
    ...(typeof stack.bank === 'object' ? stack.bank.modules : []).flatMap(
      (module, index): EquipmentLine[] => {
        if (module.fitted === 'taken-out' || typeof stack.bank !== 'object') return [];
        const typeId = module.batteryTypeId ?? stack.bank.batteryTypeId;
        return [
          {
            what: `module ${index + 1} of ${stack.name}`,
            type: (typeId === undefined ? undefined : batteryTypes[typeId]?.name) ?? 'type not known',
            serial: module.serial ?? NOT_RECORDED,
            firmware: '',
          },
        ];
      },
    ),
  ]);
}
