import { describe, expect, it } from 'vitest';
import { factorsOf, tabulatedA } from './ampacity.ts';

const laid = { method: 'C', ambientC: 30, grouped: 1, loadedConductors: 2, neutralCounts: false } as const;

describe('code tables', () => {
  it.each([
    ['metric', { insulation: 'PVC70' }, 2.5, 27],
    ['metric', { insulation: 'XLPE90', loadedConductors: 3, method: 'B1' }, 35, 144],
    ['metric', { insulation: '75C' }, 2.5, 'not tabulated'],
    ['north-american', { insulation: '75C' }, 33.6, 115],
    // Between two rows the thinner counts, and below the thinnest there is none.
    ['metric', { insulation: 'PVC70' }, 3, 27],
    ['metric', { insulation: 'PVC70' }, 0.75, 'not tabulated'],
  ] as const)('%s %j of %d mm²: %s', (profile, how, areaMm2, ampacity) =>
    expect(tabulatedA(profile, { ...laid, ...how }, areaMm2)).toBe(ampacity),
  );

  it.each([
    ['metric', 'PVC70', 38, 0.87],
    ['metric', 'PVC70', 62, 'not tabulated'],
    ['north-american', '90C', 51, 0.76],
  ] as const)('%s ambient factor of %s at %f °C: %s', (profile, insulation, ambientC, factor) =>
    expect(factorsOf(profile, { ...laid, insulation, ambientC }).ambient).toBe(factor),
  );
});
