import type { CombinerBarType, ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import type { AutotransformerType, TransferDeviceType } from '../../catalogue/sourceTypes.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import { largestDeviceA } from '../../codes/deviceFor.ts';
import { leadAmpacityA } from '../../codes/leadAmpacity.ts';
import { leadSizes } from '../../codes/leadSizes.ts';
import { type CodeProfileName, codeProfile } from '../../codes/profile.ts';

/** Air in which leads are planned where nobody has said how hot it gets, °C. */
const PLAN_AMBIENT_C = 40;

/**
 * The smallest tabulated copper lead that a device of a rating may protect and that carries a current for long, mm²; undefined where no
 * size is large enough, and where nobody has said by which code profile it is chosen.
 */
export function leadForDevice(
  profile: CodeProfileName | undefined,
  ratedA: number,
  ambientC: number | undefined,
  carriesA = 0,
): number | undefined {
  if (profile === undefined) return undefined;
  const leastA = carriesA * codeProfile(profile).continuousFactor;
  const sizes = [...new Set(leadSizes(profile))].sort((a, b) => a - b);
  return sizes.find((areaMm2) => {
    const ampacityA = leadAmpacityA(profile, areaMm2, ambientC ?? PLAN_AMBIENT_C);
    if (ampacityA === 'not tabulated' || ampacityA < leastA) return false;
    return largestDeviceA(profile, ampacityA, areaMm2) >= ratedA;
  });
}

/** A device with the lead it protects; the lead is left open where no size carries the device and fits. */
export interface DeviceAndLead {
  readonly device: ProtectiveDeviceType;
  readonly areaMm2: number | undefined;
}

export interface LeadRoom {
  readonly profile: CodeProfileName | undefined;
  readonly ambientC: number | undefined;
  /** The thickest conductor that the terminals take, mm²; undefined where they do not say. */
  readonly mostMm2: number | undefined;
  /** What the lead carries at full power and the lowest voltage, A. */
  readonly carriesA?: number;
}

/** What a planned device leaves above the current it carries, where a lead for it fits. */
const DEVICE_ROOM = 1.1;

/**
 * The smallest DC device of a catalogue for a current, a voltage and a fault current, with its lead. A device with a lead that fits
 * the terminals goes before one without; a device that does not state what it opens is passed over where the fault current is known.
 */
export function dcDeviceFor(
  catalogue: readonly EquipmentType[],
  currentA: number,
  voltageV: number,
  faultA: number | undefined,
  { profile, ambientC, mostMm2 = Infinity, carriesA }: LeadRoom,
): DeviceAndLead | undefined {
  const all = catalogue
    .filter((type) => type.kind === 'protective-device')
    .filter(({ device }) => device === 'dc-breaker' || device === 'dc-fuse')
    .filter(({ ratedA, ratedV }) => ratedA >= currentA && ratedV >= voltageV)
    .filter(({ breakingA }) => faultA === undefined || (breakingA ?? 0) >= faultA)
    .sort((a, b) => a.ratedA - b.ratedA)
    .map((device): DeviceAndLead => {
      const areaMm2 = leadForDevice(profile, device.ratedA, ambientC, carriesA);
      const takes = (device.terminals ?? []).map(({ maxMm2 }) => maxMm2);
      const fits = areaMm2 !== undefined && areaMm2 <= Math.min(mostMm2, ...takes) * 1.02;
      return { device, areaMm2: fits ? areaMm2 : undefined };
    });
  const roomy = all.filter(({ device }) => device.ratedA >= currentA * DEVICE_ROOM);
  const fits = ({ areaMm2 }: DeviceAndLead): boolean => areaMm2 !== undefined;
  return roomy.find(fits) ?? all.find(fits) ?? roomy[0] ?? all[0];
}

const leadsPerPlace = ({ terminals }: CombinerBarType): number =>
  terminals?.find(({ port }) => port === 'bar')?.mostConductors ?? 1;

/** The smallest combiner bar of a catalogue for a current and a number of leads. */
export const barFor = (
  catalogue: readonly EquipmentType[],
  currentA: number,
  places: number,
): CombinerBarType | undefined =>
  catalogue
    .filter((type) => type.kind === 'combiner-bar')
    .filter((type) => type.ratedA >= currentA && type.places * leadsPerPlace(type) >= places)
    .sort((a, b) => a.ratedA - b.ratedA)[0];

/** The smallest transfer device of a catalogue for a supply of so many lines and a current of each. */
export const transferDeviceFor = (
  catalogue: readonly EquipmentType[],
  lines: number,
  currentA: number,
): TransferDeviceType | undefined =>
  catalogue
    .filter((type) => type.kind === 'transfer-device')
    .filter((type) => type.lines === lines && type.ratedA >= currentA)
    .sort((a, b) => a.ratedA - b.ratedA)[0];

/** The smallest autotransformer of a catalogue. */
export const smallestAutotransformer = (
  catalogue: readonly EquipmentType[],
): AutotransformerType | undefined =>
  catalogue.filter((type) => type.kind === 'autotransformer').sort((a, b) => a.neutralA - b.neutralA)[0];
