import type { Transfer } from '@bastion/core';
import { describe, expect, it } from 'vitest';
import { frequencyLane, lanesOf } from './lanes.ts';
import { pathOf, placeAt, type Series, spansOf, valueAt } from './series.ts';
import { held, marksOf, showing, timeWords, zoomed } from './timeScale.ts';

const series = (...points: (readonly [number, number])[]): Series => ({
  label: 'x',
  ink: '',
  atS: Float64Array.from(points, ([seconds]) => seconds),
  values: Float64Array.from(points, ([, value]) => value),
});

describe('the time scale', () => {
  it.each([
    [{ fromS: -0.02, toS: 0.2 }, [0, 0.05, 0.1, 0.15, 0.2]],
    [{ fromS: 0, toS: 14_400 }, [0, 1800, 3600, 5400, 7200, 9000, 10_800, 12_600, 14_400]],
    [{ fromS: 3600, toS: 3605 }, [3600, 3601, 3602, 3603, 3604, 3605]],
  ])('marks %j at whole steps', (view, marks) => {
    marksOf(view).forEach((mark, at) => expect(mark).toBeCloseTo(marks[at] ?? NaN, 9));
    expect(marksOf(view).length).toBe(marks.length);
  });

  it.each([
    [0.02, '20 ms'],
    [-0.02, '-20 ms'],
    [5, '5 s'],
    [600, '10 min'],
    [7200, '2 h'],
    [86_400, '24 h'],
  ])('%s s is read as %s', (seconds, words) => expect(timeWords(seconds)).toBe(words));

  it('zooms around a moment that stays where it is, never outside the whole nor finer than can be read', () => {
    expect(zoomed({ fromS: 0, toS: 100 }, 0.5, 50, 1000)).toEqual({ fromS: 25, toS: 75 });
    expect(zoomed({ fromS: 0, toS: 100 }, 100, 50, 1000)).toEqual({ fromS: -0.02, toS: 1000 });
    expect(held({ fromS: 5, toS: 5 }, 1000).toS - 5).toBeCloseTo(0.01, 9);
    expect(showing({ fromS: 0, toS: 10 }, 500, 1000)).toEqual({ fromS: 495, toS: 505 });
    expect(showing({ fromS: 0, toS: 10 }, 5, 1000)).toEqual({ fromS: 0, toS: 10 });
  });
});

describe('a series', () => {
  const one = series([0, 1], [10, 5], [10.001, 1], [20, NaN]);

  it('holds each value until the next, and tells nothing before the first or where nothing is told', () => {
    expect([-1, 0, 9.9, 10, 15, 25].map((at) => valueAt(one, at))).toEqual([
      undefined,
      1,
      1,
      5,
      1,
      undefined,
    ]);
    expect(placeAt(one.atS, 10)).toBe(1);
  });

  it('loses no peak, however short it is in the picture', () => {
    // A millisecond of 5 in a view of an hour: at the top of the picture all the same.
    expect(pathOf(one, { fromS: 0, toS: 3600 }, 5)).toContain(' 0.0');
    expect(pathOf(series([0, 1], [10, 2]), { fromS: 0, toS: 3600 }, 5)).not.toContain(' 0.0');
  });

  it('breaks where nothing is told', () => {
    const broken = pathOf(series([0, 1], [100, NaN], [200, 2]), { fromS: 0, toS: 300 }, 5);
    expect(broken.match(/M/gu)).toHaveLength(2);
  });
});

it('spans join minutes that follow each other', () =>
  expect(spansOf(5, (minute) => minute !== 2)).toEqual([
    { fromS: 0, toS: 120 },
    { fromS: 180, toS: 300 },
  ]));

describe('lanes', () => {
  const column = (value: number): Float64Array => new Float64Array(3).fill(value);
  const played = {
    soc: column(0.5),
    wantedW: column(1000),
    servedW: column(1000),
    sunW: column(0),
    generatorW: column(0),
    batteryW: column(1100),
    live: column(1),
    boards: new Uint32Array(3).fill(1),
    lineShare: [Float64Array.of(0.4, 0.25, 0.3)],
  };
  const plant = {
    ratedW: 4000,
    nominalV: 50,
    mostDischargeW: 5000,
    floorSoc: 0.1,
    boards: [
      {
        name: 'Board',
        partitionId: 'p',
        shedBelowSoc: undefined,
        onlyWithGenerator: false,
        minuteW: new Float64Array(1440),
      },
    ],
    generator: undefined,
  };
  const transfer = (tripsAtS?: number): Transfer => ({
    gapMs: 20,
    gapSetBy: '',
    drops: [],
    missing: [],
    events: [],
    lines: [
      {
        line: 'L1',
        ratedVa: 5000,
        runningVa: 2000,
        steps: [{ fromS: 0.02, toS: 1.02, va: 10_000, voltage: 0.9 }],
        tripsAtS,
      },
    ],
  });
  const shown = (of: Transfer, key: string, seconds: number): (number | undefined)[] => {
    const lane = lanesOf(plant, of, played, undefined).find((one) => one.key === key);
    return lane?.kind === 'figures' ? lane.series.map((one) => valueAt(one, seconds)) : [];
  };

  it('show the gap, the pickup, and then the minutes', () => {
    const voltages = [-0.01, 0.01, 0.5, 2, 100].map((at) => shown(transfer(), 'voltage', at)[0]);
    expect(voltages).toEqual([100, 0, 90, 100, 100]);
    expect(shown(transfer(), 'load', 0.5)).toEqual([200]);
    expect(shown(transfer(), 'load', 2)).toEqual([40]);
    // From the second minute on as the minutes have it, line by line.
    expect(shown(transfer(), 'load', 100)).toEqual([25]);
    expect(shown(transfer(), 'current', 100)).toEqual([22, 0]);
  });

  it('the frequency of a generator falls with its load, and is not told where its droop is not stated', () => {
    const engine = {
      name: '',
      start: 'hand',
      warmUpMin: 0,
      mostW: 4000,
      lineVa: [],
      targetW: 0,
      chargeW: 0,
      idleLPerH: 0,
      lPerKwh: 0,
      fuelL: 1,
    } as const;
    const hertz = (droop: number | undefined, seconds: number): number | undefined => {
      const minutes = { ...played, generatorW: Float64Array.of(0, 1000, 4000) };
      const lane = frequencyLane({ ...plant, generator: { ...engine, droop } }, transfer(), minutes, 50);
      const [one] = lane.kind === 'figures' ? lane.series : [];
      return one && valueAt(one, seconds);
    };
    // 50 · (1 + 0.04 · (1 − 1000 / 4000)) = 51.5 Hz, and 50 Hz with all of its load.
    expect([0.01, 1, 61, 121].map((at) => hertz(0.04, at))).toEqual([undefined, 50, 51.5, 50]);
    expect(hertz(undefined, 61)).toBeUndefined();
  });

  it('a line that nothing draws from is live all the same', () => {
    const idle = { ...played, servedW: column(0) };
    const lane = lanesOf(plant, transfer(), idle, undefined).find(({ key }) => key === 'voltage');
    const [line] = lane?.kind === 'figures' ? lane.series : [];
    expect(line && valueAt(line, 100)).toBe(100);
  });

  it('a line that trips takes the others of its set with it', () => {
    const one = transfer(0.5);
    const [l1] = one.lines;
    if (l1 === undefined) throw new Error('It has a line.');
    const two: Transfer = { ...one, lines: [l1, { ...l1, line: 'L2', tripsAtS: undefined }] };
    expect([0.25, 0.6, 100].map((at) => shown(two, 'voltage', at))).toEqual([
      [90, 90],
      [0, 0],
      // From the first minute on it holds only once somebody has reset the set: nothing is told.
      [undefined, undefined],
    ]);
  });

  it('a line that trips is dark, and not told of by the minutes', () => {
    const voltages = [0.25, 0.5, 2, 59, 100].map((at) => shown(transfer(0.5), 'voltage', at)[0]);
    expect(voltages).toEqual([90, 0, 0, 0, undefined]);
  });

  it('a kept run is drawn no further than it went', () => {
    const short = { ...played, soc: column(0.5).slice(0, 2), servedW: column(1).slice(0, 2) };
    const lane = lanesOf(plant, undefined, played, short).find(({ key }) => key === 'soc');
    const kept = lane?.kind === 'figures' ? lane.series.find(({ label }) => label === 'kept run') : undefined;
    expect([60, 119, 120, 600].map((at) => kept && valueAt(kept, at))).toEqual([
      50,
      50,
      undefined,
      undefined,
    ]);
  });
});
