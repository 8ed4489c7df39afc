import type { SheetGroup } from '../sheet.ts';
import { BODY, choice, figure, group, LINES, MASS, NAMING, needed, PINS, TERMINALS } from './fields.ts';

export const GENERATOR_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Output',
    'rating plate',
    needed(LINES),
    needed(figure('ratedVa', 'Rated apparent power', 'VA')),
    figure('powerFactor', 'Rated power factor', ''),
    figure('outputV', 'Voltage, line to neutral', 'V'),
    choice('frequencyHz', 'Frequency', '50', '60'),
    figure('regulation', 'Voltage regulation, share either way', ''),
    figure('droop', 'Frequency droop, share', ''),
    figure('largestStep', 'Largest load step, share of rating', ''),
    figure('transientReactance', 'Transient reactance, per unit', ''),
    figure('stepFrequencyDip', 'Fall of frequency in that step, share', ''),
    figure('recoveryS', 'Back in its bands within', 's'),
    choice('neutral', 'Neutral', 'bonded', 'floating'),
    figure('shortCircuit.multiple', 'Short-circuit current, times rated', ''),
    figure('shortCircuit.lastsMs', 'It lasts', 'ms'),
  ),
  group(
    'Engine and site',
    'engine data',
    needed(figure('altitudeLossPer100M', 'Loss per 100 m of altitude, share', '')),
    figure('deratesAboveM', 'That loss begins above (150 m where not stated)', 'm'),
    needed(figure('temperatureLossPer5K', 'Loss per 5 °C of heat, share', '')),
    figure('deratesAboveC', 'That loss begins above (25 °C where not stated)', '°C'),
    figure('fuelIdleLPerH', 'Fuel at no load', 'L/h'),
    figure('fuelLPerKwh', 'Fuel for what it gives', 'L/kWh'),
    needed(choice('start', 'Start', 'hand', 'two-wire', 'scheduled')),
    needed(figure('warmUpS', 'Warm-up', 's')),
    MASS,
  ),
  TERMINALS,
];

export const AUTOTRANSFORMER_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Rating',
    'rating plate',
    figure('ratedVa', 'Rated power', 'VA'),
    needed(figure('neutralA', 'Largest neutral current', 'A')),
    needed(choice('thermalSensor', 'Thermal sensor', 'yes', 'no')),
  ),
  TERMINALS,
  BODY,
];

export const PV_MODULE_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'At 1000 W/m² and 25 °C',
    'electrical table, standard test conditions',
    needed(figure('ratedW', 'Power', 'W')),
    needed(figure('vocV', 'Open-circuit voltage', 'V')),
    needed(figure('vmpV', 'Operating voltage', 'V')),
    needed(figure('iscA', 'Short-circuit current', 'A')),
    needed(figure('impA', 'Operating current', 'A')),
  ),
  group(
    'With temperature',
    'temperature coefficients; −0.26 %/K is −0.0026',
    needed(figure('vocPerK', 'Open-circuit voltage, share per K', '')),
    needed(figure('vmpPerK', 'Operating voltage (or power), share per K', '')),
    figure('hotCellRiseK', 'Cells above the air in full sun', 'K'),
    MASS,
  ),
];

export const TRANSFER_DEVICE_SHEET: readonly SheetGroup[] = [
  NAMING,
  group(
    'Switch',
    'rating plate and manual',
    needed(LINES),
    needed(figure('ratedA', 'Rated current', 'A')),
    needed(figure('poles', 'Poles', '')),
    needed(choice('neutral', 'Neutral', 'solid', 'switched')),
    needed(choice('control', 'Worked', 'automatic', 'hand')),
    needed(choice('interlocked', 'Interlocked', 'yes', 'no')),
    figure('transferMs', 'Transfer time', 'ms'),
    choice('controlSupply', 'Supply of its controls', 'own', 'from-inverter', 'from-board', 'none'),
    choice('controlCurrent', 'Current of its controls, from the inverter', 'ac', 'dc'),
    figure('controlV', 'Voltage of its controls, from the inverter', 'V'),
    figure('controlVa', 'Its controls take', 'VA'),
    figure('controlDeviceA', 'Largest device ahead of its controls', 'A'),
    choice('sensesGrid', 'Senses the grid itself', 'yes', 'no'),
  ),
  PINS,
  TERMINALS,
  BODY,
];
