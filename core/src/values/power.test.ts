import { expect, it } from 'vitest';
import { power, wholePower } from './power.ts';

it.each([
  [2, 10, 1024],
  [0.7, 1.5, Math.sqrt(0.343)],
  [9, 0.5, 3],
  [5, 0, 1],
  [4, -0.5, 0.5],
])('%s to the power of %s is %s', (base, exponent, found) =>
  expect(power(base, exponent)).toBeCloseTo(found, 12),
);

it.each([
  [3, 4, 81],
  [2, 30, 1_073_741_824],
  [10, 0, 1],
])('%s to the whole power of %s is %s', (base, exponent, found) =>
  expect(wholePower(base, exponent)).toBe(found),
);
