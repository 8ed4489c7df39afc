import { SAMPLE_BATTERIES } from './samples/batteries.ts';
import { SAMPLE_INVERTERS } from './samples/inverters.ts';
import { SAMPLE_PARTS } from './samples/parts.ts';
import { SAMPLE_SOURCES } from './samples/sources.ts';
import type { EquipmentType } from './schema.ts';

/** The sample catalogue: invented equipment in plain words, with figures that are plausible together. */
export const SAMPLE_TYPES: readonly EquipmentType[] = [
  ...SAMPLE_INVERTERS,
  ...SAMPLE_BATTERIES,
  ...SAMPLE_SOURCES,
  ...SAMPLE_PARTS,
];
