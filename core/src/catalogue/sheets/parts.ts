import { meterRole } from '../partTypes.ts';
import type { SheetGroup } from '../sheet.ts';
import {
  BODY,
  choice,
  choices,
  CURVE,
  figure,
  group,
  LINES,
  NAMING,
  needed,
  NETWORK,
  PINS,
  rows,
  TERMINALS,
  text,
} from './fields.ts';

export const COMBINER_BAR_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Bar',
    'data sheet',
    needed(figure('ratedA', 'Rated current', 'A')),
    needed(figure('areaMm2', 'Cross-section of each pole', 'mm²')),
    needed(figure('spacingM', 'Between two places', 'm')),
    needed(figure('places', 'Places', '')),
  ),
  PINS,
  TERMINALS,
  BODY,
];

export const METER_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Meter',
    'data sheet',
    needed(LINES),
    needed(choices('roles', 'What it can measure', meterRole.options)),
    figure('directA', 'Through the meter itself', 'A'),
    { ...figure('supplyVa', 'Takes through a cable of its own, or none', 'VA'), holds: 'figure-or-none' },
    figure('supplyDeviceA', 'Largest device ahead of that', 'A'),
    needed(text('protocol', 'Protocol')),
    needed(choice('addressRule', 'Address', 'fixed', 'unique-per-role')),
    rows(
      'marks',
      'Terminals: takes (L1, N, L1-out, sensor-L1) : marked',
      { key: 'takes', label: 'takes', holds: 'text' },
      { key: 'mark', label: 'marked', holds: 'text' },
    ),
  ),
  PINS,
  TERMINALS,
];

export const SENSOR_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Sensor',
    'label and data sheet',
    needed(figure('ratedA', 'Rated current', 'A')),
    needed(text('ratio', 'Ratio as printed')),
    figure('openingMm', 'Opening', 'mm'),
    needed(choice('arrow', 'Arrow points', 'to-building', 'to-source')),
    figure('longestLeadM', 'Leads at most', 'm'),
  ),
];

export const PROTECTIVE_DEVICE_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Device',
    'rating plate',
    needed(
      choice(
        'device',
        'Kind',
        'circuit-breaker',
        'fuse',
        'residual-current',
        'isolator',
        'dc-breaker',
        'dc-fuse',
        'dc-isolator',
      ),
    ),
    needed(figure('ratedA', 'Rated current', 'A')),
    needed(figure('ratedV', 'Rated voltage', 'V')),
    needed(figure('poles', 'Poles', '')),
    choice('curve', 'Curve', 'B', 'C', 'D', 'gG', 'aR'),
    figure('breakingA', 'Breaking capacity', 'A'),
    rows('timeCurrent', 'Holds: multiple of rated : seconds', ...CURVE),
    figure('milliohm', 'Resistance', 'mΩ'),
    figure('residualMa', 'Residual current', 'mA'),
    choice('residualType', 'Residual type', 'AC', 'A', 'F', 'B'),
  ),
  TERMINALS,
];

export const CONTROLLER_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Controller',
    'manual',
    needed(figure('mostSets', 'Most sets', '')),
    needed(choices('meterRoles', 'Meters it needs', meterRole.options)),
    needed(text('meterProtocol', 'Protocol of its meters')),
    needed(choice('commissioned', 'Commissioned', 'last', 'first')),
    ...NETWORK,
  ),
  PINS,
];
