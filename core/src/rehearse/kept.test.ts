import { describe, expect, it } from 'vitest';
import type { KeptRehearsal } from '../design/rehearsals.ts';
import { generator, plant, steady, sun } from '../testkit/plant.ts';
import { askedWords, bandRows, foundWords, keptBands } from './keptWords.ts';
import type { Plant } from './plant.ts';
import { plantKey } from './plantKey.ts';

describe('the name of what was played from', () => {
  it('is the same for the same figures', () => expect(plantKey(plant())).toBe(plantKey(plant())));

  it.each<[string, Partial<Plant>]>([
    [
      'one watt of load in one minute',
      { boards: plant().boards.map((board) => ({ ...board, minuteW: steady(1000).with(700, 1001) })) },
    ],
    ['a shed level', { boards: plant().boards.map((board) => ({ ...board, shedBelowSoc: 0.4 })) }],
    ['capacity', { fullWh: 10_001 }],
    ['sun', { sunDcW: sun(1) }],
    ['sun on the other side', { sunAcW: sun(1) }],
    ['efficiency', { efficiency: Float64Array.of(0.91) }],
    ['where the generator is called', { callLevels: { fromSoc: 0.3, toSoc: 0.8 } }],
    ['a generator', { generator }],
  ])('is another for another %s', (_, over) => expect(plantKey(plant(over))).not.toBe(plantKey(plant())));
});

const common = {
  id: 'a',
  stackId: 's',
  revision: 7,
  plantKey: 'x',
  generatorH: 0,
  litres: 0,
  unservedKwh: 2.5,
};
const outage: KeptRehearsal = {
  ...common,
  played: 'outage',
  startH: 18.5,
  hours: 24,
  month: 12,
  clearness: 0.5,
  fromFull: false,
  lastedH: 3.2,
  lowestSoc: 0.1,
  servedKwh: 4,
  state: 'over',
  words: 'Dark after 3.2 h.',
};
const nights: KeptRehearsal = {
  ...common,
  played: 'nights',
  seed: 3,
  nights: 10_000,
  patternId: 'typed',
  typedHours: [2, 8],
  fromFull: true,
  carried: 0.4378,
  toTarget: 0.5,
  boards: [{ name: 'Board', worst1: 0.1, worst5: 0.2, middle: 1 }],
  generatorH: 1.5,
  generatorStarts: 1,
  litres: 3,
  overloaded: 0,
};

it.each([
  [outage, '24 h from 18:30 in December, 50 % of a clear sky, from the reserve'],
  [
    { ...outage, seed: 1, lose: { what: 'unit' as const, atH: 2 } },
    '24 h from 18:30 in December, 50 % of a clear sky, from the reserve, chance on the load, seed 1, a unit fails after 2 h',
  ],
  [nights, '10,000 outages, 2, 8 h, each as likely as the others, seed 3, from a full bank'],
  [{ ...nights, patternId: 'rota' }, '10,000 outages, cut by rota, seed 3, from a full bank'],
])('how one was asked for, in words', (kept, words) => expect(askedWords(kept)).toBe(words));

it('what came of them, in words', () => {
  expect(foundWords(outage)).toEqual([
    'Dark after 3.2 h.',
    'Served 4 kWh, not served 2.5 kWh; lowest state of charge 10 %.',
  ]);
  expect(foundWords(nights)).toEqual([
    '43.8 % are carried to their end, 50 % to the hours that the site asks for.',
    'Board is served for 10 % of the outage in the worst 1 of 100, 20 % in the worst 5, 100 % in the middle.',
    'Not served 2.5 kWh on average; a limit of power was met in 0 % of them.',
    'Generator 1.5 h, 3 L.',
  ]);
});

it('a spread is kept at a dozen hours and its last, and stands in rows from the worst to the best', () => {
  const bands = Array.from({ length: 73 }, (_, hour) => ({
    hour,
    nights: 100,
    dark: hour / 100,
    soc: [0.1, 0.2, 0.3, 0.4, 0.5] as const,
  }));
  const kept = keptBands(bands);
  expect(kept.map(({ hour }) => hour)).toEqual([0, 7, 14, 21, 28, 35, 42, 49, 56, 63, 70, 72]);
  expect(keptBands(bands.slice(0, 4)).map(({ hour }) => hour)).toEqual([0, 1, 2, 3]);
  expect(keptBands([])).toEqual([]);
  expect(bandRows({ ...nights, bands: kept })[1]).toEqual([
    '7 h',
    '10 %',
    '20 %',
    '30 %',
    '40 %',
    '50 %',
    '7 %',
  ]);
  expect(bandRows(nights)).toEqual([]);
  expect(bandRows(outage)).toEqual([]);
});
