import { describe, expect, it } from 'vitest';
import { plant, run, steady } from '../testkit/plant.ts';
import { runOutage } from './outage.ts';
import type { Plant } from './plant.ts';
import { litBoards, strainBy } from './strain.ts';

/** Two lines: 2.4 kW and 1.8 kvar on L1 (3 kVA), 1 kW on L2; each line bears 3.2 kVA and 3 kW, all together 6 kW. */
const twoLines = (over: Partial<Plant> = {}): Plant =>
  plant({
    boards: [
      {
        partitionId: 'b',
        name: 'Board',
        shedBelowSoc: undefined,
        onlyWithGenerator: false,
        minuteW: steady(3400),
        lines: [
          { re: steady(2400), im: steady(1800) },
          { re: steady(1000), im: steady(0) },
        ],
      },
    ],
    ratedW: 6000,
    unitCount: 2,
    lostUnit: 'rest-continue',
    limits: {
      names: ['L1', 'L2'],
      totalW: 6000,
      totalVa: 6400,
      lineVa: [3200, 3200],
      lineW: [3000, 3000],
      without: [
        { unitId: 'u1', totalW: 3000, totalVa: 3200, lineVa: [0, 3200], lineW: [0, 3000] },
        { unitId: 'u2', totalW: 3000, totalVa: 3200, lineVa: [3200, 0], lineW: [3000, 0] },
      ],
    },
    ...over,
  });

describe('minutes look at each line', () => {
  it('a line is held to its own limits, all lines to theirs', () => {
    const { lines, most, loadW } = strainBy(twoLines(), 0, 1, undefined);
    // L1: √(2400² + 1800²) / 3200 = 3000 / 3200; in watts 2400 / 3000 is less. L2: 1000 W / 3000 W. All: 3400 / 6000.
    expect(lines.map((line) => line[0])).toEqual([3000 / 3200, 1000 / 3000]);
    expect([most[0], loadW[0]]).toEqual([3000 / 3200, 3400]);
    // Watts govern where they lie nearer to their limit: 2400 / 2000.
    // Behind an autotransformer a line may take all of the set, and the lines together no more: √(3400² + 1800²) / 3000.
    const shared = twoLines();
    const small = { ...shared, limits: shared.limits && { ...shared.limits, totalVa: 3000 } };
    expect(strainBy(small, 0, 1, undefined).most[0]).toBeCloseTo(3847.08 / 3000, 5);
    const tight = twoLines();
    const watts = { ...tight, limits: tight.limits && { ...tight.limits, lineW: [2000, 3000] } };
    expect(strainBy(watts, 0, 1, undefined).most[0]).toBe(1.2);
  });

  it.each([
    ['3 % more is 0.966 of L1: carried', 1.03, 0],
    ['7 % more is 1.003 of L1, and 0.61 of the set: open', 1.07, 10],
  ])('%s', (_name, loadFactor, overloadMinutes) => {
    expect(runOutage(twoLines(), run({ minutes: 10, loadFactor })).overloadMinutes).toBe(overloadMinutes);
  });

  it('a board that is off asks nothing, and a day that a meter has measured lies on the lines as its items do', () => {
    expect(strainBy(twoLines(), 0, 0, undefined).most[0]).toBe(0);
    const base = twoLines();
    const measured = twoLines({
      boards: base.boards.map((board) => ({ ...board, seasonW: [steady(1700), steady(6800)] })),
    });
    expect(strainBy(measured, 0, 1, undefined).lines[0]?.[0]).toBe(1500 / 3200);
    expect(strainBy(measured, 1, 1, undefined).lines[0]?.[0]).toBe(6000 / 3200);
  });

  it.each([0.06, 0.1, 0.12, 0.19, 0.5])(
    'an outage that begins at the level of a stage begins without it: %d',
    (level) => {
      const [board] = plant().boards;
      if (board === undefined) throw new Error('There is a board.');
      // 93 · 0.1 · (1 / 93) rounds to a little more than 0.1, and so do others of these.
      const staged = plant({
        fullWh: 93,
        boards: [{ ...board, shedBelowSoc: level }],
        idleW: 0,
        floorSoc: 0,
      });
      expect(runOutage(staged, run({ startSoc: level, minutes: 1 })).boardMinutes[0]).toBe(0);
    },
  );

  it('a unit that is lost takes its line with it: the other goes on, and what is dark is not served', () => {
    const lost = runOutage(twoLines(), run({ minutes: 60, lose: { what: 'unit', minute: 0, unitId: 'u1' } }));
    // L2 alone: 1000 W for an hour; 2400 W are not served. Its part of the board's energy is 1000 / 3400.
    expect(lost.energy.served).toBeCloseTo(1000, 9);
    expect(lost.energy.unserved).toBeCloseTo(2400, 9);
    expect(lost.boardMinutes[0]).toBeCloseTo((60 * 1000) / 3400, 9);
    const other = runOutage(
      twoLines(),
      run({ minutes: 60, lose: { what: 'unit', minute: 30, unitId: 'u2' } }),
    );
    // Half an hour of all, half an hour of L1.
    expect(other.energy.served).toBeCloseTo(1700 + 1200, 9);
    expect(other.boardMinutes[0]).toBeCloseTo(30 + (30 * 2400) / 3400, 9);
    // A unit that nobody names is the first.
    expect(litBoards(twoLines(), { unitId: undefined })[0]?.minuteW[0]).toBeCloseTo(1000, 9);
  });

  it('a unit that is lost where two feed each line leaves both lines lit, and half of what they bear', () => {
    const pair = twoLines({
      limits: {
        names: ['L1', 'L2'],
        totalW: 6000,
        totalVa: 6400,
        lineVa: [3200, 3200],
        lineW: [3000, 3000],
        without: [{ unitId: 'u1', totalW: 3000, totalVa: 3200, lineVa: [1600, 1600], lineW: [1500, 1500] }],
      },
    });
    // 3000 VA of 1600 VA: open for as long as it lasts.
    const lost = runOutage(pair, run({ minutes: 60, lose: { what: 'unit', minute: 20, unitId: 'u1' } }));
    expect([lost.overloadMinutes, lost.lastedMinutes]).toEqual([40, 20]);
  });
});
