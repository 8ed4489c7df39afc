import type { ProtectiveDeviceType } from '../catalogue/partTypes.ts';
import type { Known } from '../values/known.ts';
import type { DeviceFigures } from './network.ts';

/** What of a device type counts in its place, as a part holds it. */
export const figuresOf = (
  type: Known<ProtectiveDeviceType>,
): { readonly device?: DeviceFigures; readonly deviceTypeId?: string } => {
  if (!type.known) return {};
  const { id, device, ratedV, poles, breakingA, curve, residualMa, residualType } = type.value;
  return {
    deviceTypeId: id,
    device: {
      device,
      ratedV,
      poles,
      ...(breakingA === undefined ? {} : { breakingA }),
      ...(curve === undefined ? {} : { curve }),
      ...(residualMa === undefined ? {} : { residualMa }),
      ...(residualType === undefined ? {} : { residualType }),
    },
  };
};
