import type { CodeProfileName } from '../codes/profile.ts';
import type { SupplyKind } from './schema.ts';

/** A usual supply: what it says is chosen with it, by name. */
export interface Region {
  readonly id: string;
  readonly label: string;
  readonly supply: SupplyKind;
  /** Line to neutral. */
  readonly lineVoltageV: number;
  readonly frequencyHz: 50 | 60;
  readonly codeProfile: CodeProfileName;
}

export const REGIONS: readonly Region[] = [
  {
    id: '230-50-single',
    label: '230 V 50 Hz, single-phase, metric sizes',
    supply: 'single-phase',
    lineVoltageV: 230,
    frequencyHz: 50,
    codeProfile: 'metric',
  },
  {
    id: '400-50-three',
    label: '230/400 V 50 Hz, three-phase, metric sizes',
    supply: 'three-phase',
    lineVoltageV: 230,
    frequencyHz: 50,
    codeProfile: 'metric',
  },
  {
    id: '240-60-split',
    label: '120/240 V 60 Hz, split-phase, North American sizes',
    supply: 'split-phase',
    lineVoltageV: 120,
    frequencyHz: 60,
    codeProfile: 'north-american',
  },
  {
    id: '208-60-three',
    label: '120/208 V 60 Hz, three-phase, North American sizes',
    supply: 'three-phase',
    lineVoltageV: 120,
    frequencyHz: 60,
    codeProfile: 'north-american',
  },
  {
    id: '230-60-single',
    label: '230 V 60 Hz, single-phase, metric sizes',
    supply: 'single-phase',
    lineVoltageV: 230,
    frequencyHz: 60,
    codeProfile: 'metric',
  },
  {
    id: '220-60-three',
    label: '127/220 V 60 Hz, three-phase, metric sizes',
    supply: 'three-phase',
    lineVoltageV: 127,
    frequencyHz: 60,
    codeProfile: 'metric',
  },
];
