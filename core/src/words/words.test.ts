import { describe, expect, it } from 'vitest';
import { codeProfile } from '../codes/profile.ts';
import { baseDesign } from '../testkit/designs.ts';
import { describePlace, describePlaces } from './places.ts';
import { counted, formatQuantity } from './quantity.ts';

describe('words', () => {
  it.each([
    [9523.8, 'VA', '9.52 kVA'],
    [999.4, 'W', '999 W'],
    [0.123, 'fraction', '12.3 %'],
    [-0.00001, 'A', '0 A'],
    [40, 'A', '40 A'],
    [Infinity, 'h', 'unlimited h'],
  ])('%f %s reads %s', (value, unit, text) => expect(formatQuantity(value, unit)).toBe(text));

  it('counts', () => expect([counted(1, 'unit'), counted(0, 'unit')]).toEqual(['1 unit', '0 units']));

  it('names places by what people called things', () => {
    const design = baseDesign();
    expect(describePlace(design, ['circuits', 'c1', 'items', 'i1', 'runningW'])).toBe(
      'running power of Heater i1',
    );
    expect(describePlace(design, ['stacks', 's', 'units', 'u1', 'firmware'])).toBe(
      'firmware of unit 1 of Stack',
    );
    expect(describePlace(design, ['stacks', 's', 'bank', 'breakerA'])).toBe('battery breaker of Stack');
    expect(describePlace(design, ['site', 'supply'])).toBe('supply');
    expect(describePlaces(design, [['a'], ['b'], ['c'], ['d'], ['e']])).toBe('a; b; c; and 2 more');
  });
});

describe('code profiles', () => {
  it.each([
    ['metric', 'PVC70', 2, 'C', 2.5, 27],
    ['metric', 'XLPE90', 3, 'B1', 35, 144],
    ['metric', 'PVC70', 2, 'D1', 2.5, 'not tabulated'],
    ['north-american', '75C', 3, '', '2 AWG', 115],
    ['north-american', '75C', 3, '', '13 AWG', 'not tabulated'],
  ] as const)('%s %s %i %s %s: %s', (profile, insulation, loaded, method, size, ampacity) =>
    expect(codeProfile(profile).ampacityA(insulation, loaded, method, size)).toBe(ampacity),
  );

  it.each([
    ['metric', 'PVC70', 38, 0.87],
    ['metric', 'PVC70', 62, 'not tabulated'],
    ['north-american', '90C', 51, 0.76],
  ] as const)('%s ambient factor of %s at %f °C: %s', (profile, insulation, ambientC, factor) =>
    expect(codeProfile(profile).ambientFactor(insulation, ambientC)).toBe(factor),
  );
});
