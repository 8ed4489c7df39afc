import type { Item } from './schema.ts';

export interface LibraryGroup {
  readonly title: string;
  readonly items: readonly Omit<Item, 'id'>[];
}

type Row = readonly [
  name: string,
  runningW: number,
  powerFactor: number,
  startClass: NonNullable<Item['startClass']>,
  demandFactor: number,
  hoursPerDay: number,
  longestInterruptionMs?: number,
];

const item = ([
  name,
  runningW,
  powerFactor,
  startClass,
  demandFactor,
  hoursPerDay,
  longestInterruptionMs,
]: Row): Omit<Item, 'id'> => ({
  name,
  quantity: 1,
  runningW,
  powerFactor,
  startClass,
  demandFactor,
  hoursPerDay,
  ...(longestInterruptionMs === undefined ? {} : { longestInterruptionMs }),
});

const group = (title: string, rows: readonly Row[]): LibraryGroup => ({ title, items: rows.map(item) });

/** Electronic supplies ride through about this long; contactors drop out at about the second figure; a blink of the light harms nothing, ms. */
const ELECTRONIC_MS = 20;
const CONTACTOR_MS = 30;
const BLINK_MS = 1000;

/**
 * Things that hang on circuits, with typical planning figures: to be replaced by a data plate or a clamp reading. Importance
 * is left open on purpose, since only the people in the building know it.
 */
export const ITEM_LIBRARY: readonly LibraryGroup[] = [
  group('Light and small things', [
    ['LED lighting, one room', 60, 0.95, 'electronic', 0.7, 6, BLINK_MS],
    ['LED lighting, hall or corridor', 180, 0.95, 'electronic', 0.8, 10, BLINK_MS],
    ['Filament spotlights', 250, 1, 'cold-filament', 0.5, 4, BLINK_MS],
    ['Emergency lighting charger', 30, 0.9, 'electronic', 1, 24, BLINK_MS],
    ['Desk with computer and screen', 160, 0.95, 'electronic', 0.7, 8, ELECTRONIC_MS],
    ['Network cabinet', 90, 0.95, 'electronic', 1, 24, ELECTRONIC_MS],
    ['Alarm and door panel', 25, 0.9, 'electronic', 1, 24, ELECTRONIC_MS],
    ['Television', 120, 0.95, 'electronic', 0.5, 5, ELECTRONIC_MS],
    ['Router and modem', 20, 0.9, 'electronic', 1, 24, ELECTRONIC_MS],
    ['Camera recorder with cameras', 80, 0.95, 'electronic', 1, 24, ELECTRONIC_MS],
    ['Door entry and intercom', 15, 0.9, 'electronic', 1, 24, ELECTRONIC_MS],
    ['Till and card terminal', 60, 0.95, 'electronic', 0.8, 9, ELECTRONIC_MS],
    ['Laser printer', 500, 0.95, 'electronic', 0.2, 1, ELECTRONIC_MS],
    ['Socket outlets, general', 500, 0.95, 'electronic', 0.4, 6, BLINK_MS],
    ['Outdoor lighting', 120, 0.95, 'electronic', 1, 10, BLINK_MS],
  ]),
  group('Kitchen', [
    ['Refrigerator', 120, 0.75, 'compressor', 0.5, 10],
    ['Upright freezer', 160, 0.75, 'compressor', 0.5, 11],
    ['Walk-in cooler compressor', 1100, 0.8, 'compressor', 0.7, 12],
    ['Kettle', 2000, 1, 'steady', 0.2, 0.5],
    ['Microwave oven', 1300, 0.95, 'transformer', 0.3, 0.5],
    ['Induction hob, two rings', 3600, 0.98, 'electronic', 0.4, 1.5, BLINK_MS],
    ['Oven', 3000, 1, 'steady', 0.4, 1],
    ['Dishwasher', 2100, 0.98, 'steady', 0.3, 1.5],
    ['Extractor fan', 150, 0.7, 'split-phase-motor', 0.5, 3],
  ]),
  group('Household', [
    ['Washing machine', 2100, 0.9, 'capacitor-motor', 0.3, 1.5],
    ['Tumble dryer, heated', 2500, 0.95, 'capacitor-motor', 0.3, 1],
    ['Vacuum cleaner', 800, 0.95, 'universal', 0.2, 0.3],
    ['Iron', 2200, 1, 'steady', 0.2, 0.3],
    ['Hair dryer', 1800, 1, 'universal', 0.2, 0.2],
    ['Coffee machine', 1400, 1, 'steady', 0.3, 1],
    ['Toaster', 1000, 1, 'steady', 0.2, 0.2],
    ['Garage door drive', 500, 0.7, 'split-phase-motor', 0.1, 0.2],
    ['Electric vehicle charger, one line', 7400, 0.99, 'electronic', 0.5, 4, BLINK_MS],
    ['Stair lift', 400, 0.8, 'electronic', 0.2, 0.3, BLINK_MS],
  ]),
  group('Heat, air and water', [
    ['Ventilation unit with heat recovery', 120, 0.9, 'electronic', 1, 24, BLINK_MS],
    ['Treatment plant blower', 80, 0.75, 'split-phase-motor', 1, 24],
    ['Pool pump', 1100, 0.8, 'capacitor-motor', 0.6, 8],
    ['Water heater, small', 1500, 1, 'steady', 0.5, 3],
    ['Water heater, large', 3000, 1, 'steady', 0.5, 4],
    ['Panel heater', 1000, 1, 'steady', 0.6, 8],
    ['Boiler controls and circulation pump', 90, 0.8, 'capacitor-motor', 0.9, 14],
    ['Heat pump with variable-speed drive', 2200, 0.96, 'soft-drive', 0.7, 10],
    ['Air conditioner, fixed speed', 1500, 0.85, 'compressor', 0.7, 8],
    ['Air handling fan', 750, 0.8, 'capacitor-motor', 0.8, 12],
    ['Pressure pump', 750, 0.78, 'capacitor-motor', 0.3, 2],
    ['Borehole pump, single-phase', 1100, 0.75, 'deep-pump', 0.4, 3],
    ['Borehole pump, three-phase', 2200, 0.82, 'dol-3ph', 0.4, 3],
    ['Sump pump', 550, 0.75, 'capacitor-motor', 0.2, 1],
  ]),
  group('Workshop', [
    ['Hand power tool', 900, 0.9, 'universal', 0.3, 2],
    ['Bench grinder', 550, 0.7, 'split-phase-motor', 0.2, 1],
    ['Air compressor, single-phase', 1800, 0.8, 'compressor', 0.5, 3, CONTACTOR_MS],
    ['Air compressor, three-phase direct on line', 4000, 0.85, 'dol-3ph', 0.6, 4, CONTACTOR_MS],
    ['Machine on star-delta starter', 7500, 0.86, 'star-delta', 0.5, 4, CONTACTOR_MS],
    ['Machine on soft starter', 5500, 0.86, 'soft-start', 0.5, 4, CONTACTOR_MS],
    ['Welding set', 4500, 0.75, 'welder', 0.3, 1],
    ['Battery charger, trickle', 200, 0.9, 'electronic', 0.6, 10, BLINK_MS],
    ['Roller door', 400, 0.7, 'split-phase-motor', 0.1, 0.3, CONTACTOR_MS],
  ]),
  group('Clinic and laboratory', [
    ['Vaccine refrigerator', 180, 0.75, 'compressor', 0.6, 12],
    ['Examination light', 70, 0.95, 'electronic', 0.5, 4, BLINK_MS],
    ['Autoclave, table top', 2200, 1, 'steady', 0.4, 2],
    ['Centrifuge', 400, 0.85, 'universal', 0.2, 1, ELECTRONIC_MS],
    ['X-ray generator, standby', 300, 0.8, 'transformer', 1, 10, ELECTRONIC_MS],
    ['Oxygen concentrator', 350, 0.75, 'compressor', 1, 24],
    ['Analyser with computer', 450, 0.95, 'electronic', 0.6, 6, ELECTRONIC_MS],
  ]),
];
