import { describe, expect, it } from 'vitest';
import { chanceOf, next, normal } from './chance.ts';
import { driversOf } from './drivers.ts';
import { nightColumns, nightRun, type NightsRun, placeNights, playNights, summarise } from './nights.ts';
import { runOutage } from './outage.ts';
import { PATTERNS, RURAL, typedPattern } from './patterns.ts';
import { type Plant } from './plant.ts';
import { clearSky } from './sun.ts';
import { generator, plant } from '../testkit/plant.ts';

describe('chance', () => {
  it('is even, normal where it should be, and the same again', () => {
    const chance = chanceOf(7, 3);
    const drawn = Array.from({ length: 20_000 }, () => next(chance));
    expect(drawn.reduce((sum, one) => sum + one, 0) / drawn.length).toBeCloseTo(0.5, 2);
    const bell = chanceOf(8, 0);
    const normals = Array.from({ length: 20_000 }, () => normal(bell));
    expect(normals.reduce((sum, one) => sum + one * one, 0) / normals.length).toBeCloseTo(1, 1);
    expect(next(chanceOf(7, 3))).toBe(drawn[0]);
    expect(next(chanceOf(7, 4))).not.toBe(drawn[0]);
  });

  it.each([
    ['city', 60, 300],
    ['rural', 240, 1200],
    ['storm', 960, 4320],
  ])('%s: half within %d minutes, one in twenty beyond %d', (id, middle, long) => {
    const pattern = PATTERNS.find((one) => one.id === id) ?? RURAL;
    const lengths = Array.from({ length: 8000 }, (_, at) => pattern.draw(chanceOf(1, at))).sort(
      (a, b) => a - b,
    );
    expect((lengths[4000] ?? 0) / middle).toBeCloseTo(1, 1);
    expect((lengths[7600] ?? 0) / long).toBeCloseTo(1, 1);
  });
});

describe('many nights', () => {
  const nights = (over: Partial<NightsRun> = {}): NightsRun => ({
    seed: 5,
    nights: 400,
    pattern: RURAL,
    startSoc: 0.5,
    targetMinutes: 240,
    generatorFromSoc: 0.2,
    generatorToSoc: 0.8,
    handMinutes: 30,
    ...over,
  });
  const played = (one: Plant, how: NightsRun) => {
    const columns = nightColumns(one, how.nights);
    playNights(one, how, columns, 0, how.nights);
    return columns;
  };

  it('come to the same in one go, in two halves, and from their middle', () => {
    const whole = played(plant(), nights());
    const halves = nightColumns(plant(), 400);
    playNights(plant(), nights(), halves, 200, 400);
    playNights(plant(), nights(), halves, 0, 200);
    expect(halves).toEqual(whole);
    // On two threads: each plays into columns of its own, which are put in their place.
    const placed = nightColumns(plant(), 400);
    for (const [from, to] of [
      [150, 400],
      [0, 150],
    ] as const) {
      const part = nightColumns(plant(), to - from);
      playNights(plant(), nights(), part, from, to, from);
      placeNights(placed, part, from);
    }
    expect(placed).toEqual(whole);
    const again = runOutage(plant(), nightRun(nights(), 123));
    expect(again.lastedMinutes).toBe(whole.lasted[123]);
  });

  it('match a spread that is known: 2, 4 or 8 h, carried while 4000 Wh last', () => {
    // At 1000 W times a factor of the night: dark in the 8 h ones, and in 4 h ones above 4 h · (P / 0.9 + 50) = 4000 Wh, P = 855 W.
    const how = nights({ nights: 3000, pattern: typedPattern([2, 4, 8]) });
    const summary = summarise(plant(), how, played(plant(), how));
    // P(2 h) + P(4 h and factor below 0.855) = 1/3 + 1/3 · Φ((0.855 − 1) / 0.15) = 1/3 + 1/3 · 0.167 = 0.389
    expect(summary.carried).toBeCloseTo(0.389, 1);
    expect(Math.abs(summary.carried - 0.389)).toBeLessThan(0.03);
    expect(summary.boards[0]?.worst1).toBeLessThan(summary.boards[0]?.middle ?? 0);
    // The worst are of 8 h: the hours at each rank are those of one outage, and make the share of that rank.
    const [hours] = summary.boardHours;
    expect(hours?.worst1.ofH).toBe(8);
    for (const rank of ['worst1', 'worst5', 'middle'] as const)
      expect((hours?.[rank].servedH ?? 0) / (hours?.[rank].ofH ?? 1)).toBeCloseTo(
        summary.boards[0]?.[rank] ?? 0,
        12,
      );
  });

  it('have bands over time that are counted, not guessed', () => {
    // Nights of 4 h: each hour takes (1000 · f / 0.9 + 50) Wh of 10 kWh, f the factor of the night (its quarters average out).
    const how = nights({ nights: 2000, pattern: typedPattern([4]), startSoc: 0.9 });
    const columns = played(plant(), how);
    const { bands } = summarise(plant(), how, columns);
    expect(bands.map(({ hour, nights: count }) => [hour, count])).toEqual([
      [0, 2000],
      [1, 2000],
      [2, 2000],
      [3, 2000],
    ]);
    expect(bands[0]?.soc).toEqual([0.9, 0.9, 0.9, 0.9, 0.9]);
    // After 3 h: 0.9 − 3 · (111.11 · f + 5) / 1000, in the middle f = 1: 0.552; the worst 5 of 100 have f = 1 + 1.645 · 0.15: 0.469.
    const [worst5, worst25, middle, best25, best5] = bands[3]?.soc ?? [];
    expect(Math.abs((middle ?? 0) - 0.552)).toBeLessThan(0.011);
    expect(Math.abs((worst5 ?? 0) - 0.469)).toBeLessThan(0.016);
    // 0.6745 deviations either way: 0.552 ± 3 · 111.11 · 0.1012 / 1000.
    expect(Math.abs((worst25 ?? 0) - 0.518)).toBeLessThan(0.016);
    expect(Math.abs((best25 ?? 0) - 0.586)).toBeLessThan(0.016);
    expect(Math.abs((best5 ?? 0) - 0.635)).toBeLessThan(0.016);
    expect(bands.every(({ dark }) => dark === 0)).toBe(true);
  });

  it('count the dark ones beside them, and stop where too few last on', () => {
    // From half full 4000 Wh last 3.44 h at the average: dark after 4 h unless f is below 0.855, 83 of 100.
    const how = nights({ nights: 1200, pattern: typedPattern([6]) });
    const { bands } = summarise(plant(), how, played(plant(), how));
    expect(bands.map(({ dark }) => dark > 0.5)).toEqual([false, false, false, false, true, true]);
    expect(Math.abs((bands[4]?.dark ?? 0) - 0.833)).toBeLessThan(0.04);
    expect(summarise(plant(), nights({ nights: 19 }), played(plant(), nights({ nights: 19 }))).bands).toEqual(
      [],
    );
  });

  it('name the worst of them, each as it plays again', () => {
    const columns = played(plant(), nights());
    const { worst } = summarise(plant(), nights(), columns);
    const dark = Array.from(columns.minutes, (minutes, night) => minutes - (columns.lasted[night] ?? 0));
    expect(worst.map(({ minutes, lastedMinutes }) => minutes - lastedMinutes)).toEqual(
      [...dark].sort((a, b) => b - a).slice(0, 10),
    );
    for (const { night, startMinute, lastedMinutes } of worst) {
      const again = nightRun(nights(), night);
      expect(again.startMinute).toBe(startMinute);
      expect(runOutage(plant(), again).lastedMinutes).toBe(lastedMinutes);
    }
    const easy = nights({ pattern: typedPattern([0.5]) });
    expect(summarise(plant(), easy, played(plant(), easy)).worst).toEqual([]);
  });

  it('say which choice moves the answer most, over the same nights', () => {
    const how = nights();
    const now = summarise(plant({ generator }), how, played(plant({ generator }), how));
    const drivers = driversOf(plant({ generator }), how, now);
    expect(drivers.map(({ title }) => title)).toEqual(
      expect.arrayContaining(['One module more', 'A reserve of 70 %', 'A generator half as large again']),
    );
    expect(drivers.every(({ gain }, at) => at === 0 || gain <= (drivers[at - 1]?.gain ?? 0))).toBe(true);
  });
});

describe('the sun', () => {
  it('by hand: equinox on the equator, flat, noon: 1361 · 0.7 · 1.1 = 1048 W/m²; none at midnight', () => {
    // Day 81: declination 0, the sun stands at the zenith, air mass 1.
    const light = clearSky(0, 81, { tiltDeg: 0, directionDeg: 180 });
    expect(light[720]).toBeCloseTo(1361 * 0.7 * 1.1, 0);
    expect(light[0]).toBe(0);
    // Three hours before noon: h = 45°, AM = √2, 1361 · 0.7^(√2^0.678) = 868 W/m², on the flat 868 · (0.7071 + 0.1).
    expect(light[540]).toBeCloseTo(868.3 * 0.8071, -1);
  });
  it('comes from the south in the north, and a steep roof gains in winter', () => {
    const total = (day: number, tiltDeg: number, directionDeg: number): number =>
      clearSky(51, day, { tiltDeg, directionDeg }).reduce((sum, one) => sum + one, 0);
    expect(total(355, 60, 180)).toBeGreaterThan(total(355, 10, 180));
    expect(total(172, 10, 180)).toBeGreaterThan(total(172, 60, 180));
    expect(total(172, 30, 180)).toBeGreaterThan(total(172, 30, 0));
    expect(total(100, 40, 90)).toBeCloseTo(total(100, 40, 270), -2);
  });
});
