import type { EquipmentType } from '@bastion/core';

export type DeviceType = Extract<EquipmentType, { kind: 'protective-device' }>;

const isForDc = ({ device }: DeviceType): boolean => device.startsWith('dc-');

/** The device types of the library, those made for the current of a place first; a wrong one can be told too, and is found. */
export function TypeOptions({
  types,
  isDc,
}: {
  readonly types: readonly DeviceType[];
  readonly isDc: boolean;
}) {
  const options = (some: readonly DeviceType[]) =>
    some.map((type) => (
      <option key={type.id} value={type.id}>
        {type.name}
      </option>
    ));
  return (
    <>
      <option value="">not known</option>
      <optgroup label={isDc ? 'For direct current' : 'For alternating current'}>
        {options(types.filter((type) => isForDc(type) === isDc))}
      </optgroup>
      <optgroup label="Not made for this place">
        {options(types.filter((type) => isForDc(type) !== isDc))}
      </optgroup>
    </>
  );
}
