import type { Circuit, Design, Item, Stack } from '../design/schema.ts';

/** Freezes all of a value, so that a stray write fails at the line that made it. */
export function deepFreeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const inner of Object.values(value)) deepFreeze(inner);
  }
  return value;
}

/** A resistive heater of 2300 W: at 230 V, 10 A. */
export const heater = (id: string, over: Partial<Item> = {}): Item => ({
  id,
  name: `Heater ${id}`,
  quantity: 1,
  runningW: 2300,
  powerFactor: 1,
  startClass: 'steady',
  demandFactor: 1,
  hoursPerDay: 12,
  longestInterruptionMs: 1000,
  ...over,
});

/** One unit of 5 kVA on 230 V single-phase with one backed-up heater and four modules of 51.2 V 100 Ah. Nothing is missing. */
export function baseDesign(): Design {
  return {
    format: 6,
    name: 'Base',
    site: {
      supply: 'single-phase',
      lineVoltageV: 230,
      frequencyHz: 50,
      serviceRatingA: 63,
      codeProfile: 'metric',
      equipmentLowestC: 5,
      equipmentHighestC: 30,
      highestC: 25,
      altitudeM: 100,
      targetAutonomyH: 4,
      maintenanceBypass: 'yes',
    },
    circuits: [{ id: 'c1', name: 'Heat', lines: ['L1'], partitionId: 'b', items: [heater('i1')] }],
    partitions: [
      { id: 'g', name: 'Grid side', kind: 'grid' },
      { id: 'b', name: 'Backup output', kind: 'backup', stackId: 's' },
    ],
    stacks: [
      {
        id: 's',
        name: 'Stack',
        inverterTypeId: 'hybrid-5k-1ph',
        arrangement: 'one-unit',
        units: [{ id: 'u1', firmware: '1', barPlace: 1 }],
        chargeCurrentA: 50,
        gridChargeW: 2000,
        bank: {
          batteryTypeId: 'lfp-51v-100ah',
          modules: [{ id: 'm1' }, { id: 'm2' }, { id: 'm3' }, { id: 'm4' }],
          reserveSoc: 0.5,
          cutoffSoc: 0.1,
          breakerA: 160,
          joining: 'bars-equal',
          lead: { lengthM: 1, areaMm2: 50 },
          barSegment: { lengthM: 0.2, areaMm2: 200 },
          inverterLead: { lengthM: 1.5, areaMm2: 70 },
        },
      },
    ],
    generators: [],
    arrays: [],
    controllers: [],
    devices: [],
    instruments: [],
    earthPoints: [],
    startCases: [],
    meters: [],
    delivery: [],
    defaults: [],
    accepted: [],
    types: [],
  };
}

function at<T>(list: readonly T[], index: number): T {
  const found = list[index];
  if (found === undefined) throw new Error(`The base design has no entry ${index} here.`);
  return found;
}
export const circuit1 = (design: Design): Circuit => at(design.circuits, 0);
export const item1 = (design: Design): Item => at(circuit1(design).items, 0);
export const stack1 = (design: Design): Stack => at(design.stacks, 0);
export function bank1(design: Design): Exclude<Stack['bank'], 'none' | undefined> {
  const { bank } = stack1(design);
  if (typeof bank !== 'object') throw new Error('The base design has a bank.');
  return bank;
}

/** Takes a field away: absent means not known. */
export function forget<T extends object>(target: T, key: keyof T): void {
  Reflect.deleteProperty(target, key);
}

/** Turns the base into a three-phase set of single-phase units, with one heater on each of the given lines. */
export function threePhase(design: Design, unitsPerLine: readonly [number, number, number]): void {
  design.site.supply = 'three-phase';
  const stack = stack1(design);
  stack.arrangement = 'three-phase-from-single';
  stack.units = (['L1', 'L2', 'L3'] as const).flatMap((line, index) =>
    Array.from({ length: unitsPerLine[index] ?? 0 }, (_, n) => ({
      id: `${line}-${n + 1}`,
      line,
      firmware: '1',
      barPlace: index + 1,
    })),
  );
}

/** Adds a backed-up circuit with one item. */
export function addLoad(design: Design, id: string, lines: Circuit['lines'], item: Partial<Item> = {}): void {
  design.circuits.push({
    id,
    name: id,
    ...(lines === undefined ? {} : { lines }),
    partitionId: 'b',
    items: [heater(`${id}-i`, item)],
  });
}
