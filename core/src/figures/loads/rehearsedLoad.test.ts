import { describe, expect, it } from 'vitest';
import { chanceOf, next, normal } from '../../rehearse/chance.ts';
import { nightRun } from '../../rehearse/nights.ts';
import { runOutage } from '../../rehearse/outage.ts';
import { nightsRun } from '../../rehearse/rehearse.ts';
import { typedPattern } from '../../rehearse/patterns.ts';
import { plant, steady } from '../../testkit/plant.ts';
import { heater } from '../../testkit/designs.ts';
import { chanceBelow, dayLevels, rehearsedDurationW, rehearsedOf } from './rehearsedLoad.ts';

const always = (average: number) => [{ hours: 24, average }];

/** What a share of sorted figures stays within. */
const within = (figures: readonly number[], share: number): number =>
  [...figures].sort((a, b) => a - b)[Math.ceil(share * figures.length) - 1] ?? NaN;

describe('the rehearsed load', () => {
  it('is what 99 of 100 draws of the rehearsals stay within', () => {
    const chance = chanceOf(7, 0);
    const draws = Array.from(
      { length: 200_000 },
      () => Math.max(0.3, 1 + 0.15 * normal(chance)) * (1 + 0.3 * (next(chance) + next(chance) - 1)),
    );
    for (const share of [0.01, 0.05, 0.5, 0.95, 0.99]) {
      const drawn = within(draws, share);
      expect(rehearsedOf(always(1), share) / drawn, String(share)).toBeCloseTo(1, 2);
      expect(chanceBelow(drawn), String(share)).toBeCloseTo(share, 2);
    }
  });

  it.each([
    // Where nothing runs for half of the day, 99 of 100 of all minutes are 98 of 100 of the others.
    [
      'half of the day',
      [
        { hours: 12, average: 1000 },
        { hours: 12, average: 0 },
      ],
      0.99,
      rehearsedOf(always(1000), 0.98),
    ],
    // Less than a minute in a hundred counts for nothing: 0.2 h are 0.83 %.
    [
      'twelve minutes',
      [
        { hours: 0.2, average: 1e6 },
        { hours: 23.8, average: 0 },
      ],
      0.99,
      0,
    ],
    ['nothing at all', [], 0.99, 0],
  ])('%s', (_name, levels, share, expected) => {
    expect(rehearsedOf(levels, share)).toBeCloseTo(expected, 6);
  });

  it('agrees with the minutes that many nights play', () => {
    const night = steady(800).fill(2000, 18 * 60, 22 * 60);
    const one = plant({
      boards: [
        { partitionId: 'b', name: 'B', shedBelowSoc: undefined, onlyWithGenerator: false, minuteW: night },
      ],
    });
    const run = nightsRun(one, { site: {} }, { nights: 400, pattern: typedPattern([24]) });
    const asked: number[] = [];
    for (let number = 0; number < 400; number += 1)
      runOutage(one, nightRun(run, number), (_, { wantedW }) => asked.push(wantedW));
    const levels = [
      { hours: 20, average: 800 },
      { hours: 4, average: 2000 },
    ];
    for (const share of [0.5, 0.95, 0.99])
      expect(rehearsedOf(levels, share) / within(asked, share), String(share)).toBeCloseTo(1, 1);
  });

  it('takes the day of circuits as the minutes do', () => {
    const item = heater('i', { runningW: 2000, quantity: 2, hoursPerDay: 3, runsFromH: 18, runsToH: 24 });
    const all = heater('j', { runningW: 100, quantity: 1, hoursPerDay: 12 });
    // 4 kW for 3 of 6 h is 2 kW in its window; 100 W for 12 h is 50 W all day.
    expect(dayLevels([{ id: 'c', name: 'C', items: [item, all] }])).toEqual([
      { hours: 18, average: 50 },
      { hours: 6, average: 2050 },
    ]);
  });

  it('has a duration curve that only falls, and is 99 of 100 at its first percent', () => {
    const curve = rehearsedDurationW(always(1000));
    expect(curve[1]).toBeCloseTo(rehearsedOf(always(1000), 0.99), 9);
    expect(curve.every((watts, at) => at === 0 || watts <= (curve[at - 1] ?? 0))).toBe(true);
    expect(curve[100]).toBeLessThan(500);
  });
});
