import { describe, expect, it } from 'vitest';
import { chanceOf, next } from '../rehearse/chance.ts';
import { measureCurrent } from './currentMeasure.ts';
import { halfCycleRms } from './cycles.ts';
import { harmonicsOf } from './harmonics.ts';
import { columnsOf, pyramidOf } from './pyramid.ts';
import { measureTransfer, type VoltageExpectation } from './transferMeasure.ts';
import { unbalanceOf } from './unbalance.ts';

const MAINS: VoltageExpectation = { nominalV: 230, nominalHz: 50, band: 0.06 };
const PEAK = 230 * Math.SQRT2;

/** A signal of some length at 20 kHz (or another rate), by a function of time. */
const signal = (lengthS: number, at: (t: number) => number, rateHz = 20_000) => ({
  rateHz,
  samples: Float64Array.from({ length: Math.round(lengthS * rateHz) }, (_, index) => at(index / rateHz)),
});
const sine = (t: number, hz = 50, degrees = 0): number =>
  PEAK * Math.sin(2 * Math.PI * hz * t + (degrees * Math.PI) / 180);

/** The grid until a time, nothing, then the inverter with a phase of its own. */
const transfer = (offS: number, onS: number, hz = 50, degrees = 0, rateHz = 20_000) =>
  signal(0.6, (t) => (t < offS ? sine(t) : t < onS ? 0 : sine(t, hz, degrees)), rateHz);

describe('a gap of known length', () => {
  it.each([
    // [off at, on at, gap in ms]
    ['at the peak', 0.205, 0.215, 10],
    ['at a crossing', 0.2, 0.21, 10],
    ['a short one', 0.2033, 0.2073, 4],
    ['a long one', 0.203, 0.323, 120],
    ['a whole cycle', 0.2042, 0.2242, 20],
  ])('%s', (_, off, on, ms) => {
    const { gap } = measureTransfer(transfer(off, on), MAINS);
    // A sine that ends at its crossing is itself nothing there: by so much an edge cannot be told.
    expect(Math.abs(((gap?.toS ?? 0) - (gap?.fromS ?? 0)) * 1000 - ms)).toBeLessThan(0.3);
  });

  it('finds none in an unbroken sine, at any phase and frequency', () => {
    for (const hz of [49, 50, 51.3, 60])
      for (const degrees of [0, 17, 90, 200])
        expect(
          measureTransfer(
            signal(0.4, (t) => sine(t, hz, degrees)),
            MAINS,
          ).gap,
        ).toBeUndefined();
  });

  it('finds it in noise of a hundredth, from a seed', () => {
    const chance = chanceOf(7, 0);
    const clean = transfer(0.205, 0.217);
    const noisy = {
      ...clean,
      samples: clean.samples.map((value) => value + (next(chance) - 0.5) * 0.02 * PEAK),
    };
    const { gap } = measureTransfer(noisy, MAINS);
    expect(((gap?.toS ?? 0) - (gap?.fromS ?? 0)) * 1000).toBeCloseTo(12, 0);
  });

  it('takes the offset of a probe off', () => {
    const shifted = transfer(0.205, 0.215);
    const { gap } = measureTransfer(
      { ...shifted, samples: shifted.samples.map((value) => value + 12) },
      MAINS,
    );
    expect(((gap?.toS ?? 0) - (gap?.fromS ?? 0)) * 1000).toBeCloseTo(10, 0);
  });
});

describe('what comes after it', () => {
  it.each([
    [0, 30],
    [0, -75],
    [0, 180],
  ])('a phase that jumps from %s to %s degrees', (_, degrees) => {
    const { phaseJumpDeg } = measureTransfer(transfer(0.205, 0.215, 50, degrees), MAINS);
    const off = Math.abs((((phaseJumpDeg ?? 0) - degrees + 540) % 360) - 180);
    expect(off).toBeLessThan(0.5);
  });

  it('a jump over a gap that is no share of a cycle', () => {
    const { phaseJumpDeg } = measureTransfer(transfer(0.2031, 0.2184, 50, 50), MAINS);
    expect(phaseJumpDeg).toBeCloseTo(50, 0);
  });

  it('the frequency of the inverter', () => {
    const { frequencyHz, furthestHz } = measureTransfer(transfer(0.205, 0.215, 50.4), MAINS);
    expect(frequencyHz).toBeCloseTo(50.4, 3);
    expect(furthestHz).toBeCloseTo(50.4, 2);
  });

  it('a frequency that falls by 2 Hz in a second', () => {
    // Phase 2π(50 t − t²): f = 50 − 2 t.
    const falling = signal(1, (t) => PEAK * Math.sin(2 * Math.PI * (50 * t - t * t)));
    expect(measureTransfer(falling, MAINS).slopeHzPerS).toBeCloseTo(-2, 1);
  });

  it('an overshoot of 12 % for one cycle', () => {
    const high = signal(0.6, (t) => (t < 0.205 ? sine(t) : t < 0.215 ? 0 : sine(t) * (t < 0.235 ? 1.12 : 1)));
    const found = measureTransfer(high, MAINS);
    expect(found.overshoot).toBeCloseTo(0.12, 3);
    // The last half-cycle value above 6 % ends with the high cycle; the next is inside.
    expect(found.backInBandS).toBeGreaterThan(0.03);
    expect(found.backInBandS).toBeLessThan(0.06);
  });

  it.each<[string, (t: number) => number, number]>([
    ['a gap alone counts as it is measured', (t) => (t >= 0.2 && t < 0.212 ? 0 : 1), 12],
    // Ten half cycles lie inside.
    ['a dip to 50 % for five cycles', (t) => (t >= 0.2 && t < 0.3 ? 0.5 : 1), 100],
    ['a dip to 75 % drops nothing', (t) => (t >= 0.2 && t < 0.3 ? 0.75 : 1), 0],
    ['a gap of 20 ms in a dip of 100 ms', (t) => (t < 0.2 || t >= 0.3 ? 1 : t < 0.22 ? 0 : 0.4), 100],
    ['two dips: the longer', (t) => ((t >= 0.1 && t < 0.14) || (t >= 0.3 && t < 0.38) ? 0.4 : 1), 80],
  ])('what loads do not hold through: %s', (_, share, ms) => {
    const { lowS } = measureTransfer(
      signal(0.6, (t) => sine(t) * share(t)),
      MAINS,
    );
    expect(Math.abs(lowS * 1000 - ms)).toBeLessThanOrEqual(ms === 12 ? 1 : 10 + 1e-6);
  });

  it('a dip to 70 % for five cycles, no gap', () => {
    const dipped = signal(0.6, (t) => sine(t) * (t >= 0.2 && t < 0.3 ? 0.7 : 1));
    const { gap, dip } = measureTransfer(dipped, MAINS);
    expect(gap).toBeUndefined();
    expect(dip?.lowestV).toBeCloseTo(161, 1);
    expect(dip?.lengthS).toBeCloseTo(0.1, 1);
    expect(Math.abs((dip?.lengthS ?? 0) - 0.1)).toBeLessThan(0.0151);
  });

  it('a voltage that does not come back is never inside', () => {
    const gone = signal(0.4, (t) => (t < 0.205 ? sine(t) : 0));
    const found = measureTransfer(gone, MAINS);
    expect(found.backInBandS).toBeUndefined();
    expect(found.frequencyHz).toBeUndefined();
  });
});

describe('currents', () => {
  it('peak, charge and I²t of ten cycles of 10 A', () => {
    const current = signal(0.2, (t) => 10 * Math.SQRT2 * Math.sin(2 * Math.PI * 50 * t));
    const found = measureCurrent(current, 50);
    expect(found?.peakA).toBeCloseTo(14.142, 2);
    // ∫|i| = 2√2/π · I · t = 0.9003 · 10 · 0.2; ∫i² = I² · t = 100 · 0.2.
    expect(found?.chargeAs).toBeCloseTo(1.8006, 3);
    expect(found?.i2tA2s).toBeCloseTo(20, 1);
    expect(found?.inrushS).toBe(0);
  });

  it('a start of six times for 0.3 s', () => {
    const start = signal(1, (t) => (t < 0.3 ? 6 : 1) * 5 * Math.SQRT2 * Math.sin(2 * Math.PI * 50 * t));
    const found = measureCurrent(start, 50);
    expect(found?.highestRmsA).toBeCloseTo(30, 1);
    expect(found?.settledRmsA).toBeCloseTo(5, 2);
    expect(found?.inrushS).toBeCloseTo(0.3, 1);
    // 30² · 0.3 + 5² · 0.7 = 287.5 A²s.
    expect(found?.i2tA2s).toBeCloseTo(287.5, 0);
  });

  it('needs two samples', () =>
    expect(
      measureCurrent(
        signal(0.00005, () => 1),
        50,
      ),
    ).toBeUndefined());
});

describe('shape', () => {
  it('harmonics of known shares, at a frequency that fits no bin', () => {
    const mixed = signal(0.4, (t) => {
      const w = 2 * Math.PI * 49.7 * t;
      return (
        PEAK * (Math.sin(w) + 0.05 * Math.sin(3 * w + 1) + 0.03 * Math.sin(5 * w) + 0.002 * Math.sin(39 * w))
      );
    });
    const found = harmonicsOf(mixed, 49.7, 0.05);
    const share = (order: number): number => found?.shares.find((one) => one.order === order)?.share ?? 0;
    expect(found?.fundamental).toBeCloseTo(230, 1);
    expect(share(3)).toBeCloseTo(0.05, 4);
    expect(share(5)).toBeCloseTo(0.03, 4);
    expect(share(39)).toBeCloseTo(0.002, 4);
    expect(share(7)).toBeLessThan(1e-4);
    // √(5² + 3² + 0.2²) %.
    expect(found?.distortion).toBeCloseTo(0.05834, 4);
  });

  it('leaves out what the sampling cannot see', () => {
    const slow = signal(0.4, (t) => sine(t), 1000);
    expect(harmonicsOf(slow, 50, 0)?.shares.at(-1)?.order).toBe(9);
  });

  it('unbalance of 230, 230 and 210 V', () => {
    // U_2 / U_1 = |20/3| / (670/3) = 20 / 670.
    const three = [230, 230, 210].map((volts, index) =>
      signal(0.3, (t) => volts * Math.SQRT2 * Math.sin(2 * Math.PI * 50 * t - (index * 2 * Math.PI) / 3)),
    );
    const [a, b, c] = three;
    if (a === undefined || b === undefined || c === undefined) throw new Error('There are three.');
    expect(unbalanceOf([a, b, c], 50, 0)).toBeCloseTo(20 / 670, 5);
    // The order in which somebody clipped the probes makes no difference.
    expect(unbalanceOf([a, c, b], 50, 0)).toBeCloseTo(20 / 670, 5);
  });

  it('RMS of each half cycle of a plain sine is its RMS', () => {
    for (const { rms } of halfCycleRms(
      signal(0.2, (t) => sine(t)),
      50,
    ))
      expect(rms).toBeCloseTo(230, 3);
  });
});

describe('the picture of many samples', () => {
  it('loses no spike, at any width', () => {
    const samples = new Float64Array(200_000);
    samples[123_457] = 9;
    samples[77_777] = -4;
    const pyramid = pyramidOf(samples);
    for (const columns of [3, 100, 777, 5000]) {
      const pairs = columnsOf(pyramid, 0, samples.length, columns);
      expect(Math.max(...pairs)).toBe(9);
      expect(Math.min(...pairs)).toBe(-4);
    }
  });

  it('shows the samples themselves once they fit', () => {
    const pyramid = pyramidOf(Float64Array.from([1, 5, -2, 3]));
    expect([...columnsOf(pyramid, 0, 4, 4)]).toEqual([1, 1, 5, 5, -2, -2, 3, 3]);
  });
});
