import type { EquipmentKind } from './schema.ts';
import type { SheetGroup } from './sheet.ts';
import { BATTERY_SHEET } from './sheets/battery.ts';
import { INVERTER_SHEET } from './sheets/inverter.ts';
import {
  COMBINER_BAR_SHEET,
  CONTROLLER_SHEET,
  METER_SHEET,
  PROTECTIVE_DEVICE_SHEET,
  SENSOR_SHEET,
} from './sheets/parts.ts';
import {
  AUTOTRANSFORMER_SHEET,
  GENERATOR_SHEET,
  PV_MODULE_SHEET,
  TRANSFER_DEVICE_SHEET,
} from './sheets/sources.ts';

/** The data sheet of each kind: every attribute of its schema, in the place where a maker prints it. */
export const SHEETS: Readonly<Record<EquipmentKind, readonly SheetGroup[]>> = {
  inverter: INVERTER_SHEET,
  battery: BATTERY_SHEET,
  generator: GENERATOR_SHEET,
  'pv-module': PV_MODULE_SHEET,
  'transfer-device': TRANSFER_DEVICE_SHEET,
  autotransformer: AUTOTRANSFORMER_SHEET,
  'combiner-bar': COMBINER_BAR_SHEET,
  'protective-device': PROTECTIVE_DEVICE_SHEET,
  meter: METER_SHEET,
  sensor: SENSOR_SHEET,
  controller: CONTROLLER_SHEET,
};

/** What each kind is called, one and many. */
export const KIND_WORDS: Readonly<Record<EquipmentKind, readonly [string, string]>> = {
  inverter: ['Inverter', 'Inverters'],
  battery: ['Battery', 'Batteries'],
  generator: ['Generator', 'Generators'],
  'pv-module': ['PV module', 'PV modules'],
  'transfer-device': ['Transfer device', 'Transfer devices'],
  autotransformer: ['Autotransformer', 'Autotransformers'],
  'combiner-bar': ['Combiner bar', 'Combiner bars'],
  'protective-device': ['Protective device', 'Protective devices'],
  meter: ['Meter', 'Meters'],
  sensor: ['Sensor', 'Sensors'],
  controller: ['Site controller', 'Site controllers'],
};
