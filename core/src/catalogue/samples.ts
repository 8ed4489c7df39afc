import { SAMPLE_BATTERIES } from './samples/batteries.ts';
import { SAMPLE_BREAKERS } from './samples/breakers.ts';
import { HIGH_VOLTAGE_HYBRIDS } from './samples/highVoltageHybrids.ts';
import { LOW_VOLTAGE_HYBRIDS } from './samples/lowVoltageHybrids.ts';
import { SAMPLE_PARTS } from './samples/parts.ts';
import { SAMPLE_SOURCES } from './samples/sources.ts';
import { STORAGE_INVERTERS } from './samples/storageInverters.ts';
import type { EquipmentType } from './schema.ts';

/** The sample catalogue: invented equipment in plain words, with figures that are plausible together. */
export const SAMPLE_TYPES: readonly EquipmentType[] = [
  ...LOW_VOLTAGE_HYBRIDS,
  ...HIGH_VOLTAGE_HYBRIDS,
  ...STORAGE_INVERTERS,
  ...SAMPLE_BATTERIES,
  ...SAMPLE_SOURCES,
  ...SAMPLE_PARTS,
  ...SAMPLE_BREAKERS,
];
