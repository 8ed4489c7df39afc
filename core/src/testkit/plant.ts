import type { OutageRun } from '../rehearse/outageRun.ts';
import type { Energy } from '../rehearse/minute.ts';
import type { Plant } from '../rehearse/plant.ts';
import { MINUTES_OF_DAY, SEASONS } from '../rehearse/year.ts';

export const steady = (watts: number): Float64Array => new Float64Array(MINUTES_OF_DAY).fill(watts);

/** 10 kWh, 5 kW, 90 %, 50 W idle; 1 kW on one board. */
export const plant = (over: Partial<Plant> = {}): Plant => ({
  stackId: 's',
  name: 'Set',
  boards: [
    {
      partitionId: 'b',
      name: 'Board',
      shedBelowSoc: undefined,
      onlyWithGenerator: false,
      minuteW: steady(1000),
    },
  ],
  loadFrom: '',
  ratedW: 5000,
  unitCount: 1,
  limits: undefined,
  lostUnit: 'set-stops',
  idleW: 50,
  efficiencyW: Float64Array.of(5000),
  efficiency: Float64Array.of(0.9),
  sharedBy: 1,
  part: 1,
  fullWh: 10_000,
  nominalV: 50,
  moduleCount: 4,
  floorSoc: 0.1,
  reserveSoc: 0.5,
  callLevels: { fromSoc: 0.2, toSoc: 0.8 },
  mostDischargeW: 6000,
  mostChargeW: 3000,
  sunDcW: [],
  sunAcW: [],
  acStaysWithGenerator: false,
  generator: undefined,
  leftOut: [],
  ...over,
});

export const run = (over: Partial<OutageRun> = {}): OutageRun => ({
  season: 0,
  startMinute: 0,
  minutes: 600,
  startSoc: 0.5,
  clearness: [1],
  loadFactor: 1,
  chance: undefined,
  generatorFromSoc: 0.2,
  generatorToSoc: 0.8,
  handMinutes: 30,
  lose: undefined,
  ...over,
});

export const sun = (watts: number): Float64Array[] => Array.from({ length: SEASONS }, () => steady(watts));

export const generator = {
  name: 'Set',
  start: 'two-wire',
  warmUpMin: 2,
  mostW: 4000,
  lineVa: [],
  targetW: 3200,
  chargeW: 2000,
  droop: undefined,
  idleLPerH: 0.6,
  lPerKwh: 0.3,
  fuelL: 100,
} as const;

export const imbalance = ({
  sunDc,
  sunAc,
  generator: engine,
  battery,
  served,
  losses,
  idle,
}: Energy): number => sunDc + sunAc + engine + battery - served - losses - idle;

/** What a set of 15 kVA carries on three lines. */
export const LIMITS = {
  names: ['L1', 'L2', 'L3'],
  totalW: 15_000,
  totalVa: 15_000,
  lineVa: [5000, 5000, 5000],
  lineW: [5000, 5000, 5000],
  without: [],
};
/** A third of a load on each of three lines. */
export const thirds = (watts: number) => [0, 1, 2].map(() => ({ re: steady(watts / 3), im: steady(0) }));
