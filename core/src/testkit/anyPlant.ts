import { sin } from '../values/elementary.ts';
import fc from 'fast-check';
import type { OutageRun } from '../rehearse/outageRun.ts';
import { chanceOf, next } from '../rehearse/chance.ts';
import type { Plant } from '../rehearse/plant.ts';
import type { LineDay } from '../rehearse/plantBoard.ts';
import { MINUTES_OF_DAY, SEASONS } from '../rehearse/year.ts';
import { generator, LIMITS, plant, run } from './plant.ts';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const watts = (max: number) => fc.double({ min: 0, max, noNaN: true });

/** A day by the hour, or minute by minute, about a mean. */
const day = (mean: number, seed: number, stepMin: number): Float64Array => {
  const chance = chanceOf(seed, 0);
  const levels = Array.from({ length: MINUTES_OF_DAY / stepMin }, () => 2 * mean * next(chance));
  return Float64Array.from(
    { length: MINUTES_OF_DAY },
    (_, minute) => levels[Math.floor(minute / stepMin)] ?? 0,
  );
};

/** Sun from six to six, the same in every season. */
const bell = (most: number): Float64Array[] => {
  const light = Float64Array.from({ length: MINUTES_OF_DAY }, (_, minute) =>
    Math.max(0, most * sin((Math.PI * (minute - 360)) / 720)),
  );
  return Array.from({ length: SEASONS }, () => light);
};

const evenly = (minuteW: Float64Array): LineDay[] =>
  [0, 1, 2].map(() => ({ re: minuteW.map((one) => one / 3), im: new Float64Array(MINUTES_OF_DAY) }));

const board = (id: string, minuteW: Float64Array, more: object = {}) => ({
  partitionId: id,
  name: id,
  shedBelowSoc: undefined,
  onlyWithGenerator: false,
  minuteW,
  lines: evenly(minuteW),
  ...more,
});

/** Sets with a board, a stage and one that waits for the engine, sun on both sides, with and without a generator and a curve. */
export const anyPlant: fc.Arbitrary<Plant> = fc
  .record({
    loadW: watts(3000),
    stageW: watts(1500),
    stepMin: fc.constantFrom(1, 20, 60),
    seed: fc.integer({ min: 0, max: 1000 }),
    dcW: fc.oneof(fc.constant(0), watts(8000)),
    acW: fc.oneof(fc.constant(0), watts(8000)),
    fullWh: fc.constantFrom(10_000, 60_000),
    hasEngine: fc.boolean(),
    // Lines that the generator reaches; nought: none is looked at by itself.
    reach: fc.constantFrom(0, 1, 2, 3),
    efficiency: fc.double({ min: 0.7, max: 0.95, noNaN: true }),
    isCurved: fc.boolean(),
    acStaysWithGenerator: fc.boolean(),
    fuelL: fc.constantFrom(2, 100),
  })
  .map(({ loadW, stageW, stepMin, seed, dcW, acW, hasEngine, efficiency, isCurved, reach, fuelL, ...more }) =>
    plant({
      ...more,
      ...(reach === 0 ? {} : { limits: LIMITS }),
      boards: [
        board('Board', day(loadW, seed, stepMin)),
        board('Stage', day(stageW, seed + 1, stepMin), { shedBelowSoc: 0.35 }),
        board('Engine', day(250, seed + 2, stepMin), { onlyWithGenerator: true }),
      ],
      ...(isCurved
        ? {
            efficiencyW: Float64Array.of(200, 2000, 5000),
            efficiency: Float64Array.of(efficiency, 0.96, 0.93),
          }
        : { efficiency: Float64Array.of(efficiency) }),
      sunDcW: bell(dcW),
      sunAcW: bell(acW),
      ...(hasEngine
        ? {
            generator: {
              ...generator,
              fuelL,
              lineVa: reach === 0 ? [] : [0, 1, 2].map((at) => (at < reach ? 2500 : 0)),
            },
          }
        : {}),
    }),
  );

/** Outages of a day and a half from any charge, in which something may fail. */
export const anyRun: fc.Arbitrary<OutageRun> = fc
  .record({
    startSoc: share,
    startMinute: fc.integer({ min: 0, max: MINUTES_OF_DAY - 1 }),
    clearness: fc.array(share, { minLength: 1, maxLength: 3 }),
    seed: fc.integer({ min: 0, max: 1000 }),
    lose: fc.constantFrom('unit' as const, 'module' as const, undefined),
  })
  .map(({ startSoc, startMinute, clearness, seed, lose }) =>
    run({
      startSoc,
      startMinute,
      clearness,
      minutes: 2000,
      chance: chanceOf(seed, 0),
      lose: lose === undefined ? undefined : { what: lose, minute: 700 },
    }),
  );
