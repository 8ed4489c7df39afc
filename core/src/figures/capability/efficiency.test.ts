import { expect, it } from 'vitest';
import { efficiencyAt } from './efficiency.ts';

const type = {
  efficiency: 0.94,
  ratedW: 5000,
  efficiencyPoints: [
    { share: 0.1, efficiency: 0.85 },
    { share: 0.5, efficiency: 0.95 },
    { share: 2, efficiency: 0.89 },
  ],
};

it.each([
  ['one figure without points', { efficiency: 0.94, ratedW: 5000 }, 10000, 0.94],
  ['flat below the first point', type, 100, 0.85],
  ['1500 W are 0.3 of rated, half way from 0.1 to 0.5: 0.90', type, 1500, 0.9],
  ['a start of 7500 W, 1.5 of rated: 0.95 − 0.06 · 1 / 1.5 = 0.91', type, 7500, 0.91],
  ['flat above the last', type, 20000, 0.89],
])('%s', (_, figures, watts, expected) => expect(efficiencyAt(figures, watts)).toBeCloseTo(expected, 12));
